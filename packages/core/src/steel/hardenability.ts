import { bisected } from "../numbers/bisect.ts";
import { type Composition, USUAL_SILICON } from "./composition.ts";

/**
 * Ideal diameter, mm: the round that is half martensite at its centre in a quench that takes all heat at once. Source: ASTM A255's
 * factors, from memory of; grain by M. A. Grossmann (1942), from memory of. `grain` is the ASTM number, 7 unless it is known.
 */
export function idealDiameter(
  { C, Mn, Si = USUAL_SILICON, Ni = 0, Cr = 0, Mo = 0, V = 0, Cu = 0 }: Composition,
  grain = 7,
): number {
  const manganese = Mn > 1.2 ? 5.1 * Mn - 1.12 : 1 + 3.3333 * Mn;
  const others =
    (1 + 0.7 * Si) * (1 + 0.363 * Ni) * (1 + 2.16 * Cr) * (1 + 3 * Mo) * (1 + 0.365 * Cu) * (1 + 1.73 * V);
  return 25.4 * carbonFactor(C) * manganese * others * 1.08 ** (7 - grain);
}

/** The carbon's own factor, inches; above 0.90 % as there, to rank by only. Source: ASTM A255, from memory of. */
export function carbonFactor(C: number): number {
  if (C <= 0.39) return 0.54 * C;
  if (C <= 0.55) return 0.171 + 0.001 * C + 0.265 * C ** 2;
  if (C <= 0.65) return 0.115 + 0.268 * C - 0.038 * C ** 2;
  if (C <= 0.75) return 0.143 + 0.2 * C;
  const to = Math.min(C, 0.9);
  return 0.062 + 0.409 * to - 0.135 * to ** 2;
}

/** First root of ζ tan ζ = B, between 0 and π/2. */
const firstRoot = (B: number) => bisected(B, 0, Math.PI / 2, (zeta) => zeta * Math.tan(zeta));

/**
 * How long a plate's centre takes to fall half-way to its quenchant, in units of inches² over diffusivity: `severity` H for each inch.
 * Source: M. A. Grossmann, M. Asimow and S. F. Urban (1939), from memory of; the first term of the series for a plate.
 */
export function plateHalfTime(thickInches: number, severity: number): number {
  const zeta = firstRoot(severity * thickInches);
  const first = (4 * Math.sin(zeta)) / (2 * zeta + Math.sin(2 * zeta));
  return ((thickInches / 2) ** 2 * Math.log(2 * first)) / zeta ** 2;
}

/** The same of the centre of a round in the ideal quench, by its diameter in inches. */
export function idealRoundHalfTime(inches: number): number {
  return 0.20134 * (inches / 2) ** 2;
}

/** The thickest plate whose centre cools as fast in a quenchant of severity H as a round of the ideal diameter does, mm. */
export function criticalPlate(ideal: number, severity: number): number {
  const wanted = idealRoundHalfTime(ideal / 25.4);
  return 25.4 * bisected(wanted, 0.001, 40, (thick) => plateHalfTime(thick, severity));
}

/** How a section fares against its quenchant, q = critical/actual: it ranks. Starting limits, until the shop's own proofs say. */
export type Fares = "usually through" | "the file decides" | "usually not";
export const FARES = { through: 1.5, not: 0.4 } as const;
export function fares(q: number, { through, not }: { through: number; not: number } = FARES): Fares {
  if (q >= through) return "usually through";
  return q <= not ? "usually not" : "the file decides";
}

/** Severity H by quenchant, least and most. Source: M. A. Grossmann, from memory of. */
export const SEVERITY = {
  "oil, still": [0.25, 0.3],
  "oil, moved": [0.35, 0.4],
  "oil, moved well": [0.4, 0.5],
  "oil, moved hard": [0.5, 0.8],
  water: [0.9, 2],
  brine: [2, 2],
  air: [0.02, 0.02],
} as const;

/** How well a clay line comes: by its manganese (common practice) or its ideal diameter (starting values), whichever is worse. */
export type ClayLine = "clear" | "workable" | "weak" | "poor";
const LINES: readonly ClayLine[] = ["clear", "workable", "weak", "poor"];
export function clayLine(steel: Composition): ClayLine {
  const of = (value: number, limits: readonly [number, number, number], isStrict: boolean) => {
    const i = limits.findIndex((limit, n) => (isStrict && n === 2 ? value < limit : value <= limit));
    return i < 0 ? 3 : i;
  };
  return LINES[
    Math.max(of(steel.Mn, [0.25, 0.3, 0.5], true), of(idealDiameter(steel), [18, 24, 32], false))
  ]!;
}
