import { bisected } from "./bisect.ts";
import { logGamma, studentAt } from "./distributions.ts";

/** Rates from a few trials, and ratios from a few pairs. */

/** Chance of k or fewer of n at a rate p. */
export function binomialAtMost(k: number, n: number, p: number): number {
  if (p <= 0) return 1;
  if (p >= 1) return k >= n ? 1 : 0;
  let sum = 0;
  for (let i = 0; i <= k; i++) {
    const choose = logGamma(n + 1) - logGamma(i + 1) - logGamma(n - i + 1);
    sum += Math.exp(choose + i * Math.log(p) + (n - i) * Math.log(1 - p));
  }
  return Math.min(1, sum);
}

/**
 * The rate that k failed of n still allows, 95 of 100: for none 1 − 0.05^(1/n), near 3/n. Sources: J. A. Hanley and A. Lippman-Hand, JAMA 249
 * (1983); C. J. Clopper and E. S. Pearson, Biometrika 26 (1934), one-sided, both from memory of. NaN where nothing was tried.
 */
export function rateBelow(k: number, n: number): number {
  if (n === 0) return Number.NaN;
  if (k >= n) return 1;
  return bisected(-0.05, 0, 1, (p) => -binomialAtMost(k, n, p));
}

/** A ratio by pairs, 95 of 100: the mean of logs, by Student's t. From four pairs; null before. */
export function ratioOf(
  pairs: readonly (readonly [number, number])[],
): { readonly ratio: number; readonly low: number; readonly high: number } | null {
  const n = pairs.length;
  if (n < LEAST_PAIRS || pairs.some(([a, b]) => !(a > 0 && b > 0))) return null;
  const logs = pairs.map(([a, b]) => Math.log(a / b));
  const mean = logs.reduce((sum, one) => sum + one, 0) / n;
  const s = Math.sqrt(logs.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (n - 1));
  const give = (studentAt(0.975, n - 1) * s) / Math.sqrt(n);
  return { ratio: Math.exp(mean), low: Math.exp(mean - give), high: Math.exp(mean + give) };
}
const LEAST_PAIRS = 4;
