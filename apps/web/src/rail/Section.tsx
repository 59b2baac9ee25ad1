import { sectionShape } from "@true-spine/core/blade/lines.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Station } from "@true-spine/core/blade/station.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../app/settings.ts";
import { fieldOf } from "../blade/derived.ts";
import { useStill } from "../blade/screen.ts";
import { pathThrough } from "./scale.ts";

const WIDTH = 336;
const HEIGHT = 212;
const TOP = 40;
const FOOT = 14;
/** How much of the edge the enlarged section shows, mm up from the apex. */
const ENLARGED = 7;

/** The section square to x at the scribe, seen from the handle: whole at one true scale, and its edge enlarged. */
export function Section({ file, x, station }: { file: Blade; x: number; station: Station | null }) {
  const unit = useSettings((settings) => settings.unit);
  const field = fieldOf(file);
  const shapes = sectionShape(field, x);
  const all = shapes.flat();
  const at = showLength(x, unit, unit === "mm" ? 1 : undefined);
  const room = HEIGHT - TOP - FOOT;
  const bottom = Math.min(...all.map((p) => p[1]));
  const top = Math.max(...all.map((p) => p[1]));
  const widest = Math.max(...all.map((p) => Math.abs(p[0])));
  const whole = useStill(
    Math.min(room / (top - bottom), 110 / (2 * widest), 8),
    (still) => !((top - bottom) * still <= room + FOOT),
  );
  const frame = "sticky top-0 z-10 overflow-hidden bg-layout text-scribed";
  if (all.length === 0) {
    return (
      <section aria-label="Section" className={`${frame} p-3`} style={{ height: HEIGHT }}>
        <h2 className="text-[13px] font-semibold">Section at {at}</h2>
        <p className="mt-2 text-sm text-scribed-faint">No steel here. Drag the scribe back onto the blade.</p>
      </section>
    );
  }
  const large = Math.min(room / ENLARGED, 46);
  const wholeX = 84;
  const largeX = 232;
  const foot = HEIGHT - FOOT;
  const draw = (middle: number, times: number) =>
    shapes
      .map((shape) =>
        pathThrough(
          shape,
          (z) => middle + z * times,
          (y) => foot - (y - bottom) * times,
          true,
        ),
      )
      .join("");
  const marks = station && station.behind !== null ? edgeMarks(station, large) : null;
  return (
    <section aria-label="Section" className={frame} style={{ height: HEIGHT }}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        height={HEIGHT}
        role="img"
        aria-label={`Section at ${at}, seen from the handle`}
      >
        <title>Seen from the handle: left side left, right side right</title>
        <clipPath id="edge-window">
          <rect x={160} y={TOP - 6} width={WIDTH - 160} height={HEIGHT} />
        </clipPath>
        <Shape middle={wholeX} foot={foot} d={draw(wholeX, whole)} />
        <Ruler x={26} foot={foot} times={whole} tall={top - bottom} every={10} unit={unit} />
        <g clipPath="url(#edge-window)">
          <Shape middle={largeX} foot={foot} d={draw(largeX, large)} />
        </g>
        <Ruler x={176} foot={foot} times={large} tall={room / large} every={1} unit={unit} />
        {marks && (
          <g className="text-[11px]" fill="var(--color-scribed)">
            <line
              x1={largeX - marks.left}
              x2={largeX + 32}
              y1={foot - marks.up}
              y2={foot - marks.up}
              stroke="var(--color-grind)"
            />
            <text x={largeX + 36} y={foot - marks.up - 4}>
              {`${showLength(station!.behind!, unit)} behind`}
            </text>
            <text x={largeX + 36} y={foot - marks.up + 12} className="fill-scribed-faint">
              {`${showLength(marks.height, unit)} up`}
            </text>
          </g>
        )}
        <text x={wholeX + 16} y={TOP + 10} className="fill-scribed text-[11px]">
          {showLength(2 * widest, unit)}
        </text>
        <text x={wholeX - 30} y={foot + 11} textAnchor="end" className="fill-scribed-faint text-[11px]">
          left
        </text>
        <text x={wholeX + 30} y={foot + 11} className="fill-scribed-faint text-[11px]">
          right
        </text>
      </svg>
      <h2 className="pointer-events-none absolute top-1.5 left-2.5 text-[13px] font-semibold">
        Section at {at}
        <span className="ml-2 text-[11px] font-normal text-scribed-faint">
          rulers:{" "}
          {unit === "mm"
            ? "10 mm, edge 1 mm"
            : unit === "inch"
              ? "0.25 in, edge 0.025 in"
              : "250 thou, edge 25 thou"}
        </span>
      </h2>
    </section>
  );
}

/** The steel of a section, with its centre plane behind it. */
function Shape({ middle, foot, d }: { middle: number; foot: number; d: string }) {
  return (
    <g>
      <line
        x1={middle}
        x2={middle}
        y1={TOP - 10}
        y2={foot + 6}
        stroke="var(--color-scribed-faint)"
        strokeDasharray="8 3 2 3"
        opacity={0.5}
      />
      <path d={d} fill="var(--color-layout-bevel)" stroke="var(--color-scribed)" strokeWidth={1.3} />
    </g>
  );
}

function edgeMarks(station: Station, times: number) {
  const height = station.right.edgeBevel ?? station.left.edgeBevel ?? 0;
  return { height, up: height * times, left: 40 };
}

/** A ruler up the side of a drawing, so that its scale can be read off it. */
function Ruler({
  x,
  foot,
  times,
  tall,
  every,
  unit,
}: {
  x: number;
  foot: number;
  times: number;
  tall: number;
  every: number;
  unit: string;
}) {
  const step = unit === "mm" ? every : every * 0.635;
  const marks = Array.from({ length: Math.floor(tall / step) + 1 }, (_, i) => i * step);
  return (
    <g stroke="var(--color-scribed-faint)" strokeWidth={0.8}>
      <line x1={x} x2={x} y1={foot} y2={foot - (marks.length - 1) * step * times} />
      {marks.map((mark) => (
        <line key={mark} x1={x - 5} x2={x} y1={foot - mark * times} y2={foot - mark * times} />
      ))}
    </g>
  );
}
