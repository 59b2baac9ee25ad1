import type { Blade } from "../blade/schema.ts";
import { read } from "../blade/table.ts";
import type { Forge } from "../forge/schema.ts";
import { ladderOf, onEdgeOf, onSecondEdge, type Rung } from "../route/ladder.ts";
import type { Route } from "../route/schema.ts";
import { instrumentsOf } from "../shop/instruments.ts";
import type { Shop } from "../shop/schema.ts";
import { type AsFound, asFound, endsToRead } from "./as-found.ts";
import { type Correction, correctionsFor } from "./correct.ts";
import { responseAt } from "./faults/fault.ts";
import { type Figure, figureOf, instrumentFor } from "./figure.ts";
import { type Diagnosis, diagnose } from "./fit.ts";
import { isNewer, knownOf, speaksOf } from "./known-bend.ts";
import { groundPlaces, inHandOrder, placesAlong, potentialSpots, readingPlan, withPlaces } from "./plan.ts";
import { QUANTITY } from "./quantity.ts";
import { type Check, type Reading, type Spot, spotKey, spotOf } from "./schema.ts";
import { type Doubt, LEAST_ROUND, ofAnother, screened } from "./screen.ts";
import { placeOf } from "./span.ts";
import { type StraightAsked, type StraightReport, straightReport } from "./straightness.ts";
import { type BenchSteel, benchSteel, showsAt, type Target, targetAt } from "./target.ts";
import { type Together, together } from "./together.ts";

/** One line of the bench's list: where to read, what should be there, and what was read so far. */
export interface Line {
  readonly key: string;
  readonly spot: Spot;
  readonly target: Target;
  readonly figure: Figure | null;
  /** Whether it is one of the few that tell the most, and are read first. */
  readonly isFirst: boolean;
  /** Whether it was read, and what was read is taken for a slip. */
  readonly isDoubted: boolean;
  /** What the maker's instrument should show: what is wanted with its jaws and its known error put in. */
  readonly shows: number;
  readonly instrument: string;
}

/** All that the bench says of one stage. */
export interface Bench {
  readonly stage: BenchSteel;
  readonly lines: readonly Line[];
  readonly figures: readonly Figure[];
  readonly together: Together;
  readonly diagnosis: Diagnosis;
  readonly found: AsFound | null;
  readonly corrections: readonly Correction[];
  /** What is taken for a slip of the hand: nothing leans on it. */
  readonly doubts: readonly Doubt[];
  /** Readings of the stage at places where this blade no longer has anything to read. */
  readonly astray: readonly Reading[];
  /** How straight it is by lines read along it, where they are newer than bow or twist as one figure; null else. */
  readonly straight: StraightReport | null;
  /** The same of the blade's second edge, by what was read along that; null where it has none, or no bevel yet. */
  readonly second: Bench | null;
}

export interface Asked {
  readonly blade: Blade;
  readonly route: Route | null;
  readonly shop: Shop;
  /** The stage's own name on the route. */
  readonly stage: string;
  readonly check: Check;
  readonly readings: readonly Reading[];
  /** What is chosen at the fire; absent: as usual. */
  readonly forge?: Forge;
  /** What was read along it and struck, at that stage. */
  readonly straight?: StraightAsked;
}

/** Works the bench out for one stage of a blade. The blade must be sound. */
export function benchOf(asked: Asked): Bench {
  const whole = benchSteel(
    asked.blade,
    asked.route,
    asked.shop,
    asked.stage,
    asked.check.hardness ?? null,
    asked.forge,
  );
  const turned = onSecondEdge(whole);
  const straight =
    asked.straight && isNewer(asked.straight, asked.readings) ? straightReport(asked.straight) : null;
  const one = { ...asked, known: straight };
  return { ...alongOne(one, whole), second: turned && alongOne(one, turned) };
}

/** What is asked, and how straight the blade is known to be. */
interface Along extends Asked {
  readonly known: StraightReport | null;
}

function alongOne(asked: Along, stage: BenchSteel): Bench {
  const bench = workedOut(asked, stage, null);
  // Nothing fits, and no fault of the trade explains it: whatever was read, it was not this blade.
  return isOfAnother(bench)
    ? workedOut(asked, stage, ofAnother(bench.figures.flatMap((one) => one.readings)))
    : bench;
}

/** Half of the readings still so far off with every fault found, or a fault so large, in bands. Starting values. */
const REST_OF_ANOTHER = 1.2;
const FAULT_OF_ANOTHER = 12;

function isOfAnother({ figures, diagnosis }: Bench): boolean {
  if (figures.length < LEAST_ROUND) return false;
  if (diagnosis.restBands > REST_OF_ANOTHER) return true;
  // Angles are judged so finely on tall bevels that a jig gone astray is many bands; and a plunge or a bow says nothing of thickness.
  return figures
    .filter(({ spot }) => QUANTITY[spot.what].unit === "mm" && !["plunge", "bow"].includes(spot.what))
    .some(({ spot, target }) =>
      diagnosis.found.some(
        ({ shape, amplitudes, isKnown }) =>
          !isKnown && Math.abs(responseAt(shape, amplitudes, spot)) > FAULT_OF_ANOTHER * target.band,
      ),
    );
}

function workedOut(
  { blade, route, shop, stage: id, check, readings, forge, known }: Along,
  stage: BenchSteel,
  another: Doubt | null,
): Bench {
  const { hardness, edge } = stage;
  const rungs = route?.stages.length ? ladderOf(blade, route, shop, forge) : [];
  const instruments = instrumentsOf(shop);
  const done = check.corrections.filter((one) => one.stage === id && one.edge === edge);
  const mine = standing(
    readings.filter((one) => one.stage === id && one.edge === edge),
    done,
  );
  const others = distinct(
    rungs.flatMap((rung) => onEdgeOf(rung, stage) ?? []),
    stage,
  ).map((one): BenchSteel => ({ ...one, hardness }));
  const doubts = another ? [another] : screened(stage, mine, instruments, others);
  const doubted = new Set(doubts.flatMap((one) => one.readings.map((reading) => reading.id)));
  const groups = new Map<string, { spot: Spot; readings: Reading[] }>();
  for (const reading of mine) {
    if (doubted.has(reading.id)) continue;
    const key = spotKey(reading);
    const group = groups.get(key);
    if (group) group.readings.push(reading);
    else groups.set(key, { spot: spotOf(reading), readings: [reading] });
  }
  const figures: Figure[] = [];
  const astray: Reading[] = [];
  const figureAt = new Map<string, Figure>();
  for (const [key, group] of groups) {
    const figure = figureOf(stage, group.spot, group.readings, instruments);
    if (!figure) {
      astray.push(...group.readings);
      continue;
    }
    figures.push(figure);
    figureAt.set(key, figure);
  }
  const potential = potentialSpots(stage).filter((spot) => !figureAt.has(spotKey(spot)));
  const told: readonly string[] = known ? speaksOf(known) : [];
  const diagnosis = diagnose(
    stage,
    // One figure of what was since read along the whole blade no longer counts.
    figures.filter(({ spot }) => !told.includes(spot.what)),
    potential.filter((spot) => !told.includes(spot.what)),
    known ? knownOf(stage, known) : undefined,
  );
  const found = asFound(stage, figures, diagnosis);
  const { round, first } = readingPlan(stage, instruments);
  const plan = withPlaces(round, [
    ...check.places.filter((one) => one.edge === edge),
    ...(found ? endsToRead(stage, found) : []),
    ...groundPlaces(
      stage,
      done.filter((one) => one.done),
    ),
  ]);
  const planned = new Set(plan.map(spotKey));
  const beside = [...figures.map(({ spot }) => spot), ...doubtedSpots(doubts)].filter((spot) => {
    const isNew = !planned.has(spotKey(spot));
    planned.add(spotKey(spot));
    return isNew;
  });
  const doubtedKeys = new Set(doubtedSpots(doubts).map(spotKey));
  const lines = inHandOrder([...plan, ...beside]).flatMap((spot): Line[] => {
    const target = targetAt(stage, spot);
    if (!target) return [];
    const key = spotKey(spot);
    const instrument = instrumentFor(spot, undefined, instruments);
    return [
      {
        key,
        spot,
        target,
        figure: figureAt.get(key) ?? null,
        isFirst: first.has(key),
        isDoubted: doubtedKeys.has(key),
        shows: showsAt(stage, target, instrument),
        instrument: instrument.name,
      },
    ];
  });
  const belts = rungs.find((rung) => rung.id === id)?.belts ?? null;
  return {
    stage,
    lines,
    figures,
    together: together(stage, figures),
    diagnosis,
    found,
    corrections: found && isSteel(diagnosis, known) ? correctionsFor(stage, found, figures, belts, shop) : [],
    doubts,
    astray,
    straight: known,
    second: null,
  };
}

/** Stages whose steel is another than this one's, each steel once. */
function distinct(stages: readonly Rung[], stage: BenchSteel): Rung[] {
  const seen = new Set([stage.steel]);
  return stages.filter(({ steel, isBevelled }) => {
    const isNew = isBevelled && !seen.has(steel);
    seen.add(steel);
    return isNew;
  });
}

function doubtedSpots(doubts: readonly Doubt[]): Spot[] {
  return doubts.flatMap(({ readings }) => readings.map(spotOf));
}

/**
 * Nothing is ground on the word of an instrument that is itself in doubt, nor while the blade is bent: then its edge only seems off. A
 * bend that was read along the blade is taken out of what its edge shows: it is in the way only where grinding does not hold it.
 */
function isSteel({ found }: Diagnosis, known: StraightReport | null): boolean {
  const mayBeBent = known !== null && (known.isWithin || known.spares.holds);
  const isBend = (pattern: string) => pattern === "bow" || pattern === "twist";
  return found.every(({ pattern }) => pattern !== "worn-reference" && !(isBend(pattern) && !mayBeBent));
}

/** Readings that still speak of the steel: those of a face taken down since are of what is no longer there. */
function standing(readings: readonly Reading[], corrections: Check["corrections"]): Reading[] {
  const done = corrections.flatMap((one) => (one.done ? [Date.parse(one.done)] : []));
  if (done.length === 0) return [...readings];
  const last = Math.max(...done);
  return readings.filter(({ what, when }) => Date.parse(when) > last || !TOUCHED.includes(what));
}

/** What grinding a face changes. */
const TOUCHED: readonly Spot["what"][] = [
  "edge",
  "behind",
  "edge-height",
  "edge-face",
  "above",
  "over",
  "line",
  "angle",
];

/** The as-found faces for a drawing: x, and how far each stands above its stage, mm. */
export function foundFaces(
  stage: BenchSteel,
  found: AsFound,
): { x: number; left: number; right: number; within: number }[] {
  return placesAlong(stage).map((u) => ({
    x: placeOf(stage, u),
    left: read(found.faces.left, u),
    right: read(found.faces.right, u),
    within: Math.max(read(found.within.left, u), read(found.within.right, u)),
  }));
}
