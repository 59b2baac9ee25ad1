import { areaPathsD, FillRule, intersectD } from "clipper2-ts";
import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { stationAt, thicknessAlong } from "../../src/blade/station.ts";
import { constant } from "../../src/blade/table.ts";
import { wornField } from "../../src/blade/worn.ts";
import {
  heightOff,
  heightOffBoth,
  microBehind,
  microTakes,
  plainEdge,
  tangentsOf,
  touchUpHeight,
} from "../../src/edge/facet.ts";
import { lostUntil, takenEach, wornAt } from "../../src/edge/life.ts";
import type { Sharpened } from "../../src/edge/schema.ts";
import {
  angleOfBall,
  angleOfLift,
  angleOfSupport,
  apexOverAxle,
  axleToSupport,
  ballFor,
  gapFor,
  liftFor,
  slackBulge,
  slackBy,
  turnOverWheel,
} from "../../src/edge/settings.ts";
import { angleByFace, angleByHeight, behindBy, heightBy, opensBy } from "../../src/edge/triangle.ts";
import { changed, example } from "../examples.ts";
import { prism } from "./prism.ts";

const rad = (degrees: number) => (degrees * Math.PI) / 180;
const deg = (radians: number) => (radians * 180) / Math.PI;
const field = compileField(example("field"));
/** 4.572 thick, 0.254 behind an edge of 19°, a wheel of 203.2 up to 20 above the shoulder. */
const hollow = changed(example("piece-hollow"), (copy) => {
  copy.thickness = [{ x: 0, t: 4.572 }];
  copy.edge.behind = [{ u: 0, t: 0.254 }];
  copy.edge.angle = { left: 19, right: 19 };
  copy.bevels.right = {
    kind: "hollow",
    pull: "follow",
    set: "height",
    wheelDiameter: 203.2,
    height: [{ u: 0, h: 20 + 0.127 / Math.tan((19 * Math.PI) / 180) }],
    plunge: { x: 0, lean: 0, radius: 0 },
  };
});
/** A row of numbers between 0 and 1, the same at every run. Source: Park and Miller (1988), from memory of. */
function randomFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}
const at = [0.1, 0.5, 0.9].map((u) => stationAt(field, u));

describe("where a tool is set", () => {
  test("a stone: lift of the spine, the gap under its corner, and the angle it gives where the blade is lower", () => {
    expect(liftFor(31, rad(18))).toBeCloseTo(9.58, 3);
    expect(gapFor(31, rad(18), 1.5)).toBeCloseTo(8.153, 3);
    const lifts = at.map(({ height }) => liftFor(height, rad(18)));
    for (const [i, wanted] of [9.502, 9.915, 5.931].entries()) expect(lifts[i]).toBeCloseTo(wanted, 3);
    const held = at.map(({ height }) => deg(angleOfLift(lifts[1]!, height)!));
    for (const [i, wanted] of [18.81, 18, 31.1].entries()) expect(held[i]).toBeCloseTo(wanted, 2);
    expect(angleOfLift(10, 9)).toBeNull();
  });

  test("a rod through a ball: its height, another distance, a clamp off centre, and along a belly", () => {
    const eta = ballFor(150, rad(18), 6);
    expect(eta).toBeCloseTo(55.047, 3);
    expect(deg(angleOfBall(eta, 160, 6)!)).toBeCloseTo(16.953, 3);
    expect(deg(angleOfBall(eta + 0.5, 150, 6)! - angleOfBall(eta - 0.5, 150, 6)!)).toBeCloseTo(0.341, 3);
    const [, middle] = at;
    const P = [middle!.x + 150 * middle!.inward[0], middle!.y + 150 * middle!.inward[1]] as const;
    const held = at.map(({ x, y, inward }) => {
      const D = (P[0] - x) * inward[0] + (P[1] - y) * inward[1];
      return deg(angleOfBall(eta, D, 6)!);
    });
    expect(held[0]).toBeCloseTo(17.968, 3);
    expect(Math.abs(held[2]! - 19.468)).toBeLessThan(0.001);
    expect(angleOfBall(3, 1, 6)).toBeNull();
  });

  test("a wheel and a support: axle to support, and the angle once the wheel is worn", () => {
    const C = axleToSupport({ R: 125, p: 140, q: 8 }, rad(15));
    expect(C).toBeCloseTo(215.127, 3);
    expect(deg(angleOfSupport(C, { R: 125, p: 140, q: 8 })!)).toBeCloseTo(15, 9);
    expect(deg(angleOfSupport(C, { R: 120, p: 140, q: 8 })!)).toBeCloseTo(18.012, 3);
    expect(angleOfSupport(900, { R: 120, p: 140, q: 8 })).toBeNull();
    expect(apexOverAxle(125, rad(15))).toBeCloseTo(120.741, 3);
    expect(deg(turnOverWheel(1, 125))).toBeCloseTo(0.458, 3);
  });

  test("a slack belt gives way by asin(F/2N) and leaves an arc", () => {
    expect(deg(slackBy(10, 100)!)).toBeCloseTo(2.866, 3);
    expect(slackBy(200, 100)).toBeNull();
    // The sagitta of an arc that turns by 2φ over a face of 1: R = 1/(2 sin φ), R(1 − cos φ).
    const phi = rad(6);
    const R = 1 / (2 * Math.sin(phi));
    expect(slackBulge(1, phi)).toBeCloseTo(R * (1 - Math.cos(phi)), 12);
  });

  test("all of them by points turned in space: the stone's plane, the rod through the ball, the tangent of the wheel", () => {
    const random = randomFrom(7);
    for (let n = 0; n < 200; n++) {
      const alpha = rad(8 + 25 * random());
      const H = 10 + 40 * random();
      const half = 0.5 + 2 * random();
      // The blade's plane turned about its apex by α over a stone at z = 0.
      const turn = ([d, h]: [number, number]): [number, number] => [
        d * Math.cos(alpha) + h * Math.sin(alpha),
        d * Math.sin(alpha) - h * Math.cos(alpha),
      ];
      expect(liftFor(H, alpha)).toBeCloseTo(turn([H, 0])[1], 9);
      expect(gapFor(H, alpha, half)).toBeCloseTo(turn([H, half])[1], 9);
      // A rod from the ball to a stone whose face passes through the edge, its line s above that face.
      const [D, s] = [100 + 100 * random(), 12 * random()];
      const eta = ballFor(D, alpha, s);
      // The face's plane goes through the edge at α; the ball's distance from it is s.
      expect(eta * Math.cos(alpha) - D * Math.sin(alpha)).toBeCloseTo(s, 9);
      expect(angleOfBall(eta, D, s)).toBeCloseTo(alpha, 9);
      // Axle at the origin, apex on the wheel's top; the blade's plane there stands α to its tangent.
      const [R, p, q] = [80 + 80 * random(), 80 + 100 * random(), 15 * random()];
      const support = [
        p * Math.cos(alpha) - q * Math.sin(alpha),
        R + p * Math.sin(alpha) + q * Math.cos(alpha),
      ] as const;
      expect(axleToSupport({ R, p, q }, alpha)).toBeCloseTo(Math.hypot(...support), 9);
    }
  });
});

describe("what sharpening takes", () => {
  test("of the plain edge: area and depth of the plan's own example", () => {
    const { area, depth } = plainEdge({ behind: 0.5, alpha: rad(18), beta: rad(3) });
    expect(area).toBeCloseTo(0.1613, 4);
    expect(depth).toBeCloseTo(0.0997, 4);
  });

  test("the scratches of an abrasive, as blade height; unlike sides share it", () => {
    expect(heightOff(0.12 * 1.3 * 0.035, rad(18))).toBeCloseTo(0.0177, 4);
    expect(heightOff(0.12 * 1.3 * 0.538, rad(18))).toBeCloseTo(0.2716, 4);
    const alike = heightOffBoth({ left: 0.01, right: 0.01 }, { left: rad(18), right: rad(18) });
    expect(alike).toBeCloseTo(heightOff(0.01, rad(18)), 9);
    // One side alone, at 12 and 20: the apex slides along the other face.
    const one = heightOffBoth({ left: 0, right: 0.01 }, { left: rad(12), right: rad(20) });
    expect(one).toBeCloseTo(0.01 / Math.cos(rad(20)) / (Math.tan(rad(12)) + Math.tan(rad(20))), 12);
  });

  test("a micro-bevel and a touch-up on a bevel of 14.1°", () => {
    expect(microTakes(0.1, rad(17), rad(14.1))).toBeCloseTo(0.0217, 4);
    expect(microBehind(0.1, rad(17))).toBeCloseTo(0.0611, 4);
    expect(touchUpHeight(0.01, rad(14.1), rad(2))).toBeCloseTo(0.0671, 4);
  });

  test("tangents of a convex face at apex, middle and line; a hollow one has the other sign", () => {
    const convex = tangentsOf({ run: 14, rise: 2 }, 0.25);
    const tangents = [convex.apex, convex.middle, convex.line];
    for (const [i, wanted] of [12.18, 8.13, 4.08].entries()) expect(deg(tangents[i]!)).toBeCloseTo(wanted, 2);
    const hollow = tangentsOf({ run: 14, rise: 2 }, -0.25);
    expect(hollow.apex).toBeCloseTo(convex.line, 12);
  });
});

describe("the triangle of an edge", () => {
  const e = { value: 1.0414, u: 0.0254 };
  const d = { value: 1.422, u: 0.127 };

  test("the height dominates on a short bevel; its ends are told exactly", () => {
    const solved = angleByHeight(e, d);
    expect(solved.value).toBeCloseTo(20.11, 2);
    expect(solved.u).toBeCloseTo(1.713, 3);
    expect(solved.leansOn).toBe("height");
    // Of the height alone, ends at one u: 1.793 above and 1.531 below.
    const alone = angleByHeight({ value: 1.0414, u: 0 }, d, 1);
    expect(alone.ends[1] - alone.value).toBeCloseTo(1.793, 3);
    expect(alone.value - alone.ends[0]).toBeCloseTo(1.531, 3);
  });

  test("any two give the third, and their uncertainties are those of the relations", () => {
    const alpha = { value: 18, u: 0.5 };
    const v = (one: { value: number; u: number }) => one.u / one.value;
    const va = (2 * rad(0.5)) / Math.sin(2 * rad(18));
    expect(behindBy(d, alpha).value).toBeCloseTo(2 * 1.422 * Math.tan(rad(18)), 9);
    expect(behindBy(d, alpha).u / behindBy(d, alpha).value).toBeCloseTo(Math.hypot(v(d), va), 6);
    expect(heightBy(e, alpha).u / heightBy(e, alpha).value).toBeCloseTo(Math.hypot(v(e), va), 6);
    const f = { value: 1.5, u: 0.02 };
    const byFace = angleByFace(e, f);
    expect(rad(byFace.u)).toBeCloseTo(Math.tan(rad(byFace.value)) * Math.hypot(v(e), v(f)), 6);
  });

  test("by Monte Carlo: 40 000 draws of both readings spread as far as is said (JCGM 101)", () => {
    const random = randomFrom(11);
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const draws = Array.from({ length: 40_000 }, () => {
      const [a, b] = [0.8 + 0.01 * normal(), 1.3 + 0.03 * normal()];
      return deg(Math.atan(a / 2 / b));
    });
    const mean = draws.reduce((sum, one) => sum + one, 0) / draws.length;
    const sd = Math.sqrt(draws.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (draws.length - 1));
    const said = angleByHeight({ value: 0.8, u: 0.01 }, { value: 1.3, u: 0.03 });
    expect(said.u / sd).toBeGreaterThan(0.98);
    expect(said.u / sd).toBeLessThan(1.02);
    const within = draws.filter((one) => one > said.ends[0] && one < said.ends[1]).length / draws.length;
    expect(within).toBeGreaterThan(0.94);
    expect(within).toBeLessThan(0.96);
  });

  test("three that do not close say by how much", () => {
    const closed = opensBy({ value: 0.8, u: 0.01 }, { value: 1.23, u: 0.02 }, { value: 18, u: 0.3 });
    expect(Math.abs(closed.off)).toBeLessThan(closed.covers);
    const open = opensBy({ value: 0.8, u: 0.01 }, { value: 1.6, u: 0.02 }, { value: 18, u: 0.3 });
    expect(open.off).toBeGreaterThan(open.covers);
  });
});

describe("the life of an edge", () => {
  const flat = { behind: 0.5, alpha: rad(18), beta: rad(3) };
  const e0 = flat.behind * (1 - Math.tan(flat.beta) / Math.tan(flat.alpha));

  test("on flats, worked out by the field: 0.5 at 3° grows to 0.6250 for 1 of height, and wants thinning at the 50th", () => {
    const field = compileField(prism);
    expect(wornAt(field, 0.5, 1).behind).toBeCloseTo(0.625, 4);
    const lost = lostUntil(field, 0.5, 1.5)!;
    expect(lost / 0.04).toBeCloseTo(50, 1);
    expect(lost).toBeCloseTo((0.5 * e0) / (2 * Math.tan(flat.beta)), 5);
    // Never twice as thick within the blade's own height at so low an angle? It is: four times is not.
    expect(lostUntil(field, 0.5, 40)).toBeNull();
  });

  test("on a hollow: 0.2821 after 1 and 0.5165 after 4", () => {
    const field = compileField(hollow);
    expect(wornAt(field, 0.5, 1).behind).toBeCloseTo(0.2821, 3);
    expect(wornAt(field, 0.5, 4).behind).toBeCloseTo(0.5165, 3);
  });

  test("the worn section is the bare one clipped by both facets, by a library of polygons", () => {
    for (const blade of [prism, hollow]) {
      const field = compileField(blade);
      const none = { left: constant(0), right: constant(0) };
      const bare = compileField(blade, { flats: 0, faces: none, edgeBevel: false, falseEdge: true });
      const { cut } = stationAt(field, 0.5);
      const alpha = rad(blade.edge.angle.right);
      for (const lost of [0.3, 1, 2.5]) {
        const worn = wornField(field, () => lost);
        const ds = Array.from({ length: 2001 }, (_, i) => (12 * i) / 2000);
        const flank = ds.map((d) => ({ x: d, y: thicknessAlong(bare, cut, Math.max(1e-9, d)) / 2 }));
        const section = [...flank, { x: 12, y: 0 }, { x: 0, y: 0 }];
        const wedge = [
          { x: lost, y: 0 },
          { x: lost + 30, y: 30 * Math.tan(alpha) },
          { x: lost + 30, y: 0 },
        ];
        const clipped = Math.abs(areaPathsD(intersectD([section], [wedge], FillRule.NonZero, 8)));
        let sum = 0;
        for (let i = 0; i < 4000; i++)
          sum += (thicknessAlong(worn, cut, ((i + 0.5) * 12) / 4000) / 2) * (12 / 4000);
        expect(sum).toBeCloseTo(clipped, 3);
      }
    }
  });

  test("the log says what one takes: nine sharpenings know 0.04 within a quarter, eight do not", () => {
    const done = (n: number): Sharpened[] =>
      Array.from({ length: n + 1 }, (_, i) => ({
        id: `00000000-0000-4000-8000-${String(i).padStart(12, "0")}`,
        when: "2026-01-01T10:00:00Z",
        kind: "full",
        ...(i === 0 || i === n ? { height: [{ u: 0.5, h: 32 - 0.04 * i }] } : {}),
      }));
    const nine = takenEach(done(9), 0.25)!;
    expect(nine.each).toBeCloseTo(0.04, 9);
    expect(nine.u).toBeCloseTo((Math.SQRT2 * 0.03) / 9, 9);
    expect(nine.isKnown).toBe(true);
    expect(takenEach(done(8), 0.25)!.isKnown).toBe(false);
    expect(takenEach(done(0), 0.25)).toBeNull();
    expect(
      takenEach(
        done(9).map((one) => ({ ...one, kind: "touch" as const })),
        0.25,
      )!.each,
    ).toBeCloseTo(0.16, 9);
    const repaired = done(9).map((one, i) => (i === 4 ? { ...one, kind: "repair" as const } : one));
    expect(takenEach(repaired, 0.25)).toBeNull();
  });
});
