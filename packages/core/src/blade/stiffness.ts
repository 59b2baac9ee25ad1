import type { Field } from "./field.ts";
import { sectionSums } from "./mass.ts";
import { spansAt } from "./outline.ts";
import { bunchedRule } from "./quadrature.ts";

/** Young's modulus of steel, N/mm². Source: handbook value for carbon and low-alloy steels, 205 GPa. */
export const YOUNGS_MODULUS = 205_000;

/** How far behind the tip the load is taken to act, mm: the very point bends without limit. Common practice. */
export const LOAD_BEHIND_TIP = 5;

const PIECES = 12;
const POINTS = 6;

/**
 * How far the point goes sideways, mm, under a side load in N acting 5 mm behind the tip, clamped at the junction.
 *
 * ∫ P·(L − x)²/E·I(x) dx, the bending of a slender cantilever whose section changes (unit-load method, any
 * handbook of strength of materials); I about each section's own middle line. Null where the blade is
 * under 5 mm long, or somewhere has no steel across it.
 */
export function tipDeflection(field: Field, load: number): number | null {
  const { spine } = field.blade.outline;
  const length = spine[spine.length - 1]!.at[0] - LOAD_BEHIND_TIP;
  if (!(length > 0)) return null;
  const { place, weight } = bunchedRule(POINTS);
  let sum = 0;
  for (let i = 0; i < PIECES; i++) {
    for (let k = 0; k < place.length; k++) {
      const x = (length * (i + place[k]!)) / PIECES;
      const stiffness = bendingSecondMoment(field, x);
      if (!(stiffness > 0)) return null;
      sum += (weight[k]! * (length - x) ** 2) / stiffness;
    }
  }
  return (load * sum * length) / (PIECES * YOUNGS_MODULUS);
}

/** Second moment of the section at x about its own middle line, mm⁴. */
export function bendingSecondMoment(field: Field, x: number): number {
  const { area, sideMoment, secondMoment } = sectionSums(field, x, spansAt(field.ring, x));
  return area > 0 ? secondMoment - sideMoment ** 2 / area : 0;
}
