import { ringPoints } from "@true-spine/core/blade/outline.ts";
import type { EdgeReport, StepReport } from "@true-spine/core/route/edge-report.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useFile } from "../../blade/screen.ts";
import { pathThrough, scaleFor } from "../../rail/scale.ts";
import { useSize } from "../../rail/useSize.ts";
import { settingWords } from "./words.ts";

const MARGIN = { left: 62, right: 40 };
const ABOVE = 22;
/** Room under the blade for what is behind its edge, now and later. */
const STRIP = 96;

/** The blade from its side with what to set at heel, middle and tip, and below it what is behind the edge, now and after so many sharpenings. */
export function EdgeStrip({ report, step }: { report: EdgeReport; step: StepReport | null }) {
  const [ref, { width, height }] = useSize<HTMLDivElement>();
  const unit = useSettings((settings) => settings.unit);
  const file = useFile();
  const { ring } = fieldOf(file);
  const scale = scaleFor(Math.max(ring.left, -20), ring.right, width, MARGIN);
  const tall = ring.top - ring.bottom;
  const perUp = Math.max(0.1, Math.min(scale.perMm, (height - ABOVE - STRIP - 24) / tall));
  const py = (y: number) => ABOVE + (ring.top - y) * perUp;
  const { along, after, until } = report.life;
  const most = Math.max(0.1, ...along.flatMap(({ now, later }) => [now ?? 0, later ?? 0])) * 1.1;
  const base = height - 18;
  const strip = (e: number) => base - (e / most) * (STRIP - 22);
  const line = (of: (one: (typeof along)[number]) => number | null) =>
    along
      .flatMap((one) => {
        const e = of(one);
        return e === null ? [] : [`${scale.px(one.x).toFixed(1)} ${strip(e).toFixed(1)}`];
      })
      .join("L");
  const [now, then] = [line((one) => one.now), line((one) => one.later)];
  const settings = step?.settings[step.step.angle.right > 0 ? "right" : "left"];
  return (
    <div ref={ref} className="h-full">
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label="The edge along the blade">
          <clipPath id="edge-blade">
            <rect x={MARGIN.left - 4} y={0} width={width} height={height} />
          </clipPath>
          <path
            clipPath="url(#edge-blade)"
            d={pathThrough(ringPoints(ring), scale.px, py, true)}
            fill="var(--color-sheet)"
            stroke="var(--color-ink)"
            strokeWidth={1.4}
          />
          {/* On a second edge the report stands edge for spine: it is drawn back. */}
          <path
            d={pathThrough(
              [...along.map(({ edge }) => edge), ...along.toReversed().map(({ shoulder }) => shoulder)].map(
                ([x, y]) => [x, report.which === "second" ? -y : y] as const,
              ),
              scale.px,
              py,
              true,
            )}
            fill="var(--color-grind)"
            fillOpacity={0.75}
          />
          {report.places.map(({ place, x, height: high }, i) => (
            <g key={place}>
              <path
                d={`M${scale.px(x)} ${py(ring.top) - 4}V${base}`}
                stroke="var(--color-frame)"
                strokeDasharray="3 3"
              />
              <text x={scale.px(x)} y={14} textAnchor="middle" className="fill-ink text-[12px]">
                {place}
                {settings ? ` ${settingWords(settings[i]!, unit)}` : ` ${showLengthWithUnit(high, unit)}`}
              </text>
            </g>
          ))}
          <text x={10} y={strip(most / 1.1) + 4} className="fill-faint text-[11px]">
            {showLengthWithUnit(most / 1.1, unit)}
          </text>
          <path d={`M${MARGIN.left} ${base}H${width - MARGIN.right}`} stroke="var(--color-frame)" />
          {then && (
            <path
              d={`M${then}`}
              fill="none"
              stroke="var(--color-accent)"
              strokeWidth={2}
              strokeDasharray="6 4"
            />
          )}
          {now && <path d={`M${now}`} fill="none" stroke="var(--color-deep)" strokeWidth={2.2} />}
          <text x={MARGIN.left} y={height - 4} className="fill-faint text-[11px]">
            behind the edge: now, and dashed after {Math.round(after.n)} sharpenings
            {until && Math.round(until.n) === Math.round(after.n) ? ", when it wants thinning" : ""}
          </text>
        </svg>
      )}
    </div>
  );
}
