import {
  type Component,
  combined,
  fromRepeats,
  fromResolution,
  type Uncertainty,
} from "../numbers/uncertainty.ts";
import type { Instrument } from "../shop/instrument.ts";
import { QUANTITY } from "./quantity.ts";
import { expectedReading } from "./reader.ts";
import type { Reading, Spot } from "./schema.ts";
import { ALONG, type BenchSteel, type Target, targetAt } from "./target.ts";

export type Verdict = "good" | "doubtful" | "out";

/** What was read at one spot at a stage, corrected, with how far it can be trusted, held against what is wanted. */
export interface Figure {
  readonly spot: Spot;
  readonly target: Target;
  /** Repeats averaged and corrected for what is known: the instrument's error, its zero, the width of its jaws. */
  readonly value: number;
  readonly off: number;
  readonly uncertainty: Uncertainty;
  readonly verdict: Verdict;
  readonly readings: readonly Reading[];
  readonly instrument: Instrument;
  /** Taken off the mean of what was read, in the order error, zero, jaws. */
  readonly corrected: { readonly error: number; readonly zero: number; readonly jaw: number };
  /** Standard deviation between the repeats; 0 where there is one reading. */
  readonly spread: number;
}

/** Repeats this many or more speak for themselves; below it the instrument's own repeat error does. */
const ENOUGH_REPEATS = 4;

/** A known error is itself known within a third of the repeat error where it was checked. Starting value. */
const CHECKED_WITHIN = 1 / 3;

/** Makes one figure of the readings of one spot, newest instrument first; null where nothing is wanted there. */
export function figureOf(
  stage: BenchSteel,
  spot: Spot,
  readings: readonly Reading[],
  instruments: readonly Instrument[],
): Figure | null {
  const target = targetAt(stage, spot);
  const last = readings.at(-1);
  if (!target || !last) return null;
  const instrument = instrumentFor(spot, last.instrument, instruments);
  const { mean, spread } = fromRepeats(readings.map(({ value }) => value));
  const { error, zero } = instrument;
  const shown = expectedReading(stage, spot, instrument) ?? target.value + error + zero;
  const corrected = { error, zero, jaw: shown - error - zero - target.value };
  const value = mean - corrected.error - corrected.zero - corrected.jaw;
  const uncertainty = combined(componentsOf(target, instrument, readings.length, spread));
  const off = value - target.value;
  return {
    spot,
    target,
    value,
    off,
    uncertainty,
    verdict: verdictOf(off, off < 0 ? (target.below ?? target.band) : target.band, uncertainty.expanded),
    readings,
    instrument,
    corrected,
    spread,
  };
}

/** Good within the band, out beyond it, doubtful where the band's edge lies within the uncertainty. */
export function verdictOf(off: number, band: number, expanded: number): Verdict {
  const beyond = Math.abs(off) - band;
  if (Math.abs(beyond) < expanded) return "doubtful";
  return beyond > 0 ? "out" : "good";
}

/** What a place that is not quite found is, for what is a length itself. */
const PLACED_WORDS: Partial<Record<Spot["what"], string>> = {
  line: "where the line is seen to be",
  plunge: "where the bevel is seen to begin",
};

function componentsOf(target: Target, instrument: Instrument, count: number, spread: number): Component[] {
  const own = Math.max(instrument.repeat, 1e-9);
  const isOwn = count >= ENOUGH_REPEATS;
  const repeat: Component = {
    from: isOwn ? `spread of ${count} readings` : `repeat error of the ${instrument.name}`,
    u: (isOwn ? Math.max(spread, own / 3) : own) / Math.sqrt(count),
    freedom: isOwn ? count - 1 : Number.POSITIVE_INFINITY,
  };
  const fixed = (from: string, u: number): Component => ({ from, u, freedom: Number.POSITIVE_INFINITY });
  return [
    repeat,
    fixed("its last figure", fromResolution(instrument.resolution)),
    fixed(
      instrument.checked ? `its error, checked ${instrument.checked}` : "its error, never checked",
      own * (instrument.checked ? CHECKED_WITHIN : 1) * 0.5,
    ),
    fixed(
      PLACED_WORDS[target.spot.what] ?? "its place up the blade, on this slope",
      Math.abs(target.slope.up) * target.placed,
    ),
    fixed("its place along the blade", Math.abs(target.slope.along) * ALONG),
  ].filter(({ u }) => u > 1e-9);
}

/** The instrument a reading names, else the shop's first of the usual kind. Every kind has one. */
export function instrumentFor(
  spot: Spot,
  id: string | undefined,
  instruments: readonly Instrument[],
): Instrument {
  const named = instruments.find((one) => one.id === id);
  return named ?? instruments.find(({ kind }) => kind === QUANTITY[spot.what].instrument) ?? instruments[0]!;
}
