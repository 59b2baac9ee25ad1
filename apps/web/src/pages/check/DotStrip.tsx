import type { Verdict } from "@true-spine/core/inspect/figure.ts";
import type { Spot } from "@true-spine/core/inspect/schema.ts";
import { pathThrough, type Scale } from "../../rail/scale.ts";

export interface Dot {
  readonly key: string;
  readonly x: number;
  readonly y: number;
  /** Covers 95 of 100. */
  readonly within: number;
  readonly verdict: Verdict;
  readonly isOpen: boolean;
  /** Read along the second edge: ringed. */
  readonly isSecond: boolean;
  readonly spot: Spot;
}

const INK: Readonly<Record<Verdict, string>> = {
  good: "var(--color-well)",
  doubtful: "var(--color-watch)",
  out: "var(--color-fix)",
};

/** Readings over their wanted line and band, each with what it can be trusted to; status by shape as well as colour. */
export function DotStrip({
  label,
  scale,
  height,
  band,
  wanted,
  dots,
  measure,
  show,
  onGo,
}: {
  label: string;
  scale: Scale;
  height: number;
  band: readonly { readonly x: number; readonly low: number; readonly high: number }[];
  wanted: readonly (readonly [number, number])[];
  dots: readonly Dot[];
  /** What lines across lie at round figures of, mm. */
  measure: number;
  show: (value: number) => string;
  onGo: (spot: Spot) => void;
}) {
  const values = [
    ...band.flatMap(({ low, high }) => [low, high]),
    ...dots.flatMap(({ y, within }) => [y - within, y + within]),
  ];
  if (values.length === 0) {
    return <p className="pt-7 pl-16 text-xs text-faint">Nothing of this stage is read here.</p>;
  }
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const step = roundStep((most - least) / Math.max(1, (height - 36) / 18) / measure) * measure;
  const low = least - 0.04 * (most - least);
  const high = most + 0.04 * (most - least) + 1e-9;
  const py = (value: number) => height - 6 - ((value - low) / (high - low)) * (height - 36);
  const first = Math.ceil(low / step);
  const lines = Array.from(
    { length: Math.max(0, Math.floor(high / step) - first + 1) },
    (_, i) => (first + i) * step,
  );
  const shape = [
    ...band.map(({ x, high: top }) => [x, top] as const),
    ...band.toReversed().map(({ x, low: bottom }) => [x, bottom] as const),
  ];
  return (
    <svg width={scale.width} height={height} role="img" aria-label={label} className="absolute inset-0">
      {lines.map((value) => (
        <g key={value}>
          <line x1={60} x2={scale.width} y1={py(value)} y2={py(value)} stroke="var(--color-rule)" />
          <text x={54} y={py(value) + 4} textAnchor="end" className="fill-faint text-[11px]">
            {show(Math.abs(value) < 1e-9 ? 0 : value)}
          </text>
        </g>
      ))}
      {band.length > 1 && (
        <path d={pathThrough(shape, scale.px, py, true)} fill="var(--color-band)" opacity={0.75} />
      )}
      <path
        d={pathThrough(wanted, scale.px, py)}
        fill="none"
        stroke="var(--color-deep)"
        strokeWidth={1.6}
        strokeDasharray="6 3"
      />
      {dots.map((dot) => (
        <Mark key={dot.key} dot={dot} px={scale.px(dot.x)} py={py} onGo={onGo} />
      ))}
    </svg>
  );
}

/** The next of 1, 2 and 5 times a power of ten. */
function roundStep(least: number): number {
  const power = 10 ** Math.floor(Math.log10(Math.max(least, 1e-6)));
  return power * ([1, 2, 5, 10].find((times) => times * power >= least) ?? 10);
}

/** Half of what a finger finds, px: targets are 24 px at least. */
export const HIT = 12;

function Mark({
  dot: { y, within, verdict, isOpen, isSecond, spot },
  px,
  py,
  onGo,
}: {
  dot: Dot;
  px: number;
  py: (value: number) => number;
  onGo: (spot: Spot) => void;
}) {
  const ink = INK[verdict];
  const at = py(y);
  const x = px + (isOpen ? -3 : 3);
  const fill = isOpen ? "var(--color-paper)" : ink;
  return (
    <g
      stroke={ink}
      strokeWidth={1.5}
      className="cursor-pointer"
      onPointerDown={(event) => {
        event.stopPropagation();
        onGo(spot);
      }}
    >
      <circle cx={x} cy={at} r={HIT} fill="transparent" stroke="none" />
      {isSecond && <circle cx={x} cy={at} r={8} fill="none" strokeWidth={1} />}
      <path
        d={`M${x} ${py(y - within)}V${py(y + within)}M${x - 3} ${py(y - within)}h6M${x - 3} ${py(y + within)}h6`}
      />
      {verdict === "out" && <rect x={x - 4} y={at - 4} width={8} height={8} fill={fill} />}
      {verdict === "doubtful" && (
        <path d={`M${x} ${at - 5}L${x + 5} ${at}L${x} ${at + 5}L${x - 5} ${at}Z`} fill={fill} />
      )}
      {verdict === "good" && <circle cx={x} cy={at} r={4} fill={fill} />}
    </g>
  );
}
