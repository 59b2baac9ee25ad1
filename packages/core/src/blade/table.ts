/** A function given by rows: linear between them, constant beyond the ends. */
export interface Table {
  readonly at: Float64Array;
  readonly value: Float64Array;
}

/** Compiles rows (strictly increasing in `at`) into a table. */
export function table<Row>(
  rows: readonly Row[],
  at: (row: Row) => number,
  value: (row: Row) => number,
): Table {
  return { at: Float64Array.from(rows, at), value: Float64Array.from(rows, value) };
}

/** The same value everywhere. */
export function constant(value: number): Table {
  return { at: Float64Array.of(0), value: Float64Array.of(value) };
}

/** Reads a table at `at`. */
export function read(rows: Table, at: number): number {
  const { at: place, value } = rows;
  const last = place.length - 1;
  if (at <= place[0]!) return value[0]!;
  if (at >= place[last]!) return value[last]!;
  let low = 0;
  let high = last;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (place[middle]! <= at) low = middle;
    else high = middle;
  }
  const share = (at - place[low]!) / (place[high]! - place[low]!);
  return value[low]! + share * (value[high]! - value[low]!);
}

/** The largest value in a table. */
export function largest(rows: Table): number {
  return rows.value.reduce((most, value) => Math.max(most, value), Number.NEGATIVE_INFINITY);
}
