import { sampleStandardDeviation, sum } from "simple-statistics";
import { expect, test } from "vitest";
import { fitRate, type Logged } from "../../src/abrasive/log.ts";

const entry = (minutes: number, grams: number, belt = "p36"): Logged => ({
  belt,
  minutes,
  grams,
  when: "2026-11-20",
});

test("a rate is all steel over all minutes, its spread the entries' own", () => {
  // Source: simple-statistics, a general-purpose library; 7.85 mg a mm³.
  const log = [entry(4, 6), entry(10, 13), entry(2, 4), entry(5, 5, "other")];
  const own = log.slice(0, 3);
  const fit = fitRate(log, "p36")!;
  expect(fit.count).toBe(3);
  expect(fit.rate).toBeCloseTo(sum(own.map(({ grams }) => grams / 0.00785)) / 16, 9);
  expect(fit.spread!).toBeCloseTo(
    sampleStandardDeviation(own.map(({ grams, minutes }) => grams / 0.00785 / minutes)),
    6,
  );
});

test("one entry has no spread, none no rate", () => {
  expect(fitRate([entry(4, 6)], "p36")).toMatchObject({ count: 1, spread: null });
  expect(fitRate([entry(4, 6)], "p60")).toBeNull();
});
