import { KELVIN } from "./heating.ts";

/** The usual constant of the relation; and the other by the steel's carbon. */
export const USUAL_C = 20;
export const carbonC = (carbon: number) => 21.3 - 5.8 * carbon;

/** One temper: °C and hours. */
export interface Temper {
  readonly celsius: number;
  readonly hours: number;
}

/** What a temper comes to, K·(c + lg hours). Source: J. H. Hollomon and L. D. Jaffe (1945), from memory of. Silent on what a second cycle does to retained austenite. */
export function parameterOf({ celsius, hours }: Temper, c = USUAL_C): number {
  return (celsius + KELVIN) * (c + Math.log10(hours));
}

/** Cycles together, as so many hours at one temperature. */
export function asHoursAt(cycles: readonly Temper[], celsius: number, c = USUAL_C): number {
  const at = celsius + KELVIN;
  return cycles.reduce((sum, one) => sum + 10 ** (parameterOf(one, c) / at - c), 0);
}

/** How much hotter cycles of one temperature are than another programme at it, °C: as if that had been so much hotter. */
export function hotterThan(
  cycles: readonly Temper[],
  than: readonly Temper[],
  celsius: number,
  c = USUAL_C,
): number {
  const [hours, held] = [asHoursAt(cycles, celsius, c), asHoursAt(than, celsius, c)];
  const at = celsius + KELVIN;
  return (at * (c + Math.log10(hours))) / (c + Math.log10(held)) - at;
}
