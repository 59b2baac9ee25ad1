import { placeAt } from "../blade/chain.ts";
import { touchUpHeight } from "../edge/facet.ts";
import { lostUntil, type Taken, takenEach, type WornAt, wornAt } from "../edge/life.ts";
import { type Edge, type Sharpened, USUAL_WEAR } from "../edge/schema.ts";
import { radians } from "../units/angle.ts";
import { type EdgePlace, isZeroAt, tangentAt } from "./edge-settings.ts";
import type { Steel } from "./steel.ts";

/** What years of sharpening make of one edge: mm, degrees, by the steel cut again. */
/** How the edge stands after so many sharpenings. */
export interface LifeRow {
  readonly n: number;
  readonly lost: number;
  readonly at: readonly WornAt[];
}

/** One place of the edge: behind it now and later, and its facet in the side view from the edge up to its shoulder. mm. */
export interface AlongEdge {
  readonly x: number;
  readonly now: number | null;
  readonly later: number | null;
  readonly edge: readonly [number, number];
  readonly shoulder: readonly [number, number];
}

export interface EdgeLife {
  /** Blade height that one whole sharpening takes: by the log, else as it starts. */
  readonly each: number;
  readonly taken: Taken | null;
  readonly rows: readonly LifeRow[];
  /** Along the edge, now and after so many: behind the edge. */
  readonly after: LifeRow;
  readonly along: readonly AlongEdge[];
  /** Sharpenings until it wants thinning, and where; null where it never does, or has no edge bevel. */
  readonly until: { readonly n: number; readonly lost: number; readonly place: EdgePlace["place"] } | null;
  readonly years: number | null;
  /** Sharpened so far, whole ones: a touch-up counts as its share. */
  readonly done: number;
  /** Height that is gone by them, and by chips that were ground out. */
  readonly lost: number;
  /** An unsharpened heel: from and to along the blade, mm; null where sharpening begins at the heel. */
  readonly stub: { readonly from: number; readonly to: number } | null;
  /** A touch-up in the middle, so much steeper than the apex: how high a facet it leaves. Degrees, mm. */
  readonly touchUp: { readonly steeper: number; readonly high: number };
  /** The primary bevel runs to the apex: sharpening takes its whole face. */
  readonly isZero: boolean;
}

const LIFE_ROWS = 24;
/**
 * `after`: how many sharpenings it is also told for. `isFlat`: every step lays the face of a zero bevel flat on the stone, so that nothing
 * comes to be behind the edge.
 */
export function lifeOf(
  {
    edge,
    done,
    after,
  }: { readonly edge: Edge; readonly done: readonly Sharpened[]; readonly after?: number },
  steel: Steel,
  places: readonly EdgePlace[],
  isFlat: boolean,
): EdgeLife {
  const wear = edge.wear ?? USUAL_WEAR;
  const { field } = steel;
  const isZero = isFlat && places.every(({ u }) => isZeroAt(steel.station(u)));
  const share = wear.touch / wear.full;
  const taken = takenEach(done, share);
  const since = edge.drawn ? done.filter(({ when }) => Date.parse(when) > Date.parse(edge.drawn!)) : done;
  const each = taken?.isKnown ? taken.each : wear.full;
  const untils = places.flatMap(({ place, u }) => {
    const lost = lostUntil(field, u, wear.k);
    return lost === null ? [] : [{ place, lost, n: lost / each }];
  });
  const until = untils.length > 0 ? untils.reduce((a, b) => (b.lost < a.lost ? b : a)) : null;
  const most = until ? 1.25 * until.lost : LIFE_ROWS * each;
  const step = Math.max(1, Math.ceil(most / each / LIFE_ROWS));
  const rowAt = (n: number): LifeRow => ({
    n,
    lost: n * each,
    at: places.map(({ u }) => wornAt(field, u, isZero ? 0 : n * each)),
  });
  const rows = Array.from({ length: LIFE_ROWS + 1 }, (_, i) => rowAt(i * step));
  const then = rowAt(after ?? Math.round(until?.n ?? LIFE_ROWS));
  const along = Array.from({ length: ALONG + 1 }, (_, i): AlongEdge => {
    const u = places[0]!.u + ((LAST - places[0]!.u) * i) / ALONG;
    const { x, y, inward, behind, left, right } = steel.station(u);
    const high = Math.max(left.edgeBevel ?? 0, right.edgeBevel ?? 0);
    return {
      x,
      now: behind,
      later: isZero ? behind : wornAt(field, u, then.lost).behind,
      edge: [x, y],
      shoulder: [x + high * inward[0], y + high * inward[1]],
    };
  });
  const whole = since.reduce(
    (sum, { kind }) => sum + (kind === "full" ? 1 : kind === "touch" ? share : 0),
    0,
  );
  const repaired = since.flatMap(({ kind, damage }) =>
    kind === "repair" ? [(damage ?? 0) + BELOW_CHIP] : [],
  );
  const heel = placeAt(field.edge, 0).x;
  const start = placeAt(field.edge, field.sharpFrom).x;
  return {
    each,
    taken,
    rows,
    after: then,
    along,
    until,
    years: until && wear.perYear > 0 ? until.n / wear.perYear : null,
    done: whole,
    lost: repaired.reduce((sum, height) => sum + height, whole * each),
    stub: field.sharpFrom > LEAST_STUB ? { from: Math.min(heel, start), to: Math.max(heel, start) } : null,
    touchUp: { steeper: TOUCHED, high: touchUpOf(steel, places[1]!.u, wear.touch) },
    isZero,
  };
}
/** A chip is ground out so far below its floor, mm. Starting value. */
const BELOW_CHIP = 0.05;
/** A touch-up is held so much steeper, degrees. Starting value, 1 to 3. */
const TOUCHED = 2;

/** By the apex's own tangent: an arc is steeper or flatter there than its chord. */
function touchUpOf(steel: Steel, u: number, takes: number): number {
  const station = steel.station(u);
  const { angle } = steel.field.blade.edge;
  const side = angle.right > 0 || station.right.primaryAngle !== null ? "right" : "left";
  return touchUpHeight(takes, tangentAt(steel, station, side, angle[side]), radians(TOUCHED));
}

const LEAST_STUB = 1;
const ALONG = 24;
/** The last share of the edge that is told of: short of the point. */
const LAST = 0.95;
