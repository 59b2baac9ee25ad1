import {
  type Blade,
  bevelOn,
  type CutBevel,
  type HeightRow,
  type Side,
} from "@true-spine/core/blade/schema.ts";
import { read, table } from "@true-spine/core/blade/table.ts";

/**
 * Moving what is ground on the sides: each changes a copy of `from`, the blade as it stood when it was taken hold of,
 * on one side or on both by as much. A left side that is the same as the right follows it anyway.
 */
function onSides(
  copy: Blade,
  from: Blade,
  sides: readonly Side[],
  change: (now: CutBevel, then: CutBevel) => void,
) {
  for (const side of sides) {
    const now = copy.bevels[side];
    const then = bevelOn(from, side);
    if (now !== "same" && now.kind !== "none" && then.kind !== "none") change(now, then);
  }
}

/** Moves a plunge's foot along the edge by dx mm. */
export function movePlunge(copy: Blade, from: Blade, sides: readonly Side[], dx: number): void {
  onSides(copy, from, sides, (now, then) => {
    now.plunge.x = tidy(then.plunge.x + dx);
  });
}

/** Leans a plunge by so many more degrees to the tip. */
export function leanPlunge(copy: Blade, from: Blade, sides: readonly Side[], degrees: number): void {
  onSides(copy, from, sides, (now, then) => {
    now.plunge.lean = Math.round((then.plunge.lean + degrees) * 10) / 10;
  });
}

/** Raises the grind line at a share u of the edge by mm; a side with no row there gets one. */
export function raiseLine(copy: Blade, from: Blade, sides: readonly Side[], u: number, mm: number): void {
  onSides(copy, from, sides, (now, then) => {
    if (now.set !== "height" || then.set !== "height") return;
    const rows = withRow(then.height, u);
    now.height = rows.map((row) => ({ u: row.u, h: row.u === u ? tidy(Math.max(0, row.h + mm)) : row.h }));
  });
}

function withRow(rows: readonly HeightRow[], u: number): HeightRow[] {
  if (rows.some((row) => row.u === u)) return [...rows];
  const h = read(
    table(
      rows,
      (row) => row.u,
      (row) => row.h,
    ),
    u,
  );
  return [...rows, { u, h }].sort((a, b) => a.u - b.u);
}

/** To a thousandth of a millimetre. */
const tidy = (mm: number) => Math.round(mm * 1000) / 1000;
