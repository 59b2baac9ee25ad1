/** A weighted least-squares fit of a few amplitudes: `columns` are what each does to every reading. */
export interface Fit {
  readonly amplitudes: readonly number[];
  /** What is left of the readings, in squares of their own uncertainty. */
  readonly chiSquare: number;
  /** Standard uncertainty of each amplitude. */
  readonly u: readonly number[];
}

/** Null where the columns cannot be told apart by these readings. Source: normal equations, solved by elimination. */
export function leastSquares(
  columns: readonly (readonly number[])[],
  values: readonly number[],
  u: readonly number[],
): Fit | null {
  const weights = u.map((one) => 1 / one ** 2);
  const dot = (a: readonly number[], b: readonly number[]) =>
    weights.reduce((sum, weight, i) => sum + weight * a[i]! * b[i]!, 0);
  const inverse = inverted(columns.map((a) => columns.map((b) => dot(a, b))));
  if (!inverse) return null;
  const right = columns.map((column) => dot(column, values));
  const amplitudes = inverse.map((row) => row.reduce((sum, value, i) => sum + value * right[i]!, 0));
  const rest = values.map((value, i) =>
    columns.reduce((sum, column, k) => sum - column[i]! * amplitudes[k]!, value),
  );
  return { amplitudes, chiSquare: dot(rest, rest), u: inverse.map((row, i) => Math.sqrt(row[i]!)) };
}

/** Gauss and Jordan with the largest pivot of each column; null where one is as good as nothing. */
export function inverted(matrix: readonly (readonly number[])[]): number[][] | null {
  const n = matrix.length;
  const rows = matrix.map((row, i) => [...row, ...row.map((_, k) => (k === i ? 1 : 0))]);
  const scale = Math.max(...matrix.map((row, i) => Math.abs(row[i]!)), 1e-300);
  for (let i = 0; i < n; i++) {
    let best = i;
    for (let k = i + 1; k < n; k++) if (Math.abs(rows[k]![i]!) > Math.abs(rows[best]![i]!)) best = k;
    [rows[i], rows[best]] = [rows[best]!, rows[i]!];
    const pivot = rows[i]![i]!;
    if (Math.abs(pivot) < 1e-9 * scale) return null;
    rows[i] = rows[i]!.map((value) => value / pivot);
    for (let k = 0; k < n; k++) {
      if (k === i) continue;
      const times = rows[k]![i]!;
      rows[k] = rows[k]!.map((value, j) => value - times * rows[i]![j]!);
    }
  }
  return rows.map((row) => row.slice(n));
}
