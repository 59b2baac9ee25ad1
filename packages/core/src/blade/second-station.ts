import { atan } from "../units/angle.ts";
import { firstAtX, placeAt } from "./chain.ts";
import { type Cut, cutAlong } from "./cut.ts";
import type { Field } from "./field.ts";
import { isPrimary, SECOND, SECOND_EDGE, SECOND_RUN_IN, type Surface } from "./half.ts";
import { DRAWN_PLACES, type Line, runs } from "./lines.ts";
import { exitAlong } from "./outline.ts";
import type { Side } from "./schema.ts";
import { pastStart } from "./second.ts";
import { type PerSide, type Station, stationAt } from "./station.ts";

/** One side of the section square to a second edge. Null where the steel has no such thing there. */
export interface SecondReading {
  /** Half-thickness at the shoulder, mm. */
  readonly behind: number | null;
  /** Height of its edge bevel, and of its grind line, square to the second edge, mm. */
  readonly edgeBevel: number | null;
  readonly grindLine: number | null;
  /** Degrees from the centre plane, at the middle of the face. */
  readonly primaryAngle: number | null;
}

/** The section square to a second edge at one place of it: v is 0 where it begins, 1 where it ends. */
export interface SecondStation {
  readonly v: number;
  readonly x: number;
  readonly y: number;
  /** Unit vector from the second edge into the blade. */
  readonly inward: readonly [number, number];
  readonly height: number;
  readonly right: SecondReading;
  readonly left: SecondReading;
  readonly behind: number | null;
  readonly cut: Cut;
}

const NOTHING: SecondReading = { behind: null, edgeBevel: null, grindLine: null, primaryAngle: null };

/** Reads the blade square to its second edge at v, 0…1; null where it has none. */
export function secondStationAt(field: Field, v: number): SecondStation | null {
  const { second, spine, ring } = field;
  if (!second) return null;
  const place = placeAt(spine, second.sFrom + v * (second.sTo - second.sFrom));
  // The spine runs junction to tip with the steel below it, so the blade lies to the right of its tangent.
  const inward = [place.ty, -place.tx] as const;
  const height = exitAlong(ring, place.x, place.y, inward[0], inward[1], 1e-3);
  const cut = cutAlong(field, place.x, place.y, inward[0], inward[1], 0, height);
  const right = readSide(field, cut, "right");
  const left = field.alike ? right : readSide(field, cut, "left");
  const both =
    right.behind === null && left.behind === null ? null : (right.behind ?? 0) + (left.behind ?? 0);
  return { v, x: place.x, y: place.y, inward, height, right, left, behind: both, cut };
}

/** The station that is spoken of, on whichever edge; null where nothing is, or where the blade has no second edge. */
export function stationOn(
  field: Field,
  { u, edge }: { readonly u?: number; readonly edge?: "second" },
): Pick<Station, "x" | "y" | "inward"> | null {
  if (u === undefined) return null;
  return edge === "second" ? secondStationAt(field, u) : stationAt(field, u);
}

/** The station whose place on the second edge stands at x, mm from the junction; null where there is none. */
export function secondStationAtX(field: Field, x: number): SecondStation | null {
  const { second, spine } = field;
  if (!second || x < second.from || x > second.to) return null;
  const s = firstAtX(spine, x);
  if (s === null || s < second.sFrom || s > second.sTo) return null;
  return secondStationAt(field, (s - second.sFrom) / (second.sTo - second.sFrom));
}

const isSecond = (surface: Surface) => surface === SECOND || surface === SECOND_RUN_IN;

function readSide(field: Field, cut: Cut, side: Side): SecondReading {
  const surfaces = side === "right" ? cut.right : cut.left;
  const first = surfaces.findIndex(isSecond);
  if (first < 0 || surfaces.slice(0, first).some((surface) => surface !== SECOND_EDGE)) return NOTHING;
  let last = first;
  while (last + 1 < surfaces.length && isSecond(surfaces[last + 1]!)) last++;
  const [shoulder, grindLine] = [cut.breaks[first]!, cut.breaks[last + 1]!];
  const half = (s: number) => {
    field.sampleAt(cut.x + s * cut.dx, cut.y + s * cut.dy);
    return field[side].second;
  };
  const middle = (shoulder + grindLine) / 2;
  const isSharp = first > 0 || (field.blade.secondEdge?.angle[side] ?? 0) > 0;
  const behind = isSharp ? half(shoulder) : null;
  return {
    behind,
    edgeBevel: behind === null ? null : shoulder,
    grindLine,
    primaryAngle: atan((half(middle + STEP) - half(middle - STEP)) / (2 * STEP)),
  };
}

/** How much flat is left between both edges' bevels along a section square to the first, mm; 0 where they meet in a ridge, null without both. */
export function flatBetween({ cut }: Station, side: Side): number | null {
  const surfaces = cut[side];
  const last = surfaces.findLastIndex(isPrimary);
  const next = surfaces.findIndex((surface, i) => i > last && isSecond(surface));
  return last < 0 || next < 0 ? null : cut.breaks[next]! - cut.breaks[last + 1]!;
}

/** How far to either side a face is looked at for its slope, mm. */
const STEP = 1e-5;

/** What is drawn of a second edge on a blade's side: upper ends of its bevel and of its edge bevel. */
export interface SecondLines {
  readonly grindLine: PerSide<readonly Line[]>;
  readonly shoulder: PerSide<readonly Line[]>;
}

/** Its lines, read at so many stations; in its run-in they are left out. */
export function secondLines(field: Field, places = DRAWN_PLACES): SecondLines {
  const stations = secondStations(field, places);
  const isClear = ({ x, y, inward }: SecondStation, side: Side, up: number) => {
    const cut = field.second?.[side].cut;
    return !cut || pastStart(cut, x + up * inward[0], y + up * inward[1]) >= cut.radius;
  };
  const both = (of: "grindLine" | "edgeBevel"): PerSide<readonly Line[]> => {
    const on = (side: Side) =>
      runs(stations, (station) => {
        const up = station[side][of];
        return up !== null && isClear(station, side, up) ? up : null;
      });
    const right = on("right");
    return { right, left: field.alike ? right : on("left") };
  };
  return { grindLine: both("grindLine"), shoulder: both("edgeBevel") };
}

/** Stations spread evenly along a second edge; none where there is none. */
export function secondStations(field: Field, places: number): SecondStation[] {
  return Array.from({ length: places }, (_, i) => secondStationAt(field, (i + 0.5) / places)).filter(
    (station) => station !== null,
  );
}
