import { describe, expect, test } from "vitest";
import { compileField, thicknessAt } from "../../src/blade/field.ts";
import { stationAt } from "../../src/blade/station.ts";
import { constant } from "../../src/blade/table.ts";
import { firstRoute } from "../../src/route/first.ts";
import { ladderOf } from "../../src/route/ladder.ts";
import { replanned, standInsFor, standingAfter } from "../../src/route/past.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { example } from "../examples.ts";

describe("a reading of the edge", () => {
  test("says what is still on each face, as the field of a stage with that much on it has it", () => {
    const blade = example("field");
    const finished = compileField(blade);
    const { x, y, right } = stationAt(finished, 0.5);
    const edge = (faces: number) => {
      const all = { left: constant(faces), right: constant(faces) };
      return thicknessAt(
        compileField(blade, { flats: 0, faces: all, edgeBevel: false, falseEdge: true }),
        x,
        y,
      );
    };
    const standing = standingAfter({
      read: edge(0.17),
      planned: edge(0.25),
      bare: edge(0),
      perFace: 2 / Math.cos((right.primaryAngle! * Math.PI) / 180),
      needed: 0.05,
    });
    expect(standing.left).toBeCloseTo(0.17, 4);
    expect(standing.toGo).toBeCloseTo(0.17 - 0.25, 4);
    expect(standing.short).toBe(0);
  });

  test("past what the finer belts need, the finished edge comes out thinner by 2 of what is short over cos b", () => {
    const { left, short, thinner } = standingAfter({
      read: 0.44,
      planned: 0.6,
      bare: 0.42,
      perFace: 2 / Math.cos((4 * Math.PI) / 180),
      needed: 0.05,
    });
    expect(left).toBeCloseTo(0.00998, 4);
    expect(short).toBeCloseTo(0.04002, 4);
    expect(thinner).toBeCloseTo((2 * short) / Math.cos((4 * Math.PI) / 180), 9);
  });

  test("what follows is planned anew: as much less with the bevels after the oven, never less than nothing", () => {
    const route = firstRoute(example("field"));
    const rough = (of: typeof route) =>
      ladderOf(example("field"), of, USUAL_SHOP).find(({ kind }) => kind === "rough")!.left.faces.right;
    expect(rough(route) - rough(replanned(route, 0.1))).toBeCloseTo(0.1, 9);
    expect(replanned(route, 5).oven).toBe(0);
    expect(replanned(route, -0.2)).toEqual(route);
  });

  test("a thickness is offered as a drill, feelers, and a coin where one is near", () => {
    expect(standInsFor(1.31).map(({ name }) => name)).toEqual([
      "a 1.3 mm drill",
      "feelers to 1.30",
      "a dime",
    ]);
    expect(standInsFor(0.44)).toHaveLength(2);
  });
});
