import type { StageSteel } from "../../route/ladder.ts";
import type { Bend, Otherwise } from "../../route/steel.ts";
import { radians } from "../../units/angle.ts";
import { responseTo } from "../response.ts";
import type { Shape } from "./fault.ts";

type Plane = Bend["z"];

/**
 * A bend shows where the blade lies on a plate: each way it may lie there is a shape of its own, and one that is held flat where it is
 * read shows nothing of it but straightness.
 */
const LIES: readonly Bend["lies"][] = ["level", "free", "held"];

/** Bowed by 1 mm, the left flat hollow: a parabola over the blade. */
export function bowed(stage: StageSteel): Shape[] {
  const tip = tipOf(stage);
  const z =
    (by: number): Plane =>
    (x) =>
      by * (1 - (2 * (x / tip) - 1) ** 2);
  return bends(stage, "bow", "mm", [["even", z]], 0.2);
}

/** Twisted by 1° from heel to tip, the tip's edge to the left: laid down by its heel, by its middle, about its spine or its middle line. */
export function twisted(stage: StageSteel): Shape[] {
  const tip = tipOf(stage);
  const middle = (stage.finished.field.ring.bottom + stage.finished.field.ring.top) / 2;
  const ways = (["heel", "middle"] as const).flatMap((flush) =>
    ([0, middle / 2] as const).map((axis): readonly [string, (by: number) => Plane] => [
      `${flush} ${axis}`,
      (by) => (x, y) => radians(by) * (x / tip - (flush === "heel" ? 0 : 0.5)) * (y - axis),
    ]),
  );
  return bends(stage, "twist", "°", ways, 0.5);
}

function bends(
  stage: StageSteel,
  pattern: "bow" | "twist",
  unit: Shape["unit"],
  ways: readonly (readonly [string, (by: number) => Plane])[],
  step: number,
): Shape[] {
  return ways.flatMap(([name, z], i) =>
    LIES.filter((lies) => i === 0 || lies === "level").flatMap((lies) => {
      const steel = (by: number): Otherwise => ({ bend: { z: z(by), lies } });
      const shape = (only?: 1 | -1): Shape => ({
        pattern,
        unit,
        faces: [],
        responses: [
          (spot) => responseTo(stage, spot, `${pattern} ${name} ${lies} ${only ?? ""}`, step, steel, only),
        ],
        steel,
        ...(only ? { sign: only } : {}),
      });
      // Left to itself it lies otherwise on its crown than on its ends.
      return lies === "free" ? [shape(1), shape(-1)] : [shape()];
    }),
  );
}

function tipOf({ finished: { blade } }: StageSteel): number {
  const { spine } = blade.outline;
  return spine[spine.length - 1]!.at[0];
}
