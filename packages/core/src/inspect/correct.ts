import { A_PASS, COARSE, passOf } from "../abrasive/cutting.ts";
import { abrasiveName } from "../abrasive/schema.ts";
import { placeAt } from "../blade/chain.ts";
import { cutAlong } from "../blade/cut.ts";
import { isPrimary } from "../blade/half.ts";
import { massOf, solidBetween } from "../blade/mass.ts";
import { SIDES, type Side } from "../blade/schema.ts";
import { read, table } from "../blade/table.ts";
import type { Rung, StageSteel } from "../route/ladder.ts";
import { narrowestBelt } from "../shop/grinders.ts";
import type { Shop } from "../shop/schema.ts";
import { densityOf } from "../steel/steels.ts";
import { type AsFound, foundSteel, GENTLE, STEEP } from "./as-found.ts";
import type { Figure } from "./figure.ts";
import { steelAt } from "./reader.ts";
import { faceResponse } from "./response.ts";
import { clearSpan, placeOf } from "./span.ts";
import { type BenchSteel, centreBand, edgeBand, ROUGH } from "./target.ts";

/** Steel to come off one face over a stretch, and what taking it does. Lengths mm, square to the face where not said. */
export interface Correction {
  readonly side: Side;
  /** Said where it is a face of the second edge. */
  readonly edge?: "second";
  readonly from: number;
  readonly to: number;
  /** At the places along it, in x. */
  readonly off: readonly { readonly x: number; readonly t: number }[];
  readonly most: number;
  /** How far it goes below the stage's own line at the most: what must be meant. 0 where it does not. */
  readonly beyond: number;
  /** With one belt, about. */
  readonly passes: number;
  readonly belt: string | null;
  /** What it does where it is most: the steel as found, read before and after. */
  readonly lineClimbs: number;
  readonly edgeThins: number;
  /** How far back the plunge's sweep comes out of the flat with it, where it reaches the plunge; null elsewhere. */
  readonly plungeBack: number | null;
  readonly grams: number;
  /** Still between that face and the finished blade after it, at the least; below 0 there is not enough. */
  readonly spare: number;
  /** What the finer belts and the hand must still find there. */
  readonly needed: number;
  readonly why: "thick" | "centre";
}

const STEPS = 48;
/** Less than this share of the band is left alone. */
const WORTH = 0.5;
/** Passes are taken to three quarters and looked at: each may take a third more than it should. */
export const CAUTION = 0.75;
/** With less than this still to come off every face a ridge is better than a hollow, mm. Starting value. */
const SCANT = 0.1;

/** One place along a face: what stands there and what is to come off. */
interface Place {
  readonly u: number;
  readonly x: number;
  /** Above the stage's own line. */
  readonly stands: number;
  /** Above the finished blade. */
  readonly has: number;
  readonly t: number;
  /** How low the face may come there, were all of it counted on that seems to stand: what a belt must not cut into. */
  readonly floor: number;
  readonly why: Correction["why"];
}

/**
 * What should come off which face, and where: every stretch that stands more than half a band above its stage, down to its line;
 * then, where the edge is still off centre for more than it may be, the thick side to where it is. Only what two readings speak for,
 * or one that was read again, and only in a shape that the shop's belt can grind; nothing that the finished blade needs.
 */
export function correctionsFor(
  stage: BenchSteel,
  found: AsFound,
  figures: readonly Figure[],
  belts: Rung["belts"],
  shop: Shop,
): Correction[] {
  if (!stage.isBevelled) return [];
  const [start, end] = clearSpan(stage);
  // The places read are among them: a fault may end between two that lie near.
  const even = Array.from({ length: STEPS + 1 }, (_, i) => start + ((end - start) * i) / STEPS);
  const us = [...new Set([...even, ...found.at.filter((u) => u > start && u < end)])].sort((a, b) => a - b);
  const belt = beltFor(belts, shop);
  return SIDES.flatMap((side) => {
    const wanted = us.map((u) => placeOn(stage, found, side, u));
    const places = groundBy(wanted, narrowestBelt(shop));
    return stretchesOf(places)
      .filter(({ first, last }) => {
        const stretch = places.slice(first, last + 1);
        return stretch.some(({ t }) => t >= A_PASS) && isSupported(stage, side, figures, stretch);
      })
      .map(({ first, last }): Correction => {
        // One place further at each end, where nothing comes off: the cut runs out to it.
        const rows = places.slice(Math.max(0, first - 1), last + 2);
        const ends = { isFirst: first === 0, isLast: last === us.length - 1 };
        const off = throughEnds(stage, side, rows, ends);
        const worst = worstOf(rows);
        const taken = rows.filter(({ t }) => t > 0);
        return {
          side,
          ...(stage.edge ? { edge: stage.edge } : {}),
          from: Math.round(rows[0]!.x),
          to: Math.round(rows.at(-1)!.x),
          off,
          most: Math.max(...rows.map(({ t }) => t)),
          beyond: Math.max(0, ...taken.map(({ t, stands }) => t - Math.max(0, stands))),
          passes: Math.max(1, Math.round(worst.t / passOf(belt?.microns ?? COARSE))),
          belt: belt ? abrasiveName(belt) : null,
          ...doneTo(stage, found, side, rows, worst, ends),
          spare: Math.min(...taken.map(({ has, t }) => has - t)),
          needed: stage.needed[side],
          why: worst.why,
        };
      });
  });
}

/** Whether a stretch reaches the first place that can be read, or the last. */
interface Ends {
  readonly isFirst: boolean;
  readonly isLast: boolean;
}

const round = (value: number, places: number) => Number(value.toFixed(places));

/** Where most comes off; of places where nearly as much does, the one in their middle: clear of plunge and point. */
function worstOf(rows: readonly Place[]): Place {
  const most = Math.max(...rows.map(({ t }) => t));
  const near = rows.filter(({ t }) => t >= 0.95 * most);
  return near[Math.floor(near.length / 2)]!;
}

/** What stands on a face at u, and what should come off there. */
function placeOn(stage: BenchSteel, found: AsFound, side: Side, u: number): Place {
  const other = side === "left" ? "right" : "left";
  const lift = (one: Side) => faceResponse(stage, { what: "over", u, side: one }, one);
  const stands = read(found.faces[side], u);
  const theirs = read(found.faces[other], u);
  const has = stage.left.faces[side] + stands;
  const perFace = lift(side) || 1;
  // Half of the difference of the sides, as the apex stands.
  const k = (stands * perFace - theirs * lift(other)) / 2;
  const band = centreBand(stage);
  const thick = stands > bandOf(stage, u) * WORTH ? stands : 0;
  const centre = k > band && stands > -has ? Math.max(0, (2 * (k - band * 0.2)) / perFace) : 0;
  // Never below what must still be found there: less a reading's error, that is all there is; where little is, though every pass
  // takes a third too much.
  const known = has - notCountedOn(stage, found, side, u, stands);
  const care = stage.left.faces[side] < SCANT ? CAUTION : 1;
  const most = Math.max(0, (known - stage.needed[side] - 2 * read(found.within[side], u)) * care);
  const t = Math.min(Math.max(thick, centre), most);
  return {
    u,
    x: placeOf(stage, u),
    stands,
    has,
    t: t > 0.004 ? t : 0,
    // Down to the stage's line a belt may take it anywhere, though nothing is asked for there.
    floor: stands - Math.min(Math.max(stands, centre, 0), Math.max(0, has - stage.needed[side])),
    why: thick >= centre ? "thick" : "centre",
  };
}

/**
 * What a belt of a width leaves where so much is wanted off: it lies flat along the blade and goes nowhere deeper than it may go over
 * all of its width. Source: a closing by a flat element, as in mathematical morphology (Matheron and Serra).
 */
function groundBy(places: readonly Place[], width: number): Place[] {
  const wanted = places.map(({ floor }) => floor);
  const reach = places.map(({ x }, i) => {
    let last = i;
    while (last + 1 < places.length && places[last + 1]!.x <= x + width) last++;
    return last;
  });
  const left = places.map(() => Number.POSITIVE_INFINITY);
  for (let i = 0; i < places.length; i++) {
    // A belt may hang over the point, and stop at the plunge: a window at an end is as wide as there is blade under it.
    const isWhole = reach[i]! < places.length - 1 || places[reach[i]!]!.x - places[i]!.x >= width * 0.999;
    const first = isWhole ? i : Math.min(i, firstWithin(places, width));
    const high = Math.max(...wanted.slice(first, reach[i]! + 1));
    for (let k = first; k <= reach[i]!; k++) left[k] = Math.min(left[k]!, high);
  }
  return places.map((place, i) => {
    const t = Math.min(place.t, Math.max(0, place.stands - left[i]!));
    return { ...place, t: t > 0.004 ? t : 0 };
  });
}

/** The first place of the last window along the blade. */
function firstWithin(places: readonly Place[], width: number): number {
  const end = places.at(-1)!.x;
  return Math.max(
    0,
    places.findIndex(({ x }) => x >= end - width),
  );
}

/** Runs of places where something comes off; two places between them join them. */
function stretchesOf(places: readonly Place[]): { first: number; last: number }[] {
  const runs: { first: number; last: number }[] = [];
  for (const [i, { t }] of places.entries()) {
    if (t <= 0) continue;
    const open = runs.at(-1);
    if (open && open.last >= i - 2) open.last = i;
    else runs.push({ first: i, last: i });
  }
  return runs.filter(({ first, last }) => last > first);
}

/** Two readings at places of a stretch that say that the face is proud, or one that was read again: less grinds nothing. */
function isSupported(
  stage: BenchSteel,
  side: Side,
  figures: readonly Figure[],
  stretch: readonly Place[],
): boolean {
  const [from, to] = [stretch[0]!.u - NEXT, stretch.at(-1)!.u + NEXT];
  const most = Math.max(...stretch.map(({ t }) => t));
  const speaking = figures.filter(({ spot, off, uncertainty }) => {
    if (spot.u === undefined || spot.u < from || spot.u > to) return false;
    const response = faceResponse(stage, spot, side);
    const here = stretch.reduce((a, b) => (Math.abs(b.u - spot.u!) < Math.abs(a.u - spot.u!) ? b : a));
    const isProud = response !== 0 && here.t > 0 && off / response >= Math.max(SPEAKS * here.t, SAYS * most);
    return isProud && !figures.some((other) => denies(stage, side, { spot, off, u: uncertainty.u }, other));
  });
  // Where nothing is surely out of its band, and no two readings are beyond theirs, it is let be.
  const beyond = speaking.filter(({ off, target }) => Math.abs(off) > target.band);
  if (beyond.length < 2 && !beyond.some(({ verdict }) => verdict === "out")) return false;
  return speaking.reduce((sum, { readings }) => sum + Math.min(2, readings.length), 0) >= 2;
}
/**
 * Whether another reading of the same face at the same place says that much less stands there, by four standard uncertainties: one of the
 * two is wrong, and no steel is taken off for either.
 */
function denies(
  stage: BenchSteel,
  side: Side,
  said: { readonly spot: Figure["spot"]; readonly off: number; readonly u: number },
  { spot, off, uncertainty }: Figure,
): boolean {
  const isOfPlace =
    spot !== said.spot &&
    spot.side === side &&
    spot.u !== undefined &&
    spot.what !== "angle" &&
    Math.abs(spot.u - said.spot.u!) <= NEXT;
  if (!isOfPlace) return false;
  const [there, here] = [faceResponse(stage, said.spot, side), faceResponse(stage, spot, side)];
  if (there === 0 || here === 0) return false;
  const u = Math.hypot(said.u / there, uncertainty.u / here);
  return said.off / there - off / here > CONTRADICTS * u;
}
const CONTRADICTS = 4;

/** A reading just beside a stretch belongs to it: shares of the edge. */
const NEXT = 0.02;
/** A reading speaks for what comes off where it says at least this share of it. */
const SPEAKS = 0.3;
/** And this share of the most that comes off: where the cut runs out, everything would speak for it. */
const SAYS = 0.2;

/** What a correction does where it is most, by reading the steel as found before and after it. */
function doneTo(
  stage: BenchSteel,
  found: AsFound,
  side: Side,
  rows: readonly Place[],
  worst: Place,
  { isFirst, isLast }: Ends,
): Pick<Correction, "lineClimbs" | "edgeThins" | "plungeBack" | "grams"> {
  const cut = table(
    rows,
    ({ u }) => u,
    ({ t }) => t,
  );
  // As the cut itself: to the plunge and to the point where it reaches the ends of what can be read.
  const [from, to] = [isFirst ? 0 : rows[0]!.u, isLast ? 1 : rows.at(-1)!.u];
  const before = foundSteel(stage, found);
  const after = foundSteel(stage, found, (one, u) =>
    one === side && u >= from && u <= to ? read(cut, u) : 0,
  );
  const { u } = worst;
  const [a, b] = [before.steel.station(u), after.steel.station(u)];
  // No line climbs further than there is blade above it.
  const lineOf = (one: StageSteel) => steelAt(one, { what: "line", u, side }) ?? a.height;
  const volumeOf = (one: StageSteel) =>
    solidBetween(one.steel.field, Math.min(rows[0]!.x, rows.at(-1)!.x), Math.max(rows[0]!.x, rows.at(-1)!.x))
      .volume;
  const grams = massOf(volumeOf(before) - volumeOf(after), densityOf(stage.finished.blade.steel));
  const thick = (one: typeof a) => (stage.isSharpened ? (one.behind ?? 0) : one.edge);
  const places = [before, after].map((one) => sweepStarts(one, stage, side, rows[0]!.u));
  return {
    lineClimbs: Math.max(0, lineOf(after) - lineOf(before)),
    edgeThins: Math.max(0, thick(a) - thick(b)),
    plungeBack: isFirst && places[0] !== null && places[1] !== null ? places[0]! - places[1]! : null,
    grams: Math.max(0, grams),
  };
}

/** Where along the blade the plunge's sweep comes out of the flat, half way up the bevel beside it; null where there is none. */
function sweepStarts({ steel }: StageSteel, planned: StageSteel, side: Side, u: number): number | null {
  const plunge = planned.finished.field.plunges[side];
  const station = planned.steel.station(u);
  const line = station[side].grindLine;
  if (!plunge || line === null || plunge.radius === 0) return null;
  const y = station.y + (station.inward[1] * line) / 2;
  const x = plunge.x + ((y - plunge.y) * plunge.sin) / plunge.cos;
  const cut = cutAlong(steel.field, x, y, 1, 0, -0.01, plunge.radius / plunge.cos + 0.5);
  const first = cut[side].findIndex(isPrimary);
  return first < 0 ? null : x + cut.breaks[first]!;
}

/** What comes off at the first or last place that can be read comes off to the plunge, or to the point, as well. */
function throughEnds(
  stage: StageSteel,
  side: Side,
  places: readonly Place[],
  { isFirst, isLast }: Ends,
): Correction["off"] {
  const { plunges, edge } = stage.finished.field;
  const rows = places.map(({ x, t }) => ({ x: round(x, 1), t: round(t, 3) }));
  const foot = plunges[side]?.x ?? placeAt(edge, 0).x;
  const tip = placeAt(edge, edge.length).x;
  const [first, last] = [rows[0]!, rows.at(-1)!];
  return [
    ...(isFirst && foot < first.x ? [{ x: round(foot, 1), t: first.t }] : []),
    ...rows,
    ...(isLast && tip > last.x ? [{ x: round(tip, 1), t: last.t }] : []),
  ];
}

/**
 * What of a face between two places read is not counted on, mm: where it rises steeply, or where little is left to spare, all
 * above the lower of them.
 */
function notCountedOn(
  stage: StageSteel,
  { at, faces }: AsFound,
  side: Side,
  u: number,
  stands: number,
): number {
  const k = at.findIndex((one) => one > u);
  if (k <= 0) return 0;
  const { length } = stage.steel.field.edge;
  const isScant = stage.left.faces[side] < SCANT;
  const [a, b] = [read(faces[side], at[k - 1]!), read(faces[side], at[k]!)];
  const rise = Math.abs(a - b) / ((at[k]! - at[k - 1]!) * length);
  const share = isScant ? 1 : Math.min(1, Math.max(0, (rise - GENTLE) / (STEEP - GENTLE)));
  return share * Math.max(0, stands - Math.min(a, b));
}

/** Half the edge's band as it falls to one face, square to it. */
function bandOf(stage: BenchSteel, u: number): number {
  const { behind, edge } = stage.steel.station(u);
  const thick = stage.isSharpened ? (behind ?? edge) : edge;
  return (edgeBand(thick) * (stage.isHard ? 1 : ROUGH)) / 2;
}

/** The finest belt of the stage's own: what a correction is not overshot with. */
function beltFor(belts: Rung["belts"], shop: Shop) {
  if (belts?.on === "bevels" && belts.planned.ok) return belts.planned.sequence.steps.at(-1)!.belt;
  return shop.abrasives.find(({ microns }) => microns <= COARSE) ?? null;
}
