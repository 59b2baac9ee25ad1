import { compileField } from "@true-spine/core/blade/field.ts";
import { drawnLines, type Line } from "@true-spine/core/blade/lines.ts";
import type { Blade, Outline, OutlineNode, Side } from "@true-spine/core/blade/schema.ts";
import { secondLines } from "@true-spine/core/blade/second-station.ts";

/** What is drawn of a blade on paper or for a cutting service: its own millimetres, y up, seen from the right. */
export type Point = readonly [number, number];

/** A straight or cubic piece from where the one before it ends. */
export interface Piece {
  readonly to: Point;
  readonly controls?: readonly [Point, Point];
}

export interface Path {
  readonly start: Point;
  readonly pieces: readonly Piece[];
  readonly isClosed: boolean;
}

export interface Circle {
  readonly at: Point;
  readonly diameter: number;
}

export const LAYERS = [
  "OUTLINE",
  "HOLES",
  "GRIND_RIGHT",
  "GRIND_LEFT",
  "SHOULDER_RIGHT",
  "SHOULDER_LEFT",
  "RIDGE_RIGHT",
  "RIDGE_LEFT",
  "PLUNGE_RIGHT",
  "PLUNGE_LEFT",
  "SECOND_GRIND_RIGHT",
  "SECOND_GRIND_LEFT",
  "SECOND_SHOULDER_RIGHT",
  "SECOND_SHOULDER_LEFT",
  "FALSE_EDGE_RIGHT",
  "FALSE_EDGE_LEFT",
  "DATUM",
] as const;
export type LayerName = (typeof LAYERS)[number];

export interface Layer {
  readonly name: LayerName;
  readonly paths: readonly Path[];
  readonly circles: readonly Circle[];
}

export interface Drawing {
  readonly name: string;
  readonly layers: readonly Layer[];
  readonly box: {
    readonly left: number;
    readonly right: number;
    readonly bottom: number;
    readonly top: number;
  };
}

const PLACES = 120;

/** Outline, holes, grind lines, shoulders and plunges of both sides, and the datum, each on a layer of its own. */
export function drawingOf(blade: Blade): Drawing {
  const field = compileField(blade);
  const lines = drawnLines(field, PLACES);
  const second = secondLines(field, PLACES);
  const { left, right, bottom, top } = field.ring;
  const layer = (name: LayerName, paths: readonly Path[], circles: readonly Circle[] = []): Layer => ({
    name,
    paths,
    circles,
  });
  const ofSide = (side: Side, suffix: "RIGHT" | "LEFT") => [
    layer(`GRIND_${suffix}`, lines.grindLine[side].map(polyline)),
    layer(`SHOULDER_${suffix}`, lines.shoulder[side].map(polyline)),
    layer(`RIDGE_${suffix}`, lines.ridge[side].map(polyline)),
    layer(`PLUNGE_${suffix}`, lines.plunge[side] ? [polyline(lines.plunge[side])] : []),
    layer(`SECOND_GRIND_${suffix}`, second.grindLine[side].map(polyline)),
    layer(`SECOND_SHOULDER_${suffix}`, second.shoulder[side].map(polyline)),
    layer(`FALSE_EDGE_${suffix}`, lines.falseEdge[side] ? [polyline(lines.falseEdge[side])] : []),
  ];
  const holes = (blade.holes ?? []).map(({ x, y, d }): Circle => ({ at: [x, y], diameter: d }));
  const datum: Path = { start: [left, 0], pieces: [{ to: [right, 0] }], isClosed: false };
  return {
    name: blade.name,
    layers: [
      layer("OUTLINE", [outlinePath(blade.outline)]),
      layer("HOLES", [], holes),
      ...ofSide("right", "RIGHT"),
      ...ofSide("left", "LEFT"),
      layer("DATUM", [datum]),
    ].filter(({ paths, circles }) => paths.length + circles.length > 0),
    box: { left, right, bottom, top },
  };
}

/** Round the blade once, from the junction over spine, tip, edge, heel and tang. The curves are the blade's own. */
export function outlinePath({ spine, edge, tang }: Outline): Path {
  const pieces = [...along(spine), ...along([...edge].reverse().map(turned)), ...along(tang)];
  return { start: spine[0]!.at, pieces, isClosed: true };
}

function turned({ at, back, ahead }: OutlineNode): OutlineNode {
  return { at, ...(ahead ? { back: ahead } : {}), ...(back ? { ahead: back } : {}) };
}

function along(nodes: readonly OutlineNode[]): Piece[] {
  return nodes.slice(1).map((node, i) => {
    const from = nodes[i]!;
    if (!from.ahead && !node.back) return { to: node.at };
    const plus = (at: Point, offset: Point = [0, 0]): Point => [at[0] + offset[0], at[1] + offset[1]];
    return { to: node.at, controls: [plus(from.at, from.ahead), plus(node.at, node.back)] };
  });
}

function polyline(line: Line): Path {
  return { start: line[0]!, pieces: line.slice(1).map((to) => ({ to })), isClosed: false };
}

/** A path as points, straying nowhere more than `tolerance` mm from its curves. */
export function flattened({ start, pieces }: Path, tolerance: number): Point[] {
  const points: Point[] = [start];
  let from = start;
  for (const { to, controls } of pieces) {
    if (controls) {
      const [a, b] = controls;
      const bend = Math.max(
        Math.hypot(from[0] - 2 * a[0] + b[0], from[1] - 2 * a[1] + b[1]),
        Math.hypot(a[0] - 2 * b[0] + to[0], a[1] - 2 * b[1] + to[1]),
      );
      // A chord of a curve whose second derivative is at most M strays by M/8 of its step squared.
      const steps = Math.max(1, Math.ceil(Math.sqrt((6 * bend) / (8 * tolerance))));
      for (let i = 1; i < steps; i++) points.push(onCubic(from, a, b, to, i / steps));
    }
    points.push(to);
    from = to;
  }
  return points;
}

function onCubic(from: Point, a: Point, b: Point, to: Point, t: number): Point {
  const s = 1 - t;
  const at = (k: 0 | 1) =>
    s * s * s * from[k] + 3 * s * s * t * a[k] + 3 * s * t * t * b[k] + t * t * t * to[k];
  return [at(0), at(1)];
}
