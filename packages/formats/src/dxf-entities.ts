import DxfParser, { type IEntity } from "dxf-parser";
import type { Circle, Path, Piece, Point } from "./drawing.ts";
import { bSpline, throughPoints } from "./dxf-spline.ts";
import { moved } from "./moved.ts";
import { roundPieces } from "./round.ts";

/** The parts of the entities that are looked at; whatever a file says, each is checked before it is used. */
export type Entity = IEntity & {
  vertices?: { x: number; y: number; bulge?: number }[];
  shape?: boolean;
  center?: { x: number; y: number };
  radius?: number;
  startAngle?: number;
  endAngle?: number;
  majorAxisEndPoint?: { x: number; y: number };
  axisRatio?: number;
  controlPoints?: { x: number; y: number }[];
  fitPoints?: { x: number; y: number }[];
  startTangent?: { x: number; y: number };
  endTangent?: { x: number; y: number };
  knotValues?: number[];
  weights?: number[];
  degreeOfSplineCurve?: number;
  closed?: boolean;
  extrusionDirectionX?: number;
  extrusionDirectionY?: number;
  extrusionDirectionZ?: number;
  extrusionDirection?: { x: number; y: number; z?: number };
  /** Of an insert. */
  name?: string;
  position?: { x: number; y: number };
  xScale?: number;
  yScale?: number;
  rotation?: number;
  columnCount?: number;
  rowCount?: number;
  columnSpacing?: number;
  rowSpacing?: number;
};

type Scanner = { next(): { code: number; value: unknown }; isEOF(): boolean };
type Put = (entity: Record<string, unknown>, value: unknown) => void;

const point =
  (name: string): Put =>
  (entity, x) => {
    entity[name] = { x };
  };
const set =
  (name: string): Put =>
  (entity, value) => {
    entity[name] = value;
  };
const add =
  (name: string): Put =>
  (entity, value) => {
    const list = entity[name] as unknown[] | undefined;
    if (list) list.push(value);
    else entity[name] = [value];
  };
/** The second coordinate of the point that was begun last under a name. */
const second =
  (name: string): Put =>
  (entity, y) => {
    const begun = entity[name];
    const last = (Array.isArray(begun) ? begun.at(-1) : begun) as { y?: unknown } | undefined;
    if (last) last.y = y;
  };
const COMMON: Readonly<Record<number, Put>> = {
  8: set("layer"),
  60: (entity, value) => {
    entity.visible = value === 0;
  },
  67: (entity, value) => {
    entity.inPaperSpace = value !== 0;
  },
  210: set("extrusionDirectionX"),
  220: set("extrusionDirectionY"),
  230: set("extrusionDirectionZ"),
};

/** A reader of one kind of entity by its group codes: of those that the parser leaves half read. Source: the format's own group codes. */
function handlerOf(kind: string, codes: Readonly<Record<number, Put>>) {
  return class {
    readonly ForEntityName = kind;
    parseEntity(scanner: Scanner, first: { code: number; value: unknown }) {
      const entity: Record<string, unknown> = { type: first.value };
      for (let group = scanner.next(); !scanner.isEOF() && group.code !== 0; group = scanner.next()) {
        (codes[group.code] ?? COMMON[group.code])?.(entity, group.value);
      }
      return entity;
    }
  };
}

/** What the parser would pass over without a word, and is no outline here either. */
const UNREAD = [
  "3DSOLID",
  "BODY",
  "HATCH",
  "HELIX",
  "IMAGE",
  "LEADER",
  "MESH",
  "MLINE",
  "MULTILEADER",
  "RAY",
  "REGION",
  "SHAPE",
  "SURFACE",
  "TOLERANCE",
  "TRACE",
  "WIPEOUT",
  "XLINE",
];

/** The parser, with weights and tangents of splines and the side that circles are seen from. */
export function dxfParser(): DxfParser {
  const parser = new DxfParser();
  const circle = handlerOf("CIRCLE", { 10: point("center"), 20: second("center"), 40: set("radius") });
  const spline = handlerOf("SPLINE", {
    10: (entity, x) => add("controlPoints")(entity, { x }),
    20: second("controlPoints"),
    11: (entity, x) => add("fitPoints")(entity, { x }),
    21: second("fitPoints"),
    12: point("startTangent"),
    22: second("startTangent"),
    13: point("endTangent"),
    23: second("endTangent"),
    40: add("knotValues"),
    41: add("weights"),
    70: (entity, value) => {
      entity.closed = (Number(value) & 1) !== 0;
    },
    71: set("degreeOfSplineCurve"),
  });
  const unread = UNREAD.map((kind) => handlerOf(kind, {}));
  for (const handler of [circle, spline, ...unread]) parser.registerEntityHandler(handler as never);
  return parser;
}

const isNumber = (value: unknown): value is number => typeof value === "number" && Number.isFinite(value);
export const isPoint = (value: unknown): value is { x: number; y: number } =>
  typeof value === "object" &&
  value !== null &&
  isNumber((value as { x?: unknown }).x) &&
  isNumber((value as { y?: unknown }).y);

/** Drawn in a plane of its own: what is seen from behind is turned over; what stands at another slant is in no side view. */
const PLANAR = ["ARC", "CIRCLE", "LWPOLYLINE", "POLYLINE", "INSERT"];
export function facing(entity: Entity): "front" | "behind" | "slant" {
  if (!PLANAR.includes(entity.type)) return "front";
  const { extrusionDirection: d } = entity;
  const [x, y, z] = [
    d?.x ?? entity.extrusionDirectionX ?? 0,
    d?.y ?? entity.extrusionDirectionY ?? 0,
    d?.z ?? entity.extrusionDirectionZ ?? 1,
  ];
  if (Math.hypot(x, y) > 1e-6 * Math.abs(z)) return "slant";
  return z < 0 ? "behind" : "front";
}

/** The outline that an entity is, or the hole; null where it is none. */
export function readEntity(entity: Entity): Path | Circle | null {
  const read = asDrawn(entity);
  return read && facing(entity) === "behind" ? moved(read, { a: -1, b: 0, c: 0, d: 1, e: 0, f: 0 }) : read;
}

function asDrawn(entity: Entity): Path | Circle | null {
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
    case "ELLIPSE":
      return readEllipse(entity);
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

const arc = (centre: Point, radius: number, start: number, sweep: number): Piece[] =>
  roundPieces(centre, [radius, radius], 0, start, sweep);

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

/** Angles are parameters, from the long axis; a whole turn is closed. Source: the format: an ellipse is a circle seen at a slant. */
function readEllipse({
  center,
  majorAxisEndPoint,
  axisRatio,
  startAngle = 0,
  endAngle = 2 * Math.PI,
}: Entity): Path | null {
  if (!isPoint(center) || !isPoint(majorAxisEndPoint) || !isNumber(axisRatio) || axisRatio <= 0) return null;
  if (!isNumber(startAngle) || !isNumber(endAngle)) return null;
  const { x, y } = majorAxisEndPoint;
  if (Math.hypot(x, y) === 0) return null;
  let sweep = endAngle - startAngle;
  while (sweep <= 1e-9) sweep += 2 * Math.PI;
  const isClosed = sweep > 2 * Math.PI - 1e-6;
  const start: Point = [Math.cos(startAngle), Math.sin(startAngle)];
  const round = { start, pieces: arc([0, 0], 1, startAngle, Math.min(sweep, 2 * Math.PI)), isClosed };
  return moved(round, { a: x, b: y, c: -y * axisRatio, d: x * axisRatio, e: center.x, f: center.y }) as Path;
}

function readSpline(entity: Entity): Path | null {
  const { controlPoints, fitPoints, knotValues = [], weights, degreeOfSplineCurve, closed } = entity;
  const isClosed = closed === true;
  if (!controlPoints?.length) {
    if (!fitPoints || fitPoints.length < 2 || !fitPoints.every(isPoint)) return null;
    const tangent = (value?: { x: number; y: number }): Point | undefined =>
      isPoint(value) ? [value.x, value.y] : undefined;
    return throughPoints(
      fitPoints.map(({ x, y }): Point => [x, y]),
      isClosed,
      { start: tangent(entity.startTangent), end: tangent(entity.endTangent) },
    );
  }
  if (!controlPoints.every(isPoint) || !knotValues.every(isNumber)) return null;
  if (weights && !weights.every(isNumber)) return null;
  return bSpline({
    points: controlPoints.map(({ x, y }): Point => [x, y]),
    weights: weights?.length ? weights : null,
    knots: knotValues,
    degree: degreeOfSplineCurve ?? 3,
    isClosed,
  });
}
