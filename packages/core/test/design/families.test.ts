import { describe, expect, test } from "vitest";
import { compileRing } from "../../src/blade/outline.ts";
import { parseBlade } from "../../src/blade/parse.ts";
import type { Outline } from "../../src/blade/schema.ts";
import { FAMILIES, valuesOf } from "../../src/design/families.ts";
import type { Family, Values } from "../../src/design/family.ts";
import { example } from "../examples.ts";

/** Every dimension at its low, middle and high end with the others usual, and all corners of all ranges. */
function settings(family: Family): Values[] {
  const { dimensions } = family;
  const single = dimensions.flatMap(({ key, low, high }) =>
    [low, (low + high) / 2, high].map((value) => valuesOf(family, { [key]: value })),
  );
  const corners = Array.from({ length: 2 ** dimensions.length }, (_, bits) =>
    valuesOf(
      family,
      Object.fromEntries(dimensions.map(({ key, low, high }, i) => [key, (bits >> i) & 1 ? high : low])),
    ),
  );
  return [...single, ...corners];
}

/** The outline as a plain slab with no bevel: whatever is wrong is the outline's own. */
function slab(outline: Outline) {
  const blade = structuredClone(example("prism"));
  Object.assign(blade, {
    outline,
    thickness: [{ x: 0, t: 3 }],
    bevels: { right: { kind: "none" }, left: "same" },
  });
  delete blade.holes;
  delete blade.falseEdge;
  return parseBlade(blade);
}

describe.each(FAMILIES.map((family) => [family.name, family] as const))("%s", (_, family) => {
  test("makes a sound outline wherever its dimensions stand", () => {
    for (const values of settings(family)) {
      for (const tang of family.tangs) {
        const parsed = slab(family.outline(values, tang));
        expect(parsed.ok ? [] : [values, parsed.faults]).toEqual([]);
      }
    }
  });

  test("every dimension reads back off the outline", () => {
    for (const values of settings(family)) {
      for (const tang of family.tangs) {
        const ring = compileRing(family.outline(values, tang));
        for (const { key, unit, measure } of family.dimensions) {
          const size = unit === "mm" ? 1 : Math.max(values.length!, values.height!);
          expect(
            Math.abs(measure(ring) - values[key]!) * size,
            `${key} of ${JSON.stringify(values)}`,
          ).toBeLessThan(0.01);
        }
      }
    }
  });
});
