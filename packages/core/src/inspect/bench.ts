import type { Blade } from "../blade/schema.ts";
import { read } from "../blade/table.ts";
import type { Rung } from "../route/ladder.ts";
import { ladderOf } from "../route/ladder.ts";
import type { Route, StageKind } from "../route/schema.ts";
import type { Shop } from "../shop/schema.ts";
import { type Correction, correctionsFor } from "./correct.ts";
import { type Figure, figureOf, instrumentFor } from "./figure.ts";
import { type Diagnosis, diagnose } from "./fit.ts";
import { instrumentsOf } from "./instruments.ts";
import { placeOf } from "./patterns.ts";
import { groundPlaces, inHandOrder, placesAlong, potentialSpots, readingPlan, withPlaces } from "./plan.ts";
import { type Check, type Reading, type Spot, spotKey, spotOf } from "./schema.ts";
import { type Truth, truthOf } from "./truth.ts";
import { endsToRead, type Twin, twinOf } from "./twin.ts";
import { jawBias, type StageSteel, stageSteel, type Wanted, wantedAt } from "./wanted.ts";

/** One line of the bench's list: where to read, what should be there, and what was read so far. */
export interface Line {
  readonly key: string;
  readonly spot: Spot;
  readonly wanted: Wanted;
  readonly figure: Figure | null;
  /** What the maker's instrument should show: the wanted figure with its jaws' bias and known error put in. */
  readonly shows: number;
  readonly instrument: string;
}

/** All that the bench says of one stage. */
export interface Bench {
  readonly steel: StageSteel;
  readonly rung: Rung | null;
  readonly lines: readonly Line[];
  readonly figures: readonly Figure[];
  readonly truth: Truth;
  readonly diagnosis: Diagnosis;
  readonly twin: Twin | null;
  readonly corrections: readonly Correction[];
  /** Readings of the stage at places where this blade no longer has anything to read. */
  readonly astray: readonly Reading[];
}

export interface Asked {
  readonly blade: Blade;
  readonly route: Route | null;
  readonly shop: Shop;
  readonly stage: StageKind;
  readonly check: Check;
  readonly readings: readonly Reading[];
}

/** Works the bench out for one stage of a blade. The blade must be sound. */
export function benchOf({ blade, route, shop, stage, check, readings }: Asked): Bench {
  const steel = stageSteel(blade, route, shop, stage, check.hardness ?? null);
  const rung = route?.stages.length
    ? (ladderOf(blade, route, shop).find(({ kind }) => kind === stage) ?? null)
    : null;
  const instruments = instrumentsOf(shop);
  const mine = standing(
    readings.filter((one) => one.stage === stage),
    check.corrections.filter((one) => one.stage === stage),
  );
  const groups = new Map<string, { spot: Spot; readings: Reading[] }>();
  for (const reading of mine) {
    const key = spotKey(reading);
    const group = groups.get(key);
    if (group) group.readings.push(reading);
    else groups.set(key, { spot: spotOf(reading), readings: [reading] });
  }
  const figures: Figure[] = [];
  const astray: Reading[] = [];
  const figureAt = new Map<string, Figure>();
  for (const [key, group] of groups) {
    const figure = figureOf(steel, group.spot, group.readings, instruments);
    if (!figure) {
      astray.push(...group.readings);
      continue;
    }
    figures.push(figure);
    figureAt.set(key, figure);
  }
  const potential = potentialSpots(steel).filter((spot) => !figureAt.has(spotKey(spot)));
  const diagnosis = diagnose(steel, figures, potential);
  const twin = twinOf(steel, figures, diagnosis);
  const plan = withPlaces(readingPlan(steel, instruments), [
    ...check.places,
    ...(twin ? endsToRead(steel, twin) : []),
    ...groundPlaces(
      steel,
      check.corrections.filter((one) => one.done && one.stage === stage),
    ),
  ]);
  const planned = new Set(plan.map(spotKey));
  const beside = figures.filter(({ spot }) => !planned.has(spotKey(spot))).map(({ spot }) => spot);
  const lines = inHandOrder([...plan, ...beside]).flatMap((spot): Line[] => {
    const wanted = wantedAt(steel, spot);
    if (!wanted) return [];
    const key = spotKey(spot);
    const figure = figureAt.get(key) ?? null;
    const { bias, name } = biasOf(steel, spot, instruments);
    return [{ key, spot, wanted, figure, shows: wanted.value + bias, instrument: name }];
  });
  return {
    steel,
    rung,
    lines,
    figures,
    truth: truthOf(steel, figures),
    diagnosis,
    twin,
    corrections: twin && !isInstrument(diagnosis) ? correctionsFor(steel, twin, rung, shop) : [],
    astray,
  };
}

/** Nothing is ground on the word of an instrument that is itself in doubt. */
function isInstrument({ pattern }: Diagnosis): boolean {
  return pattern === "worn-reference";
}

/** Readings that still speak of the steel: those of a face taken down since are of what is no longer there. */
function standing(readings: readonly Reading[], corrections: Check["corrections"]): Reading[] {
  const done = corrections.flatMap((one) => (one.done ? [{ ...one, done: one.done }] : []));
  if (done.length === 0) return [...readings];
  const last = done.reduce((latest, { done: when }) => (when > latest ? when : latest), "");
  return readings.filter(({ what, when }) => when > last || !TOUCHED.includes(what));
}

/** What grinding a face changes. */
const TOUCHED: readonly Spot["what"][] = ["edge", "behind", "above", "over", "line", "angle"];

function biasOf(steel: StageSteel, spot: Spot, instruments: ReturnType<typeof instrumentsOf>) {
  const instrument = instrumentFor(spot, undefined, instruments);
  const { error, zero, jaw } = instrument;
  const wide = instrument.kind === "caliper" ? (jaw ?? 0) : 0;
  return { bias: error + zero + jawBias(steel, spot, wide), name: instrument.name };
}

/** The as-found faces for a drawing: x, and how far each stands above its stage, mm. */
export function foundFaces(
  steel: StageSteel,
  twin: Twin,
): { x: number; left: number; right: number; within: number }[] {
  return placesAlong(steel).map((u) => ({
    x: placeOf(steel, u),
    left: read(twin.faces.left, u),
    right: read(twin.faces.right, u),
    within: Math.max(read(twin.within.left, u), read(twin.within.right, u)),
  }));
}
