import { bevelOn, type Side } from "../blade/schema.ts";
import { type Station, thicknessAlong } from "../blade/station.ts";
import type { Blank } from "../forge/blank.ts";
import { onEdgeOf, type StageSteel } from "../route/ladder.ts";
import type { Steel } from "../route/steel.ts";
import type { Instrument } from "../shop/instrument.ts";
import { atan } from "../units/angle.ts";
import type { Spot } from "./schema.ts";

/** What is known of an instrument that moves what it shows. */
export type Shown = Pick<Instrument, "kind" | "error" | "zero" | "jaw">;

/**
 * What an instrument shows at a spot of a stage's steel, by putting its jaws, its plate or its foot to the field, with its own error
 * and zero: mm, degrees or HRC. Null where the steel has nothing to read there. There is no other formula for any of these.
 */
export function expectedReading(stage: StageSteel, spot: Spot, instrument: Shown): number | null {
  const jaw = instrument.kind === "caliper" ? (instrument.jaw ?? 0) : 0;
  const value = steelAt(stage, spot, jaw);
  return value === null ? null : value + instrument.error + instrument.zero;
}

/** The same by an instrument without fault whose parallel jaws are `jaw` wide, mm. Hardness is no question of the field: null. */
export function steelAt(whole: StageSteel, spot: Spot, jaw = 0): number | null {
  const stage = onEdgeOf(whole, spot);
  if (!stage) return null;
  if (stage.blank) return onBlank(stage, stage.blank, spot);
  const { steel } = stage;
  const { field } = steel;
  const station = spot.u === undefined ? null : steel.station(spot.u);
  switch (spot.what) {
    case "flats":
      field.sampleAt(spot.x!, field.ring.top);
      return field.right.flat + field.left.flat;
    case "edge":
      // Sharpened it comes to nothing: there it is read behind the edge, and nowhere else.
      return stage.isSharpened ? null : betweenJaws(steel, station!, 0, jaw);
    case "behind":
      return !stage.isSharpened || station!.behind === null
        ? null
        : betweenJaws(steel, station!, shoulderOf(station!), jaw);
    case "edge-height":
      return stage.isSharpened ? station![spot.side!].edgeBevel || null : null;
    case "edge-face":
      return stage.isSharpened ? faceLong(station!, spot.side!) : null;
    case "above":
      return spot.height! > station!.height ? null : betweenJaws(steel, station!, spot.height!, jaw);
    case "over":
      return overPlate(steel, station!, spot.side!);
    case "line":
      return lineOn(stage, station!, spot.side!);
    case "angle":
      return angleOn(stage, station!, spot.side!);
    case "plunge":
      return stage.isBevelled ? (field.plunges[spot.side!]?.x ?? null) : null;
    case "lean": {
      const bevel = bevelOn(steel.blade, spot.side!);
      return stage.isBevelled && bevel.kind !== "none" ? bevel.plunge.lean : null;
    }
    case "bow":
      return steel.bend ? bowOf(steel, steel.bend.z) : 0;
    case "twist":
      return steel.bend ? twistOf(steel, steel.bend.z) : 0;
    case "square":
      return steel.outOfSquare;
    default:
      // Hardness is no question of the field; width, lengths and sweep are a blank's.
      return null;
  }
}

/** What is read of a forged blank: mm, degrees; null where it has nothing of the kind. */
function onBlank({ steel }: StageSteel, blank: Blank, spot: Spot): number | null {
  const { field } = steel;
  switch (spot.what) {
    case "flats":
      return blank.thickness(spot.x!);
    case "height-at": {
      const all = blank.spans(spot.x!);
      return all.length === 0 ? null : all.at(-1)![1] - all[0]![0];
    }
    case "blade-length":
      return blank.right;
    case "overall":
      return blank.right - blank.left;
    case "sweep":
      return 0;
    case "edge":
    case "over": {
      const { x, y } = blank.atEdge(field, spot.u!);
      const [right, left] = [blank.half("right", x, y), blank.half("left", x, y)];
      if (spot.what === "edge") return right + left;
      const other = blank.thickness(x) / 2;
      return (spot.side === "right" ? right : left) + other + risenOffPlate(steel, x, y, spot.side!);
    }
    case "bow":
      return steel.bend ? bowOf(steel, steel.bend.z) : 0;
    case "twist":
      return steel.bend ? twistOf(steel, steel.bend.z) : 0;
    default:
      return null;
  }
}

/** From the edge along a facet to its shoulder, mm; null where there is none. */
function faceLong(station: Station, side: Side): number | null {
  const { edgeBevel, behind } = station[side];
  return edgeBevel && behind !== null ? Math.hypot(edgeBevel, behind) : null;
}

/** Higher of both shoulders above the edge, mm. */
export function shoulderOf(station: Station): number {
  return Math.max(station.left.edgeBevel ?? 0, station.right.edgeBevel ?? 0);
}

const JAW_LOOKS = 4;

/** Parallel jaws from a height up touch the thickest steel under them. */
function betweenJaws({ field }: Steel, { cut, height }: Station, from: number, jaw: number): number {
  const at = (s: number) => thicknessAlong(field, cut, Math.min(height, s));
  let most = at(from);
  if (jaw <= 0) return most;
  for (let i = 1; i <= JAW_LOOKS; i++) most = Math.max(most, at(from + (jaw * i) / JAW_LOOKS));
  for (const place of cut.breaks) if (place > from && place < from + jaw) most = Math.max(most, at(place));
  return most;
}

/** From the plate that the other flat lies on up to the upper side of the edge. */
function overPlate(steel: Steel, { x, y, cut }: Station, side: Side): number {
  const { field } = steel;
  field.sampleAt(cut.x, cut.y);
  const upper = field[side].lowest;
  const lower = field[side === "left" ? "right" : "left"].flat;
  return upper + lower + risenOffPlate(steel, x, y, side);
}

function lineOn({ steel, isBevelled }: StageSteel, station: Station, side: Side): number | null {
  // A bevel to the spine has no line, but for what the plunge's own run leaves at the heel.
  const bevel = bevelOn(steel.blade, side);
  if (!isBevelled || bevel.kind === "none" || bevel.set === "full") return null;
  return station[side].endsAt === "spine" ? null : station[side].grindLine;
}

/** An angle finder's foot stands on the middle third of the face; what it is zeroed on turns with the blade. */
function angleOn({ steel, isBevelled }: StageSteel, { cut, ...station }: Station, side: Side): number | null {
  const { grindLine, edgeBevel } = station[side];
  if (!isBevelled || grindLine === null) return null;
  const { field } = steel;
  const foot = edgeBevel ?? 0;
  const at = (share: number) => {
    const s = foot + (grindLine - foot) * share;
    field.sampleAt(cut.x + s * cut.dx, cut.y + s * cut.dy);
    const middle = (field[side].flat - field[side === "left" ? "right" : "left"].flat) / 2;
    return { s, h: field[side].primary - middle };
  };
  const [low, high] = [at(1 / 3), at(2 / 3)];
  return atan((high.h - low.h) / (high.s - low.s));
}

const tipOf = ({ blade: { outline } }: Steel) => outline.spine[outline.spine.length - 1]!.at[0];

type Bent = (x: number, y: number) => number;

/** The middle less the mean of both ends, along the datum; + where the left flat is hollow. */
function bowOf(steel: Steel, z: Bent): number {
  const tip = tipOf(steel);
  return z(tip / 2, 0) - (z(0, 0) + z(tip, 0)) / 2;
}

/** Degrees from heel to tip; + where the tip's edge has turned to the left. */
function twistOf(steel: Steel, z: Bent): number {
  const tip = tipOf(steel);
  const turn = (x: number) => atan((z(x, 0) - z(x, -LEVER)) / LEVER);
  return turn(tip) - turn(0);
}

const LEVER = 10;
const PLATE_LOOKS = 24;

/** How far a bent blade's lower flat stands off the plate below a place, mm. */
function risenOffPlate(steel: Steel, x: number, y: number, side: Side): number {
  if (!steel.bend) return 0;
  const { z, lies } = steel.bend;
  const up = (px: number, py: number) => (side === "right" ? z(px, py) : -z(px, py));
  const tip = tipOf(steel);
  if (lies === "held") return 0;
  const chord = up(0, 0) + ((up(tip, 0) - up(0, 0)) * x) / tip;
  if (lies === "level") return up(x, y) - chord;
  // Left to itself it touches where it is lowest below the line through its ends.
  let lowest = 0;
  for (let i = 1; i < PLATE_LOOKS; i++) {
    const at = (tip * i) / PLATE_LOOKS;
    lowest = Math.min(lowest, up(at, 0) - up(0, 0) - ((up(tip, 0) - up(0, 0)) * at) / tip);
  }
  return up(x, y) - chord - lowest;
}
