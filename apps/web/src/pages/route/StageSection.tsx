import type { StageReport } from "@true-spine/core/route/report.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { useRail } from "../../blade/screen.ts";
import { pathThrough } from "../../rail/scale.ts";
import { stageInk } from "./stage-colours.ts";

const WIDTH = 336;
const HEIGHT = 230;
const FOOT = 16;
/** How much of the edge is shown enlarged, mm up from it. */
const ENLARGED = 8;

/** The section at the scribe, stage by stage, each line over the last: whole, and the edge enlarged. */
export function StageSection({ stages, chosen }: { stages: readonly StageReport[]; chosen: number }) {
  const unit = useSettings((settings) => settings.unit);
  const x = useRail((state) => state.scribe);
  const shapes = stages.map((stage, i) => ({ shape: stage.section, isChosen: i === chosen, stage }));
  const all = shapes.flatMap(({ shape }) => shape.flat());
  const at = showLength(x, unit, unit === "mm" ? 1 : undefined);
  const frame = "relative sticky top-0 z-10 overflow-hidden bg-layout text-scribed";
  if (all.length === 0) {
    return (
      <section aria-label="Section" className={`${frame} p-3`} style={{ height: 80 }}>
        <h2 className="text-[13px] font-semibold">Section at {at}</h2>
        <p className="mt-1 text-sm text-scribed-faint">No steel here.</p>
      </section>
    );
  }
  const bottom = Math.min(...all.map((p) => p[1]));
  const top = Math.max(...all.map((p) => p[1]));
  const widest = Math.max(...all.map((p) => Math.abs(p[0])));
  const room = HEIGHT - 40 - FOOT;
  const whole = Math.min(room / (top - bottom), 120 / (2 * widest));
  const large = Math.min(room / ENLARGED, 130 / (2 * widest));
  const foot = HEIGHT - FOOT;
  const bevelled = shapes.filter(({ stage }) => stage.isBevelled).map(({ stage }) => stage);
  const drawn = (middle: number, times: number) =>
    shapes.map(({ shape, isChosen, stage }, i) => (
      <path
        // biome-ignore lint/suspicious/noArrayIndexKey: a stage is its place in the order
        key={i}
        d={shape
          .map((line) =>
            pathThrough(
              line,
              (z) => middle + z * times,
              (y) => foot - (y - bottom) * times,
              true,
            ),
          )
          .join("")}
        fill={isChosen ? "var(--color-layout-bevel)" : "none"}
        fillOpacity={0.55}
        stroke={stage.isBevelled ? stageInk(bevelled.indexOf(stage)) : "var(--color-scribed-faint)"}
        strokeWidth={isChosen ? 2.2 : 0.9}
      />
    ));
  return (
    <section aria-label="Section, stage by stage" className={frame} style={{ height: HEIGHT }}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        height={HEIGHT}
        role="img"
        aria-label={`Sections of every stage at ${at}`}
      >
        <clipPath id="stage-edge-window">
          <rect x={160} y={34} width={WIDTH - 160} height={HEIGHT} />
        </clipPath>
        {drawn(84, whole)}
        <g clipPath="url(#stage-edge-window)">{drawn(248, large)}</g>
        <text x={84} y={HEIGHT - 3} textAnchor="middle" className="fill-scribed-faint text-[11px]">
          whole
        </text>
        <text x={248} y={HEIGHT - 3} textAnchor="middle" className="fill-scribed-faint text-[11px]">
          the edge, {showLength(ENLARGED, unit, unit === "mm" ? 0 : undefined)} up
        </text>
      </svg>
      <h2 className="pointer-events-none absolute top-1.5 left-2.5 text-[13px] font-semibold">
        Section at {at}
        <span className="ml-2 text-[11px] font-normal text-scribed-faint">every stage over the last</span>
      </h2>
    </section>
  );
}
