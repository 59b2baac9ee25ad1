import { chiSquareBelow } from "../numbers/distributions.ts";
import { type PatternKey, responseAt, type Shape } from "./faults/fault.ts";
import { shapesFor } from "./faults/known.ts";
import type { Figure } from "./figure.ts";
import { huberLoss, medianOf, residualsOf, robustLeastSquares } from "./robust.ts";
import type { Spot } from "./schema.ts";
import { type BenchSteel, targetAt } from "./target.ts";

/** A fault that the readings look like, and how well it explains them. */
export interface Explained {
  readonly pattern: PatternKey;
  readonly shape: Shape;
  /** mm or degrees, with its standard uncertainty: the first amplitude, or both together for a wave. */
  readonly size: number;
  readonly sizeWithin: number;
  readonly amplitudes: readonly number[];
  /** Share of all that was off which it explains, 0…1. */
  readonly share: number;
  /** Share of belief among the patterns that were tried, 0…1. */
  readonly weight: number;
  /** The readings it moves most, with what was off and what it says. */
  /** Read for itself along the blade, and not found here. */
  readonly isKnown?: true;
  readonly evidence: readonly {
    readonly spot: Spot;
    readonly x: number;
    readonly off: number;
    readonly says: number;
  }[];
}

export interface Diagnosis {
  /** The faults found, each explaining what those before it left; empty where the blade is as it should be. */
  readonly found: readonly Explained[];
  /** For the first: other patterns that explain the readings nearly as well. */
  readonly rivals: readonly Explained[];
  /** One more reading that would tell the first from its nearest rival, and how far apart they are there. */
  readonly settles: {
    readonly spot: Spot;
    readonly apart: number;
    readonly first: number;
    readonly rival: number;
  } | null;
  readonly pattern: PatternKey | "sound" | "unknown";
  /** How far off half of the readings still lie with all that was found, in bands: of another blade far. */
  readonly restBands: number;
}

/** How much of the band a sound hand's work wanders by, one standard deviation. Starting value. */
const HAND = 0.2;
/** Least gain over saying nothing, in the units of BIC, before a fault is named. Held by the confusion table in the tests. */
const LEAST_GAIN = 5;
/** And so much more for each fault beside those found already. */
const MORE_BESIDE = 5;
/** A fault that moves no reading by this share of its band is none. */
const LEAST_SHOWN = 0.6;
/** The same on a blank, whose bands are wide for what is left on it. */
const LEAST_SHOWN_FORGED = 0.3;
const MOST_FAULTS = 3;
/** An explanation believed less than this beside the first is not worth naming. */
const LEAST_WEIGHT = 0.005;
/** Fewer readings say nothing of patterns. */
const LEAST_READ = 5;
/** Readings this unlike the plan, with nothing that explains them, are told as such. */
const UNEXPLAINED = 0.999;

/** A bend that was read for itself, at its size, and the faults that are not searched for since. */
export interface Known {
  readonly bends: readonly { readonly shape: Shape; readonly size: number }[];
  readonly instead: readonly PatternKey[];
}
const NONE_KNOWN: Known = { bends: [], instead: [] };

interface Candidate {
  readonly shape: Shape;
  readonly amplitudes: readonly number[];
  readonly u: readonly number[];
  /** Sum of losses that is left. */
  readonly loss: number;
  /** Bayesian information criterion against the readings as they were: higher explains better. */
  readonly gain: number;
}

/**
 * Searches what was read for the faults of the trade: every way each may look on this blade is fitted by weighted least
 * squares with Huber's loss, and the one that gains most by the Bayesian information criterion is named; with it in, the rest is
 * searched again, and all that were named are fitted together.
 * `potential` are spots where one more reading could be taken. `known` is a bend that was read for itself, in each way the blade may have
 * lain: it is taken off before anything is searched, in the way that leaves least, and what it stands for is not searched.
 */
export function diagnose(
  stage: BenchSteel,
  figures: readonly Figure[],
  potential: readonly Spot[],
  known: Known = NONE_KNOWN,
): Diagnosis {
  const read = figures.filter(({ spot }) => spot.what !== "hardness");
  if (read.length < LEAST_READ)
    return { found: [], rivals: [], settles: null, pattern: "sound", restBands: 0 };
  const spots = read.map(({ spot }) => spot);
  const shapes = shapesFor(stage, spots).filter(({ pattern }) => !known.instead.includes(pattern));
  const u = read.map(({ uncertainty, target }) => Math.hypot(uncertainty.u, HAND * target.band));
  const bands = read.map(({ target }) => target.band);
  const columnsOf = new Map(shapes.map((shape) => [shape, shape.responses.map((one) => spots.map(one))]));
  const leastShown = stage.blank ? LEAST_SHOWN_FORGED : LEAST_SHOWN;
  const counts = new Map<PatternKey, number>();
  for (const { pattern } of shapes) counts.set(pattern, (counts.get(pattern) ?? 0) + 1);

  const lossOf = (values: readonly number[]) =>
    values.reduce((sum, value, i) => sum + huberLoss(value / u[i]!), 0);
  const search = (values: readonly number[], least: number): Candidate[] => {
    const before = lossOf(values);
    const best = new Map<PatternKey, Candidate>();
    for (const shape of shapes) {
      const columns = columnsOf.get(shape)!;
      if (columns.every((column) => column.every((one) => one === 0))) continue;
      const fit = robustLeastSquares(columns, values, u);
      if (!fit || (shape.sign && fit.amplitudes[0]! * shape.sign <= 0)) continue;
      const shown = columns[0]!.some((_, i) => {
        const says = columns.reduce((sum, column, k) => sum + column[i]! * fit.amplitudes[k]!, 0);
        return Math.abs(says) >= leastShown * bands[i]!;
      });
      if (!shown) continue;
      const price = columns.length * Math.log(values.length) + 2 * Math.log(counts.get(shape.pattern)!);
      const { amplitudes, u: within, loss } = fit;
      const candidate = { shape, amplitudes, u: within, loss, gain: before - loss - price };
      const known = best.get(shape.pattern);
      if (!known || candidate.gain > known.gain) best.set(shape.pattern, candidate);
    }
    return [...best.values()].filter(({ gain }) => gain >= least).sort((a, b) => b.gain - a.gain);
  };

  const asRead = read.map(({ off }) => off);
  const total = lossOf(asRead);
  const greedy = (offs: readonly number[]) => {
    let chosen: { candidate: Candidate; all: Candidate[] }[] = [];
    let values: readonly number[] = offs;
    let price = 0;
    for (let n = 0; n < MOST_FAULTS; n++) {
      const all = search(values, LEAST_GAIN + n * MORE_BESIDE);
      const candidate = all[0];
      if (!candidate) break;
      price += LEAST_GAIN + n * MORE_BESIDE;
      chosen.push({ candidate, all });
      const columns = chosen.flatMap((one) => columnsOf.get(one.candidate.shape)!);
      const together = robustLeastSquares(columns, offs, u);
      if (together) {
        let k = 0;
        chosen = chosen.map((one) => {
          const amplitudes = together.amplitudes.slice(k, k + one.candidate.amplitudes.length);
          k += amplitudes.length;
          return { ...one, candidate: { ...one.candidate, amplitudes } };
        });
      }
      const amplitudes = chosen.flatMap((one) => one.candidate.amplitudes);
      values = residualsOf(columns, offs, amplitudes);
    }
    return { offs, chosen, values, cost: lossOf(values) + price };
  };
  const lying = known.bends.map((bend) => {
    const says = spots.map((spot) => responseAt(bend.shape, [bend.size], spot));
    return { bend, says, ...greedy(asRead.map((off, i) => off - says[i]!)) };
  });
  const lain = lying.length > 0 ? lying.reduce((a, b) => (b.cost < a.cost ? b : a)) : null;
  const { offs, chosen, values } = lain ?? greedy(asRead);
  const evidenceOf = (shape: Shape, amplitudes: readonly number[]) =>
    spots
      .map((spot, i) => ({
        spot,
        x: read[i]!.target.x,
        off: asRead[i]!,
        says: responseAt(shape, amplitudes, spot),
        band: bands[i]!,
      }))
      .filter(({ says, band }) => Math.abs(says) > 0.3 * band)
      .sort((a, b) => Math.abs(b.says / b.band) - Math.abs(a.says / a.band))
      .slice(0, 4)
      .map(({ spot, x, off, says }) => ({ spot, x, off, says }));
  const explained = (candidate: Candidate, all: readonly Candidate[]): Explained => {
    const { shape, amplitudes } = candidate;
    const sum = all.reduce((most, one) => most + Math.exp((one.gain - all[0]!.gain) / 2), 0);
    return {
      pattern: shape.pattern,
      shape,
      amplitudes,
      size: amplitudes.length === 1 ? amplitudes[0]! : Math.hypot(...amplitudes),
      sizeWithin: Math.max(...candidate.u),
      share: total > 0 ? Math.max(0, Math.min(1, (total - candidate.loss) / total)) : 0,
      weight: Math.exp((candidate.gain - all[0]!.gain) / 2) / sum,
      evidence: evidenceOf(shape, amplitudes),
    };
  };
  const isShown = lain?.says.some((says, i) => Math.abs(says) >= leastShown * bands[i]!) ?? false;
  const bend =
    lain && isShown ? [asKnown(lain.bend, evidenceOf, 1 - lossOf(offs) / Math.max(total, 1e-9))] : [];
  const found = [...bend, ...chosen.map(({ candidate, all }) => explained(candidate, all))];
  const first = chosen[0];
  const rivals = first
    ? first.all
        .slice(1, 4)
        .map((one) => explained(one, first.all))
        .filter(({ weight }) => weight >= LEAST_WEIGHT)
    : [];
  const settledBy = () => {
    if (!first || !rivals[0]) return null;
    const beside = (spot: Spot) => (lain ? responseAt(lain.bend.shape, [lain.bend.size], spot) : 0);
    return settling(stage, [explained(first.candidate, first.all), rivals[0]], {
      potential,
      read: spots,
      beside,
    });
  };
  const rest = values.reduce((sum, value, i) => sum + (value / u[i]!) ** 2, 0);
  const isUnlike =
    chiSquareBelow(rest, read.length) > UNEXPLAINED && figures.some(({ verdict }) => verdict === "out");
  return {
    found,
    rivals,
    settles: settledBy(),
    pattern: found[0]?.pattern ?? (isUnlike ? "unknown" : "sound"),
    restBands: medianOf(values.map((value, i) => Math.abs(value) / Math.max(bands[i]!, 2 * u[i]!))),
  };
}

/** A bend as it was read for itself. */
function asKnown(
  { shape, size }: Known["bends"][number],
  evidenceOf: (shape: Shape, amplitudes: readonly number[]) => Explained["evidence"],
  share: number,
): Explained {
  return {
    pattern: shape.pattern,
    shape,
    amplitudes: [size],
    size,
    sizeWithin: 0,
    share: Math.max(0, share),
    weight: 1,
    isKnown: true,
    evidence: evidenceOf(shape, [size]),
  };
}

/** The spot not yet read where two explanations differ most, beside what may be off there anyway. */
function settling(
  stage: BenchSteel,
  [first, rival]: readonly [Explained, Explained],
  at: {
    readonly potential: readonly Spot[];
    readonly read: readonly Spot[];
    readonly beside: (spot: Spot) => number;
  },
): Diagnosis["settles"] {
  const known = new Set(at.read);
  let best: Diagnosis["settles"] = null;
  let most = 1;
  for (const spot of at.potential) {
    if (known.has(spot)) continue;
    const target = targetAt(stage, spot);
    if (!target) continue;
    const [a, b] = [
      responseAt(first.shape, first.amplitudes, spot),
      responseAt(rival.shape, rival.amplitudes, spot),
    ];
    const apart = Math.abs(a - b) / target.band;
    if (apart > most) {
      most = apart;
      const there = target.value + at.beside(spot);
      best = { spot, apart: Math.abs(a - b), first: there + a, rival: there + b };
    }
  }
  return best;
}
