import type { StraightReport } from "@true-spine/core/inspect/straightness.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { scaleFor, ticks } from "../../rail/scale.ts";
import { useSize } from "../../rail/useSize.ts";

const MARGIN = { left: 62, right: 24 };
const ABOVE = 26;
const BELOW = 24;
const UNIT = { mm: 1, inch: 25.4, thou: 25.4 } as const;

/** The blade's own middle along it, much taller than it is: what was read with its give, the best curve, and its rival dashed. */
export function BendStrip({ report }: { report: StraightReport }) {
  const [ref, { width, height }] = useSize<HTMLDivElement>();
  const unit = useSettings((settings) => settings.unit);
  const { along, points, curve, band } = report;
  const scale = scaleFor(along[0], along[1], width, MARGIN);
  const most = Math.max(
    2 * band,
    0.2,
    ...points.map(({ z, u }) => Math.abs(z) + 2 * u),
    ...curve.map(({ best }) => Math.abs(best)),
  );
  const room = Math.max(20, height - ABOVE - BELOW);
  const perMm = room / (2 * most);
  const middle = ABOVE + room / 2;
  const py = (z: number) => middle - z * perMm;
  const path = (of: (point: StraightReport["curve"][number]) => number | null) =>
    curve
      .flatMap((point) => {
        const z = of(point);
        return z === null ? [] : [`${scale.px(point.x).toFixed(1)} ${py(z).toFixed(1)}`];
      })
      .join("L");
  const rival = path(({ rival: z }) => z);
  return (
    <div ref={ref} className="h-full">
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label="How straight it is, along the blade">
          <text x={10} y={16} className="fill-ink text-[13px] font-semibold">
            Straight
          </text>
          <text x={72} y={16} className="fill-faint text-[11px]">
            the right face is up; drawn {Math.round(perMm / scale.perMm)} times as tall as it is
          </text>
          <rect
            x={MARGIN.left}
            width={Math.max(0, width - MARGIN.left - MARGIN.right)}
            y={py(band)}
            height={Math.max(1, py(-band) - py(band))}
            fill="var(--color-band)"
            fillOpacity={0.6}
          />
          <path d={`M${MARGIN.left} ${middle}H${width - MARGIN.right}`} stroke="var(--color-frame)" />
          {[most, -most].map((z) => (
            <text
              key={z}
              x={MARGIN.left - 6}
              y={py(z) + 4}
              textAnchor="end"
              className="fill-faint text-[11px]"
            >
              {showLengthWithUnit(Math.abs(z), unit)}
            </text>
          ))}
          {rival && <path d={`M${rival}`} fill="none" stroke="var(--color-faint)" strokeDasharray="5 4" />}
          {curve.length > 0 && (
            <path
              d={`M${path(({ best }) => best)}`}
              fill="none"
              stroke="var(--color-deep)"
              strokeWidth={2.2}
            />
          )}
          {points.map(({ x, z, u }) => (
            <g key={`${x} ${z}`}>
              <path
                d={`M${scale.px(x)} ${py(z - 2 * u)}V${py(z + 2 * u)}`}
                stroke="var(--color-ink)"
                strokeOpacity={0.5}
              />
              <circle cx={scale.px(x)} cy={py(z)} r={3.2} fill="var(--color-ink)" />
            </g>
          ))}
          {points.length === 0 && (
            <text x={MARGIN.left + 12} y={middle - 8} className="fill-faint text-[13px]">
              Nothing read yet.
            </text>
          )}
          {ticks(scale, 60, UNIT[unit])
            .filter((x) => x >= along[0] && x <= along[1])
            .map((x) => (
              <text
                key={x}
                x={scale.px(x)}
                y={height - 7}
                textAnchor="middle"
                className="fill-faint text-[11px]"
              >
                {unit === "mm" ? x : (x / 25.4).toFixed(1)}
              </text>
            ))}
        </svg>
      )}
    </div>
  );
}
