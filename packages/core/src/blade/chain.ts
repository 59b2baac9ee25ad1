import { dxAt, dyAt, type Segment, segmentBetween, speedAt, xAt, yAt } from "./bezier.ts";
import type { OutlineNode } from "./schema.ts";
import {
  type Asked,
  arcLength,
  intervalsFor,
  type Look,
  lookAlong,
  newFoot,
  ROW,
  rowOf,
} from "./search-rows.ts";

/**
 * An open chain of nodes, compiled: exact segments, and a fine polyline of intervals over them that answers
 * "which piece is near" quickly. Lengths are true arc lengths. Interval i runs over segment[i], t0[i]…t1[i].
 */
export interface Chain {
  readonly segments: readonly Segment[];
  /** For each curve, where to look for its nearest place; null for a straight segment. */
  readonly looks: readonly (Look | null)[];
  /** A row of `ROW` figures for each segment. */
  readonly figures: Float64Array;
  readonly length: number;
  readonly count: number;
  readonly segment: Int32Array;
  readonly t0: Float64Array;
  readonly t1: Float64Array;
  readonly x0: Float64Array;
  readonly y0: Float64Array;
  readonly x1: Float64Array;
  readonly y1: Float64Array;
  /** Arc length at the interval's ends, and the rate it grows at over the interval's own 0…1. */
  readonly s0: Float64Array;
  readonly s1: Float64Array;
  readonly v0: Float64Array;
  readonly v1: Float64Array;
  /** Where each segment's intervals begin; one more entry than segments. */
  readonly firstInterval: Int32Array;
  readonly startTangent: readonly [number, number];
  /** Written by `nearest`: the fields of one blade's stages ask the same places in turn. */
  readonly asked: Asked;
}

/** Compiles nodes into a chain. Nodes are taken as they are: at least two, none on top of its neighbour. */
export function compileChain(nodes: readonly OutlineNode[]): Chain {
  const segments = nodes.slice(1).map((node, i) => segmentBetween(nodes[i]!, node));
  const pieces = segments.map((curve) => intervalsFor(curve));
  const count = pieces.reduce((sum, n) => sum + n, 0);
  const of = () => new Float64Array(count);
  const segment = new Int32Array(count);
  const firstInterval = new Int32Array(segments.length + 1);
  const [t0, t1, x0, y0, x1, y1, s0, s1, v0, v1] = [
    of(),
    of(),
    of(),
    of(),
    of(),
    of(),
    of(),
    of(),
    of(),
    of(),
  ];
  let i = 0;
  let length = 0;
  segments.forEach((curve, k) => {
    const n = pieces[k]!;
    firstInterval[k + 1] = i + n;
    for (let j = 0; j < n; j++, i++) {
      const from = j / n;
      const to = (j + 1) / n;
      segment[i] = k;
      t0[i] = from;
      t1[i] = to;
      // Begun where the last one ended, to the last figure: no upright line falls between the two.
      x0[i] = i > 0 ? x1[i - 1]! : xAt(curve, from);
      y0[i] = i > 0 ? y1[i - 1]! : yAt(curve, from);
      x1[i] = xAt(curve, to);
      y1[i] = yAt(curve, to);
      v0[i] = speedAt(curve, from) / n;
      v1[i] = speedAt(curve, to) / n;
      s0[i] = length;
      length += curve.straight ? v0[i]! : arcLength(curve, from, to);
      s1[i] = length;
    }
  });
  const looks = segments.map((curve) => lookAlong(curve));
  const figures = new Float64Array(segments.length * ROW);
  segments.forEach((curve, k) => {
    figures.set(rowOf(curve, looks[k]!), k * ROW);
  });
  const startTangent = limitDirection(nodes[0]!, nodes[1]!);
  return {
    segments,
    looks,
    figures,
    length,
    count,
    segment,
    firstInterval,
    t0,
    t1,
    x0,
    y0,
    x1,
    y1,
    s0,
    s1,
    v0,
    v1,
    startTangent,
    asked: { ...newFoot(), px: Number.NaN, py: Number.NaN, segment: 0, t: 0.5 },
  };
}

/** Unit tangent at a chain's first node: toward the next control point that is somewhere else. */
function limitDirection(from: OutlineNode, to: OutlineNode): readonly [number, number] {
  const [x, y] = from.at;
  const controls = [
    [x + (from.ahead?.[0] ?? 0), y + (from.ahead?.[1] ?? 0)],
    [to.at[0] + (to.back?.[0] ?? 0), to.at[1] + (to.back?.[1] ?? 0)],
    to.at,
  ];
  for (const control of controls) {
    const dx = control[0]! - x;
    const dy = control[1]! - y;
    const size = Math.hypot(dx, dy);
    if (size > 1e-12) return [dx / size, dy / size];
  }
  return [1, 0];
}

/** Arc length from the chain's start to parameter t of segment k. */
export function lengthAt(chain: Chain, k: number, t: number): number {
  const first = chain.firstInterval[k]!;
  const pieces = chain.firstInterval[k + 1]! - first;
  const within = Math.min(pieces - 1, Math.floor(t * pieces));
  return lengthWithin(chain, first + within, t * pieces - within);
}

/** Arc length at a share of an interval: the cubic with the right lengths and rates at both ends. */
function lengthWithin(chain: Chain, i: number, w: number): number {
  const s0 = chain.s0[i]!;
  const rise = chain.s1[i]! - s0;
  const v0 = chain.v0[i]!;
  const v1 = chain.v1[i]!;
  return s0 + w * (v0 + w * (3 * rise - 2 * v0 - v1 + w * (v0 + v1 - 2 * rise)));
}

export interface PlaceOnChain {
  readonly x: number;
  readonly y: number;
  /** Unit tangent, in the chain's own direction. */
  readonly tx: number;
  readonly ty: number;
}

/** The place at arc length s, clamped to the chain, and the tangent there. */
export function placeAt(chain: Chain, s: number): PlaceOnChain {
  const { interval, w } = intervalAt(chain, s);
  return placeIn(chain, interval, w);
}

/** The interval that arc length s falls in, and the share of it. */
function intervalAt(chain: Chain, s: number): { interval: number; w: number } {
  const wanted = Math.min(chain.length, Math.max(0, s));
  let low = 0;
  let high = chain.count - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (chain.s1[middle]! < wanted) low = middle + 1;
    else high = middle;
  }
  const rise = chain.s1[low]! - chain.s0[low]!;
  let w = rise > 0 ? (wanted - chain.s0[low]!) / rise : 0;
  for (let step = 0; step < 6; step++) {
    const rate = (lengthWithin(chain, low, w + 1e-6) - lengthWithin(chain, low, w - 1e-6)) / 2e-6;
    if (!(rate > 0)) break;
    w = Math.min(1, Math.max(0, w + (wanted - lengthWithin(chain, low, w)) / rate));
  }
  return { interval: low, w };
}

function placeIn(chain: Chain, interval: number, w: number): PlaceOnChain {
  const curve = chain.segments[chain.segment[interval]!]!;
  const t0 = chain.t0[interval]!;
  const t1 = chain.t1[interval]!;
  const t = t0 + w * (t1 - t0);
  let tx = dxAt(curve, t);
  let ty = dyAt(curve, t);
  if (Math.hypot(tx, ty) < 1e-9) {
    tx = chain.x1[interval]! - chain.x0[interval]!;
    ty = chain.y1[interval]! - chain.y0[interval]!;
  }
  const size = Math.hypot(tx, ty) || 1;
  return { x: xAt(curve, t), y: yAt(curve, t), tx: tx / size, ty: ty / size };
}

/** Which segment the place at arc length s lies in, and at which parameter 0…1 of it; clamped to the chain. */
export function inSegmentAt(chain: Chain, s: number): { segment: number; t: number } {
  const { interval, w } = intervalAt(chain, s);
  const [t0, t1] = [chain.t0[interval]!, chain.t1[interval]!];
  return { segment: chain.segment[interval]!, t: t0 + w * (t1 - t0) };
}

/** The first place along the chain at abscissa x, as arc length; null where the chain never gets there. */
export function firstAtX(chain: Chain, x: number): number | null {
  for (let i = 0; i < chain.count; i++) {
    const from = chain.x0[i]!;
    const to = chain.x1[i]!;
    if ((from <= x && x <= to) || (to <= x && x <= from)) {
      const t = crossingX(chain, i, x);
      return lengthWithin(chain, i, (t - chain.t0[i]!) / (chain.t1[i]! - chain.t0[i]!));
    }
  }
  return null;
}

/** The share of a chain at which it first comes by x; null where it never does. */
export function shareAtX(chain: Chain, x: number): number | null {
  const s = firstAtX(chain, x);
  return s === null ? null : s / chain.length;
}

/** Parameter within interval i where the curve stands at x, given that its ends lie on either side. */
export function crossingX(chain: Chain, i: number, x: number): number {
  const curve = chain.segments[chain.segment[i]!]!;
  let low = chain.t0[i]!;
  let high = chain.t1[i]!;
  const rise = chain.x1[i]! - chain.x0[i]!;
  if (rise === 0) return low;
  let t = low + ((x - chain.x0[i]!) / rise) * (high - low);
  if (curve.straight) return t;
  for (let step = 0; step < 20; step++) {
    const off = xAt(curve, t) - x;
    if (off > 0 === rise > 0) high = t;
    else low = t;
    const next = t - off / dxAt(curve, t);
    const moved = next > low && next < high ? next : (low + high) / 2;
    if (Math.abs(moved - t) < 1e-14) return moved;
    t = moved;
  }
  return t;
}

/** The chain as points for drawing and for tests of crossing: both ends of every interval, in order. */
export function pointsOf(chain: Chain): [number, number][] {
  const points: [number, number][] = [];
  for (let i = 0; i < chain.count; i++) points.push([chain.x0[i]!, chain.y0[i]!]);
  points.push([chain.x1[chain.count - 1]!, chain.y1[chain.count - 1]!]);
  return points;
}
