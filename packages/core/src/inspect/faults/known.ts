import type { StageSteel } from "../../route/ladder.ts";
import type { Spot } from "../schema.ts";
import { bellyThick, smile, wave } from "./along.ts";
import { bowed, twisted } from "./bends.ts";
import { offCentre } from "./centre.ts";
import type { Shape } from "./fault.ts";
import { forgedShapes } from "./forged.ts";
import { wornReference } from "./hands.ts";
import { jigZero, outOfSquare } from "./held.ts";
import { twoSlopes } from "./slopes.ts";
import { flatsNotTrue, plungesUnlike, wheelSwapped } from "./steel.ts";

/** Every way the faults of the trade may look on this blade at this stage, for readings taken at these spots. */
export function shapesFor(stage: StageSteel, spots: readonly Spot[]): Shape[] {
  const ofWhole = [...flatsNotTrue(stage), ...bowed(stage), ...twisted(stage), ...wornReference(spots)];
  if (stage.blank)
    return [...bowed(stage), ...twisted(stage), ...wornReference(spots), ...forgedShapes(stage, spots)];
  if (!stage.isBevelled) return ofWhole;
  return [
    ...offCentre(stage, spots),
    ...smile(stage),
    ...wave(stage, spots),
    ...bellyThick(stage),
    ...plungesUnlike(stage),
    ...outOfSquare(stage),
    ...wheelSwapped(stage),
    ...jigZero(stage),
    ...twoSlopes(stage),
    ...ofWhole,
  ];
}
