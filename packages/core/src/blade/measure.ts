import { type Chain, placeAt } from "./chain.ts";
import type { Field } from "./field.ts";
import { type Ring, spansAt } from "./outline.ts";
import type { Blade } from "./schema.ts";
import type { Station } from "./station.ts";

/** Dimensions read off an outline, whoever drew it: from the curves themselves, not from their nodes. Lengths mm. */

/** How far a run may stray from its line and still be straight, mm: nothing a hand or a machine could show. */
const STRAIGHT = 1e-9;
const SAMPLES = 600;

export const tipOf = (ring: Ring) => placeAt(ring.edge, ring.edge.length);
export const heelOf = (ring: Ring) => placeAt(ring.edge, 0);

/** Junction to tip along the datum. */
export const bladeLength = (ring: Ring) => tipOf(ring).x;
/** From the datum down to the heel. */
export const heelHeight = (ring: Ring) => -heelOf(ring).y;
/** From the datum down to the tip; negative where the tip stands above it. */
export const tipDrop = (ring: Ring) => -tipOf(ring).y;
/** Butt to junction. */
export const handleLength = (ring: Ring) => -ring.left;

/** Over the flats where a blade is thickest. */
export const thickestOf = ({ thickness }: Pick<Blade, "thickness">) =>
  Math.max(...thickness.map(({ t }) => t));

/** Height of the steel across x. */
export function heightAt(ring: Ring, x: number): number {
  return spansAt(ring, x).reduce((sum, [low, high]) => sum + high - low, 0);
}

/** Where a chain leaves the straight line it begins with, as a place on it; its end where it never does. */
export function straightUntil(chain: Chain): { x: number; y: number } {
  const start = placeAt(chain, 0);
  const strays = (s: number) => {
    const { x, y } = placeAt(chain, s);
    return Math.abs((y - start.y) * start.tx - (x - start.x) * start.ty) > STRAIGHT;
  };
  let low = 0;
  let high = chain.length;
  for (let i = 1; i <= SAMPLES; i++) {
    const s = (i * chain.length) / SAMPLES;
    if (strays(s)) {
      high = s;
      break;
    }
    low = s;
  }
  if (low === chain.length) return placeAt(chain, low);
  for (let step = 0; step < 40; step++) {
    const middle = (low + high) / 2;
    if (strays(middle)) high = middle;
    else low = middle;
  }
  return placeAt(chain, low);
}

/** Largest distance of a chain, from a place on it to its end, inside the chord between them; 0 where it bulges out. */
export function dipBelowChord(chain: Chain, from: { x: number; y: number }): number {
  const end = placeAt(chain, chain.length);
  const [cx, cy] = [end.x - from.x, end.y - from.y];
  const chord = Math.hypot(cx, cy);
  let most = 0;
  for (let i = 0; i <= SAMPLES; i++) {
    const { x, y } = placeAt(chain, (i * chain.length) / SAMPLES);
    if (x < from.x) continue;
    most = Math.max(most, -((y - from.y) * cx - (x - from.x) * cy) / chord);
  }
  return most;
}

/** The highest the outline stands above the datum. */
export function crownOf(ring: Ring): { x: number; y: number } {
  let best = placeAt(ring.spine, 0);
  let at = 0;
  const step = ring.spine.length / SAMPLES;
  for (let i = 0; i <= SAMPLES; i++) {
    const place = placeAt(ring.spine, i * step);
    if (place.y > best.y) [best, at] = [place, i * step];
  }
  for (let size = step; size > 1e-7; size /= 2) {
    for (const s of [at - size, at + size]) {
      const place = placeAt(ring.spine, s);
      if (place.y > best.y) [best, at] = [place, s];
    }
  }
  return best;
}

/**
 * Whether a section square to the edge lies past both plunges and the radius they run out with, from the edge up to `upTo` mm above it.
 */
export function isPastPlunge(
  { plunges }: Pick<Field, "plunges">,
  { x, y, inward, height }: Pick<Station, "x" | "y" | "inward" | "height">,
  upTo: number,
): boolean {
  const reach = Math.min(upTo, height);
  return [plunges.left, plunges.right].every((cut) => {
    if (!cut) return true;
    const past = (s: number) =>
      (x + s * inward[0] - cut.x) * cut.cos - (y + s * inward[1] - cut.y) * cut.sin >= cut.radius - 1e-9;
    return past(0) && past(reach);
  });
}

/** The first share of the edge, 0…1, that is sharpened and clear of both plunges and their run-in. */
export function clearFrom({
  plunges,
  edge,
  sharpFrom,
}: Pick<Field, "plunges" | "edge" | "sharpFrom">): number {
  return Math.max(
    sharpFrom / edge.length,
    ...([plunges.left, plunges.right] as const).map((cut) => {
      if (!cut) return 0;
      const clear = cut.x + cut.radius / cut.cos;
      for (let i = 0; i <= 100; i++) if (placeAt(edge, (i / 100) * edge.length).x >= clear) return i / 100;
      return 1;
    }),
  );
}
