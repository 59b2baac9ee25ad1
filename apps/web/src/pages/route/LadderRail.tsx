import type { StageReport } from "@true-spine/core/route/report.ts";
import { MILLIMETRES_IN, showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { useFile } from "../../blade/screen.ts";
import { BladeOutline } from "../../rail/BladeOutline.tsx";
import { Chart, type Curve } from "../../rail/Chart.tsx";
import { type Frame, RailFrame } from "../../rail/RailFrame.tsx";
import { Strip, TITLE_HEIGHT } from "../../rail/Strip.tsx";
import { pathThrough } from "../../rail/scale.ts";
import { type SidePlace, useSidePlace } from "../../rail/side-place.ts";
import { stageInk } from "./stage-colours.ts";

/** Share of the rail's height for the side view. */
const SIDE_SHARE = 0.7;
/** Edges nearer to one another than this are one line to the eye, mm: named once. */
const NAMED_APART = 0.08;

/** The ladder as one picture: each stage's grind line over the last on the side view, and its edge on the strip below. */
export function LadderRail({ stages, chosen }: { stages: readonly StageReport[]; chosen: number }) {
  return (
    <RailFrame share={SIDE_SHARE}>
      {(frame) => <Strips {...frame} steps={distinct(stages, chosen)} />}
    </RailFrame>
  );
}

function Strips({ scale, room, steps }: Frame & { steps: readonly Step[] }) {
  const unit = useSettings((settings) => settings.unit);
  const height = room * SIDE_SHARE;
  const place = useSidePlace(useFile(), scale, height, TITLE_HEIGHT);
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
    <>
      <Strip title="Ladder" note={<Legend steps={steps} />} height={height} isBlue>
        <Lines place={place} height={height} steps={steps} />
      </Strip>
      <Strip title="Edge" note={`${unit} thick when the stage is done`} height={room - height}>
        <Chart
          label="Thickness of the very edge along the blade, stage by stage"
          scale={scale}
          height={room - height}
          curves={curves}
          step={unit === "mm" ? 0.5 : 0.02 * MILLIMETRES_IN.inch}
          show={(value) => showLength(value, unit, unit === "mm" ? 1 : unit === "inch" ? 2 : 0)}
        />
      </Strip>
    </>
  );
}

/** A stage that leaves its own edge behind, and how it is named. */
interface Step {
  readonly stage: StageReport;
  readonly names: string;
  readonly isChosen: boolean;
}

/** Stages that leave the edge as they found it share one line, named by all of them. */
function distinct(list: readonly StageReport[], chosen: number): Step[] {
  const groups: { stage: StageReport; names: string[]; isChosen: boolean }[] = [];
  for (const [i, stage] of list.entries()) {
    const last = groups.at(-1);
    if (last && sameSteel(last.stage, stage)) {
      last.names.push(stage.name);
      last.isChosen ||= i === chosen;
    } else groups.push({ stage, names: [stage.name], isChosen: i === chosen });
  }
  // Before there is a bevel the edge is as thick as the bar: off the strip's scale, and nothing to stop at.
  return groups
    .filter(({ stage }) => stage.isBevelled)
    .map(({ stage, names, isChosen }) => ({
      stage,
      isChosen,
      names: names[0]!.toLowerCase(),
    }));
}

const middleOf = ({ edge }: StageReport) => edge[Math.floor(edge.length / 2)]?.[1] ?? 0;

function sameSteel(a: StageReport, b: StageReport): boolean {
  return a.edge.every(([, t], i) => Math.abs(t - b.edge[i]![1]) < 0.002);
}

/** Whose line is whose, beside the strip's name: never on the blade. */
function Legend({ steps }: { steps: readonly Step[] }) {
  return (
    <span className="inline-flex flex-wrap gap-x-3">
      {steps.map(({ names, isChosen }, i) => (
        <span key={names} className={isChosen ? "font-bold text-scribed" : ""}>
          <span
            aria-hidden
            className="mr-1 inline-block w-4 align-middle"
            style={{ borderTop: `${isChosen ? 3 : 2}px solid ${stageInk(i)}` }}
          />
          {names}
        </span>
      ))}
    </span>
  );
}

function Lines({ place, height, steps }: { place: SidePlace; height: number; steps: readonly Step[] }) {
  const { px, py, scale } = place;
  return (
    <svg
      width={scale.width}
      height={height}
      role="img"
      aria-label="Grind lines of every stage on the side view"
      className="absolute inset-0"
    >
      <BladeOutline place={place} />
      {steps.map(({ stage, names, isChosen }, i) => {
        const right = stage.grindLine.right.map((line) => pathThrough(line, px, py)).join("");
        const left = stage.grindLine.left.map((line) => pathThrough(line, px, py)).join("");
        return (
          <g key={names} fill="none" stroke={stageInk(i)} strokeWidth={isChosen ? 3 : 1.4}>
            <path d={right} />
            {left !== right && <path d={left} strokeDasharray="6 4" />}
          </g>
        );
      })}
    </svg>
  );
}
