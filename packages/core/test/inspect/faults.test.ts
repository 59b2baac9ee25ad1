import { describe, expect, test } from "vitest";
import { offCentre } from "../../src/inspect/faults/centre.ts";
import { faceErrorAt } from "../../src/inspect/faults/fault.ts";
import type { Spot } from "../../src/inspect/schema.ts";
import { placeOf } from "../../src/inspect/span.ts";
import { benchSteel } from "../../src/inspect/target.ts";
import { firstRoute } from "../../src/route/first.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { example } from "../examples.ts";

const blade = example("field");
const stage = benchSteel(blade, firstRoute(blade), USUAL_SHOP, "true", 60);
const US = [0.1, 0.3, 0.5, 0.7, 0.9];
const spots: Spot[] = US.map((u) => ({ what: "edge", u }));

describe("an edge off centre over a run of the places read", () => {
  const shapes = offCentre(stage, spots);
  const over = (from: number, to: number) =>
    shapes.filter(({ x }) => x && near(x[0], placeOf(stage, from)) && near(x[1], placeOf(stage, to)));

  test("every run of two places or more is looked for: moved, left heavy, right heavy", () => {
    expect(shapes).toHaveLength(10 * 3);
    for (const [i, from] of US.entries())
      for (const to of US.slice(i + 1)) expect(over(from, to)).toHaveLength(3);
  });

  test("one side heavy is full over its run, nothing two places on, and straight down in between", () => {
    const [, left, right] = over(0.3, 0.7);
    const at = (u: number) => faceErrorAt(left!, [1], "left", u);
    for (const u of [0.3, 0.4, 0.5, 0.7]) expect(at(u)).toBe(1);
    for (const u of [0.02, 0.1, 0.9, 0.98]) expect(at(u)).toBe(0);
    expect(at(0.2)).toBeCloseTo(0.5, 9);
    expect(at(0.25)).toBeCloseTo(0.75, 9);
    expect(at(0.8)).toBeCloseTo(0.5, 9);
    for (const u of US) {
      expect(faceErrorAt(left!, [1], "right", u)).toBe(0);
      expect(faceErrorAt(right!, [1], "left", u)).toBe(0);
    }
    expect([left!.side, right!.side]).toEqual(["left", "right"]);
  });

  test("where nothing was read beyond it, it goes on to the end", () => {
    const [, left] = over(0.1, 0.9);
    for (const u of [0, 0.05, 0.5, 1]) expect(faceErrorAt(left!, [1], "left", u)).toBe(1);
  });

  test("moved: as much off one face as is left on the other, square to it as much as lifts the apex by one", () => {
    const [moved] = over(0.1, 0.9);
    const tan = Math.tan((stage.steel.station(0.5).left.primaryAngle! * Math.PI) / 180);
    const [l, r] = (["left", "right"] as const).map((side) => faceErrorAt(moved!, [1], side, 0.5));
    expect(l).toBeGreaterThan(0);
    expect(r).toBeCloseTo(-l!, 9);
    // Along the plane 1 mm is 1·cos β square to the face.
    expect(l).toBeCloseTo(1 / Math.sqrt(1 + tan ** 2), 3);
  });
});

const near = (a: number, b: number) => Math.abs(a - b) < 1e-9;
