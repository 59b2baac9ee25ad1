import Delaunator from "delaunator";
import { cutAlong } from "./cut.ts";
import type { Field } from "./field.ts";
import { isInside, ringPoints, spansAt } from "./outline.ts";

/** A closed surface: x, y, z of each vertex, and three vertices a triangle, counter-clockwise from outside. */
export interface Mesh {
  readonly positions: Float64Array;
  readonly triangles: Uint32Array;
  /** Thickness at each vertex, mm, for colouring. */
  readonly thickness: Float32Array;
}

export interface MeshOptions {
  /** How far a flat facet may stray from the surface, mm. */
  readonly tolerance?: number;
  /** Called between rounds with a share of the work done, 0…1; throwing from it stops the work. */
  readonly onProgress?: (share: number) => void;
}

const TOLERANCE = 0.02;
/** Facets that all stray to one side shift the volume: splitting at a third of the tolerance keeps that small. */
const SPLIT_AT = 1 / 3;
/** Spacing of the cuts that look for creases, and of the points between them, mm. */
const CUT_SPACING = 1.5;
const FILL_SPACING = 4;
const ROUNDS = 7;
const MOST_POINTS = 60_000;
/** Below this no triangle is split: a wall in the surface would be split for ever, mm. */
const SHORTEST = 0.06;
/** Points this near the outline would only make slivers with it, mm. */
const CLEARANCE = 0.02;
/** What an inner place with no steel left keeps, so that both faces stay apart, mm a side. */
const SKIN = 1e-4;

interface Planar {
  readonly points: [number, number][];
  readonly edges: [number, number][];
  readonly taken: Set<string>;
}

/**
 * The blade as a watertight mesh. The side view is triangulated within its outline and holes, with points along
 * every crease that level and upright cuts find, refined until flat facets keep within the tolerance; both
 * faces stand on that plan and are sewn together along the outline. Where the edge comes to nothing the two
 * faces share their points, so the edge and the tip are closed.
 */
export function meshOf(
  field: Field,
  { tolerance = TOLERANCE, onProgress = () => {} }: MeshOptions = {},
): Mesh {
  const plan = outlinePlan(field, tolerance);
  addCreases(field, plan);
  addFilling(field, plan);
  let cells = triangulated(field, plan);
  for (let round = 0; round < ROUNDS && plan.points.length < MOST_POINTS; round++) {
    onProgress(round / ROUNDS);
    if (refine(field, plan, cells, tolerance * SPLIT_AT) === 0) break;
    cells = triangulated(field, plan);
  }
  onProgress(1);
  return sewn(field, plan, cells);
}

/**
 * Triangles of the plan: Delaunay's, with every stretch of the outline split until it is one of their sides, and
 * those outside the outline or in a hole left away.
 */
function triangulated(field: Field, plan: Planar): [number, number, number][] {
  const { points, edges } = plan;
  for (let pass = 0; ; pass++) {
    const { triangles } = Delaunator.from(points);
    const sides = new Set<number>();
    for (let i = 0; i < triangles.length; i++) {
      const [a, b] = [triangles[i]!, triangles[i % 3 === 2 ? i - 2 : i + 1]!];
      sides.add(a < b ? a * SIDE_KEY + b : b * SIDE_KEY + a);
    }
    const missing = edges.flatMap(([a, b], i) =>
      sides.has(a < b ? a * SIDE_KEY + b : b * SIDE_KEY + a) ? [] : [i],
    );
    if (missing.length === 0 || pass >= SPLITTING_PASSES) return inSteel(field, points, triangles);
    for (const i of missing) {
      const [from, to] = edges[i]!;
      const middle = add(
        plan,
        (points[from]![0] + points[to]![0]) / 2,
        (points[from]![1] + points[to]![1]) / 2,
      );
      edges[i] = [from, middle];
      edges.push([middle, to]);
    }
  }
}

const SIDE_KEY = 2 ** 26;
const SPLITTING_PASSES = 12;

function inSteel(field: Field, points: readonly (readonly [number, number])[], triangles: Uint32Array) {
  const holes = field.blade.holes ?? [];
  const cells: [number, number, number][] = [];
  for (let i = 0; i < triangles.length; i += 3) {
    const cell: [number, number, number] = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    const [a, b, c] = [points[cell[0]]!, points[cell[1]]!, points[cell[2]]!];
    const x = (a[0] + b[0] + c[0]) / 3;
    const y = (a[1] + b[1] + c[1]) / 3;
    if (holes.some((hole) => Math.hypot(x - hole.x, y - hole.y) < hole.d / 2)) continue;
    if (isInside(field.ring, x, y)) cells.push(cell);
  }
  return cells;
}

function keyOf(x: number, y: number): string {
  return `${Math.round(x * 200)},${Math.round(y * 200)}`;
}

function add(plan: Planar, x: number, y: number): number {
  plan.taken.add(keyOf(x, y));
  return plan.points.push([x, y]) - 1;
}

function outlinePlan(field: Field, tolerance: number): Planar {
  const plan: Planar = { points: [], edges: [], taken: new Set() };
  const loop = (ring: readonly (readonly [number, number])[]) => {
    const first = plan.points.length;
    ring.forEach(([x, y], i) => {
      const [nextX, nextY] = ring[(i + 1) % ring.length]!;
      const parts = Math.max(1, Math.ceil(Math.hypot(nextX - x, nextY - y) / FILL_SPACING));
      for (let k = 0; k < parts; k++) add(plan, x + ((nextX - x) * k) / parts, y + ((nextY - y) * k) / parts);
    });
    const count = plan.points.length - first;
    for (let i = 0; i < count; i++) plan.edges.push([first + i, first + ((i + 1) % count)]);
  };
  loop(ringPoints(field.ring));
  for (const { x, y, d } of field.blade.holes ?? []) {
    const r = d / 2;
    const sides = Math.max(24, Math.ceil(Math.PI / Math.acos(Math.max(0, 1 - tolerance / r))));
    loop(
      Array.from({ length: sides }, (_, i) => {
        const angle = (2 * Math.PI * i) / sides;
        return [x + r * Math.cos(angle), y + r * Math.sin(angle)] as const;
      }),
    );
  }
  return plan;
}

function isFree(field: Field, plan: Planar, x: number, y: number): boolean {
  if (plan.taken.has(keyOf(x, y)) || !isInside(field.ring, x, y)) return false;
  const holes = field.blade.holes ?? [];
  if (holes.some((hole) => Math.hypot(x - hole.x, y - hole.y) <= hole.d / 2)) return false;
  return !plan.edges.some(([a, b]) => isWithin(plan.points[a]!, plan.points[b]!, x, y, CLEARANCE));
}

/** Whether (x, y) lies nearer than `reach` to the stretch from a to b. */
function isWithin(
  [ax, ay]: readonly [number, number],
  [bx, by]: readonly [number, number],
  x: number,
  y: number,
  reach: number,
): boolean {
  if (x < Math.min(ax, bx) - reach || x > Math.max(ax, bx) + reach) return false;
  if (y < Math.min(ay, by) - reach || y > Math.max(ay, by) + reach) return false;
  const [ex, ey] = [bx - ax, by - ay];
  const share = Math.min(1, Math.max(0, ((x - ax) * ex + (y - ay) * ey) / (ex * ex + ey * ey)));
  return Math.hypot(ax + share * ex - x, ay + share * ey - y) < reach;
}

function addCreases(field: Field, plan: Planar): void {
  const { ring } = field;
  const put = (x: number, y: number) => {
    if (isFree(field, plan, x, y)) add(plan, x, y);
  };
  for (let x = ring.left + 0.37; x < ring.right; x += CUT_SPACING) {
    for (const [bottom, top] of spansAt(ring, x)) {
      const { breaks } = cutAlong(field, x, bottom, 0, 1, 0, top - bottom);
      for (const s of breaks.slice(1, -1)) put(x, bottom + s);
    }
  }
  for (let y = ring.bottom + 0.29; y < ring.top; y += CUT_SPACING) {
    const { breaks } = cutAlong(field, ring.left, y, 1, 0, 0, ring.right - ring.left);
    for (const s of breaks.slice(1, -1)) put(ring.left + s, y);
  }
}

function addFilling(field: Field, plan: Planar): void {
  const { ring } = field;
  const near = new Set(plan.points.map(([x, y]) => `${Math.round(x / 2)},${Math.round(y / 2)}`));
  for (let x = ring.left + 1.7; x < ring.right; x += FILL_SPACING) {
    for (let y = ring.bottom + 1.3; y < ring.top; y += FILL_SPACING) {
      if (!near.has(`${Math.round(x / 2)},${Math.round(y / 2)}`) && isFree(field, plan, x, y))
        add(plan, x, y);
    }
  }
}

/** Adds the worst place of every triangle whose facets stray too far. Returns how many were added. */
function refine(
  field: Field,
  plan: Planar,
  cells: readonly (readonly [number, number, number])[],
  tolerance: number,
): number {
  const { points } = plan;
  const heights = points.map(([x, y]) => {
    field.sampleAt(x, y);
    return [field.right.lowest, field.left.lowest] as const;
  });
  const boundary = new Map(plan.edges.map((edge, i) => [edgeKey(edge[0], edge[1]), i]));
  const wanted = new Map<string, { x: number; y: number; edge: number | undefined }>();
  for (const cell of cells) {
    const spots = [
      [1 / 3, 1 / 3, 1 / 3, -1],
      [0.5, 0.5, 0, 0],
      [0, 0.5, 0.5, 1],
      [0.5, 0, 0.5, 2],
    ] as [number, number, number, number][];
    const corner = cell.map((i) => points[i]!);
    const longest = Math.max(...[0, 1, 2].map((i) => apart(corner[i]!, corner[(i + 1) % 3]!)));
    if (longest < SHORTEST) continue;
    let worst = tolerance;
    let found: { x: number; y: number; edge: number | undefined } | null = null;
    for (const [a, b, c, side] of spots) {
      const x = a * corner[0]![0] + b * corner[1]![0] + c * corner[2]![0];
      const y = a * corner[0]![1] + b * corner[1]![1] + c * corner[2]![1];
      field.sampleAt(x, y);
      for (const [k, half] of [field.right.lowest, field.left.lowest].entries()) {
        const flat = a * heights[cell[0]]![k]! + b * heights[cell[1]]![k]! + c * heights[cell[2]]![k]!;
        const off = Math.abs(flat - half);
        if (off <= worst) continue;
        worst = off;
        const edge = side < 0 ? undefined : boundary.get(edgeKey(cell[side]!, cell[(side + 1) % 3]!));
        found = { x, y, edge };
      }
    }
    if (found) wanted.set(keyOf(found.x, found.y), found);
  }
  let added = 0;
  for (const { x, y, edge } of wanted.values()) {
    if (edge !== undefined) {
      const [from, to] = plan.edges[edge]!;
      if (apart(points[from]!, points[to]!) < SHORTEST) continue;
      const middle = add(plan, x, y);
      plan.edges[edge] = [from, middle];
      plan.edges.push([middle, to]);
      added++;
    } else if (isFree(field, plan, x, y)) {
      add(plan, x, y);
      added++;
    }
  }
  return added;
}

function edgeKey(a: number, b: number): string {
  return a < b ? `${a} ${b}` : `${b} ${a}`;
}

function apart(a: readonly [number, number], b: readonly [number, number]): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1]);
}

/** Both faces over one plan, walls where the outline has thickness, one shared point where it has none. */
function sewn(field: Field, { points }: Planar, all: readonly (readonly [number, number, number])[]): Mesh {
  const halves = points.map(([x, y]) => {
    field.sampleAt(x, y);
    return { right: field.right.lowest, left: field.left.lowest };
  });
  const isGone = (i: number) => halves[i]!.right + halves[i]!.left <= SKIN;
  const cells = all.filter((cell) => !cell.every(isGone));
  const uses = sideUses(cells);
  const onRim = new Set<number>();
  for (const [key, count] of uses) if (count === 1) for (const i of key.split(" ")) onRim.add(Number(i));
  // A side inside the plan with nothing at both its ends would be shared by four facets: one end keeps its skin.
  const keptApart = new Set<number>();
  for (const [key, count] of uses) {
    const [a, b] = key.split(" ").map(Number) as [number, number];
    const isPinched = count === 2 && [a, b].every((i) => isGone(i) && onRim.has(i) && !keptApart.has(i));
    if (isPinched) keptApart.add(a);
  }
  const isMerged = (i: number) => isGone(i) && onRim.has(i) && !keptApart.has(i);
  // All triangles turn one way; slivers whose own area is only rounding are turned with the rest.
  const isUpward = turning(points, cells) > 0;
  const positions: number[] = [];
  const thickness: number[] = [];
  const put = (x: number, y: number, z: number, t: number) => {
    thickness.push(t);
    return positions.push(x, y, z) / 3 - 1;
  };
  const face = new Map<number, { right: number; left: number }>();
  const vertex = (i: number) => {
    let made = face.get(i);
    if (made) return made;
    const [x, y] = points[i]!;
    const { right, left } = halves[i]!;
    const t = Math.max(0, right + left);
    const middle = (right - left) / 2;
    if (isMerged(i)) {
      const one = put(x, y, middle, 0);
      made = { right: one, left: one };
    } else {
      const half = Math.max(t / 2, SKIN);
      made = { right: put(x, y, middle + half, t), left: put(x, y, middle - half, t) };
    }
    face.set(i, made);
    return made;
  };
  const triangles: number[] = [];
  const triangle = (a: number, b: number, c: number) => {
    if (a !== b && b !== c && c !== a) triangles.push(a, b, c);
  };
  for (const cell of cells) {
    const [p, q, r] = isUpward ? cell : ([cell[0], cell[2], cell[1]] as const);
    const [a, b, c] = [vertex(p), vertex(q), vertex(r)];
    triangle(a.right, b.right, c.right);
    triangle(a.left, c.left, b.left);
    for (const [from, to] of [
      [p, q],
      [q, r],
      [r, p],
    ] as const) {
      if (uses.get(edgeKey(from, to)) !== 1) continue;
      const [f, t] = [vertex(from), vertex(to)];
      triangle(f.right, f.left, t.right);
      triangle(t.right, f.left, t.left);
    }
  }
  return {
    positions: Float64Array.from(positions),
    triangles: Uint32Array.from(triangles),
    thickness: Float32Array.from(thickness),
  };
}

/** How many triangles each side of the plan belongs to: one along the rim, two inside. */
function sideUses(cells: readonly (readonly [number, number, number])[]): Map<string, number> {
  const uses = new Map<string, number>();
  for (const cell of cells) {
    for (let k = 0; k < 3; k++) {
      const key = edgeKey(cell[k]!, cell[(k + 1) % 3]!);
      uses.set(key, (uses.get(key) ?? 0) + 1);
    }
  }
  return uses;
}

/** Twice the triangles' area together: positive when they turn counter-clockwise. */
function turning(
  points: readonly (readonly [number, number])[],
  cells: readonly (readonly [number, number, number])[],
): number {
  return cells.reduce((sum, cell) => {
    const [a, b, c] = [points[cell[0]]!, points[cell[1]]!, points[cell[2]]!];
    return sum + (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
  }, 0);
}
