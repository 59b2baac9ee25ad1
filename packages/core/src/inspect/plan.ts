import { firstAtX } from "../blade/chain.ts";
import { bevelOn, SIDES, type Side } from "../blade/schema.ts";
import { fromResolution } from "../numbers/uncertainty.ts";
import type { Instrument } from "../shop/instrument.ts";
import type { Shape } from "./faults/fault.ts";
import { shapesFor } from "./faults/known.ts";
import { instrumentFor } from "./figure.ts";
import { QUANTITIES, QUANTITY, type Quantity } from "./quantity.ts";
import { type Spot, spotKey } from "./schema.ts";
import { clearSpan, placeOf } from "./span.ts";
import { ALONG, type BenchSteel, targetAt } from "./target.ts";

/** Places along the edge that readings are chosen from. */
const PLACES = 7;
/** A fault this many times its band must be caught, with this much evidence: the squares of off over uncertainty, summed. */
const CAUGHT_AT = 2;
const EVIDENCE = 20;
/** Least that any bevel is read at, whatever is caught by less: heel, middle and tip, on both sides. */
const ALWAYS = [0, 3, 6];

/** How many are read first. */
const FIRST = 7;

/** A round of readings: all of it in the order that a hand goes round, and those few of it that say most, by their keys. */
export interface ReadingPlan {
  readonly round: readonly Spot[];
  readonly first: ReadonlySet<string>;
}

/**
 * Where a stage is worth reading, in the order that a hand goes round: the fewest spots that would catch every fault of
 * patterns.ts at twice its band, chosen one by one by how much evidence each adds; then what is read once for the whole blade.
 */
export function readingPlan(stage: BenchSteel, instruments: readonly Instrument[]): ReadingPlan {
  if (stage.blank) return blankPlan(stage);
  const all = potentialSpots(stage);
  const shapes = stage.isBevelled ? shapesFor(stage, all) : [];
  const chosen = new Set<Spot>(all.filter((spot) => isAlways(stage, spot)));
  const worth = new Map(all.map((spot) => [spot, worthOf(stage, spot, instruments)]));
  const needs = shapes.flatMap((shape) => needOf(shape, all, worth));
  const has = (need: Need) => [...chosen].reduce((sum, spot) => sum + (need.evidence.get(spot) ?? 0), 0);
  const open = new Map(needs.map((need) => [need, EVIDENCE - has(need)]));
  for (;;) {
    const missing = [...open].filter(([, rest]) => rest > 0);
    if (missing.length === 0) break;
    let best: { spot: Spot; gain: number } | null = null;
    for (const spot of all) {
      if (chosen.has(spot)) continue;
      const gain = missing.reduce(
        (sum, [need, rest]) => sum + Math.min(rest, need.evidence.get(spot) ?? 0),
        0,
      );
      if (gain > (best?.gain ?? 1e-6)) best = { spot, gain };
    }
    if (!best) break;
    chosen.add(best.spot);
    for (const [need, rest] of open) open.set(need, rest - (need.evidence.get(best.spot) ?? 0));
  }
  const round = inHandOrder([...chosen]);
  return { round, first: firstOf(stage, round) };
}

/**
 * The seven to read first, with the tools of every bench: the edge at heel, middle and tip, the grind line of each side at heel and
 * tip, then the middle of the lines and the flats. Source: common practice.
 */
function firstOf(stage: BenchSteel, round: readonly Spot[]): Set<string> {
  const us = placesAlong(stage);
  const at = (whats: readonly Quantity[], places: readonly number[]) =>
    round.filter(({ what, u }) => whats.includes(what) && places.some((i) => us[i] === u));
  const inTurn = [
    ...at(["edge", "behind"], ALWAYS),
    ...at(["line"], [0, PLACES - 1]),
    ...at(["line"], ALWAYS),
    ...round.filter(({ what }) => what === "flats"),
    ...round,
  ];
  return new Set([...new Set(inTurn.map(spotKey))].slice(0, FIRST));
}

/** Every spot a reading of a stage may be asked at. */
export function potentialSpots(stage: BenchSteel): Spot[] {
  if (stage.blank) return blankSpots(stage).filter((spot) => targetAt(stage, spot) !== null);
  const us = placesAlong(stage);
  const candidates: Spot[] = [
    ...flatsPlaces(stage, us).map((x): Spot => ({ what: "flats", x })),
    ...(stage.isBevelled ? bevelSpots(stage, us) : []),
    { what: "bow" },
    { what: "twist" },
    { what: "square", x: 0 },
    { what: "hardness", x: ricasso(stage) },
  ];
  // What is read once for the whole blade is read with the first edge.
  return candidates
    .filter(({ u }) => stage.edge === undefined || u !== undefined)
    .map((spot) => tagged(stage, spot))
    .filter((spot) => targetAt(stage, spot) !== null);
}

/** A spot of the edge that a stage is asked along. */
export function tagged({ edge }: Pick<BenchSteel, "edge">, spot: Spot): Spot {
  return edge === undefined ? spot : { ...spot, edge };
}

/** Stations that a blank is read at, and so many more along its edge that a ripple shows. */
const STATIONS = 5;
const RIPPLED = 19;

function blankSpots(stage: BenchSteel): Spot[] {
  const even = (count: number) =>
    Array.from({ length: count }, (_, i) => rounded(0.06 + (0.88 * i) / (count - 1)));
  const five = even(STATIONS);
  const xs = five.map((u) => Math.round(placeOf(stage, u)));
  const edges = [...new Set([...five, ...even(RIPPLED)])].sort((a, b) => a - b);
  const over = [five[0]!, five[2]!, five[4]!];
  return [
    ...xs.map((x): Spot => ({ what: "height-at", x })),
    ...xs.map((x): Spot => ({ what: "flats", x })),
    ...edges.map((u): Spot => ({ what: "edge", u })),
    ...over.flatMap((u) => SIDES.map((side): Spot => ({ what: "over", u, side }))),
    { what: "blade-length" },
    { what: "overall" },
    { what: "sweep" },
    { what: "bow" },
    { what: "twist" },
  ];
}

/** A blank's round: width, flats and edge at five stations, over the edge at three, the rest once; the edge between them where there is time. */
function blankPlan(stage: BenchSteel): ReadingPlan {
  const all = potentialSpots(stage);
  const five = new Set(all.flatMap(({ what, x }) => (what === "height-at" ? [x!] : [])));
  const isAtFive = ({ u }: Spot) => u === undefined || five.has(Math.round(placeOf(stage, u)));
  const first = all.filter(
    ({ what, u }) => what === "sweep" || (what === "edge" && isAtFive({ what, u: u! })),
  );
  return { round: inHandOrder(all), first: new Set(first.map(spotKey).slice(0, FIRST)) };
}

/** Shares of the edge, from clear of the plunges to short of the point. */
export function placesAlong(stage: BenchSteel): number[] {
  const [from, to] = clearSpan(stage);
  return Array.from({ length: PLACES }, (_, i) => rounded(from + ((to - from) * i) / (PLACES - 1)));
}

const rounded = (u: number) => Math.round(u * 1000) / 1000;

function bevelSpots(stage: BenchSteel, us: readonly number[]): Spot[] {
  const sides = SIDES.filter((side) => bevelOn(stage.steel.blade, side).kind !== "none");
  const canLie = sides.length === 2;
  return [
    ...us.map((u): Spot => ({ what: stage.isSharpened ? "behind" : "edge", u })),
    ...us.flatMap((u): Spot[] => {
      const height = middleHeight(stage, u);
      return height === null ? [] : [{ what: "above", u, height }];
    }),
    ...sides.flatMap((side): Spot[] => [
      // On a sharpened edge there is nothing for a height gauge to stand on.
      ...(canLie && !stage.isSharpened ? us.map((u): Spot => ({ what: "over", u, side })) : []),
      ...us.map((u): Spot => ({ what: "line", u, side })),
      ...us.map((u): Spot => ({ what: "angle", u, side })),
      { what: "plunge", side },
      { what: "lean", side },
    ]),
  ];
}

/** The middle of the face, to a round figure; null where there is none. */
function middleHeight(stage: BenchSteel, u: number): number | null {
  const station = stage.steel.station(u);
  const lines = SIDES.flatMap((side) => station[side].grindLine ?? []);
  if (lines.length === 0) return null;
  const height = Math.round(Math.min(...lines) / 2);
  return height >= 2 ? height : null;
}

/** Where the flats can be spanned: the ricasso, and wherever the line leaves some above it. */
function flatsPlaces(stage: BenchSteel, us: readonly number[]): number[] {
  const above = us.filter((u) => {
    const station = stage.steel.station(u);
    const line = Math.max(station.left.grindLine ?? 0, station.right.grindLine ?? 0);
    return !stage.isBevelled || station.height - line > ROOM;
  });
  const places = above.map((u) => Math.round(placeOf(stage, u)));
  return [...new Set([ricasso(stage), ...places])];
}

/** A caliper's jaws need this much flat, mm. */
const ROOM = 3;

function ricasso({ finished: { field: finished } }: BenchSteel): number {
  const foot = Math.min(...SIDES.map((side) => finished.plunges[side]?.x ?? 0), 0);
  return Math.round(foot - 8);
}

function isAlways(stage: BenchSteel, { what, u, x }: Spot): boolean {
  if (["bow", "twist", "square", "hardness", "plunge", "lean"].includes(what)) return true;
  const us = placesAlong(stage);
  if (what === "flats") {
    const places = flatsPlaces(stage, us);
    return [0, Math.floor(places.length / 2), places.length - 1].some((i) => places[i] === x);
  }
  const i = us.indexOf(u ?? -1);
  // A line is quickly read, and nothing tells more of its face: 1 mm of it is sin β of steel. Waves show nowhere else.
  if (what === "line") return true;
  return what === "angle" ? i === 3 : what !== "above" && ALWAYS.includes(i);
}

interface Need {
  readonly evidence: ReadonlyMap<Spot, number>;
}

function worthOf(
  stage: BenchSteel,
  spot: Spot,
  instruments: readonly Instrument[],
): { band: number; u: number } {
  const target = targetAt(stage, spot)!;
  const { repeat, resolution } = instrumentFor(spot, undefined, instruments);
  const u = Math.hypot(
    repeat,
    fromResolution(resolution),
    target.slope.up * target.placed,
    target.slope.along * ALONG,
  );
  return { band: target.band, u: Math.hypot(u, 0.2 * target.band) };
}

/** What each spot would tell of a fault as large as it must be caught at; nothing for one that shows nowhere. */
function needOf(
  shape: Shape,
  all: readonly Spot[],
  worth: ReadonlyMap<Spot, { band: number; u: number }>,
): Need[] {
  const response = all.map((spot) => Math.max(...shape.responses.map((one) => Math.abs(one(spot)))));
  const most = Math.max(...response.map((one, i) => one / worth.get(all[i]!)!.band));
  if (!(most > 1e-9)) return [];
  const size = CAUGHT_AT / most;
  return [
    {
      evidence: new Map(
        all.map((spot, i) => [spot, ((response[i]! * size) / worth.get(spot)!.u) ** 2] as const),
      ),
    },
  ];
}

/** Caliper work first, heel to tip; then one side on the plate and at the rule, then the other; then the blade as a whole. */
const ROUND: readonly (readonly Quantity[])[] = [
  ["flats"],
  ["edge", "behind"],
  ["above"],
  ["over"],
  ["line", "edge-height", "edge-face"],
  ["angle"],
  ["plunge"],
  ["lean"],
  ["bow"],
  ["twist"],
  ["square"],
  ["hardness"],
  ["height-at"],
  ["blade-length"],
  ["overall"],
  ["sweep"],
];

export function inHandOrder(spots: readonly Spot[]): Spot[] {
  const rank = ({ what, side }: Spot) => {
    const i = ROUND.findIndex((group) => group.includes(what));
    const turned = sideRank(side);
    // Everything of one side before the blade is turned over.
    return i < 3 ? [i, 0] : i <= 7 ? [3 + turned, i] : [6, i];
  };
  const along = (spot: Spot) => spot.u ?? (spot.x ?? 0) / 1000;
  return [...spots].sort((a, b) => {
    const [one, two] = [rank(a), rank(b)];
    return one[0]! - two[0]! || one[1]! - two[1]! || along(a) - along(b);
  });
}

const sideRank = (side: Side | undefined) => (side === "left" ? 0 : side === "right" ? 1 : 2);

/** The plan with the maker's own places put in, each once. */
export function withPlaces(plan: readonly Spot[], places: readonly Spot[]): Spot[] {
  const known = new Set(plan.map(spotKey));
  return inHandOrder([...plan, ...places.filter((spot) => !known.has(spotKey(spot)))]);
}

/** How far within its ends a stretch that was ground is read again, mm. */
const WITHIN_ENDS = 4;

/** Where steel was taken off a face since: just within both ends and half way, as nothing of the round may lie there. */
export function groundPlaces(
  stage: BenchSteel,
  done: readonly { readonly side: Side; readonly from: number; readonly to: number }[],
): Spot[] {
  const { edge } = stage.finished.field;
  const [first, last] = clearSpan(stage);
  const spots = done.flatMap(({ side, from, to }) =>
    [from + WITHIN_ENDS, (from + to) / 2, to - WITHIN_ENDS].flatMap((x): Spot[] => {
      const s = firstAtX(edge, x);
      if (s === null) return [];
      const u = rounded(Math.min(last, Math.max(first, s / edge.length)));
      return [
        { what: "line", u, side },
        { what: stage.isSharpened ? "behind" : "edge", u },
      ];
    }),
  );
  const known = new Map(spots.map((spot) => [spotKey(spot), tagged(stage, spot)]));
  return [...known.values()].filter((spot) => targetAt(stage, spot) !== null);
}

/** What may be read where a maker points: by quantity, at a share of the edge; `height` above it where that is asked. */
export function spotsNear(stage: BenchSteel, u: number, height: number): Spot[] {
  const at = rounded(u);
  const x = Math.round(placeOf(stage, u) * 10) / 10;
  return QUANTITIES.flatMap((what): Spot[] => {
    const { at: along, isPerSide } = QUANTITY[what];
    if (along === "whole" || what === "hardness" || what === "square") return [];
    const base: Spot =
      along === "x"
        ? { what, x }
        : what === "above"
          ? { what, u: at, height: rounded(height) }
          : { what, u: at };
    return isPerSide ? SIDES.map((side) => ({ ...base, side })) : [base];
  })
    .map((spot) => tagged(stage, spot))
    .filter((spot) => targetAt(stage, spot) !== null);
}
