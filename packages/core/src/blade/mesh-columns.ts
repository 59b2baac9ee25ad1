import { type Cut, cutAlong } from "./cut.ts";
import type { Field } from "./field.ts";
import { spansAt } from "./outline.ts";

/** The upright line at x through one stretch of steel, as a row of places from its bottom up. */
export interface Post {
  readonly low: number;
  readonly high: number;
  readonly places: readonly Place[];
  /** Which of the places part one smooth piece from the next; both ends are among them. */
  readonly joints: readonly number[];
  /** What lies between the joints: posts that are alike in it are joined piece by piece. */
  readonly kind: string;
}

/** A place of the side view with its half-thicknesses, mm. */
export interface Place {
  readonly y: number;
  readonly right: number;
  readonly left: number;
}

/** A stretch shorter than this is one place: where the outline turns back, mm. */
const A_POINT = 0.005;
/** Half of what a step in the steel is spread over, mm; it is looked at so near to both its sides. */
const STEP = 0.003;
const BESIDE = 1e-6;
const MOST_ROWS = 60;

/** Every stretch of steel on the upright line at x, the lowest first, holes taken out; `tolerance` is how far rows may stray, mm. */
export function postsAt(field: Field, x: number, tolerance: number): Post[] {
  return stretchesAt(field, x).map(([low, high]) => postOn(field, x, low, high, tolerance));
}

/** Where the upright line at x passes through steel, holes taken out. */
export function stretchesAt({ ring, blade }: Field, x: number): [number, number][] {
  let stretches = spansAt(ring, x);
  for (const hole of blade.holes ?? []) {
    const reach = Math.sqrt(Math.max(0, (hole.d / 2) ** 2 - (x - hole.x) ** 2));
    if (reach === 0) continue;
    const [from, to] = [hole.y - reach, hole.y + reach];
    stretches = stretches.flatMap(([low, high]): [number, number][] => {
      if (to <= low || from >= high) return [[low, high]];
      const parts: [number, number][] = [
        [low, Math.min(high, from)],
        [Math.max(low, to), high],
      ];
      return parts.filter(([a, b]) => b > a);
    });
  }
  return stretches;
}

function postOn(field: Field, x: number, low: number, high: number, tolerance: number): Post {
  const at = (y: number): Place => {
    field.sampleAt(x, y);
    return { y, right: field.right.lowest, left: field.left.lowest };
  };
  if (high - low < A_POINT) {
    return { low, high, places: [at((low + high) / 2)], joints: [0], kind: "point" };
  }
  const cut = cutAlong(field, x, low, 0, 1, 0, high - low);
  const places: Place[] = [at(low)];
  const joints = [0];
  const kinds: string[] = [];
  const put = (place: Place, kind: string) => {
    kinds.push(kind);
    joints.push(places.push(place) - 1);
  };
  for (let i = 0; i + 1 < cut.breaks.length; i++) {
    const top = low + cut.breaks[i + 1]!;
    const isLast = i + 2 === cut.breaks.length;
    const [below, above] = isLast ? [at(top), null] : besides(at, top, tolerance);
    const label = labelOf(cut, i);
    const ends = endOfSteel(at, places[places.length - 1]!, below);
    if (ends) {
      addRows(places, at, ends, tolerance);
      put(ends, `${label}${isThere(below) ? "-" : "+"}`);
    }
    addRows(places, at, below, tolerance);
    put(below, `${label}${isThere(below) ? "+" : "-"}`);
    if (above) put(above, "step");
  }
  return { low, high, places, joints, kind: kinds.join(" ") };
}

/** A break as one place, or as the two sides of a step. */
function besides(at: (y: number) => Place, y: number, tolerance: number): [Place, Place | null] {
  const [below, above] = [at(y - BESIDE), at(y + BESIDE)];
  const steps = Math.max(Math.abs(below.right - above.right), Math.abs(below.left - above.left));
  if (steps <= tolerance) return [at(y), null];
  return [
    { ...below, y: y - STEP },
    { ...above, y: y + STEP },
  ];
}

const isThere = ({ right, left }: Place) => right + left > 0;

/** Where both faces meet between two places, one with steel and one ground away; null where both are the one or the other. */
function endOfSteel(at: (y: number) => Place, from: Place, to: Place): Place | null {
  if (isThere(from) === isThere(to)) return null;
  let [low, high] = [from, to];
  while (high.y - low.y > BESIDE) {
    const middle = at((low.y + high.y) / 2);
    if (isThere(middle) === isThere(from)) low = middle;
    else high = middle;
  }
  return low.y > from.y && high.y < to.y ? low : null;
}

const labelOf = (cut: Cut, i: number) => `${cut.right[i]}${cut.left[i]}`;

/** Puts as many places between the last one and the next as a smooth piece needs there. */
function addRows(places: Place[], at: (y: number) => Place, to: Place, tolerance: number): void {
  const from = places[places.length - 1]!;
  const size = to.y - from.y;
  if (size <= 2 * STEP) return;
  const strays = [0.25, 0.5, 0.75].map((share) => {
    const place = at(from.y + share * size);
    const off = (side: "right" | "left") =>
      Math.abs(place[side] - from[side] - share * (to[side] - from[side])) / (4 * share * (1 - share));
    return Math.max(off("right"), off("left"));
  });
  const rows = Math.min(MOST_ROWS, Math.ceil(Math.sqrt(Math.max(...strays) / tolerance)));
  for (let k = 1; k < rows; k++) places.push(at(from.y + (size * k) / rows));
}
