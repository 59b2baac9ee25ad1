import type { EdgeTool } from "./tools.ts";

/**
 * Where a tool is set for an edge angle, and which angle a setting gives elsewhere along the edge. Angles are radians from the centre plane,
 * lengths mm. Source: plane geometry; the tests turn points in space.
 */

/** Height of the spine's centre over a stone. */
export const liftFor = (height: number, alpha: number) => height * Math.sin(alpha);
/** The gap under the spine's lower corner, `half` off the centre plane there; o as far as the apex lies off it. */
export const gapFor = (height: number, alpha: number, half: number, offset = 0) =>
  height * Math.sin(alpha) - (half - offset) * Math.cos(alpha);
/** The angle that a lift gives where the blade is so high; null where it is lower than the lift. */
export const angleOfLift = (lift: number, height: number) =>
  lift <= height ? Math.asin(lift / height) : null;

/** A ball over the centre plane that a stone's rod goes through: D along the edge's own normal from the ball to the edge. */
export const ballFor = (distance: number, alpha: number, inside: number) =>
  distance * Math.tan(alpha) + inside / Math.cos(alpha);
/** The angle it gives there; null where the stone cannot lie on the edge. */
export function angleOfBall(eta: number, distance: number, inside: number): number | null {
  const reach = Math.hypot(eta, distance);
  return inside < reach ? Math.atan2(eta, distance) - Math.asin(inside / reach) : null;
}

/** Axle of a wheel of radius R to a support that lies p along the blade from the apex and q off its plane, away from the wheel. */
export function axleToSupport(
  { R, p, q }: Pick<Extract<EdgeTool, { kind: "support" }>, "R" | "p" | "q">,
  alpha: number,
): number {
  return Math.sqrt(R ** 2 + p ** 2 + q ** 2 + 2 * R * (p * Math.sin(alpha) + q * Math.cos(alpha)));
}
/** The angle at the apex that it gives, by a wheel as it is now; null where the wheel does not reach. */
export function angleOfSupport(C: number, { R, p, q }: { R: number; p: number; q: number }): number | null {
  const K = (C ** 2 - R ** 2 - p ** 2 - q ** 2) / (2 * R);
  const share = K / Math.hypot(p, q);
  return Math.abs(share) <= 1 ? Math.asin(share) - Math.atan2(q, p) : null;
}
/** How high over the axle the apex lies with the blade level on top of the wheel. */
export const apexOverAxle = (R: number, alpha: number) => R * Math.cos(alpha);
/** How much flatter a hollow facet of a face f long ends at its shoulder than at its apex: the wheel's tangent turns by so much. */
export const turnOverWheel = (face: number, R: number) => 2 * Math.asin(face / (2 * R));

/** How far a slack belt gives way under a push: half of the turn that it takes about the edge. */
export const slackBy = (F: number, N: number) => (F < 2 * N ? Math.asin(F / (2 * N)) : null);
/** How far the facet of a face f long then stands out of its chord. */
export const slackBulge = (face: number, phi: number) => (face / 2) * Math.tan(phi / 2);
