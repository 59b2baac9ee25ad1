import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { atInstrument, fromInstrument, LONGEST_LINE, toInstrument, valueIn } from "../../src/inspect/wire.ts";

describe("what an instrument says", () => {
  test("its name, its readings, and that it goes", () => {
    expect(fromInstrument("HELLO caliper bench-1")).toEqual({
      say: "hello",
      kind: "caliper",
      id: "bench-1",
      isSimulated: false,
    });
    expect(fromInstrument("READ 0.5200 mm\r")).toEqual({ say: "read", value: 0.52, unit: "mm" });
    expect(fromInstrument("READ -1.5 deg")).toEqual({ say: "read", value: -1.5, unit: "deg" });
    expect(fromInstrument("BYE")).toEqual({ say: "bye" });
    // One that answers a numbered press says which.
    expect(fromInstrument("READ 0.52 mm 17")).toEqual({ say: "read", value: 0.52, unit: "mm", press: 17 });
  });

  test.each([
    "READ 1e999 mm",
    "READ NaN mm",
    "READ 0.5",
    "READ 0.5 mm mm",
    "READ 0.5 mm 17 18",
    "READ 0.5 mm -17",
    "READ 0.5 furlongs",
    "READ <b>1</b> mm",
    "READ 99999 mm",
    "HELLO spoon x",
    "HELLO caliper ../../etc",
    "hello caliper x",
    "",
    `READ ${"0".repeat(LONGEST_LINE)} mm`,
  ])("“%s” is nothing", (line) => {
    expect(fromInstrument(line)).toBeNull();
  });

  test("whatever else comes is nothing or a number, and never throws", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary", maxLength: 300 }), (line) => {
        const said = fromInstrument(line);
        return said === null || said.say !== "read" || Number.isFinite(said.value);
      }),
    );
  });

  test("inches come as millimetres; an angle is no length", () => {
    expect(valueIn("in", 0.02, "mm")).toBeCloseTo(0.508, 9);
    expect(valueIn("deg", 3, "mm")).toBeNull();
    expect(valueIn("hrc", 60, "HRC")).toBe(60);
    expect(valueIn("mm", 60, "HRC")).toBeNull();
  });
});

describe("what is said to an instrument comes back as it was", () => {
  test.each([
    { say: "welcome" },
    { say: "press" },
    { say: "press", press: 431 },
    { say: "place", held: { blade: "b1", stage: "rough-2", spot: { what: "edge", u: 0.5, edge: "second" } } },
    { say: "behave", how: "stuck" },
    { say: "place", held: { blade: "b1", stage: "true", spot: { what: "over", u: 0.37, side: "left" } } },
    { say: "place", held: { blade: "b1", stage: "rough", spot: { what: "above", u: 0.5, height: 8 } } },
    { say: "place", held: { blade: "b1", stage: "flats", spot: { what: "flats", x: -8 } } },
  ] as const)("$say", (message) => {
    expect(atInstrument(toInstrument(message))).toEqual(message);
  });

  test("a line that is none is nothing", () => {
    expect(atInstrument("PLACE b1 No_where edge")).toBeNull();
    expect(atInstrument("PRESS now")).toBeNull();
    expect(atInstrument("BEHAVE badly")).toBeNull();
    expect(atInstrument("DANCE")).toBeNull();
  });
});
