import fc from "fast-check";
import { describe, expect, test } from "vitest";
import * as r from "../../src/grind/relations.ts";

/** Worked values. Source: geometry, computed by hand; tolerances 0.005 mm and 0.01° unless said. */
const near = (value: number, wanted: number, within = 0.005) =>
  expect(Math.abs(value - wanted)).toBeLessThanOrEqual(within);

describe("worked values", () => {
  test("zero bevels on bar stock", () => {
    near(r.bevelClimb(3.175, 0, 14.1), 6.32);
    near(r.primaryAngle(4, 0, 9.525), 11.86, 0.01);
  });

  test("two centre lines", () => {
    expect(r.scribeSetting(4.48, 0.48)).toBeCloseTo(2, 12);
    for (const [T, gap] of [
      [4.24, 0.24],
      [4, 0],
      [3.8, -0.2],
    ] as const) {
      near(r.scribeGap(T, 2), gap, 1e-9);
    }
  });

  test("edge angle from thickness and bevel height", () => {
    near(r.edgeAngle(1.0414, 1.956), 14.91, 0.01);
    near(r.edgeAngle(1.0414, 1.422), 20.11, 0.01);
    near(r.thicknessAboveApex(1.0414, r.edgeAngle(1.0414, 1.956), 5, 1.422), 0.757, 0.001);
    near(r.edgeAngle(1.0541, 1.9558), 15.08, 0.01);
    near(r.edgeAngleByWidth(1.0541, 1.9558), 15.63, 0.01);
  });

  test("the very edge before sharpening, and a face taken down", () => {
    near(r.edgeBeforeSharpening(0.5, 3, 18), 0.419, 0.001);
    near(r.climbOfGrindLine(0.05, 3), 0.955, 0.001);
  });

  test("by height or by the face: say which", () => {
    near(r.primaryAngle(3.175, 0, 6.35), 14.036, 0.01);
    near(r.primaryAngleByWidth(3.175, 0, 6.35), 14.478, 0.01);
  });

  test.each([
    [0.25, 5.822, 0.498],
    [0.5, 5.325, 0.995],
    [1, 4.33, 1.991],
    [1.27, 3.792, 2.528],
  ])("stopped at %f on 3.175 at 14.1°", (e, h, still) => {
    near(r.bevelClimb(3.175, e, 14.1), h);
    near(r.bevelClimb(3.175, 0, 14.1) - r.bevelClimb(3.175, e, 14.1), still);
  });

  test.each([
    [3.5, 6.883, 6.229, 10.153],
    [5, 4.812, 4.355, 7.098],
    [10, 2.388, 2.161, 3.522],
    [14.1, 1.676, 1.517, 2.472],
  ])("growth to a 0.508 edge at %f°", (angle, ...wanted) => {
    [1.35, 1.27, 1.75].forEach((left, i) => {
      near(r.bevelClimb(left, 0.508, angle), wanted[i]!);
    });
  });

  test.each([
    [4.48, 10.67, 13.23],
    [4, 9.52, 11.86],
    [3, 7.14, 8.95],
    [2, 4.76, 5.99],
    [1.5, 3.57, 4.5],
  ])("under a taper, at %f thick", (T, h, angle) => {
    near(r.bevelClimb(T, 0, 11.858), h, 0.006);
    near(r.primaryAngle(T, 0, 9.525), angle, 0.01);
  });

  test("flats cleaned down", () => {
    for (const [T, h] of [
      [3.1, 6.171],
      [3, 5.972],
      [2.9, 5.773],
    ] as const) {
      near(r.bevelClimb(T, 0, 14.1), h);
      near(r.bevelClimb(3.175, 0, 14.1) - r.fallOfGrindLine((3.175 - T) / 2, 14.1), h);
    }
  });

  test("out of square and off centre", () => {
    near(r.linesApartOutOfSquare(3.175, 14.1, 1), 0.938);
    near(r.linesApartOutOfSquare(3.175, 14.1, 0.5), 0.467);
    near(r.linesApartOutOfSquare(3.175, 14.1, 0.25), 0.233);
    near(r.linesApartOffCentre(0.127, 14.1), 1.011);
    near(r.linesApartOffCentre(0.127, 5), 2.903);
    near(r.linesApartOffCentre(0.127, 3.5), 4.153);
  });

  test.each([
    [10, 1.441],
    [15, 0.948],
    [19, 0.738],
    [20, 0.698],
    [25, 0.545],
    [30, 0.44],
  ])("edge bevel of 0.508 at %f°", (angle, height) => near(r.edgeBevelHeight(0.508, angle), height));

  test("a hollow off the wheel", () => {
    const face = r.hollowFace(4.5, 0.5, 254, 20);
    near(face.chord, 20.1);
    near(face.sagitta, 0.398, 0.001);
    near(face.chordAngle, 5.711, 0.01);
    near(face.atShoulder, 1.172, 0.01);
    near(face.atGrindLine, 10.249, 0.01);
    const small = r.hollowFace(4.572, 0.254, 203.2, 20);
    near(small.chordAngle, 6.161, 0.01);
    near(small.atShoulder, 0.48, 0.01);
    near(small.atGrindLine, 11.84, 0.01);
    [0.281, 0.327, 0.584, 1.409].forEach((t, i) => {
      near(r.hollowThickness(4.572, 0.254, 203.2, 20, [1, 2, 5, 10][i]!), t, 0.001);
    });
    near(r.hollowFace(4.572, 0.254, 203.2, 25).atShoulder, -2.16, 0.01);
    near(r.hollowThickness(4.572, 0.254, 203.2, 25, 3.83), 0.11, 0.001);
    for (const [wheel, tallest] of [
      [50.8, 10.25],
      [203.2, 20.83],
      [254, 23.32],
      [355.6, 27.62],
    ] as const) {
      near(r.tallestHollow(4.572, 0.254, wheel), tallest);
    }
  });

  test("steel to a zero bevel, and a screw jig's two geometries", () => {
    near(r.areaToZeroBevel(3.175, 14.1), 10.03);
    near(r.areaToZeroBevel(3.175, 14.1) * 100 * 7.85e-3, 7.88);
    near(r.screwSetting(150, 14.1, "sine"), 36.54);
    near(r.screwSetting(150, 14.1, "tangent"), 37.68);
  });
});

describe("how the relations hang together", () => {
  const thickness = fc.double({ min: 1, max: 8, noNaN: true });
  const angle = fc.double({ min: 1, max: 20, noNaN: true });

  test("what a bevel climbs to an edge e, and e's own climb, make the zero bevel", () => {
    fc.assert(
      fc.property(thickness, angle, fc.double({ min: 0, max: 0.9, noNaN: true }), (T, beta, share) => {
        const e = T * share;
        const rest = e / (2 * Math.tan((beta * Math.PI) / 180));
        expect(r.bevelClimb(T, e, beta) + rest).toBeCloseTo(r.bevelClimb(T, 0, beta), 9);
      }),
    );
  });

  test("angle and climb undo one another", () => {
    fc.assert(
      fc.property(thickness, angle, (T, beta) => {
        expect(r.primaryAngle(T, T / 8, r.bevelClimb(T, T / 8, beta))).toBeCloseTo(beta, 9);
      }),
    );
  });

  test("what cannot be is refused in words", () => {
    for (const impossible of [
      () => r.bevelClimb(3, 0, 0),
      () => r.primaryAngle(3, 0, 0),
      () => r.edgeAngle(0.5, 0),
      () => r.hollowFace(4, 0.2, 10, 20),
      () => r.edgeBevelHeight(0.5, 0),
    ]) {
      expect(impossible).toThrow(/\w+ \w+/);
    }
  });
});
