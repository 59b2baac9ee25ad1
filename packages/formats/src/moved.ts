import { applyToPoint, type Matrix } from "transformation-matrix";
import type { Circle, Path, Piece, Point } from "./drawing.ts";

/** How much the sides of a square may differ that is still called one. */
const SQUARE = 1e-6;

/** A path or a hole moved, turned, scaled or sheared; a circle that does not stay one becomes a path. */
export function moved(drawn: Path | Circle, by: Matrix): Path | Circle {
  return "diameter" in drawn ? movedCircle(drawn, by) : movedPath(drawn, by);
}

function movedPath({ start, pieces, isClosed }: Path, by: Matrix): Path {
  const at = ([x, y]: Point): Point => {
    const to = applyToPoint(by, { x, y });
    return [to.x, to.y];
  };
  return {
    start: at(start),
    pieces: pieces.map(
      ({ to, controls }): Piece =>
        controls ? { to: at(to), controls: [at(controls[0]), at(controls[1])] } : { to: at(to) },
    ),
    isClosed,
  };
}

function movedCircle({ at: [x, y], diameter }: Circle, by: Matrix): Path | Circle {
  const [along, across] = [Math.hypot(by.a, by.b), Math.hypot(by.c, by.d)];
  const isSquare =
    Math.abs(along - across) <= SQUARE * along &&
    Math.abs(by.a * by.c + by.b * by.d) <= SQUARE * along * across;
  const to = applyToPoint(by, { x, y });
  if (isSquare) return { at: [to.x, to.y], diameter: diameter * along };
  return movedPath(roundPath([x, y], diameter / 2), by);
}

/** A circle as four cubics. Source: handles of 4/3·tan(π/8), which stray by under 0.03 %. */
function roundPath([x, y]: Point, radius: number): Path {
  const handle = (4 / 3) * Math.tan(Math.PI / 8) * radius;
  const turn = (k: number, along: number, off: number): Point => {
    const [c, s] = [Math.cos((k * Math.PI) / 2), Math.sin((k * Math.PI) / 2)];
    return [x + along * c - off * s, y + along * s + off * c];
  };
  const pieces = [0, 1, 2, 3].map(
    (k): Piece => ({
      to: turn(k + 1, radius, 0),
      controls: [turn(k, radius, handle), turn(k + 1, radius, -handle)],
    }),
  );
  return { start: turn(0, radius, 0), pieces, isClosed: true };
}
