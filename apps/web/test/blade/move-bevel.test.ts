import type { Blade } from "@true-spine/core/blade/schema.ts";
import { expect, test } from "vitest";
import { leanPlunge, movePlunge, raiseLine } from "../../src/blade/move-bevel.ts";
import { knife } from "../knife.ts";

const twoSided = () => {
  const blade = knife();
  const left = structuredClone(blade.bevels.right);
  if (left.kind === "none" || left.set !== "height") throw new Error("another example is needed");
  left.plunge.x += 1;
  left.height = [
    { u: 0, h: 20 },
    { u: 1, h: 8 },
  ];
  return { ...blade, bevels: { right: blade.bevels.right, left } };
};
const moved = (from: Blade, change: (copy: Blade) => void) => {
  const copy = structuredClone(from);
  change(copy);
  const { right, left } = copy.bevels;
  if (right.kind !== "flat" || left === "same" || left.kind !== "flat") throw new Error("no flat bevels");
  return { right, left };
};
const BOTH = ["left", "right"] as const;

test("dragged apart, only the side in hand moves; together, both by as much, keeping what they differ by", () => {
  const from = twoSided();
  const apart = moved(from, (copy) => movePlunge(copy, from, ["left"], 2.5));
  expect([apart.left.plunge.x, apart.right.plunge.x]).toEqual([15.5, 12]);
  const together = moved(from, (copy) => movePlunge(copy, from, BOTH, 2.5));
  expect([together.left.plunge.x, together.right.plunge.x]).toEqual([15.5, 14.5]);
  const leant = moved(from, (copy) => leanPlunge(copy, from, BOTH, -4.04));
  expect([leant.left.plunge.lean, leant.right.plunge.lean]).toEqual([6, 6]);
});

test("a grind line raised on both sides gets a row where the other had none, and never goes below the edge", () => {
  const from = twoSided();
  const heights = (side: "left" | "right", change: (copy: Blade) => void) => {
    const bevel = moved(from, change)[side];
    return bevel.set === "height" ? bevel.height : null;
  };
  expect(heights("left", (copy) => raiseLine(copy, from, BOTH, 0.5, 1))).toEqual([
    { u: 0, h: 20 },
    { u: 0.5, h: 15 },
    { u: 1, h: 8 },
  ]);
  expect(heights("right", (copy) => raiseLine(copy, from, ["right"], 1, -100))!.at(-1)).toEqual({
    u: 1,
    h: 0,
  });
});

test("a left side that is the same as the right follows it and is not given its own", () => {
  const from = knife();
  const copy = structuredClone(from);
  movePlunge(copy, from, BOTH, 1);
  expect(copy.bevels.left).toBe("same");
});
