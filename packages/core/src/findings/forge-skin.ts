import { compileField, type Field } from "../blade/field.ts";
import { isInside } from "../blade/outline.ts";
import { SIDES, type Side } from "../blade/schema.ts";
import { constant } from "../blade/table.ts";
import { type Blank, blankOf } from "../forge/blank.ts";
import { stageSteel } from "../route/ladder.ts";
import { targetsAt } from "../route/targets.ts";
import { radians } from "../units/angle.ts";
import { type ForgeFinding, type ForgeRule, finding } from "./forge-finding.ts";

/** Stretches looked at along and up a section for steel that is missing. */
const ALONG = 26;
const UP = 9;

/** Less than this missing is none, mm. */
const LEAST_SHORT = 1e-3;

/** Where the most is missing of what later stages need and their skin, inside the finished outline. */
function shortest(floor: Field, blank: Blank, skin: number) {
  let worst: { short: number; x: number; side: Side } = { short: 0, x: 0, side: "right" };
  for (let i = 1; i < ALONG; i++) {
    const x = blank.left + ((blank.right - blank.left) * i) / ALONG;
    for (const [low, high] of blank.spans(x)) {
      for (let k = 1; k < UP; k++) {
        const y = low + ((high - low) * k) / UP;
        if (!isInside(floor.ring, x, y)) continue;
        floor.sampleAt(x, y);
        const wanted = SIDES.map((side) => floor[side].lowest + skin);
        SIDES.forEach((side, n) => {
          const short = wanted[n]! - blank.half(side, x, y);
          if (short > worst.short) worst = { short, x, side };
        });
      }
    }
  }
  return worst;
}

/** Steel that later stages need and the blank does not have: on its faces, or at its edge. */
export const skinGone: ForgeRule = ({ blade, route, shop, forge, forging: { blank }, say }) => {
  const stage = stageSteel(
    blade,
    route,
    shop,
    route.stages.find(({ kind }) => kind === "forge")?.id ?? "",
    forge,
  );
  const next = route.stages.find(({ kind }) => kind === "rough" || kind === "finish");
  const ground = next && targetsAt(stageSteel(blade, route, shop, next.id, forge))[1];
  const beta = radians(ground?.angle.right ?? ground?.angle.left ?? 0);
  const found: ForgeFinding[] = [];
  const needs = ground ? ground.edge + (2 * route.skin) / Math.cos(beta) : 0;
  if (ground && forge.blank.edge < needs - 1e-9) {
    const edge = Math.ceil(needs * 10) / 10;
    found.push(
      finding(
        "forge-skin",
        "fix",
        `The edge is left ${say.length(forge.blank.edge)}; ${say.length(needs)} must be there for what is ground after it and its skin.`,
        "Leave the edge thicker at the fire, or less for the oven.",
        "geometry",
        {
          measured: forge.blank.edge,
          wanted: [needs, null],
          unit: "mm",
          offers: [
            {
              words: `Leave ${say.length(edge)}`,
              forge: { ...forge, blank: { ...forge.blank, edge: Math.min(8, edge) } },
            },
          ],
        },
      ),
    );
  }
  const still = {
    flats: stage.left.flats,
    faces: { left: constant(stage.left.faces.left), right: constant(stage.left.faces.right) },
    edgeBevel: false,
    falseEdge: false,
  };
  const floor = compileField(blade, still);
  const worst = shortest(floor, blank, route.skin);
  if (worst.short > LEAST_SHORT && found.length === 0) {
    const finished = compileField(blade);
    const enough = Array.from({ length: 60 }, (_, i) => Math.round(20 * forge.blank.flats + i + 1) / 20)
      .filter((flats) => flats <= 3)
      .map((flats) => ({ ...forge, blank: { ...forge.blank, flats } }))
      .find((more) => shortest(floor, blankOf(finished, more, stage.left), route.skin).short <= LEAST_SHORT);
    found.push(
      finding(
        "forge-skin",
        "fix",
        `${say.length(worst.short)} is missing on the ${worst.side} ${say.along(worst.x, worst.x)}: the skin would stay in the blade.`,
        "Leave more on the flats at the fire, or a thicker edge.",
        "geometry; skin: starting value",
        {
          where: { side: worst.side, x: [worst.x, worst.x] },
          offers: enough ? [{ words: `Leave ${say.length(enough.blank.flats)} a side`, forge: enough }] : [],
        },
      ),
    );
  }
  return found;
};
