import { flattened, type Path, type Piece, type Point } from "./drawing.ts";

/** What a path is by itself: its ends, its size, its area, the other way round. */

export const endOf = ({ start, pieces }: Path): Point => pieces[pieces.length - 1]?.to ?? start;
export const distance = (a: Point, b: Point): number => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** Area within a path, positive where it runs counter-clockwise. */
export function signedArea(path: Path): number {
  const points = flattened(path, Math.max(sizeOf([path]) / 2000, 1e-9));
  return (
    points.reduce((sum, [x, y], i) => {
      const [nx, ny] = points[(i + 1) % points.length]!;
      return sum + x * ny - nx * y;
    }, 0) / 2
  );
}

export function reversed({ start, pieces, isClosed }: Path): Path {
  const froms = [start, ...pieces.map((piece) => piece.to)];
  return {
    start: froms[froms.length - 1]!,
    pieces: pieces
      .map(
        ({ controls }, i): Piece =>
          controls ? { to: froms[i]!, controls: [controls[1], controls[0]] } : { to: froms[i]! },
      )
      .reverse(),
    isClosed,
  };
}

/** The longer side of a box round all that is drawn; none where a number is none, or too large to draw. */
export function sizeOf(paths: readonly Path[]): number {
  let [left, right, bottom, top] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { start, pieces } of paths) {
    for (const { to, controls = [] } of [{ to: start }, ...pieces] as Piece[]) {
      for (const [x, y] of [to, ...controls]) {
        if (!Number.isFinite(x) || !Number.isFinite(y) || Math.abs(x) > 1e7 || Math.abs(y) > 1e7)
          return Number.NaN;
        [left, right] = [Math.min(left, x), Math.max(right, x)];
        [bottom, top] = [Math.min(bottom, y), Math.max(top, y)];
      }
    }
  }
  return Math.max(right - left, top - bottom);
}
