import { compileField, type Field, thicknessAt } from "../blade/field.ts";
import { type Blade, bevelOn, type Side } from "../blade/schema.ts";
import { type Station, stationAt, thicknessAbove, thicknessAlong } from "../blade/station.ts";
import { read } from "../blade/table.ts";
import { ladderOf, type Rung } from "../route/ladder.ts";
import type { Route, StageKind } from "../route/schema.ts";
import type { Shop } from "../shop/schema.ts";
import { degrees, tan } from "../units/angle.ts";
import { QUANTITY } from "./quantity.ts";
import type { Spot } from "./schema.ts";

/** The steel a stage should leave, and what is known of it: everything readings of that stage are held to. */
export interface StageSteel {
  readonly blade: Blade;
  readonly stage: StageKind;
  readonly field: Field;
  readonly finished: Field;
  /** Still to come off each bevel face after the stage, square to it, and each flat, mm. */
  readonly left: { readonly faces: number; readonly flats: number };
  /** What must still be found on each face whatever is spared: the finer belts, the hand, the oven's skin, mm. */
  readonly needed: number;
  readonly isBevelled: boolean;
  readonly isSharpened: boolean;
  readonly isHard: boolean;
  /** Wanted hardness, HRC, where it was said. */
  readonly hardness: number | null;
  /** What stations were read at, by their share of the edge: a plan asks for the same ones again and again. */
  readonly known: Map<number, Station>;
}

/** The steel of one stage of a route; of the finished blade where there is no route. */
export function stageSteel(
  blade: Blade,
  route: Route | null,
  shop: Shop,
  stage: StageKind,
  hardness: number | null = null,
): StageSteel {
  const finished = compileField(blade);
  const rungs = route && route.stages.length > 0 ? ladderOf(blade, route, shop) : [];
  const i = rungs.findIndex(({ kind }) => kind === stage);
  const rung = rungs[i];
  const kinds = rungs.slice(0, i + 1).map(({ kind }) => kind);
  const isLast = i === rungs.length - 1;
  return {
    blade,
    stage,
    field: rung?.field ?? finished,
    finished,
    left: rung?.left ?? { faces: 0, flats: 0 },
    needed: rung ? neededAfter(rungs, i, route!) : 0,
    isBevelled: rung?.isBevelled ?? true,
    isSharpened: !rung || isLast || kinds.includes("sharpen"),
    isHard: !rung || isLast || kinds.includes("harden"),
    hardness,
    known: new Map(),
  };
}

/** Before the finish bevels what they leave for those after them is needed, and the skin while the oven is still to come. */
function neededAfter(rungs: readonly Rung[], i: number, route: Route): number {
  const later = rungs.slice(i + 1);
  const finish = later.find(({ kind }) => kind === "finish");
  if (!finish) return rungs[i]!.left.faces;
  return finish.left.faces + (later.some(({ kind }) => kind === "harden") ? route.skin : 0);
}

/** A station of the stage's steel, read once. */
export function stationOf(steel: StageSteel, u: number): Station {
  let station = steel.known.get(u);
  if (!station) {
    station = stationAt(steel.field, u);
    steel.known.set(u, station);
  }
  return station;
}

/** What should be read at a spot, how far off it may be, and what the hand's place is worth there. */
export interface Wanted {
  readonly spot: Spot;
  /** What the steel itself should be there. */
  readonly value: number;
  /** Half the band: good lies within ± this. */
  readonly band: number;
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

/** What should be read at a spot at a stage; null where the steel has no such thing there. */
export function wantedAt(steel: StageSteel, spot: Spot): Wanted | null {
  const { field } = steel;
  const rough = steel.isHard ? 1 : ROUGH;
  const { at } = QUANTITY[spot.what];
  const station = at === "u" ? stationOf(steel, spot.u!) : null;
  const slope = { up: 0, along: 0 };
  const make = (value: number | null, band: number, more: Partial<Wanted> = {}): Wanted | null =>
    value === null
      ? null
      : {
          spot,
          value,
          band,
          basis: TABLE,
          x: station?.x ?? spot.x ?? 0,
          slope,
          placed: PLACED.seated,
          ...more,
        };
  switch (spot.what) {
    case "flats": {
      const value = flatsAt(steel, spot.x!);
      const along = (flatsAt(steel, spot.x! + 0.5) - flatsAt(steel, spot.x! - 0.5)) * 1;
      return make(value, 0.08, {
        slope: { up: 0, along },
        basis: "flats within ± 0.08 mm of plan: starting band",
      });
    }
    case "edge": {
      // Sharpened it comes to nothing: there it is read behind the edge, and nowhere else.
      if (steel.isSharpened) return null;
      const value = thicknessAlong(field, station!.cut, 0);
      return make(value, edgeBand(value) * rough, { slope: slopesAt(steel, station!, 0), basis: EDGE_BASIS });
    }
    case "behind":
      if (!steel.isSharpened) return null;
      return make(station!.behind, edgeBand(station!.behind ?? 0) * rough, {
        slope: slopesAt(steel, station!, shoulderOf(station!)),
        placed: PLACED.shoulder,
        basis: EDGE_BASIS,
      });
    case "above":
      return make(thicknessAbove(field, station!, spot.height!), ABOVE_BAND * rough, {
        slope: slopesAt(steel, station!, spot.height!),
        placed: PLACED.height,
      });
    case "over": {
      const value = overEdge(steel, station!, spot.side!);
      return make(value, CENTRE_BAND[steel.isHard ? "finished" : "rough"], {
        slope: { up: halfSlope(steel, station!, spot.side!), along: 0 },
        basis: "edge within ± 0.10 of centre finished, ± 0.25 rough: starting band",
      });
    }
    case "line": {
      const side = station![spot.side!];
      // A bevel to the spine has no line, but for what the plunge's own run leaves at the heel.
      const bevel = bevelOn(steel.blade, spot.side!);
      if (bevel.kind === "none" || bevel.set === "full") return null;
      if (!steel.isBevelled || side.grindLine === null || side.endsAt === "spine") return null;
      const band = lineBand(steel, station!, spot.side!);
      return make(side.grindLine, band, {
        slope: { up: 1, along: alongOf(steel, spot.u!, (one) => one[spot.side!].grindLine) },
        placed: PLACED.seen,
        basis: "lines within 0.5 mm, or what the allowed centre makes at this angle: starting band",
      });
    }
    case "angle": {
      const { primaryAngle, grindLine } = station![spot.side!];
      if (!steel.isBevelled || primaryAngle === null || grindLine === null) return null;
      // What the line's own band is worth in degrees, edge held: Δβ = Δb·sin 2β/2b.
      const beta = (primaryAngle * Math.PI) / 180;
      const band = degrees((lineBand(steel, station!, spot.side!) * Math.sin(2 * beta)) / (2 * grindLine));
      return make(primaryAngle, Math.max(LEAST_ANGLE_BAND, band), {
        basis: "what the grind line's band is worth as an angle: geometry",
      });
    }
    case "plunge": {
      const cut = steel.isBevelled ? field.plunges[spot.side!] : null;
      return (
        cut &&
        make(cut.x, 0.25, {
          x: cut.x,
          slope: { up: 1, along: 0 },
          placed: PLACED.shoulder,
          basis: "plunges within 0.25 mm of each other: starting band",
        })
      );
    }
    case "lean": {
      const bevel = bevelOn(steel.blade, spot.side!);
      if (!steel.isBevelled || bevel.kind === "none") return null;
      return make(bevel.plunge.lean, 1, {
        x: bevel.plunge.x,
        basis: "plunges within 1° of each other in lean: starting band",
      });
    }
    case "bow":
      return make(0, (0.3 * tipOf(steel)) / 200, {
        x: tipOf(steel) / 2,
        basis: "0.3 mm in 200 mm: starting band",
      });
    case "twist":
      return make(0, 1, { x: tipOf(steel), basis: "1° heel to tip: starting band" });
    case "square":
      return make(0, 0.25, { basis: "outline square to the flats within 0.25°: starting band" });
    case "hardness":
      return make(steel.isHard ? steel.hardness : null, 2, {
        basis: "± 2 HRC of wanted; a usual tester reads within ± 1: common practice",
      });
  }
}

const EDGE_BASIS =
  "half of what the edge may vary along itself, 0.10 mm or a quarter of its value: starting band";

/** How much wider bands are before hardening: as k's ± 0.25 is to ± 0.10. Starting value. */
const ROUGH = 2.5;
const ABOVE_BAND = 0.1;
const LEAST_ANGLE_BAND = 0.1;
export const CENTRE_BAND = { finished: 0.1, rough: 0.25 } as const;

/** Half of what the thickness along one edge may vary by. Starting band. */
export function edgeBand(value: number): number {
  return Math.max(0.1, value / 4) / 2;
}

/** What may be between the grind lines of both sides: 0.5 mm, or 2k/tan β for the k that may be. Starting band. */
export function lineBand(steel: StageSteel, station: Station, side: Side): number {
  const beta = station[side].primaryAngle;
  const k = CENTRE_BAND[steel.isHard ? "finished" : "rough"];
  return beta ? Math.max(0.5, (2 * k) / tan(beta)) : 0.5;
}

function tipOf({ blade }: StageSteel): number {
  const { spine } = blade.outline;
  return spine[spine.length - 1]!.at[0];
}

/** Over the flats at x as they stand at the stage, mm. */
export function flatsAt(steel: StageSteel, x: number): number {
  const own = steel.field.blade.thickness !== steel.finished.blade.thickness;
  return read(steel.field.thickness, x) + (own ? 0 : 2 * steel.left.flats);
}

/** From the plate the blade's other flat lies on to the upper side of its edge: half the flats, and its own half. */
function overEdge(steel: StageSteel, station: Station, side: Side): number {
  return flatsAt(steel, station.x) / 2 + halfOf(steel, station, side, 0);
}

/** One side's half-thickness at a height above the edge, mm. */
export function halfOf(steel: StageSteel, station: Station, side: Side, height: number): number {
  const { cut } = station;
  thicknessAt(steel.field, cut.x + height * cut.dx, cut.y + height * cut.dy);
  return steel.field[side].lowest;
}

function halfSlope(steel: StageSteel, station: Station, side: Side): number {
  return (halfOf(steel, station, side, STEP) - halfOf(steel, station, side, 0)) / STEP;
}

function shoulderOf(station: Station): number {
  return Math.max(station.left.edgeBevel ?? 0, station.right.edgeBevel ?? 0);
}

const STEP = 0.2;

/** Change of the thickness for 1 mm up the blade (the steeper way) and for 1 mm along it. */
function slopesAt(steel: StageSteel, station: Station, height: number): Wanted["slope"] {
  const at = (s: number) => thicknessAlong(steel.field, station.cut, Math.max(0, s));
  const up = Math.max(
    Math.abs(at(height + STEP) - at(height)),
    height > STEP ? Math.abs(at(height) - at(height - STEP)) : 0,
  );
  const along = alongOf(steel, station.u, (one) =>
    thicknessAlong(steel.field, one.cut, Math.min(height, one.height)),
  );
  return { up: up / STEP, along };
}

/** Change of something for 1 mm along the edge. */
function alongOf(steel: StageSteel, u: number, of: (station: Station) => number | null): number {
  const by = 1 / steel.field.edge.length;
  const [a, b] = [of(stationOf(steel, Math.max(0, u - by))), of(stationOf(steel, Math.min(1, u + by)))];
  return a === null || b === null ? 0 : (b - a) / 2;
}

/**
 * What parallel jaws of a width read too much on a wedge: they touch the thickest steel under them, from the spot's height up.
 * Corrected, as it is known, and not called noise. Source: geometry, 2w·tan β on a flat bevel.
 */
export function jawBias(steel: StageSteel, spot: Spot, jaw: number): number {
  if (jaw <= 0 || !["edge", "behind", "above"].includes(spot.what)) return 0;
  const station = stationOf(steel, spot.u!);
  const from = spot.what === "edge" ? 0 : spot.what === "above" ? spot.height! : shoulderOf(station);
  const here = thicknessAlong(steel.field, station.cut, from);
  let most = here;
  for (let i = 1; i <= 8; i++) {
    const s = Math.min(station.height, from + (jaw * i) / 8);
    most = Math.max(most, thicknessAlong(steel.field, station.cut, s));
  }
  return most - here;
}

/** Standard deviation of a hand's place along the blade, mm. */
export const ALONG = PLACED.along;
