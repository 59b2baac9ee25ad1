/**
 * The two distributions that uncertainties and capabilities are read from. Source of the expansions: Abramowitz and Stegun,
 * Handbook of Mathematical Functions, 6.1.36 (log Γ, Stirling with its terms), 6.5.29 and 6.5.31 (incomplete Γ), 26.5.8
 * (incomplete Β), from memory; held to a general-purpose library and to printed tables in the tests.
 */

import { bisected } from "../numbers/bisect.ts";

/** ln Γ(z) for z > 0: Stirling's series, climbed to where it is exact to 1e-13. */
export function logGamma(z: number): number {
  let shift = 0;
  let at = z;
  while (at < 12) {
    shift -= Math.log(at);
    at += 1;
  }
  const inverse = 1 / (at * at);
  const tail = (1 / 12 - inverse * (1 / 360 - inverse * (1 / 1260 - inverse / 1680))) / at;
  return shift + (at - 0.5) * Math.log(at) - at + 0.5 * Math.log(2 * Math.PI) + tail;
}

const TERMS = 500;
const SMALL = 1e-15;

/** Probability that χ² with `df` degrees of freedom is below x. */
export function chiSquareBelow(x: number, df: number): number {
  if (x <= 0) return 0;
  const [a, z] = [df / 2, x / 2];
  const front = Math.exp(a * Math.log(z) - z - logGamma(a));
  if (z < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n < TERMS && Math.abs(term) > SMALL * sum; n++) {
      term *= z / (a + n);
      sum += term;
    }
    return front * sum;
  }
  // The tail as a continued fraction, by Lentz's rule.
  let b = z + 1 - a;
  let c = 1e300;
  let d = 1 / b;
  let value = d;
  for (let n = 1; n < TERMS; n++) {
    const step = -n * (n - a);
    b += 2;
    d = 1 / (step * d + b);
    c = b + step / c;
    value *= d * c;
    if (Math.abs(d * c - 1) < SMALL) break;
  }
  return 1 - front * value;
}

/** Probability that Student's t with `df` degrees of freedom is below t. */
export function studentBelow(t: number, df: number): number {
  const tail = incompleteBeta(df / (df + t * t), df / 2, 0.5) / 2;
  return t > 0 ? 1 - tail : tail;
}

function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - incompleteBeta(1 - x, b, a);
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log(1 - x));
  let c = 1;
  let d = 1 / (1 - ((a + b) * x) / (a + 1));
  let value = d;
  for (let m = 1; m < TERMS; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / (1 + even * d);
    c = 1 + even / c;
    value *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / (1 + odd * d);
    c = 1 + odd / c;
    value *= d * c;
    if (Math.abs(d * c - 1) < SMALL) break;
  }
  return (front * value) / a;
}

/** χ² below which a share p of all lies, 0 < p < 1. */
export function chiSquareAt(p: number, df: number): number {
  return bisected(p, 0, df + 20 * Math.sqrt(2 * df) + 60, (x) => chiSquareBelow(x, df));
}

/** t below which a share p of all lies, 0 < p < 1. */
export function studentAt(p: number, df: number): number {
  if (p < 0.5) return -studentAt(1 - p, df);
  let high = 2;
  while (studentBelow(high, df) < p && high < 1e9) high *= 2;
  return bisected(p, 0, high, (t) => studentBelow(t, df));
}
