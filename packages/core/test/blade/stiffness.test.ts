import { describe, expect, test } from "vitest";
import { compileField, type Field } from "../../src/blade/field.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { sectionAtX, stationAt } from "../../src/blade/station.ts";
import { LOAD_BEHIND_TIP, tipDeflection, YOUNGS_MODULUS } from "../../src/blade/stiffness.ts";
import { changed, example } from "../examples.ts";

const LENGTH = 100;
const TALL = 30;

/** A bare bar: the prism's outline with nothing ground. */
function bar(thickness: Blade["thickness"], offset = 0): Blade {
  return changed(example("prism"), (blade) => {
    blade.thickness = thickness;
    blade.bevels = { right: { kind: "none" }, left: { kind: "none" } };
    blade.edge = { behind: [{ u: 0, t: 0 }], angle: { left: 0, right: 0 }, rightShare: 0.5, offset };
  });
}

const goes = (field: Field) => tipDeflection(field, 20)!;

describe("tip deflection", () => {
  const arm = LENGTH - LOAD_BEHIND_TIP;

  test("of a plain bar is PL³/3EI", () => {
    // Source: from memory of any handbook of strength of materials, cantilever with an end load.
    const second = (TALL * 3 ** 3) / 12;
    const wanted = (20 * arm ** 3) / (3 * YOUNGS_MODULUS * second);
    expect(goes(compileField(bar([{ x: 0, t: 3 }]))) / wanted).toBeCloseTo(1, 5);
  });

  test("of a bar that tapers evenly in thickness is the handbook's closed form", () => {
    // Source: from memory of Roark's Formulas for Stress and Strain, tapered beams; the integral of
    // 12 P (L − x)²/(E b t³) over a thickness falling evenly from t₀ to t₁ at the load, done by hand.
    const field = compileField(
      bar([
        { x: 0, t: 4 },
        { x: LENGTH, t: 1 },
      ]),
    );
    const k = 3 / LENGTH;
    const [t0, t1] = [4, 4 - k * arm];
    const bracket = Math.log(t0 / t1) - 2 * (1 - t1 / t0) + (1 - (t1 / t0) ** 2) / 2;
    const wanted = (12 * 20 * bracket) / (YOUNGS_MODULUS * TALL * k ** 3);
    expect(goes(field) / wanted).toBeCloseTo(1, 4);
  });

  test("goes with the load, and a thicker blade goes less", () => {
    const field = compileField(example("field"));
    expect(tipDeflection(field, 40)).toBeCloseTo(2 * goes(field), 9);
    const thick = changed(example("field"), (blade) => {
      for (const row of blade.thickness) row.t += 0.5;
    });
    expect(goes(compileField(thick))).toBeLessThan(goes(field));
  });

  test("of a chisel is taken about its own middle, not the flat's", () => {
    const chisel = compileField(example("piece-chisel"));
    const { area, secondMoment } = sectionAtX(chisel, 50);
    expect(area).toBeGreaterThan(0);
    // About the blade's plane the section is stiffer than about its own middle line.
    const own = goes(chisel);
    const asIfCentred = (20 * arm ** 3) / (3 * YOUNGS_MODULUS * secondMoment);
    expect(own).toBeGreaterThan(asIfCentred);
  });

  test("a blade too short to load has none", () => {
    const stub = changed(example("prism"), (blade) => {
      for (const chain of Object.values(blade.outline))
        for (const node of chain) node.at = [node.at[0] * 0.04, node.at[1]];
      blade.edge.start = 0;
    });
    expect(tipDeflection(compileField(stub), 20)).toBeNull();
  });
});

test("the section's second moment is T³h/12 on the flats", () => {
  // Source: geometry.
  const field = compileField(bar([{ x: 0, t: 3 }]));
  expect(sectionAtX(field, 40).secondMoment).toBeCloseTo((TALL * 27) / 12, 9);
  expect(stationAt(field, 0.5).flats).toBe(3);
});
