import { thicknessAt } from "../blade/field.ts";
import { spansAt } from "../blade/outline.ts";
import type { StageSteel } from "../route/ladder.ts";
import { instrumentsOf } from "../shop/instruments.ts";
import type { Shop } from "../shop/schema.ts";
import type { RowSet } from "../straight/fit.ts";
import type { StraightSet } from "../straight/schema.ts";
import { type HalfAt, READ_WITH, type Reader, type Reversed, reversed, rowsOf } from "../straight/sets.ts";

/** Sets as they were read on a stage's steel, as rows of where its middle stands and how it is turned. */

/** Whether two sets were read along the same line of the same face. */
export const isSameLine = (a: StraightSet, b: StraightSet) =>
  a.kind === b.kind && a.face === b.face && a.rows[0]?.y === b.rows[0]?.y;

export type Reads = (set: StraightSet) => RowSet[];

export function reading(
  { steel: { field } }: StageSteel,
  shop: Shop,
): Reads & { reader: (set: StraightSet) => Reader; half: HalfAt } {
  const all = instrumentsOf(shop);
  const reader = (set: StraightSet): Reader =>
    all.find((one) => one.id === set.instrument && one.kind === READ_WITH[set.kind]) ??
    all.find((one) => one.kind === READ_WITH[set.kind])!;
  const half = (x: number, y: number | null) => {
    const at = y ?? (spansAt(field.ring, x)[0]?.[0] ?? 0) + 0.1;
    return thicknessAt(field, x, at) / 2;
  };
  return Object.assign((set: StraightSet) => rowsOf(set, reader(set), half), { reader, half });
}

/** Rows that tell of a bend: a straightedge reversed counts as one set without its own bow. */
export function bendRows(sets: readonly StraightSet[], read: ReturnType<typeof reading>): RowSet[] {
  const used = new Set<string>();
  return sets.flatMap((set, i): RowSet[] => {
    if (set.kind === "roll" || used.has(set.id)) return [];
    const other = set.pair && sets.slice(i + 1).find(({ pair }) => pair === set.pair);
    const both = other && reversed(set, other, read.reader(set), read.half);
    if (both) {
      used.add(other.id);
      return [both.blade];
    }
    return read(set);
  });
}

/** The last two sets of one straightedge on both faces, each told from the other. */
export function ruleOf(sets: readonly StraightSet[], read: ReturnType<typeof reading>): Reversed | null {
  const second = sets.findLast(({ pair }) => pair !== undefined);
  const first = second && sets.find(({ pair, id }) => pair === second.pair && id !== second.id);
  return first ? reversed(first, second, read.reader(second), read.half) : null;
}

/** Rows that tell of a turn: read as such, or two lines of one set at different heights. */
export function rollRows(sets: readonly StraightSet[], read: Reads): RowSet[] {
  return sets.flatMap((set): RowSet[] => {
    if (set.kind === "roll") return read(set);
    const heights = [...new Set(set.rows.map(({ y }) => y))].sort((a, b) => a - b);
    if (heights.length < 2) return [];
    const lines = read(set);
    const at = (y: number) => lines[[...new Set(set.rows.map((row) => row.y))].indexOf(y)]!;
    const [low, high] = [heights[0]!, heights[heights.length - 1]!];
    const apart = high - low;
    return [
      at(high).flatMap((row) => {
        const there = at(low).find(({ x }) => x === row.x);
        return there
          ? [{ x: row.x, z: (row.z - there.z) / apart, u: Math.hypot(row.u, there.u) / apart }]
          : [];
      }),
    ];
  });
}
