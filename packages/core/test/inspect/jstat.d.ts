declare module "jstat" {
  interface Distribution {
    cdf(x: number, df: number): number;
    inv(p: number, df: number): number;
  }
  const jstat: { studentt: Distribution; chisquare: Distribution; gammaln(z: number): number };
  export default jstat;
}
