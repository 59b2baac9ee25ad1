import { type Station, thicknessAlong } from "../blade/station.ts";
import { blankOf } from "../forge/blank.ts";
import { type Forge, NO_FORGE } from "../forge/schema.ts";
import { flatsToCome, onEdgeOf, type StageSteel, stageSteel } from "../route/ladder.ts";
import type { Route } from "../route/schema.ts";
import { targetsAt } from "../route/targets.ts";
import type { Shop } from "../shop/schema.ts";
import { QUANTITY } from "./quantity.ts";
import { expectedReading, type Shown, shoulderOf, steelAt } from "./reader.ts";
import { faceResponse, turnResponse } from "./response.ts";
import { type Spot, spotKey } from "./schema.ts";

/** The steel of a stage that readings are held to, with what is wanted of it beside its shape. */
export interface BenchSteel extends StageSteel {
  /** HRC, where it was said. */
  readonly hardness: number | null;
  /** Of a forged blank: what is left on it beyond the next stage, and what the edge must still have there. */
  readonly forged?: {
    readonly left: { readonly flats: number; readonly nextEdge: number; readonly skin: number };
    readonly grow: { readonly spine: number; readonly edge: number; readonly tang: number };
  };
}

/** The steel of a stage as the bench holds it. */
export function benchSteel(
  blade: Parameters<typeof stageSteel>[0],
  route: Route | null,
  shop: Shop,
  id: string,
  hardness: number | null = null,
  forge: Forge = NO_FORGE,
): BenchSteel {
  const stage = { ...stageSteel(blade, route, shop, id, forge), hardness };
  return stage.kind === "forge" && route ? forgedSteel(stage, route, shop, forge) : stage;
}

/** A forge stage is read as the blank that it leaves: what is profiled and ground from it comes after. */
function forgedSteel(stage: BenchSteel, route: Route, shop: Shop, forge: Forge): BenchSteel {
  const { blade, field } = stage.finished;
  const flats = flatsToCome(blade, route, shop);
  const next = route.stages.find(({ kind }) => kind === "rough" || kind === "finish");
  const ground = next ? targetsAt(stageSteel(blade, route, shop, next.id, forge))[1] : undefined;
  return {
    ...stage,
    blank: blankOf(field, forge, { flats }),
    forged: {
      left: { flats: forge.blank.flats, nextEdge: ground?.edge ?? 0, skin: route.skin },
      grow: forge.blank.grow,
    },
  };
}

/** What should be read at a spot, how far off it may be, and what the hand's place is worth there. */
export interface Target {
  readonly spot: Spot;
  /** What the steel itself should be there. */
  readonly value: number;
  /** Half the band: good lies within ± this. */
  readonly band: number;
  /** How far below it may be instead, where that is another figure: a forged blank down to what comes after it. */
  readonly below?: number;
  readonly basis: string;
  /** From the junction, mm, for the drawing. */
  readonly x: number;
  /** Change of the value with a place wrong by 1 mm up the blade, and along it. */
  readonly slope: { readonly up: number; readonly along: number };
  /** Standard deviation of the place up the blade, mm. */
  readonly placed: number;
}

/** How well a hand finds a place, mm, one standard deviation. Starting values. */
const PLACED = { seen: 0.15, seated: 0.05, shoulder: 0.1, height: 0.25, along: 0.5 } as const;

const TABLE = "starting band, in the spirit of common practice";
const EDGE_BASIS =
  "half of what the edge may vary along itself, 0.10 mm or a quarter of its value: starting band";

/** How much wider bands are before hardening: as k's ± 0.25 is to ± 0.10. Starting value. */
export const ROUGH = 2.5;
const ABOVE_BAND = 0.1;
const LEAST_ANGLE_BAND = 0.1;
export const CENTRE_BAND = { finished: 0.1, rough: 0.25 } as const;

const kept = new WeakMap<object, Map<string, Target | null>>();

/** What should be read at a spot at a stage; null where the steel has no such thing there. Worked out once for each spot. */
export function targetAt(stage: BenchSteel, spot: Spot): Target | null {
  const on = onEdgeOf(stage, spot);
  return on && targetOn(on, spot);
}

function targetOn(stage: BenchSteel, spot: Spot): Target | null {
  let known = kept.get(stage);
  if (!known) {
    known = new Map();
    kept.set(stage, known);
  }
  const key = spotKey(spot);
  let target = known.get(key);
  if (target === undefined) {
    target = workedOut(stage, spot);
    known.set(key, target);
  }
  return target;
}

function workedOut(stage: BenchSteel, spot: Spot): Target | null {
  const { steel } = stage;
  const value = spot.what === "hardness" ? (stage.isHard ? stage.hardness : null) : steelAt(stage, spot);
  if (value === null) return null;
  if (stage.blank) return onBlank(stage, spot, value);
  const station = spot.u === undefined ? null : steel.station(spot.u);
  const rough = stage.isHard ? 1 : ROUGH;
  const make = (band: number, more: Partial<Target> = {}): Target => ({
    spot,
    value,
    band,
    basis: TABLE,
    x: station?.x ?? spot.x ?? 0,
    slope: { up: 0, along: QUANTITY[spot.what].at === "whole" ? 0 : alongAt(stage, spot) },
    placed: PLACED.seated,
    ...more,
  });
  switch (spot.what) {
    case "flats":
      return make(0.08, { basis: "flats within ± 0.08 mm of plan: starting band" });
    case "edge":
    case "behind":
      return make(edgeBand(value) * rough, {
        slope: slopesAt(stage, spot, spot.what === "edge" ? 0 : shoulderOf(station!)),
        placed: spot.what === "edge" ? PLACED.seated : PLACED.shoulder,
        basis: EDGE_BASIS,
      });
    case "edge-height":
    case "edge-face": {
      // What the thickness behind it may be off by, as height at its angle: half of it on each side.
      const { edgeBevel, behind } = station![spot.side!];
      const perHeight = edgeBevel && behind ? edgeBevel / behind : 1;
      return make(Math.max(0.05, (edgeBand(2 * (behind ?? 0)) / 2) * perHeight), {
        slope: { up: 1, along: alongAt(stage, spot) },
        placed: PLACED.shoulder,
        basis: "what the thickness behind it may be off by, as height: starting band",
      });
    }
    case "above":
      return make(ABOVE_BAND * rough, {
        slope: slopesAt(stage, spot, spot.height!),
        placed: PLACED.height,
      });
    case "over":
      return make(centreBand(stage), {
        slope: { up: upTheFace(stage, station!, spot), along: alongAt(stage, spot) },
        basis: "edge within ± 0.10 of centre finished, ± 0.25 rough: starting band",
      });
    case "line":
      return make(lineBand(stage, spot), {
        slope: { up: 1, along: alongAt(stage, spot) },
        placed: PLACED.seen,
        basis: "lines within 0.5 mm, or what the allowed centre makes at this angle: starting band",
      });
    case "angle": {
      // What the line's own band is worth in degrees, the edge held.
      const line: Spot = { ...spot, what: "line" };
      const perDegree = Math.abs(turnResponse(stage, line, spot.side!, "edge"));
      return make(Math.max(LEAST_ANGLE_BAND, perDegree > 0 ? lineBand(stage, line) / perDegree : 0), {
        basis: "what the grind line's band is worth as an angle: geometry",
      });
    }
    case "plunge":
      return make(0.25, {
        x: value,
        slope: { up: 1, along: 0 },
        placed: PLACED.shoulder,
        basis: "plunges within 0.25 mm of each other: starting band",
      });
    case "lean":
      return make(1, {
        x: steel.field.plunges[spot.side!]!.x,
        basis: "plunges within 1° of each other in lean: starting band",
      });
    case "bow":
      return make((0.3 * tipOf(stage)) / 200, {
        x: tipOf(stage) / 2,
        basis: "0.3 mm in 200 mm: starting band",
      });
    case "twist":
      return make(1, { x: tipOf(stage), basis: "1° heel to tip: starting band" });
    case "square":
      return make(0.25, {
        slope: { up: 0, along: 0 },
        basis: "outline square to the flats within 0.25°: starting band",
      });
    default:
      return make(2, {
        slope: { up: 0, along: 0 },
        basis: "± 2 HRC of wanted; a usual tester reads within ± 1: common practice",
      });
  }
}

/** What a blank may be over what it should measure, mm: its thicknesses, its width, its lengths, its sweep. Starting values. */
const BLANK_OVER = 0.6;
const BLANK_WIDER = 1.5;
const BLANK_LONGER = 3;
const BLANK_SWEPT = 2;
const BLANK_BASIS =
  "what a blank may be over its plan: starting band; under it, what later stages need: geometry";

/** A blank is held from above by what it costs to grind off, and from below by what is cut from it. */
function onBlank(stage: BenchSteel, spot: Spot, value: number): Target {
  const x = spot.x ?? (spot.u === undefined ? 0 : stage.steel.station(spot.u).x);
  const made = (band: number, below?: number): Target => ({
    spot,
    value,
    band,
    ...(below === undefined ? {} : { below: Math.max(0.02, below) }),
    basis: BLANK_BASIS,
    x,
    slope: { up: 0, along: 0 },
    placed: PLACED.seated,
  });
  const { left, grow } = stage.forged!;
  switch (spot.what) {
    case "flats":
      return made(BLANK_OVER, 2 * left.flats);
    case "edge":
      return made(BLANK_OVER, value - left.nextEdge);
    case "height-at":
      return made(BLANK_WIDER, grow.spine + grow.edge);
    case "blade-length":
      return made(BLANK_LONGER, grow.spine);
    case "overall":
      return made(BLANK_LONGER, grow.spine + grow.tang);
    case "sweep":
      return made(BLANK_SWEPT);
    case "twist":
      return made(1);
    default:
      return made(BLANK_OVER);
  }
}

/** What the maker's own instrument should show there: its jaws and what is known against it put in. */
export function showsAt(stage: BenchSteel, target: Target, instrument: Shown): number {
  return expectedReading(stage, target.spot, instrument) ?? target.value + instrument.error + instrument.zero;
}

/** Half of what the thickness along one edge may vary by. Starting band. */
export function edgeBand(value: number): number {
  return Math.max(0.1, value / 4) / 2;
}

export function centreBand({ isHard }: StageSteel): number {
  return CENTRE_BAND[isHard ? "finished" : "rough"];
}

/** What may be between the grind lines of both sides: 0.5 mm, or what an edge makes that is as far off centre as it may be. */
export function lineBand(stage: StageSteel, { u, side }: Spot): number {
  const line = Math.abs(faceResponse(stage, { what: "line", u, side }, side!));
  const over = Math.abs(faceResponse(stage, { what: "over", u, side }, side!));
  return over > 0 ? Math.max(0.5, (2 * centreBand(stage) * line) / over) : 0.5;
}

function tipOf({ finished: { blade } }: StageSteel): number {
  const { spine } = blade.outline;
  return spine[spine.length - 1]!.at[0];
}

const STEP = 0.2;

/** Change of the thickness for 1 mm up the blade (the steeper way) and for 1 mm along it. */
function slopesAt(stage: StageSteel, spot: Spot, height: number): Target["slope"] {
  const { cut } = stage.steel.station(spot.u!);
  const at = (s: number) => thicknessAlong(stage.steel.field, cut, Math.max(0, s));
  const up = Math.max(
    Math.abs(at(height + STEP) - at(height)),
    height > STEP ? Math.abs(at(height) - at(height - STEP)) : 0,
  );
  return { up: up / STEP, along: alongAt(stage, spot) };
}

/** Change of one side's half-thickness at the edge for 1 mm up. */
function upTheFace({ steel }: StageSteel, { cut }: Station, { side }: Spot): number {
  const at = (s: number) => {
    steel.field.sampleAt(cut.x + s * cut.dx, cut.y + s * cut.dy);
    return steel.field[side!].lowest;
  };
  return (at(STEP) - at(0)) / STEP;
}

/** Change of a reading for 1 mm along the blade: the reader asked on both sides of the spot. */
function alongAt(stage: StageSteel, spot: Spot): number {
  const moved = (way: 1 | -1): Spot => {
    if (spot.u === undefined) return { ...spot, x: spot.x! + way };
    return { ...spot, u: Math.min(1, Math.max(0, spot.u + way / stage.steel.field.edge.length)) };
  };
  const [a, b] = [steelAt(stage, moved(-1)), steelAt(stage, moved(1))];
  return a === null || b === null ? 0 : (b - a) / 2;
}

/** Standard deviation of a hand's place along the blade, mm. */
export const ALONG = PLACED.along;
