import type { OutlineNode } from "./schema.ts";

/** One cubic or straight piece of a chain, as polynomials in t, 0…1: x = ax·t³ + bx·t² + cx·t + dx. */
export interface Segment {
  readonly ax: number;
  readonly bx: number;
  readonly cx: number;
  readonly dx: number;
  readonly ay: number;
  readonly by: number;
  readonly cy: number;
  readonly dy: number;
  readonly straight: boolean;
}

const isZero = (handle: readonly number[] | undefined) => !handle || (handle[0] === 0 && handle[1] === 0);

/** The segment between two nodes. With neither handle it is a straight line of constant speed. */
export function segmentBetween(from: OutlineNode, to: OutlineNode): Segment {
  const [x0, y0] = from.at;
  const [x3, y3] = to.at;
  if (isZero(from.ahead) && isZero(to.back)) {
    return { ax: 0, bx: 0, cx: x3 - x0, dx: x0, ay: 0, by: 0, cy: y3 - y0, dy: y0, straight: true };
  }
  const x1 = x0 + (from.ahead?.[0] ?? 0);
  const y1 = y0 + (from.ahead?.[1] ?? 0);
  const x2 = x3 + (to.back?.[0] ?? 0);
  const y2 = y3 + (to.back?.[1] ?? 0);
  return {
    ax: x3 - 3 * x2 + 3 * x1 - x0,
    bx: 3 * (x2 - 2 * x1 + x0),
    cx: 3 * (x1 - x0),
    dx: x0,
    ay: y3 - 3 * y2 + 3 * y1 - y0,
    by: 3 * (y2 - 2 * y1 + y0),
    cy: 3 * (y1 - y0),
    dy: y0,
    straight: false,
  };
}

export function xAt(s: Segment, t: number): number {
  return ((s.ax * t + s.bx) * t + s.cx) * t + s.dx;
}

export function yAt(s: Segment, t: number): number {
  return ((s.ay * t + s.by) * t + s.cy) * t + s.dy;
}

/** dx/dt. */
export function dxAt(s: Segment, t: number): number {
  return (3 * s.ax * t + 2 * s.bx) * t + s.cx;
}

/** dy/dt. */
export function dyAt(s: Segment, t: number): number {
  return (3 * s.ay * t + 2 * s.by) * t + s.cy;
}

/** |dB/dt|. */
export function speedAt(s: Segment, t: number): number {
  const dx = dxAt(s, t);
  const dy = dyAt(s, t);
  return Math.sqrt(dx * dx + dy * dy);
}

/** Largest |d²B/dt²| on 0…1: at an end, since it is linear in t. Bounds how far a chord strays. */
export function bendOf(s: Segment): number {
  return Math.max(Math.hypot(2 * s.bx, 2 * s.by), Math.hypot(6 * s.ax + 2 * s.bx, 6 * s.ay + 2 * s.by));
}

/** Parameters inside 0…1 where dx/dt = 0: the segment's own leftmost and rightmost places. */
export function xExtremes(s: Segment): number[] {
  return rootsOfQuadratic(3 * s.ax, 2 * s.bx, s.cx).filter((t) => t > 0 && t < 1);
}

function rootsOfQuadratic(a: number, b: number, c: number): number[] {
  if (Math.abs(a) < 1e-14) return Math.abs(b) < 1e-14 ? [] : [-c / b];
  const inside = b * b - 4 * a * c;
  if (inside < 0) return [];
  const q = -0.5 * (b + Math.sign(b || 1) * Math.sqrt(inside));
  return q === 0 ? [0] : [q / a, c / q];
}
