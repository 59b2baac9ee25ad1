import { expect, test } from "vitest";
import { overhangFor, withOverhang } from "../../src/shop/overhang.ts";
import { parseShop } from "../../src/shop/parse.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";

test("before anything was read the overhang is the stock's thickness", () => {
  expect(overhangFor(USUAL_SHOP, "a", "rest", 6, 4.2)).toEqual({ past: 4.2, by: null });
});

test("read once it is remembered for that belt on that set-up, and only there; a later reading takes its place", () => {
  const first = withOverhang(USUAL_SHOP, { belt: "a", setup: "rest", past: 3, radius: 4 });
  // 6 is half as much again as the 4 that 3 left.
  expect(overhangFor(first, "a", "rest", 6, 4.2)).toMatchObject({ past: 4.5, by: { radius: 4 } });
  expect(overhangFor(first, "b", "rest", 6, 4.2).by).toBeNull();
  expect(overhangFor(first, "a", "guide", 6, 4.2).by).toBeNull();
  const again = withOverhang(first, { belt: "a", setup: "rest", past: 3, radius: 3 });
  expect(again.overhangs).toHaveLength(1);
  expect(overhangFor(again, "a", "rest", 6, 4.2).past).toBe(6);
  expect(parseShop(again).ok).toBe(true);
  expect(parseShop(withOverhang(again, { belt: "a", setup: "arm", past: 0, radius: 3 })).ok).toBe(false);
});
