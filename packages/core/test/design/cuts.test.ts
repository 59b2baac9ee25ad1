import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { solidBetween } from "../../src/blade/mass.ts";
import { compileRing, isInside, spansAt } from "../../src/blade/outline.ts";
import type { Blade, Outline } from "../../src/blade/schema.ts";
import { stationAtX, thicknessAbove } from "../../src/blade/station.ts";
import { cutChoil, mirrorEdge, notchSpine, otherHand } from "../../src/design/cuts.ts";
import { FAMILIES, valuesOf } from "../../src/design/families.ts";
import { changed as cut, example } from "../examples.ts";

/** A plain slab of an outline, with no bevel. */
function slab(outline: Outline): Blade {
  const { falseEdge, holes, ...blade } = structuredClone(example("prism"));
  const none = { kind: "none" } as const;
  return { ...blade, outline, thickness: [{ x: 0, t: 3 }], bevels: { right: none, left: "same" } };
}

describe("a sharpening choil", () => {
  test("is a round about the heel: nothing of the steel lies nearer to it than its radius", () => {
    const before = example("field");
    const heel = before.outline.edge[0]!.at;
    const after = cut(before, (copy) => cutChoil(copy, 3));
    const [old, now] = [compileRing(before.outline), compileRing(after.outline)];
    for (let degrees = 0; degrees < 360; degrees += 5) {
      const a = (degrees * Math.PI) / 180;
      const at = (r: number): [number, number] => [heel[0] + r * Math.cos(a), heel[1] + r * Math.sin(a)];
      expect(isInside(now, ...at(2.99))).toBe(false);
      expect(isInside(now, ...at(3.01))).toBe(isInside(old, ...at(3.01)));
    }
    expect(
      Math.hypot(after.outline.edge[0]!.at[0] - heel[0], after.outline.edge[0]!.at[1] - heel[1]),
    ).toBeCloseTo(3, 3);
  });

  test("leaves the rest of the blade as thick as it was: what was given along the edge keeps its place", () => {
    const before = example("field");
    const after = cut(before, (copy) => cutChoil(copy, 3));
    for (const x of [30, 60, 90, 110]) {
      const [a, b] = [compileField(before), compileField(after)];
      const [here, there] = [stationAtX(a, x)!, stationAtX(b, x)!];
      expect(there.behind).toBeCloseTo(here.behind!, 4);
      expect(there.right.grindLine).toBeCloseTo(here.right.grindLine!, 3);
      expect(thicknessAbove(b, there, 5)).toBeCloseTo(thicknessAbove(a, here, 5)!, 4);
    }
  });

  test.each(FAMILIES.map((family) => [family.name, family] as const))("goes into a %s", (_, family) => {
    const blade = slab(family.outline(valuesOf(family), family.tangs[0]!));
    cut(blade, (copy) => cutChoil(copy, 2));
  });

  test("one with no room is refused in words", () => {
    expect(() => cutChoil(example("field"), 500)).toThrow("The edge is shorter than that choil.");
  });
});

describe("notches on the spine", () => {
  test("are as deep as asked, as many as asked, and leave the spine between them", () => {
    const before = example("field");
    const after = cut(before, (copy) => notchSpine(copy, { from: 2, to: 22, count: 8, depth: 0.8 }));
    const [old, now] = [compileRing(before.outline), compileRing(after.outline)];
    const top = (ring: typeof old, x: number) => Math.max(...spansAt(ring, x).flat());
    const depths = Array.from({ length: 2001 }, (_, i) => 2 + i * 0.01).map((x) => top(old, x) - top(now, x));
    expect(Math.max(...depths)).toBeCloseTo(0.8, 2);
    const notches = depths.filter((d, i) => d > 0.4 && depths[i - 1]! <= 0.4).length;
    expect(notches).toBe(8);
    for (let i = 0; i <= 8; i++) expect(top(old, 2 + i * 2.5) - top(now, 2 + i * 2.5)).toBeCloseTo(0, 3);
    expect(top(now, 60)).toBeCloseTo(top(old, 60), 6);
  });

  test("too deep for their width, or off the spine, are refused in words", () => {
    expect(() => notchSpine(example("field"), { from: 0, to: 10, count: 10, depth: 2 })).toThrow(
      /make fewer/,
    );
    for (const [from, to] of [
      [-20, 10],
      [10, 500],
      [30, 20],
      [20, 20],
    ] as const)
      expect(
        () => notchSpine(example("field"), { from, to, count: 4, depth: 0.1 }),
        `${from} to ${to}`,
      ).toThrow(/junction/);
  });
});

describe("mirrored", () => {
  test("for the other hand: every thickness the same, the steel's middle on the other side", () => {
    for (const name of ["piece-chisel", "piece-offset"]) {
      const before = example(name);
      const after = cut(before, otherHand);
      const [a, b] = [compileField(before), compileField(after)];
      a.sampleAt(40, -25);
      b.sampleAt(40, -25);
      expect(b.left.lowest).toBeCloseTo(a.right.lowest, 9);
      expect(b.right.lowest).toBeCloseTo(a.left.lowest, 9);
      expect(solidBetween(b).volume).toBeCloseTo(solidBetween(a).volume, 6);
      expect(cut(after, otherHand)).toEqual(before);
    }
  });

  test("edge and spine: alike above and below a middle line", () => {
    const after = cut(example("field"), mirrorEdge);
    const ring = compileRing(after.outline);
    const middle = after.outline.edge[0]!.at[1] / 2;
    for (const x of [20, 50, 80, 110]) {
      const [[low, high] = [0, 0]] = spansAt(ring, x);
      expect((low + high) / 2).toBeCloseTo(middle, 3);
    }
  });
});
