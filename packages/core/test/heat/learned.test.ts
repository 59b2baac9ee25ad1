import jstat from "jstat";
import { linearRegression, linearRegressionLine, mean } from "simple-statistics";
import { describe, expect, test } from "vitest";
import { bracketOf, hardnessAfter, hotterFor, pointsOf, skinFactor } from "../../src/heat/learned.ts";
import type { Hardened } from "../../src/heat/shop.ts";
import { fares } from "../../src/steel/hardenability.ts";
import { parameterOf } from "../../src/steel/temper.ts";

/** The chapter's four: tempered once each, read. */
const FOUR = [
  { celsius: 177, hours: 2, HRC: 62.5 },
  { celsius: 204.44, hours: 2, HRC: 60.5 },
  { celsius: 204.44, hours: 4, HRC: 60.0 },
  { celsius: 232, hours: 2, HRC: 58.0 },
];
const record = (n: number, more: Partial<Hardened>): Hardened => ({
  blade: `blade-${n}`,
  when: "2026-01-01T10:00:00Z",
  steel: "1084",
  T: 802,
  ...more,
});

describe("hardness by this shop's own readings", () => {
  test("218 °C for two hours after four of them: 59.30 ± 1.02", () => {
    const said = hardnessAfter(FOUR, { celsius: 218, hours: 2 });
    if (said.kind !== "fit") throw new Error(said.kind);
    expect(said.HRC).toBeCloseTo(59.3, 2);
    expect(said.give).toBeCloseTo(1.02, 2);
  });

  // Sources: simple-statistics for the line, jstat for Student's t; the interval as any handbook of statistics has it.
  test("agrees with a statistics library on a hundred made-up shops", () => {
    let seed = 7;
    const draw = () => {
      seed = (seed * 16807) % 2147483647;
      return seed / 2147483647;
    };
    for (let shop = 0; shop < 100; shop++) {
      const points = Array.from({ length: 4 + Math.floor(8 * draw()) }, (_, i) => {
        const celsius = i === 0 ? 170 : i === 1 ? 240 : 170 + 70 * draw();
        return { celsius, hours: 1 + 3 * draw(), HRC: 66 - (celsius - 150) / 12 + draw() };
      });
      const at = { celsius: 180 + 50 * draw(), hours: 2 };
      const said = hardnessAfter(points, at);
      if (said.kind !== "fit") throw new Error(said.kind);
      const pairs = points.map((point) => [parameterOf(point), point.HRC]);
      const line = linearRegression(pairs);
      const P = pairs.map(([p]) => p!);
      const rest = pairs.reduce((sum, [p, HRC]) => sum + (HRC! - linearRegressionLine(line)(p!)) ** 2, 0);
      const s = Math.sqrt(rest / (P.length - 2));
      const around = P.reduce((sum, p) => sum + (p - mean(P)) ** 2, 0);
      const reach = Math.sqrt(1 + 1 / P.length + (parameterOf(at) - mean(P)) ** 2 / around);
      expect(said.HRC).toBeCloseTo(linearRegressionLine(line)(parameterOf(at)), 6);
      expect(said.slope).toBeCloseTo(line.m, 9);
      expect(said.give).toBeCloseTo(jstat.studentt.inv(0.975, P.length - 2) * s * reach, 5);
    }
  });

  test("two or three give the nearest, one nothing; far beyond what was read nothing either", () => {
    expect(hardnessAfter(FOUR.slice(0, 1), { celsius: 200, hours: 2 }).kind).toBe("none");
    const near = hardnessAfter(FOUR.slice(0, 3), { celsius: 180, hours: 2 });
    expect(near.kind === "nearest" && near.nearest.HRC).toBe(62.5);
    // Four, but all within 30 °C.
    const close = FOUR.map((point) => ({ ...point, celsius: 200 + point.HRC / 10 }));
    expect(hardnessAfter(close, { celsius: 205, hours: 2 }).kind).toBe("nearest");
    expect(hardnessAfter(FOUR, { celsius: 241, hours: 2 }).kind).toBe("fit");
    expect(hardnessAfter(FOUR, { celsius: 243, hours: 2 }).kind).toBe("beyond");
    expect(hardnessAfter(FOUR, { celsius: 166, hours: 2 }).kind).toBe("beyond");
  });

  test("too hard by so much is so much hotter: what that leaves is what was wanted", () => {
    const at = { celsius: 204.44, hours: 2 };
    const said = hardnessAfter(FOUR, at);
    if (said.kind !== "fit") throw new Error(said.kind);
    const more = hotterFor(1.5, at, said);
    const after = hardnessAfter(FOUR, { ...at, celsius: at.celsius + more });
    expect(after.kind === "fit" && after.HRC).toBeCloseTo(said.HRC - 1.5, 6);
    expect(hotterFor(1.5, at, hardnessAfter([], at))).toBe(10);
  });

  test("counts what was hardened from about there, of that steel, its cycles as one", () => {
    const tempers = [
      { celsius: 204, hours: 2 },
      { celsius: 204, hours: 2 },
    ];
    const records = [
      record(1, { tempers, HRC: 60 }),
      record(2, { tempers, HRC: 61, T: 813 }),
      record(3, { tempers, HRC: 61, steel: "1095" }),
      record(4, { tempers }),
      record(5, { HRC: 65 }),
    ];
    const points = pointsOf(records, "1084", 802);
    expect(points).toHaveLength(1);
    expect(points[0]!.hours).toBeCloseTo(4, 9);
  });
});

describe("sections by this shop's own files", () => {
  const filed = (...said: [number, boolean][]) =>
    bracketOf(said.map(([q, isThrough], i) => record(i, { q, isThrough })));

  test("starting values until three have said; then the lowest that went through and the highest that did not", () => {
    expect(filed([0.9, true], [0.5, false])).toEqual({ through: 1.5, not: 0.4, count: 2 });
    const own = filed([0.9, true], [1.3, true], [0.5, false], [0.3, false]);
    expect(own).toEqual({ through: 0.9, not: 0.5, count: 4 });
    expect([1, 0.7, 0.45].map((q) => fares(q, own))).toEqual([
      "usually through",
      "the file decides",
      "usually not",
    ]);
  });

  test("where they cross, the file decides between them; where none failed, the starting value stands", () => {
    expect(filed([0.6, true], [0.9, false], [1.4, true])).toEqual({ through: 0.9, not: 0.6, count: 3 });
    expect(filed([0.6, true], [0.9, true], [1.4, true])).toEqual({ through: 0.6, not: 0.4, count: 3 });
    expect(filed([0.2, false], [0.3, false], [0.35, false])).toEqual({
      through: 1.5,
      not: 0.35,
      count: 3,
    });
  });
});

test("skins: the geometric mean of read over reckoned in that air, from three on", () => {
  const skin = (read: number, air: "air" | "foil" = "air") => ({ skin: { read, reckoned: 0.1, air } });
  const two = [record(1, skin(0.2)), record(2, skin(0.05)), record(3, skin(0.9, "foil"))];
  expect(skinFactor(two, "air")).toMatchObject({ times: 1, count: 2 });
  const three = [...two, record(4, skin(0.1))];
  expect(skinFactor(three, "air").times).toBeCloseTo(1, 9);
  expect(skinFactor([...three, record(5, skin(0.2))], "air").times).toBeCloseTo(2 ** 0.25, 9);
  expect(skinFactor(three, "air").range).toEqual([0.5, 2]);
});
