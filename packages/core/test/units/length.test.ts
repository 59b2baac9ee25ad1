import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { parseAngle, showAngle } from "../../src/units/angle.ts";
import {
  LENGTH_UNITS,
  type LengthUnit,
  MILLIMETRES_IN,
  parseLength,
  showForTyping,
  showFraction,
  showLength,
  showLengthWithUnit,
} from "../../src/units/length.ts";

const mmOf = (text: string, unit: LengthUnit = "mm") => {
  const read = parseLength(text, unit);
  return read.ok ? read.mm : read.why;
};

describe("a length box takes what a maker says", () => {
  test.each([
    ["4.5", "mm", 4.5],
    ["4,5 mm", "mm", 4.5],
    ["3/16", "mm", 4.7625],
    ['0.187"', "mm", 4.7498],
    ["60 thou", "mm", 1.524],
    ["1 1/4 in", "mm", 31.75],
    ["1-1/4 in", "mm", 31.75],
    [".041", "inch", 1.0414],
    ["41.5", "thou", 1.0541],
    ["-2", "mm", -2],
    ["  7  mm ", "inch", 7],
    ["5/32″", "mm", 3.96875],
    ["0,125", "mm", 0.125],
    ["1,125", "mm", 1.125],
    [",5", "mm", 0.5],
    ["1,125 in", "thou", 28.575],
    ["41,5", "thou", 1.0541],
  ] as const)("%s in a %s box is %f mm", (text, unit, mm) => {
    expect(mmOf(text, unit)).toBeCloseTo(mm, 9);
  });

  test.each([
    "",
    "abc",
    "1/0",
    "1 2",
    "4 1.5 in",
    "3 furlongs",
    "1,500 thou",
    "1,2,3",
    "1e400",
    "--3",
    "1/2/3",
    "NaN",
    "4.5.6",
  ])("“%s” is refused in words", (text) => {
    const said = parseLength(text, "mm");
    expect(said.ok).toBe(false);
    expect(said.ok ? "" : said.why).toMatch(/\w.*\.$/);
  });

  test("in thousandths a comma before three figures is asked back: it may part thousands", () => {
    expect(mmOf("1,250", "thou")).toMatch(/two things in thousandths/);
    expect(mmOf("0,250", "thou")).toBeCloseTo(0.00635, 9);
  });

  test("in thousandths, what is longer than an inch is shown in inches, and typed back as it is shown", () => {
    expect(showLength(25.4, "thou")).toBe("1000.0");
    expect(showLength(63.5, "thou")).toBe("2.500″");
    expect(showLengthWithUnit(63.5, "thou")).toBe("2.500 in");
    expect(showLengthWithUnit(-63.5, "thou", 0)).toBe("-2.500 in");
    expect(showForTyping(63.5, "thou")).toBe('2.5"');
    expect(mmOf(showForTyping(63.5, "thou"), "thou")).toBeCloseTo(63.5, 9);
    expect(mmOf(showLength(63.5, "thou"), "thou")).toBeCloseTo(63.5, 9);
  });

  test("any length survives being shown and typed back, to the last place shown", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -500, max: 500, noNaN: true }),
        fc.constantFrom(...LENGTH_UNITS),
        (mm, unit) => {
          const step = unit === "mm" ? 0.01 : unit === "inch" ? 0.0254 : 0.00254;
          expect(Math.abs((mmOf(showLengthWithUnit(mm, unit)) as number) - mm)).toBeLessThanOrEqual(
            step / 2 + 1e-9,
          );
          expect(Math.abs((mmOf(showForTyping(mm, unit), unit) as number) - mm)).toBeLessThan(0.0003);
        },
      ),
    );
  });

  test("any fraction of an inch survives, and says how far off it is", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 300, noNaN: true }), (mm) => {
        const { text, off } = showFraction(mm);
        expect(Math.abs(off)).toBeLessThanOrEqual(25.4 / 128 + 1e-9);
        expect((mmOf(`${text} in`) as number) + off).toBeCloseTo(mm, 9);
      }),
    );
    expect(showFraction(4.7625).text).toBe("3/16");
    expect(showFraction(4.7625).off).toBeCloseTo(0, 12);
    expect(showFraction(-31.75).text).toBe("-1 1/4");
  });

  test("shown without a minus before nothing", () => {
    expect(showLength(-0.001, "mm")).toBe("0.00");
    expect(showLength(3.175, "inch")).toBe("0.125");
    expect(MILLIMETRES_IN.inch / MILLIMETRES_IN.thou).toBeCloseTo(1000, 9);
  });
});

describe("angles", () => {
  test.each([
    ["18", 18],
    ["18°", 18],
    ["18 dps", 18],
    ["36 incl", 18],
    ["14,5", 14.5],
    ["-10", -10],
  ])("%s is %f° a side", (text, wanted) => {
    const read = parseAngle(text);
    expect(read.ok && read.degrees).toBe(wanted);
  });

  test.each(["", "steep", "12 %", "1 2"])("“%s” is refused", (text) => {
    expect(parseAngle(text).ok).toBe(false);
  });

  test("shown with its places kept", () => {
    expect(showAngle(18)).toBe("18.0°");
    expect(showAngle(-0.01)).toBe("0.0°");
  });
});
