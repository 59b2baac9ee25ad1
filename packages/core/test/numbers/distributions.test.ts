import jstat from "jstat";
import { describe, expect, test } from "vitest";
import {
  chiSquareAt,
  chiSquareBelow,
  logGamma,
  studentAt,
  studentBelow,
} from "../../src/numbers/distributions.ts";

const FREEDOMS = [1, 2, 3, 5, 10, 24, 30, 99, 400];

describe("distributions, against a general-purpose statistics library", () => {
  test("Student's t, both ways", () => {
    for (const df of FREEDOMS) {
      for (const t of [-3, -0.7, 0, 0.2, 1.5, 2.5, 6]) {
        expect(studentBelow(t, df)).toBeCloseTo(jstat.studentt.cdf(t, df), 7);
      }
      for (const p of [0.025, 0.1, 0.5, 0.9, 0.975, 0.999]) {
        expect(studentAt(p, df)).toBeCloseTo(jstat.studentt.inv(p, df), 5);
      }
    }
  });

  test("χ², both ways", () => {
    for (const df of FREEDOMS) {
      for (const share of [0.2, 0.7, 1, 1.4, 2.5]) {
        expect(chiSquareBelow(share * df, df)).toBeCloseTo(jstat.chisquare.cdf(share * df, df), 8);
      }
      for (const p of [0.025, 0.5, 0.975]) {
        expect(chiSquareAt(p, df) / jstat.chisquare.inv(p, df)).toBeCloseTo(1, 5);
      }
    }
  });

  test("ln Γ", () => {
    for (const z of [0.5, 1, 1.5, 2, 3.7, 12, 40.5, 200])
      expect(logGamma(z)).toBeCloseTo(jstat.gammaln(z), 9);
  });
});

describe("distributions, against printed tables", () => {
  // From memory of GUM, table G.2, t for 95 %.
  test.each([
    [1, 12.71],
    [2, 4.3],
    [5, 2.57],
    [10, 2.23],
    [16, 2.12],
    [30, 2.04],
    [100, 1.984],
  ])("t for 95 of 100 with %i degrees of freedom is %f", (df, t) => {
    expect(studentAt(0.975, df)).toBeCloseTo(t, df === 100 ? 3 : 2);
  });

  // From memory of NIST/SEMATECH e-Handbook 1.3.6.7.4, critical values of χ².
  test.each([
    [1, 3.841],
    [10, 18.307],
    [25, 37.652],
    [50, 67.505],
  ])("χ² at 95 of 100 with %i degrees of freedom is %f", (df, value) => {
    expect(chiSquareAt(0.95, df)).toBeCloseTo(value, 3);
  });
});
