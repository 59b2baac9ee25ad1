import { type Blade, bevelOn, SIDES, type Side } from "../../blade/schema.ts";
import type { StageSteel } from "../../route/ladder.ts";
import type { Otherwise } from "../../route/steel.ts";
import { responseTo } from "../response.ts";
import type { Shape } from "./fault.ts";

/** A side's bevel changed in a blade's file; the other stays as it is. */
export function withBevel(
  blade: Blade,
  side: Side,
  change: (bevel: Blade["bevels"]["right"]) => Blade["bevels"]["right"],
) {
  const { right } = blade.bevels;
  const left = bevelOn(blade, "left");
  return {
    ...blade,
    bevels: side === "right" ? { right: change(right), left } : { right, left: change(left) },
  };
}

/** One plunge further along the blade, or leaning more, than it was marked. */
export function plungesUnlike(stage: StageSteel): Shape[] {
  return SIDES.flatMap((side) =>
    bevelOn(stage.finished.blade, side).kind === "none"
      ? []
      : (["x", "lean"] as const).map((what): Shape => {
          const steel = (by: number): Otherwise => ({
            blade: (blade) =>
              withBevel(blade, side, (bevel) =>
                bevel.kind === "none"
                  ? bevel
                  : { ...bevel, plunge: { ...bevel.plunge, [what]: bevel.plunge[what] + by } },
              ),
          });
          const key = `plunge ${side} ${what}`;
          return {
            pattern: "plunge-back",
            side,
            unit: what === "x" ? "mm" : "°",
            faces: [],
            // What is read clear of the plunges is not moved by them.
            responses: [
              (spot) =>
                spot.what === "plunge" || spot.what === "lean"
                  ? responseTo(stage, spot, key, what === "x" ? 0.5 : 1, steel)
                  : 0,
            ],
            steel,
          };
        }),
  );
}

/** A hollow of another wheel: as it was at shoulder and line, most between them. One unit is 1 mm less sagitta on each side. */
export function wheelSwapped(stage: StageSteel): Shape[] {
  const { blade } = stage.finished;
  const hollow = SIDES.filter((side) => bevelOn(blade, side).kind === "hollow");
  if (hollow.length === 0 || stage.steel.recipe.roughAngle !== null) return [];
  const station = stage.finished.station(0.5);
  const steel = (by: number): Otherwise => ({
    blade: (file) =>
      hollow.reduce(
        (changed, side) =>
          withBevel(changed, side, (bevel) => {
            if (bevel.kind !== "hollow") return bevel;
            const { grindLine, edgeBevel } = station[side];
            const half = ((grindLine ?? 20) - (edgeBevel ?? 0)) / 2;
            const radius = bevel.wheelDiameter / 2;
            const sagitta = radius - Math.sqrt(Math.max(0, radius ** 2 - half ** 2));
            const wanted = Math.max(0.002, sagitta - by);
            return { ...bevel, wheelDiameter: half ** 2 / wanted + wanted };
          }),
        file,
      ),
  });
  return [
    {
      pattern: "wheel-swapped",
      unit: "mm",
      faces: [],
      responses: [(spot) => responseTo(stage, spot, "wheel", 0.05, steel)],
      steel,
    },
  ];
}

/** Thicker by 1 mm over the flats, everywhere, more and more to the tip or to the ricasso, or as much thinner at the other end; bevels as they were ground. */
export function flatsNotTrue(stage: StageSteel): Shape[] {
  const { spine } = stage.finished.blade.outline;
  const tip = spine[spine.length - 1]!.at[0];
  const taper = (x: number) => Math.max(0, Math.min(1, x / tip));
  const ways: readonly (readonly [string, (x: number) => number])[] = [
    ["even", () => 1],
    ["tip", taper],
    ["ricasso", (x) => 1 - taper(x)],
    ["slant", (x) => 1 - 2 * taper(x)],
  ];
  return ways.map(([name, along]) => {
    const steel = (by: number): Otherwise => ({ flats: (_, x) => (by * along(x)) / 2 });
    return {
      pattern: "flats-not-true",
      unit: "mm",
      x: [0, tip],
      faces: [],
      responses: [(spot) => responseTo(stage, spot, `flats ${name}`, 0.1, steel)],
      steel,
    };
  });
}
