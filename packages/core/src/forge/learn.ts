/** What the shop has learned of one figure: a starting value, moved by its own pieces. */
export interface Prior {
  readonly mean: number;
  /** Standard deviation of the starting value, and of one piece. */
  readonly u: number;
  readonly scatter: number;
}

export interface Learned {
  readonly mean: number;
  readonly u: number;
  /** Pieces it rests on. */
  readonly count: number;
}

/** Share of a set-down that goes to width. Starting values. */
export const TO_WIDTH: Prior = { mean: 0.9, u: 0.05, scatter: 0.03 };
/** ln of heats counted over expected; of bar used over planned, by weight; of scale over 0.02. Starting values. */
export const HEATS: Prior = { mean: 0, u: 0.7, scatter: 0.3 };
export const BAR_USED: Prior = { mean: 0, u: 0.06, scatter: 0.04 };
export const SCALED: Prior = { mean: 0, u: 0.7, scatter: 0.3 };

/** From so many pieces their own spread counts instead of the starting one. */
const OWN_SPREAD = 5;

/**
 * A starting value and what pieces said, each weighted by how sure it is. Source: the weighted mean of normal figures, as in JCGM
 * 100:2008, from memory of.
 */
export function learned(
  prior: Prior,
  pieces: readonly { readonly value: number; readonly reading: number }[],
): Learned {
  const scatter = pieces.length >= OWN_SPREAD ? spreadOf(pieces.map(({ value }) => value)) : prior.scatter;
  let [weight, sum] = [1 / prior.u ** 2, prior.mean / prior.u ** 2];
  for (const { value, reading } of pieces) {
    const w = 1 / (scatter ** 2 + reading ** 2);
    weight += w;
    sum += w * value;
  }
  return { mean: sum / weight, u: weight ** -0.5, count: pieces.length };
}

function spreadOf(values: readonly number[]): number {
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  return Math.sqrt(values.reduce((a, b) => a + (b - mean) ** 2, 0) / (values.length - 1));
}

/** The share of the turn that may be bent beforehand without bending too far: what is sure of it. */
export function sureOf({ mean, u }: Learned): number {
  return Math.max(0, 1 - (2 * u) / Math.max(1e-9, 1 - mean));
}
