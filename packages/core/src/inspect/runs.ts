import { chiSquareAt, studentBelow } from "../numbers/distributions.ts";

/**
 * Several blades to one specification, the same place read on each, in the order they were made: whether the work is steady,
 * whether it fits its band, and whether it drifts.
 */

/** Mean range of two from a normal lot in standard deviations; and what a chart's lines are in mean ranges. Source: NIST/SEMATECH
 *  e-Handbook of Statistical Methods 6.3.2.2, individuals control charts: d₂ = 1.128, 3/d₂ = 2.660, D₄ = 3.267. */
const D2 = 1.128;
const RANGE_LIMIT = 3.267;

export interface IndividualsChart {
  readonly mean: number;
  readonly sigma: number;
  readonly upper: number;
  readonly lower: number;
  readonly ranges: readonly (number | null)[];
  readonly meanRange: number;
  readonly rangeUpper: number;
  /** Blades at which a rule speaks, by their place in the run from 0, with the rule in words. */
  readonly signals: readonly { readonly at: number; readonly words: string }[];
}

/** Chart of individuals and moving ranges. Throws RangeError below two values. */
export function individualsChart(values: readonly number[]): IndividualsChart {
  if (values.length < 2) throw new RangeError("a chart of individuals needs two values");
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  const ranges = values.map((value, i) => (i === 0 ? null : Math.abs(value - values[i - 1]!)));
  const meanRange = ranges.reduce<number>((sum, range) => sum + (range ?? 0), 0) / (values.length - 1);
  const sigma = meanRange / D2;
  const rangeUpper = RANGE_LIMIT * meanRange;
  return {
    mean,
    sigma,
    upper: mean + 3 * sigma,
    lower: mean - 3 * sigma,
    ranges,
    meanRange,
    rangeUpper,
    signals: signalsOf(values, mean, sigma),
  };
}

interface Rule {
  readonly words: string;
  /** How many blades it looks back over, and how many of them must lie beyond so many sigma on one side. */
  readonly of: number;
  readonly count: number;
  readonly beyond: number;
}

/** Each on one side of the mean. Source: NIST/SEMATECH e-Handbook 6.3.2, the WECO rules. */
const RULES: readonly Rule[] = [
  { words: "one beyond 3σ", of: 1, count: 1, beyond: 3 },
  { words: "2 of 3 beyond 2σ", of: 3, count: 2, beyond: 2 },
  { words: "4 of 5 beyond 1σ", of: 5, count: 4, beyond: 1 },
  { words: "8 on one side", of: 8, count: 8, beyond: 0 },
];

function signalsOf(values: readonly number[], mean: number, sigma: number): IndividualsChart["signals"] {
  if (sigma === 0) return [];
  return values.flatMap((_, at) =>
    RULES.flatMap(({ words, of, count, beyond }) => {
      if (at + 1 < of) return [];
      const last = values.slice(at + 1 - of, at + 1).map((value) => (value - mean) / sigma);
      const isSo = [1, -1].some((way) => {
        const beyondThere = (z: number) => z * way > beyond;
        return beyondThere(last.at(-1)!) && last.filter(beyondThere).length >= count;
      });
      return isSo ? [{ at, words }] : [];
    }).slice(0, 1),
  );
}

/** Fewer blades say nothing of what a way of working can do. */
export const ENOUGH_BLADES = 25;

export interface Capability {
  readonly cp: number;
  readonly cpk: number;
  /** What covers 95 of 100. */
  readonly cpWithin: readonly [number, number];
  readonly cpkWithin: readonly [number, number];
  readonly spread: number;
  readonly count: number;
}

/**
 * How well the work fits a band, null below ENOUGH_BLADES or where nothing varies. Source: NIST/SEMATECH e-Handbook 6.1.6, Cp
 * and Cpk with their intervals: χ² for Cp; Bissell's normal approximation for Cpk.
 */
export function capability(values: readonly number[], low: number, high: number): Capability | null {
  const count = values.length;
  if (count < ENOUGH_BLADES) return null;
  const mean = values.reduce((sum, value) => sum + value, 0) / count;
  const spread = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (count - 1));
  if (spread === 0) return null;
  return { ...indices(mean, spread, count, low, high), spread, count };
}

/** The indices themselves, from mean and standard deviation. */
export function indices(mean: number, spread: number, count: number, low: number, high: number) {
  const cp = (high - low) / (6 * spread);
  const cpk = Math.min(high - mean, mean - low) / (3 * spread);
  const freedom = count - 1;
  const half = 1.959964 * Math.sqrt(1 / (9 * count) + cpk ** 2 / (2 * freedom));
  return {
    cp,
    cpk,
    cpWithin: [
      cp * Math.sqrt(chiSquareAt(0.025, freedom) / freedom),
      cp * Math.sqrt(chiSquareAt(0.975, freedom) / freedom),
    ] as const,
    cpkWithin: [cpk - half, cpk + half] as const,
  };
}

export interface Drift {
  /** Change from one blade to the next. */
  readonly perBlade: number;
  /** Chance of as steep a line where nothing drifts. */
  readonly chance: number;
}

/** Whether values go up or down over the run: a straight line by least squares, and Student's t of its slope. */
export function driftOf(values: readonly number[]): Drift | null {
  const n = values.length;
  if (n < 5) return null;
  const middle = (n - 1) / 2;
  const mean = values.reduce((sum, value) => sum + value, 0) / n;
  const squares = values.reduce((sum, _, i) => sum + (i - middle) ** 2, 0);
  const perBlade = values.reduce((sum, value, i) => sum + (value - mean) * (i - middle), 0) / squares;
  const rest = values.reduce((sum, value, i) => sum + (value - mean - perBlade * (i - middle)) ** 2, 0);
  if (rest === 0) return perBlade === 0 ? null : { perBlade, chance: 0 };
  const t = perBlade / Math.sqrt(rest / (n - 2) / squares);
  return { perBlade, chance: 2 * (1 - studentBelow(Math.abs(t), n - 2)) };
}

/** Drift is named when it would come by chance in one run of a hundred. */
export const DRIFTS_BELOW = 0.01;
