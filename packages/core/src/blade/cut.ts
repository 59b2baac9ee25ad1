import { EDGE, FALSE_EDGE, type Field, FLAT, type HalfSample, isPrimary, type Surface } from "./field.ts";

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

/** Widest spacing of the first look along a cut, mm. Layers thinner than this are found from their neighbours. */
const LOOK = 4;
const AT_THE_END = 1e-7;
const MAX_SPLITS = 6;
/** A foot that moves this many times as far as the point has leapt to another branch. */
const JUMP = 3;

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
  const right = breaksOn(field, field.right, x, y, dx, dy, from, to);
  const left = field.alike ? right : breaksOn(field, field.left, x, y, dx, dy, from, to);
  if (right === left)
    return { x, y, dx, dy, breaks: right.breaks, right: right.surfaces, left: right.surfaces };
  return { x, y, dx, dy, ...merge(right, left) };
}

interface OneSide {
  breaks: number[];
  surfaces: Surface[];
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

function breaksOn(
  field: Field,
  half: HalfSample,
  x: number,
  y: number,
  dx: number,
  dy: number,
  from: number,
  to: number,
): OneSide {
  const out: OneSide = { breaks: [from], surfaces: [] };
  const length = to - from;
  const steps = Math.max(3, Math.ceil(length / LOOK));
  const look = (s: number): Surface => {
    field.sampleAt(x + s * dx, y + s * dy);
    return half.surface;
  };
  const margin = Math.min(AT_THE_END, length / 1000);
  let before = from + margin;
  let surface = look(before);
  let feet = field.foot.s + field.foot.spineS;
  let footS = field.foot.s;
  for (let i = 1; i <= steps; i++) {
    const here = i === steps ? to - margin : from + (i / steps) * length;
    const next = look(here);
    const nextFeet = field.foot.s + field.foot.spineS;
    const nextS = field.foot.s;
    if (next !== surface) split(before, surface, here, next, 0);
    else if (footS < field.sharpFrom !== nextS < field.sharpFrom)
      sharpenedBetween(before, surface, here, nextS);
    else if (surface !== FLAT && Math.abs(nextFeet - feet) > JUMP * (here - before)) {
      out.breaks.push(jumpBetween(before, feet, here, nextFeet));
      out.surfaces.push(surface);
    }
    before = here;
    surface = next;
    feet = nextFeet;
    footS = nextS;
  }
  out.breaks.push(to);
  out.surfaces.push(surface);
  return out;

  function split(a: number, atA: Surface, b: number, atB: Surface, depth: number): void {
    const s = changeBetween(a, atA, b, atB);
    const between = look(s);
    if (between !== atA && between !== atB && depth < MAX_SPLITS) {
      split(a, atA, s, between, depth + 1);
      split(s, between, b, atB, depth + 1);
      return;
    }
    out.breaks.push(s);
    out.surfaces.push(atA);
  }

  /** Sharpening begins at a place of the edge at once: a strip of its bevel may lie between two looks on one surface. */
  function sharpenedBetween(a: number, surface: Surface, b: number, footB: number): void {
    const isSharpAtB = footB >= field.sharpFrom;
    let [low, high] = [a, b];
    while (high - low > 1e-7) {
      const middle = (low + high) / 2;
      look(middle);
      if (field.foot.s >= field.sharpFrom === isSharpAtB) high = middle;
      else low = middle;
    }
    const within = isSharpAtB ? high : low;
    const strip = look(within);
    if (strip === surface) return;
    if (isSharpAtB) {
      out.breaks.push(within);
      out.surfaces.push(surface);
      split(within, strip, b, surface, 0);
    } else {
      split(a, surface, within, strip, 0);
      out.breaks.push(within);
      out.surfaces.push(strip);
    }
  }

  /** Where surface A stops being lower than surface B: a root of their difference, else of the label itself. */
  function changeBetween(a: number, atA: Surface, b: number, atB: Surface): number {
    let low = a;
    let high = b;
    const sameFace = isPrimary(atA) && isPrimary(atB);
    let offLow = sameFace ? Number.NaN : difference(low, atA, atB);
    let offHigh = sameFace ? Number.NaN : difference(high, atA, atB);
    const byValue = Number.isFinite(offLow) && Number.isFinite(offHigh) && offLow <= 0 && offHigh >= 0;
    for (let step = 0; step < 60 && high - low > 1e-7; step++) {
      if (!byValue) {
        const middle = (low + high) / 2;
        if (look(middle) === atA) low = middle;
        else high = middle;
        continue;
      }
      const s = offHigh === offLow ? (low + high) / 2 : low - (offLow * (high - low)) / (offHigh - offLow);
      const off = difference(s, atA, atB);
      if (!Number.isFinite(off)) return (low + high) / 2;
      if (Math.abs(off) < 1e-8) return s;
      if (off < 0) {
        low = s;
        offLow = off;
        offHigh /= 2;
      } else {
        high = s;
        offHigh = off;
        offLow /= 2;
      }
    }
    return (low + high) / 2;
  }

  /** Where the nearest place on edge or spine leaps from one branch to another: a crease in the face. */
  function jumpBetween(a: number, feetA: number, b: number, feetB: number): number {
    let low = a;
    let high = b;
    while (high - low > 1e-6) {
      const middle = (low + high) / 2;
      look(middle);
      const feet = field.foot.s + field.foot.spineS;
      if (Math.abs(feet - feetA) < Math.abs(feet - feetB)) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  }

  function difference(s: number, a: Surface, b: Surface): number {
    field.sampleAt(x + s * dx, y + s * dy);
    return heightOn(half, a) - heightOn(half, b);
  }
}

function heightOn(half: HalfSample, surface: Surface): number {
  if (surface === FLAT) return half.flat;
  if (surface === EDGE) return half.edge;
  return surface === FALSE_EDGE ? half.falseEdge : half.primary;
}
