import { describe, expect, test } from "vitest";
import { parseShop } from "../../src/shop/parse.ts";
import { type Shop, USUAL_SHOP } from "../../src/shop/schema.ts";

const faults = (change: (copy: Shop) => void) => {
  const copy = structuredClone(USUAL_SHOP) as Shop;
  change(copy);
  const parsed = parseShop(copy);
  return parsed.ok ? [] : parsed.faults.map(({ path, message }) => `${path}: ${message}`);
};

describe("the shop at the border", () => {
  test("what a shop starts with is sound", () => {
    expect(parseShop(USUAL_SHOP).ok).toBe(true);
  });

  test.each<[string, (copy: Shop) => void, RegExp]>([
    [
      "a grade of another scale",
      (s) => (s.abrasives[0]!.grade = "36"),
      /abrasives\[0\]\.grade: the P scale has no grade “36”/,
    ],
    [
      "one abrasive twice",
      (s) => (s.abrasives[1]!.id = s.abrasives[0]!.id),
      /abrasives\[1\]\.id: .* already/,
    ],
    [
      "one grinder twice",
      (s) => (s.grinders = Array(2).fill({ id: "tall", kind: "belt", belt: 50 })),
      /grinders\[1\]\.id: “tall” stands/,
    ],
    ["half a belt", (s) => (s.abrasives[0]!.onHand = 0.5), /abrasives\[0\]\.onHand: must be integer|onHand/],
    ["a belt that costs less than nothing", (s) => (s.abrasives[0]!.price = -1), /price: must be 0 or more/],
    ["a step that is none", (s) => (s.largestStep = 1), /largestStep: must be 1\.1 or more/],
    [
      "minutes that are none",
      (s) => s.log.push({ belt: "x", minutes: 0, grams: 1, when: "2026-11-26" }),
      /log\[0\]\.minutes/,
    ],
    ["a script in a name", (s) => (s.setups[0]!.name = "\u0000rest"), /setups\[0\]\.name/],
  ])("%s is refused with its path", (_, change, wanted) => {
    const told = faults(change);
    expect(told.length).toBeGreaterThan(0);
    expect(told.join("\n")).toMatch(wanted);
  });

  test.each([null, [], "shop", { format: "true-spine/shop" }])(
    "%j is no shop, and nothing throws",
    (value) => {
      expect(parseShop(value).ok).toBe(false);
    },
  );
});
