import type { Path, Piece, Point } from "./drawing.ts";
import { distance } from "./path.ts";

/** Splines as a DXF has them, as cubics. */

type Weighted = readonly [x: number, y: number, w: number];

const MOST_POINTS = 5000;
const HIGHEST_DEGREE = 10;
/** A rational span is no polynomial: so many cubics follow a half turn to a few millionths of it. */
const PARTS_OF_RATIONAL = 8;

export interface BSpline {
  readonly points: readonly Point[];
  /** One to each point; absent: all the same. */
  readonly weights: readonly number[] | null;
  readonly knots: readonly number[];
  readonly degree: number;
  readonly isClosed: boolean;
}

/** A B-spline, rational where it has weights; null where its numbers are none of one. */
export function bSpline({ points, weights, knots, degree, isClosed }: BSpline): Path | null {
  const isSound =
    degree >= 1 &&
    degree <= HIGHEST_DEGREE &&
    points.length > degree &&
    points.length <= MOST_POINTS &&
    knots.length === points.length + degree + 1 &&
    knots.every((knot, i) => i === 0 || knot >= knots[i - 1]!) &&
    (weights === null || (weights.length === points.length && weights.every((w) => w > 0)));
  if (!isSound) return null;
  const isRational = weights?.some((w) => Math.abs(w - weights[0]!) > 1e-12 * weights[0]!) ?? false;
  // In homogeneous coordinates it is a polynomial one.
  const raised = points.map(([x, y], i): Weighted => {
    const w = isRational ? weights![i]! : 1;
    return [x * w, y * w, w];
  });
  const at = (t: number, span: number) => deBoor(raised, knots, degree, t, span);
  const pieces: Piece[] = [];
  let start: Point | null = null;
  for (let span = degree; span < points.length; span++) {
    const [from, to] = [knots[span]!, knots[span + 1]!];
    if (!(to > from)) continue;
    // Between two knots it is one polynomial: of degree three or less, four of its points give it exactly.
    const parts = isRational ? PARTS_OF_RATIONAL : degree <= 3 ? 1 : 4;
    for (let k = 0; k < parts; k++) {
      const t = (share: number) => from + ((to - from) * (k + share)) / parts;
      const [p0, p1, p2, p3] = [0, 1 / 3, 2 / 3, 1].map((share) => at(t(share), span)) as [
        Point,
        Point,
        Point,
        Point,
      ];
      start ??= p0;
      const control = (i: 0 | 1): [number, number] => [
        (-5 * p0[i] + 18 * p1[i] - 9 * p2[i] + 2 * p3[i]) / 6,
        (2 * p0[i] - 9 * p1[i] + 18 * p2[i] - 5 * p3[i]) / 6,
      ];
      const [xs, ys] = [control(0), control(1)];
      pieces.push({
        to: p3,
        controls: [
          [xs[0], ys[0]],
          [xs[1], ys[1]],
        ],
      });
    }
  }
  return start ? { start, pieces, isClosed } : null;
}

/** A point of a B-spline within a knot span. Source: de Boor's recurrence, in homogeneous coordinates. */
function deBoor(
  points: readonly Weighted[],
  knots: readonly number[],
  degree: number,
  t: number,
  span: number,
): Point {
  const d = Array.from({ length: degree + 1 }, (_, j): number[] => [...points[span - degree + j]!]);
  for (let r = 1; r <= degree; r++) {
    for (let j = degree; j >= r; j--) {
      const low = knots[span - degree + j]!;
      const high = knots[span + 1 + j - r]!;
      const share = high > low ? (t - low) / (high - low) : 0;
      for (const i of [0, 1, 2] as const) d[j]![i] = (1 - share) * d[j - 1]![i]! + share * d[j]![i]!;
    }
  }
  const [x, y, w] = d[degree] as [number, number, number];
  return [x / w, y / w];
}

/** Halves the error each time; past the last bit of any drawing. */
const ROUNDS = 60;

/**
 * The smooth curve through points, its ends straight or along the tangents that are given, round without an end where it is closed. Source: the cubic
 * spline of two continuous derivatives over chord lengths; its system is diagonally dominant, and solved by Gauss and Seidel's rounds.
 */
export function throughPoints(
  all: readonly Point[],
  isClosed: boolean,
  tangents: { readonly start?: Point | undefined; readonly end?: Point | undefined } = {},
): Path | null {
  const met = all.filter((point, i) => i === 0 || distance(point, all[i - 1]!) > 0);
  const points = isClosed && distance(met[0]!, met[met.length - 1]!) === 0 ? met.slice(0, -1) : met;
  const n = points.length;
  if (n < 2 || n > MOST_POINTS) return null;
  if (n === 2) return { start: points[0]!, pieces: [{ to: points[1]! }], isClosed };
  const spans = isClosed ? n : n - 1;
  const to = (i: number) => (i + 1) % n;
  const h = Array.from({ length: spans }, (_, i) => distance(points[i]!, points[to(i)]!));
  const slope = (i: number, k: 0 | 1) => (points[to(i)]![k] - points[i]![k]) / h[i]!;
  const unit = (tangent: Point): Point => {
    const long = Math.hypot(...tangent);
    return [tangent[0] / long, tangent[1] / long];
  };
  const isTangent = (tangent?: Point): tangent is Point =>
    tangent !== undefined && Math.hypot(...tangent) > 0;
  const m = points.map((_, i): [number, number] => [
    slope(Math.min(i, spans - 1), 0),
    slope(Math.min(i, spans - 1), 1),
  ]);
  for (let round = 0; round < ROUNDS; round++) {
    for (let i = 0; i < n; i++) {
      for (const k of [0, 1] as const) {
        if (!isClosed && i === 0) {
          m[0]![k] = isTangent(tangents.start) ? unit(tangents.start)[k] : (3 * slope(0, k) - m[1]![k]) / 2;
        } else if (!isClosed && i === n - 1) {
          m[i]![k] = isTangent(tangents.end)
            ? unit(tangents.end)[k]
            : (3 * slope(n - 2, k) - m[n - 2]![k]) / 2;
        } else {
          const before = (i + n - 1) % n;
          const [a, b] = [h[before]!, h[i]!];
          const right = 3 * (b * slope(before, k) + a * slope(i, k));
          m[i]![k] = (right - b * m[before]![k] - a * m[to(i)]![k]) / (2 * (a + b));
        }
      }
    }
  }
  const pieces = Array.from({ length: spans }, (_, i): Piece => {
    const [from, end, third] = [points[i]!, points[to(i)]!, h[i]! / 3];
    const [out, into] = [m[i]!, m[to(i)]!];
    return {
      to: end,
      controls: [
        [from[0] + out[0] * third, from[1] + out[1] * third],
        [end[0] - into[0] * third, end[1] - into[1] * third],
      ],
    };
  });
  return { start: points[0]!, pieces, isClosed };
}
