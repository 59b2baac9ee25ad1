import { tan } from "../units/angle.ts";

/**
 * Three ways of thinning flat flanks by Δe behind the edge, both sides together. mm; angles degrees a side. Source: geometry. Volumes are told
 * beside that of the parallel way.
 */
export interface ThinnedSection {
  /** Off each face at its edge, square to it. */
  readonly off: number;
  /** How much the grind line climbs; nought where it stays. */
  readonly climbs: number;
  /** The bevel's angle from then on; null where it is the same. */
  readonly angle: number | null;
  /** Of the volume that the parallel way takes. */
  readonly share: number;
}

/** The whole face taken down alike: the line climbs. */
export function parallel(by: number, beta: number): ThinnedSection {
  const cos = 1 / Math.hypot(1, tan(beta));
  return { off: (by * cos) / 2, climbs: by / (2 * tan(beta)), angle: null, share: 1 };
}

/** Turned about the line, `rise` above the shoulder: nothing there, all of it at the edge. */
export function hinge(by: number, beta: number, rise: number): ThinnedSection {
  const slope = tan(beta) + by / (2 * rise);
  return {
    off: by / 2 / Math.hypot(1, tan(beta)),
    climbs: 0,
    angle: (Math.atan(slope) * 180) / Math.PI,
    share: 0.5,
  };
}

/** A facet of its own up to a height above the shoulder, of a bevel that rises so high. */
export function relief(
  by: number,
  beta: number,
  { rise, height }: { rise: number; height: number },
): ThinnedSection {
  const slope = tan(beta) + by / (2 * height);
  return {
    off: by / 2 / Math.hypot(1, tan(beta)),
    climbs: 0,
    angle: (Math.atan(slope) * 180) / Math.PI,
    share: Math.min(1, height / (2 * rise)),
  };
}

/** Thinner than this behind the edge it is thinned on a stone by hand: power burns a thin edge. Starting value, common practice. */
export const BY_HAND_BELOW = 0.25;
