import { YOUNGS_MODULUS } from "../blade/stiffness.ts";
import { bisected } from "../numbers/bisect.ts";

/**
 * How far past straight steel has to be bent to stay so far: an estimate, which the log corrects. Lengths mm, curvatures 1/mm, yield N/mm².
 * Source: elastic and ideally plastic plate, F. J. Gardiner (1957), from memory of.
 */

/** Yield, N/mm², × or ÷ 1.4: starting values. */
export const YIELDS = { soft: 350, black: 180, window: 200, hard: 2000 } as const;

/** The curvature at which the outside yields. */
export const yieldCurvature = (thick: number, sigma: number) => (2 * sigma) / (YOUNGS_MODULUS * thick);

/** How far the middle of a span is pressed when it begins to yield. */
export const yieldsAt = (thick: number, sigma: number, span: number) =>
  (sigma * span ** 2) / (6 * YOUNGS_MODULUS * thick);

/** A hard core in soft sides: its thickness and its own yield. */
export interface Clad {
  readonly core: number;
  readonly sigma: number;
}

/** What stays of a curvature it was loaded to. */
export function kept(loaded: number, thick: number, sigma: number, clad?: Clad): number {
  const E = YOUNGS_MODULUS;
  if (clad && loaded >= (2 * sigma) / (E * clad.core)) {
    const rho = clad.core / thick;
    return loaded * (1 - rho ** 3) - (3 * sigma * (1 - rho ** 2)) / (E * thick);
  }
  const r = yieldCurvature(thick, sigma) / loaded;
  return r >= 1 ? 0 : loaded * (1 - 1.5 * r + 0.5 * r ** 3);
}

/** The yield of one steel that was loaded to a curvature and kept so much of it, N/mm²; null where nothing stayed, or all. */
export function yieldBy(loaded: number, stays: number, thick: number): number | null {
  if (!(stays > 0 && stays < loaded)) return null;
  const most = (YOUNGS_MODULUS * thick * loaded) / 2;
  return bisected(-stays, 0, most, (sigma) => -kept(loaded, thick, sigma));
}

/** The curvature to load to for so much to stay; null where a hard core would break first. */
export function loadFor(stays: number, thick: number, sigma: number, clad?: Clad): number | null {
  const from = yieldCurvature(thick, sigma);
  const most = clad ? (2 * clad.sigma) / (YOUNGS_MODULUS * clad.core) : 50 * (from + stays);
  if (kept(most, thick, sigma, clad) < stays) return null;
  return bisected(stays, from, most, (loaded) => kept(loaded, thick, sigma, clad));
}

/** A curvature as the sagitta of a span, and back. */
export const sagitta = (kappa: number, span: number) => (kappa * span ** 2) / 8;

/** How far a flat blade hangs through between end supports, by its own weight, mm. Source: uniform beam, 5wL⁴/384EI. */
export function sagOf(length: number, thick: number): number {
  const [rho, g] = [7.85e-6, 9.81];
  return (5 * rho * g * length ** 4) / (32 * YOUNGS_MODULUS * thick ** 2);
}
