import { SIDES } from "../blade/schema.ts";
import { inverted } from "../numbers/least-squares.ts";
import type { Instrument } from "../shop/instrument.ts";
import { bowed, twisted } from "./faults/bends.ts";
import type { Shape } from "./faults/fault.ts";
import { jigZero, outOfSquare } from "./faults/held.ts";
import { flatsNotTrue, plungesUnlike, wheelSwapped } from "./faults/steel.ts";
import { type Figure, figureOf } from "./figure.ts";
import { QUANTITY } from "./quantity.ts";
import { faceResponse } from "./response.ts";
import { medianOf } from "./robust.ts";
import { type Reading, type Spot, spotOf } from "./schema.ts";
import { type Instead, mayHaveBeen, SLIPS, type Slip } from "./slips.ts";
import { placeOf } from "./span.ts";
import { type BenchSteel, targetAt } from "./target.ts";

/** What is doubted of a whole round. */
export const ROUND_DOUBTS = ["units", "sides", "stage", "blade"] as const;
export type RoundDoubt = (typeof ROUND_DOUBTS)[number];

/** A reading, or a whole round, that is taken for a slip of the hand before it is taken for steel. */
export interface Doubt {
  /** The reading's id; or what is wrong with all of the round. */
  readonly id: string | RoundDoubt;
  /** The readings that nothing leans on until it is settled. */
  readonly readings: readonly Reading[];
  readonly slip: Slip | RoundDoubt;
  /** What it would be without the slip; null for a round, or where no slip explains it. */
  readonly instead: number | null;
  /** For a round: the unit it seems to be in, or the stage it seems to be of. */
  readonly of: string | null;
  /** The readings as they would stand without the slip, under the ids they have; empty where nobody can say. */
  readonly mended: readonly Reading[];
}

/** A reading at its place, held to the stage. */
interface Seen {
  readonly reading: Reading;
  readonly figure: Figure;
}

/** How unlike what all the others say a reading must be, in standard deviations: with a slip that explains it, and without. */
const EXPLAINED = 4;
const UNEXPLAINED = 7;
/**
 * A thickness has others beside it that no fault parts from it: the line of its own face, the other side, the whole edge. It contradicts
 * them from here on, whether a slip explains it or not, and steel is never taken off for it. A line waves where a thickness does not.
 */
const CONTRADICTS = 4;
const THICKNESSES: readonly Spot["what"][] = ["over", "edge", "above", "behind"];
const isThickness = ({ figure }: Seen) => THICKNESSES.includes(figure.spot.what);
/** And so much of its band at least; of a thickness. */
const LEAST_OFF = 0.8;
const LEAST_OFF_THICKNESS = 0.5;
/** A reading without its slip lies so near to what the others say, in standard deviations. */
const FITS = 3;
/** More doubted than this share of the round, with nothing that explains them: it is not this blade's. */
const ANOTHER = 0.5;

/**
 * Looks through a round before anything is fitted to it. Whole rounds in another unit, of the other side or of another stage are told
 * as one; then each reading is held to what all the others say of its place, by leaving it out, and the worst is taken away as long
 * as one is left that no fault explains. `others` are the other stages of the route.
 */
export function screened(
  stage: BenchSteel,
  readings: readonly Reading[],
  instruments: readonly Instrument[],
  others: readonly BenchSteel[],
): Doubt[] {
  const all = readings.flatMap((reading): Seen[] => {
    const figure = figureOf(stage, spotOf(reading), [reading], instruments);
    return figure ? [{ reading, figure }] : [];
  });
  const round = ofRound(stage, all, others);
  if (round) return [round];
  const doubted = withContradictions(stage, all, others);
  return all.length >= LEAST_ROUND && isJumble(doubted, all.length) ? [ofAnother(readings)] : doubted;
}

/**
 * Every reading held to the others, thicknesses from four standard uncertainties on. A hand slips once or twice in a round: where more
 * would be doubted for nothing but that, the steel is unlike its plan, and they stand.
 */
function withContradictions(stage: BenchSteel, all: readonly Seen[], others: readonly BenchSteel[]): Doubt[] {
  const doubted = oneByOne(stage, all, others, CONTRADICTS);
  const bare = doubted.filter(({ slip }) => slip === "unlike");
  return bare.length <= MOST_CONTRADICTIONS ? doubted : oneByOne(stage, all, others, UNEXPLAINED);
}
const MOST_CONTRADICTIONS = 2;

/** Whether more is doubted than one hand's slips: of several kinds, or most of the round. */
function isJumble(doubted: readonly Doubt[], count: number): boolean {
  if (doubted.length > ANOTHER * count) return true;
  const times = SLIPS.map((slip) => doubted.filter((one) => one.slip === slip && slip !== "unlike").length);
  return doubted.length - Math.max(...times) >= Math.max(MIXED, MIXED_SHARE * count);
}
/** So many doubted beside those of the commonest slip, and such a share of the round. Starting values. */
const MIXED = 3;
const MIXED_SHARE = 0.08;

/** A round that hardly fits the blade, or itself. */
export function ofAnother(readings: readonly Reading[]): Doubt {
  return { id: "blade", slip: "blade", readings, instead: null, of: null, mended: [] };
}

/** Fewer readings are no round. */
export const LEAST_ROUND = 5;
/** How far off a round lies as it stands, in bands, before another reading of it is looked for; and how near it lies with that. */
const FAR = 4;
const NEAR = 1;
/**
 * The same for another stage, in what readings and a sound hand are worth: stages lie near to one another. Only readings are asked
 * that tell the two apart by so much; and it lies so many times nearer. Starting values.
 */
const STAGE_FAR = 2.4;
const STAGE_NEAR = 0.8;
const STAGE_APART = 1.5;
const STAGE_TIMES = 4;
/** With no more than this share of them far from it: else it is another blade. */
const STAGE_STRAYS = 0.2;

function ofRound(stage: BenchSteel, all: readonly Seen[], others: readonly BenchSteel[]): Doubt | null {
  const lengths = all.filter(({ figure }) => QUANTITY[figure.spot.what].unit === "mm");
  const made = (
    id: RoundDoubt,
    of: string | null,
    seen: readonly Seen[],
    mend: (seen: Seen) => Partial<Reading>,
  ): Doubt => ({
    id,
    slip: id,
    readings: seen.map(({ reading }) => reading),
    instead: null,
    of,
    mended: seen.map((one) => ({ ...one.reading, ...mend(one) })),
  });
  if (lengths.length >= LEAST_ROUND && misfit(lengths, ({ figure }) => figure.off) > FAR) {
    for (const [unit, slip] of UNITS) {
      const best = (seen: Seen) =>
        insteads(seen, slip)
          .map(({ value }) => ({ value, off: Math.abs(seen.figure.off + value - seen.reading.value) }))
          .reduce((a, b) => (b.off < a.off ? b : a));
      if (misfit(lengths, (seen) => best(seen).off) < NEAR)
        return made("units", unit, lengths, (seen) => ({ value: best(seen).value }));
    }
  }
  const swapped = all.flatMap((seen) => {
    const other = mirrored(stage, seen.figure.spot);
    const apart = other === null ? 0 : Math.abs(other - seen.figure.target.value);
    return other !== null && apart > 3 * scaleOf(seen) ? [{ ...seen, other }] : [];
  });
  if (swapped.length >= LEAST_ROUND) {
    const off = ({ figure, other }: (typeof swapped)[number]) => figure.value - other;
    const isSo = misfit(swapped, off) < NEAR && misfit(swapped, ({ figure }) => figure.off) > 2;
    const turned = all.filter(({ figure }) => figure.spot.side !== undefined);
    if (isSo)
      return made("sides", null, turned, ({ reading }) => ({
        side: reading.side === "left" ? "right" : "left",
      }));
  }
  for (const other of others) {
    if (isOfStage(other, all)) return made("stage", other.id, all, () => ({ stage: other.id }));
  }
  return null;
}

/** Whether the readings that tell another stage's steel from this one's speak for the other, and the rest fits it as well. */
function isOfStage(other: BenchSteel, all: readonly Seen[]): boolean {
  const there = all.flatMap((seen) => {
    const target = targetAt(other, seen.figure.spot);
    return target ? [{ ...seen, off: seen.figure.value - target.value }] : [];
  });
  const telling = there.filter((seen) => Math.abs(seen.off - seen.figure.off) > STAGE_APART * worthOf(seen));
  if (telling.length < LEAST_ROUND) return false;
  const here = misfit(telling, ({ figure }) => figure.off, worthOf);
  const near = misfit(telling, ({ off }) => off, worthOf);
  const strays = there.filter((seen) => Math.abs(seen.off) > STAGE_FAR * worthOf(seen)).length;
  return (
    here > STAGE_FAR &&
    near < STAGE_NEAR &&
    here > STAGE_TIMES * near &&
    strays <= STAGE_STRAYS * there.length
  );
}

const UNITS: readonly (readonly [string, Slip])[] = [
  ["thou", "in-thousandths"],
  ["inch", "in-inches"],
  ["mm", "in-millimetres"],
  ["ten times", "ten-times"],
  ["a tenth", "a-tenth"],
];

const insteads = ({ reading }: Seen, slip: Slip): Instead[] =>
  mayHaveBeen(reading, reading.value, reading.typed).filter((one) => one.slip === slip);

/** Half of the readings lie nearer than this to what they are held to, in bands or in what they are worth, whichever is wider. */
function misfit<S extends Seen>(all: readonly S[], off: (seen: S) => number, scale = scaleOf): number {
  return medianOf(all.map((seen) => Math.abs(off(seen)) / scale(seen)));
}
const worthOf = ({ figure: { uncertainty, target } }: Seen) =>
  Math.hypot(uncertainty.u, Math.min(2 * uncertainty.u, HAND * target.band));
const scaleOf = ({ figure }: Seen) => Math.max(figure.target.band, 2 * figure.uncertainty.u);

/** What the other side should read at the same place; null where there is none. */
function mirrored(stage: BenchSteel, spot: Spot): number | null {
  if (!spot.side) return null;
  return targetAt(stage, { ...spot, side: spot.side === "left" ? "right" : "left" })?.value ?? null;
}

/** How far faults of each kind usually go, one standard deviation: what a reading may be beside its plan without a slip. Starting values. */
const FACE = { hard: 0.16, soft: 0.28 } as const;
const FACE_REACH = 32;
const FACE_LOCAL = 0.06;
const FLAT_LOCAL = 0.05;
const INSTRUMENT = { mm: 0.15, "°": 0.5, HRC: 1.5 } as const;
const HARDNESS = 3;
/** How far a blank strays from its plan, one standard deviation: the hammer is no grinder. mm, degrees. */
const FORGED: Partial<Record<Spot["what"], number>> = {
  "height-at": 2,
  "blade-length": 6,
  overall: 8,
  sweep: 8,
  bow: 1.5,
  twist: 2,
};
const FORGED_ELSE = 0.7;
/** A shape's own amplitude, by its unit. */
const AMPLITUDE = { mm: 0.4, "°": 1 } as const;
const PLUNGE = { mm: 1.2, "°": 3 } as const;
const HAND = 0.25;
/** What a hand leaves of a thickness beside the other readings of its place, in bands. Starting value. */
const HAND_ON_THICKNESS = 0.1;
/** How far off a response worked out for small faults may be for large ones. */
const CURVED = 0.1;

/** Leaves each reading out in turn; takes the worst away while it is no fault's. A thickness is doubted from `contradicts` on. */
function oneByOne(
  stage: BenchSteel,
  all: readonly Seen[],
  others: readonly BenchSteel[],
  contradicts: number,
): Doubt[] {
  const covariance = covarianceOf(stage, all);
  const doubted: Doubt[] = [];
  let kept = all.map((_, i) => i);
  while (kept.length > 1 && doubted.length < all.length * 0.8) {
    const worst = worstOf(stage, all, covariance, kept, others, contradicts);
    if (!worst) break;
    doubted.push(worst.doubt);
    kept = kept.filter((i) => i !== worst.i);
  }
  return doubted;
}

function worstOf(
  stage: BenchSteel,
  all: readonly Seen[],
  covariance: readonly (readonly number[])[],
  kept: readonly number[],
  others: readonly BenchSteel[],
  contradicts: number,
): { i: number; doubt: Doubt } | null {
  const inverse = inverted(kept.map((i) => kept.map((k) => covariance[i]![k]!)));
  if (!inverse) return null;
  // Source: C. E. Rasmussen and C. K. I. Williams, Gaussian Processes for Machine Learning (2006), eqs 5.10 to 5.12.
  const unlike = kept
    .map((i, n) => {
      const row = inverse[n]!;
      const sum = kept.reduce((total, k, m) => total + row[m]! * all[k]!.figure.off, 0);
      const off = sum / row[n]!;
      return { i, off, within: 1 / Math.sqrt(row[n]!), z: sum / Math.sqrt(row[n]!) };
    })
    .sort((a, b) => Math.abs(b.z) - Math.abs(a.z));
  for (const { i, off, within, z } of unlike) {
    if (Math.abs(z) < EXPLAINED) return null;
    const seen = all[i]!;
    const least = isThickness(seen) ? LEAST_OFF_THICKNESS : LEAST_OFF;
    if (Math.abs(off) < least * seen.figure.target.band || isConfirmed(all, seen)) continue;
    const said = seen.reading.value - off;
    const instead = explaining(stage, seen, said, within, others);
    if (!instead && Math.abs(z) < (isThickness(seen) ? contradicts : UNEXPLAINED)) continue;
    const doubt: Doubt = {
      id: seen.reading.id,
      readings: [seen.reading],
      slip: instead?.slip ?? "unlike",
      instead: instead?.value ?? null,
      of: null,
      mended: instead ? [mendedBy(seen, instead)] : [],
    };
    return { i, doubt };
  }
  return null;
}

/** A reading without its slip: another figure; for the other side or another stage the same figure where it belongs. */
function mendedBy({ reading }: Seen, { slip, value, stage }: Instead): Reading {
  if (slip === "other-side") return { ...reading, side: reading.side === "left" ? "right" : "left" };
  return slip === "other-stage" && stage ? { ...reading, stage } : { ...reading, value };
}

/** Read again and found the same, it is what the steel shows, however strange. */
function isConfirmed(all: readonly Seen[], { reading, figure }: Seen): boolean {
  return all.some(
    (other) =>
      other.reading.id !== reading.id &&
      other.figure.target === figure.target &&
      Math.abs(other.reading.value - reading.value) <=
        AGREES * figure.instrument.repeat + figure.instrument.resolution,
  );
}
const AGREES = 4;

/** The likeliest slip that brings a reading to what the others say; null where none does. */
function explaining(
  stage: BenchSteel,
  { reading, figure }: Seen,
  said: number,
  within: number,
  others: readonly BenchSteel[],
): Instead | null {
  const near = (value: number) => Math.abs(value - said) / Math.max(within, figure.target.band / 3);
  const shown = reading.value - figure.off;
  const candidates: Instead[] = mayHaveBeen(figure.spot, reading.value, reading.typed);
  const best = candidates
    .map((one) => ({ one, far: near(one.value) }))
    .filter(({ far }) => far < FITS)
    .sort((a, b) => a.far - b.far || COMMON.indexOf(a.one.slip) - COMMON.indexOf(b.one.slip))[0];
  if (best) return best.one;
  const isThere = (value: number) =>
    Math.abs(reading.value - value) <= Math.max(2 * figure.uncertainty.u, figure.target.band / 2);
  const other = mirrored(stage, figure.spot);
  if (other !== null && isThere(shown + other - figure.target.value))
    return { slip: "other-side", value: said };
  const ofOther = others.find((one) => {
    const there = targetAt(one, figure.spot);
    return there !== null && isThere(shown + there.value - figure.target.value);
  });
  return ofOther ? { slip: "other-stage", value: said, stage: ofOther.id } : null;
}
const COMMON: readonly Slip[] = ["ten-times", "a-tenth", "in-thousandths", "in-inches", "digits-swapped"];

/** What readings have to do with one another where faults are as large as they usually are: each shared fault adds to both. */
function covarianceOf(stage: BenchSteel, all: readonly Seen[]): number[][] {
  const spots = all.map(({ figure }) => figure.spot);
  const proud = stage.isHard ? FACE.hard : FACE.soft;
  const faces = SIDES.map((side) => spots.map((spot) => faceResponse(stage, spot, side)));
  const places = spots.map((spot) => (spot.u === undefined ? (spot.x ?? 0) : placeOf(stage, spot.u)));
  const shared: number[][] = globals(stage).map(({ shape, sigma }) =>
    spots.map((spot) => sigma * shape.responses[0]!(spot)),
  );
  for (const kind of new Set(spots.map(({ what }) => QUANTITY[what].instrument))) {
    shared.push(
      spots.map(({ what }) => (QUANTITY[what].instrument === kind ? INSTRUMENT[QUANTITY[what].unit] : 0)),
    );
  }
  return all.map(({ figure }, i) =>
    all.map(({ figure: other }, k) => {
      const near = Math.exp(-(((places[i]! - places[k]!) / FACE_REACH) ** 2) / 2);
      const isHere = places[i] === places[k] ? FACE_LOCAL ** 2 : 0;
      let sum = faces.reduce((all, face) => all + face[i]! * face[k]! * (proud ** 2 * near + isHere), 0);
      for (const row of shared) sum += row[i]! * row[k]!;
      const isSame = figure.target === other.target;
      if (isSame && figure.spot.what === "flats") sum += FLAT_LOCAL ** 2;
      if (isSame && figure.spot.what === "hardness") sum += HARDNESS ** 2;
      if (isSame && stage.blank) sum += (FORGED[figure.spot.what] ?? FORGED_ELSE) ** 2;
      if (i === k) {
        const [hand, curved] = isThickness(all[i]!) ? [HAND_ON_THICKNESS, CURVED / 2] : [HAND, CURVED];
        const bent = curved * Math.min(Math.abs(figure.off), 4 * figure.target.band);
        sum += figure.uncertainty.u ** 2 + (hand * figure.target.band) ** 2 + bent ** 2;
      }
      return sum;
    }),
  );
}

/** Faults of the whole blade, with how far each usually goes. */
function globals(stage: BenchSteel): { shape: Shape; sigma: number }[] {
  const of = (shapes: readonly Shape[], amplitude: { readonly mm: number; readonly "°": number }) =>
    shapes.map((shape) => ({ shape, sigma: amplitude[shape.unit] }));
  return [
    ...of(flatsNotTrue(stage), AMPLITUDE),
    ...of(bowed(stage), AMPLITUDE),
    ...of(twisted(stage), AMPLITUDE),
    ...(stage.isBevelled
      ? [
          ...of(plungesUnlike(stage), PLUNGE),
          ...of(outOfSquare(stage), AMPLITUDE),
          ...of(jigZero(stage), AMPLITUDE),
          ...of(wheelSwapped(stage), { mm: 0.15, "°": 1 }),
        ]
      : []),
  ];
}
