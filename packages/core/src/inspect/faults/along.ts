import { placeAt } from "../../blade/chain.ts";
import { bevelOn, SIDES, type Side } from "../../blade/schema.ts";
import type { StageSteel } from "../../route/ladder.ts";
import type { Spot } from "../schema.ts";
import { LAST_READ, placeOf } from "../span.ts";
import { faceShape, type OnFace, type Shape } from "./fault.ts";

/** How far from the plunge a dip may reach, mm. */
const DIPS = [12, 18, 25];

/** A face ground too deep where the work began, at the plunge. */
export function smile(stage: StageSteel): Shape[] {
  const { plunges } = stage.steel.field;
  const sides: (Side | undefined)[] = [...SIDES, undefined];
  return sides.flatMap((only) =>
    DIPS.map((reach) => {
      const on: OnFace = (side, u) => {
        const cut = plunges[side];
        if (!cut || (only && side !== only)) return 0;
        const v = placeOf(stage, u) - cut.x;
        return v < 0 || v > reach ? 0 : Math.cos((Math.PI * v) / (2 * reach)) ** 2;
      };
      const foot = plunges[only ?? "right"]?.x ?? plunges.left?.x ?? 0;
      return faceShape(stage, "smile", [on], {
        sign: -1,
        x: [foot, foot + reach],
        ...(only ? { side: only } : {}),
      });
    }),
  );
}

/** Lengths of a wave along the blade, mm: from a hand's width to a few passes' overlap. */
const WAVES = [24, 32, 42, 56, 75];
const ENOUGH_FOR_WAVES = 5;

/** A grind line that wanders up and down: a sine and a cosine of the steel along the blade. */
export function wave(stage: StageSteel, spots: readonly Spot[]): Shape[] {
  return SIDES.flatMap((only) => {
    const lines = spots.filter(({ what, side }) => what === "line" && side === only);
    if (lines.length < ENOUGH_FOR_WAVES) return [];
    const places = lines.map(({ u }) => placeOf(stage, u!)).sort((a, b) => a - b);
    const apart = (places.at(-1)! - places[0]!) / (places.length - 1);
    // A wave shorter than twice the places' distance cannot be told from another: Nyquist.
    return WAVES.filter((length) => length > 2 * apart).map((length) => {
      const at = (u: number) => (2 * Math.PI * placeOf(stage, u)) / length;
      return faceShape(
        stage,
        "wave",
        [
          (side, u) => (side === only ? Math.sin(at(u)) : 0),
          (side, u) => (side === only ? Math.cos(at(u)) : 0),
        ],
        { side: only },
      );
    });
  });
}

/** An edge that climbs less has no belly a straight pull could thicken, mm. */
const LEAST_CLIMB = 2;

/** A straight pull leaves the climb of the edge above its first direction times tan β: 1 mm more edge where it is most. */
export function bellyThick(stage: StageSteel): Shape[] {
  const { edge, plunges, sharpFrom } = stage.finished.field;
  const start = placeAt(edge, Math.min(edge.length, Math.max(0, sharpFrom)));
  const foot = plunges.right ?? plunges.left;
  const [cos, sin] = [start.tx, start.ty];
  const climb = (u: number) => {
    const { x, y } = placeAt(edge, u * edge.length);
    if (foot && x < foot.x) return 0;
    return Math.max(0, (y - start.y) * cos - (x - start.x) * sin);
  };
  const most = Math.max(...[0.5, 0.6, 0.7, 0.8, 0.9, 0.95].map(climb));
  if (most < LEAST_CLIMB) return [];
  const cut = SIDES.filter((side) => bevelOn(stage.steel.blade, side).kind !== "none");
  const share = (u: number) => Math.min(1, climb(u) / climb(LAST_READ)) / cut.length;
  const begins = [0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8].find((u) => share(u) * cut.length > 0.05) ?? 0.8;
  const x = [placeOf(stage, begins), placeOf(stage, LAST_READ)] as const;
  return [
    faceShape(stage, "belly-thick", [(side, u) => (cut.includes(side) ? share(u) : 0)], { sign: 1, x }),
  ];
}
