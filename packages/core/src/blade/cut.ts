import type { Field } from "./field.ts";
import {
  EDGE,
  FALSE_EDGE,
  FLAT,
  type HalfSample,
  PRIMARY,
  RELIEF,
  SECOND,
  SECOND_EDGE,
  SECOND_RUN_IN,
  type Surface,
} from "./half.ts";
import { pastStart } from "./second.ts";

/**
 * A straight cut through the side view: from (x, y) along the unit vector (dx, dy), s from `from` to `to`, mm.
 * Between one break and the next each side stays on one surface, so everything there is smooth.
 */
export interface Cut {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  /** Ascending, both ends included: pieces are breaks[i]…breaks[i + 1]. */
  readonly breaks: readonly number[];
  readonly right: readonly Surface[];
  readonly left: readonly Surface[];
}

/** What was seen on the way to a cut, and is so for nothing: how often, and each time mm along it and the thickness there. */
export interface Glimpses {
  readonly count: number;
  s(i: number): number;
  t(i: number): number;
}

/**
 * Widest spacing of the first looks along a cut, mm, as drawn and read, and as summed. Layers thinner than this are found from their
 * neighbours.
 */
const LOOK = 4;
const LOOK_TO_SUM = 6;
const AT_THE_END = 1e-7;
const MAX_SPLITS = 6;
/** A foot that moves this many times as far as the point has leapt to another branch. */
const JUMP = 3;
/** How nearly a change of surface is found, mm: as drawn and read, and as summed, where the square of it is what is missed. */
const SHARP = 1e-7;
const SUMMED = 1e-5;

/** Finds where the lowest surface changes along a line, on both sides, to about 1e-7 mm. */
export function cutAlong(
  field: Field,
  x: number,
  y: number,
  dx: number,
  dy: number,
  from: number,
  to: number,
): Cut {
  return looking.cut(field, x, y, dx, dy, from, to, SHARP);
}

/** The same less sharply, to be summed over, with what was seen on the way: ask before the next cut is made. */
export function cutToSum(
  field: Field,
  x: number,
  y: number,
  dx: number,
  dy: number,
  from: number,
  to: number,
): { cut: Cut; seen: Glimpses } {
  return { cut: looking.cut(field, x, y, dx, dy, from, to, SUMMED), seen: looking };
}

interface OneSide {
  breaks: number[];
  surfaces: Surface[];
}

/** What is kept of a place that was looked at: a row of plain numbers, for one side and then for the other. */
const S = 0;
const T = 1;
/** Where the nearest place on the edge lies, and that of the spine added. */
const FOOT = 2;
const FEET = 3;
const RIGHT = 4;
const LEFT = 12;
const ROW = 20;
const SURFACE = 7;

/** A line being looked along; each place is looked at once, and is spoken of by its number. */
class Looking implements Glimpses {
  count = 0;
  private rows = new Float64Array(64 * ROW);
  private field!: Field;
  private x = 0;
  private y = 0;
  private dx = 0;
  private dy = 0;
  private within = SHARP;
  private hasArc = false;

  cut(
    field: Field,
    x: number,
    y: number,
    dx: number,
    dy: number,
    from: number,
    to: number,
    within: number,
  ): Cut {
    this.field = field;
    this.x = x;
    this.y = y;
    this.dx = dx;
    this.dy = dy;
    this.within = within;
    this.hasArc = field.blade.edge.kind === "convex";
    this.count = 0;
    const length = to - from;
    const steps = Math.max(3, Math.ceil(length / (within === SHARP ? LOOK : LOOK_TO_SUM)));
    const margin = Math.min(AT_THE_END, length / 1000);
    for (let i = 0; i <= steps; i++)
      this.look(i === 0 ? from + margin : i === steps ? to - margin : from + (i / steps) * length);
    const right = this.breaksOn(RIGHT, steps, from, to);
    if (field.alike)
      return { x, y, dx, dy, breaks: right.breaks, right: right.surfaces, left: right.surfaces };
    return { x, y, dx, dy, ...merge(right, this.breaksOn(LEFT, steps, from, to)) };
  }

  s(i: number): number {
    return this.rows[i * ROW]!;
  }

  t(i: number): number {
    return this.rows[i * ROW + T]!;
  }

  private surface(i: number, side: number): Surface {
    return this.rows[i * ROW + side + SURFACE] as Surface;
  }

  private feet(i: number): number {
    return this.rows[i * ROW + FEET]!;
  }

  private isSharp(i: number): boolean {
    return this.rows[i * ROW + FOOT]! >= this.field.sharpFrom;
  }

  /** How far one surface stands above another. */
  private above(i: number, side: number, a: Surface, b: Surface): number {
    const at = i * ROW + side;
    return this.rows[at + heightOf(a)]! - this.rows[at + heightOf(b)]!;
  }

  private look(s: number): number {
    const { field, x, y, dx, dy } = this;
    if ((this.count + 1) * ROW > this.rows.length) {
      const more = new Float64Array(2 * this.rows.length);
      more.set(this.rows);
      this.rows = more;
    }
    const { rows } = this;
    const at = this.count * ROW;
    field.sampleAt(x + s * dx, y + s * dy);
    const { right, left, foot } = field;
    rows[at + S] = s;
    rows[at + T] = Math.max(0, right.lowest + left.lowest);
    rows[at + FOOT] = foot.s;
    rows[at + FEET] = foot.s + foot.spineS;
    put(right, rows, at + RIGHT);
    if (!field.alike) put(left, rows, at + LEFT);
    if (this.hasArc) {
      // Below its shoulder an arc may stand above the bevel's own line, which does not count there: they do not meet.
      if (right.isBelowShoulder) hide(rows, at + RIGHT);
      if (!field.alike && left.isBelowShoulder) hide(rows, at + LEFT);
    }
    return this.count++;
  }

  private breaksOn(side: number, steps: number, from: number, to: number): OneSide {
    const out: OneSide = { breaks: [from], surfaces: [] };
    for (let here = 1; here <= steps; here++) {
      const before = here - 1;
      const surface = this.surface(before, side);
      if (this.surface(here, side) !== surface) this.split(side, before, here, out, 0);
      else if (this.isSharp(before) !== this.isSharp(here)) this.sharpenedBetween(side, before, here, out);
      else if (
        surface !== FLAT &&
        Math.abs(this.feet(here) - this.feet(before)) > JUMP * (this.s(here) - this.s(before))
      ) {
        out.breaks.push(this.jumpBetween(before, here));
        out.surfaces.push(surface);
      }
    }
    out.breaks.push(to);
    out.surfaces.push(this.surface(steps, side));
    return out;
  }

  private split(side: number, a: number, b: number, out: OneSide, depth: number): void {
    const between = this.changeBetween(side, a, b);
    const surface = this.surface(between, side);
    if (surface !== this.surface(a, side) && surface !== this.surface(b, side) && depth < MAX_SPLITS) {
      this.split(side, a, between, out, depth + 1);
      this.split(side, between, b, out, depth + 1);
      return;
    }
    out.breaks.push(this.s(between));
    out.surfaces.push(this.surface(a, side));
  }

  /** Sharpening begins at a place of the edge at once: a strip of its bevel may lie between two looks on one surface. */
  private sharpenedBetween(side: number, a: number, b: number, out: OneSide): void {
    const isSharpAtB = this.isSharp(b);
    let [low, high] = [a, b];
    while (this.s(high) - this.s(low) > this.within) {
      const middle = this.look((this.s(low) + this.s(high)) / 2);
      if (this.isSharp(middle) === isSharpAtB) high = middle;
      else low = middle;
    }
    const within = isSharpAtB ? high : low;
    const surface = this.surface(a, side);
    if (this.surface(within, side) === surface) return;
    if (isSharpAtB) {
      out.breaks.push(this.s(within));
      out.surfaces.push(surface);
      this.split(side, within, b, out, 0);
    } else {
      this.split(side, a, within, out, 0);
      out.breaks.push(this.s(within));
      out.surfaces.push(this.surface(within, side));
    }
  }

  /** Where one surface stops being lower than another: a root of their difference, else of the label itself. */
  private changeBetween(side: number, a: number, b: number): number {
    const [atA, atB] = [this.surface(a, side), this.surface(b, side)];
    let [low, high] = [a, b];
    if (!this.isRooted(side, low, high, atA, atB)) {
      // A surface that is not there before or after a straight line begins or ends on it, or not far from it.
      for (const s of this.linesBetween(side, this.s(low), this.s(high))) {
        for (const place of [this.look(s - SHARP / 2), this.look(s + SHARP / 2)]) {
          if (this.surface(place, side) === atA) low = place;
          else if (this.surface(place, side) === atB && this.s(place) < this.s(high)) high = place;
        }
        if (this.s(high) - this.s(low) <= this.within) return low;
      }
      if (!this.isRooted(side, low, high, atA, atB)) return this.labelBetween(side, low, high, atA);
    }
    return this.rootBetween(side, low, high, atA, atB);
  }

  private isRooted(side: number, low: number, high: number, atA: Surface, atB: Surface): boolean {
    const before = this.above(low, side, atA, atB);
    const after = this.above(high, side, atA, atB);
    return (
      heightOf(atA) !== heightOf(atB) &&
      Number.isFinite(before) &&
      Number.isFinite(after) &&
      before <= 0 &&
      after >= 0
    );
  }

  private labelBetween(side: number, a: number, b: number, atA: Surface): number {
    let [low, high] = [a, b];
    while (this.s(high) - this.s(low) > this.within) {
      const middle = this.look((this.s(low) + this.s(high)) / 2);
      if (this.surface(middle, side) === atA) low = middle;
      else high = middle;
    }
    return low;
  }

  /** Source: N. Anderson and A. Björck, "A new high order method of regula falsi type", BIT 13 (1973). */
  private rootBetween(side: number, a: number, b: number, atA: Surface, atB: Surface): number {
    let [low, high] = [a, b];
    let offLow = this.above(low, side, atA, atB);
    let offHigh = this.above(high, side, atA, atB);
    /** Which end was moved last. */
    let moved = 0;
    for (let step = 0; step < 60 && this.s(high) - this.s(low) > this.within; step++) {
      const [from, to] = [this.s(low), this.s(high)];
      const here = this.look(
        offHigh === offLow || step % 8 === 7
          ? (from + to) / 2
          : from - (offLow * (to - from)) / (offHigh - offLow),
      );
      const off = this.above(here, side, atA, atB);
      if (Math.abs(off) < this.within / 10) return here;
      if (!Number.isFinite(off)) break;
      if (off < 0) {
        if (moved < 0) offHigh *= lessened(off / offLow);
        low = here;
        offLow = off;
        moved = -1;
      } else {
        if (moved > 0) offLow *= lessened(off / offHigh);
        high = here;
        offHigh = off;
        moved = 1;
      }
    }
    return this.look((this.s(low) + this.s(high)) / 2);
  }

  /** Where this cut meets the straight lines at which a surface begins or ends: a plunge and its run-in, a false edge. */
  private linesBetween(side: number, from: number, to: number): number[] {
    const { x, y, dx, dy } = this;
    const lines: number[] = [];
    const cut = this.field.plunges[side === RIGHT ? "right" : "left"];
    if (cut) {
      const begins = (x - cut.x) * cut.cos - (y - cut.y) * cut.sin;
      const grows = dx * cut.cos - dy * cut.sin;
      lines.push(-begins / grows, (cut.radius - begins) / grows);
    }
    const start = this.field.second?.[side === RIGHT ? "right" : "left"].cut;
    if (start) {
      const begins = pastStart(start, x, y);
      const grows = dx * start.cos + dy * start.sin;
      lines.push(-begins / grows, (start.radius - begins) / grows);
    }
    const { falseEdge } = this.field.blade;
    if (falseEdge) lines.push((falseEdge.from - x) / dx, (falseEdge.to - x) / dx);
    return lines.filter((s) => s > from + SHARP && s < to - SHARP).sort((one, other) => one - other);
  }

  /** Where the nearest place on edge or spine leaps from one branch to another: a crease in the face. */
  private jumpBetween(a: number, b: number): number {
    let [low, high] = [this.s(a), this.s(b)];
    while (high - low > Math.max(1e-6, this.within)) {
      const middle = this.look((low + high) / 2);
      if (Math.abs(this.feet(middle) - this.feet(a)) < Math.abs(this.feet(middle) - this.feet(b)))
        low = this.s(middle);
      else high = this.s(middle);
    }
    return (low + high) / 2;
  }
}

/** One for all: no cut is begun while another is being made. */
const looking = new Looking();

function hide(rows: Float64Array, at: number): void {
  rows[at + heightOf(PRIMARY)] = Number.POSITIVE_INFINITY;
  rows[at + heightOf(RELIEF)] = Number.POSITIVE_INFINITY;
}

function put(half: HalfSample, rows: Float64Array, at: number): void {
  rows[at] = half.flat;
  rows[at + 1] = half.edge;
  rows[at + 2] = half.primary;
  rows[at + 3] = half.falseEdge;
  rows[at + 4] = half.relief;
  rows[at + 5] = half.second;
  rows[at + 6] = half.secondEdge;
  rows[at + SURFACE] = half.surface;
}

/** How much less the end that was kept twice counts. */
function lessened(share: number): number {
  return share < 1 ? 1 - share : 0.5;
}

/** Where a surface's height stands in a side's numbers. */
function heightOf(surface: Surface): number {
  if (surface === FLAT) return 0;
  if (surface === EDGE) return 1;
  if (surface === RELIEF) return 4;
  if (surface === SECOND || surface === SECOND_RUN_IN) return 5;
  if (surface === SECOND_EDGE) return 6;
  return surface === FALSE_EDGE ? 3 : 2;
}

function merge(right: OneSide, left: OneSide): { breaks: number[]; right: Surface[]; left: Surface[] } {
  const breaks = [right.breaks[0]!];
  const out: { breaks: number[]; right: Surface[]; left: Surface[] } = { breaks, right: [], left: [] };
  let r = 0;
  let l = 0;
  while (r < right.surfaces.length && l < left.surfaces.length) {
    const next = Math.min(right.breaks[r + 1]!, left.breaks[l + 1]!);
    if (next > breaks[breaks.length - 1]!) {
      breaks.push(next);
      out.right.push(right.surfaces[r]!);
      out.left.push(left.surfaces[l]!);
    }
    if (right.breaks[r + 1]! <= next) r++;
    if (left.breaks[l + 1]! <= next) l++;
  }
  return out;
}
