import { integrate } from "../blade/quadrature.ts";
import { bisected } from "../numbers/bisect.ts";
import { degrees } from "../units/angle.ts";

/** A section of a bevelled blank: flat from the spine down, then down to the edge, mm. */
export interface BevelSection {
  /** Over the flats. */
  readonly T: number;
  readonly W: number;
  /** How far up from the edge the bevel goes. */
  readonly b: number;
  /** The edge left. */
  readonly e: number;
}

/** What setting a bevel down does to a section. */
export interface SetDown {
  /** Of the section, mm². */
  readonly area: number;
  /** How much longer the whole becomes, as a ratio. */
  readonly stretch: number;
  /** The same at the spine and at the edge. */
  readonly atSpine: number;
  readonly atEdge: number;
  /** dθ/dx of the bevelled blank: radians for each mm of it. */
  readonly turn: number;
  /** The width it was before, mm. */
  readonly before: number;
}

/** Points a piece is summed over: the powers of a straight bevel, far beyond what is shown. */
const POINTS = 24;

/**
 * What a bevel set down does: a strip alone would lengthen by (T/t)^(1−s), and widen by the rest, s being the share that goes to
 * width, 0…1. Sections stay plane, so the section lengthens by p₀ + qy, the line through what its strips would, weighted by their
 * thickness: no net force and no moment. Source: S. Timoshenko, "Analysis of bi-metal thermostats", J. Opt. Soc. Am. 11 (1925), from
 * memory of; geometry. Spine thickness held, even heat.
 */
export function setDown({ T, W, b, e }: BevelSection, toWidth: number): SetDown {
  const high = Math.min(b, W);
  const flat = W - high;
  const at = (y: number) => (y <= flat ? T : T - ((T - e) * (y - flat)) / high);
  const over = (f: (y: number) => number) =>
    (flat > 0 ? integrate(f, 0, flat, POINTS) : 0) + (high > 0 ? integrate(f, flat, W, POINTS) : 0);
  const strip = (y: number) => (T / at(y)) ** (1 - toWidth);
  const [m0, m1, m2] = [over(at), over((y) => at(y) * y), over((y) => at(y) * y * y)];
  const [q0, q1] = [over((y) => at(y) * strip(y)), over((y) => at(y) * strip(y) * y)];
  const { p, q } = throughStrips(m0, m1, m2, q0, q1);
  const stretch = q0 / m0;
  return {
    area: m0,
    stretch,
    atSpine: p,
    atEdge: p + q * W,
    turn: q / stretch,
    before: (m0 * stretch) / T,
  };
}

/** The line that carries no force and no moment, from the moments of thickness and of thickness times stretch. */
export function throughStrips(m0: number, m1: number, m2: number, q0: number, q1: number) {
  const q = (m0 * q1 - m1 * q0) / (m0 * m2 - m1 * m1);
  return { p: (q0 - q * m1) / m0, q };
}

/**
 * Forwards: a bar `W` wide and `T` thick of which `b` is bevelled down to `e`. What lies above the bevel is kept; the bevel's height
 * afterwards is found for which the section was so wide before. mm. Source: the relation above.
 */
export function bevelled({ T, W, b, e }: BevelSection, toWidth: number): BevelSection {
  const kept = W - b;
  const high = bisected(
    W,
    b,
    (2 * b * T) / (T + e) + 1,
    (now) => setDown({ T, W: kept + now, b: now, e }, toWidth).before,
  );
  return { T, W: kept + high, b: high, e };
}

/** How far the tip lifts, and how far the middle stands off the chord, of an even turn of θ radians over a length, mm. Source: geometry of a circle. */
export function liftOf(length: number, turn: number): { lift: number; sagitta: number } {
  if (Math.abs(turn) < 1e-9) return { lift: 0, sagitta: 0 };
  return { lift: (length * (1 - Math.cos(turn))) / turn, sagitta: (length / 2) * Math.tan(turn / 4) };
}

/** The share that went to width, by how much a section turned for each mm; null where no share does that. */
export function shareByTurn(section: BevelSection, perMm: number): number | null {
  const turn = (s: number) => setDown(section, s).turn;
  if (perMm < 0 || perMm > turn(0)) return null;
  return bisected(-perMm, 0, 1, (s) => -turn(s));
}

/** The same by the width before and after, mm. */
export function shareByWidth(section: BevelSection, before: number): number | null {
  const width = (s: number) => setDown(section, s).before;
  if (before < width(1) || before > width(0)) return null;
  return bisected(-before, 0, 1, (s) => -width(s));
}

/** A turn for each mm as degrees over 100 mm. */
export const perHundred = (turn: number) => degrees(100 * turn);
