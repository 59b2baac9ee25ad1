import { pathThrough, type Scale } from "./scale.ts";

export interface Curve {
  readonly name: string;
  readonly points: readonly (readonly [number, number | null])[];
  readonly stroke: string;
  readonly width?: number;
  readonly dash?: string;
  /** Drawn at the right end of the curve's name, when there is room. */
  readonly labelled?: boolean;
  /** Named past its last point instead: for what only parts from the others there. */
  readonly isLabelledAtEnd?: boolean;
}

export interface Band {
  readonly from: number;
  readonly to: number;
  readonly low: number;
  readonly high: number;
  readonly name: string;
}

/** A strip of curves over the rail's x axis, with its own scale up and down. Gaps are gaps. */
export function Chart({
  scale,
  height,
  curves,
  band,
  step,
  show,
  label,
}: {
  scale: Scale;
  height: number;
  curves: readonly Curve[];
  band?: Band | null;
  /** Spacing of the lines across, in the curves' own measure. */
  step: number;
  show: (value: number) => string;
  label: string;
}) {
  const values = curves.flatMap((curve) => curve.points.flatMap(([, y]) => (y === null ? [] : [y])));
  const top = Math.max(step, ...values, band?.high ?? 0);
  const bottom = Math.min(...values, band?.low ?? Number.POSITIVE_INFINITY, top);
  const low = Math.max(0, Math.floor(bottom / step - 0.3) * step);
  const high = Math.ceil(top / step + 0.05) * step;
  const py = (value: number) => height - 8 - ((value - low) / (high - low)) * (height - 34);
  const count = Math.round((high - low) / step);
  const every = Math.max(1, Math.ceil(count / Math.max(1, Math.floor((height - 34) / 20))));
  return (
    <svg width={scale.width} height={height} role="img" aria-label={label} className="absolute inset-0">
      {Array.from({ length: count + 1 }, (_, i) => low + i * step).map((value, i) =>
        i % every !== 0 ? null : (
          <g key={value}>
            <line x1={60} x2={scale.width} y1={py(value)} y2={py(value)} stroke="var(--color-rule)" />
            <text x={54} y={py(value) + 4} textAnchor="end" className="fill-faint text-[11px]">
              {show(value)}
            </text>
          </g>
        ),
      )}
      {band && (
        <g>
          <rect
            x={scale.px(band.from)}
            width={Math.max(0, scale.px(band.to) - scale.px(band.from))}
            y={py(band.high)}
            height={Math.max(1, py(band.low) - py(band.high))}
            fill="var(--color-band)"
            opacity={0.75}
          />
        </g>
      )}
      {curves.map((curve) => (
        <g
          key={curve.name}
          fill="none"
          stroke={curve.stroke}
          strokeWidth={curve.width ?? 1.3}
          strokeDasharray={curve.dash}
        >
          <path
            d={runsOf(curve)
              .map((run) => pathThrough(run, scale.px, py))
              .join("")}
            strokeLinejoin="round"
          />
        </g>
      ))}
      <Names curves={curves} scale={scale} py={py} />
      {curves.map((curve) => {
        const last = curve.isLabelledAtEnd && curve.points.findLast(([, y]) => y !== null);
        if (!last) return null;
        return (
          <text
            key={curve.name}
            x={Math.min(scale.px(last[0]), scale.width - 4)}
            y={Math.max(11, py(last[1]!) - 6)}
            textAnchor="end"
            className="fill-ink text-[11px]"
          >
            {curve.name}
          </text>
        );
      })}
    </svg>
  );
}

function runsOf(curve: Curve): [number, number][][] {
  const runs: [number, number][][] = [];
  let open: [number, number][] | null = null;
  for (const [x, y] of curve.points) {
    if (y === null) {
      open = null;
    } else {
      if (!open) {
        open = [];
        runs.push(open);
      }
      open.push([x, y]);
    }
  }
  return runs.filter((run) => run.length > 1);
}

/** Each curve's name before its first point, moved down until no two collide. */
function Names({
  curves,
  scale,
  py,
}: {
  curves: readonly Curve[];
  scale: Scale;
  py: (value: number) => number;
}) {
  const named = curves
    .flatMap((curve) => {
      const first = curve.points.find(([, y]) => y !== null);
      return curve.labelled && first ? [{ curve, x: scale.px(first[0]), y: py(first[1]!) }] : [];
    })
    .sort((a, b) => a.y - b.y);
  let free = Number.NEGATIVE_INFINITY;
  return (
    <g className="text-[11px]">
      {named.map(({ curve, x, y }) => {
        const row = Math.max(y + 4, free);
        free = row + 13;
        const isLeft = x > 190;
        return (
          <text
            key={curve.name}
            x={isLeft ? x - 8 : x + 8}
            y={isLeft ? row : row - 7}
            textAnchor={isLeft ? "end" : "start"}
            className="fill-ink"
          >
            {curve.name}
          </text>
        );
      })}
    </g>
  );
}
