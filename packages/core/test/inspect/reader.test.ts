import { describe, expect, test } from "vitest";
import { parseBlade } from "../../src/blade/parse.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { expectedReading, steelAt } from "../../src/inspect/reader.ts";
import { faceResponse, turnResponse } from "../../src/inspect/response.ts";
import { benchSteel } from "../../src/inspect/target.ts";
import { firstRoute } from "../../src/route/first.ts";
import { otherwise } from "../../src/route/ladder.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { changed, example } from "../examples.ts";

const flat = changed(example("field"), (blade) => delete blade.falseEdge);
const shaped = (kind: "convex" | "hollow") =>
  changed(flat, (blade) => {
    const { plunge } = blade.bevels.right as { plunge: { x: number; lean: number; radius: number } };
    const height = [
      { u: 0, h: 18 },
      { u: 1, h: 9 },
    ];
    blade.bevels.right =
      kind === "convex"
        ? { kind, bulge: 0.12, pull: "follow", set: "height", height, plunge }
        : { kind, wheelDiameter: 254, pull: "follow", set: "height", height, plunge };
  });
const stageOf = (blade: Blade, stage = "true") => benchSteel(blade, firstRoute(blade), USUAL_SHOP, stage, 60);
const RAD = Math.PI / 180;

describe("what an instrument shows", () => {
  test("its own error and zero are in it, and a caliper's jaws: 2w·tan β on a flat bevel", () => {
    // Source: geometry.
    const stage = stageOf(flat);
    const spot = { what: "edge", u: 0.5 } as const;
    const point = steelAt(stage, spot)!;
    const beta = stage.steel.station(0.5).right.primaryAngle! * RAD;
    const shown = expectedReading(stage, spot, { kind: "caliper", jaw: 1, error: 0.02, zero: -0.01 })!;
    expect(shown - point).toBeCloseTo(2 * Math.tan(beta) + 0.01, 4);
    expect(expectedReading(stage, spot, { kind: "height-gauge", jaw: 9, error: 0, zero: 0 })).toBeCloseTo(
      point,
      12,
    );
  });

  test("nothing where the steel has nothing: a line before there is a bevel, an edge once it is sharp", () => {
    expect(steelAt(stageOf(flat, "flats"), { what: "line", u: 0.5, side: "left" })).toBeNull();
    expect(steelAt(stageOf(flat, "sharpen"), { what: "edge", u: 0.5 })).toBeNull();
    expect(steelAt(stageOf(flat), { what: "behind", u: 0.5 })).toBeNull();
    expect(steelAt(stageOf(flat), { what: "above", u: 0.5, height: 90 })).toBeNull();
  });

  test("a bow lifts the edge off the plate on its hollow side, and is read as it is", () => {
    const tip = 125;
    const z = (x: number) => 0.5 * (1 - (2 * (x / tip) - 1) ** 2);
    const bent = otherwise(stageOf(flat), { bend: { z, lies: "free" } });
    expect(steelAt(bent, { what: "bow" })).toBeCloseTo(0.5, 9);
    const over = (side: "left" | "right") => ({ what: "over", u: 0.5, side }) as const;
    // Left hollow: on its left flat it stands on both ends, and its right side is lifted by what the bow is there.
    const { x } = bent.steel.station(0.5);
    expect(steelAt(bent, over("right"))! - steelAt(stageOf(flat), over("right"))!).toBeCloseTo(z(x), 6);
    expect(steelAt(bent, { what: "edge", u: 0.5 })).toBeCloseTo(
      steelAt(stageOf(flat), { what: "edge", u: 0.5 })!,
      9,
    );
  });

  test("a twist is read from heel to tip, + where the tip's edge has gone to the left", () => {
    const z = (x: number, y: number) => 2 * RAD * (x / 125) * y;
    const bent = otherwise(stageOf(flat), { bend: { z, lies: "held" } });
    expect(steelAt(bent, { what: "twist" })).toBeCloseTo(2, 2);
    expect(z(125, -30)).toBeLessThan(0);
  });
});

describe("what a fault does to a reading, by asking the steel twice", () => {
  test("on a flat face δ more lifts the edge by δ/cos β and lowers the line by δ/sin β", () => {
    // Source: geometry.
    const stage = stageOf(flat);
    const beta = stage.steel.station(0.5).right.primaryAngle! * RAD;
    expect(faceResponse(stage, { what: "edge", u: 0.5 }, "right")).toBeCloseTo(1 / Math.cos(beta), 3);
    expect(faceResponse(stage, { what: "over", u: 0.5, side: "right" }, "right")).toBeCloseTo(
      1 / Math.cos(beta),
      3,
    );
    expect(faceResponse(stage, { what: "over", u: 0.5, side: "left" }, "right")).toBeCloseTo(0, 9);
    expect(faceResponse(stage, { what: "line", u: 0.5, side: "right" }, "right")).toBeCloseTo(
      -1 / Math.sin(beta),
      0,
    );
  });

  test("on a curved face the line moves by the face's angle where the line is, not by that of its middle", () => {
    for (const [kind, isFaster] of [
      ["convex", true],
      ["hollow", false],
    ] as const) {
      const stage = stageOf(shaped(kind));
      const { primaryAngle, angleAtGrindLine } = stage.steel.station(0.5).right;
      const moved = Math.abs(faceResponse(stage, { what: "line", u: 0.5, side: "right" }, "right"));
      const byMiddle = 1 / Math.sin(primaryAngle! * RAD);
      const byLine = 1 / Math.sin(angleAtGrindLine! * RAD);
      expect(moved > byMiddle * 1.15, kind).toBe(isFaster);
      expect(Math.abs(moved - byLine)).toBeLessThan(Math.abs(moved - byMiddle));
    }
  });

  test("a degree more with the edge held: the angle a degree, the line down by 2b·Δβ/sin 2β", () => {
    // Source: geometry, worked out for small angles.
    const stage = stageOf(flat);
    const { primaryAngle, grindLine } = stage.steel.station(0.5).right;
    const spot = { u: 0.5, side: "right" } as const;
    expect(turnResponse(stage, { what: "angle", ...spot }, "right", "edge")).toBeCloseTo(1, 2);
    const fall = (2 * grindLine! * RAD) / Math.sin(2 * primaryAngle! * RAD);
    expect(
      Math.abs(turnResponse(stage, { what: "line", ...spot }, "right", "edge") + fall) / fall,
    ).toBeLessThan(0.12);
    expect(turnResponse(stage, { what: "edge", u: 0.5 }, "right", "edge")).toBeCloseTo(0, 6);
  });

  test("a chisel's other side has no face to be at fault", () => {
    const parsed = parseBlade(example("piece-chisel"));
    if (!parsed.ok) throw new Error("the chisel is sound");
    const stage = stageOf(parsed.blade);
    expect(faceResponse(stage, { what: "edge", u: 0.5 }, "left")).toBe(0);
    expect(faceResponse(stage, { what: "edge", u: 0.5 }, "right")).toBeGreaterThan(0.9);
  });
});
