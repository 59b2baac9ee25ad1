import { describe, expect, test } from "vitest";
import { cornersOf, GRADES, middleOf, spanOf } from "../../src/steel/composition.ts";
import {
  ac1,
  austenitic,
  dissolvedAt,
  magnetLetsGo,
  martensiteStart,
  retained,
} from "../../src/steel/critical.ts";
import {
  carbonFactor,
  clayLine,
  criticalPlate,
  fares,
  idealDiameter,
  idealRoundHalfTime,
  plateHalfTime,
} from "../../src/steel/hardenability.ts";
import { secondsInAir, secondsThrough } from "../../src/steel/heating.ts";
import { carbonDiffusivity, erfc, scaleRate, skinOf } from "../../src/steel/skin.ts";
import { asHoursAt, carbonC, hotterThan, parameterOf } from "../../src/steel/temper.ts";

/** The steels that the figures below were worked out for by hand, silicon 0.25. */
const S1084 = { C: 0.865, Mn: 0.75 };
const S1095 = { C: 0.965, Mn: 0.4 };
const S5160 = { C: 0.6, Mn: 0.875, Cr: 0.8 };

describe("critical points", () => {
  test.each([
    ["1084", S1084, 722.2, 756.8],
    ["1095", S1095, 726, 788.2],
    ["5160", S5160, 734.4, 763.9],
  ])("%s", (_, steel, first, all) => {
    expect(ac1(steel)).toBeCloseTo(first, 1);
    expect(austenitic(steel)).toBeCloseTo(all, 1);
  });

  test("martensite starts, and what austenite is left", () => {
    expect(martensiteStart(S1084).linear).toBeCloseTo(150.3, 1);
    expect(martensiteStart(S1084).product).toBeCloseTo(236.1, 1);
    expect(martensiteStart(S5160).linear).toBeCloseTo(248.9, 1);
    expect(martensiteStart(S5160).product).toBeCloseTo(260.3, 1);
    expect(retained(220, 20)).toBeCloseTo(0.1108, 4);
    expect(retained(20, 220)).toBe(1);
  });

  test("what a heat dissolves of the carbon, and where a magnet lets go: short of hardening heat", () => {
    expect(dissolvedAt(S1095, 758.4)).toBeCloseTo(0.77 + 0.1, 9);
    expect(dissolvedAt(S1095, 802)).toBe(0.965);
    expect(dissolvedAt(S1084, 802)).toBe(0.865);
    const [from, to] = magnetLetsGo(S1084);
    expect(from).toBeCloseTo(722.2, 0);
    expect(to - from).toBeCloseTo(30, 9);
    expect(magnetLetsGo(S5160)[1]).toBeCloseTo(764.4, 0);
  });
});

describe("hardenability", () => {
  test.each([
    ["1084", 32.9, 25.5, 40.6],
    ["1095", 22.3, 18, 27],
  ])("%s has an ideal diameter of %d, from %d to %d by its standard", (grade, middle, low, high) => {
    const span = spanOf(grade, idealDiameter)!;
    expect(span.middle).toBeCloseTo(middle, 1);
    expect(span.low).toBeCloseTo(low, 1);
    expect(span.high).toBeCloseTo(high, 1);
  });

  test("5160 goes through in the round at 83.6", () => {
    expect(idealDiameter(S5160)).toBeCloseTo(83.6, 1);
  });

  /** Source: ASTM A255's table of carbon factors, from memory of. */
  test.each([
    [0.4, 0.213],
    [0.6, 0.262],
    [0.8, 0.303],
    [0.9, 0.321],
  ])("carbon of %d has the factor %d", (C, factor) => {
    expect(Math.abs(carbonFactor(C) - factor)).toBeLessThan(0.0011);
  });

  test("the factor steps less than 0.6 % at its seams", () => {
    for (const seam of [0.39, 0.55, 0.65, 0.75, 0.9])
      expect(Math.abs(carbonFactor(seam + 1e-9) / carbonFactor(seam) - 1)).toBeLessThan(0.006);
  });

  test("the thickest plate that goes through in oil: 1084 5.80 and 3.62, 1095 2.77 and 1.69", () => {
    expect(criticalPlate(idealDiameter(S1084), 0.5)).toBeCloseTo(5.8, 2);
    expect(criticalPlate(idealDiameter(S1084), 0.3)).toBeCloseTo(3.62, 2);
    expect(criticalPlate(idealDiameter(S1095), 0.5)).toBeCloseTo(2.77, 2);
    expect(criticalPlate(idealDiameter(S1095), 0.3)).toBeCloseTo(1.69, 2);
    expect([fares(1.6), fares(1), fares(0.3)]).toEqual([
      "usually through",
      "the file decides",
      "usually not",
    ]);
  });

  /** Source: the series for a plate and a round, worked out apart: an ideal plate is 0.7290 of its round. */
  test("in the ideal quench a plate is 0.7290 of the round", () => {
    let [low, high] = [0.1, 2];
    for (let i = 0; i < 60; i++) {
      const middle = (low + high) / 2;
      if (plateHalfTime(middle, 1e7) > idealRoundHalfTime(1)) high = middle;
      else low = middle;
    }
    expect(low).toBeCloseTo(0.729, 3);
  });

  /** Source: a plate solved in finite differences across it, cooled through a film on both faces. */
  test("a plate's half-time agrees with one solved in slices", () => {
    for (const [thick, H] of [
      [0.2, 0.5],
      [0.5, 0.8],
    ] as const) {
      const cells = 40;
      const dx = thick / 2 / cells;
      const T = Array.from({ length: cells }, () => 1);
      const dt = 0.3 * dx * dx;
      let time = 0;
      while (T[0]! > 0.5) {
        const before = [...T];
        for (let i = 0; i < cells; i++) {
          const left = i > 0 ? before[i - 1]! - before[i]! : 0;
          // Half a cell of steel and the film in line: H for each inch, twice as H is half of h/k.
          const right =
            i < cells - 1 ? before[i + 1]! - before[i]! : (-before[i]! * dx) / (dx / 2 + 1 / (2 * H));
          T[i] = before[i]! + (dt * (left + right)) / (dx * dx);
        }
        time += dt;
      }
      expect(Math.abs(plateHalfTime(thick, H) / time - 1)).toBeLessThan(0.02);
    }
  });

  test("a clay line: the worse of manganese and of how deep it hardens", () => {
    expect(clayLine({ C: 0.965, Mn: 0.22 })).toBe("clear");
    expect(clayLine({ C: 0.965, Mn: 0.4 })).toBe("weak");
    expect(clayLine(S1084)).toBe("poor");
    expect(clayLine({ C: 0.965, Mn: 0.3, Cr: 0.5 })).toBe("poor");
  });
});

describe("the skin", () => {
  test("diffusion and scale, and how deep nine tenths of the carbon are gone", () => {
    expect(carbonDiffusivity(900) / 5.91e-12).toBeCloseTo(1, 2);
    expect(Math.sqrt(2 * scaleRate(1000) * 3600) * 1000).toBeCloseTo(0.1266, 3);
    const once = skinOf([{ celsius: 802, minutes: 10 }], 722);
    expect(once.scale).toBeCloseTo(0.0107, 4);
    expect(once.ratio).toBeCloseTo(0.1801, 3);
    expect(once.depth).toBeCloseTo(0.0739, 3);
    const after = skinOf(
      [870, 830, 790, 802].map((celsius) => ({ celsius, minutes: 10 })),
      722,
    );
    expect(after.depth).toBeCloseTo(0.1821, 3);
  });

  test("heats below Ac1 and none at all take nothing; foil saves nine tenths", () => {
    expect(skinOf([{ celsius: 600, minutes: 600 }], 722).depth).toBe(0);
    const [air, foil] = (["air", "foil"] as const).map(
      (one) => skinOf([{ celsius: 900, minutes: 30 }], 722, one).depth,
    );
    expect(foil! / air!).toBeCloseTo(0.1, 9);
  });

  /** Source: carbon below a surface that scale eats into, solved in finite differences. */
  test("the carbon below a face that scales away, solved in slices, is gone as deep", () => {
    const [D, k, seconds] = [carbonDiffusivity(900), scaleRate(900), 1800];
    const dx = 2e-6;
    const cells = 400;
    const C = Array.from({ length: cells }, () => 1);
    const dt = (0.4 * dx * dx) / D;
    for (let t = 0; t < seconds; t += dt) {
      const lost = Math.sqrt(2 * k * (t + dt));
      const before = [...C];
      for (let i = 1; i < cells - 1; i++)
        C[i] = before[i]! + ((D * dt) / (dx * dx)) * (before[i - 1]! - 2 * before[i]! + before[i + 1]!);
      for (let i = 0; i * dx <= lost; i++) C[i] = 0;
    }
    const i = C.findIndex((value) => value > 0.9);
    const at = (i - 1 + (0.9 - C[i - 1]!) / (C[i]! - C[i - 1]!)) * dx * 1000;
    expect(Math.abs(skinOf([{ celsius: 900, minutes: 30 }], 722).depth / at - 1)).toBeLessThan(0.05);
  });

  test("the error function at a few places", () => {
    // Source: Abramowitz and Stegun, table 7.1, from memory of.
    for (const [x, value] of [
      [0, 1],
      [0.5, 0.4795],
      [1, 0.157299],
      [2, 0.004678],
    ] as const)
      expect(erfc(x)).toBeCloseTo(value, 4);
  });
});

describe("warming and cooling", () => {
  test("4 mm is through at 802 after 311 s, at 204 after 889 s", () => {
    expect(secondsThrough(4, 802)).toBeCloseTo(311, 0);
    expect(secondsThrough(4, 204)).toBeCloseTo(889, 0);
    expect(secondsThrough(4, 802, "fan")).toBeLessThan(secondsThrough(4, 802));
  });

  test("from 802 to 727 in air: 1 mm has 3.03 s, 4 mm 12.1 s", () => {
    expect(secondsInAir(1, 802, 727)).toBeCloseTo(3.03, 2);
    expect(secondsInAir(4, 802, 727)).toBeCloseTo(12.1, 1);
  });

  /** Source: the same plate followed second by second. */
  test("followed second by second it is through as soon", () => {
    let [T, latent, time] = [20, 77_000 * 7850 * 0.004, 0];
    const dt = 0.05;
    while (T < 792) {
      const flow = 0.8 * 5.670374419e-8 * ((802 + 273.15) ** 4 - (T + 273.15) ** 4) + 15 * (802 - T);
      const heat = 2 * flow * dt;
      if (T >= 723 && latent > 0) latent -= heat;
      else T += heat / (7850 * 650 * 0.004);
      time += dt;
    }
    expect(Math.abs(secondsThrough(4, 802) / time - 1)).toBeLessThan(0.01);
  });
});

describe("tempers compared", () => {
  const at = (hours: number) => ({ celsius: 204.44, hours });
  const two = [at(1), at(1)];
  test.each([
    [[at(2), at(2)], 7.1, 8.7],
    [[at(1.5)], -2.9, -3.6],
  ])("held against two of an hour", (cycles, usual, byCarbon) => {
    expect(hotterThan(cycles, two, 204.44)).toBeCloseTo(usual, 1);
    expect(hotterThan(cycles, two, 204.44, carbonC(0.865))).toBeCloseTo(byCarbon, 1);
  });

  test("two of two hours at 210 are 6.89 hours at 204.44", () => {
    const cycles = [
      { celsius: 210, hours: 2 },
      { celsius: 210, hours: 2 },
    ];
    expect(asHoursAt(cycles, 204.44)).toBeCloseTo(6.89, 2);
    expect(parameterOf({ celsius: 0, hours: 1 })).toBeCloseTo(273.15 * 20, 9);
    expect(carbonC(0.865)).toBeCloseTo(16.283, 3);
  });
});

describe("grades", () => {
  test("every grade is in the middle of its ranges, and every corner of them is one of its own", () => {
    for (const grade of Object.keys(GRADES)) {
      const middle = middleOf(grade)!;
      expect(middle.Si).toBeGreaterThan(0);
      const corners = cornersOf(grade);
      expect(corners.length).toBe(2 ** Object.keys({ Si: 0, ...GRADES[grade] }).length);
      const span = spanOf(grade, idealDiameter)!;
      expect(span.low).toBeLessThan(span.middle);
      expect(span.high).toBeGreaterThan(span.middle);
    }
    expect(middleOf("unobtainium")).toBeNull();
    expect(spanOf("unobtainium", ac1)).toBeNull();
  });
});
