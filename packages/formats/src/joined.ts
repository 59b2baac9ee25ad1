import type { Path, Point } from "./drawing.ts";
import { distance, endOf, reversed, signedArea } from "./path.ts";

/** Loose paths put together: closed runs, what stays open, and the gaps that were closed on the way, each from end to end. */
export interface Joined {
  readonly closed: readonly Path[];
  readonly open: readonly Path[];
  readonly gaps: readonly (readonly [Point, Point])[];
}

/** A run of paths between two nodes. */
interface Edge {
  readonly from: number;
  readonly to: number;
  readonly path: Path;
}

/**
 * Joins open paths whose ends meet within `near`. Loose ends within `gap` of one another are joined by a straight line, the nearest first. Where more
 * than two meet, what leads nowhere is left open, and of what is left the run round the outside is the outline: a line across it never cuts it
 * in two. Near linear in their number.
 */
export function joined(paths: readonly Path[], near: number, gap: number): Joined {
  const nodes = new Nodes(near);
  const edges = paths.map((path): Edge => ({ from: nodes.at(path.start), to: nodes.at(endOf(path)), path }));
  const gaps: [Point, Point][] = [];
  for (const bridge of bridges(edges, nodes, gap)) {
    edges.push(bridge);
    gaps.push([bridge.path.start, endOf(bridge.path)]);
  }
  return { ...sorted(edges), gaps };
}

/** Points that are one, found by the cell they lie in. */
class Nodes {
  readonly points: Point[] = [];
  private readonly cells = new Map<string, number[]>();

  constructor(private readonly near: number) {}

  at(point: Point): number {
    for (const id of this.around(point)) if (distance(this.points[id]!, point) <= this.near) return id;
    const id = this.points.push(point) - 1;
    const key = this.cell(point).join();
    this.cells.set(key, [...(this.cells.get(key) ?? []), id]);
    return id;
  }

  private cell([x, y]: Point): [number, number] {
    return [Math.floor(x / this.near), Math.floor(y / this.near)];
  }

  private *around(point: Point): Generator<number> {
    const [i, j] = this.cell(point);
    for (let di = -1; di <= 1; di++) {
      for (let dj = -1; dj <= 1; dj++) yield* this.cells.get([i + di, j + dj].join()) ?? [];
    }
  }
}

/** Straight lines over the gaps between loose ends, the shortest first, each end once. */
function bridges(edges: readonly Edge[], nodes: Nodes, gap: number): Edge[] {
  const degree = degreesOf(edges);
  const loose = [...degree].flatMap(([id, count]) => (count === 1 ? [id] : []));
  const cell = (v: number) => Math.floor(v / gap);
  const cells = new Map<string, number[]>();
  const pairs: [number, number, number][] = [];
  for (const id of loose) {
    const point = nodes.points[id]!;
    const [i, j] = [cell(point[0]), cell(point[1])];
    for (let di = -1; di <= 1; di++) {
      for (let dj = -1; dj <= 1; dj++) {
        for (const other of cells.get(`${i + di},${j + dj}`) ?? []) {
          const apart = distance(point, nodes.points[other]!);
          if (apart <= gap) pairs.push([apart, id, other]);
        }
      }
    }
    const key = `${i},${j}`;
    cells.set(key, [...(cells.get(key) ?? []), id]);
  }
  const used = new Set<number>();
  // Both ends of a short line lie near each other too: such a line is not shut upon itself.
  const between = (a: number, b: number) => `${Math.min(a, b)} ${Math.max(a, b)}`;
  const ofOne = new Map(edges.map(({ from, to, path }) => [between(from, to), path]));
  return pairs
    .sort(([a], [b]) => a - b)
    .flatMap(([, a, b]): Edge[] => {
      const isShort = isStub(ofOne.get(between(a, b)), gap);
      if (used.has(a) || used.has(b) || isShort) return [];
      used.add(a).add(b);
      const path = { start: nodes.points[a]!, pieces: [{ to: nodes.points[b]! }], isClosed: false };
      return [{ from: a, to: b, path }];
    });
}

/** Whether the one path between two loose ends is hardly longer than the gap itself. */
function isStub(path: Path | undefined, gap: number): boolean {
  if (!path || path.pieces.length > 2) return false;
  const points = [path.start, ...path.pieces.flatMap(({ to, controls = [] }) => [...controls, to])];
  return points.slice(1).reduce((long, point, i) => long + distance(points[i]!, point), 0) <= 3 * gap;
}

function degreesOf(edges: readonly Edge[]): Map<number, number> {
  const degree = new Map<number, number>();
  for (const { from, to } of edges) {
    degree.set(from, (degree.get(from) ?? 0) + 1);
    degree.set(to, (degree.get(to) ?? 0) + 1);
  }
  return degree;
}

function incidentOf(edges: readonly Edge[]): Map<number, number[]> {
  const at = new Map<number, number[]>();
  for (const [i, { from, to }] of edges.entries()) {
    for (const node of from === to ? [from] : [from, to]) {
      const list = at.get(node);
      if (list) list.push(i);
      else at.set(node, [i]);
    }
  }
  return at;
}

/** What goes round, and what does not. */
function sorted(edges: readonly Edge[]): { closed: Path[]; open: Path[] } {
  const closed: Path[] = [];
  const open: Path[] = [];
  for (const part of parts(edges)) {
    const { rings, ends, knot } = untangled(part);
    const round = outside(knot);
    closed.push(...rings, ...round.closed);
    open.push(...ends, ...round.open);
  }
  return { closed, open };
}

/** Edges that hang together. */
function parts(edges: readonly Edge[]): Edge[][] {
  const at = incidentOf(edges);
  const seen = new Set<number>();
  const all: Edge[][] = [];
  for (let first = 0; first < edges.length; first++) {
    if (seen.has(first)) continue;
    seen.add(first);
    const part: Edge[] = [];
    const waiting = [first];
    while (waiting.length > 0) {
      const edge = edges[waiting.pop()!]!;
      part.push(edge);
      for (const node of [edge.from, edge.to]) {
        for (const next of at.get(node)!) {
          if (seen.has(next)) continue;
          seen.add(next);
          waiting.push(next);
        }
      }
    }
    all.push(part);
  }
  return all;
}

/** Runs through nodes where exactly two meet become one; what then closes on itself is a ring, what leads nowhere an end, the rest a knot. */
function untangled(part: readonly Edge[]): { rings: Path[]; ends: Path[]; knot: Edge[] } {
  const rings: Path[] = [];
  const ends: Path[] = [];
  let left = part;
  for (;;) {
    const runs = runsOf(left);
    const met = degreesOf(runs);
    const isRing = ({ from, to }: Edge) => from === to && met.get(from) === 2;
    rings.push(...runs.filter(isRing).map(({ path }) => path));
    const rest = runs.filter((run) => !isRing(run));
    const degree = degreesOf(rest);
    const isEnd = ({ from, to }: Edge) => degree.get(from) === 1 || degree.get(to) === 1;
    const leading = rest.filter(isEnd);
    ends.push(...leading.map(({ path }) => path));
    const kept = rest.filter((edge) => !isEnd(edge));
    if (leading.length === 0) return { rings, ends, knot: kept };
    left = kept;
  }
}

/** Longest runs through nodes where exactly two meet. */
function runsOf(edges: readonly Edge[]): Edge[] {
  const at = incidentOf(edges);
  const degree = degreesOf(edges);
  const used = new Set<number>();
  const walk = (first: number, start: number): Edge => {
    const pieces: Path["pieces"][number][] = [];
    let node = start;
    let next: number | undefined = first;
    let begin: Point | null = null;
    while (next !== undefined) {
      used.add(next);
      const edge: Edge = edges[next]!;
      const onward = edge.from === node ? edge.path : reversed(edge.path);
      begin ??= onward.start;
      pieces.push(...onward.pieces);
      node = edge.from === node ? edge.to : edge.from;
      next =
        degree.get(node) === 2 && node !== start ? at.get(node)!.find((one) => !used.has(one)) : undefined;
    }
    return { from: start, to: node, path: { start: begin!, pieces, isClosed: false } };
  };
  const runs: Edge[] = [];
  // From where more or fewer than two meet; then what is left goes round.
  for (const isRing of [false, true]) {
    for (const [node, incident] of at) {
      if ((degree.get(node) === 2) !== isRing) continue;
      for (const edge of incident) if (!used.has(edge)) runs.push(walk(edge, node));
    }
  }
  return runs;
}

/** A way along an edge, out of the node it begins at. */
interface Half {
  readonly edge: number;
  readonly from: number;
  readonly to: number;
  readonly path: Path;
  readonly angle: number;
}

/** The ring round the outside of what is knotted together, or those that a bridge holds together; all else stays open. */
function outside(knot: readonly Edge[]): { closed: Path[]; open: Path[] } {
  const halves = knot.flatMap(({ from, to, path }, edge): Half[] => {
    const back = reversed(path);
    return [
      { edge, from, to, path, angle: leaving(path) },
      { edge, from: to, to: from, path: back, angle: leaving(back) },
    ];
  });
  const out = new Map<number, Half[]>();
  for (const half of halves) out.set(half.from, [...(out.get(half.from) ?? []), half]);
  for (const list of out.values()) list.sort((a, b) => a.angle - b.angle);
  const seen = new Set<Half>();
  let best: { ring: Path; halves: Half[]; area: number } | null = null;
  for (const first of halves) {
    if (seen.has(first)) continue;
    const walk: Half[] = [];
    for (let half = first; !seen.has(half); half = after(half, out)) {
      seen.add(half);
      walk.push(half);
    }
    const ring: Path = {
      start: walk[0]!.path.start,
      pieces: walk.flatMap(({ path }) => path.pieces),
      isClosed: true,
    };
    const area = Math.abs(signedArea(ring));
    if (!best || area > best.area) best = { ring, halves: walk, area };
  }
  if (!best) return { closed: [], open: [] };
  // Gone along twice, it is a bridge between two rings and no part of an outline.
  const times = new Map<number, number>();
  for (const { edge } of best.halves) times.set(edge, (times.get(edge) ?? 0) + 1);
  const twice = knot.filter((_, edge) => times.get(edge) === 2);
  if (twice.length > 0) {
    const apart = sorted(knot.filter((_, edge) => times.get(edge) !== 2));
    return { closed: apart.closed, open: [...apart.open, ...twice.map(({ path }) => path)] };
  }
  return { closed: [best.ring], open: knot.filter((_, edge) => !times.has(edge)).map(({ path }) => path) };
}

/** At the end of a way the next one to the right: so a face is gone round, and that outside all of them too. */
function after(half: Half, out: ReadonlyMap<number, readonly Half[]>): Half {
  const list = out.get(half.to)!;
  const back = list.findIndex(
    ({ edge, from, to, path }) =>
      edge === half.edge && from === half.to && to === half.from && path !== half.path,
  );
  return list[(back + list.length - 1) % list.length]!;
}

/** The direction in which a path leaves, by where it is a little later: two that part tangent to one another still part. */
function leaving({ start, pieces }: Path): number {
  const { to, controls } = pieces[0]!;
  if (!controls) return Math.atan2(to[1] - start[1], to[0] - start[0]);
  const t = 0.05;
  const at = (i: 0 | 1) =>
    (1 - t) ** 3 * start[i] +
    3 * (1 - t) ** 2 * t * controls[0][i] +
    3 * (1 - t) * t * t * controls[1][i] +
    t ** 3 * to[i];
  return Math.atan2(at(1) - start[1], at(0) - start[0]);
}
