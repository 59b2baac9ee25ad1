import { describe, expect, test } from "vitest";
import { coreAtEdge, coreLineAt, coreLines } from "../../src/blade/core.ts";
import { distorted } from "../../src/blade/distort.ts";
import { compileField } from "../../src/blade/field.ts";
import { solidBetween } from "../../src/blade/mass.ts";
import { parseBlade } from "../../src/blade/parse.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { stationAt, thicknessAbove } from "../../src/blade/station.ts";
import { judge } from "../../src/findings/judge.ts";
import { changed, checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";
import { prepare, sumCells } from "../reference/integrator.ts";

const RAD = Math.PI / 180;
/** 100 × 30, T 4, e 0.5, α 20°, flat to 15 up. */
const prism = example("prism");
const U = 0.4;
const at = (blade: Blade) => {
  const field = compileField(blade);
  return { field, station: stationAt(field, U) };
};
const faultsOf = (change: (copy: Blade) => void) => {
  const copy = structuredClone(prism);
  change(copy);
  const parsed = parseBlade(copy);
  return parsed.ok ? [] : parsed.faults.map(({ path }) => path);
};

describe("a convex edge bevel", () => {
  const convex = changed(prism, (copy) => Object.assign(copy.edge, { kind: "convex", bulge: 0.02 }));
  const dE = 0.25 / Math.tan(20 * RAD);
  const chord = Math.hypot(dE, 0.25);
  const radius = chord ** 2 / 0.16 + 0.01;
  const turn = Math.asin(chord / 2 / radius) / RAD;

  test("behind it, its height and everything above are as before; apex and shoulder turn by asin(c/2R)", () => {
    const { station, field } = at(convex);
    const flat = at(prism);
    expect(station.behind).toBeCloseTo(0.5, 6);
    expect(station.right.edgeBevel).toBeCloseTo(dE, 6);
    expect(station.right.edgeAtApex).toBeCloseTo(20 + turn, 2);
    expect(station.right.edgeAtShoulder).toBeCloseTo(20 - turn, 2);
    expect(flat.station.right.edgeAtApex).toBeNull();
    for (const up of [1, 2, 5, 10]) {
      expect(thicknessAbove(field, station, up)).toBeCloseTo(
        thicknessAbove(flat.field, flat.station, up)!,
        9,
      );
    }
  });

  /** Source: geometry, the circle through apex and shoulder, its centre on the chord's bisector. */
  test("read at three heights it stands on its arc", () => {
    const { field, station } = at(convex);
    const [cd, ch] = [dE / 2 + ((radius - 0.02) * 0.25) / chord, 0.125 - ((radius - 0.02) * dE) / chord];
    for (const up of [0.2 * dE, 0.5 * dE, 0.8 * dE]) {
      const half = ch + Math.sqrt(radius ** 2 - (up - cd) ** 2);
      expect(thicknessAbove(field, station, up)).toBeCloseTo(2 * half, 6);
      expect(thicknessAbove(field, station, up)).toBeGreaterThan(2 * up * Math.tan(20 * RAD));
    }
  });

  test("where the bevel above is steeper than the edge's own end, what is behind it is still what was said", () => {
    const raw = KINDS.find(([name]) => name === "kitchen-full")![1] as Blade;
    const blade = checked({ ...raw, edge: { ...raw.edge, kind: "convex", bulge: 0.0136 } });
    const { behind, right } = stationAt(compileField(blade), 0.986);
    expect(behind).toBeCloseTo(0.22112, 4);
    expect(right.edgeBevel).toBeCloseTo(0.11056 / Math.tan(14 * RAD), 4);
  });

  test("one that ends flatter than the bevel above it is told: there the shoulder would be a hollow", () => {
    const flatter = changed(prism, (copy) =>
      Object.assign(copy.edge, { kind: "convex", bulge: 0.035, angle: { left: 12, right: 12 } }),
    );
    expect(at(flatter).station.right.edgeAtShoulder).toBeLessThan(at(flatter).station.right.primaryAngle!);
    expect(judge(flatter).findings.map(({ id }) => id)).toContain("bevel-steeper-than-edge");
  });

  test("a second integrator that shares no code sums the same volume", () => {
    const theirs = sumCells(convex as Parameters<typeof sumCells>[0], 0.8).volume;
    expect(Math.abs(solidBetween(compileField(convex)).volume / theirs - 1)).toBeLessThan(5e-4);
  });

  test("without its bulge, with one on a flat edge, or with one that turns it down it is refused", () => {
    expect(faultsOf((copy) => Object.assign(copy.edge, { kind: "convex" }))).toEqual(["$.edge.bulge"]);
    expect(faultsOf((copy) => Object.assign(copy.edge, { bulge: 0.02 }))).toEqual(["$.edge.bulge"]);
    expect(faultsOf((copy) => Object.assign(copy.edge, { kind: "convex", bulge: 0.2 }))).toEqual([
      "$.edge.bulge",
    ]);
  });
});

describe("a relief", () => {
  const eased = changed(prism, (copy) => {
    const { right } = copy.bevels;
    if (right.kind === "flat" && right.pull === "follow") right.relief = { angle: 10, height: 3 };
  });
  const dE = 0.25 / Math.tan(20 * RAD);

  /** Source: geometry, two planes: from the shoulder at 10° to 3 up, from there to 2 at 15 up. */
  test("is two planes, read as its own angle and height with the bevel above it", () => {
    const { field, station } = at(eased);
    const h = 0.25 + (3 - dE) * Math.tan(10 * RAD);
    const beta = Math.atan((2 - h) / 12) / RAD;
    expect(station.right.relief!.height).toBeCloseTo(3, 5);
    expect(station.right.relief!.angle).toBeCloseTo(10, 3);
    expect(station.right.primaryAngle).toBeCloseTo(beta, 4);
    expect(station.right.angleAtShoulder).toBeCloseTo(beta, 4);
    expect(station.right.grindLine).toBeCloseTo(15, 6);
    expect(station.behind).toBeCloseTo(0.5, 6);
    expect(thicknessAbove(field, station, 2)).toBeCloseTo(0.5 + 2 * (2 - dE) * Math.tan(10 * RAD), 6);
    expect(thicknessAbove(field, station, 9)).toBeCloseTo(2 * (h + 6 * Math.tan(beta * RAD)), 6);
  });

  /** Source: geometry: 5° on one face and 10° below 0.635 thick on the other, as a maker found on his own blade. */
  test("on one face alone: the other stays as it was", () => {
    const one = changed(eased, (copy) => {
      const { relief: _, ...left } = copy.bevels.right as Extract<
        Blade["bevels"]["right"],
        { kind: "flat" }
      > & {
        relief?: unknown;
      };
      copy.bevels.left = left as Blade["bevels"]["right"];
    });
    const { station } = at(one);
    expect(station.right.relief).not.toBeNull();
    expect(station.left.relief).toBeNull();
    expect(station.left.primaryAngle).toBeCloseTo(Math.atan(1.75 / (15 - dE)) / RAD, 4);
  });

  test("a second integrator sums the same, and agrees place by place; so does a stage with steel on its faces", () => {
    const raw = eased as Parameters<typeof prepare>[0];
    const theirs = sumCells(raw, 0.8).volume;
    expect(Math.abs(solidBetween(compileField(eased)).volume / theirs - 1)).toBeLessThan(5e-4);
    const { field, station } = at(eased);
    const reference = prepare(raw);
    for (const up of [0.3, 0.9, 1.7, 2.9, 3.1, 6, 14]) {
      const [x, y] = [station.x + up * station.inward[0], station.y + up * station.inward[1]];
      expect(thicknessAbove(field, station, up)).toBeCloseTo(reference.thicknessAt(x, y), 6);
    }
  });

  test("steel left on its faces, or bent, carries the relief with it", () => {
    const plain = compileField(eased);
    const raised = distorted(plain, { faces: () => 0.1 });
    const [x, y] = [40, -30 + 1.5];
    raised.sampleAt(x, y);
    const stood = raised.right.lowest;
    plain.sampleAt(x, y);
    // Square to a face at 10°: 0.1/cos 10° across.
    expect(stood - plain.right.lowest).toBeCloseTo(0.1 / Math.cos(10 * RAD), 6);
    const bent = distorted(plain, { bent: () => 0.2 });
    bent.sampleAt(x, y);
    const aside = [bent.right.lowest, bent.left.lowest];
    plain.sampleAt(x, y);
    expect(aside[0]! - plain.right.lowest).toBeCloseTo(0.2, 9);
    expect(aside[1]! - plain.left.lowest).toBeCloseTo(-0.2, 9);
  });

  test.each([
    ["within the edge bevel", { angle: 10, height: 0.4 }, "height"],
    ["past the line", { angle: 10, height: 16 }, "height"],
    ["out of the flat", { angle: 30, height: 6 }, "angle"],
    ["no steeper than the bevel", { angle: 6, height: 3 }, "angle"],
  ])("%s it is refused", (_, relief, key) => {
    expect(faultsOf((copy) => Object.assign(copy.bevels.right, { relief }))).toEqual([
      `$.bevels.right.relief.${key}`,
    ]);
  });
});

describe("a laminated blade's core", () => {
  /** The check value's own piece: flat at 3°, e 0.5, the edge bevel 0.769 high, a core 1.0 thick. */
  const laminated = (core: NonNullable<Blade["core"]>, more: (copy: Blade) => void = () => {}) =>
    changed(prism, (copy) => {
      copy.edge.angle = { left: 18, right: 18 };
      copy.bevels.right = {
        kind: "flat",
        pull: "follow",
        set: "angle",
        angle: 3,
        plunge: { x: 0, lean: 0, radius: 0 },
      };
      copy.core = core;
      more(copy);
    });
  const line = (blade: Blade, side: "left" | "right" = "right") => {
    const { field, station } = at(blade);
    return coreLineAt(field, station, side);
  };

  /** Source: geometry, d = 0.769 + (0.5 − 0.25)/tan 3°. */
  test("comes out 5.540 from the edge; off centre the two faces differ by twice that over tan 3°", () => {
    expect(line(laminated({ t: 1, offset: 0 }))).toBeCloseTo(5.54, 3);
    const [right, left] = (["right", "left"] as const).map(
      (side) => line(laminated({ t: 1, offset: 0.05 }), side)!,
    );
    expect(right! - left!).toBeCloseTo(0.1 / Math.tan(3 * RAD), 3);
  });

  /** Source: geometry, 0.05/sin 3° = 0.955. */
  test("0.05 off a face, square to it, lifts that side's line by 0.955", () => {
    const still = (mm: number) => {
      const faces = { at: Float64Array.of(0), value: Float64Array.of(mm) };
      const field = compileField(laminated({ t: 1, offset: 0 }), {
        flats: 0,
        faces: { left: faces, right: faces },
        edgeBevel: true,
        falseEdge: true,
      });
      return coreLineAt(field, stationAt(field, U), "right")!;
    };
    expect(still(0) - still(0.05)).toBeCloseTo(0.955, 3);
  });

  test("is drawn along both faces; without one, or where cladding reaches the edge, there is no line", () => {
    const lines = coreLines(compileField(laminated({ t: 1, offset: 0 })));
    expect(lines.right[0]!.length).toBeGreaterThan(10);
    expect(coreLines(compileField(prism)).right).toEqual([]);
    expect(line(laminated({ t: 0.4, offset: 0.3 }), "left")).toBeNull();
    const { field, station } = at(laminated({ t: 0.4, offset: 0.3 }));
    expect(coreAtEdge(field, station)).toBeCloseTo(-0.1, 6);
  });
});
