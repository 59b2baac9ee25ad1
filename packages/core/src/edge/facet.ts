/**
 * What sharpening takes off an apex, and the facets it makes there. Angles are radians from the centre plane, lengths mm; every angle stands
 * between the apex's tangent and a right angle. Source: geometry of a triangle.
 */

/** Blade height that goes with `off` square to a facet. */
export const heightOff = (off: number, alpha: number) => off / Math.sin(alpha);
/** The same where the sides are held unlike and lose unlike. */
export function heightOffBoth(
  off: { left: number; right: number },
  alpha: { left: number; right: number },
): number {
  return (
    (off.left / Math.cos(alpha.left) + off.right / Math.cos(alpha.right)) /
    (Math.tan(alpha.left) + Math.tan(alpha.right))
  );
}

/** A micro-bevel at μ, m high, on an apex whose tangent is τ: what it takes off the blade's height. */
export const microTakes = (m: number, mu: number, tau: number) =>
  (m * (Math.tan(mu) - Math.tan(tau))) / Math.tan(tau);
/** How thick it is behind it, both sides together. */
export const microBehind = (m: number, mu: number) => 2 * m * Math.tan(mu);
/** How high a facet a touch-up makes that is held ε steeper than the apex and takes g. */
export const touchUpHeight = (g: number, tau: number, epsilon: number) =>
  (g * Math.tan(tau)) / (Math.tan(tau + epsilon) - Math.tan(tau));

/** Tangents of a face over a chord at its apex, its middle and its line: an arc outside the chord (q above 0) is steeper at the apex. */
export function tangentsOf(chord: { readonly run: number; readonly rise: number }, bulge: number) {
  const along = Math.atan2(chord.rise, chord.run);
  const theta = 2 * Math.atan((2 * bulge) / Math.hypot(chord.run, chord.rise));
  return { apex: along + theta, middle: along, line: along - theta };
}

/** Steel of a plain edge bevel, mm² of section, both sides, and how deep that is over its faces. */
export function plainEdge({ behind, alpha, beta }: { behind: number; alpha: number; beta: number }) {
  const before = behind * (1 - Math.tan(beta) / Math.tan(alpha));
  const high = behind / 2 / Math.tan(alpha);
  const area = (before * high) / 2;
  return { area, depth: area / ((2 * high) / Math.cos(alpha)), before, high };
}
