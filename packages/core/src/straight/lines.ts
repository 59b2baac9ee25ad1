/** From a bend to the lines it is worked off along. Curvatures 1/mm, angles radians, lengths mm. Geometry. */

/** One family of lines: on the face that is hollow across them, leaning `lean` from square to the spine, spine end toward the heel for +. */
export interface Lines {
  /** Curvature across the lines; + where the hollow is on the right face. */
  readonly kappa: number;
  readonly hollow: "left" | "right";
  readonly lean: number;
}

/**
 * The two principal curvatures of a blade that is bowed κ along it and turned τ for each mm, none across it: κ/2 ± √(κ²/4 + τ²), each with
 * the lines square to its own direction. What comes to nothing is left out.
 */
export function linesOf(kappa: number, tau: number): Lines[] {
  const root = Math.hypot(kappa / 2, tau);
  if (root === 0) return [];
  return [kappa / 2 + root, kappa / 2 - root]
    .filter((one) => Math.abs(one) > 1e-3 * root)
    .map((one) => ({
      kappa: one,
      hollow: one > 0 ? ("right" as const) : ("left" as const),
      lean: tau === 0 ? 0 : folded(Math.atan2(one - kappa, tau)),
    }))
    .sort((a, b) => Math.abs(b.kappa) - Math.abs(a.kappa));
}

const folded = (angle: number) => {
  if (angle > Math.PI / 2) return angle - Math.PI;
  return angle < -Math.PI / 2 ? angle + Math.PI : angle;
};

/** What each of lines p apart has to take, radians. */
export function perLine({ kappa, lean }: Lines, p: number): number {
  return Math.abs(kappa) * p * Math.cos(lean);
}

/** κ of an even bow B over L. */
export const kappaOf = (bow: number, length: number) => (-8 * bow) / length ** 2;

/** The bow that a face can spare with so much still to come off it and a skin kept, mm: half of the bow comes off each side. */
export const bowSpared = (left: number, skin: number) => Math.max(0, 2 * (left - skin));

/** The turn, radians, that a blade so tall can spare: a quarter of turn times height comes off at each corner. */
export const turnSpared = (left: number, skin: number, height: number) =>
  Math.max(0, (4 * (left - skin)) / height);

/** The bow that a twist leaves where it was worked off on one face alone. */
export const bowLeft = (turn: number, length: number) => (turn * length) / 8;
