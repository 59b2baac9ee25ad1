import { bevelOn, SIDES, type Side } from "../../blade/schema.ts";
import type { StageSteel } from "../../route/ladder.ts";
import type { Otherwise } from "../../route/steel.ts";
import { atan, tan } from "../../units/angle.ts";
import { responseTo } from "../response.ts";
import type { Shape } from "./fault.ts";
import { withBevel } from "./steel.ts";

/** How far above the shoulder a step between two slopes may lie, mm. */
const STEPS = [0.6, 1.2, 2.2, 4] as const;
/** As much as such a face stands proud above its step, mm: what it is asked with. */
const PROUD = 0.06;

/**
 * One face steeper from its shoulder to a step, and at its own angle from there: as a relief would be that nobody planned. One unit
 * is 1 mm proud at the step. Flat faces that follow their edge, and have no relief in the plan.
 */
export function twoSlopes(stage: StageSteel): Shape[] {
  const { blade } = stage.finished;
  if (stage.edge === "second" || stage.steel.recipe.roughAngle !== null) return [];
  return SIDES.flatMap((side) => {
    const bevel = bevelOn(blade, side);
    if (bevel.kind !== "flat" || bevel.pull !== "follow" || bevel.relief) return [];
    const { edgeBevel, grindLine, primaryAngle } = stage.finished.station(MIDDLE)[side];
    if (grindLine === null || primaryAngle === null) return [];
    const foot = edgeBevel ?? 0;
    return STEPS.filter((up) => foot + up < grindLine / 2).map((up) =>
      made(stage, side, foot, up, primaryAngle),
    );
  });
}

const MIDDLE = 0.5;

function made(stage: StageSteel, side: Side, foot: number, up: number, primary: number): Shape {
  const height = foot + up;
  const angle = (by: number) => atan(tan(primary) + by / up);
  const steel = (by: number): Otherwise => ({
    blade: (blade) =>
      withBevel(blade, side, (bevel) =>
        bevel.kind === "flat" && bevel.pull === "follow"
          ? { ...bevel, relief: { angle: angle(by), height } }
          : bevel,
      ),
  });
  return {
    pattern: "two-slopes",
    side,
    unit: "mm",
    faces: [],
    step: { height, angle, above: primary },
    sign: 1,
    responses: [(spot) => responseTo(stage, spot, `two slopes ${side} ${up}`, PROUD, steel, 1)],
    steel,
  };
}
