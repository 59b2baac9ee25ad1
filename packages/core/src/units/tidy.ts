/** A length as it is kept, mm: to a ten-thousandth, so that files stay readable. */
export function tidy(mm: number): number {
  return Math.round(mm * 1e4) / 1e4;
}
