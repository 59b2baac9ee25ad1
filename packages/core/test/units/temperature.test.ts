import { describe, expect, test } from "vitest";
import { colourOf, temperatureOfColour } from "../../src/forge/heat.ts";
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

  test("a colour is one by its name, and the nearest colour is told back", () => {
    const read = parseTemperature("Light Orange", temperatureOfColour);
    expect(read).toEqual({ ok: true, celsius: 941 });
    expect(colourOf(941)).toBe("light orange");
    expect(colourOf(600)).toBe("dull red");
    expect(temperatureOfColour("mauve")).toBeNull();
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
