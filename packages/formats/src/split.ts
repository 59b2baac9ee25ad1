import type { Path, Piece, Point } from "./drawing.ts";
import { distance } from "./path.ts";

/** Cuts a closed path at the places nearest to three points, in the order they are given; null where two coincide. */
export function splitAt(path: Path, marks: readonly Point[]): Path[] | null {
  const places = marks.map((mark) => nearestPlace(path, mark));
  const all: { place: number; mark: number }[] = places.map((place, mark) => ({ place, mark }));
  const sorted = [...all].sort((a, b) => a.place - b.place);
  if (sorted.some(({ place }, i) => i > 0 && place - sorted[i - 1]!.place < 1e-6)) return null;
  const between = (from: number, to: number) => portion(path, from, to > from ? to : to + path.pieces.length);
  const [j, t, h] = places as [number, number, number];
  return [between(j, t), between(t, h), between(h, j)];
}

const SEARCH = 24;

/** The place on a path nearest to a point: which piece, and how far along it as its fraction. */
function nearestPlace(path: Path, point: Point): number {
  let best = { place: 0, off: Infinity };
  const consider = (place: number) => {
    const off = distance(pointAt(path, place), point);
    if (off < best.off) best = { place, off };
  };
  for (let i = 0; i < path.pieces.length * SEARCH; i++) consider(i / SEARCH);
  for (let step = 1 / SEARCH; step > 1e-9; step /= 2) {
    const { place } = best;
    consider(place - step);
    consider(place + step);
  }
  // A corner that was meant is met exactly.
  const corner = Math.round(best.place);
  if (distance(pointAt(path, corner), point) < best.off + 1e-3) best.place = corner;
  const count = path.pieces.length;
  return ((best.place % count) + count) % count;
}

function pieceAt(path: Path, index: number): { from: Point; piece: Piece } {
  const count = path.pieces.length;
  const i = ((index % count) + count) % count;
  return { from: i === 0 ? path.start : path.pieces[i - 1]!.to, piece: path.pieces[i]! };
}

function pointAt(path: Path, place: number): Point {
  const i = Math.floor(place);
  const { from, piece } = pieceAt(path, i);
  return cutPiece(from, piece, 0, place - i).piece.to;
}

/** The part of a closed path from one place to a later one, as an open path. */
function portion(path: Path, from: number, to: number): Path {
  const pieces: Piece[] = [];
  let start: Point | null = null;
  for (let i = Math.floor(from); i < to - 1e-9; i++) {
    const [a, b] = [Math.max(0, from - i), Math.min(1, to - i)];
    if (b - a < 1e-9) continue;
    const whole = pieceAt(path, i);
    const part = cutPiece(whole.from, whole.piece, a, b);
    start ??= part.from;
    pieces.push(part.piece);
  }
  return { start: start ?? pointAt(path, from), pieces, isClosed: false };
}

/** A piece between two of its fractions. Source: de Casteljau's construction. */
function cutPiece(from: Point, { to, controls }: Piece, a: number, b: number): { from: Point; piece: Piece } {
  const mix = (p: Point, q: Point, t: number): Point => [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])];
  if (!controls) return { from: mix(from, to, a), piece: { to: mix(from, to, b) } };
  const blossom = (r: number, s: number, t: number): Point => {
    const [p, q] = controls;
    const first = [mix(from, p, r), mix(p, q, r), mix(q, to, r)] as const;
    const second = [mix(first[0], first[1], s), mix(first[1], first[2], s)] as const;
    return mix(second[0], second[1], t);
  };
  return {
    from: blossom(a, a, a),
    piece: { to: blossom(b, b, b), controls: [blossom(a, a, b), blossom(a, b, b)] },
  };
}
