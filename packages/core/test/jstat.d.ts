declare module "jstat" {
  interface Distribution {
    cdf(x: number, df: number): number;
    inv(p: number, df: number): number;
  }
  const jstat: {
    studentt: Distribution;
    chisquare: Distribution;
    beta: { inv(p: number, a: number, b: number): number };
    binomial: { cdf(k: number, n: number, p: number): number };
    stdev(values: readonly number[], isSample: boolean): number;
    gammaln(z: number): number;
    normal: { sample(mean: number, deviation: number): number };
    /** Ordinary least squares: figures by columns. */
    models: { ols(values: number[], rows: number[][]): { coef: number[]; t: { se: number[] } } };
    setRandom(uniform: () => number): void;
  };
  export default jstat;
}
