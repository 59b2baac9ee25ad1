import { flattened, type Path, type Piece, type Point } from "./drawing.ts";
import { distance } from "./path.ts";

/** A corner is where the outline turns by more than this, degrees. */
export const CORNER = 18;
/** How far a run drawn again may stray from its points, mm. */
const STRAY = 0.02;
/** Points this near a line lie on it, mm. */
const FLAT = 1e-4;
/** A flat stretch this many times as long as its neighbour is a straight line, not part of the curve beside it. */
const LONG = 3;
const ATTEMPTS = 5;

/**
 * A run of very many pieces as fewer smooth ones: through the points that matter, along circles through three of
 * them, straight where it was straight. More points are kept until it strays nowhere more than `STRAY`.
 */
export function redrawn(run: Path): Path {
  const points = flattened(run, STRAY / 4);
  let best: Path = { ...run };
  for (let attempt = 0, thin = STRAY; attempt < ATTEMPTS; attempt++, thin /= 2) {
    best = throughPoints(points, thinned(points, thin));
    const drawn = flattened(best, STRAY / 8);
    if (Math.max(strayOf(points, drawn), strayOf(drawn, points)) <= STRAY) break;
  }
  return best;
}

/** How far points lie from a run of others beside them, mm. */
function strayOf(points: readonly Point[], drawn: readonly Point[]): number {
  let from = 0;
  let most = 0;
  for (const point of points) {
    // Both run the same way, so the nearest place only moves on.
    let best = { index: from, off: Infinity };
    for (let i = from; i < Math.min(drawn.length - 1, from + 60); i++) {
      const off = toSegment(point, drawn[i]!, drawn[i + 1]!);
      if (off < best.off) best = { index: i, off };
    }
    from = best.index;
    most = Math.max(most, best.off);
  }
  return most;
}

function toSegment([x, y]: Point, a: Point, b: Point): number {
  const [ex, ey] = [b[0] - a[0], b[1] - a[1]];
  const t = Math.min(1, Math.max(0, ((x - a[0]) * ex + (y - a[1]) * ey) / (ex * ex + ey * ey || 1)));
  return Math.hypot(a[0] + t * ex - x, a[1] + t * ey - y);
}

function throughPoints(points: readonly Point[], indices: readonly number[]): Path {
  const at = (k: number) => points[indices[k]!]!;
  const count = indices.length;
  const span = (k: number) => distance(at(k), at(k + 1));
  const isFlat = (k: number) =>
    points
      .slice(indices[k]! + 1, indices[k + 1]!)
      .every((point) => toSegment(point, at(k), at(k + 1)) < FLAT);
  const isStraight = (k: number): boolean => {
    if (count === 2) return true;
    const beside = [k - 1, k + 1].filter((other) => other >= 0 && other < count - 1).map(span);
    return isFlat(k) && span(k) > LONG * Math.min(...beside);
  };
  const along = (k: number): Point => {
    const size = span(k);
    return [(at(k + 1)[0] - at(k)[0]) / size, (at(k + 1)[1] - at(k)[1]) / size];
  };
  /** Direction at a kept point; null at the ends and at corners. */
  const tangent = (k: number): Point | null => {
    if (k === 0 || k === count - 1) return null;
    const [before, after] = [along(k - 1), along(k)];
    const turn = Math.atan2(
      before[0] * after[1] - before[1] * after[0],
      before[0] * after[0] + before[1] * after[1],
    );
    if (Math.abs(turn) > (CORNER * Math.PI) / 180) return null;
    const [straightBefore, straightAfter] = [isStraight(k - 1), isStraight(k)];
    if (straightBefore && straightAfter) return null;
    if (straightBefore) return before;
    if (straightAfter) return after;
    const [d1, d2] = [span(k - 1), span(k)];
    const t: Point = [before[0] * d2 + after[0] * d1, before[1] * d2 + after[1] * d1];
    const size = Math.hypot(...t);
    return [t[0] / size, t[1] / size];
  };
  const pieces = Array.from({ length: count - 1 }, (_, k): Piece => {
    const [from, to] = [at(k), at(k + 1)];
    const [out, into] = [tangent(k), tangent(k + 1)];
    if (isStraight(k) || (!out && !into)) return { to };
    const chord = along(k);
    // At a corner the curve leaves as it arrives at the other end, mirrored in the chord: one arc of a circle.
    const mirrored = (t: Point): Point => {
      const dot = t[0] * chord[0] + t[1] * chord[1];
      return [2 * dot * chord[0] - t[0], 2 * dot * chord[1] - t[1]];
    };
    const [s, e] = [out ?? mirrored(into!), into ?? mirrored(out!)];
    const third = span(k) / 3;
    return {
      to,
      controls: [
        [from[0] + s[0] * third, from[1] + s[1] * third],
        [to[0] - e[0] * third, to[1] - e[1] * third],
      ],
    };
  });
  return { start: at(0), pieces, isClosed: false };
}

/** Which points to keep so that none left out lies further than `stray` from the lines between. Source: Ramer, Douglas, Peucker. */
function thinned(points: readonly Point[], stray: number): number[] {
  const keep = new Set([0, points.length - 1]);
  const spans: [number, number][] = [[0, points.length - 1]];
  for (let span = spans.pop(); span; span = spans.pop()) {
    const [from, to] = span;
    let far = { index: -1, off: stray };
    for (let i = from + 1; i < to; i++) {
      const off = toSegment(points[i]!, points[from]!, points[to]!);
      if (off > far.off) far = { index: i, off };
    }
    if (far.index < 0) continue;
    keep.add(far.index);
    spans.push([from, far.index], [far.index, to]);
  }
  return [...keep].sort((a, b) => a - b);
}
