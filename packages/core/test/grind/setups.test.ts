import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  angleFrom,
  costOfAngle,
  lineAfterFlats,
  otherSide,
  readingFor,
  type Setup,
  singleAngle,
  zeroProcedure,
} from "../../src/grind/setups.ts";

const setups: Setup[] = [
  { kind: "rest" },
  { kind: "guide" },
  { kind: "screw", pivot: 150, by: "tangent" },
  { kind: "screw", pivot: 150, by: "sine" },
  { kind: "arm", zero: 87.3, sense: 1 },
  { kind: "arm", zero: -2, sense: -1 },
  { kind: "stone", width: 32 },
  { kind: "file", width: 180 },
  { kind: "wheel", diameter: 254 },
];

describe("a set-up", () => {
  test.each(setups)("$kind gives back the angle it was set to, on both sides", (setup) => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 45, noNaN: true }), (angle) => {
        for (const side of [setup, otherSide(setup)]) {
          expect(angleFrom(side, readingFor(side, angle).value)).toBeCloseTo(angle, 6);
          expect(readingFor(side, angle).datum.length).toBeGreaterThan(10);
          expect(zeroProcedure(side).length).toBeGreaterThan(1);
        }
      }),
    );
  });

  test("a screw 150 mm from its pivot at 14.1°: 37.68 by tangent, 36.54 by sine", () => {
    // Source: geometry, worked by hand.
    expect(readingFor({ kind: "screw", pivot: 150, by: "tangent" }, 14.1).value).toBeCloseTo(37.68, 2);
    expect(readingFor({ kind: "screw", pivot: 150, by: "sine" }, 14.1).value).toBeCloseTo(36.54, 2);
  });

  test("an arm's other side lies as far beyond its zero; a reading that no angle gives is none", () => {
    const arm: Setup = { kind: "arm", zero: 2, sense: 1 };
    expect(readingFor(arm, 5).value).toBe(7);
    expect(readingFor(otherSide(arm), 5).value).toBe(-3);
    expect(angleFrom({ kind: "stone", width: 30 }, 31)).toBeNull();
    expect(angleFrom({ kind: "rest" }, -20)).toBeNull();
  });
});

describe("what an angle is worth", () => {
  test("a tenth of a degree on a 15 mm bevel is 0.05 mm at the edge: both sides, line held", () => {
    expect(costOfAngle(15, 4, 0.1).edge).toBeCloseTo(0.052, 3);
  });

  test("agrees with the bevel itself, ground again at the wrong angle", () => {
    const [b, beta, off] = [18, 5, 0.05];
    const slope = (angle: number) => Math.tan((angle * Math.PI) / 180);
    const edge = 2 * b * (slope(beta + off) - slope(beta));
    expect(costOfAngle(b, beta, off).edge).toBeCloseTo(edge, 2);
    const line = b - (b * slope(beta)) / slope(beta + off);
    expect(costOfAngle(b, beta, off).line).toBeCloseTo(line, 2);
  });

  test("a jig found again after each flat lost 0.1 mm: the same angle, the line lower by 0.1/tan β", () => {
    // T 3.175 at 14.1°, flats cleaned to 2.975: 6.320 becomes 5.922. Source: geometry.
    expect(lineAfterFlats(6.32, 14.1, 0.1)).toBeCloseTo(6.32 - 0.398, 3);
  });

  test("a single angle exists only where heel, middle and tip agree to what a jig can be set to", () => {
    expect(singleAngle([4.02, 4.05, 4.08])).toBeCloseTo(4.05, 9);
    expect(singleAngle([4.3, 3.6, 3.8])).toBeNull();
    expect(singleAngle([null, null])).toBeNull();
  });
});
