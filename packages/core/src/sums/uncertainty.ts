import { fromResolution } from "../numbers/uncertainty.ts";
import type { Instrument } from "../shop/instrument.ts";
import { type Answer, type Figure, type Given, numberOf, type ReadAs, type Say, type Sum } from "./sum.ts";

/** What each kind of length is read with; what is not named is taken as it was typed. */
export type ReadWith = Partial<Record<ReadAs, Instrument>>;

/** How many standard uncertainties are told: about 95 in a hundred. Source: GUM 6.2. */
export const COVERAGE = 2;

/** The standard uncertainty of one reading of an instrument, its own unit. Source: GUM 4.3, a rectangle for its last figure. */
export function standardOf({ repeat, resolution }: Instrument): number {
  return Math.hypot(repeat, fromResolution(resolution));
}

/** A step of a reading for a slope, mm: small against any figure, large against a field's own accuracy. */
const STEP = 1e-3;

/**
 * What an answer's figures are worth, standard uncertainties by their names, as what was read with an instrument brings them: to first
 * order, by asking again a little to either side of every reading. Source: GUM 5.1.2.
 */
export function uncertaintiesOf(sum: Sum, given: Given, readWith: ReadWith, say: Say): Map<string, number> {
  const squares = new Map<string, number>();
  for (const ask of sum.asks) {
    if (ask.kind !== "length" || !ask.readAs) continue;
    const instrument = readWith[ask.readAs];
    const value = numberOf(given, ask.key);
    if (!instrument || value === undefined) continue;
    const u = standardOf(instrument);
    const at = (by: number) => figuresOf(sum.answer({ ...given, [ask.key]: value + by }, say));
    const [under, over] = [at(-STEP), at(STEP)];
    const here = under.size === 0 || over.size === 0 ? at(0) : null;
    for (const [name, high] of over.size > 0 ? over : at(0)) {
      const low = under.get(name) ?? here?.get(name);
      if (low === undefined) continue;
      const slope = (high - low) / (here ? STEP : 2 * STEP);
      squares.set(name, (squares.get(name) ?? 0) + (slope * u) ** 2);
    }
  }
  return new Map([...squares].map(([name, square]) => [name, Math.sqrt(square)]));
}

function figuresOf(answer: Answer): Map<string, number> {
  return new Map(
    answer.state === "answered"
      ? answer.figures.filter(isReadable).map(({ name, value }) => [name, value])
      : [],
  );
}

const isReadable = ({ words }: Figure) => words === undefined;
