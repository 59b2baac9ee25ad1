import { SIDES } from "../../blade/schema.ts";
import type { StageSteel } from "../../route/ladder.ts";
import { faceResponse } from "../response.ts";
import type { Spot } from "../schema.ts";
import { placeOf } from "../span.ts";
import { faceShape, type Shape } from "./fault.ts";

function readAlong(spots: readonly Spot[]): number[] {
  const us = spots.flatMap(({ u }) => (u === undefined ? [] : [u]));
  return [...new Set(us)].sort((a, b) => a - b);
}

/** The apex moved over the whole edge or a run of the places read, or one side alone left heavy there. */
export function offCentre(stage: StageSteel, spots: readonly Spot[]): Shape[] {
  const us = readAlong(spots.filter(({ what }) => ["edge", "behind", "over", "line"].includes(what)));
  const runs = us.flatMap((_, i) => us.slice(i + 1).map((_, k): [number, number] => [i, i + 1 + k]));
  // Square to the face from along the plane: as much as lifts the apex by 1 mm there.
  const perApex = new Map<string, number>(
    us.flatMap((u) =>
      SIDES.map((side) => {
        const lifts = faceResponse(stage, { what: "over", u, side }, side);
        return [`${side} ${u}`, lifts > 0 ? 1 / lifts : 1] as [string, number];
      }),
    ),
  );
  const squared = (side: string, u: number) => perApex.get(`${side} ${u}`) ?? 1;
  return runs.flatMap(([i, k]) => {
    // Full where it was read, and running out to the next place on either side where it was not.
    const [before, after] = [us[i - 1], us[k + 1]];
    const within = (u: number) => {
      if (u < us[i]!) return before === undefined ? 1 : Math.max(0, (u - before) / (us[i]! - before));
      if (u > us[k]!) return after === undefined ? 1 : Math.max(0, (after - u) / (after - us[k]!));
      return 1;
    };
    const x = [placeOf(stage, us[i]!), placeOf(stage, us[k]!)] as const;
    const moved = faceShape(
      stage,
      "off-centre",
      [(side, u) => within(u) * squared(side, u) * (side === "left" ? 1 : -1)],
      { x },
    );
    const heavy = SIDES.map((thick) =>
      faceShape(stage, "off-centre", [(side, u) => (side === thick ? within(u) : 0)], { x, side: thick }),
    );
    return [moved, ...heavy];
  });
}
