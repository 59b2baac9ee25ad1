import { linearRegression, mean, sampleStandardDeviation } from "simple-statistics";
import { describe, expect, test } from "vitest";
import {
  capability,
  DRIFTS_BELOW,
  driftOf,
  ENOUGH_BLADES,
  indices,
  individualsChart,
} from "../../src/inspect/runs.ts";

describe("charts, against the NIST/SEMATECH e-Handbook (figures from memory of it)", () => {
  test("6.3.2.2: ten flow rates, mean 50.81, mean range 1.8778, limits 45.8159 and 55.8041", () => {
    const flow = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1];
    const chart = individualsChart(flow);
    expect(chart.mean).toBeCloseTo(50.81, 2);
    expect(chart.meanRange).toBeCloseTo(1.8778, 4);
    expect(chart.upper).toBeCloseTo(55.8041, 3);
    expect(chart.lower).toBeCloseTo(45.8159, 3);
    expect(chart.ranges[0]).toBeNull();
    expect(chart.rangeUpper).toBeCloseTo(3.267 * 1.8778, 3);
  });

  test("6.1.6: limits 8 and 20, mean 16, spread 2: Cp 1.0, Cpk 0.6667", () => {
    const { cp, cpk } = indices(16, 2, 50, 8, 20);
    expect(cp).toBeCloseTo(1, 9);
    expect(cpk).toBeCloseTo(0.6667, 4);
  });

  test("6.1.6: Cp's interval is χ²'s: with 50 blades about four fifths to six fifths of it", () => {
    const { cpWithin, cpkWithin } = indices(16, 2, 50, 8, 20);
    // χ² with 49 degrees of freedom: 31.555 and 70.222 (printed tables).
    expect(cpWithin[0]).toBeCloseTo(Math.sqrt(31.555 / 49), 3);
    expect(cpWithin[1]).toBeCloseTo(Math.sqrt(70.222 / 49), 3);
    expect((cpkWithin[0] + cpkWithin[1]) / 2).toBeCloseTo(0.6667, 4);
  });
});

const steady = (count: number) =>
  Array.from({ length: count }, (_, i) => 0.5 + 0.01 * Math.sin(i * 12.9898) * 1.3);

describe("a run of blades", () => {
  test("mean and spread are a general-purpose library's", () => {
    const values = steady(40);
    expect(individualsChart(values).mean).toBeCloseTo(mean(values), 12);
    expect(capability(values, 0.4, 0.6)!.spread).toBeCloseTo(sampleStandardDeviation(values), 12);
  });

  test("below 25 blades nothing is said of capability, nor of a run without any scatter", () => {
    expect(capability(steady(ENOUGH_BLADES - 1), 0.4, 0.6)).toBeNull();
    expect(capability(steady(ENOUGH_BLADES), 0.4, 0.6)).not.toBeNull();
    expect(capability(new Array(30).fill(0.5), 0.4, 0.6)).toBeNull();
  });

  test("one blade far off, two of three, four of five and eight on one side each speak", () => {
    // Alternating blades keep the mean range at 1 sigma·1.128 and the mean where it is.
    const even = Array.from({ length: 40 }, (_, i) => (i % 2 ? 0.5 : -0.5));
    const says = (values: number[]) => individualsChart(values).signals.map(({ words }) => words);
    expect(says(even)).toEqual([]);
    expect(says([...even, 4, ...even])).toContain("one beyond 3σ");
    expect(says([...even, ...new Array(9).fill(0.3), ...even])).toContain("8 on one side");
    expect(says([...even, 1.3, 1.2, 1.3, 1.2, 1.3, ...even])).toContain("4 of 5 beyond 1σ");
    expect(says([...even, 2.3, 0, 2.3, ...even])).toContain("2 of 3 beyond 2σ");
  });

  test("a drift is a straight line's slope, and told apart from chance", () => {
    const drifting = steady(30).map((value, i) => value + 0.002 * i);
    const drift = driftOf(drifting)!;
    expect(drift.perBlade).toBeCloseTo(linearRegression(drifting.map((value, i) => [i, value])).m, 12);
    expect(drift.chance).toBeLessThan(1e-6);
    expect(driftOf(steady(30))!.chance).toBeGreaterThan(DRIFTS_BELOW);
    expect(driftOf([1, 2, 3])).toBeNull();
  });

  test("one blade is no run", () => {
    expect(() => individualsChart([1])).toThrow(RangeError);
  });
});
