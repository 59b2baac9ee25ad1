import { type Standing, standingAfter } from "@true-spine/core/route/past.ts";
import type { RouteReport, StageReport } from "@true-spine/core/route/report.ts";
import type { TakenReading } from "@true-spine/core/route/schema.ts";
import { type LengthUnit, showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";

/** Off a face with one light pass of a coarse belt, mm. Starting value. */
const A_PASS = 0.02;

/** What the last reading says: what is still to go and about how many passes, or what having gone past it costs. */
export function told(
  last: TakenReading,
  stage: StageReport,
  report: RouteReport | null,
  unit: LengthUnit,
): string {
  const say = (mm: number) => showLengthWithUnit(mm, unit);
  const i = ["heel", "middle", "tip"].indexOf(last.place);
  const planned = stage.targets[i]!;
  const lead = `Last reading, ${last.place}: ${showLength(last.value, unit)}.`;
  if (last.what === "line") {
    const line = planned.grindLine.right ?? planned.grindLine.left;
    if (line === null) return lead;
    const off = line - last.value;
    return `${lead} The line ${off > 0 ? `climbs ${say(off)} more` : `stands ${say(-off)} too high`}.`;
  }
  const { toGo, left, short, thinner, needed } = standingOf(last, stage, report);
  if (toGo > 0.005) {
    return `${lead} Still ${say(toGo)} to go on each face, about ${Math.max(1, Math.ceil(toGo / A_PASS))} passes a side.`;
  }
  if (short > 0.002) {
    return `${lead} Past the line: ${say(short)} a side short for what must still come off. The finished edge comes out ${say(thinner)} thinner, or stop at a coarser belt.`;
  }
  if (last.past) {
    return `${lead} Past the line: what follows is planned anew. Still ${say(left)} on each face, ${say(needed)} needed.`;
  }
  return toGo > -0.02
    ? `${lead} That is the line.`
    : `${lead} Past the line by ${say(-toGo)} a side; still ${say(left)} on each face, ${say(needed)} needed.`;
}

/** What a reading of the edge says about the steel still there, at its own place. */
export function standingOf(
  last: TakenReading,
  stage: StageReport,
  report: RouteReport | null,
): Standing & { needed: number } {
  const i = ["heel", "middle", "tip"].indexOf(last.place);
  const planned = stage.targets[i]!;
  // The last stage before sharpening has nothing left on its faces: what it reads is the bare edge.
  const bare = report?.stages.findLast(
    ({ kind, left, isBevelled }) =>
      isBevelled && left.faces.left === 0 && left.faces.right === 0 && kind !== "sharpen",
  );
  // An edge stands between both faces: the tighter of them says what it may still lose.
  const needed = Math.max(stage.needed.left, stage.needed.right);
  const standing = standingAfter({
    read: last.value,
    planned: planned.edge,
    bare: bare?.targets[i]?.edge ?? 0,
    perFace: planned.edgePerFace || 2,
    needed,
  });
  return { ...standing, needed };
}
