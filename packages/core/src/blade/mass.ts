import { tan } from "../units/angle.ts";
import { placeAt } from "./chain.ts";
import { cutToSum, type Glimpses } from "./cut.ts";
import { type Field, thicknessAt } from "./field.ts";
import { FLAT, RUN_IN, SECOND_RUN_IN, type Surface } from "./half.ts";
import { breaksInX, spansAt, uprightPlaces } from "./outline.ts";
import { bunchedRule, plainRule } from "./quadrature.ts";
import type { Hole } from "./schema.ts";
import type { SecondPlan } from "./second.ts";
import { largest, read } from "./table.ts";

/** A section square to the x axis: area mm², ∫y dA and ∫z dA mm³, and ∫z² dA about the blade's plane, mm⁴. */
export interface SectionSums {
  area: number;
  moment: number;
  sideMoment: number;
  secondMoment: number;
}

/** Volume mm³ and its centre in the side view, mm. */
export interface Solid {
  readonly volume: number;
  readonly centre: readonly [number, number];
}

const POINTS_ACROSS = 3;
/** Shares of a piece at which it is held to the parabola through the rule's own places, which lie so far from its middle. */
const CHECKED = [0.015, 0.68, 0.985];
const HALF_WIDTH = Math.sqrt(0.6) / 2;
/** What was seen so near to a break belongs to both of its pieces, mm. */
const ON_A_BREAK = 1e-6;
/** A piece is parted where it strays from a parabola by this share of its thickness, and so often at most. */
const CURVED = 5e-4;
const MOST_SPLITS = 7;
const POINTS_ALONG = 3;
const POINTS_IN_RUN_IN = 7;
const POINTS_BUNCHED = 5;
/**
 * Widest panel along the blade, mm, or this share of its length where that is wider, as what is longer bends less: a few parts in
 * 10⁵ of the volume at most, see the benchmarks.
 */
const PANEL = 8;
const PANEL_SHARE = 1 / 25;

/** The section at x over the given vertical spans, holes not looked at. */
export function sectionSums(
  field: Field,
  x: number,
  spans: readonly (readonly [number, number])[],
): SectionSums {
  const sums = { area: 0, moment: 0, sideMoment: 0, secondMoment: 0 };
  const plain = isPlainAt(field, x);
  for (const [bottom, top] of spans) {
    if (plain) {
      const T = plainThickness(field, x);
      const area = T * (top - bottom);
      sums.area += area;
      sums.moment += (area * (top + bottom)) / 2;
      sums.secondMoment += (area * T * T) / 12;
    } else {
      addSpan(field, x, bottom, top, sums);
    }
  }
  return sums;
}

const isRunIn = (surface: Surface) => surface === RUN_IN || surface === SECOND_RUN_IN;

function addSpan(field: Field, x: number, bottom: number, top: number, sums: SectionSums): void {
  const { cut, seen } = cutToSum(field, x, bottom, 0, 1, 0, top - bottom);
  const { breaks, right, left } = cut;
  for (let i = 0; i + 1 < breaks.length; i++) {
    const from = bottom + breaks[i]!;
    const to = bottom + breaks[i + 1]!;
    if (right[i] === FLAT && left[i] === FLAT) {
      addPiece(field, x, from, to, 1, sums);
    } else if (isRunIn(right[i]!) || isRunIn(left[i]!)) {
      addPiece(field, x, from, to, POINTS_IN_RUN_IN, sums, true);
    } else {
      addCurved(field, x, from, to, MOST_SPLITS, sums, bottom, seen);
    }
  }
}

/**
 * A piece of a cut, in halves of halves where thickness does not follow a parabola through the rule's own places: where the nearest
 * place on the edge comes to a corner, a table over u bends, or the steel ends within the piece. It is held to what was seen on the
 * way to the cut, and to places of its own where that is less than both ends and a place between.
 */
function addCurved(
  field: Field,
  x: number,
  from: number,
  to: number,
  splits: number,
  sums: SectionSums,
  bottom: number,
  seen: Glimpses,
): void {
  const size = to - from;
  const { area, moment, sideMoment, secondMoment } = sums;
  const [high, middle, low] = addPiece(field, x, from, to, POINTS_ACROSS, sums);
  if (splits === 0) return;
  const [slope, bend] = [(high! - low!) / 2, (high! + low! - 2 * middle!) / 2];
  const most = CURVED * (low! + middle! + high!);
  const strays = (y: number, t: number) => {
    const off = ((y - from) / size - 0.5) / HALF_WIDTH;
    return Math.abs(middle! + slope * off + bend * off * off - t) > most;
  };
  let held = 0;
  let isHeld = true;
  for (let i = 0; i < seen.count && isHeld; i++) {
    const y = bottom + seen.s(i);
    if (y < from - ON_A_BREAK || y > to + ON_A_BREAK) continue;
    held++;
    isHeld = !strays(Math.min(to, Math.max(from, y)), seen.t(i));
  }
  if (held < CHECKED.length && isHeld)
    isHeld = !CHECKED.some((share) =>
      strays(from + share * size, thicknessAt(field, x, from + share * size)),
    );
  if (isHeld) return;
  Object.assign(sums, { area, moment, sideMoment, secondMoment });
  const half = from + size / 2;
  addCurved(field, x, from, half, splits - 1, sums, bottom, seen);
  addCurved(field, x, half, to, splits - 1, sums, bottom, seen);
}

/** Adds a piece by a rule of so many points; answers with the thickness at each of its places, from above. */
function addPiece(
  field: Field,
  x: number,
  from: number,
  to: number,
  points: number,
  sums: SectionSums,
  bunched = false,
): number[] {
  const found: number[] = [];
  const { place, weight } = bunched ? bunchedRule(points) : plainRule(points);
  for (let k = 0; k < place.length; k++) {
    const y = from + (to - from) * place[k]!;
    const t = thicknessAt(field, x, y);
    found.push(t);
    if (t === 0) continue;
    const w = weight[k]! * (to - from);
    const r = field.right.lowest;
    const l = field.left.lowest;
    sums.area += w * t;
    sums.moment += w * t * y;
    sums.sideMoment += (w * (r * r - l * l)) / 2;
    sums.secondMoment += (w * (r * r * r + l * l * l)) / 3;
  }
  return found;
}

/** Whether nothing but the flats can be lowest anywhere on the vertical at x: true over most of a tang. */
function isPlainAt(field: Field, x: number): boolean {
  if (field.isPlain) return true;
  const { falseEdge } = field.blade;
  if (falseEdge && x >= falseEdge.from && x <= falseEdge.to) return false;
  if (field.second && x >= secondFrom(field, field.second)) return false;
  return x < plainBefore(field);
}

/** Behind this x nothing of a second edge is cut, however its start leans and wherever its spine's nearest place lies. */
function secondFrom({ ring }: Field, { from, right, left }: SecondPlan): number {
  const tall = ring.top - ring.bottom;
  const lean = Math.max(...[right, left].map(({ cut }) => (cut ? Math.abs(cut.sin / cut.cos) : 0)));
  return from - tall * (lean + 0.5);
}

const plainLimits = new WeakMap<Field, number>();

/** Everything behind this x is flats only. */
function plainBefore(field: Field): number {
  const known = plainLimits.get(field);
  if (known !== undefined) return known;
  const { ring, blade } = field;
  const angles = [blade.edge.angle.left, blade.edge.angle.right].filter((angle) => angle > 0);
  const steepest = Math.min(...angles, 45);
  const reach = (largest(field.thickness) * 2) / Math.tan((steepest * Math.PI) / 180);
  const heel = Math.min(...blade.outline.edge.map((node) => node.at[0]));
  let limit = heel - reach;
  for (const cut of [field.plunges.right, field.plunges.left]) {
    if (!cut) continue;
    const lean = cut.sin / cut.cos;
    limit = Math.min(limit, cut.x + (ring.top - cut.y) * lean, cut.x + (ring.bottom - cut.y) * lean);
  }
  plainLimits.set(field, limit);
  return limit;
}

function plainThickness(field: Field, x: number): number {
  field.sampleAt(x, field.ring.top + 1e4);
  return field.right.flat + field.left.flat;
}

/** Abscissas where the section may change its manner: nodes, table rows, plunges, false edge. */
function panelsBetween(field: Field, from: number, to: number): number[] {
  const { ring, blade } = field;
  const marks = [from, to, ...breaksInX(ring), ...blade.thickness.map((row) => row.x), plainBefore(field)];
  for (const cut of [field.plunges.right, field.plunges.left]) {
    if (!cut) continue;
    const lean = cut.sin / cut.cos;
    const run = cut.radius / cut.cos;
    for (const y of [cut.y, ring.top]) {
      const foot = cut.x + (y - cut.y) * lean;
      marks.push(foot, foot + run / 2, foot + run);
    }
  }
  marks.push(...sharpenedFrom(field));
  if (blade.falseEdge) {
    const { from: start, to: end, radius = 0 } = blade.falseEdge;
    marks.push(start, start + radius / 2, start + radius, end);
  }
  if (field.second) {
    const { from: start, to: end } = field.second;
    marks.push(start, end, secondFrom(field, field.second));
    for (const { cut } of [field.second.right, field.second.left]) {
      if (!cut) continue;
      const run = cut.radius / cut.cos;
      for (const y of [cut.y, ring.bottom]) {
        const foot = cut.x - ((y - cut.y) * cut.sin) / cut.cos;
        marks.push(foot, foot + run / 2, foot + run);
      }
    }
  }
  const sorted = marks.filter((x) => x >= from && x <= to).sort((a, b) => a - b);
  const panels = [sorted[0]!];
  const widest = Math.max(PANEL, PANEL_SHARE * (ring.right - ring.left));
  for (const mark of sorted) {
    const last = panels[panels.length - 1]!;
    if (mark - last < 1e-7) continue;
    const parts = Math.ceil((mark - last) / widest);
    for (let i = 1; i <= parts; i++) panels.push(last + ((mark - last) * i) / parts);
  }
  return panels;
}

/** Where the edge bevel begins, at the edge and as high as it may reach: it is there at once, square to the edge. */
function sharpenedFrom({ edge, sharpFrom, thickness, blade }: Field): number[] {
  const angles = [blade.edge.angle.left, blade.edge.angle.right].filter((angle) => angle > 0);
  if (angles.length === 0) return [];
  const { x, ty } = placeAt(edge, sharpFrom);
  const reaches = angles.map((angle) => read(thickness, x) / 2 / tan(angle));
  return [x, ...reaches.map((reach) => x - ty * reach), x - (ty * Math.max(...reaches)) / 2];
}

/** Where a run-in begins, at the edge and at the spine: its surface starts like a root there. */
function runInStarts({ plunges, blade, ring, second }: Field): number[] {
  const starts = [plunges.right, plunges.left].flatMap((cut) =>
    cut ? [cut.x, cut.x + ((ring.top - cut.y) * cut.sin) / cut.cos] : [],
  );
  if (second) starts.push(second.from);
  return blade.falseEdge ? [...starts, blade.falseEdge.from] : starts;
}

/**
 * Volume and centre of mass between two abscissas, the whole blade by default, holes taken out.
 * Sections are integrated exactly between the places where a surface changes; panels along x follow the
 * outline's nodes. Ends where the outline stands upright are bunched so that their square root is no trouble.
 */
export function solidBetween(field: Field, from = field.ring.left, to = field.ring.right): Solid {
  const sums = { volume: 0, x: 0, y: 0 };
  const panels = panelsBetween(field, Math.max(from, field.ring.left), Math.min(to, field.ring.right));
  const turning = [...uprightPlaces(field.ring), ...runInStarts(field)];
  const isTurning = (x: number) => turning.some((place) => Math.abs(place - x) < 1e-7);
  for (let i = 0; i + 1 < panels.length; i++) {
    const a = panels[i]!;
    const b = panels[i + 1]!;
    addPanel(
      a,
      b,
      isTurning(a) || isTurning(b),
      (x) => sectionSums(field, x, spansAt(field.ring, x)),
      1,
      sums,
    );
  }
  for (const hole of field.blade.holes ?? []) addHole(field, hole, from, to, sums);
  const { volume } = sums;
  return { volume, centre: volume > 0 ? [sums.x / volume, sums.y / volume] : [0, 0] };
}

function addHole(
  field: Field,
  hole: Hole,
  from: number,
  to: number,
  sums: { volume: number; x: number; y: number },
): void {
  const r = hole.d / 2;
  const a = Math.max(from, hole.x - r);
  const b = Math.min(to, hole.x + r);
  if (b <= a) return;
  const section = (x: number) => {
    const reach = Math.sqrt(Math.max(0, r * r - (x - hole.x) ** 2));
    return sectionSums(field, x, [[hole.y - reach, hole.y + reach]]);
  };
  const middle = (a + b) / 2;
  addPanel(a, middle, true, section, -1, sums, 8);
  addPanel(middle, b, true, section, -1, sums, 8);
}

function addPanel(
  a: number,
  b: number,
  bunched: boolean,
  section: (x: number) => SectionSums,
  sign: 1 | -1,
  sums: { volume: number; x: number; y: number },
  points = bunched ? POINTS_BUNCHED : POINTS_ALONG,
): void {
  const { place, weight } = bunched ? bunchedRule(points) : plainRule(points);
  for (let k = 0; k < place.length; k++) {
    const x = a + (b - a) * place[k]!;
    const { area, moment } = section(x);
    const w = sign * weight[k]! * (b - a);
    sums.volume += w * area;
    sums.x += w * area * x;
    sums.y += w * moment;
  }
}

/** Mass in grams of a volume in mm³ at a density in g/cm³. */
export function massOf(volume: number, density: number): number {
  return (volume * density) / 1000;
}

/** What comes off between two stages of one blade: mm³ and g. Never below nothing: a stage only takes steel away. */
export function removedBetween(
  before: Field,
  after: Field,
  density: number,
): { volume: number; mass: number } {
  const volume = Math.max(0, solidBetween(before).volume - solidBetween(after).volume);
  return { volume, mass: massOf(volume, density) };
}
