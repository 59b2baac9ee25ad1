import { bendOf, dxAt, dyAt, type Segment, speedAt, xAt, yAt } from "./bezier.ts";
import { integrate } from "./quadrature.ts";

/** What the search for the nearest place on a chain leans on, worked out once for each of its segments. */

/** How far a chord may stray from its curve, mm: only a start for refinement on the curve itself. */
const CHORD_TOLERANCE = 0.002;
/** The same for the looks of the search for the nearest place, which only have to find the right dip. */
const LOOK_TOLERANCE = 0.1;

/** Points spread evenly in t along a curve, ends included. */
export interface Look {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly spacing: number;
}

/**
 * What the search for the nearest place asks of each segment, in one row of plain numbers: the curve's own eight; where one dip is
 * sure to be the only one (see `reachOf`); the box that holds it.
 */
export const ROW = 17;
export const FAR = 8;
export const FROM = 9;
export const TO = 10;
export const HEAD = 11;
export const TAIL = 12;
export const LEFT = 13;
export const RIGHT = 14;
export const BOTTOM = 15;
export const TOP = 16;

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
export interface Asked extends Foot {
  px: number;
  py: number;
  segment: number;
  t: number;
}

/** Arc length by Gauss's rule, halved until both halves agree with the whole: cusps take a few halvings. */
export function arcLength(curve: Segment, from: number, to: number, depth = 0): number {
  const speed = (t: number) => speedAt(curve, t);
  const middle = (from + to) / 2;
  const whole = integrate(speed, from, to, 4);
  const halves = integrate(speed, from, middle, 4) + integrate(speed, middle, to, 4);
  if (Math.abs(whole - halves) < 1e-9 || depth > 12) return halves;
  return arcLength(curve, from, middle, depth + 1) + arcLength(curve, middle, to, depth + 1);
}

export function intervalsFor(curve: Segment, tolerance = CHORD_TOLERANCE): number {
  if (curve.straight) return 1;
  return Math.min(128, Math.max(8, Math.ceil(Math.sqrt(bendOf(curve) / (8 * tolerance)))));
}

export function lookAlong(curve: Segment): Look | null {
  if (curve.straight) return null;
  const steps = intervalsFor(curve, LOOK_TOLERANCE);
  const x = Float64Array.from({ length: steps + 1 }, (_, i) => xAt(curve, i / steps));
  const y = Float64Array.from({ length: steps + 1 }, (_, i) => yAt(curve, i / steps));
  let spacing = 0;
  for (let i = 0; i < steps; i++)
    spacing = Math.max(spacing, Math.sqrt((x[i + 1]! - x[i]!) ** 2 + (y[i + 1]! - y[i]!) ** 2));
  return { x, y, spacing };
}

export function rowOf(curve: Segment, look: Look | null): number[] {
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
