import { isByTorch, type OpReport, TORCH_WORDS } from "@true-spine/core/route/heat-report.ts";
import { gatesAt } from "@true-spine/core/work/joined.ts";
import { useScreen } from "../../blade/screen.ts";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { clock, inMinutes, leftInWords, useHeatClock } from "../../work/useHeatClock.ts";
import { record, tick, useRoute, useWorkRows } from "../../work/useWorkRows.ts";

/** The clock of one heat: into the fire, warm through, out; the end is a time of day, and stands through a reload. */
export function ClockGroup({
  report,
  isBehind,
}: {
  report: OpReport;
  /** It is being worked out anew: a moment that is not sure yet is not told. */
  isBehind: boolean;
}) {
  const screen = useScreen();
  const route = useRoute();
  const rows = useWorkRows();
  const { op, name } = report;
  const { running, ends, now, times } = useHeatClock(report);
  const stage = route.stages.find(({ id }) => id === op.id);
  const isWiped = gatesAt(rows).some(({ gate, after }) => gate === "oil-wiped" && after === op.id);
  const mark = (moment: "began" | "through" | "ended") =>
    record(screen, { stage: op.id, what: "run", moment });
  return (
    <Group title={`Clock: ${name}`}>
      {op.kind === "temper" && (
        <label className="flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            checked={isWiped}
            disabled={isWiped}
            onChange={() => record(screen, { stage: op.id, what: "gate", gate: "oil-wiped" })}
          />
          the oil is wiped off
        </label>
      )}
      {ends && isBehind && <p className="text-sm text-faint">Working out until when …</p>}
      {ends && !isBehind && (
        <p className="text-sm" role="timer" aria-label="Clock of the heat">
          {now < ends.through ? `Warm through about ${clock(ends.through)}, then held until ` : "Held until "}
          <strong className="text-xl">{clock(ends.end)}</strong>
          <span className="block text-faint">{leftInWords(ends.end, now)}</span>
        </p>
      )}
      {!ends && (
        <p className="text-sm text-faint">
          {isByTorch(op)
            ? TORCH_WORDS
            : `Through after ${inMinutes(report.through)}, held ${inMinutes(op.minutes)}: ${inMinutes(report.total)} in all.`}
          {times > 0 && ` Run ${times} ${times === 1 ? "time" : "times"}.`}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        {!running && <SmallButton onClick={() => mark("began")}>Into the heat now</SmallButton>}
        {running && !running.through && (
          <SmallButton onClick={() => mark("through")}>It is warm through now</SmallButton>
        )}
        {running && <SmallButton onClick={() => mark("ended")}>Out now</SmallButton>}
        {stage && !stage.done && !running && (
          <SmallButton onClick={() => tick(screen, stage, name)}>Tick it as done</SmallButton>
        )}
      </div>
    </Group>
  );
}
