import type { Field } from "../src/blade/field.ts";
import { isInside, spansAt } from "../src/blade/outline.ts";

/** Which square cells of a grid over the outline have their middle in steel, worked out beforehand. */
export interface Mask {
  readonly cell: number;
  readonly columns: number;
  readonly rows: number;
  readonly inside: Uint8Array;
}

export function maskFor(field: Field, cell: number): Mask {
  const { ring, blade } = field;
  const columns = Math.ceil((ring.right - ring.left) / cell);
  const rows = Math.ceil((ring.top - ring.bottom) / cell);
  const inside = new Uint8Array(columns * rows);
  for (let i = 0; i < columns; i++) {
    const x = ring.left + (i + 0.5) * cell;
    for (let j = 0; j < rows; j++) {
      const y = ring.bottom + (j + 0.5) * cell;
      const isHole = (blade.holes ?? []).some((hole) => Math.hypot(x - hole.x, y - hole.y) < hole.d / 2);
      if (!isHole && isInside(ring, x, y)) inside[i * rows + j] = 1;
    }
  }
  return { cell, columns, rows, inside };
}

/** The yardstick: the same compiled surfaces summed over square cells, with nothing allocated in the loop. */
export function gridVolume(field: Field, { cell, columns, rows, inside }: Mask): number {
  const { right, left, ring } = field;
  let sum = 0;
  for (let i = 0; i < columns; i++) {
    const x = ring.left + (i + 0.5) * cell;
    for (let j = 0; j < rows; j++) {
      if (inside[i * rows + j] === 0) continue;
      field.sampleAt(x, ring.bottom + (j + 0.5) * cell);
      const t = right.lowest + left.lowest;
      if (t > 0) sum += t;
    }
  }
  return sum * cell * cell;
}

/** The reference: columns `cell` wide, each column's cells fitted exactly between the outline's crossings. */
export function fittedVolume(field: Field, cell: number): number {
  const { right, left, ring, blade } = field;
  const holes = blade.holes ?? [];
  const columns = Math.ceil((ring.right - ring.left) / cell);
  const width = (ring.right - ring.left) / columns;
  let sum = 0;
  for (let i = 0; i < columns; i++) {
    const x = ring.left + (i + 0.5) * width;
    for (const [bottom, top] of spansAt(ring, x)) {
      const rows = Math.max(1, Math.ceil((top - bottom) / cell));
      const tall = (top - bottom) / rows;
      for (let j = 0; j < rows; j++) {
        const y = bottom + (j + 0.5) * tall;
        if (holes.some((hole) => Math.hypot(x - hole.x, y - hole.y) < hole.d / 2)) continue;
        field.sampleAt(x, y);
        sum += Math.max(0, right.lowest + left.lowest) * tall * width;
      }
    }
  }
  return sum;
}
