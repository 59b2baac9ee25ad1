import { studentAt } from "../numbers/distributions.ts";
import { leastSquares } from "../numbers/least-squares.ts";
import { FARES } from "../steel/hardenability.ts";
import { asHoursAt, parameterOf, type Temper, USUAL_C } from "../steel/temper.ts";
import type { HeatOp } from "./schema.ts";
import type { Hardened } from "./shop.ts";

/** What the blades of a shop have said so far of its own fires: nothing here is made up where there are too few. */

/** Records are of the same hardening within so much, °C: starting value. */
const SAME_HEAT = 10;
const LEAST_POINTS = 4;
/** Tempers from coolest to hottest that a line may be laid through, °C. */
const LEAST_SPAN = 30;
/** So far beyond what was measured it may be read, °C. */
const BEYOND = 10;
/** From so many on a shop's own figure counts. */
const ENOUGH = 3;

/** One reading of a tempered blade: what the tempers come to, at the hottest of them. */
export interface HardnessPoint {
  readonly celsius: number;
  readonly hours: number;
  readonly HRC: number;
}

/** What a temper may be expected to leave, by what this shop has measured: HRC, ± covers 95 of 100 of single blades. */
export type Expected =
  | {
      readonly kind: "fit";
      readonly HRC: number;
      readonly give: number;
      /** HRC for each unit of the parameter. */
      readonly slope: number;
      readonly points: readonly HardnessPoint[];
    }
  | { readonly kind: "nearest"; readonly nearest: HardnessPoint; readonly points: readonly HardnessPoint[] }
  | { readonly kind: "beyond"; readonly points: readonly HardnessPoint[] }
  | { readonly kind: "none"; readonly points: readonly HardnessPoint[] };

/** Cycles as one, at the hottest of them. */
export function asOne(tempers: readonly Temper[], c = USUAL_C): Temper | null {
  if (tempers.length === 0) return null;
  const celsius = Math.max(...tempers.map((one) => one.celsius));
  return { celsius, hours: asHoursAt(tempers, celsius, c) };
}

/** This shop's readings of a steel that was hardened from about there. */
export function pointsOf(records: readonly Hardened[], steel: string, T: number): HardnessPoint[] {
  return records.flatMap((record) => {
    const one = asOne(record.tempers ?? []);
    const isSame = record.steel === steel && Math.abs(record.T - T) <= SAME_HEAT;
    return isSame && one && record.HRC !== undefined ? [{ ...one, HRC: record.HRC }] : [];
  });
}

/**
 * Hardness after a temper by a line through this shop's own readings over the tempers' parameter, with its 95 % prediction interval; the
 * nearest of two or three; else nothing. Source: least squares and Student's t, any handbook of statistics; J. H. Hollomon and
 * L. D. Jaffe (1945), from memory of.
 */
export function hardnessAfter(points: readonly HardnessPoint[], temper: Temper): Expected {
  const at = parameterOf(temper);
  const coolest = Math.min(...points.map(({ celsius }) => celsius));
  const hottest = Math.max(...points.map(({ celsius }) => celsius));
  if (points.length < 2) return { kind: "none", points };
  if (points.length < LEAST_POINTS || hottest - coolest < LEAST_SPAN) {
    const away = (point: HardnessPoint) => Math.abs(parameterOf(point) - at);
    const nearest = points.reduce((a, b) => (away(b) < away(a) ? b : a));
    return { kind: "nearest", nearest, points };
  }
  if (temper.celsius < coolest - BEYOND || temper.celsius > hottest + BEYOND)
    return { kind: "beyond", points };
  const P = points.map((point) => parameterOf(point));
  const n = P.length;
  const mean = P.reduce((sum, one) => sum + one, 0) / n;
  const values = points.map(({ HRC }) => HRC);
  const one = P.map(() => 1);
  const fit = leastSquares([one, P.map((p) => p - mean)], values, one);
  if (!fit) return { kind: "beyond", points };
  const [a, b] = fit.amplitudes as [number, number];
  const squares = P.reduce((sum, p) => sum + (p - mean) ** 2, 0);
  const spread = Math.sqrt(fit.chiSquare / (n - 2));
  const give = studentAt(0.975, n - 2) * spread * Math.sqrt(1 + 1 / n + (at - mean) ** 2 / squares);
  return { kind: "fit", HRC: a + b * (at - mean), give, slope: b, points };
}

/** Without a line of its own: so much hotter for whatever is too hard, °C. Common practice. */
const HOTTER = 10;

/** How much hotter to temper what is too hard by so many HRC, °C. Source: the line's own slope; without one, common practice. */
export function hotterFor(tooHard: number, temper: Temper, expected: Expected): number {
  if (expected.kind !== "fit" || expected.slope >= 0) return HOTTER;
  return tooHard / (-expected.slope * (USUAL_C + Math.log10(temper.hours)));
}

/** Where a section is usually through in this shop's quenchant, and where it is usually not. */
export interface Bracket {
  readonly through: number;
  readonly not: number;
  /** How many blades of the shop say so; below three they are starting values. */
  readonly count: number;
}
export const STARTING_BRACKET: Bracket = { ...FARES, count: 0 };

/** The highest q that a file bit at and the lowest that one skated at, once three blades have said. Where they cross, between them the file decides. */
export function bracketOf(records: readonly Hardened[]): Bracket {
  const said = records.flatMap(({ q, isThrough }) =>
    q === undefined || isThrough === undefined ? [] : [{ q, isThrough }],
  );
  if (said.length < ENOUGH) return { ...STARTING_BRACKET, count: said.length };
  const failed = said.filter(({ isThrough }) => !isThrough).map(({ q }) => q);
  const passed = said.filter(({ isThrough }) => isThrough).map(({ q }) => q);
  const lowest = passed.length > 0 ? Math.min(...passed) : STARTING_BRACKET.through;
  const highest = failed.length > 0 ? Math.max(...failed) : Math.min(STARTING_BRACKET.not, lowest);
  return { through: Math.max(lowest, highest), not: Math.min(lowest, highest), count: said.length };
}

/** How much deeper a skin is found in some air here than it is reckoned: 1 until three have been read. */
export interface SkinFactor {
  readonly times: number;
  readonly count: number;
  readonly range: readonly [number, number];
}
export function skinFactor(records: readonly Hardened[], air: NonNullable<HeatOp["air"]>): SkinFactor {
  const ratios = records.flatMap(({ skin }) => (skin?.air === air ? [skin.read / skin.reckoned] : []));
  const count = ratios.length;
  if (count === 0) return { times: 1, count, range: [1, 1] };
  const mean = Math.exp(ratios.reduce((sum, ratio) => sum + Math.log(ratio), 0) / count);
  return { times: count < ENOUGH ? 1 : mean, count, range: [Math.min(...ratios), Math.max(...ratios)] };
}
