import { handleLength } from "../blade/measure.ts";
import { compileRing, type Ring, spansAt } from "../blade/outline.ts";
import type { Blade, Hole } from "../blade/schema.ts";
import { tidy } from "../units/tidy.ts";

/** Where the holes at either end of an even row stand, as shares of the handle's length. */
const [FIRST, LAST] = [0.18, 0.82];

/** Holes of one size, evenly along the tang between two places, each in the middle of its height; mm. */
export function holesAlong(blade: Blade, count: number, diameter: number): Hole[] {
  const ring = compileRing(blade.outline);
  const handle = handleLength(ring);
  return Array.from({ length: count }, (_, i) => {
    const x = -handle * (count === 1 ? 0.5 : FIRST + ((LAST - FIRST) * i) / (count - 1));
    return { x: tidy(x), y: tidy(middleAt(ring, x)), d: diameter };
  });
}

/** The same in pairs: at every place two, a third of the tang's height apart; mm. */
export function pairsAlong(blade: Blade, places: number, diameter: number): Hole[] {
  const ring = compileRing(blade.outline);
  return holesAlong(blade, places, diameter).flatMap(({ x, y, d }) => {
    const [low, high] = spanAt(ring, x);
    const aside = (high - low) / 6;
    return [aside, -aside].map((by) => ({ x, y: tidy(y + by), d }));
  });
}

/** Holes moved onto the straight line from the first to the last of them, evenly spaced. Fewer than three stay as they are. */
export function evenlyBetween(holes: readonly Hole[]): Hole[] {
  const sorted = [...holes].sort((a, b) => b.x - a.x);
  const [from, to] = [sorted[0], sorted[sorted.length - 1]];
  if (!from || !to || holes.length < 3) return [...holes];
  return sorted.map((hole, i) => {
    const share = i / (sorted.length - 1);
    return {
      ...hole,
      x: tidy(from.x + share * (to.x - from.x)),
      y: tidy(from.y + share * (to.y - from.y)),
    };
  });
}

/** One more hole, in the middle of the widest stretch of the tang that has none; mm. */
export function anotherHole(blade: Blade, diameter: number): Hole {
  const ring = compileRing(blade.outline);
  const handle = handleLength(ring);
  const taken = (blade.holes ?? []).map(({ x }) => x).filter((x) => x < 0 && x > -handle);
  const ends = [0, ...taken, -handle].sort((a, b) => b - a);
  const gaps = ends.slice(1).map((to, i) => ({ from: ends[i]!, to }));
  const { from, to } = gaps.reduce((a, b) => (b.from - b.to > a.from - a.to + 1e-9 ? b : a));
  const x = (from + to) / 2;
  return { x: tidy(x), y: tidy(middleAt(ring, x)), d: diameter };
}

function spanAt(ring: Ring, x: number): readonly [number, number] {
  const [low = 0, high = 0] = spansAt(ring, x)[0] ?? [];
  return [low, high];
}

function middleAt(ring: Ring, x: number): number {
  const [low, high] = spanAt(ring, x);
  return (low + high) / 2;
}
