import { leastSquares } from "../numbers/least-squares.ts";

/**
 * Which bend lies behind readings along one blade, and how surely. Lengths mm, slopes radians. Weighted least squares over a few shapes,
 * places searched; a shape's gain is what it takes off χ² less k ln n for its k figures (G. Schwarz 1978, from memory of).
 */

/** One reading of where the middle of the steel stands: + to the right, but for the line it was read from. */
export interface Row {
  readonly x: number;
  readonly z: number;
  readonly u: number;
}
/** Rows read from one line or support: each set has an offset and a tilt of its own. */
export type RowSet = readonly Row[];

export type Shape =
  | { readonly kind: "even" }
  | { readonly kind: "bend"; readonly at: number }
  | { readonly kind: "part"; readonly from: number; readonly to: number }
  | { readonly kind: "two"; readonly at: readonly [number, number] };

/** A bend found: its shape with its figures. */
export interface Bend {
  readonly shape: Shape;
  /** Even and part bows: κ, 1/mm, negative for a middle that stands to the right; bends: the turn of the slope, radians. */
  readonly amplitudes: readonly number[];
  readonly u: readonly number[];
  readonly gain: number;
  readonly chiSquare: number;
}

export interface FitReport {
  /** By gain, best first; nothing below what counts. */
  readonly bends: readonly Bend[];
  /** Of the best: where its place may be, where it has one. */
  readonly place: readonly [number, number] | null;
  /** Where one more reading would tell the best from its rival, and by how much of its own uncertainty they differ there. */
  readonly next: { readonly x: number; readonly by: number } | null;
  readonly count: number;
  /** χ² of nothing at all: how far from straight. */
  readonly straight: number;
}

/** A shape counts from this gain on; rivals within so much of the best are named. */
export const LEAST_GAIN = 5;
export const RIVALS = 6;
/** Places of a bend within so much of the least χ² may be the one: 95 of 100. Source: χ² with one degree of freedom. */
const WITHIN = 3.84;
/** Places are looked at so far apart, and two of them never closer than so much, mm. */
const GRID = 1;
const APART = 10;
/** Rows wanted for a shape. */
const LEAST_ROWS = { even: 4, bend: 5, part: 6, two: 7 } as const;
const FIGURES = { even: 1, bend: 2, part: 3, two: 4 } as const;

/** What a shape does at x for one of its amplitudes. */
export function columnsOf(shape: Shape): ((x: number) => number)[] {
  switch (shape.kind) {
    case "even":
      return [(x) => x ** 2 / 2];
    case "bend":
      return [(x) => Math.max(0, x - shape.at)];
    case "part": {
      const { from, to } = shape;
      return [
        (x) => {
          if (x <= from) return 0;
          if (x <= to) return (x - from) ** 2 / 2;
          return (to - from) ** 2 / 2 + (to - from) * (x - to);
        },
      ];
    }
    case "two":
      return shape.at.map((at) => (x: number) => Math.max(0, x - at));
  }
}

/** All rows together, each set with an offset and a tilt that are free. */
class Rows {
  readonly x: number[];
  readonly z: number[];
  readonly u: number[];
  readonly free: number[][];

  constructor(sets: readonly RowSet[]) {
    const all = sets.flatMap((set, i) => set.map((row) => ({ ...row, i })));
    this.x = all.map(({ x }) => x);
    this.z = all.map(({ z }) => z);
    this.u = all.map(({ u }) => u);
    this.free = sets.flatMap((_, i) => [
      all.map((row) => (row.i === i ? 1 : 0)),
      all.map((row) => (row.i === i ? row.x : 0)),
    ]);
  }

  with(columns: readonly ((x: number) => number)[]) {
    const fit = leastSquares([...this.free, ...columns.map((of) => this.x.map(of))], this.z, this.u);
    if (!fit) return null;
    const from = this.free.length;
    return { amplitudes: fit.amplitudes.slice(from), u: fit.u.slice(from), chiSquare: fit.chiSquare };
  }
}

/** Every shape against the rows of some sets. Sets of fewer than three rows say nothing of a bend and are left out. */
export function fitBends(sets: readonly RowSet[]): FitReport {
  const used = sets.filter((set) => set.length >= 3);
  const rows = new Rows(used);
  const count = rows.x.length;
  const none = rows.with([]);
  if (!none) return { bends: [], place: null, next: null, count, straight: 0 };
  const stations = [...new Set(rows.x)].sort((a, b) => a - b);
  const [first, last] = [stations[1] ?? 0, stations[stations.length - 2] ?? 0];
  const places = Array.from(
    { length: Math.max(0, Math.floor((last - first) / GRID) + 1) },
    (_, i) => first + i * GRID,
  );
  const tried = (shape: Shape): Bend | null => {
    if (count < LEAST_ROWS[shape.kind]) return null;
    const fit = rows.with(columnsOf(shape));
    if (!fit) return null;
    const freedom = count - rows.free.length - FIGURES[shape.kind];
    // R. T. Birge (1932), from memory of: what scatters more than it should is less sure.
    const wider = freedom > 0 ? Math.max(1, Math.sqrt(fit.chiSquare / freedom)) : 1;
    const gain = none.chiSquare - fit.chiSquare - FIGURES[shape.kind] * Math.log(count);
    return { shape, ...fit, u: fit.u.map((one) => one * wider), gain };
  };
  const search = new Search(rows, places);
  const found = [
    tried({ kind: "even" }),
    places.length > 0 ? tried({ kind: "bend", at: search.bend() }) : null,
    search.part((from, to) => tried({ kind: "part", from, to })),
    search.two((a, b) => tried({ kind: "two", at: [a, b] })),
  ].filter((one) => one !== null);
  const bends = found.filter(({ gain }) => gain >= LEAST_GAIN).sort((a, b) => b.gain - a.gain);
  const [top] = bends;
  const place = top?.shape.kind === "bend" ? search.within() : null;
  return { bends, place, next: nextOf(bends, rows, stations), count, straight: none.chiSquare };
}

/**
 * Looks for places: what each place's column does to χ² beside the free lines, by its products with the others. Geometry of least squares:
 * columns square to what is free, and how much of the readings lies along them.
 */
class Search {
  readonly #places: readonly number[];
  /** For bends: products of columns, and with the readings. For bows that end: the same of their quadratics. */
  readonly #bend: { G: number[][]; r: number[] };
  readonly #bow: { G: number[][]; r: number[] };

  constructor(rows: Rows, places: readonly number[]) {
    this.#places = places;
    const weigh = (values: readonly number[]) => values.map((value, i) => value / rows.u[i]!);
    const basis: number[][] = [];
    for (const column of rows.free) {
      const rest = squareTo(basis, weigh(column));
      const long = Math.sqrt(dot(rest, rest));
      if (long > 1e-9) basis.push(rest.map((value) => value / long));
    }
    const z = squareTo(basis, weigh(rows.z));
    const products = (of: (at: number) => (x: number) => number) => {
      const columns = places.map((at) => squareTo(basis, weigh(rows.x.map(of(at)))));
      return {
        G: columns.map((one) => columns.map((other) => dot(one, other))),
        r: columns.map((one) => dot(one, z)),
      };
    };
    this.#bend = products((at) => (x) => Math.max(0, x - at));
    this.#bow = products((at) => (x) => Math.max(0, x - at) ** 2 / 2);
  }

  /** What a bend at each place takes off χ². */
  #taken(i: number): number {
    const { G, r } = this.#bend;
    return G[i]![i]! > 1e-12 ? r[i]! ** 2 / G[i]![i]! : 0;
  }

  bend(): number {
    return this.#places[bestOf(this.#places.map((_, i) => this.#taken(i)))]!;
  }

  /** Every place that may be the one: 95 of 100. */
  within(): [number, number] {
    const taken = this.#places.map((_, i) => this.#taken(i));
    const most = Math.max(...taken);
    const near = this.#places.filter((_, i) => taken[i]! >= most - WITHIN);
    return [near[0]!, near[near.length - 1]!];
  }

  part<T>(made: (from: number, to: number) => T): T | null {
    const { G, r } = this.#bow;
    return this.#pair(made, (i, k) => {
      const long = G[i]![i]! - 2 * G[i]![k]! + G[k]![k]!;
      return long > 1e-9 ? (r[i]! - r[k]!) ** 2 / long : 0;
    });
  }

  two<T>(made: (a: number, b: number) => T): T | null {
    const { G, r } = this.#bend;
    return this.#pair(made, (i, k) => {
      const [a, b, c] = [G[i]![i]!, G[i]![k]!, G[k]![k]!];
      const det = a * c - b * b;
      if (det <= 1e-9 * a * c) return 0;
      const [one, other] = [(c * r[i]! - b * r[k]!) / det, (a * r[k]! - b * r[i]!) / det];
      // The opposite way: an S.
      return one * other < 0 ? one * r[i]! + other * r[k]! : 0;
    });
  }

  #pair<T>(made: (a: number, b: number) => T, taken: (i: number, k: number) => number): T | null {
    let best: { a: number; b: number; most: number } | null = null;
    this.#places.forEach((a, i) => {
      for (let k = i + APART / GRID; k < this.#places.length; k++) {
        const most = taken(i, k);
        if (most > 0 && (!best || most > best.most)) best = { a, b: this.#places[k]!, most };
      }
    });
    const found = best as { a: number; b: number } | null;
    return found && made(found.a, found.b);
  }
}

const dot = (a: readonly number[], b: readonly number[]) =>
  a.reduce((sum, value, i) => sum + value * b[i]!, 0);
const bestOf = (values: readonly number[]) => values.indexOf(Math.max(...values));

function squareTo(basis: readonly (readonly number[])[], column: readonly number[]): number[] {
  return basis.reduce<number[]>(
    (rest, one) => {
      const along = dot(rest, one);
      return rest.map((value, i) => value - along * one[i]!);
    },
    [...column],
  );
}

/** A bend's own curve over x, without offset and tilt. */
export function curveOf({ shape, amplitudes }: Pick<Bend, "shape" | "amplitudes">): (x: number) => number {
  const columns = columnsOf(shape);
  return (x) => columns.reduce((sum, of, i) => sum + amplitudes[i]! * of(x), 0);
}

/** A curve turned and shifted so that it is nought at both ends. */
export function betweenEnds(curve: (x: number) => number, from: number, to: number): (x: number) => number {
  const [a, b] = [curve(from), curve(to)];
  return (x) => curve(x) - a - ((b - a) * (x - from)) / (to - from);
}

/** Places that a curve is looked at. */
const LOOKS = 60;

/** Where a curve that is nought at its ends stands furthest. */
export function highest(curve: (x: number) => number, from: number, to: number): { x: number; z: number } {
  let best = { x: from, z: 0 };
  for (let i = 0; i <= LOOKS; i++) {
    const x = from + ((to - from) * i) / LOOKS;
    if (Math.abs(curve(x)) > Math.abs(best.z)) best = { x, z: curve(x) };
  }
  return best;
}

/** The first amplitude of a shape laid through other rows; null where they cannot tell it. */
export function amplitudeIn(shape: Shape, set: RowSet): number | null {
  if (set.length < 3) return null;
  return new Rows([set]).with(columnsOf(shape))?.amplitudes[0] ?? null;
}

/** Where two shapes, each lying as it fits, differ most, at least so far from what was read. */
function nextOf(bends: readonly Bend[], rows: Rows, stations: readonly number[]): FitReport["next"] {
  const [top, rival] = bends;
  if (!top || !rival || top.gain - rival.gain > RIVALS) return null;
  const lying = (bend: Bend) => {
    const columns = columnsOf(bend.shape).map((of) => rows.x.map(of));
    const fit = leastSquares([...rows.free, ...columns], rows.z, rows.u);
    const [a = 0, b = 0] = fit?.amplitudes ?? [];
    const curve = curveOf(bend);
    return (x: number) => a + b * x + curve(x);
  };
  const [one, other] = [lying(top), lying(rival)];
  const [from, to] = [stations[0]!, stations[stations.length - 1]!];
  let best: { x: number; by: number } | null = null;
  for (let x = Math.ceil(from); x <= to; x++) {
    if (stations.some((at) => Math.abs(at - x) < APART)) continue;
    const by = Math.abs(one(x) - other(x));
    if (!best || by > best.by) best = { x, by };
  }
  const u = Math.min(...rows.u);
  return best && { x: best.x, by: best.by / u };
}

/** How the steel turns along the blade: θ over x, radians, + where the edge goes to the left toward the tip. */
export interface Twist {
  readonly kind: "even" | "step";
  /** Radians from first to last reading. */
  readonly total: number;
  /** mm from first to last. */
  readonly span: number;
  readonly u: number;
  readonly gain: number;
  /** Where it turns at once, mm. */
  readonly at: number | null;
}

/** A turn by roll readings, each set with its own level: from three on. */
export function fitTwist(sets: readonly RowSet[]): Twist | null {
  const all = sets.filter((set) => set.length >= 2).flatMap((set, i) => set.map((row) => ({ ...row, i })));
  const n = all.length;
  if (n < 3) return null;
  const level = [...new Set(all.map(({ i }) => i))].map((i) => all.map((row) => (row.i === i ? 1 : 0)));
  const [z, u] = [all.map((row) => row.z), all.map((row) => row.u)];
  const none = leastSquares(level, z, u);
  const [from, to] = [Math.min(...all.map(({ x }) => x)), Math.max(...all.map(({ x }) => x))];
  if (!none || to <= from) return null;
  const tried = (column: (x: number) => number, k: number, times: number) => {
    const fit = leastSquares([...level, all.map(({ x }) => column(x))], z, u);
    if (!fit) return null;
    const freedom = n - level.length - k;
    const wider = freedom > 0 ? Math.max(1, Math.sqrt(fit.chiSquare / freedom)) : 1;
    return {
      total: fit.amplitudes.at(-1)! * times,
      span: to - from,
      u: fit.u.at(-1)! * times * wider,
      gain: none.chiSquare - fit.chiSquare - k * Math.log(n),
    };
  };
  const even = tried((x) => x - from, 1, to - from);
  const stations = [...new Set(all.map(({ x }) => x))].sort((a, b) => a - b);
  const steps = stations.slice(1, -1).flatMap((at, i) => {
    const middle = (at + stations[i]!) / 2;
    const one = n >= LEAST_ROWS.bend ? tried((x) => (x >= at ? 1 : 0), 2, 1) : null;
    return one ? [{ ...one, at: middle }] : [];
  });
  const step = steps.sort((a, b) => b.gain - a.gain)[0];
  if (step && even && step.gain > even.gain + RIVALS) return { kind: "step", ...step };
  return even && { kind: "even", ...even, at: null };
}
