import { leastSquares } from "../numbers/least-squares.ts";
import type { Instrument } from "../shop/instrument.ts";
import type { Row, RowSet } from "./fit.ts";
import type { SetKind, StraightSet } from "./schema.ts";

/** From what an instrument showed to where the middle of the steel stands. mm and radians; + to the right, turned + where the edge goes left toward the tip. */

/** Half the steel's thickness at a place, mm; at its edge where `y` is null. */
export type HalfAt = (x: number, y: number | null) => number;
/** How an instrument reads, and its own bow along it where that was found. */
export type Reader = Pick<Instrument, "resolution" | "repeat" | "shape">;

const RADIAN = Math.PI / 180;
const sign = (face: StraightSet["face"]) => (face === "left" ? -1 : 1);

/** Standard uncertainty of one reading: its repeat, and anything within half of its last figure. Source: GUM F.2.2.1. */
export const uOf = ({ resolution, repeat }: Reader) => Math.hypot(repeat, resolution / Math.sqrt(12));

/** Which kind of instrument reads a kind of set. */
export const READ_WITH = {
  gap: "feelers",
  rise: "height-gauge",
  edge: "height-gauge",
  roll: "angle-finder",
} as const satisfies Record<SetKind, Instrument["kind"]>;

/** The rows of one set, one list for each height above the edge it was read at. */
export function rowsOf(set: StraightSet, reader: Reader, half: HalfAt): RowSet[] {
  const f = sign(set.face);
  const u = uOf(reader);
  const middleAt = ({ x, y, v }: StraightSet["rows"][number]) => {
    switch (set.kind) {
      case "gap":
        return -f * (v + bowAt(reader, x) + half(x, y));
      case "rise":
        return f * (v - half(x, y));
      case "edge":
        return f * (v - half(x, null));
      case "roll":
        return -f * v * RADIAN;
    }
  };
  const heights = [...new Set(set.rows.map(({ y }) => y))];
  return heights.map((y) =>
    set.rows
      .filter((row) => row.y === y)
      .map((row): Row => ({ x: row.x, z: middleAt(row), u: set.kind === "roll" ? u * RADIAN : u })),
  );
}

/** What stands out of a straightedge at x, toward the blade: by what was found of it, straight between. */
function bowAt({ shape = [] }: Reader, x: number): number {
  if (shape.length === 0) return 0;
  const next = shape.findIndex((row) => row.x >= x);
  if (next < 0) return shape[shape.length - 1]!.t;
  if (next === 0) return shape[0]!.t;
  const [a, b] = [shape[next - 1]!, shape[next]!];
  return a.t + ((b.t - a.t) * (x - a.x)) / (b.x - a.x);
}

/** A blade without its straightedge, and a straightedge without its blade; `bow` is how high that stands in its middle, evenly bent. */
export interface Reversed {
  readonly blade: RowSet;
  readonly own: readonly { readonly x: number; readonly t: number }[];
  readonly bow: { readonly height: number; readonly u: number };
}

/**
 * A straightedge on both faces, same end to the tip: the blade without the straightedge, and the straightedge without the blade, each but for a
 * line. Source: C. J. Evans, R. J. Hocken and W. T. Estler (1996), from memory of. Null where the two were not read at the same places.
 */
export function reversed(
  one: StraightSet,
  other: StraightSet,
  reader: Reader,
  half: HalfAt,
): Reversed | null {
  if (one.kind !== "gap" || other.kind !== "gap" || one.face === other.face) return null;
  const [left, right] = one.face === "left" ? [one, other] : [other, one];
  const pairs = left.rows.flatMap((row) => {
    const there = right.rows.find(({ x, y }) => x === row.x && y === row.y);
    return there ? [{ x: row.x, left: row.v, right: there.v, half: half(row.x, row.y) }] : [];
  });
  if (pairs.length < 3) return null;
  const u = uOf(reader) / Math.SQRT2;
  const own = levelled(pairs.map(({ x, left: l, right: r, half: F }) => ({ x, t: -(l + r) / 2 - F })));
  const x = own.map((row) => row.x);
  const [from, to] = [x[0]!, x[x.length - 1]!];
  const even = leastSquares(
    [x.map(() => 1), x, x.map((at) => ((at - from) * (to - at) * 4) / (to - from) ** 2)],
    own.map(({ t }) => t),
    x.map(() => u),
  );
  return {
    blade: pairs.map(({ x: at, left: l, right: r }) => ({ x: at, z: (l - r) / 2, u })),
    own,
    bow: { height: even?.amplitudes[2] ?? 0, u: even?.u[2] ?? 0 },
  };
}

/** Turned and shifted so that its ends are nought. */
function levelled(rows: { x: number; t: number }[]): { x: number; t: number }[] {
  const [a, b] = [rows[0]!, rows[rows.length - 1]!];
  return rows.map(({ x, t }) => ({ x, t: t - a.t - ((b.t - a.t) * (x - a.x)) / (b.x - a.x) }));
}
