/** What blows did: a stretched skin bends by 1/t². Radians, mm. */
interface Blows {
  readonly turned: number;
  readonly thick: number;
  readonly blows: number;
}

/** What one blow does, e = Δψ·t² for each: median and 1.48 times the median of what is off from it, from five on. */
export interface PerBlow {
  readonly median: number;
  readonly scatter: number;
  readonly count: number;
}
const ENOUGH = 5;

export function perBlow(effects: readonly number[]): PerBlow | null {
  if (effects.length < ENOUGH) return null;
  const middle = median(effects);
  return {
    median: middle,
    scatter: 1.48 * median(effects.map((one) => Math.abs(one - middle))),
    count: effects.length,
  };
}
export const effectOf = ({ turned, thick, blows }: Blows) => (turned * thick ** 2) / blows;

/** Of what it was clamped past straight by, the share that stays: the median of three or more; null before. */
export function staysOf(shares: readonly number[]): number | null {
  return shares.length < LEAST_CLAMPED ? null : median(shares);
}
const LEAST_CLAMPED = 3;

/** The yield by presses here, N/mm²: the median of three or more; null before. */
export function yieldOf(sigmas: readonly number[]): number | null {
  return sigmas.length < LEAST_CLAMPED ? null : median(sigmas);
}

/** Blows to begin with: half of what the median says, at least one. */
export const blowsFor = (psi: number, thick: number, { median: e }: PerBlow) =>
  Math.max(1, Math.round((Math.abs(psi) * thick ** 2) / Math.abs(e) / 2));

function median(values: readonly number[]): number {
  const sorted = values.toSorted((a, b) => a - b);
  const half = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}
