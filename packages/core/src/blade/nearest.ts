import { type Chain, lengthAt } from "./chain.ts";
import {
  type Asked,
  BOTTOM,
  FAR,
  type Foot,
  FROM,
  HEAD,
  LEFT,
  RIGHT,
  ROW,
  TAIL,
  TO,
  TOP,
} from "./search-rows.ts";

export { type Foot, newFoot } from "./search-rows.ts";

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
