/**
 * How warm a place gets while it is ground: an estimate that ranks places on one blade and never calls one safe.
 * The steel under the belt is a plate heated on one face, its other face giving nothing off for the moment of a pass.
 * Source: Carslaw and Jaeger's slab with constant flux on one face and the other insulated, from memory.
 */

/** Plain steel near room temperature. Source: from memory of handbook tables: W/(mm K), J/(mm³ K). */
const CONDUCTIVITY = 0.045;
const HEAT_CAPACITY = 0.0038;

/** J spent on a mm³ of steel taken off by a belt, and the share of it that stays in the blade. Starting values. */
const ENERGY = 20;
const SHARE_KEPT = 0.5;
/** mm² of face under the belt at once, and seconds that one place stays under it in a pass. Starting values. */
const CONTACT = 400;
const PASS = 1.5;

const TERMS = 40;

/** Rise of the ground face of a plate `thickness` mm thick under `flux` W/mm² for `seconds`, K. */
export function plateRise(thickness: number, flux: number, seconds: number): number {
  const diffusivity = CONDUCTIVITY / HEAT_CAPACITY;
  const time = (diffusivity * seconds) / thickness ** 2;
  let sum = 0;
  for (let n = 1; n <= TERMS; n++) sum += Math.exp(-(n ** 2) * Math.PI ** 2 * time) / n ** 2;
  return ((flux * thickness) / CONDUCTIVITY) * (time + 1 / 3 - (2 / Math.PI ** 2) * sum);
}

/** Rise in one pass of a belt that takes `rate` mm³ a minute, on steel of this thickness, K. */
export function passRise(thickness: number, rate: number): number {
  const flux = (SHARE_KEPT * ENERGY * (rate / 60)) / CONTACT;
  return plateRise(thickness, flux, PASS);
}

/** A place of a stage by how warm it gets, warmest first; `times` as warm as the coolest. */
export interface Warmth {
  readonly place: string;
  readonly thickness: number;
  readonly times: number;
}

/** Ranks places by the rise that a pass makes in them. */
export function rankByHeat(places: readonly { place: string; thickness: number }[], rate: number): Warmth[] {
  const rises = places.map((one) => ({ ...one, rise: passRise(Math.max(0.05, one.thickness), rate) }));
  const coolest = Math.min(...rises.map(({ rise }) => rise));
  return rises
    .toSorted((a, b) => b.rise - a.rise)
    .map(({ place, thickness, rise }) => ({ place, thickness, times: rise / coolest }));
}
