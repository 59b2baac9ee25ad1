import { cutAlong } from "./cut.ts";
import { type Field, thicknessAt } from "./field.ts";
import { FALSE_EDGE, isPrimary } from "./half.ts";
import { isInside, spansAt } from "./outline.ts";
import { type Ridge, ridgesOf } from "./ridge.ts";
import type { Side } from "./schema.ts";
import type { PlungeCut } from "./side.ts";
import { type PerSide, type Station, stationAt } from "./station.ts";

export type Line = readonly (readonly [number, number])[];

/** What is drawn on a blade's side: lines in the side view's own millimetres, y up. */
export interface DrawnLines {
  readonly stations: readonly Station[];
  /** Whether each station lies clear of the plunges' run-in, on both sides. */
  readonly clear: readonly boolean[];
  /** Upper end of the primary bevel, in runs broken where it is none, or is the spine itself. */
  readonly grindLine: PerSide<readonly Line[]>;
  /** Where the edge bevel ends. */
  readonly shoulder: PerSide<readonly Line[]>;
  /** Where faces meet at a corner of the edge. */
  readonly ridge: PerSide<readonly Line[]>;
  readonly plunge: PerSide<Line | null>;
  /** Where the false edge comes out of the flat or the bevel below it. */
  readonly falseEdge: PerSide<Line | null>;
}

export const DRAWN_PLACES = 36;

/** Reads a field at `places` stations along its edge and joins up what they say; `at` where they are kept already. */
export function drawnLines(
  field: Field,
  places = DRAWN_PLACES,
  at = (u: number) => stationAt(field, u),
): DrawnLines {
  const us = Array.from({ length: places }, (_, i) => (i + 0.5) / places);
  const stations = [0.001, ...us, 0.999].map(at);
  const both = <T>(of: (side: Side) => T): PerSide<T> => {
    const right = of("right");
    return { right, left: field.alike ? right : of("left") };
  };
  const ridges = ridgesOf(field);
  const inRunIn = (station: Station, side: Side) => {
    const cut = field.plunges[side];
    return cut !== null && !isClearOf(cut, station);
  };
  return {
    stations,
    clear: stations.map((station) => !inRunIn(station, "right") && !inRunIn(station, "left")),
    grindLine: both((side) =>
      toRidges(
        ridges[side],
        runs(stations, (station) => {
          const up = station[side].grindLine;
          if (up === null || station[side].endsAt === "spine" || inRunIn(station, side)) return null;
          return ridges[side].length === 0 || isOwn(field, station, up) ? up : null;
        }),
      ),
    ),
    shoulder: both((side) =>
      runs(stations, (station) => (inRunIn(station, side) ? null : station[side].edgeBevel)),
    ),
    ridge: { left: ridges.left.map(({ line }) => line), right: ridges.right.map(({ line }) => line) },
    plunge: both((side) => plungeLine(field, side, stations)),
    falseEdge: both((side) => falseEdgeLine(field, side)),
  };
}

/** How far along the edge the nearest place may lie from the station's own, mm. */
const OWN = 0.5;

/** Whether a height along a station is above the station's own place of the edge, and not past a ridge. */
function isOwn(field: Field, { x, y, u, inward }: Station, up: number): boolean {
  field.sampleAt(x + inward[0] * up, y + inward[1] * up);
  return Math.abs(field.foot.s - u * field.edge.length) < OWN;
}

/** Grind lines carried on to the ridges they end at. */
function toRidges(ridges: readonly Ridge[], lines: readonly Line[]): Line[] {
  return lines.map((line) => {
    const [first, last] = [line[0]!, line.at(-1)!];
    const before = ridges.find(({ tipward }) => isNear(tipward, first) && tipward[0] < first[0]);
    const after = ridges.find(({ heelward }) => isNear(heelward, last) && heelward[0] > last[0]);
    return [...(before ? [before.tipward] : []), ...line, ...(after ? [after.heelward] : [])];
  });
}

/** A grind line ends no further from its ridge than stations lie apart, and lean on a corner, mm. */
const NEAR = 25;
const isNear = (a: readonly [number, number], b: readonly [number, number]) =>
  Math.hypot(a[0] - b[0], a[1] - b[1]) < NEAR;

/** What stations say, as lines through the steel; a gap where one says nothing. */
export function runs<S extends Pick<Station, "x" | "y" | "inward">>(
  stations: readonly S[],
  height: (station: S) => number | null,
): Line[] {
  const lines: [number, number][][] = [];
  let open: [number, number][] | null = null;
  for (const station of stations) {
    const h = height(station);
    if (h === null) {
      open = null;
      continue;
    }
    if (!open) {
      open = [];
      lines.push(open);
    }
    open.push([station.x + station.inward[0] * h, station.y + station.inward[1] * h]);
  }
  return lines.filter((line) => line.length > 1);
}

const PLUNGE_ROWS = 10;

/**
 * The plunge as it is seen: from its foot up, where the bevel's run-in comes out of the flat. Traced along
 * level lines, so that a soft plunge shows its sweep; a hard one is the straight line it was drawn as.
 */
function plungeLine(field: Field, side: Side, stations: readonly Station[]): Line | null {
  const cut = field.plunges[side];
  if (!cut) return null;
  const clear = stations.find((station) => isClearOf(cut, station) && station[side].grindLine !== null);
  const toTop = (field.ring.top - cut.y) / cut.cos;
  const reach = clear ? Math.min(toTop, clear[side].grindLine! / cut.cos) : toTop;
  const start = Math.max(2 * (clear?.[side].edgeBevel ?? 0), reach * 0.08);
  const line: [number, number][] = [];
  for (let i = 0; i <= PLUNGE_ROWS; i++) {
    // From just above the shoulder to just short of the grind line, where a level line would only graze the bevel.
    const up = start + ((reach * 0.985 - start) * i) / PLUNGE_ROWS;
    const [x, y] = [cut.x + cut.sin * up, cut.y + cut.cos * up];
    const run = (cut.radius + 0.5) / cut.cos;
    const { breaks, ...surfaces } = cutAlong(field, x, y, 1, 0, -0.01, run);
    const first = surfaces[side].findIndex(isPrimary);
    if (first >= 0 && isInside(field.ring, x + breaks[first]!, y)) line.push([x + breaks[first]!, y]);
  }
  return line.length > 1 ? line : null;
}

/** What must be drawn between two heights where the faces are not straight between them: a step as one, where bevels meet in a ridge. */
function between(low: Faces, high: Faces, facesAt: (y: number) => Faces | null): Faces[] {
  if (high[0] - low[0] < STEP) return [];
  const middle = facesAt((low[0] + high[0]) / 2);
  if (!middle) return [];
  const strays = ([1, 2] as const).some((k) => Math.abs(middle[k] - (low[k] + high[k]) / 2) > STRAY);
  return strays ? [...between(low, middle, facesAt), middle, ...between(middle, high, facesAt)] : [];
}

const FALSE_EDGE_PLACES = 24;

/** Read down from the spine; null where there is none, or where it is not ground yet. */
function falseEdgeLine(field: Field, side: Side): Line | null {
  const { falseEdge } = field.blade;
  if (!falseEdge) return null;
  const line: [number, number][] = [];
  for (let i = 0; i <= FALSE_EDGE_PLACES; i++) {
    // A hair within both ends, so that each belongs to it.
    const share = Math.min(0.9999, Math.max(0.0001, i / FALSE_EDGE_PLACES));
    const x = falseEdge.from + (falseEdge.to - falseEdge.from) * share;
    const span = spansAt(field.ring, x).at(-1);
    if (!span) continue;
    const { breaks, ...surfaces } = cutAlong(field, x, span[1], 0, -1, 0, span[1] - span[0]);
    const end = surfaces[side].findIndex((surface) => surface !== FALSE_EDGE);
    if (end > 0) line.push([x, span[1] - breaks[end]!]);
  }
  return line.length > 1 ? line : null;
}

/** Whether a station's whole section lies past the run-in of a plunge. */
function isClearOf(cut: PlungeCut, station: Station): boolean {
  const v = (s: number) =>
    (station.x + station.inward[0] * s - cut.x) * cut.cos -
    (station.y + station.inward[1] * s - cut.y) * cut.sin;
  return v(0) >= cut.radius && v(station.height) >= cut.radius * 0.9;
}

/** How far a drawn section may stray from its faces, and how finely a step in them is looked for, mm. */
const STRAY = 0.01;
const STEP = 1e-3;

/** Of both faces at a height: right and left, from the centre plane. */
type Faces = readonly [y: number, right: number, left: number];

/** The section square to x, ready to draw: closed shapes of (z, y), right side +z, one for each span of steel. */
export function sectionShape(field: Field, x: number): Line[] {
  const facesAt = (y: number): Faces | null =>
    thicknessAt(field, x, y) > 0 ? [y, field.right.lowest, field.left.lowest] : null;
  return spansAt(field.ring, x).map(([bottom, top]) => {
    const { breaks } = cutAlong(field, x, bottom, 0, 1, 0, top - bottom);
    const faces: Faces[] = [];
    for (let i = 0; i + 1 < breaks.length; i++) {
      const [from, to] = [breaks[i]!, breaks[i + 1]!];
      const steps = Math.min(12, Math.max(2, Math.ceil((to - from) / 1.5)));
      for (let k = i === 0 ? 0 : 1; k <= steps; k++) {
        // A hair inside each piece, so that both ends belong to it.
        const s = Math.min(to - 1e-7, Math.max(from + 1e-7, from + ((to - from) * k) / steps));
        const next = facesAt(bottom + s);
        if (!next) continue;
        const last = faces.at(-1);
        if (last) faces.push(...between(last, next, facesAt));
        faces.push(next);
      }
    }
    const right = faces.map(([y, z]) => [z, y] as const);
    const left = faces.map(([y, , z]) => [-z, y] as const);
    return [...right, ...left.reverse()];
  });
}
