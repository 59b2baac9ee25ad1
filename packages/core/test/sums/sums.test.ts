import { describe, expect, test } from "vitest";
import { parseBlade } from "../../src/blade/parse.ts";
import { nearestOf } from "../../src/sums/nearest.ts";
import { type Answer, type Given, type Sum, sayIn } from "../../src/sums/sum.ts";
import { findSums, SUMS, sumOf, withUsual } from "../../src/sums/sums.ts";
import { example } from "../examples.ts";

const THOU = 0.0254;
const say = sayIn("mm");
const ask = (key: string, given: Given, by = say): Answer => {
  const sum = sumOf(key)!;
  return sum.answer(withUsual(sum, given), by);
};
const answered = (key: string, given: Given) => {
  const answer = ask(key, given);
  if (answer.state !== "answered") throw new Error(JSON.stringify(answer));
  return answer;
};
const figure = (key: string, given: Given, name: string) => {
  const found = answered(key, given).figures.find((one) => one.name === name);
  if (!found) throw new Error(`${key} tells no ${name}`);
  return found.value;
};

/** Source of every value: the worked values of the trade's own geometry, by hand. */
describe("bevels and edges", () => {
  test("3.175 with a quarter inch of bevel: 14.036° by its height, 14.478° along its face", () => {
    expect(figure("bevel", { thickness: 3.175, climb: 6.35 }, "angle a side")).toBeCloseTo(14.036, 3);
    expect(figure("bevel", { thickness: 3.175, width: 6.35 }, "angle a side")).toBeCloseTo(14.478, 3);
    expect(answered("bevel", { thickness: 3.175, climb: 6.35 }).relations.join()).toContain("14.478°");
  });

  test.each([
    [{ thickness: 3.175, behind: 0.25, angle: 14.1 }, "bevel, high", 5.822],
    [{ thickness: 3.175, behind: 1.27, angle: 14.1 }, "bevel, high", 3.792],
    [{ thickness: 4.48, angle: 11.858 }, "bevel, high", 10.668],
    [{ thickness: 4.48, climb: 9.525 }, "angle a side", 13.234],
    [{ thickness: 3.1, angle: 14.1 }, "bevel, high", 6.171],
  ])("%o: %s %f", (given, name, value) => {
    expect(figure("bevel", given, name)).toBeCloseTo(value, 2);
  });

  test("41 thou with 77 and 56 high: 14.91° and 20.11°, along the face 15.44° and 21.47°; at 56 29.8 beside 41", () => {
    const given = { behind1: 41 * THOU, height1: 77 * THOU, height2: 56 * THOU };
    expect(figure("compare", given, "first, a side")).toBeCloseTo(14.91, 2);
    expect(figure("compare", given, "second, a side")).toBeCloseTo(20.11, 2);
    expect(figure("compare", given, "first, were its height along the face")).toBeCloseTo(15.44, 2);
    expect(figure("compare", given, "second, were its height along the face")).toBeCloseTo(21.47, 2);
    const at = say.length(56 * THOU);
    expect(figure("compare", given, `first, ${at} up`) / THOU).toBeCloseTo(29.8, 1);
    expect(figure("compare", given, `second, ${at} up`) / THOU).toBeCloseTo(41, 1);
  });

  test("3.175 at 14.1° is nothing 6.320 up: as high as 8 it is refused, and that is offered", () => {
    const refused = ask("bevel", { thickness: 3.175, climb: 8, angle: 14.1 });
    expect(refused).toMatchObject({
      state: "impossible",
      nearest: { words: "At 14.100° it is nothing 6.320 mm up.", given: { climb: expect.closeTo(6.32, 3) } },
    });
    expect(ask("bevel", { thickness: 3.175, climb: 6, angle: 14.1 }).state).toBe("answered");
  });

  test("an edge: 0.508 at 19° is 0.738 high; 41.5 thou over 1.9558 is 15.08°, by its face 15.63°", () => {
    expect(figure("edge", { behind: 0.508, angle: 19 }, "edge bevel, high")).toBeCloseTo(0.738, 3);
    expect(figure("edge", { behind: 1.0541, height: 1.9558 }, "edge angle a side")).toBeCloseTo(15.08, 2);
    expect(figure("edge", { behind: 1.0541, width: 1.9558 }, "edge angle a side")).toBeCloseTo(15.63, 2);
    expect(figure("edge", { behind: 0.254, angle: 19 }, "edge bevel, along the face")).toBeCloseTo(0.39, 3);
  });

  test("believed 5°, 25 thou 2.407 up: the mean is 7.5°, the other face 10° if one is 5°", () => {
    const given = { thickness: 25 * THOU, height: 2.407, believed: 5 };
    expect(figure("believed", given, "mean of both faces")).toBeCloseTo(7.51, 2);
    expect(figure("believed", given, "the other face, if one is as believed")).toBeCloseTo(10, 1);
  });

  test("the wedge's thicknesses, and the purposes it keeps the limits of", () => {
    const given = { thickness: 4, behind: 0.5, angle: 5 };
    // 0.5 + 2 (5 − 0.25/tan 20°) tan 5°.
    const up = 0.25 / Math.tan(Math.PI / 9);
    const slope = Math.tan((5 * Math.PI) / 180);
    expect(figure("wedge", given, `${say.length(5)} above the edge`)).toBeCloseTo(
      0.5 + 2 * (5 - up) * slope,
      4,
    );
    expect(answered("wedge", given).notes!.join()).toMatch(/field knife/);
  });
});

describe("hollow and convex faces", () => {
  const stock = { thickness: 4.572, behind: 0.254 };
  test.each([
    [50.8, 10.25],
    [203.2, 20.83],
    [254, 23.32],
    [355.6, 27.62],
  ])("wheel %f: the tallest hollow is %f", (wheel, tallest) => {
    expect(figure("hollow", { ...stock, wheel }, "tallest before it necks")).toBeCloseTo(tallest, 2);
  });

  test("20 high on a 203.2 wheel: chord 6.161°, 0.48° at the edge, 11.84° at the line", () => {
    const given = { ...stock, wheel: 203.2, climb: 20 };
    expect(figure("hollow", given, "chord, a side")).toBeCloseTo(6.161, 3);
    expect(figure("hollow", given, "tangent at the edge")).toBeCloseTo(0.48, 2);
    expect(figure("hollow", given, "tangent at the line")).toBeCloseTo(11.84, 2);
  });

  test("set by its chord in a jig it is as high as the chord asks: 6.161° is 20", () => {
    const given = { ...stock, wheel: 203.2, chord: 6.161 };
    expect(figure("hollow", given, "along the chord")).toBeCloseTo(20.116, 2);
    expect(figure("hollow", given, "tangent at the line")).toBeCloseTo(11.84, 2);
  });

  test("25 high it necks: refused, with the tallest; the tallest itself, rounded up, is not", () => {
    const refused = ask("hollow", { ...stock, wheel: 203.2, climb: 25 });
    expect(refused).toMatchObject({
      state: "impossible",
      nearest: { given: { climb: 20.83 } },
    });
    expect(ask("hollow", { ...stock, wheel: 203.2, climb: 20.83 }).state).toBe("answered");
    // Half of the last figure a maker types is let pass, and no more. Source: geometry, √(2Rs − s²).
    const s = (stock.thickness - stock.behind) / 2;
    const tallest = Math.sqrt(203.2 * s - s ** 2);
    expect(ask("hollow", { ...stock, wheel: 203.2, climb: tallest + 0.0049 }).state).toBe("answered");
    expect(ask("hollow", { ...stock, wheel: 203.2, climb: tallest + 0.0051 }).state).toBe("impossible");
  });

  /** Source: geometry, a circle's arc leaves its chord by 2 atan(2b/c) at either end. */
  test("a convex face leaves its chord by as much at both ends", () => {
    const given = { thickness: 4, climb: 20, bulge: 0.15 };
    const chord = Math.atan(2 / 20);
    const apart = 2 * Math.atan((2 * 0.15) / Math.hypot(20, 2));
    expect(figure("convex", given, "tangent at the edge, a side")).toBeCloseTo(
      ((chord + apart) * 180) / Math.PI,
      2,
    );
    expect(figure("convex", given, "tangent at the line")).toBeCloseTo(((chord - apart) * 180) / Math.PI, 2);
  });
});

describe("scribing and growing", () => {
  test("gauge 2.00 on 4.48: 0.48 apart, they meet at 4.00; on a taper so far along", () => {
    expect(figure("gauge", { thickness: 4.48, setting: 2 }, "gap of the lines")).toBeCloseTo(0.48, 6);
    expect(figure("gauge", { thickness: 4.48, setting: 2 }, "the lines meet where it is thick")).toBe(4);
    const taper = { thickness: 4.24, setting: 2, tip: 3.8, along: 110 };
    expect(figure("gauge", taper, "gap at the far end")).toBeCloseTo(-0.2, 4);
    expect(figure("gauge", taper, "they meet so far along")).toBeCloseTo(60, 6);
    expect(figure("gauge", { thickness: 4.42, gap: 0.254 }, "gauge at")).toBeCloseTo(2.083, 3);
  });

  test("a drill of 3.175 on 3.175 scribes one line, on 2.921 two 0.254 apart", () => {
    expect(figure("drill", { thickness: 3.175, drill: 3.175 }, "lines apart")).toBeCloseTo(0, 6);
    expect(figure("drill", { thickness: 2.921, drill: 3.175 }, "lines apart")).toBeCloseTo(0.254, 6);
  });

  test("1.27 to leave with lines 0.48 apart on 4.48: 0.395 outside, 8.0 % still on", () => {
    const given = { thickness: 4.48, edge: 1.27, gap: 0.48 };
    expect(figure("leave", given, "stop outside each line")).toBeCloseTo(0.395, 6);
    expect(figure("leave", given, "of a bevel to nothing still on")).toBeCloseTo(8.04, 2);
    expect(figure("leave", { thickness: 3.175, edge: 1.27 }, "of a bevel to nothing still on")).toBeCloseTo(
      16,
      6,
    );
  });

  test.each([
    [1.35, 3.5, 6.883],
    [1.27, 5, 4.355],
    [1.75, 10, 3.522],
    [1.27, 14.1, 1.517],
  ])("from %f to 0.508 at %f°: the line climbs %f", (now, angle, climbs) => {
    expect(figure("growth", { now, last: 0.508, angle }, "the line climbs by")).toBeCloseTo(climbs, 3);
  });

  test("1° out of square on 3.175 at 14.1°: 6.822 against 5.884; 0.127 off centre 1.011 apart", () => {
    const given = { thickness: 3.175, angle: 14.1, off: 1 };
    expect(figure("square", given, "grind lines apart")).toBeCloseTo(0.938, 3);
    expect(figure("square", given, "the flatter side's line")).toBeCloseTo(6.822, 3);
    expect(figure("centre", { off: 0.127, angle: 14.1 }, "grind lines apart")).toBeCloseTo(1.011, 3);
    expect(figure("centre", { off: 0.127, angle: 3.5, thickness: 3 }, "grind lines apart")).toBeCloseTo(
      4.153,
      3,
    );
    expect(figure("centre", { off: 0.127, angle: 14.1 }, "centring takes off one face")).toBeCloseTo(
      0.254,
      9,
    );
  });
});

describe("setting, tapering, the bench", () => {
  test("14.1° on a 150 screw: 37.68 by tangent, 36.54 by sine; and back", () => {
    const given = { kind: "screw", far: 150, angle: 14.1 };
    expect(figure("jig", given, "by tangent")).toBeCloseTo(37.68, 2);
    expect(figure("jig", given, "by sine")).toBeCloseTo(36.54, 2);
    expect(
      figure("jig", { kind: "screw", far: 150, by: "sine", reading: 36.54 }, "a side is held at"),
    ).toBeCloseTo(14.1, 2);
  });

  test("a rest, an arm with its own zero, a stone's lift", () => {
    expect(answered("jig", { kind: "rest", angle: 19 }).figures[0]!.value).toBeCloseTo(71, 9);
    expect(answered("jig", { kind: "arm", zero: 56, angle: 5 }).figures[0]!.value).toBeCloseTo(61, 9);
    expect(answered("jig", { kind: "stone", width: 30, angle: 19 }).figures[0]!.value).toBeCloseTo(
      30 * Math.sin((19 * Math.PI) / 180),
      6,
    );
    expect(ask("jig", { kind: "screw", angle: 14 })).toMatchObject({ state: "wanting" });
    expect(ask("jig", { kind: "screw", far: 150, by: "sine", reading: 400 })).toMatchObject({
      state: "impossible",
    });
  });

  test("a machine's 25°, asked back", () => {
    expect(figure("said", { said: 25, as: "inclusive" }, "a side")).toBe(12.5);
    expect(figure("said", { said: 71, as: "square" }, "inclusive")).toBe(38);
  });

  test("a taper in between; one setting along it", () => {
    expect(
      figure("taper", { from: 4, to: 2, length: 160, at: 40 }, `thick ${say.length(40)} along`),
    ).toBeCloseTo(3.5, 6);
    expect(figure("taper", { from: 4, to: 2, length: 160 }, "by every 100 mm")).toBeCloseTo(-1.25, 9);
    const given = { heel: 4.48, tip: 2, behind: 0, angle: 11.858 };
    const [heel, tip] = [4.48 - 0.05 * 2.48, 4.48 - 0.95 * 2.48];
    const tan = Math.tan((11.858 * Math.PI) / 180);
    expect(figure("one-setting", given, "line at the heel")).toBeCloseTo(heel / 2 / tan, 3);
    expect(figure("one-setting", given, "at the tip")).toBeCloseTo(tip / 2 / tan, 3);
    const kept = { ...given, line: 9.525 };
    expect(figure("one-setting", kept, "line kept level, at the heel")).toBeCloseTo(
      (Math.atan(heel / 2 / 9.525) * 180) / Math.PI,
      2,
    );
  });

  test("steel to a zero bevel on 3.175 at 14.1°: 10.03 mm², 7.88 g for 100 mm", () => {
    const given = { thickness: 3.175, angle: 14.1 };
    expect(figure("removed", given, "section removed, both sides")).toBeCloseTo(10.03, 2);
    expect(figure("removed", given, "by every 100 mm of edge")).toBeCloseTo(7.88, 2);
    // Stopped at 1.27 the two triangles above it: (T − e)²/(4 tan β).
    expect(figure("removed", { ...given, edge: 1.27 }, "section removed, both sides")).toBeCloseTo(
      1.905 ** 2 / 4 / Math.tan((14.1 * Math.PI) / 180),
      3,
    );
  });

  test("grits, temperatures, lengths by name, fingers", () => {
    expect(figure("grits", { grade: "120" }, "mean grain")).toBe(125);
    expect(ask("grits", { grade: "130" })).toMatchObject({
      state: "impossible",
      nearest: { given: { grade: "P120" } },
    });
    expect(figure("temperature", { celsius: 200 }, "Fahrenheit")).toBe(392);
    expect(figure("temperature", { fahrenheit: 1500 }, "Celsius")).toBeCloseTo(815.6, 1);
    const inches = answered("lengths", { named: "drill F" }).figures.find(({ name }) => name === "inches")!;
    expect(inches.words).toBe("0.2570 in");
    expect(
      answered("lengths", { length: 4.7625 }).figures.find(({ name }) => name === "nearest 64th")!.words,
    ).toBe("3/16 in, exactly");
    expect(figure("fingers", { hand: 84, place: 42 }, "fingers")).toBe(2);
    for (const hand of [39, 151])
      expect(ask("fingers", { hand, place: 42 }), `${hand}`).toMatchObject({ state: "impossible" });
    for (const hand of [40, 150]) expect(ask("fingers", { hand, place: 42 }).state).toBe("answered");
  });
});

/** One question of each that is answered. */
const ANSWERED: readonly (readonly [string, Given])[] = [
  ["bevel", { thickness: 4, behind: 0.4, angle: 5 }],
  ["edge", { behind: 0.4, angle: 19 }],
  ["compare", { behind1: 0.5, height1: 1, height2: 0.7 }],
  ["believed", { thickness: 0.6, height: 3, believed: 5 }],
  ["hollow", { thickness: 4, behind: 0.4, wheel: 250, climb: 14, worn: 240 }],
  ["convex", { thickness: 4, behind: 0.4, climb: 14, bulge: 0.1 }],
  ["wedge", { thickness: 4, behind: 0.4, angle: 5 }],
  ["gauge", { thickness: 4.2, gap: 0.4, tip: 2, along: 100 }],
  ["drill", { thickness: 4, gap: 0.5 }],
  ["leave", { thickness: 4, edge: 1.2, gap: 0.5, angle: 5 }],
  ["growth", { now: 1.2, last: 0.4, angle: 5, thickness: 4 }],
  ["square", { thickness: 4, angle: 5, off: 0.5 }],
  ["centre", { off: 0.2, angle: 5, thickness: 4, behind: 0.4 }],
  ["jig", { kind: "screw", far: 150, angle: 5, line: 20 }],
  ["said", { said: 25, as: "inclusive" }],
  ["taper", { from: 4, to: 2, length: 150, at: 30 }],
  ["one-setting", { heel: 4, tip: 2, behind: 0.4, angle: 5 }],
  ["removed", { thickness: 4, angle: 5, edge: 0.4 }],
  ["grits", { grade: "P120" }],
  ["lengths", { length: 6.5 }],
  ["temperature", { celsius: 200 }],
  ["fingers", { place: 20 }],
];

describe("what every sum does", () => {
  test.each(SUMS.map((sum) => [sum.key, sum] as const))(
    "%s asks for what it wants while nothing is given",
    (_, sum: Sum) => {
      const answer = sum.answer(withUsual(sum, {}), say);
      expect(answer.state).toBe("wanting");
      if (answer.state === "wanting") expect(answer.why).toMatch(/^[A-Z].*\.$/);
      expect(new Set(sum.asks.map(({ key }) => key)).size).toBe(sum.asks.length);
    },
  );

  test("what was asked is told large, and what was given is not", () => {
    for (const [key, given] of ANSWERED)
      expect(
        answered(key, given).figures.some(({ isMain }) => isMain),
        key,
      ).toBe(true);
    const large = (key: string, given: Given) =>
      answered(key, given).figures.flatMap(({ name, isMain }) => (isMain ? [name] : []));
    expect(large("bevel", { thickness: 4, behind: 0.4, angle: 5 })).toEqual([
      "bevel, high",
      "bevel, along the face",
    ]);
    expect(large("bevel", { thickness: 4, behind: 0.4, climb: 20 })).toEqual(["angle a side"]);
    expect(large("centre", { off: 0.2, angle: 5 })).toEqual([
      "grind lines apart",
      "centring takes off one face",
    ]);
  });

  test("tells no two figures by one name", () => {
    for (const [key, given] of ANSWERED) {
      const names = answered(key, given).figures.map(({ name }) => name);
      expect(names, key).toEqual([...new Set(names)]);
    }
    expect(ANSWERED.map(([key]) => key).sort()).toEqual(SUMS.map(({ key }) => key).sort());
  });

  test("is found by what a maker would type", () => {
    expect(findSums("quarter inch bevel")[0]!.key).toBe("bevel");
    expect(findSums("scribe").map(({ key }) => key)).toEqual(expect.arrayContaining(["gauge", "drill"]));
    expect(findSums("too thick behind").map(({ key }) => key)).toEqual(expect.arrayContaining(["wedge"]));
    expect(findSums("tallest hollow")[0]!.key).toBe("hollow");
    expect(findSums("")).toEqual(SUMS);
    expect(findSums("zzz")).toEqual([]);
  });

  test("is put into another blade, which stays sound", () => {
    for (const [key, given] of [
      ["bevel", { thickness: 4, behind: 0.4, angle: 5 }],
      ["edge", { behind: 0.4, angle: 19 }],
      ["hollow", { thickness: 4, behind: 0.4, wheel: 250, climb: 14 }],
      ["convex", { thickness: 4, climb: 14, bulge: 0.1 }],
    ] as const) {
      const copy = structuredClone(example("field"));
      copy.thickness = [{ x: 0, t: 4 }];
      answered(key, given).put!(copy);
      const parsed = parseBlade(copy);
      expect(parsed.ok ? [] : parsed.faults).toEqual([]);
    }
  });

  test("relations are written in the unit on show", () => {
    const inInches = ask("gauge", { thickness: 4.7625, setting: 2 }, sayIn("inch"));
    if (inInches.state !== "answered") throw new Error("not answered");
    expect(inInches.relations.join()).toContain("0.1875 in");
  });
});

describe("the nearest that is possible", () => {
  const nearest = (key: string, given: Given) => nearestOf(sumOf(key)!, withUsual(sumOf(key)!, given), say);

  test("moves one figure as little as will do, to what a maker would type, and answers with it", () => {
    // An edge of 5 on stock of 4: the edge a little thinner than the stock.
    expect(nearest("leave", { thickness: 4, edge: 5 })).toEqual({
      words: expect.stringMatching(/^With (edge to leave|thick at the top) \d\.\d+ mm it can be\.$/),
      given: expect.anything(),
    });
    for (const [key, given] of [
      ["leave", { thickness: 4, edge: 5 }],
      ["growth", { now: 0.4, last: 0.6, angle: 5 }],
      ["wedge", { thickness: 4, behind: 4.5, angle: 5 }],
      ["wedge", { thickness: 4, behind: 0.4, angle: 25 }],
      ["one-setting", { heel: 4, tip: 0.3, behind: 0.4, angle: 5 }],
      ["bevel", { thickness: 3, behind: 3.2, angle: 5 }],
      ["jig", { kind: "rest", angle: 75 }],
    ] as const) {
      expect(ask(key, given).state, key).toBe("impossible");
      const near = nearest(key, given);
      expect(near, key).toBeDefined();
      expect(ask(key, { ...given, ...near!.given }).state, key).toBe("answered");
    }
  });

  test("where no one figure does it there is none", () => {
    expect(nearest("grits", { grade: "none" })).toBeUndefined();
  });
});
