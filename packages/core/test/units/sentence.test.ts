import { expect, test } from "vitest";
import { inUnit } from "../../src/units/sentence.ts";

test("figures in millimetres are said in the unit on show, one or two at a time; areas and volumes stay", () => {
  const said = "Behind the edge it is up to 0.48 mm from 40 to 75 mm; 12.5 mm² and 620 mm³ a minute.";
  expect(inUnit(said, "inch")).toBe(
    "Behind the edge it is up to 0.019 in from 1.57 to 2.95 in; 12.5 mm² and 620 mm³ a minute.",
  );
  expect(inUnit(said, "mm")).toBe(said);
  expect(inUnit("wants 0.25–0.50 mm, at 254 mm", "thou")).toBe("wants 9.8–19.7 thou, at 10.000 in");
  expect(inUnit("−0.5 mm and no mmm, 3mm", "inch")).toBe("-0.020 in and no mmm, 3mm");
});
