import type { Piece, Point } from "./drawing.ts";

/** Arcs are cut into pieces of this much at most: as cubics those stray by 4 millionths of the radius. */
const WIDEST = Math.PI / 4;

/**
 * An arc of an ellipse as cubics: its centre, its two half axes of which the first leans by `lean`, from one angle of its own on by `sweep`, all in
 * radians. Source: handles of 4/3·tan(φ/4).
 */
export function roundPieces(
  centre: Point,
  [rx, ry]: readonly [number, number],
  lean: number,
  start: number,
  sweep: number,
): Piece[] {
  const count = Math.max(1, Math.ceil(Math.abs(sweep) / WIDEST - 1e-9));
  const step = sweep / count;
  const handle = (4 / 3) * Math.tan(step / 4);
  const [cos, sin] = [Math.cos(lean), Math.sin(lean)];
  /** On the unit circle, to where it lies on the ellipse. */
  const at = (x: number, y: number): Point => [
    centre[0] + rx * x * cos - ry * y * sin,
    centre[1] + rx * x * sin + ry * y * cos,
  ];
  return Array.from({ length: count }, (_, i): Piece => {
    const [a, b] = [start + i * step, start + (i + 1) * step];
    const [ca, sa, cb, sb] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b)];
    return {
      to: at(cb, sb),
      controls: [at(ca - handle * sa, sa + handle * ca), at(cb + handle * sb, sb - handle * cb)],
    };
  });
}

/**
 * An arc as SVG says it, between two points: its half axes, their lean in degrees, whether it is the longer way and whether it goes on to positive
 * angles. Half axes that are too short are as long as they must be. Source: SVG 2, appendix B.2.4 and B.2.5.
 */
export function arcBetween(
  from: Point,
  to: Point,
  axes: readonly [number, number],
  leanDegrees: number,
  isLong: boolean,
  isPositive: boolean,
): Piece[] {
  let [rx, ry] = [Math.abs(axes[0]), Math.abs(axes[1])];
  if (from[0] === to[0] && from[1] === to[1]) return [];
  if (rx === 0 || ry === 0) return [{ to }];
  const lean = (leanDegrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(lean), Math.sin(lean)];
  const [hx, hy] = [(from[0] - to[0]) / 2, (from[1] - to[1]) / 2];
  const [x, y] = [cos * hx + sin * hy, cos * hy - sin * hx];
  const short = (x / rx) ** 2 + (y / ry) ** 2;
  if (short > 1) {
    rx *= Math.sqrt(short);
    ry *= Math.sqrt(short);
  }
  const under = Math.max(0, (rx * ry) ** 2 / ((rx * y) ** 2 + (ry * x) ** 2) - 1);
  const times = (isLong === isPositive ? -1 : 1) * Math.sqrt(under);
  const [u, v] = [(times * rx * y) / ry, (-times * ry * x) / rx];
  const centre: Point = [
    cos * u - sin * v + (from[0] + to[0]) / 2,
    sin * u + cos * v + (from[1] + to[1]) / 2,
  ];
  const angle = (px: number, py: number) => Math.atan2((py - v) / ry, (px - u) / rx);
  const start = angle(x, y);
  let sweep = angle(-x, -y) - start;
  if (isPositive && sweep < 0) sweep += 2 * Math.PI;
  if (!isPositive && sweep > 0) sweep -= 2 * Math.PI;
  const pieces = roundPieces(centre, [rx, ry], lean, start, sweep);
  return [...pieces.slice(0, -1), { ...pieces.at(-1)!, to }];
}
