import { ringPoints } from "@true-spine/core/blade/outline.ts";
import type { StageReport } from "@true-spine/core/route/report.ts";
import { STAGES } from "@true-spine/core/route/stages.ts";
import { MILLIMETRES_IN, showLength } from "@true-spine/core/units/length.ts";
import { useMemo } from "react";
import { useSettings } from "../../app/settings.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useFile, useRail } from "../../blade/screen.ts";
import { AXIS_HEIGHT, Axis } from "../../rail/Axis.tsx";
import { Chart, type Curve } from "../../rail/Chart.tsx";
import { MARGIN } from "../../rail/Rail.tsx";
import { Scribe } from "../../rail/Scribe.tsx";
import { ScribePad } from "../../rail/ScribePad.tsx";
import { type SidePlace, useSidePlace } from "../../rail/SideView.tsx";
import { Strip } from "../../rail/Strip.tsx";
import { pathThrough, scaleFor } from "../../rail/scale.ts";
import { useSize } from "../../rail/useSize.ts";
import { fittedView } from "../../rail/zoom.ts";
import { stageInk } from "./stage-colours.ts";

/** Share of the rail's height for the side view. */
const SIDE_SHARE = 0.66;
/** Edges nearer to one another than this are one line to the eye, mm: named once. */
const NAMED_APART = 0.08;

/** The ladder as one picture: each stage's grind line over the last on the side view, and its edge on the strip below. */
export function LadderRail({ stages, chosen }: { stages: readonly StageReport[]; chosen: number }) {
  const file = useFile();
  const fit = useRail((state) => state.fit);
  const near = useRail((state) => state.view);
  const unit = useSettings((settings) => settings.unit);
  const [ref, size] = useSize<HTMLDivElement>();
  const { ring } = fieldOf(file);
  const all = fittedView(ring, fit);
  const { from, to } = near ?? all;
  const width = Math.max(200, size.width);
  const scale = useMemo(() => scaleFor(from, to, width, MARGIN), [from, to, width]);
  const room = Math.max(0, size.height - AXIS_HEIGHT);
  const place = useSidePlace(file, scale, room * SIDE_SHARE);
  const steps = distinct(stages);
  const curves = steps.map(
    ({ stage, names, isChosen }, i): Curve => ({
      name: names,
      points: stage.edge,
      stroke: isChosen
        ? "var(--color-accent)"
        : i === steps.length - 1
          ? "var(--color-deep)"
          : "var(--color-faint)",
      width: isChosen ? 2.6 : 1.3,
      labelled:
        isChosen || i === 0 || Math.abs(middleOf(stage) - middleOf(steps[i - 1]!.stage)) > NAMED_APART,
    }),
  );
  return (
    <div ref={ref} className="relative h-full touch-none overflow-hidden select-none">
      {size.width > 0 && (
        <ScribePad scale={scale} all={all}>
          <Strip title="Ladder" note="grind line, stage by stage" height={room * SIDE_SHARE} isBlue>
            <Lines place={place} height={room * SIDE_SHARE} steps={steps} />
          </Strip>
          <Strip title="Edge" note={`${unit} thick when the stage is done`} height={room * (1 - SIDE_SHARE)}>
            <Chart
              label="Thickness of the very edge along the blade, stage by stage"
              scale={scale}
              height={room * (1 - SIDE_SHARE)}
              curves={curves}
              step={unit === "mm" ? 0.5 : 0.02 * MILLIMETRES_IN.inch}
              show={(value) => showLength(value, unit, unit === "mm" ? 1 : unit === "inch" ? 2 : 0)}
            />
          </Strip>
          <Axis scale={scale} />
          <Scribe scale={scale} height={size.height} />
        </ScribePad>
      )}
    </div>
  );

  /** Stages that leave the edge as they found it share one line, named by all of them. */
  function distinct(list: readonly StageReport[]) {
    const groups: { stage: StageReport; kinds: StageReport["kind"][]; isChosen: boolean }[] = [];
    for (const [i, stage] of list.entries()) {
      const last = groups.at(-1);
      if (last && sameSteel(last.stage, stage)) {
        last.kinds.push(stage.kind);
        last.isChosen ||= i === chosen;
      } else groups.push({ stage, kinds: [stage.kind], isChosen: i === chosen });
    }
    // Before there is a bevel the edge is as thick as the bar: off the strip's scale, and nothing to stop at.
    return groups
      .filter(({ stage }) => stage.isBevelled)
      .map(({ stage, kinds, isChosen }) => ({
        stage,
        isChosen,
        names: STAGES[kinds[0]!].name.toLowerCase(),
      }));
  }
}

const middleOf = ({ edge }: StageReport) => edge[Math.floor(edge.length / 2)]?.[1] ?? 0;

function sameSteel(a: StageReport, b: StageReport): boolean {
  return a.edge.every(([, t], i) => Math.abs(t - b.edge[i]![1]) < 0.002);
}

function Lines({
  place,
  height,
  steps,
}: {
  place: SidePlace;
  height: number;
  steps: readonly { stage: StageReport; names: string; isChosen: boolean }[];
}) {
  const file = useFile();
  const { ring } = fieldOf(file);
  const { px, py, scale } = place;
  return (
    <svg
      width={scale.width}
      height={height}
      role="img"
      aria-label="Grind lines of every stage on the side view"
      className="absolute inset-0"
    >
      <path
        d={pathThrough(ringPoints(ring), px, py, true)}
        fill="var(--color-layout-steel)"
        stroke="var(--color-scribed)"
        strokeWidth={1.3}
      />
      {steps.map(({ stage, names, isChosen }, i) => {
        const right = stage.grindLine.right.map((line) => pathThrough(line, px, py)).join("");
        const left = stage.grindLine.left.map((line) => pathThrough(line, px, py)).join("");
        const ink = stageInk(i);
        return (
          <g key={names} fill="none" stroke={ink} strokeWidth={isChosen ? 3 : 1.4}>
            <path d={right} />
            {left !== right && <path d={left} strokeDasharray="6 4" />}
          </g>
        );
      })}
      <g className="text-[11px]">
        {steps.map(({ names, isChosen }, i) => (
          <g key={names}>
            <line
              x1={scale.width - 128}
              x2={scale.width - 110}
              y1={height - 12 - (steps.length - 1 - i) * 15}
              y2={height - 12 - (steps.length - 1 - i) * 15}
              stroke={stageInk(i)}
              strokeWidth={isChosen ? 3 : 1.6}
            />
            <text
              x={scale.width - 104}
              y={height - 8 - (steps.length - 1 - i) * 15}
              className={`fill-scribed ${isChosen ? "font-bold" : ""}`}
            >
              {names}
            </text>
          </g>
        ))}
      </g>
    </svg>
  );
}
