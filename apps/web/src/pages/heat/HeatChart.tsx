import type { HeatReport, OpReport } from "@true-spine/core/route/heat-report.ts";
import { useSize } from "../../rail/useSize.ts";

const LEFT = 62;
const RIGHT = 150;
const TOP = 14;
/** Room for names in two rows: where heats stand close every second name is lower. */
const BOTTOM = 38;
const NAME = 72;
const ROW = 13;
const GRID = 200;
/** Cooling is drawn as so much of a heat's own width: how long it takes is not reckoned. */
const COOL = 0.35;
/** A long temper is drawn no more than so many times as wide as a short heat. */
const WIDEST = 3;

/** Temperature over time, heat after heat, with the bands that the steel's composition gives. */
export function HeatChart({
  report,
  chosen,
  onChoose,
}: {
  report: HeatReport;
  chosen: string | null;
  onChoose: (id: string) => void;
}) {
  const [ref, { width, height }] = useSize<HTMLDivElement>();
  const { ops, steel } = report;
  const top = Math.max(900, ...ops.map(({ op }) => op.T + 60));
  const py = (T: number) => height - BOTTOM - (T / top) * (height - TOP - BOTTOM);
  const spots = placed(ops, width);
  const isClose = spots.some(({ x, end }) => end - x < NAME);
  const bands = steel
    ? [
        { name: "hardens from", ...steel.austenite, fill: "var(--color-grind)" },
        { name: "Ac1", ...steel.ac1, fill: "var(--color-accent)" },
        { name: "martensite starts", ...steel.martensite, fill: "var(--color-deep)" },
      ]
    : [];
  return (
    <div ref={ref} className="h-full">
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label="Temperature over time, heat after heat">
          {Array.from({ length: Math.floor(top / GRID) + 1 }, (_, i) => i * GRID).map((T) => (
            <g key={T}>
              <path d={`M${LEFT} ${py(T)}H${width - RIGHT}`} stroke="var(--color-rule)" />
              <text x={LEFT - 6} y={py(T) + 4} textAnchor="end" className="fill-faint text-[11px]">
                {T} °C
              </text>
            </g>
          ))}
          {bands.map(({ name, low, high, fill }) => (
            <rect
              key={name}
              x={LEFT}
              y={py(high)}
              width={width - LEFT - RIGHT}
              height={Math.max(2, py(low) - py(high))}
              fill={fill}
              fillOpacity={0.16}
            />
          ))}
          {labelled(
            bands.map(({ name, middle, low, high }) => ({
              name: `${name} ${Math.round(low)} to ${Math.round(high)}`,
              y: py(middle),
            })),
          ).map(({ name, y }) => (
            <text key={name} x={width - RIGHT + 6} y={y + 4} className="fill-faint text-[11px]">
              {name.replace("martensite starts", "Ms")}
            </text>
          ))}
          {steel && (
            <path
              d={`M${LEFT} ${py(steel.magnet.middle)}H${width - RIGHT}`}
              stroke="var(--color-scribe)"
              strokeDasharray="4 3"
            />
          )}
          {spots.map(({ report: { op, name }, x, warm, held, end }, i) => (
            // Pressed on by a pointer; by keys the same is done in the table below.
            // biome-ignore lint/a11y/noStaticElementInteractions: the table below does the same
            <g key={op.id} onClick={() => onChoose(op.id)} className="cursor-pointer">
              <rect
                x={x}
                y={TOP}
                width={Math.max(1, end - x)}
                height={height - TOP - BOTTOM}
                fill={op.id === chosen ? "var(--color-band)" : "transparent"}
                fillOpacity={0.5}
              />
              <path
                d={`M${x} ${py(20)}L${warm} ${py(op.T)}H${held}L${end} ${py(20)}`}
                fill="none"
                stroke="var(--color-ink)"
                strokeWidth={op.id === chosen ? 3 : 1.8}
                strokeLinejoin="round"
              />
              <text
                x={(warm + held) / 2}
                y={py(op.T) - 5}
                textAnchor="middle"
                className="fill-ink text-[11px]"
              >
                {Math.round(op.T)}
              </text>
              <text
                x={(x + end) / 2}
                y={height - 8 - (isClose && i % 2 === 0 ? ROW : 0)}
                textAnchor="middle"
                className={`text-[11px] ${op.id === chosen ? "fill-ink font-semibold" : "fill-faint"}`}
              >
                {name.replace(/, (\d+) of \d+$/, " $1")}
              </text>
            </g>
          ))}
        </svg>
      )}
    </div>
  );
}

/** Where each heat stands: as wide as the root of its minutes, so that a quench is still seen beside a temper. */
function placed(ops: readonly OpReport[], width: number) {
  const wide = ops.map(({ total }) => Math.sqrt(Math.max(6, total)));
  const least = Math.min(...wide);
  const shares = wide.map((one) => Math.min(one, WIDEST * least));
  const sum = shares.reduce((a, b) => a + b, 0) || 1;
  const room = width - LEFT - RIGHT;
  let x = LEFT;
  return ops.map((report, i) => {
    const mine = (room * shares[i]!) / sum;
    const hot = mine * (1 - COOL);
    const warmed = report.total > 0 ? hot * (report.through / report.total) : 0;
    const spot = { report, x, warm: x + Math.max(4, warmed), held: x + hot, end: x + mine };
    x += mine;
    return spot;
  });
}

const LABEL = 13;
/** Names of bands pushed apart until none lies on another. */
function labelled(bands: readonly { name: string; y: number }[]) {
  let last = Number.NEGATIVE_INFINITY;
  return bands
    .toSorted((a, b) => a.y - b.y)
    .map(({ name, y }) => {
      last = Math.max(y, last + LABEL);
      return { name, y: last };
    });
}
