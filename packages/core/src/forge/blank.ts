import { type Chain, placeAt } from "../blade/chain.ts";
import type { Field } from "../blade/field.ts";
import { nearest, newFoot } from "../blade/nearest.ts";
import { spansAt } from "../blade/outline.ts";
import { type Blade, bevelOn, SIDES, type Side } from "../blade/schema.ts";
import { stationAt } from "../blade/station.ts";
import { read, type Table, table } from "../blade/table.ts";
import type { Forge } from "./schema.ts";
import type { BevelSection } from "./set-down.ts";

/** A section of the blank square to x: lengths mm, area mm². */
export interface BlankSection extends BevelSection {
  readonly x: number;
  /** From where to where up the blade. */
  readonly bottom: number;
  readonly top: number;
  readonly area: number;
  /** Round the section. */
  readonly perimeter: number;
  /** Whether the bevel is set down here. */
  readonly isBevelled: boolean;
  /** Whether the bar is left here as it is, for a bolster. */
  readonly isBolster: boolean;
}

/** The forged blank: what the fire must leave so that everything after it still finds its steel. */
export interface Blank {
  readonly blade: Blade;
  /** From the butt's end to the tip's, mm. */
  readonly left: number;
  readonly right: number;
  /** Foremost plunge on the edge: where the bevels begin. Null where no side has one. */
  readonly plunge: number | null;
  /** Where its section changes at once. */
  readonly steps: readonly number[];
  /** Over the flats at x. */
  thickness(x: number): number;
  /** Where an upright at x runs through it, lowest first. */
  spans(x: number): [number, number][];
  /** A side's half-thickness inside it. */
  half(side: Side, x: number, y: number): number;
  /** The blank's own edge outside a share of the finished one. */
  atEdge(finished: Field, u: number): { readonly x: number; readonly y: number };
  /** The section at x; null beyond its ends. */
  section(x: number): BlankSection | null;
}

/** Columns that a section is summed over. */
const COLUMNS = 200;
const HEIGHTS = 40;
/** What is taken for flat, mm. */
const FLAT_WITHIN = 1e-6;

/**
 * The blank of a finished blade, by its field, by what is left on it: `grow` outside each chain of the outline, `flats` on each flat beyond what later
 * stages take there, the edge left thick with one straight bevel up from it. Holes, choil, edge bevel and false edge are not there yet.
 * mm. Source: geometry; what is left are starting values.
 */
export function blankOf(
  field: Field,
  forge: Pick<Forge, "blank" | "bolster">,
  later: { readonly flats: number },
): Blank {
  const { ring, edge, blade } = field;
  const { grow, edge: e, radius, share } = forge.blank;
  const more = 2 * (later.flats + forge.blank.flats);
  const thickness = (x: number) => read(field.thickness, x) + more;
  const chains: readonly [Chain, number][] = [
    [ring.spine, grow.spine],
    [ring.edge, grow.edge],
    [ring.tang, grow.tang],
  ];
  const bevelled = SIDES.filter((side) => bevelOn(blade, side).kind !== "none");
  const heights = forge.blank.height
    ? table(
        forge.blank.height,
        (row) => row.u,
        (row) => row.h,
      )
    : heightsOf(field, share, grow.edge + grow.spine);
  const feet = [newFoot(), newFoot(), newFoot()] as const;
  const heel = placeAt(edge, 0);
  const [tx, ty] = edge.startTangent;

  /** Signed distance to the finished edge, and the share of it there. */
  function toEdge(x: number, y: number, isInside: boolean): { d: number; u: number } {
    nearest(edge, x, y, feet[1]);
    const { d, s } = feet[1];
    const along = (x - heel.x) * tx + (y - heel.y) * ty;
    if (along < 0) {
      const across = (y - heel.y) * tx - (x - heel.x) * ty;
      if (Math.abs(across) <= d) return { d: across, u: 0 };
    }
    const u = Math.min(1, Math.max(0, s / edge.length));
    if (isInside) return { d, u };
    nearest(ring.spine, x, y, feet[0]);
    nearest(ring.tang, x, y, feet[2]);
    return { d: d <= feet[0].d && d <= feet[2].d ? -d : d, u };
  }

  const isAlone = bevelled.length === 1;

  /** Both half-thicknesses on an upright at x, right and left: what both are reckoned by is looked for once. */
  function halvesAt(x: number): (y: number, isInside: boolean) => readonly [right: number, left: number] {
    const T = thickness(x);
    const foot = isAlone ? e - T / 2 : e / 2;
    const rise = isAlone ? T - e : (T - e) / 2;
    return (y, isInside) => {
      let at: { d: number; u: number } | null = null;
      const half = (side: Side) => {
        const cut = field.plunges[side];
        if (!cut || T <= e) return T / 2;
        const v = (x - cut.x) * cut.cos - (y - cut.y) * cut.sin;
        if (v < 0) return T / 2;
        at ??= toEdge(x, y, isInside);
        const climb = rise / read(heights, at.u);
        const stands = v < radius ? radius - Math.sqrt(Math.max(0, radius ** 2 - (radius - v) ** 2)) : 0;
        return Math.min(T / 2, foot + (at.d + grow.edge) * climb + stands);
      };
      return [half("right"), half("left")];
    };
  }

  const spans = (x: number) =>
    merged([...spansAt(ring, x), ...chains.flatMap(([chain, m]) => around(chain, m, x))]);
  const within = (at: readonly (readonly [number, number])[], y: number) =>
    at.some(([low, high]) => y >= low && y <= high);
  const plunges = SIDES.flatMap((side) => field.plunges[side]?.x ?? []);

  const { bolster } = forge;

  function section(x: number): BlankSection | null {
    if (bolster && x >= bolster.from && x <= bolster.to) return roundSection(x, bolster.d, spans(x));
    const all = spans(x);
    if (all.length === 0) return null;
    const inside = spansAt(ring, x);
    const T = thickness(x);
    let [area, perimeter] = [0, 0];
    let b: number | null = null;
    const [bottom, top] = [all[0]![0], all.at(-1)![1]];
    const halves = halvesAt(x);
    const thick = (y: number) => halves(y, within(inside, y));
    for (const [low, high] of all) {
      const step = (high - low) / COLUMNS;
      let before = thick(low + 1e-9);
      perimeter += before[0] + before[1];
      for (let i = 0; i < COLUMNS; i++) {
        const y = low + (i + 1) * step;
        const [middle, after] = [thick(y - step / 2), thick(i === COLUMNS - 1 ? y - 1e-9 : y)];
        // Simpson's rule: straight pieces exactly, and a bend within one to a part in thousands of it.
        area += (step * (before[0] + before[1] + 4 * (middle[0] + middle[1]) + after[0] + after[1])) / 6;
        perimeter += Math.hypot(step, after[0] - before[0]) + Math.hypot(step, after[1] - before[1]);
        if (b === null && after[0] + after[1] >= T - FLAT_WITHIN) b = y - bottom;
        before = after;
      }
      perimeter += before[0] + before[1];
    }
    const at = thick(bottom + 1e-9);
    const edgeThick = Math.max(0, at[0] + at[1]);
    const isBevelled = edgeThick < T - FLAT_WITHIN;
    return {
      x,
      bottom,
      top,
      area,
      perimeter,
      T,
      W: top - bottom,
      b: isBevelled ? Math.min(b ?? top - bottom, top - bottom) : 0,
      e: edgeThick,
      isBevelled,
      isBolster: false,
    };
  }

  const out = Math.max(grow.spine, grow.edge, grow.tang);
  const [first, last] = endsOf(spans, ring.left - out, ring.right + out);
  return {
    blade,
    left: first,
    right: last,
    plunge: plunges.length > 0 ? Math.max(...plunges) : null,
    steps: bolster ? [bolster.from, bolster.to] : [],
    thickness,
    spans,
    half: (side, x, y) => halvesAt(x)(y, within(spansAt(ring, x), y))[side === "right" ? 0 : 1],
    atEdge(finished, u) {
      const { x, y, inward } = stationAt(finished, u);
      return { x: x - inward[0] * grow.edge, y: y - inward[1] * grow.edge };
    },
    section,
  };
}

/** The bar's own section, left where a bolster is: about the middle of what stands there. */
function roundSection(x: number, d: number, spans: readonly [number, number][]): BlankSection {
  const middle = spans.length > 0 ? (spans[0]![0] + spans.at(-1)![1]) / 2 : 0;
  const [area, perimeter] = [(Math.PI * d * d) / 4, Math.PI * d];
  return {
    x,
    bottom: middle - d / 2,
    top: middle + d / 2,
    area,
    perimeter,
    T: d,
    W: d,
    b: 0,
    e: d,
    isBevelled: false,
    isBolster: true,
  };
}

/** How high the bevel is set down along the edge: a share of the blank's height there, mm over u. */
function heightsOf(field: Field, share: number, grown: number): Table {
  const us = Array.from({ length: HEIGHTS + 1 }, (_, i) => Math.min(0.999, Math.max(0.001, i / HEIGHTS)));
  return table(us, Number, (u) => Math.max(0.5, share * (stationAt(field, u).height + grown)));
}

/** Where the blank begins and ends along x, to a hundredth. */
function endsOf(spans: (x: number) => [number, number][], low: number, high: number): [number, number] {
  const edgeAt = (out: number, into: number) => {
    let [none, some] = [out, into];
    for (let i = 0; i < 40; i++) {
      const middle = (none + some) / 2;
      if (spans(middle).length > 0) some = middle;
      else none = middle;
    }
    return some;
  };
  const middle = (low + high) / 2;
  return [edgeAt(low - 1, middle), edgeAt(high + 1, middle)];
}

/** Where an upright at x lies within `m` of a chain, piece by piece. Source: geometry, a band round a straight line. */
function around({ x0, y0, x1, y1, count }: Chain, m: number, x: number): [number, number][] {
  const found: [number, number][] = [];
  if (m <= 0) return found;
  for (let i = 0; i < count; i++) {
    const [ax, ay, bx, by] = [x0[i]!, y0[i]!, x1[i]!, y1[i]!];
    if (x < Math.min(ax, bx) - m || x > Math.max(ax, bx) + m) continue;
    for (const [cx, cy] of [
      [ax, ay],
      [bx, by],
    ] as const) {
      const reach = m * m - (x - cx) ** 2;
      if (reach >= 0) found.push([cy - Math.sqrt(reach), cy + Math.sqrt(reach)]);
    }
    const [dx, dy] = [bx - ax, by - ay];
    const size = Math.hypot(dx, dy);
    if (size < 1e-12) continue;
    // The band between both ends: |across| ≤ m and 0 ≤ along ≤ length, each a stretch of y.
    const across = bounds(dx, -dy * (x - ax) - dx * ay, -m * size, m * size);
    const along = bounds(dy, dx * (x - ax) - dy * ay, 0, size * size);
    if (!across || !along) continue;
    const [low, high] = [Math.max(across[0], along[0]), Math.min(across[1], along[1])];
    if (low <= high) found.push([low, high]);
  }
  return found;
}

/** Where k·y + c lies between two values; null where it never does. */
function bounds(k: number, c: number, least: number, most: number): [number, number] | null {
  if (Math.abs(k) < 1e-12) return c >= least && c <= most ? [-1e9, 1e9] : null;
  const [a, b] = [(least - c) / k, (most - c) / k];
  return a < b ? [a, b] : [b, a];
}

function merged(spans: readonly (readonly [number, number])[]): [number, number][] {
  const out: [number, number][] = [];
  for (const [low, high] of spans.toSorted((a, b) => a[0] - b[0])) {
    const last = out.at(-1);
    if (last && low <= last[1] + 1e-9) last[1] = Math.max(last[1], high);
    else out.push([low, high]);
  }
  return out;
}
