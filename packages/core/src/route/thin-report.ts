import { A_PASS, cuttingRate } from "../abrasive/cutting.ts";
import { type Abrasive, abrasiveName, isBelt } from "../abrasive/schema.ts";
import { type Blade, bevelOn, SIDES, type Side } from "../blade/schema.ts";
import type { PerSide, Station } from "../blade/station.ts";
import { read, table } from "../blade/table.ts";
import { wornAt } from "../edge/life.ts";
import type { Thin } from "../edge/schema.ts";
import { BY_HAND_BELOW, hinge, parallel, relief, type ThinnedSection } from "../edge/thinning.ts";
import type { Shop } from "../shop/schema.ts";
import { tan } from "../units/angle.ts";
import { type EdgePlace, edgePlaces } from "./edge-settings.ts";
import type { WhichEdge } from "./schema.ts";
import { finishedSteel, perSide, type Steel } from "./steel.ts";

/** Thinning worked out at one place of the edge. mm, degrees a side. */
export interface ThinPlace extends EdgePlace {
  readonly x: number;
  /** Behind the edge as it stands, as it is wanted, and so much to go. */
  readonly now: number;
  readonly wanted: number;
  readonly by: number;
  /** Each face by its own angle; null where it is not ground. */
  readonly faces: PerSide<ThinnedSection | null>;
  /** The line of a face passes the spine. */
  readonly runsOut: boolean;
}

export interface ThinReport {
  readonly places: readonly ThinPlace[];
  /** mm³, both faces. */
  readonly volume: number;
  readonly minutes: number | null;
  /** What it is done with, coarse to begin with. */
  readonly with: string | null;
  /** By hand on a stone: behind a thin edge power burns it. */
  readonly isByHand: boolean;
  readonly runsOut: boolean;
}

export interface ThinAsked {
  readonly blade: Blade;
  readonly shop: Shop;
  readonly which: WhichEdge;
  readonly thin: Thin;
  /** How much of its height the edge has lost so far; what was read behind it at a share instead, where that was. */
  readonly lost: number;
  readonly read?: readonly { readonly u: number; readonly t: number }[];
}

const STRETCHES = 24;
const LAST = 0.95;

/** How to thin an edge back to what is wanted behind it; null where it has no bevel to take anything from. */
export function thinReport(asked: ThinAsked): ThinReport | null {
  const whole = finishedSteel(asked.blade);
  const steel = asked.which === "second" ? whole.onSecond : whole;
  if (!steel) return null;
  const places = edgePlaces(steel).map((place) => thinAt(asked, steel, place));
  if (places.every(({ faces }) => SIDES.every((side) => faces[side] === null))) return null;
  const volume = volumeOf(asked, steel);
  const isByHand = Math.min(...places.map(({ wanted }) => wanted)) < BY_HAND_BELOW;
  const tool = toolFor(asked.shop, isByHand);
  return {
    places,
    volume,
    minutes: tool ? volume / cuttingRate(tool) : null,
    with: tool ? abrasiveName(tool) : null,
    isByHand,
    runsOut: places.some((one) => one.runsOut),
  };
}

/** What the bench is given to take off, a face each, mm square to it. */
export interface ToComeOff {
  readonly side: Side;
  readonly edge?: "second";
  readonly from: number;
  readonly to: number;
  readonly off: { x: number; t: number }[];
  readonly passes: number;
}

/** The same as the bench takes it: only of faces that are ground. */
export function toComeOff({ places }: ThinReport, which: WhichEdge): ToComeOff[] {
  return SIDES.filter((side) => places.some(({ faces }) => faces[side])).map((side) => {
    const off = places.map(({ x, faces }) => ({ x, t: faces[side]?.off ?? 0 }));
    return {
      side,
      ...(which === "second" ? { edge: "second" as const } : {}),
      from: off[0]!.x,
      to: off.at(-1)!.x,
      off,
      passes: Math.max(1, Math.round(Math.max(...off.map(({ t }) => t)) / A_PASS)),
    };
  });
}

function thinAt({ thin, lost, read: readings }: ThinAsked, steel: Steel, place: EdgePlace): ThinPlace {
  const station = steel.station(place.u);
  const own = station.behind ?? 0;
  const rows = readings?.length ? rowsOf(readings) : null;
  const now = rows ? read(rows, place.u) : (wornAt(steel.field, place.u, lost).behind ?? own);
  const wanted = thin.wanted.length > 0 ? read(rowsOf(thin.wanted), place.u) : own;
  const by = Math.max(0, now - wanted);
  const cut = SIDES.filter((side) => bevelOn(steel.field.blade, side).kind !== "none");
  // Ground on one side alone, that face takes all of it.
  const ofBoth = (2 * by) / Math.max(1, cut.length);
  const faces = perSide((side) => (cut.includes(side) ? faceAt(thin, ofBoth, station[side]) : null));
  const runsOut = cut.some(
    (side) => (faces[side]?.climbs ?? 0) > station.height - (station[side].grindLine ?? 0) + 1e-6,
  );
  return { ...place, x: station.x, now, wanted, by, faces, runsOut: runsOut && by > 0 };
}

/** What thinning by so much, both faces together, does to one of them; null where it has no bevel here. */
function faceAt(thin: Thin, ofBoth: number, side: Station["left"]): ThinnedSection | null {
  const rise = (side.grindLine ?? 0) - (side.edgeBevel ?? 0);
  const beta = side.angleAtShoulder ?? side.primaryAngle;
  return beta === null || beta <= 0 || rise <= 0 ? null : sectionOf(thin, ofBoth, { beta, rise });
}

function sectionOf(thin: Thin, by: number, { beta, rise }: { beta: number; rise: number }): ThinnedSection {
  if (thin.way === "parallel") return parallel(by, beta);
  if (thin.way === "hinge") return hinge(by, beta, rise);
  return relief(by, beta, { rise, height: Math.min(rise, thin.height ?? rise / 2) });
}

const rowsOf = (rows: readonly { readonly u: number; readonly t: number }[]) =>
  table(
    [...rows].sort((a, b) => a.u - b.u),
    ({ u }) => u,
    ({ t }) => t,
  );

/** Off both faces along the edge, each place's own share of its face. */
function volumeOf(asked: ThinAsked, steel: Steel): number {
  const from = edgePlaces(steel)[0]!.u;
  const at = (u: number) => {
    const { faces } = thinAt(asked, steel, { place: "middle", u });
    const station = steel.station(u);
    return SIDES.reduce((sum, side) => {
      const face = faces[side];
      const { grindLine, edgeBevel, primaryAngle } = station[side];
      if (!face || grindLine === null) return sum;
      const wide = (grindLine - (edgeBevel ?? 0)) * Math.hypot(1, tan(primaryAngle ?? 0));
      return sum + face.off * face.share * wide;
    }, 0);
  };
  let sum = 0;
  for (let i = 0; i < STRETCHES; i++) {
    const [a, b] = [i, i + 1].map((k) => from + ((LAST - from) * k) / STRETCHES) as [number, number];
    sum += ((b - a) * steel.field.edge.length * (at(a) + at(b))) / 2;
  }
  return sum;
}

/** The coarsest that goes with it: a stone or a plate by hand, else a belt no coarser than is good behind an edge. */
function toolFor({ abrasives }: Shop, isByHand: boolean): Abrasive | null {
  const fit = abrasives.filter(
    (one) =>
      one.onHand > 0 &&
      (isByHand ? one.form === "stone" || one.form === "plate" : isBelt(one) && one.microns <= COARSEST),
  );
  return fit.toSorted((a, b) => b.microns - a.microns)[0] ?? null;
}
const COARSEST = 125;
