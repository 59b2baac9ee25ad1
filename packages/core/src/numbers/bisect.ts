/**
 * Where a rising figure is what is wanted, between two places, to twelve digits: the nearer end where it is beyond them. A falling
 * figure is asked with both signs turned.
 */
export function bisected(wanted: number, from: number, to: number, of: (x: number) => number): number {
  let [low, high] = [from, to];
  for (let i = 0; i < 200 && high - low > 1e-12 * (1 + Math.abs(high)); i++) {
    const middle = (low + high) / 2;
    if (of(middle) < wanted) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
