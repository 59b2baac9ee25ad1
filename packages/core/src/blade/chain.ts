import { bendOf, dxAt, dyAt, type Segment, segmentBetween, speedAt, xAt, yAt } from "./bezier.ts";
import { integrate } from "./quadrature.ts";
import type { OutlineNode } from "./schema.ts";

/** How far a chord may stray from its curve, mm: only a start for refinement on the curve itself. */
const CHORD_TOLERANCE = 0.002;
/** The same for the looks of the search for the nearest place, which only have to find the right dip. */
const LOOK_TOLERANCE = 0.1;

/** Points spread evenly in t along a curve, ends included. */
interface Look {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly spacing: number;
}

/**
 * What the search for the nearest place asks of each segment, in one row of plain numbers: the curve's own eight; where one dip is
 * sure to be the only one (see `reachOf`); the box that holds it.
 */
const ROW = 17;
const FAR = 8;
const FROM = 9;
const TO = 10;
const HEAD = 11;
const TAIL = 12;
const LEFT = 13;
const RIGHT = 14;
const BOTTOM = 15;
const TOP = 16;

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

/** Where a point's nearest place on a chain lies. */
export interface Foot {
  d: number;
  s: number;
  x: number;
  y: number;
}

export function newFoot(): Foot {
  return { d: 0, s: 0, x: 0, y: 0 };
}

/** What was asked of a chain last, and where on it the answer lay: where the next search begins. */
interface Asked extends Foot {
  px: number;
  py: number;
  segment: number;
  t: number;
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

/** Arc length by Gauss's rule, halved until both halves agree with the whole: cusps take a few halvings. */
function arcLength(curve: Segment, from: number, to: number, depth = 0): number {
  const speed = (t: number) => speedAt(curve, t);
  const middle = (from + to) / 2;
  const whole = integrate(speed, from, to, 4);
  const halves = integrate(speed, from, middle, 4) + integrate(speed, middle, to, 4);
  if (Math.abs(whole - halves) < 1e-9 || depth > 12) return halves;
  return arcLength(curve, from, middle, depth + 1) + arcLength(curve, middle, to, depth + 1);
}

function intervalsFor(curve: Segment, tolerance = CHORD_TOLERANCE): number {
  if (curve.straight) return 1;
  return Math.min(128, Math.max(8, Math.ceil(Math.sqrt(bendOf(curve) / (8 * tolerance)))));
}

function lookAlong(curve: Segment): Look | null {
  if (curve.straight) return null;
  const steps = intervalsFor(curve, LOOK_TOLERANCE);
  const x = Float64Array.from({ length: steps + 1 }, (_, i) => xAt(curve, i / steps));
  const y = Float64Array.from({ length: steps + 1 }, (_, i) => yAt(curve, i / steps));
  let spacing = 0;
  for (let i = 0; i < steps; i++)
    spacing = Math.max(spacing, Math.sqrt((x[i + 1]! - x[i]!) ** 2 + (y[i + 1]! - y[i]!) ** 2));
  return { x, y, spacing };
}

function rowOf(curve: Segment, look: Look | null): number[] {
  const { ax, bx, cx, dx, ay, by, cy, dy } = curve;
  const { far, from, to, head, tail } = reachOf(curve) ?? { far: 0, from: 0, to: 1, head: 0, tail: 0 };
  const box = look
    ? [
        Math.min(...look.x) - LOOK_TOLERANCE,
        Math.max(...look.x) + LOOK_TOLERANCE,
        Math.min(...look.y) - LOOK_TOLERANCE,
        Math.max(...look.y) + LOOK_TOLERANCE,
      ]
    : [0, 0, 0, 0];
  return [ax, bx, cx, dx, ay, by, cy, dy, far, from, to, head, tail, ...box];
}

/**
 * How far from a curve, mm, a place that is square to it at t in from…to is the only one of from…to that is as near; and how long
 * the curve is before and after that.
 */
interface Reach {
  readonly far: number;
  readonly from: number;
  readonly to: number;
  readonly head: number;
  readonly tail: number;
}

const BENDS_LOOKED_AT = 24;
/** Tighter bends than those looked at may lie between them: so much of the radius is counted on. */
const COUNTED_ON = 0.8;
/** At an end without a handle a curve sets off from rest, and may bend by any circle: so much of t is left out there. */
const LEFT_OUT = 1 / 16;

/**
 * A disc that touches a curve from one side, smaller than any circle the curve bends by, holds no other place of it, as long as the
 * curve turns by less than half a round. Source: W. Blaschke, Kreis und Kugel (1916), rolling theorem.
 */
function reachOf(curve: Segment): Reach | null {
  if (curve.straight) return null;
  const [from, to] = [0, 1].map((end) =>
    speedAt(curve, end) > 1e-6 ? end : end + (end === 0 ? LEFT_OUT : -LEFT_OUT),
  ) as [number, number];
  let tightest = 0;
  let turned = 0;
  let [beforeX, beforeY] = [0, 0];
  for (let i = 0; i <= BENDS_LOOKED_AT; i++) {
    const t = from + ((to - from) * i) / BENDS_LOOKED_AT;
    const [tx, ty] = [dxAt(curve, t), dyAt(curve, t)];
    const speed = Math.sqrt(tx * tx + ty * ty);
    if (speed < 1e-6) return null;
    const [bx, by] = [6 * curve.ax * t + 2 * curve.bx, 6 * curve.ay * t + 2 * curve.by];
    tightest = Math.max(tightest, Math.abs(tx * by - ty * bx) / speed ** 3);
    if (i > 0) turned += Math.abs(Math.atan2(beforeX * ty - beforeY * tx, beforeX * tx + beforeY * ty));
    [beforeX, beforeY] = [tx, ty];
  }
  if (turned > 0.9 * Math.PI) return null;
  const far = tightest > 0 ? COUNTED_ON / tightest : Number.POSITIVE_INFINITY;
  return { far, from, to, head: arcLength(curve, 0, from), tail: arcLength(curve, to, 1) };
}

/** Whether a dip at t, so far away squared, is the only one of its curve that is as near. */
function isOnlyDip(
  row: Float64Array,
  at: number,
  t: number,
  px: number,
  py: number,
  squared: number,
): boolean {
  const far = row[at + FAR]!;
  if (t < row[at + FROM]! || t > row[at + TO]! || squared >= far * far) return false;
  const head = row[at + HEAD]!;
  const tail = row[at + TAIL]!;
  if (head === 0 && tail === 0) return true;
  const d = Math.sqrt(squared);
  if (head > 0) {
    const ex = row[at + 3]! - px;
    const ey = row[at + 7]! - py;
    if (ex * ex + ey * ey <= (d + head) * (d + head)) return false;
  }
  if (tail > 0) {
    const ex = row[at]! + row[at + 1]! + row[at + 2]! + row[at + 3]! - px;
    const ey = row[at + 4]! + row[at + 5]! + row[at + 6]! + row[at + 7]! - py;
    if (ex * ex + ey * ey <= (d + tail) * (d + tail)) return false;
  }
  return true;
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

/**
 * The nearest place of the chain to (px, py), written into `foot`; ties go to the smaller arc length.
 *
 * Straight segments are projected on exactly. Along each curve the distances to its looks are scanned for
 * their two lowest dips, and Newton's method on the curve itself settles every dip that could still win.
 * Beginning where the last search ended, Newton's method alone settles what lies within the curve's reach.
 */
export function nearest(chain: Chain, px: number, py: number, foot: Foot): void {
  const { asked } = chain;
  if (px !== asked.px || py !== asked.py) seek(chain, px, py, asked);
  foot.d = asked.d;
  foot.s = asked.s;
  foot.x = asked.x;
  foot.y = asked.y;
}

function seek(chain: Chain, px: number, py: number, foot: Asked): void {
  const { looks, figures } = chain;
  const count = looks.length;
  let best = Number.POSITIVE_INFINITY;
  let bestSegment = 0;
  let bestT = 0;
  let sure = -1;
  const start = foot.segment * ROW;
  if (figures[start + FAR]! > 0) {
    const t = slid(figures, start, foot.t, px, py);
    if (t >= 0) {
      const distance = squaredTo(figures, start, t, px, py);
      if (isOnlyDip(figures, start, t, px, py, distance)) {
        best = distance;
        bestSegment = foot.segment;
        bestT = t;
        sure = bestSegment;
      }
    }
  }
  for (let k = 0; k < count; k++) {
    if (k === sure) continue;
    const at = k * ROW;
    const look = looks[k]!;
    if (look === null) {
      const cx = figures[at + 2]!;
      const cy = figures[at + 6]!;
      let t = ((px - figures[at + 3]!) * cx + (py - figures[at + 7]!) * cy) / (cx * cx + cy * cy);
      t = t > 0 ? (t < 1 ? t : 1) : 0;
      const distance = squaredTo(figures, at, t, px, py);
      if (distance < best || (distance === best && k < bestSegment)) {
        best = distance;
        bestSegment = k;
        bestT = t;
      }
      continue;
    }
    const gap = Math.max(figures[at + LEFT]! - px, px - figures[at + RIGHT]!, 0);
    const rise = Math.max(figures[at + BOTTOM]! - py, py - figures[at + TOP]!, 0);
    if (gap * gap + rise * rise > best) continue;
    const { x, y, spacing } = look;
    const last = x.length - 1;
    let before = Number.POSITIVE_INFINITY;
    let falling = true;
    let dip = 0;
    let lowest = Number.POSITIVE_INFINITY;
    let second = Number.POSITIVE_INFINITY;
    let secondDip = 0;
    for (let i = 0; i <= last + 1; i++) {
      let distance = Number.POSITIVE_INFINITY;
      if (i <= last) {
        const qx = x[i]! - px;
        const qy = y[i]! - py;
        distance = qx * qx + qy * qy;
      }
      if (distance < before) {
        falling = true;
      } else if (falling) {
        falling = false;
        if (before < lowest) {
          second = lowest;
          secondDip = dip;
          lowest = before;
          dip = i - 1;
        } else if (before < second) {
          second = before;
          secondDip = i - 1;
        }
      }
      before = distance;
    }
    const slack = spacing * spacing;
    for (let turn = 0; turn < 2; turn++) {
      if ((turn === 0 ? lowest : second) - slack > best) break;
      const from = turn === 0 ? dip : secondDip;
      const unsettled = turn === 0 ? lowest : second;
      let t = settle(figures, at, from, last, px, py);
      let distance = squaredTo(figures, at, t, px, py);
      if (distance > unsettled) {
        distance = unsettled;
        t = from / last;
      }
      if (distance < best || (distance === best && k < bestSegment)) {
        best = distance;
        bestSegment = k;
        bestT = t;
      }
    }
  }
  const at = bestSegment * ROW;
  foot.px = px;
  foot.py = py;
  foot.segment = bestSegment;
  foot.t = bestT;
  foot.x = ((figures[at]! * bestT + figures[at + 1]!) * bestT + figures[at + 2]!) * bestT + figures[at + 3]!;
  foot.y =
    ((figures[at + 4]! * bestT + figures[at + 5]!) * bestT + figures[at + 6]!) * bestT + figures[at + 7]!;
  foot.d = Math.sqrt(best);
  foot.s = lengthAt(chain, bestSegment, bestT);
}

function squaredTo(row: Float64Array, at: number, t: number, px: number, py: number): number {
  const ex = ((row[at]! * t + row[at + 1]!) * t + row[at + 2]!) * t + row[at + 3]! - px;
  const ey = ((row[at + 4]! * t + row[at + 5]!) * t + row[at + 6]!) * t + row[at + 7]! - py;
  return ex * ex + ey * ey;
}

const MOST_SLIDES = 8;
/** A last step so small leaves the square of it to go, and of the distance nothing. */
const NEAR_ENOUGH = 1e-6;

/** Newton's method from a place on the curve to a dip clear of both its ends; −1 where it does not get there. */
function slid(row: Float64Array, at: number, from: number, px: number, py: number): number {
  const ax = row[at]!;
  const bx = row[at + 1]!;
  const cx = row[at + 2]!;
  const dx = row[at + 3]!;
  const ay = row[at + 4]!;
  const by = row[at + 5]!;
  const cy = row[at + 6]!;
  const dy = row[at + 7]!;
  let t = from;
  for (let step = 0; step < MOST_SLIDES; step++) {
    const ex = ((ax * t + bx) * t + cx) * t + dx - px;
    const ey = ((ay * t + by) * t + cy) * t + dy - py;
    const tx = (3 * ax * t + 2 * bx) * t + cx;
    const ty = (3 * ay * t + 2 * by) * t + cy;
    const bend = tx * tx + ty * ty + ex * (6 * ax * t + 2 * bx) + ey * (6 * ay * t + 2 * by);
    if (!(bend > 0)) return -1;
    const moved = (ex * tx + ey * ty) / bend;
    t -= moved;
    if (!(t > 0 && t < 1)) return -1;
    if (moved < NEAR_ENOUGH && moved > -NEAR_ENOUGH) return t;
  }
  return -1;
}

/** A step of Newton's method after which the next would be lost in rounding: each doubles the figures that are right. */
const SETTLED = 1e-8;

/** Newton's method on the curve from look i of 0…last, kept between its neighbours by halving. */
function settle(row: Float64Array, at: number, i: number, last: number, px: number, py: number): number {
  const ax = row[at]!;
  const bx = row[at + 1]!;
  const cx = row[at + 2]!;
  const dx = row[at + 3]!;
  const ay = row[at + 4]!;
  const by = row[at + 5]!;
  const cy = row[at + 6]!;
  const dy = row[at + 7]!;
  let low = i > 0 ? (i - 1) / last : 0;
  let high = i < last ? (i + 1) / last : 1;
  let t = i / last;
  for (let step = 0; step < 50; step++) {
    const ex = ((ax * t + bx) * t + cx) * t + dx - px;
    const ey = ((ay * t + by) * t + cy) * t + dy - py;
    const tx = (3 * ax * t + 2 * bx) * t + cx;
    const ty = (3 * ay * t + 2 * by) * t + cy;
    const along = ex * tx + ey * ty;
    const bend = tx * tx + ty * ty + ex * (6 * ax * t + 2 * bx) + ey * (6 * ay * t + 2 * by);
    if (bend > 0 && ((t === 0 && along >= 0) || (t === 1 && along <= 0))) return t;
    // An end that is no dip, or only just, is left inward: the look's own distance is still there to fall back on.
    if ((along > 0 && t > 0) || t === 1) high = t;
    else low = t;
    const newton = bend > 0 ? t - along / bend : low - 1;
    const next = newton >= low && newton <= high ? newton : (low + high) / 2;
    const moved = next - t;
    t = next;
    if (moved < SETTLED && moved > -SETTLED) break;
  }
  return t;
}

/** Arc length from the chain's start to parameter t of segment k. */
function lengthAt(chain: Chain, k: number, t: number): number {
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
  return placeIn(chain, low, w);
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
