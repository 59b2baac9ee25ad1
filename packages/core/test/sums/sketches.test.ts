import { describe, expect, test } from "vitest";
import type { Mark, Sketch } from "../../src/sums/sketch.ts";
import { type Answer, type Given, sayIn } from "../../src/sums/sum.ts";
import { sumOf, withUsual } from "../../src/sums/sums.ts";

const say = sayIn("mm");
const answered = (key: string, given: Given) => {
  const sum = sumOf(key)!;
  const answer: Answer = sum.answer(withUsual(sum, given), say);
  if (answer.state !== "answered") throw new Error(JSON.stringify(answer));
  return answer;
};
const sketchOf = (key: string, given: Given): Sketch => answered(key, given).sketch!;

/** How far a mark's line goes across the section, the end that its words stand at left out; how far up; how far out it stands; at which height. */
const OF = {
  across: ({ line: [a, b] }: Mark) => b![0] - a![0] - 1.2,
  up: ({ line: [a, b] }: Mark) => b![1] - a![1],
  gap: ({ line: [a] }: Mark) => 2 * Math.abs(a![0]),
  height: ({ line: [a] }: Mark) => a![1],
};

/** Which measure of each mark is what its words say. */
const SKETCHES: readonly [key: string, given: Given, of: readonly (keyof typeof OF)[]][] = [
  ["bevel", { thickness: 4, behind: 0.5, angle: 12 }, ["across", "across", "up"]],
  ["bevel", { thickness: 3.175, behind: 0, climb: 9 }, ["across", "up"]],
  ["edge", { behind: 0.5, angle: 19 }, ["across", "up"]],
  ["compare", { behind1: 1.04, height1: 1.96, height2: 1.42 }, ["height"]],
  ["believed", { thickness: 2, height: 10 }, ["across", "up"]],
  ["hollow", { thickness: 4, behind: 0.5, wheel: 250 }, ["across", "across", "up"]],
  ["hollow", { thickness: 4, behind: 0.5, wheel: 250, climb: 12 }, ["across", "across", "up"]],
  ["convex", { thickness: 4, behind: 0.5, climb: 25, bulge: 0.4 }, ["across", "across", "up"]],
  ["wedge", { thickness: 4, behind: 0.5, angle: 5 }, ["across", "across", "across"]],
  ["gauge", { thickness: 4, gap: 0.5 }, ["gap"]],
  ["drill", { thickness: 4, drill: 4.5 }, ["gap"]],
  ["leave", { thickness: 4, edge: 1 }, ["gap"]],
  ["growth", { now: 1, angle: 12 }, ["up"]],
  ["square", { thickness: 4, angle: 12, off: 2 }, ["height", "height"]],
  ["centre", { off: 0.2, angle: 12, thickness: 4 }, ["height", "height"]],
  ["removed", { thickness: 3.175, angle: 14.1 }, ["across"]],
];

describe("what is written on a sketch is as long as it is drawn", () => {
  test.each(SKETCHES)("%s of %o", (key, given, of) => {
    const { marks, steel } = sketchOf(key, given);
    const named = marks.filter((mark) => /\d mm/.test(mark.words ?? ""));
    expect(named).toHaveLength(of.length);
    for (const [i, mark] of named.entries())
      expect(OF[of[i]!](mark), mark.words).toBeCloseTo(Number.parseFloat(mark.words!), 2);
    // What is measured across is as wide as the steel there.
    for (const [i, mark] of named.entries()) {
      if (of[i] !== "across") continue;
      const y = mark.line[0]![1];
      expect(widthAt(steel, y), mark.words).toBeCloseTo(Number.parseFloat(mark.words!), 1);
    }
  });

  test("a hollow's tallest is what the sum says, and stands upright on its edge", () => {
    const { figures, sketch } = answered("hollow", { thickness: 4, behind: 0.5, wheel: 250 });
    // √(2·125·1.75 − 1.75²), worked by hand.
    expect(figures[0]!.value).toBeCloseTo(20.843, 3);
    const [, low, high] = sketch!.marks;
    expect(high!.line[1]![1] - low!.line[0]![1]).toBeCloseTo(20.843, 3);
  });

  test("an edge flatter than the hollow's chord, which would take its top off, is refused", () => {
    // The chord: atan(1.75 / 20.843) = 4.80°.
    const at = (edge: number) => {
      const sum = sumOf("hollow")!;
      return sum.answer(withUsual(sum, { thickness: 4, behind: 0.5, wheel: 250, edge }), say);
    };
    expect(at(4.7)).toMatchObject({ state: "impossible", because: expect.stringContaining("chord") });
    const made = at(4.9);
    expect(made.state === "answered" && made.figures[0]!.value).toBeCloseTo(20.843, 3);
  });
});

describe("an angle is drawn as it is", () => {
  test.each([
    ["said", { said: 25, as: "inclusive" }, 12.5],
    ["said", { said: 71, as: "square" }, 19],
    ["jig", { kind: "screw", far: 200, angle: 12 }, 12],
    ["jig", { kind: "rest", angle: 8 }, 8],
  ] as const)("%s of %o", (key, given, degrees) => {
    const { steel, marks } = sketchOf(key, given);
    const [, foot, top] = steel[0]!;
    expect((Math.atan2(top![1], foot![0]) * 180) / Math.PI).toBeCloseTo(degrees, 6);
    const [a, b] = marks[0]!.line;
    expect(marks[0]!.words).toBe(`${degrees.toFixed(2)}°`);
    expect((Math.atan2(b![1], b![0]) * 180) / Math.PI).toBeCloseTo(degrees, 6);
    expect(Math.hypot(...b!)).toBeCloseTo(a![0], 6);
  });
});

describe("one setting along a taper", () => {
  const given = { heel: 4.48, tip: 2, behind: 0, angle: 11.858 };
  const tan = Math.tan((11.858 * Math.PI) / 180);
  const at = (share: number) => (4.48 - share * 2.48) / 2 / tan;

  test("the line runs with the taper: as it is drawn, and from level by as much as it falls", () => {
    const { figures, sketch } = answered("one-setting", given);
    const value = (name: string) => figures.find((one) => one.name === name)!.value;
    expect(value("the line runs from level by")).toBeCloseTo(at(0.05) - at(0.95), 2);
    expect(value("in the middle")).toBeCloseTo(at(0.5), 2);
    const [line, level] = sketch!.marks;
    for (const [x, y] of line!.line) expect(y).toBeCloseTo(at(x / 100), 2);
    expect(level!.line[0]![1]).toBe(level!.line[1]![1]);
    expect(level!.line[0]![1]).toBeCloseTo(at(0.5), 2);
  });

  test("kept level by the stock alone it is as thick all along", () => {
    const { figures } = answered("one-setting", given);
    const value = (name: string) => figures.find((one) => one.name === name)!.value;
    const [heel, tip] = [value("or stock of, at the heel"), value("stock, at the tip")];
    expect(heel).toBeCloseTo(2 * at(0.5) * tan, 1);
    expect(tip).toBeCloseTo(heel, 2);
    expect(value("which changes it by")).toBeCloseTo(Math.max(4.48 - heel, heel - 2), 1);
  });
});

/** How wide the steel is at a height: by the crossings of its outline. */
function widthAt(steel: Sketch["steel"], at: number): number {
  const y = at - 1e-6;
  const crossings = steel.flatMap((ring) =>
    ring.flatMap((a, i) => {
      const b = ring[(i + 1) % ring.length]!;
      return a[1] <= y !== b[1] <= y ? [a[0] + ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1])] : [];
    }),
  );
  return Math.max(...crossings) - Math.min(...crossings);
}
