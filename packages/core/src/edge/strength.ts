import type { Field } from "../blade/field.ts";
import { type Station, thicknessAlong } from "../blade/station.ts";

/**
 * Yield stress taken for hardened blade steel, N/mm². Source: from memory of handbook hardness conversion tables
 * (58 HRC stands near 2200 N/mm² tensile), less a tenth for yield. It cancels in every ratio.
 */
export const YIELD = 2000;
/** The same for steel that was never hardened, or stays in its soft sides, N/mm², × or ÷ 1.4: starting value. */
export const SOFT_YIELD = 350;
/** How far up the apex the load is taken to act, mm: a starting value, without a published source. */
export const CONTACT_DEPTH = 0.2;
const PLACES = 10;
/** Steps of the search between the two places beside the weakest one. */
const STEPS = 5;

export interface WeakPlace {
  /** Side load at the apex, N per mm of edge, that first yields a section. */
  readonly load: number;
  /** Height of that section above the apex, mm. */
  readonly at: number;
}

/** The weakest section of the apex (contact depth to shoulder) and of the body (shoulder to grind line). */
export interface EdgeStrength {
  readonly apex: WeakPlace | null;
  readonly body: WeakPlace | null;
}

/**
 * Edge strength index at a station: the least of σ·t(d)²/6d over the distance d from the apex, a cantilever of
 * thickness t(d) loaded at its end. Source: geometry and the bending of a plate strip (section modulus t²/6).
 * Compare it, never promise by it.
 */
export function edgeStrength(field: Field, station: Station): EdgeStrength {
  let strength = known.get(station);
  if (!strength) {
    strength = strengthOf(field, station);
    known.set(station, strength);
  }
  return strength;
}

const known = new WeakMap<Station, EdgeStrength>();

function strengthOf(field: Field, station: Station): EdgeStrength {
  const shoulder = station.right.edgeBevel ?? station.left.edgeBevel;
  // Above the grind line the flats, or a false edge, are another matter than the edge.
  const top = Math.min(station.right.grindLine ?? station.height, station.left.grindLine ?? station.height);
  if (shoulder === null) return { apex: null, body: weakest(field, station, CONTACT_DEPTH, top) };
  return {
    apex: weakest(field, station, CONTACT_DEPTH, shoulder),
    body: weakest(field, station, Math.max(shoulder, CONTACT_DEPTH), top),
  };
}

/** Side load, N per mm of edge, that yields the section at the contact depth, from the field alone. */
export function apexStrength(field: Field, station: Station): number {
  return loadAt(thicknessAlong(field, station.cut, CONTACT_DEPTH), CONTACT_DEPTH);
}

/**
 * The weakest section from a fixed height above the apex, mm, to the grind line, from the field alone: two descriptions of one steel have
 * the same. Null where there is nothing between.
 */
export function bodyStrength(field: Field, station: Station, from: number): WeakPlace | null {
  const top = Math.min(station.right.grindLine ?? station.height, station.left.grindLine ?? station.height);
  return weakest(field, station, from, top);
}

/** By steps, closer together low down, where it is nearly always decided; then by halves of halves beside the weakest. */
function weakest(field: Field, station: Station, from: number, to: number): WeakPlace | null {
  if (to <= from) return null;
  const placeAt = (share: number): WeakPlace => {
    const at = from + (to - from) * share ** 2;
    const load = loadAt(thicknessAlong(field, station.cut, Math.min(at, station.height - 1e-6)), at);
    return { load, at };
  };
  let weak = placeAt(0);
  let share = 0;
  for (let i = 1; i <= PLACES; i++) {
    const place = placeAt(i / PLACES);
    if (place.load < weak.load) [weak, share] = [place, i / PLACES];
  }
  let reach = 1 / PLACES;
  for (let i = 0; i < STEPS; i++) {
    reach /= 2;
    for (const beside of [share - reach, share + reach]) {
      if (beside < 0 || beside > 1) continue;
      const place = placeAt(beside);
      if (place.load < weak.load) [weak, share] = [place, beside];
    }
  }
  return weak;
}

function loadAt(thickness: number, distance: number): number {
  return (YIELD * thickness ** 2) / (6 * distance);
}

/** The same for a flat bevel at β with e₀ behind it before sharpening: (4/3)·σ·e₀·tan β. Source: geometry. */
export function flatBodyStrength(edgeBeforeSharpening: number, tanBevel: number): number {
  return (4 / 3) * YIELD * edgeBeforeSharpening * tanBevel;
}
