import { abrasiveName } from "../abrasive/schema.ts";
import { placeAt } from "../blade/chain.ts";
import { SIDES, type Side } from "../blade/schema.ts";
import { read } from "../blade/table.ts";
import type { Rung } from "../route/ladder.ts";
import type { Shop } from "../shop/schema.ts";
import { densityOf } from "../steel/steels.ts";
import { radians } from "../units/angle.ts";
import { clearSpan, placeOf } from "./patterns.ts";
import { GENTLE, STEEP, type Twin } from "./twin.ts";
import { edgeBand, halfOf, type StageSteel, stationOf } from "./wanted.ts";

/** Steel to come off one face over a stretch, and what taking it does. Lengths mm, square to the face where not said. */
export interface Correction {
  readonly side: Side;
  readonly from: number;
  readonly to: number;
  /** At the places along it, in x. */
  readonly off: readonly { readonly x: number; readonly t: number }[];
  readonly most: number;
  /** With one belt, about. */
  readonly passes: number;
  readonly belt: string | null;
  /** What it does where it is most. */
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

/** Off a face with one light pass of a coarse belt, mm, for a belt of `COARSE` µm. Starting values; finer belts take less. */
const A_PASS = 0.02;
const COARSE = 125;
const STEPS = 48;
/** Less than this share of the band is left alone. */
const WORTH = 0.5;
/** Passes are taken to three quarters and looked at: each may take a third more than it should. */
export const CAUTION = 0.75;

/** Off a face with one light pass of a belt, mm. */
function passOf(microns: number): number {
  return Math.min(A_PASS * 2, (A_PASS * microns) / COARSE);
}

/**
 * What should come off which face, and where: every stretch that stands more than half a band above its stage, down to its
 * line; then, where the edge is still off centre for more than it may be, the thick side to where it is. Nothing is taken that
 * the finished blade needs.
 */
export function correctionsFor(
  steel: StageSteel,
  twin: Twin,
  rung: Pick<Rung, "belts"> | null,
  shop: Shop,
): Correction[] {
  if (!steel.isBevelled) return [];
  const [start, end] = clearSpan(steel);
  // The places read are among them: a fault may end between two that lie near.
  const even = Array.from({ length: STEPS + 1 }, (_, i) => start + ((end - start) * i) / STEPS);
  const us = [...new Set([...even, ...twin.at.filter((u) => u > start && u < end)])].sort((a, b) => a - b);
  const belt = beltFor(rung, shop);
  return SIDES.flatMap((side) => {
    const off = us.map((u) => offAt(steel, twin, side, u));
    const runs: { from: number; to: number }[] = [];
    for (let i = 0; i < us.length; i++) {
      if (off[i]!.t <= 0) continue;
      const last = runs.at(-1);
      if (last && last.to >= i - 2) last.to = i;
      else runs.push({ from: i, to: i });
    }
    return runs
      .filter(({ from, to }) => to > from && off.slice(from, to + 1).some(({ t }) => t >= A_PASS))
      .map(({ from, to }) => {
        // One place further at each end, where nothing comes off: the cut runs out to it.
        const [first, last] = [Math.max(0, from - 1), Math.min(us.length - 1, to + 1)];
        const rows = us
          .slice(first, last + 1)
          .map((u, i) => ({ u, x: placeOf(steel, u), ...off[first + i]! }));
        const worst = rows.reduce((a, b) => (b.t > a.t ? b : a));
        const station = stationOf(steel, worst.u);
        const beta = radians(station[side].primaryAngle ?? 0);
        const length = rows.at(-1)!.x - rows[0]!.x;
        const mean = rows.reduce((sum, { t }) => sum + t, 0) / rows.length;
        return {
          side,
          from: Math.round(rows[0]!.x),
          to: Math.round(rows.at(-1)!.x),
          off: throughEnds(
            steel,
            side,
            rows.map(({ x, t }) => ({ x: round(x, 1), t: round(t, 3) })),
            { isFirst: from === 0, isLast: to === us.length - 1 },
          ),
          most: worst.t,
          passes: Math.max(1, Math.round(worst.t / passOf(belt?.microns ?? COARSE))),
          belt: belt ? abrasiveName(belt) : null,
          // No line climbs further than there is blade above it.
          lineClimbs: Math.min(worst.t / Math.sin(beta), station.height - (station[side].grindLine ?? 0)),
          edgeThins: worst.t / Math.cos(beta),
          plungeBack: from === 0 ? sweepMoves(steel, side, rows[0]!.u, rows[0]!.t) : null,
          grams: (mean * length * widthAt(steel, side, worst.u) * densityOf(steel.blade.steel)) / 1000,
          spare: Math.min(...rows.filter(({ t }) => t > 0).map((row) => row.has - row.t)),
          needed: steel.needed,
          why: worst.why,
        };
      });
  });
}

const round = (value: number, places: number) => Number(value.toFixed(places));

/** What should come off a face at u: `has` is all that stands above the finished blade. */
function offAt(
  steel: StageSteel,
  twin: Twin,
  side: Side,
  u: number,
): { t: number; has: number; why: Correction["why"] } {
  const other = side === "left" ? "right" : "left";
  const mine = read(twin.faces[side], u);
  const theirs = read(twin.faces[other], u);
  const has = steel.left.faces + mine;
  const beta = radians(stationOf(steel, u)[side].primaryAngle ?? 0);
  const band = bandOf(steel, u);
  // Half of the difference of the sides along the plane.
  const k = (mine - theirs) / 2 / Math.cos(beta);
  const centreBand = steel.isHard ? 0.1 : 0.25;
  const thick = mine > band * WORTH ? mine : 0;
  const centre =
    k > centreBand * WORTH && mine > -has ? Math.max(0, 2 * (k - centreBand * 0.2) * Math.cos(beta)) : 0;
  const wanted = Math.max(thick, k > centreBand ? centre : 0);
  // Never below what must still be found there: less a hand's error, that is all there is.
  const known = has - notCountedOn(steel, twin, side, u, mine);
  const most = Math.max(0, known - steel.needed - 2 * read(twin.within[side], u));
  const t = Math.min(wanted, most);
  return { t: t > 0.004 ? t : 0, has, why: thick >= centre ? "thick" : "centre" };
}

/** What comes off at the first or last place that can be read comes off to the plunge, or to the point, as well. */
function throughEnds(
  steel: StageSteel,
  side: Side,
  rows: Correction["off"],
  { isFirst, isLast }: { isFirst: boolean; isLast: boolean },
): Correction["off"] {
  const { plunges, edge } = steel.finished;
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
 * A bevel let down by t at a plunge of radius r comes out of the flat further back: at depth D below the flat the sweep has run
 * r − √(2rD − D²). Source: geometry. Null where the plunge has no sweep, or is deeper than its radius.
 */
function sweepMoves(steel: StageSteel, side: Side, u: number, t: number): number | null {
  const cut = steel.finished.plunges[side];
  const station = stationOf(steel, u);
  const line = station[side].grindLine;
  if (!cut || line === null) return null;
  // The half is sampled first: the flat above it is read from the same sample.
  const half = halfOf(steel, station, side, line / 2);
  const depth = steel.field[side].flat - half;
  const run = (deep: number) => cut.radius - Math.sqrt(Math.max(0, 2 * cut.radius * deep - deep ** 2));
  return depth > 0 && depth + t < cut.radius ? run(depth) - run(depth + t) : null;
}

/** With less than this still to come off every face a ridge is better than a hollow, mm. Starting value. */
const SCANT = 0.1;

/**
 * What of a face between two places read is not counted on, mm: where it rises steeply, or where little is left to spare, all
 * above the lower of them.
 */
function notCountedOn(steel: StageSteel, { at, faces }: Twin, side: Side, u: number, mine: number): number {
  const k = at.findIndex((one) => one > u);
  if (k <= 0) return 0;
  const { length } = steel.field.edge;
  const isScant = steel.left.faces < SCANT;
  const [a, b] = [read(faces[side], at[k - 1]!), read(faces[side], at[k]!)];
  const rise = Math.abs(a - b) / ((at[k]! - at[k - 1]!) * length);
  const share = isScant ? 1 : Math.min(1, Math.max(0, (rise - GENTLE) / (STEEP - GENTLE)));
  return share * Math.max(0, mine - Math.min(a, b));
}

/** Half the edge's band as it falls to one face, square to it. */
function bandOf(steel: StageSteel, u: number): number {
  const station = stationOf(steel, u);
  const edge = station.behind ?? 2 * steel.left.faces;
  return (edgeBand(edge) * (steel.isHard ? 1 : 2.5)) / 2;
}

function widthAt(steel: StageSteel, side: Side, u: number): number {
  const { grindLine, edgeBevel } = stationOf(steel, u)[side];
  return Math.max(0, (grindLine ?? 0) - (edgeBevel ?? 0));
}

/** The finest belt of the stage's own: what a correction is not overshot with. */
function beltFor(rung: Pick<Rung, "belts"> | null, shop: Shop) {
  if (rung?.belts?.on === "bevels" && rung.belts.planned.ok)
    return rung.belts.planned.sequence.steps.at(-1)!.belt;
  return shop.abrasives.find(({ microns }) => microns <= COARSE) ?? null;
}
