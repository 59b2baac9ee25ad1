import { dxAt, dyAt, xAt, xExtremes, yAt } from "./bezier.ts";
import { type Chain, compileChain, crossingX, pointsOf } from "./chain.ts";
import type { Outline, OutlineNode } from "./schema.ts";

/** How nearly the three chains must meet, mm. They are snapped together before anything is computed. */
export const CLOSING_TOLERANCE = 0.001;

/** The closed outline of the blade's side view: spine, edge and tang as compiled chains. */
export interface Ring {
  readonly spine: Chain;
  readonly edge: Chain;
  readonly tang: Chain;
  readonly chains: readonly Chain[];
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
  /** Which intervals of each chain may be met by an upright line, by strips of x. */
  readonly strips: Strips;
}

/** Strips of one width from the left: for each chain the intervals that reach into it, in order. */
interface Strips {
  readonly from: number;
  readonly width: number;
  readonly of: readonly (readonly Int32Array[])[];
}

const STRIPS = 96;
const NOTHING = new Int32Array();

function stripsOf(chains: readonly Chain[], left: number, right: number): Strips {
  const width = (right - left) / STRIPS;
  const of = chains.map(({ x0, x1, count }) => {
    const lists: number[][] = Array.from({ length: STRIPS }, () => []);
    for (let i = 0; i < count; i++) {
      const [low, high] = x0[i]! < x1[i]! ? [x0[i]!, x1[i]!] : [x1[i]!, x0[i]!];
      const last = Math.min(STRIPS - 1, Math.floor((high - left) / width));
      for (let k = Math.max(0, Math.floor((low - left) / width)); k <= last; k++) lists[k]!.push(i);
    }
    return lists.map((list) => Int32Array.from(list));
  });
  return { from: left, width, of };
}

/** The intervals of a chain, by its number, that an upright line at x may meet. */
function reachingTo({ from, width, of }: Strips, chain: number, x: number): Int32Array {
  const k = Math.floor((x - from) / width);
  return of[chain]![Math.min(STRIPS - 1, Math.max(0, k))] ?? NOTHING;
}

const rings = new WeakMap<Outline, Ring>();

/**
 * Compiles an outline whose chains meet within the closing tolerance. Remembered by identity: an outline is
 * never changed once it has been compiled, and most edits leave it alone.
 */
export function compileRing(outline: Outline): Ring {
  let ring = rings.get(outline);
  if (!ring) {
    ring = compiled(outline);
    rings.set(outline, ring);
  }
  return ring;
}

function compiled(outline: Outline): Ring {
  const tip = outline.spine[outline.spine.length - 1]!.at;
  const heel = outline.edge[0]!.at;
  const junction = outline.spine[0]!.at;
  const spine = compileChain(outline.spine);
  const edge = compileChain(withEnds(outline.edge, heel, tip));
  const tang = compileChain(withEnds(outline.tang, heel, junction));
  const chains = [spine, edge, tang];
  const extremes = chains.flatMap((chain) =>
    chain.segments.flatMap((s) => xExtremes(s).map((t) => xAt(s, t))),
  );
  let left = Math.min(...extremes, Number.POSITIVE_INFINITY);
  let right = Math.max(...extremes, Number.NEGATIVE_INFINITY);
  let bottom = Number.POSITIVE_INFINITY;
  let top = Number.NEGATIVE_INFINITY;
  for (const { x0, x1, y0, y1, count } of chains) {
    for (let i = 0; i < count; i++) {
      left = Math.min(left, x0[i]!, x1[i]!);
      right = Math.max(right, x0[i]!, x1[i]!);
      bottom = Math.min(bottom, y0[i]!, y1[i]!);
      top = Math.max(top, y0[i]!, y1[i]!);
    }
  }
  return {
    spine,
    edge,
    tang,
    chains,
    strips: stripsOf(chains, left, right),
    left,
    right,
    bottom,
    top,
  };
}

function withEnds(
  nodes: readonly OutlineNode[],
  first: [number, number],
  last: [number, number],
): OutlineNode[] {
  return nodes.map((node, i) =>
    i === 0 ? { ...node, at: first } : i === nodes.length - 1 ? { ...node, at: last } : node,
  );
}

/** Where the vertical at x passes through steel: pairs of y, bottom and top, lowest pair first. */
export function spansAt(ring: Ring, x: number): [number, number][] {
  const heights: number[] = [];
  for (const [k, chain] of ring.chains.entries()) {
    const { x0, x1 } = chain;
    for (const i of reachingTo(ring.strips, k, x)) {
      if (x0[i]! <= x === x1[i]! <= x) continue;
      heights.push(yAt(chain.segments[chain.segment[i]!]!, crossingX(chain, i, x)));
    }
  }
  heights.sort((a, b) => a - b);
  const spans: [number, number][] = [];
  for (let i = 0; i + 1 < heights.length; i += 2) {
    if (heights[i + 1]! > heights[i]!) spans.push([heights[i]!, heights[i + 1]!]);
  }
  return spans;
}

/** Whether a point lies inside the outline, to the polyline's micron. */
export function isInside(ring: Ring, x: number, y: number): boolean {
  let inside = false;
  for (const [k, chain] of ring.chains.entries()) {
    const { x0, x1, y0, y1 } = chain;
    for (const i of reachingTo(ring.strips, k, x)) {
      if (x0[i]! <= x === x1[i]! <= x) continue;
      const crossing = y0[i]! + ((x - x0[i]!) / (x1[i]! - x0[i]!)) * (y1[i]! - y0[i]!);
      if (crossing > y) inside = !inside;
    }
  }
  return inside;
}

/**
 * How far a ray from (x, y) along the unit vector (dx, dy) goes before it first leaves the outline. Crossings
 * nearer than `beyond` are the start itself. Returns 0 where the ray never comes out.
 */
export function exitAlong(ring: Ring, x: number, y: number, dx: number, dy: number, beyond = 1e-6): number {
  const { chains, strips } = ring;
  let first = Number.POSITIVE_INFINITY;
  let k = Math.min(STRIPS - 1, Math.max(0, Math.floor((x - strips.from) / strips.width)));
  while (k >= 0 && k < STRIPS) {
    for (let c = 0; c < chains.length; c++) {
      const chain = chains[c]!;
      const { x0, x1, y0, y1 } = chain;
      for (const i of strips.of[c]![k]!) {
        const from = (x0[i]! - x) * dy - (y0[i]! - y) * dx;
        const to = (x1[i]! - x) * dy - (y1[i]! - y) * dx;
        if (from <= 0 === to <= 0) continue;
        const along = alongAtCrossing(chain, i, x, y, dx, dy, from, to);
        if (along > beyond && along < first) first = along;
      }
    }
    // What is met before the strip's own end is the first; a line straight up meets nothing elsewhere.
    if (dx === 0 || first <= (strips.from + (k + (dx > 0 ? 1 : 0)) * strips.width - x) / dx) break;
    k += dx > 0 ? 1 : -1;
  }
  return Number.isFinite(first) ? first : 0;
}

function alongAtCrossing(
  chain: Chain,
  i: number,
  x: number,
  y: number,
  dx: number,
  dy: number,
  from: number,
  to: number,
): number {
  const curve = chain.segments[chain.segment[i]!]!;
  let low = chain.t0[i]!;
  let high = chain.t1[i]!;
  let offLow = from;
  let offHigh = to;
  let t = low;
  for (let step = 0; step < 40; step++) {
    t = step % 3 === 2 ? (low + high) / 2 : low + (offLow / (offLow - offHigh)) * (high - low);
    const off = (xAt(curve, t) - x) * dy - (yAt(curve, t) - y) * dx;
    if (Math.abs(off) < 1e-10 || curve.straight) break;
    if (off > 0 === offLow > 0) {
      low = t;
      offLow = off;
    } else {
      high = t;
      offHigh = off;
    }
  }
  return (xAt(curve, t) - x) * dx + (yAt(curve, t) - y) * dy;
}

/** Abscissas where the outline's own shape changes: nodes and turning places, for cutting up integrals. */
export function breaksInX(ring: Ring): number[] {
  return ring.chains.flatMap((chain) =>
    chain.segments.flatMap((s) => [xAt(s, 0), xAt(s, 1), ...xExtremes(s).map((t) => xAt(s, t))]),
  );
}

/** Abscissas where the outline stands upright on a curve, so that a section's height starts like a root. */
export function uprightPlaces(ring: Ring): number[] {
  return ring.chains.flatMap((chain) =>
    chain.segments.flatMap((s) => {
      if (s.straight) return [];
      const isUpright = (t: number) => Math.abs(dxAt(s, t)) < 0.02 * Math.abs(dyAt(s, t));
      return [...xExtremes(s), ...[0, 1].filter(isUpright)].map((t) => xAt(s, t));
    }),
  );
}

/** The whole outline as one closed run of points: junction, spine, tip, edge back to the heel, tang. */
export function ringPoints(ring: Ring): [number, number][] {
  const spine = pointsOf(ring.spine);
  const edge = pointsOf(ring.edge).reverse();
  const tang = pointsOf(ring.tang);
  return [...spine, ...edge.slice(1), ...tang.slice(1, -1)];
}
