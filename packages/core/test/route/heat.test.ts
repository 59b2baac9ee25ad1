import { describe, expect, test } from "vitest";
import { passRise, plateRise, rankByHeat } from "../../src/route/heat.ts";

/** The figures the estimate is made with, W/(mm K) and J/(mm³ K). */
const [K, C] = [0.045, 0.0038];

describe("warming under the belt", () => {
  test("a thin plate takes all the heat there is: q t / (c d)", () => {
    // Long against the time heat needs to cross half a millimetre, the plate is warm all through; the ground face a third more.
    const [flux, seconds, thick] = [0.05, 2, 0.5];
    const lumped = (flux * seconds) / (C * thick) + (flux * thick) / (3 * K);
    expect(plateRise(thick, flux, seconds)).toBeCloseTo(lumped, 6);
  });

  test("a thick one behaves as if it had no other face: 2 q sqrt(a t / pi) / k", () => {
    const [flux, seconds] = [0.05, 0.2];
    const half = ((2 * flux) / K) * Math.sqrt(((K / C) * seconds) / Math.PI);
    expect(plateRise(25, flux, seconds) / half).toBeCloseTo(1, 3);
  });

  test("agrees with a plate divided into a hundred slices and stepped through time", () => {
    // Source: explicit finite differences, which share nothing with the series.
    const [thick, flux, seconds, slices] = [1.2, 0.04, 0.3, 100];
    const dx = thick / slices;
    const dt = (0.4 * dx * dx * C) / K;
    let now = new Float64Array(slices);
    for (let t = 0; t < seconds; t += dt) {
      const next = new Float64Array(slices);
      for (let i = 0; i < slices; i++) {
        const left = i === 0 ? flux : (K * (now[i - 1]! - now[i]!)) / dx;
        const right = i === slices - 1 ? 0 : (K * (now[i]! - now[i + 1]!)) / dx;
        next[i] = now[i]! + ((left - right) * dt) / (C * dx);
      }
      now = next;
    }
    expect(plateRise(thick, flux, seconds) / now[0]!).toBeCloseTo(1, 1);
  });

  test("the thinner place gets warmer, a faster belt warms both", () => {
    expect(passRise(0.5, 100)).toBeGreaterThan(passRise(2, 100));
    expect(passRise(1, 200)).toBeCloseTo(2 * passRise(1, 100), 9);
    const ranked = rankByHeat(
      [
        { place: "heel", thickness: 1.6 },
        { place: "tip", thickness: 0.7 },
        { place: "middle", thickness: 1.2 },
      ],
      120,
    );
    expect(ranked.map(({ place }) => place)).toEqual(["tip", "middle", "heel"]);
    expect(ranked[2]!.times).toBe(1);
    expect(ranked[0]!.times).toBeGreaterThan(1.5);
  });
});
