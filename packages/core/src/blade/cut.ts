import { EDGE, FALSE_EDGE, type Field, FLAT, type HalfSample, isPrimary, type Surface } from "./field.ts";
import type { Side } from "./schema.ts";

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

/** What was seen on the way to a cut, and is so for nothing: mm along it, and the thickness there. */
export interface Glimpse {
  readonly s: number;
  readonly t: number;
}

/** Widest spacing of the first look along a cut, mm. Layers thinner than this are found from their neighbours. */
const LOOK = 4;
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
  return new Looking(field, x, y, dx, dy, SHARP).cut(from, to);
}

/** The same less sharply, to be summed over, with what was seen on the way. */
export function cutToSum(
  field: Field,
  x: number,
  y: number,
  dx: number,
  dy: number,
  from: number,
  to: number,
): { cut: Cut; seen: readonly Glimpse[] } {
  const looking = new Looking(field, x, y, dx, dy, SUMMED);
  return { cut: looking.cut(from, to), seen: looking.seen };
}

/** One side's surfaces at one place. */
type Heights = Readonly<Pick<HalfSample, "flat" | "edge" | "primary" | "falseEdge" | "surface">>;

/** A place along a cut, looked at once and kept. */
interface Seen extends Glimpse {
  /** Where the nearest place on the edge lies, and that of the spine added. */
  readonly foot: number;
  readonly feet: number;
  readonly right: Heights;
  readonly left: Heights;
}

interface OneSide {
  breaks: number[];
  surfaces: Surface[];
}

class Looking {
  readonly seen: Seen[] = [];

  constructor(
    private readonly field: Field,
    private readonly x: number,
    private readonly y: number,
    private readonly dx: number,
    private readonly dy: number,
    private readonly within: number,
  ) {}

  cut(from: number, to: number): Cut {
    const { x, y, dx, dy } = this;
    const looks = this.looks(from, to);
    const right = this.breaksOn("right", looks, from, to);
    const left = this.field.alike ? null : this.breaksOn("left", looks, from, to);
    if (!left) return { x, y, dx, dy, breaks: right.breaks, right: right.surfaces, left: right.surfaces };
    return { x, y, dx, dy, ...merge(right, left) };
  }

  private look(s: number): Seen {
    const { field, x, y, dx, dy } = this;
    field.sampleAt(x + s * dx, y + s * dy);
    const { right, left, foot } = field;
    const ofRight = heightsOf(right);
    const seen = {
      s,
      t: Math.max(0, right.lowest + left.lowest),
      foot: foot.s,
      feet: foot.s + foot.spineS,
      right: ofRight,
      left: field.alike ? ofRight : heightsOf(left),
    };
    this.seen.push(seen);
    return seen;
  }

  private looks(from: number, to: number): Seen[] {
    const length = to - from;
    const steps = Math.max(3, Math.ceil(length / LOOK));
    const margin = Math.min(AT_THE_END, length / 1000);
    const looks: Seen[] = [];
    for (let i = 0; i <= steps; i++)
      looks.push(
        this.look(i === 0 ? from + margin : i === steps ? to - margin : from + (i / steps) * length),
      );
    return looks;
  }

  private breaksOn(side: Side, looks: readonly Seen[], from: number, to: number): OneSide {
    const out: OneSide = { breaks: [from], surfaces: [] };
    const { sharpFrom } = this.field;
    for (let i = 1; i < looks.length; i++) {
      const before = looks[i - 1]!;
      const here = looks[i]!;
      const surface = before[side].surface;
      if (here[side].surface !== surface) this.split(side, before, here, out, 0);
      else if (before.foot < sharpFrom !== here.foot < sharpFrom)
        this.sharpenedBetween(side, before, here, out);
      else if (surface !== FLAT && Math.abs(here.feet - before.feet) > JUMP * (here.s - before.s)) {
        out.breaks.push(this.jumpBetween(before, here));
        out.surfaces.push(surface);
      }
    }
    out.breaks.push(to);
    out.surfaces.push(looks[looks.length - 1]![side].surface);
    return out;
  }

  private split(side: Side, a: Seen, b: Seen, out: OneSide, depth: number): void {
    const between = this.changeBetween(side, a, b);
    const { surface } = between[side];
    if (surface !== a[side].surface && surface !== b[side].surface && depth < MAX_SPLITS) {
      this.split(side, a, between, out, depth + 1);
      this.split(side, between, b, out, depth + 1);
      return;
    }
    out.breaks.push(between.s);
    out.surfaces.push(a[side].surface);
  }

  /** Sharpening begins at a place of the edge at once: a strip of its bevel may lie between two looks on one surface. */
  private sharpenedBetween(side: Side, a: Seen, b: Seen, out: OneSide): void {
    const { sharpFrom } = this.field;
    const isSharpAtB = b.foot >= sharpFrom;
    let [low, high] = [a, b];
    while (high.s - low.s > this.within) {
      const middle = this.look((low.s + high.s) / 2);
      if (middle.foot >= sharpFrom === isSharpAtB) high = middle;
      else low = middle;
    }
    const within = isSharpAtB ? high : low;
    const { surface } = a[side];
    if (within[side].surface === surface) return;
    if (isSharpAtB) {
      out.breaks.push(within.s);
      out.surfaces.push(surface);
      this.split(side, within, b, out, 0);
    } else {
      this.split(side, a, within, out, 0);
      out.breaks.push(within.s);
      out.surfaces.push(within[side].surface);
    }
  }

  /** Where one surface stops being lower than another: a root of their difference, else of the label itself. */
  private changeBetween(side: Side, a: Seen, b: Seen): Seen {
    const [atA, atB] = [a[side].surface, b[side].surface];
    if (isPrimary(atA) && isPrimary(atB)) {
      const seen = this.runInEnd(side, a, b);
      if (seen) return seen;
    }
    let [low, high] = [a, b];
    const off = (seen: Seen) => heightOn(seen[side], atA) - heightOn(seen[side], atB);
    const sameFace = isPrimary(atA) && isPrimary(atB);
    let offLow = sameFace ? Number.NaN : off(low);
    let offHigh = sameFace ? Number.NaN : off(high);
    const byValue = Number.isFinite(offLow) && Number.isFinite(offHigh) && offLow <= 0 && offHigh >= 0;
    for (let step = 0; step < 60 && high.s - low.s > this.within; step++) {
      const [from, to] = [low.s, high.s];
      if (!byValue) {
        const middle = this.look((from + to) / 2);
        if (middle[side].surface === atA) low = middle;
        else high = middle;
        continue;
      }
      const s = offHigh === offLow ? (from + to) / 2 : from - (offLow * (to - from)) / (offHigh - offLow);
      const here = this.look(s);
      const now = off(here);
      if (Math.abs(now) < this.within / 10) return here;
      if (!Number.isFinite(now)) break;
      if (now < 0) {
        low = here;
        offLow = now;
        offHigh /= 2;
      } else {
        high = here;
        offHigh = now;
        offLow /= 2;
      }
    }
    return this.look((low.s + high.s) / 2);
  }

  /** The run-in of a plunge ends on a straight line: where this cut meets it, if that is what happens between two looks. */
  private runInEnd(side: Side, a: Seen, b: Seen): Seen | null {
    const cut = this.field.plunges[side];
    if (!cut) return null;
    const grows = this.dx * cut.cos - this.dy * cut.sin;
    const s = (cut.radius - (this.x - cut.x) * cut.cos + (this.y - cut.y) * cut.sin) / grows;
    if (!(s > a.s + SHARP && s < b.s - SHARP)) return null;
    const [before, after] = [this.look(s - SHARP / 2), this.look(s + SHARP / 2)];
    return before[side].surface === a[side].surface && after[side].surface === b[side].surface
      ? { ...before, s }
      : null;
  }

  /** Where the nearest place on edge or spine leaps from one branch to another: a crease in the face. */
  private jumpBetween(a: Seen, b: Seen): number {
    let [low, high] = [a.s, b.s];
    while (high - low > Math.max(1e-6, this.within)) {
      const middle = this.look((low + high) / 2);
      if (Math.abs(middle.feet - a.feet) < Math.abs(middle.feet - b.feet)) low = middle.s;
      else high = middle.s;
    }
    return (low + high) / 2;
  }
}

function heightsOf({ flat, edge, primary, falseEdge, surface }: HalfSample): Heights {
  return { flat, edge, primary, falseEdge, surface };
}

function heightOn(half: Heights, surface: Surface): number {
  if (surface === FLAT) return half.flat;
  if (surface === EDGE) return half.edge;
  return surface === FALSE_EDGE ? half.falseEdge : half.primary;
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
