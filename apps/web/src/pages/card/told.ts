import { standingAfter } from "@true-spine/core/route/past.ts";
import type { RouteReport, StageReport } from "@true-spine/core/route/report.ts";
import type { Route, TakenReading } from "@true-spine/core/route/schema.ts";
import { type LengthUnit, showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";

/** Off a face with one light pass of a coarse belt, mm. Starting value. */
const A_PASS = 0.02;

/** What the last reading says: what is still to go and about how many passes, or what having gone past it costs. */
export function told(
  last: TakenReading,
  stage: StageReport,
  report: RouteReport | null,
  route: Route,
  unit: LengthUnit,
): string {
  const say = (mm: number) => showLengthWithUnit(mm, unit);
  const i = ["heel", "middle", "tip"].indexOf(last.place);
  const planned = stage.readings[i]!;
  const lead = `Last reading, ${last.place}: ${showLength(last.value, unit)}.`;
  if (last.what === "line") {
    const line = planned.grindLine.right ?? planned.grindLine.left;
    if (line === null) return lead;
    const off = line - last.value;
    return `${lead} The line ${off > 0 ? `climbs ${say(off)} more` : `stands ${say(-off)} too high`}.`;
  }
  // The last stage before sharpening has nothing left on its faces: what it reads is the bare edge.
  const bare = report?.stages.findLast(
    ({ kind, left, isBevelled }) => isBevelled && left.faces === 0 && kind !== "sharpen",
  );
  const needed = neededAfter(stage, report, route);
  const angle = planned.angle.right ?? planned.angle.left ?? 0;
  const { toGo, left, short, thinner } = standingAfter({
    read: last.value,
    planned: planned.edge,
    bare: bare?.readings[i]?.edge ?? 0,
    angle,
    needed,
  });
  if (toGo > 0.005) {
    return `${lead} Still ${say(toGo)} to go on each face, about ${Math.max(1, Math.ceil(toGo / A_PASS))} passes a side.`;
  }
  if (toGo > -0.02) return `${lead} That is the line.`;
  if (short === 0) {
    return `${lead} Past the line by ${say(-toGo)} a side. Still ${say(left)} on each face and ${say(needed)} needed: take that much less with the belts that follow.`;
  }
  return `${lead} Past the line by ${say(-toGo)} a side: ${say(short)} short for the belts that follow. The finished edge comes out ${say(thinner)} thinner, or stop at a coarser belt.`;
}

/** What must still come off each face after the coarse belts: the finer ones and the hand. */
function neededAfter(stage: StageReport, report: RouteReport | null, route: Route): number {
  const finish = report?.stages.find(({ kind }) => kind === "finish");
  const isBefore =
    finish &&
    route.stages.findIndex(({ kind }) => kind === stage.kind) <
      route.stages.findIndex(({ kind }) => kind === "finish");
  return isBefore ? finish.left.faces : stage.left.faces;
}
