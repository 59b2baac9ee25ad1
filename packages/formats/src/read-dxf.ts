import DxfParser, { type IEntity } from "dxf-parser";
import { assembled, MOST_PIECES, type Read } from "./contours.ts";
import type { Circle, Path, Piece, Point } from "./drawing.ts";

const LONGEST = 20_000_000;
/** Millimetres to each unit that a DXF's $INSUNITS may name. Source: the format's own table of insertion units. */
const UNITS: Readonly<Record<number, number>> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 25.4e-6,
  9: 0.0254,
  10: 914.4,
  13: 1e-3,
  14: 100,
};

/** The parts of the entities that are looked at; whatever a file says, each is checked before it is used. */
type Entity = IEntity & {
  vertices?: { x: number; y: number; bulge?: number }[];
  shape?: boolean;
  center?: { x: number; y: number };
  radius?: number;
  startAngle?: number;
  endAngle?: number;
  controlPoints?: { x: number; y: number }[];
  fitPoints?: { x: number; y: number }[];
  knotValues?: number[];
  degreeOfSplineCurve?: number;
  closed?: boolean;
  extrusionDirectionZ?: number;
};

/** Reads the outlines of a DXF: lines, arcs, circles, polylines with bulges and splines. The rest is told. */
export function readDxf(text: string): Read {
  if (text.length > LONGEST) return { ok: false, why: "The file is too long for a drawing of a blade." };
  if (/^[^\n]* Binary DXF/.test(text)) return { ok: false, why: "It is a binary DXF: save it as text." };
  let dxf: ReturnType<DxfParser["parseSync"]>;
  try {
    dxf = new DxfParser().parseSync(text);
  } catch (error) {
    return {
      ok: false,
      why: `It is not readable as DXF: ${error instanceof Error ? error.message : String(error)}.`,
    };
  }
  if (!dxf || !Array.isArray(dxf.entities))
    return { ok: false, why: "It is not readable as DXF: it has no entities." };
  const paths: Path[] = [];
  const circles: Circle[] = [];
  const passed = new Map<string, number>();
  let pieces = 0;
  for (const entity of dxf.entities as Entity[]) {
    const read = readEntity(entity);
    if (read === null) passed.set(entity.type, (passed.get(entity.type) ?? 0) + 1);
    else if ("diameter" in read) circles.push(read);
    else {
      const path = entity.extrusionDirectionZ === -1 ? mirrored(read) : read;
      pieces += path.pieces.length;
      if (pieces > MOST_PIECES) {
        return {
          ok: false,
          why: `It holds more than ${MOST_PIECES} pieces, too many for a blade's outline.`,
        };
      }
      paths.push(path);
    }
  }
  const notes = [...passed].map(
    ([type, count]) => `${count} of ${type} passed over: not a line of an outline.`,
  );
  const unit = UNITS[Number((dxf.header as Record<string, unknown> | undefined)?.$INSUNITS)] ?? null;
  return assembled(paths, circles, unit, notes);
}

const isNumber = (value: unknown): value is number => typeof value === "number" && Number.isFinite(value);
const isPoint = (value: unknown): value is { x: number; y: number } =>
  typeof value === "object" &&
  value !== null &&
  isNumber((value as { x?: unknown }).x) &&
  isNumber((value as { y?: unknown }).y);

function readEntity(entity: Entity): Path | Circle | null {
  switch (entity.type) {
    case "LINE":
    case "LWPOLYLINE":
    case "POLYLINE":
      return readPolyline(entity);
    case "CIRCLE":
      return isPoint(entity.center) && isNumber(entity.radius) && entity.radius > 0
        ? { at: [entity.center.x, entity.center.y], diameter: 2 * entity.radius }
        : null;
    case "ARC":
      return readArc(entity);
    case "SPLINE":
      return readSpline(entity);
    default:
      return null;
  }
}

function readPolyline({ vertices, shape, type }: Entity): Path | null {
  if (!vertices || vertices.length < 2 || !vertices.every(isPoint)) return null;
  const isClosed = type !== "LINE" && shape === true;
  const points = vertices.map(({ x, y }): Point => [x, y]);
  const ends = isClosed ? [...points.slice(1), points[0]!] : points.slice(1);
  const pieces = ends.flatMap((to, i) => {
    const bulge = vertices[i]!.bulge;
    return isNumber(bulge) && Math.abs(bulge) > 1e-9 ? bulged(points[i]!, to, bulge) : [{ to }];
  });
  return { start: points[0]!, pieces, isClosed };
}

/** An arc between two vertices. Source: the format: bulge is the tangent of a quarter of the arc's angle, + to the left. */
function bulged(from: Point, to: Point, bulge: number): Piece[] {
  const angle = 4 * Math.atan(bulge);
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const chord = Math.hypot(dx, dy);
  if (chord === 0) return [];
  const towards = (1 - bulge * bulge) / (4 * bulge);
  const centre: Point = [(from[0] + to[0]) / 2 - dy * towards, (from[1] + to[1]) / 2 + dx * towards];
  const start = Math.atan2(from[1] - centre[1], from[0] - centre[0]);
  const radius = Math.hypot(from[0] - centre[0], from[1] - centre[1]);
  const pieces = arc(centre, radius, start, angle);
  return [...pieces.slice(0, -1), { ...pieces[pieces.length - 1]!, to }];
}

/** A circular arc as cubics of at most a quarter turn. Source: handles of 4/3·tan(φ/4), which stray by under 0.03 %. */
function arc(centre: Point, radius: number, start: number, sweep: number): Piece[] {
  const count = Math.max(1, Math.ceil(Math.abs(sweep) / (Math.PI / 2) - 1e-9));
  const step = sweep / count;
  const handle = (4 / 3) * Math.tan(step / 4) * radius;
  const at = (angle: number): Point => [
    centre[0] + radius * Math.cos(angle),
    centre[1] + radius * Math.sin(angle),
  ];
  return Array.from({ length: count }, (_, i): Piece => {
    const [a, b] = [start + i * step, start + (i + 1) * step];
    const [from, to] = [at(a), at(b)];
    return {
      to,
      controls: [
        [from[0] - handle * Math.sin(a), from[1] + handle * Math.cos(a)],
        [to[0] + handle * Math.sin(b), to[1] - handle * Math.cos(b)],
      ],
    };
  });
}

/** Angles are in radians, counter-clockwise, as the parser gives them. */
function readArc({ center, radius, startAngle, endAngle }: Entity): Path | null {
  if (!isPoint(center) || !isNumber(radius) || !isNumber(startAngle) || !isNumber(endAngle) || radius <= 0)
    return null;
  let sweep = endAngle - startAngle;
  while (sweep <= 0) sweep += 2 * Math.PI;
  const centre: Point = [center.x, center.y];
  const start: Point = [centre[0] + radius * Math.cos(startAngle), centre[1] + radius * Math.sin(startAngle)];
  return { start, pieces: arc(centre, radius, startAngle, sweep), isClosed: false };
}

function readSpline({
  controlPoints,
  fitPoints,
  knotValues,
  degreeOfSplineCurve,
  closed,
}: Entity): Path | null {
  const degree = degreeOfSplineCurve ?? 3;
  if (!controlPoints?.length || !controlPoints.every(isPoint)) {
    if (!fitPoints || fitPoints.length < 2 || !fitPoints.every(isPoint)) return null;
    const points = fitPoints.map(({ x, y }): Point => [x, y]);
    return { start: points[0]!, pieces: points.slice(1).map((to) => ({ to })), isClosed: closed === true };
  }
  const knots = knotValues ?? [];
  const isSound =
    degree >= 1 &&
    degree <= 10 &&
    controlPoints.length > degree &&
    controlPoints.length <= 5000 &&
    knots.length === controlPoints.length + degree + 1 &&
    knots.every((knot, i) => isNumber(knot) && (i === 0 || knot >= knots[i - 1]!));
  if (!isSound) return null;
  const points = controlPoints.map(({ x, y }): Point => [x, y]);
  const at = (t: number, span: number) => deBoor(points, knots, degree, t, span);
  const pieces: Piece[] = [];
  let start: Point | null = null;
  for (let span = degree; span < points.length; span++) {
    const [from, to] = [knots[span]!, knots[span + 1]!];
    if (!(to > from)) continue;
    // Between two knots it is one polynomial: of degree three or less, four of its points give it exactly.
    const parts = degree <= 3 ? 1 : 4;
    for (let k = 0; k < parts; k++) {
      const t = (share: number) => from + ((to - from) * (k + share)) / parts;
      const [p0, p1, p2, p3] = [0, 1 / 3, 2 / 3, 1].map((share) => at(t(share), span)) as [
        Point,
        Point,
        Point,
        Point,
      ];
      start ??= p0;
      const control = (i: 0 | 1): [number, number] => [
        (-5 * p0[i] + 18 * p1[i] - 9 * p2[i] + 2 * p3[i]) / 6,
        (2 * p0[i] - 9 * p1[i] + 18 * p2[i] - 5 * p3[i]) / 6,
      ];
      const [xs, ys] = [control(0), control(1)];
      pieces.push({
        to: p3,
        controls: [
          [xs[0], ys[0]],
          [xs[1], ys[1]],
        ],
      });
    }
  }
  return start ? { start, pieces, isClosed: closed === true } : null;
}

/** A point of a B-spline within a knot span. Source: de Boor's recurrence. */
function deBoor(
  points: readonly Point[],
  knots: readonly number[],
  degree: number,
  t: number,
  span: number,
): Point {
  const d = Array.from({ length: degree + 1 }, (_, j) => [...points[span - degree + j]!] as [number, number]);
  for (let r = 1; r <= degree; r++) {
    for (let j = degree; j >= r; j--) {
      const low = knots[span - degree + j]!;
      const high = knots[span + 1 + j - r]!;
      const share = high > low ? (t - low) / (high - low) : 0;
      for (const i of [0, 1] as const) d[j]![i] = (1 - share) * d[j - 1]![i] + share * d[j]![i];
    }
  }
  return d[degree]!;
}

function mirrored({ start, pieces, isClosed }: Path): Path {
  const m = ([x, y]: Point): Point => [-x, y];
  return {
    start: m(start),
    pieces: pieces.map(
      ({ to, controls }): Piece =>
        controls ? { to: m(to), controls: [m(controls[0]), m(controls[1])] } : { to: m(to) },
    ),
    isClosed,
  };
}
