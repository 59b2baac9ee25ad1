import { describe, expect, test } from "vitest";
import {
  combined,
  coverage,
  effectiveFreedom,
  fromRepeats,
  fromResolution,
} from "../../src/numbers/uncertainty.ts";

describe("uncertainty, against the guide's own examples (JCGM 100:2008, figures from memory of it)", () => {
  test("4.4.3: twenty temperatures, their mean, spread and what the mean is worth", () => {
    const read = [
      96.9, 98.18, 98.25, 98.61, 99.03, 99.49, 99.56, 99.74, 99.89, 100.07, 100.33, 100.42, 100.68, 100.95,
      101.11, 101.2, 101.57, 101.84, 102.36, 102.72,
    ];
    const { mean, spread, u } = fromRepeats(read);
    expect(mean).toBeCloseTo(100.145, 3);
    expect(spread).toBeCloseTo(1.489, 3);
    expect(u).toBeCloseTo(0.333, 3);
  });

  test("H.1: an end gauge's calibration, 32 nm with 16 degrees of freedom, 93 nm at 99 of 100", () => {
    const parts = [
      { from: "the standard", u: 25, freedom: 18 },
      { from: "the difference", u: 9.7, freedom: 25.6 },
      { from: "expansion", u: 2.9, freedom: 50 },
      { from: "temperature", u: 16.6, freedom: 2 },
    ];
    const whole = combined(parts);
    expect(whole.u).toBeCloseTo(31.7, 1);
    expect(Math.floor(effectiveFreedom(parts, whole.u))).toBe(16);
    // t for 95 of 100 with 16 degrees of freedom is 2.12.
    expect(whole.expanded).toBeCloseTo(2.12 * whole.u, 1);
  });

  test("F.2.2.1: a last figure of δ is worth 0.29 δ", () => {
    expect(fromResolution(0.01)).toBeCloseTo(0.0029, 4);
  });

  test("with nothing estimated from few readings 1.96 covers 95 of 100", () => {
    expect(coverage(Number.POSITIVE_INFINITY)).toBeCloseTo(1.96, 3);
    const { u, freedom } = combined([
      { from: "one", u: 3, freedom: Infinity },
      { from: "other", u: 4, freedom: Infinity },
    ]);
    expect(u).toBe(5);
    expect(freedom).toBe(Number.POSITIVE_INFINITY);
  });

  test("one reading has no spread of its own, and none is made up", () => {
    expect(fromRepeats([4.2])).toEqual({ mean: 4.2, spread: 0, u: 0 });
  });
});
