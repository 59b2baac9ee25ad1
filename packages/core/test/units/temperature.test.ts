import { describe, expect, test } from "vitest";
import { colourAt, colourNamed } from "../../src/units/colours.ts";
import { celsius, fahrenheit, parseTemperature, showTemperature } from "../../src/units/temperature.ts";

describe("temperatures", () => {
  /** Source: the two scales' definition; 1475 °F is 802 °C in the trade's own tables. */
  test.each([
    ["1050", 1050],
    ["1050 C", 1050],
    ["800,5", 800.5],
    ["32F", 0],
    ["1475 °F", 801.667],
    ["-40 f", -40],
  ])("“%s” is %d °C", (text, wanted) => {
    const read = parseTemperature(text);
    expect(read.ok && read.celsius).toBeCloseTo(wanted, 2);
  });

  test.each([
    // Check values of the heat chapter: a colour stands for its range, computed with its middle.
    ["orange", 1000, "orange, 900 to 1100 °C"],
    ["Bright Orange", 1050, "bright orange, 1000 to 1100 °C"],
    ["cherry red", 800, "cherry red, 700 to 900 °C"],
    ["straw", 232, "straw, 217 to 247 °C"],
    ["blue", 293.5, "blue, 288 to 299 °C"],
    ["non-magnetic", 770, "non-magnetic, 770 °C"],
  ])("“%s” is computed with %d °C and shown as %s", (said, middle, shown) => {
    const read = parseTemperature(said);
    expect(read).toEqual({ ok: true, celsius: middle, colour: said.toLowerCase() });
    expect(showTemperature(middle, said.toLowerCase())).toBe(shown);
  });

  test("a temperature is described by the colour whose middle is nearest", () => {
    expect(colourAt(899)?.name).toBe("bright cherry");
    expect(colourAt(802)?.name).toBe("cherry");
    expect(colourAt(226)?.name).toBe("pale straw");
    expect(colourAt(150)).toBeNull();
    expect(colourAt(400)).toBeNull();
    expect(colourNamed("mauve")).toBeNull();
  });

  test("what was typed in °F is shown as typed", () => {
    for (const degrees of [400, 410, 1475, 1925]) {
      const read = parseTemperature(`${degrees} F`);
      expect(read.ok && showTemperature(read.celsius)).toContain(`${degrees} °F`);
    }
  });

  test("what is none says so and keeps what was typed", () => {
    const read = parseTemperature("hot");
    expect(read.ok).toBe(false);
    expect(!read.ok && read.why).toContain("hot");
  });

  test("there and back; both are shown", () => {
    expect(celsius(fahrenheit(815))).toBeCloseTo(815, 9);
    expect(showTemperature(204.4)).toBe("204 °C, 400 °F");
  });
});
