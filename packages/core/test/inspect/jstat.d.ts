declare module "jstat" {
  interface Distribution {
    cdf(x: number, df: number): number;
    inv(p: number, df: number): number;
  }
  const jstat: {
    studentt: Distribution;
    chisquare: Distribution;
    gammaln(z: number): number;
    normal: { sample(mean: number, deviation: number): number };
    setRandom(uniform: () => number): void;
  };
  export default jstat;
}
