import { atan } from "../units/angle.ts";
import { firstAtX, placeAt } from "./chain.ts";
import { type Cut, cutAlong } from "./cut.ts";
import { type Field, thicknessAt } from "./field.ts";
import { EDGE, FALSE_EDGE, isPrimary, RELIEF, type Surface } from "./half.ts";
import { sectionSums } from "./mass.ts";
import { exitAlong, spansAt } from "./outline.ts";
import { bevelOn, type Side } from "./schema.ts";
import { read } from "./table.ts";

/** Heights above the apex at which thickness is always given, mm. */
export const FIXED_HEIGHTS = [0.5, 1, 2, 5, 10] as const;

export interface PerSide<T> {
  readonly left: T;
  readonly right: T;
}

/** One side of the section square to the edge. Everything is null where the steel has no such thing there. */
export interface SideReading {
  /** Half-thickness at the shoulder, from the apex plane, mm. */
  readonly behind: number | null;
  /** Height of the edge bevel, square to the edge, mm. */
  readonly edgeBevel: number | null;
  /** Degrees from the centre plane of a convex edge bevel, at its apex and at its shoulder; null of a flat one. */
  readonly edgeAtApex: number | null;
  readonly edgeAtShoulder: number | null;
  /** Upper end of the relief, from the edge, mm, and its angle in degrees; null where there is none. */
  readonly relief: { readonly height: number; readonly angle: number } | null;
  /** Upper end of the primary bevel, from the edge, mm. */
  readonly grindLine: number | null;
  /** Degrees from the centre plane, at the middle of the face. */
  readonly primaryAngle: number | null;
  /** The same at the face's two ends; alike on a flat bevel. */
  readonly angleAtShoulder: number | null;
  readonly angleAtGrindLine: number | null;
  /** What ends the bevel at its top: the flats, the false edge, or the spine itself. */
  readonly endsAt: "flat" | "false-edge" | "spine" | null;
}

/** The section square to the edge at one place on it, and the section square to x at the same edge point. */
export interface Station {
  readonly u: number;
  readonly x: number;
  readonly y: number;
  /** Unit vector from the edge into the blade. */
  readonly inward: readonly [number, number];
  readonly height: number;
  /** Over the flats at its x, as they stand. */
  readonly flats: number;
  /** The very edge. */
  readonly edge: number;
  readonly atSpine: number;
  readonly right: SideReading;
  readonly left: SideReading;
  /** Left and right together where both are known, else the one that is. */
  readonly behind: number | null;
  readonly cut: Cut;
}

const NOTHING: SideReading = {
  behind: null,
  edgeBevel: null,
  edgeAtApex: null,
  edgeAtShoulder: null,
  relief: null,
  grindLine: null,
  primaryAngle: null,
  angleAtShoulder: null,
  angleAtGrindLine: null,
  endsAt: null,
};

/** Reads the blade square to its edge at u, 0…1. */
export function stationAt(field: Field, u: number): Station {
  const place = placeAt(field.edge, u * field.edge.length);
  // The edge runs heel to tip with the steel above it, so the blade lies to the left of its tangent.
  const inward = [-place.ty, place.tx] as const;
  const height = exitAlong(field.ring, place.x, place.y, inward[0], inward[1], 1e-3);
  const cut = cutAlong(field, place.x, place.y, inward[0], inward[1], 0, height);
  const right = readSide(field, cut, "right", u);
  const left = field.alike ? right : readSide(field, cut, "left", u);
  const edge = thicknessAt(field, place.x, place.y);
  const flats = field.right.flat + field.left.flat;
  return {
    u,
    x: place.x,
    y: place.y,
    inward,
    height,
    edge,
    flats,
    atSpine: height > 0 ? thicknessAlong(field, cut, Math.max(0, height - 1e-6)) : 0,
    right,
    left,
    behind: right.behind === null && left.behind === null ? null : (right.behind ?? 0) + (left.behind ?? 0),
    cut,
  };
}

/** The station whose edge point stands at x, mm from the junction: the first along the edge; null where there is no edge. */
export function stationAtX(field: Field, x: number): Station | null {
  const s = firstAtX(field.edge, x);
  return s === null ? null : stationAt(field, s / field.edge.length);
}

/** Thickness at s along a cut, mm, holes not looked at. */
export function thicknessAlong(field: Field, cut: Cut, s: number): number {
  return thicknessAt(field, cut.x + s * cut.dx, cut.y + s * cut.dy);
}

/** Thickness at a height above the apex, square to the edge; null where the blade is not that tall. */
export function thicknessAbove(field: Field, station: Station, height: number): number | null {
  return height > station.height ? null : thicknessAlong(field, station.cut, height);
}

function readSide(field: Field, cut: Cut, side: Side, u: number): SideReading {
  const surfaces = side === "right" ? cut.right : cut.left;
  const bevel = bevelOn(field.blade, side);
  if (bevel.kind === "none") return edgeOnly(cut, surfaces);
  const first = surfaces.findIndex(isPrimary);
  if (first < 0 || surfaces.slice(0, first).some((surface) => surface !== EDGE)) return NOTHING;
  let last = first;
  while (last + 1 < surfaces.length && isPrimary(surfaces[last + 1]!)) last++;
  const shoulder = cut.breaks[first]!;
  const grindLine = cut.breaks[last + 1]!;
  const above = surfaces[last + 1];
  const eased = reliefFrom(field, cut, side, surfaces, first, last);
  const from = eased ? eased.height : shoulder;
  const slopes = [from, (from + grindLine) / 2, grindLine].map((s, i) =>
    slopeAlong(field, cut, side, s + (i === 0 ? 1e-5 : i === 2 ? -1e-5 : 0)),
  );
  const sharp = first > 0 || isSharpened(field, side, u);
  const behind = halfAt(field, cut, side, shoulder) - apexPlane(field, cut, side);
  // Below the apex plane the edge itself is ground away: there is nothing to be behind.
  const stands = sharp && behind > -1e-9;
  const isArc = stands && shoulder > 4 * STEP && field.blade.edge.kind === "convex";
  return {
    behind: stands ? behind : null,
    edgeBevel: stands ? shoulder : null,
    edgeAtApex: isArc ? atan(slopeAlong(field, cut, side, 2 * STEP, "edge")) : null,
    edgeAtShoulder: isArc ? atan(slopeAlong(field, cut, side, shoulder - 2 * STEP, "edge")) : null,
    relief: eased,
    grindLine,
    angleAtShoulder: atan(slopes[0]!),
    primaryAngle: atan(slopes[1]!),
    angleAtGrindLine: atan(slopes[2]!),
    endsAt: above === undefined ? "spine" : above === FALSE_EDGE ? "false-edge" : "flat",
  };
}

/** The relief of a side along a cut: the surfaces of it lie next above the shoulder. */
function reliefFrom(
  field: Field,
  cut: Cut,
  side: Side,
  surfaces: readonly Surface[],
  first: number,
  last: number,
): SideReading["relief"] {
  if (surfaces[first] !== RELIEF) return null;
  let end = first;
  while (end < last && surfaces[end + 1] === RELIEF) end++;
  if (end === last) return null;
  const [low, high] = [cut.breaks[first]!, cut.breaks[end + 1]!];
  return { height: high, angle: atan(slopeAlong(field, cut, side, (low + high) / 2, "relief")) };
}

function isSharpened(field: Field, side: Side, u: number): boolean {
  return field.blade.edge.angle[side] > 0 && u * field.edge.length >= field.sharpFrom - 1e-9;
}

/** A side with an edge bevel straight off the flat: there is no shoulder, only the bevel's height. */
function edgeOnly(cut: Cut, surfaces: readonly Surface[]): SideReading {
  if (surfaces[0] !== EDGE) return NOTHING;
  const top = cut.breaks[surfaces.findIndex((surface) => surface !== EDGE)];
  return top === undefined ? NOTHING : { ...NOTHING, edgeBevel: top, behind: null };
}

function halfAt(field: Field, cut: Cut, side: Side, s: number): number {
  field.sampleAt(cut.x + s * cut.dx, cut.y + s * cut.dy);
  return field[side].lowest;
}

function apexPlane(field: Field, cut: Cut, side: Side): number {
  const { offset } = field.blade.edge;
  if (typeof offset === "number") return side === "right" ? offset : -offset;
  const half = read(field.thickness, cut.x) / 2;
  return offset === `${side}-face` ? half : -half;
}

/** How far to either side a face is looked at for its slope, mm. */
const STEP = 1e-5;

/** dh/ds of a face along the cut, the primary's where none is named, by a central difference of the face itself. */
function slopeAlong(
  field: Field,
  cut: Cut,
  side: Side,
  s: number,
  face: "primary" | "edge" | "relief" = "primary",
): number {
  const at = (place: number) => {
    field.sampleAt(cut.x + place * cut.dx, cut.y + place * cut.dy);
    return field[side][face];
  };
  return (at(s + STEP) - at(s - STEP)) / (2 * STEP);
}

/** Area and second moment of the section square to x at an abscissa, openings of holes left out. */
export function sectionAtX(field: Field, x: number): { area: number; secondMoment: number } {
  const { area, secondMoment } = sectionSums(field, x, spansAt(field.ring, x));
  return { area, secondMoment };
}
