import type { StageSteel } from "../route/ladder.ts";
import type { Bend, Otherwise } from "../route/steel.ts";
import { curveOf } from "../straight/fit.ts";
import type { Known } from "./fit.ts";
import { responseTo } from "./response.ts";
import type { Reading, Spot } from "./schema.ts";
import type { StraightAsked, StraightReport } from "./straightness.ts";

/** Fewer rows along a blade say nothing of a bow. */
const LEAST_ROWS = 4;
const COVERS = 1.96;
const LIES: readonly Bend["lies"][] = ["held", "level", "free"];

/** Which of both the lines read along a blade speak of. */
export function speaksOf({ rows, twist }: StraightReport): ("bow" | "twist")[] {
  return [...(rows >= LEAST_ROWS ? (["bow"] as const) : []), ...(twist ? (["twist"] as const) : [])];
}

/** What the bench takes as read of how its blade is bent. */
export const knownOf = (stage: StageSteel, report: StraightReport): Known => ({
  bends: bendsOf(stage, report),
  instead: speaksOf(report),
});

/** Whether the lines read along it are newer than bow or twist as one figure of it: then they stand for both. */
export function isNewer({ sets }: Pick<StraightAsked, "sets">, readings: readonly Reading[]): boolean {
  const last = sets.at(-1);
  const single = readings.filter(({ what }) => what === "bow" || what === "twist");
  return last !== undefined && single.every(({ when }) => Date.parse(when) <= Date.parse(last.when));
}

/**
 * The bend that lines read along a blade found, at its size, in each way that the blade may have lain when its edge was read over a
 * plate. None where it is straight as far as they tell. x and y in mm, z to the right.
 */
function bendsOf(stage: StageSteel, { best, twist, height }: StraightReport): Known["bends"] {
  const isTurned = twist !== null && Math.abs(twist.total) > COVERS * twist.u;
  if (!best && !isTurned) return [];
  // What it is told as: the height of its bow, or else of its turn in degrees.
  const [pattern, unit, size] = best
    ? (["bow", "mm", height] as const)
    : (["twist", "°", (twist!.total * 180) / Math.PI] as const);
  const curve = best ? curveOf(best) : () => 0;
  const { ring } = stage.finished.field;
  const { spine } = stage.finished.blade.outline;
  const tip = spine[spine.length - 1]!.at[0];
  const turn = (x: number) => {
    if (!isTurned) return 0;
    if (twist.at !== null) return x >= twist.at ? twist.total : 0;
    return (twist.total * x) / twist.span;
  };
  // Laid down by its heel or its middle, about its spine or its middle line: what a turn does at the edge hangs on that.
  const ways = isTurned
    ? [0, tip / 2].flatMap((flush) => [0, (ring.bottom + ring.top) / 4].map((axis) => ({ flush, axis })))
    : [{ flush: 0, axis: 0 }];
  const name = JSON.stringify([best?.shape, best?.amplitudes, isTurned && twist]);
  return ways.flatMap(({ flush, axis }) =>
    LIES.map((lies) => {
      const z = (x: number, y: number) => curve(x) + (turn(x) - turn(flush)) * (y - axis);
      const steel = (by: number): Otherwise => ({ bend: { z: (x, y) => (by / size) * z(x, y), lies } });
      const key = `known ${name} ${flush} ${axis} ${lies}`;
      const sign = size < 0 ? -1 : 1;
      const response = (spot: Spot) => responseTo(stage, spot, key, Math.abs(size), steel, sign);
      return { size, shape: { pattern, unit, faces: [], responses: [response], steel } };
    }),
  );
}
