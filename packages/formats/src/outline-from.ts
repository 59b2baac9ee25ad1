import type { Hole, Outline, OutlineNode } from "@true-spine/core/blade/schema.ts";
import type { ReadDrawing } from "./contours.ts";
import { type Circle, flattened, type Path, type Piece, type Point } from "./drawing.ts";
import { distance, reversed, signedArea } from "./path.ts";
import { CORNER, redrawn } from "./redrawn.ts";
import { splitAt } from "./split.ts";

/** How a drawing is laid on the blade's own axes: which run is the outline, how large, and which way round. */
export interface Laying {
  readonly contour: number;
  readonly mmPerUnit: number;
  /** Mirrored so that the tip points right, and so that the edge lies below. */
  readonly flipX: boolean;
  readonly flipY: boolean;
  /** Turned counter-clockwise after that, degrees. */
  readonly turn: number;
}

/** The three places that part an outline into spine, edge and tang, in the laid drawing's millimetres. */
export interface Marks {
  readonly junction: Point;
  readonly tip: Point;
  readonly heel: Point;
}

export interface Laid {
  /** Clockwise, closed, mm. */
  readonly path: Path;
  readonly holes: readonly Circle[];
  /** Gaps of the drawing that were closed with a straight line. */
  readonly gaps: readonly (readonly [Point, Point])[];
}

/** Lays a drawing out in millimetres. Small closed runs that are round, within the outline, count as holes. */
export function laid({ contours, circles, gaps }: ReadDrawing, laying: Laying): Laid {
  const { mmPerUnit, flipX, flipY, turn } = laying;
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  const at = ([x, y]: Point): Point => {
    const [u, v] = [(flipX ? -x : x) * mmPerUnit, (flipY ? -y : y) * mmPerUnit];
    return [u * cos - v * sin, u * sin + v * cos];
  };
  const moved = ({ start, pieces }: Path): Path => ({
    start: at(start),
    pieces: pieces.map(
      ({ to, controls }): Piece =>
        controls ? { to: at(to), controls: [at(controls[0]), at(controls[1])] } : { to: at(to) },
    ),
    isClosed: true,
  });
  const outline = moved(contours[laying.contour] ?? contours[0]!);
  const path = signedArea(outline) > 0 ? reversed(outline) : outline;
  const points = flattened(path, 0.05);
  const round = contours.flatMap((contour, i) => {
    const circle = i === laying.contour ? null : asCircle(moved(contour));
    return circle ? [circle] : [];
  });
  const given = circles.map(({ at: centre, diameter }) => ({
    at: at(centre),
    diameter: diameter * mmPerUnit,
  }));
  const holes = [...given, ...round].filter(({ at: centre }) => isWithin(centre, points));
  return { path, holes, gaps: gaps.map(([from, to]) => [at(from), at(to)] as const) };
}

/** How a drawing is turned for a line laid along it to be level, the shorter way round. Null for no line at all. */
export function levelled(laying: Laying, [from, to]: readonly [Point, Point]): Laying | null {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  if (dx === 0 && dy === 0) return null;
  const lean = (Math.atan(dy / dx) * 180) / Math.PI;
  const turn = laying.turn - lean;
  return { ...laying, turn: turn > 180 ? turn - 360 : turn <= -180 ? turn + 360 : turn };
}

/** A closed run that is a circle to a hundredth of its size; null where it is none. */
function asCircle(path: Path): Circle | null {
  const points = flattened(path, 0.01).slice(0, -1);
  const n = points.length;
  const centre: Point = [points.reduce((s, p) => s + p[0], 0) / n, points.reduce((s, p) => s + p[1], 0) / n];
  const radii = points.map((point) => distance(point, centre));
  const mean = radii.reduce((sum, r) => sum + r, 0) / n;
  const isRound = n > 8 && radii.every((r) => Math.abs(r - mean) < 0.02 * mean);
  return isRound ? { at: centre, diameter: 2 * mean } : null;
}

function isWithin([x, y]: Point, points: readonly Point[]): boolean {
  let inside = false;
  points.forEach(([ax, ay], i) => {
    const [bx, by] = points[(i + 1) % points.length]!;
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
  });
  return inside;
}

/** Corners of a closed path: where its direction breaks, with how sharply, degrees, + to the left. */
export function cornersOf(path: Path): { at: Point; turn: number }[] {
  const { pieces } = path;
  return pieces.flatMap((piece, i) => {
    const next = pieces[(i + 1) % pieces.length]!;
    const from = i === 0 ? path.start : pieces[i - 1]!.to;
    const arriving = direction(piece.controls ? [from, ...piece.controls, piece.to] : [from, piece.to], true);
    const leaving = direction(
      next.controls ? [piece.to, ...next.controls, next.to] : [piece.to, next.to],
      false,
    );
    const turn =
      (Math.atan2(
        arriving[0] * leaving[1] - arriving[1] * leaving[0],
        arriving[0] * leaving[0] + arriving[1] * leaving[1],
      ) *
        180) /
      Math.PI;
    return Math.abs(turn) > CORNER ? [{ at: piece.to, turn }] : [];
  });
}

function direction(points: readonly Point[], atEnd: boolean): Point {
  const run = atEnd ? [...points].reverse() : points;
  const other = run.find((point) => distance(point, run[0]!) > 1e-9) ?? run[run.length - 1]!;
  const v: Point = [other[0] - run[0]![0], other[1] - run[0]![1]];
  return atEnd ? [-v[0], -v[1]] : v;
}

/** A first guess at the three places, for the maker to confirm: the foremost point, the deepest corner, the spine above it. */
export function guessMarks(path: Path): Marks {
  const points = flattened(path, 0.05);
  const xs = points.map((point) => point[0]);
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const wide = right - left;
  const tip = points.reduce((best, point) => (point[0] > best[0] ? point : best));
  const corners = cornersOf(path)
    .map(({ at }) => at)
    .filter(([x]) => x > left + 0.2 * wide && x < right - 0.15 * wide);
  const below = corners.filter((at) => at[1] < spineAt(points, at[0]) - 1e-6);
  const heel =
    below.length > 0
      ? below.reduce((best, at) =>
          at[1] < best[1] - 0.5 || (at[1] < best[1] + 0.5 && at[0] < best[0]) ? at : best,
        )
      : lowestNear(points, left + 0.45 * wide);
  const behind = Math.max(2, 0.04 * wide);
  const x = Math.max(left + 0.05 * wide, heel[0] - behind);
  return { tip, heel, junction: [x, spineAt(points, x)] };
}

/** The upper side of a closed run at x. */
function spineAt(points: readonly Point[], x: number): number {
  const ys = crossings(points, x);
  return ys.length > 0 ? Math.max(...ys) : 0;
}

function lowestNear(points: readonly Point[], x: number): Point {
  const ys = crossings(points, x);
  return [x, ys.length > 0 ? Math.min(...ys) : 0];
}

function crossings(points: readonly Point[], x: number): number[] {
  return points.flatMap(([ax, ay], i) => {
    const [bx, by] = points[(i + 1) % points.length]!;
    return ax <= x !== bx <= x ? [ay + ((x - ax) / (bx - ax)) * (by - ay)] : [];
  });
}

export type Drawn =
  | { readonly ok: true; readonly outline: Outline; readonly holes: readonly Hole[] }
  | { readonly ok: false; readonly why: string };

/** Most nodes taken as they are; a chain of more is drawn again through fewer. */
const MOST_NODES = 60;

/**
 * Parts a laid outline at its marks into spine, edge and tang, with the junction at the origin. Chains of very
 * many points are drawn again as smooth curves within 0.02 mm of them.
 */
export function outlineFrom({ path, holes }: Laid, marks: Marks): Drawn {
  const cut = splitAt(path, [marks.junction, marks.tip, marks.heel]);
  if (!cut) return { ok: false, why: "Two of the three places are the same." };
  const [spine, fall, tang] = cut;
  const [jx, jy] = spine!.start;
  const home = ([x, y]: Point): [number, number] => [round(x - jx), round(y - jy)];
  const chain = (run: Path): OutlineNode[] =>
    nodesOf(run.pieces.length > MOST_NODES ? redrawn(run) : run, home);
  const outline = { spine: chain(spine!), edge: chain(reversed(fall!)), tang: chain(tang!) };
  if (outline.edge[0]!.at[1] >= 0) {
    return {
      ok: false,
      why: "The heel lies above the spine: turn the drawing over, or mark the places again.",
    };
  }
  if (!(outline.spine[outline.spine.length - 1]!.at[0] > 0)) {
    return {
      ok: false,
      why: "The tip lies behind the junction: mirror the drawing, or mark the places again.",
    };
  }
  const drilled = holes.map(({ at, diameter }) => {
    const [x, y] = home(at);
    return { x, y, d: round(diameter) };
  });
  return { ok: true, outline, holes: drilled };
}

function round(value: number): number {
  return Math.round(value * 1e4) / 1e4;
}

function nodesOf({ start, pieces }: Path, home: (at: Point) => [number, number]): OutlineNode[] {
  const nodes: OutlineNode[] = [{ at: home(start) }];
  const offset = (to: Point, from: Point): [number, number] => [
    round(to[0] - from[0]),
    round(to[1] - from[1]),
  ];
  let from = start;
  for (const { to, controls } of pieces) {
    const node: OutlineNode = { at: home(to) };
    if (controls) {
      nodes[nodes.length - 1]!.ahead = offset(controls[0], from);
      node.back = offset(controls[1], to);
    }
    nodes.push(node);
    from = to;
  }
  return nodes.filter((node, i) => i === 0 || distance(node.at, nodes[i - 1]!.at) > 2e-3);
}
