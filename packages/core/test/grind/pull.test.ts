import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { drawnLines } from "../../src/blade/lines.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { isStraight, otherPull, swingAt, thickening } from "../../src/grind/pull.ts";
import { changed, checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";

const kind = (name: string) => checked(KINDS.find(([one]) => one === name)![1]);
const clear = (blade: Blade) => {
  const { stations, clear: isClear } = drawnLines(compileField(blade));
  return stations.filter((_, i) => isClear[i]);
};

describe("a straight pull against following", () => {
  test("a straight pull thickens the edge round the belly, and says from where and by how much to swing", () => {
    const blade = kind("straight-belly");
    const field = compileField(blade);
    const stations = clear(blade);
    const told = thickening(field, stations, 0.4)!;
    expect(told.thickest).toBeGreaterThan(told.start + 0.1);
    expect(told.from).toBeLessThan(told.at);
    for (const { x, behind } of stations) {
      if (behind === null) continue;
      expect(behind).toBeLessThanOrEqual(told.thickest + 1e-12);
      if (x < told.from - 1e-9) expect(behind).toBeLessThanOrEqual(told.start + 0.025 + 1e-12);
    }
    const grown = stations.find(({ x }) => x === told.from)!.behind! - told.start;
    expect(grown).toBeGreaterThan(0.025);
    // By hand: the edge's own direction there, from two near places of its outline, less the rest's climb.
    const near = stations.findIndex(({ x }) => x === told.at);
    const [a, b] = [stations[near - 1]!, stations[near]!];
    const chord = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
    expect(Math.abs(told.swing - Math.abs(chord - 0.4))).toBeLessThan(4);
  });

  test("followed instead, at the same angle, the edge stays as thick as its table says", () => {
    const blade = kind("straight-belly");
    const followed = checked(otherPull(blade, clear(blade)[0]!));
    expect(isStraight(followed.bevels.right)).toBe(false);
    // At the very point no section is tall enough to have an edge bevel.
    const known = clear(followed).filter(({ u }) => u < 0.98);
    expect(known.length).toBeGreaterThan(25);
    for (const { u, behind } of known) expect(behind).toBeCloseTo(0.55 - 0.05 * u, 4);
  });

  test("a following bevel pulled straight has the angle it has where it begins", () => {
    const blade = changed(example("field"), (copy) => delete copy.falseEdge);
    const [first] = clear(blade);
    const straight = checked(otherPull(blade, first!));
    const bevel = straight.bevels.right;
    expect(bevel.kind === "flat" && bevel.set === "angle" ? bevel.angle : 0).toBeCloseTo(
      first!.right.primaryAngle!,
      9,
    );
    expect(straight.bevels.left).toBe("same");
  });

  test("a straight edge under a straight pull stays as it starts; no swing is asked", () => {
    const blade = checked(JSON.parse(JSON.stringify(example("piece-straight"))));
    const field = compileField(blade);
    expect(swingAt(field, 50, 0)).toBeCloseTo(0, 9);
    expect(thickening(field, [], 0)).toBeNull();
  });

  test("an apex in a face, and a hollow, have no other pull", () => {
    const chisel = kind("chisel-slicer");
    expect(otherPull(chisel, clear(chisel)[0]!)).toBeNull();
    const hollow = kind("hollow-false-edge");
    expect(otherPull(hollow, clear(hollow)[0]!)).toBeNull();
  });
});
