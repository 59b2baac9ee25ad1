import { ringPoints } from "@true-spine/core/blade/outline.ts";
import type { FileProof } from "@true-spine/core/heat/schema.ts";
import type { HeatReport, Shaded } from "@true-spine/core/route/heat-report.ts";
import { proofsAt } from "@true-spine/core/work/joined.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useFile, useRail, useScreen } from "../../blade/screen.ts";
import { pathThrough, scaleFor } from "../../rail/scale.ts";
import { useSize } from "../../rail/useSize.ts";
import { SAW_NAMES } from "../../work/useProofs.ts";
import { useWorkRows } from "../../work/useWorkRows.ts";

const MARGIN = { left: 62, right: 150 };
const ABOVE = 18;
/** How far below the spine a file is tried there, of the blade's height. */
const AT_SPINE = 0.12;

/** Darker where it hardens less surely: told by shade and by words, not by colour alone. */
const SHADES: Readonly<Record<Shaded["fares"], { fill: string; opacity: number }>> = {
  "usually through": { fill: "var(--color-deep)", opacity: 0.18 },
  "the file decides": { fill: "var(--color-grind)", opacity: 0.45 },
  "usually not": { fill: "var(--color-scribe)", opacity: 0.75 },
};
const FARES = Object.keys(SHADES) as Shaded["fares"][];

/** The blade from its side as it goes into the quench: where it goes through, and what files said of it. A press puts the scribe there. */
export function QuenchView({ report }: { report: HeatReport }) {
  const [ref, { width, height }] = useSize<HTMLDivElement>();
  const { rail } = useScreen();
  const file = useFile();
  const scribe = useRail((state) => state.scribe);
  const proofs = proofsAt(useWorkRows()).filter((one): one is FileProof => one.what === "file");
  const { ring } = fieldOf(file);
  const scale = scaleFor(ring.left, ring.right, width, MARGIN);
  const tall = ring.top - ring.bottom;
  // As wide as it is true, and no taller than there is room for.
  const perUp = Math.min(scale.perMm, (height - ABOVE - 8) / tall);
  const py = (y: number) => ABOVE + (ring.top - y) * perUp;
  const outline = pathThrough(ringPoints(ring), scale.px, py, true);
  const used = FARES.filter((fares) => report.shade.some((piece) => piece.fares === fares));
  return (
    <div ref={ref} className="h-full">
      {width > 0 && (
        // Pressed on by a pointer; by keys the same is typed under File.
        // biome-ignore lint/a11y/useKeyWithClickEvents: the box under File does the same
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={`The blade as it is quenched: ${used.join(", ") || "not reckoned"}`}
          className="cursor-crosshair"
          onClick={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            const x = scale.mm(event.clientX - box.left);
            rail.setState({ scribe: Math.max(ring.left, Math.min(ring.right, x)) });
          }}
        >
          <path d={outline} fill="var(--color-sheet)" />
          {used.map((fares) => (
            <path
              key={fares}
              d={report.shade
                .filter((piece) => piece.fares === fares)
                .map(({ x, y }) =>
                  pathThrough(
                    [
                      [x[0], y[0]],
                      [x[1], y[0]],
                      [x[1], y[1]],
                      [x[0], y[1]],
                    ],
                    scale.px,
                    py,
                    true,
                  ),
                )
                .join("")}
              fill={SHADES[fares].fill}
              fillOpacity={SHADES[fares].opacity}
            />
          ))}
          <path d={outline} fill="none" stroke="var(--color-ink)" strokeWidth={1.2} />
          <path d={`M${scale.px(scribe)} ${ABOVE - 6}V${height}`} stroke="var(--color-scribe)" />
          {proofs.map((proof) => {
            const at = placeOf(proof, ring);
            return (
              <g key={`${proof.when} ${proof.place}`}>
                <title>{`${proof.place}: ${SAW_NAMES[proof.saw]}`}</title>
                <circle
                  cx={scale.px(at[0])}
                  cy={py(at[1])}
                  r={5}
                  fill={proof.saw === "bites" ? "var(--color-sheet)" : "var(--color-ink)"}
                  fillOpacity={proof.saw === "mixed" ? 0.45 : 1}
                  stroke="var(--color-ink)"
                  strokeWidth={1.5}
                />
              </g>
            );
          })}
          {used.map((fares, i) => (
            <g key={fares} transform={`translate(${width - MARGIN.right + 6} ${ABOVE + i * 16})`}>
              <rect
                width={12}
                height={10}
                fill={SHADES[fares].fill}
                fillOpacity={SHADES[fares].opacity}
                stroke="var(--color-frame)"
              />
              <text x={17} y={9} className="fill-faint text-[11px]">
                {fares}
              </text>
            </g>
          ))}
          <text x={8} y={ABOVE + 9} className="fill-faint text-[11px]">
            quenched
          </text>
        </svg>
      )}
    </div>
  );
}

/** Where a file was tried, in the side view. */
function placeOf(
  { place, x }: FileProof,
  ring: { left: number; right: number; top: number; bottom: number },
): [number, number] {
  if (place === "tang") return [x ?? ring.left / 2, (ring.top + ring.bottom) / 2];
  const tall = ring.top - ring.bottom;
  return [
    x ?? ring.right / 2,
    place === "spine" ? ring.top - AT_SPINE * tall : ring.bottom + AT_SPINE * tall,
  ];
}
