import { describe, expect, test } from "vitest";
import { compileField, thicknessAt } from "../../src/blade/field.ts";
import { solidBetween } from "../../src/blade/mass.ts";
import { parseBlade } from "../../src/blade/parse.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { secondLines, secondStationAt, secondStations } from "../../src/blade/second-station.ts";
import { stationAt, thicknessAbove } from "../../src/blade/station.ts";
import { evaluate } from "../../src/evaluate/evaluation.ts";
import { checked, example } from "../examples.ts";
import { prepare, sumCells } from "../reference/integrator.ts";

const RAD = Math.PI / 180;

/** A double edge throughout, symmetric about its axis: 100 long, as high and thick as asked, both bevels alike. */
function double(high: number, t: number, e: number, beta: number, alpha: number): Blade {
  const bevel = { kind: "flat", set: "angle", angle: beta } as const;
  return checked({
    ...example("prism"),
    name: "Double",
    outline: {
      spine: [{ at: [0, 0] }, { at: [100, 0] }, { at: [100, -high] }],
      edge: [{ at: [0, -high] }, { at: [100, -high] }],
      tang: [{ at: [0, -high] }, { at: [0, 0] }],
    },
    thickness: [{ x: 0, t }],
    edge: { behind: [{ u: 0, t: e }], angle: { left: alpha, right: alpha }, rightShare: 0.5, offset: 0 },
    bevels: { right: { ...bevel, pull: "follow", plunge: { x: 0, lean: 0, radius: 0 } }, left: "same" },
    secondEdge: {
      from: 0,
      to: 99.9999,
      behind: [{ v: 0, t: e }],
      angle: { left: alpha, right: alpha },
      bevels: { right: { ...bevel, runIn: { lean: 0, radius: 0 } }, left: "same" },
    },
    holes: [],
  });
}

/** Source: geometry, d_e + (T − e)/2 tan β from each edge; the ridge where both meet half way up. */
describe("a double edge", () => {
  test.each([
    [28, 4, 4.155, 19.69],
    [27.94, 3.962, 4.114, 19.712],
  ])("%f high, %f thick: each grind line %f from its edge, %f of flat between", (high, t, line, flat) => {
    const field = compileField(double(high, t, 0.65, 25, 30));
    const [one, other] = [stationAt(field, 0.5), secondStationAt(field, 0.5)!];
    expect(one.right.grindLine).toBeCloseTo(line, 3);
    expect(other.right.grindLine).toBeCloseTo(line, 3);
    expect(other.behind).toBeCloseTo(0.65, 5);
    expect(other.right.edgeBevel).toBeCloseTo(0.325 / Math.tan(30 * RAD), 5);
    expect(other.right.primaryAngle).toBeCloseTo(25, 4);
    expect(high - one.right.grindLine! - other.right.grindLine!).toBeCloseTo(flat, 2);
  });

  test("at 7.106° the bevels meet in a ridge 4.00 thick, half way up", () => {
    const field = compileField(double(28, 4.2, 0.65, 7.106, 30));
    expect(thicknessAt(field, 50, -14)).toBeCloseTo(4, 2);
    const { cut } = stationAt(field, 0.5);
    expect(cut.breaks.some((s) => Math.abs(s - 14) < 1e-4)).toBe(true);
  });

  test("is twice its half: alike read from either edge, and as much steel", () => {
    const field = compileField(double(28, 4, 0.65, 12, 30));
    const [one, other] = [stationAt(field, 0.5), secondStationAt(field, 0.5)!];
    for (const up of [0.2, 0.5, 1, 3, 6, 10]) {
      const [x, y] = [other.x + up * other.inward[0], other.y + up * other.inward[1]];
      expect(thicknessAt(field, x, y)).toBeCloseTo(thicknessAbove(field, one, up)!, 9);
    }
    // Area of half: shoulder triangle, bevel, flat; times two, times the length.
    const dE = 0.325 / Math.tan(30 * RAD);
    const climb = (4 - 0.65) / 2 / Math.tan(12 * RAD);
    const half = (0.65 * dE) / 2 + ((0.65 + 4) / 2) * climb + 4 * (14 - dE - climb);
    // Short of where the outline's own end is the nearest of it.
    expect(solidBetween(field, 0, 70).volume / (2 * half * 70)).toBeCloseTo(1, 5);
  });
});

/** A dagger on a real outline: a second edge over part of the spine, its start leaning and run in, hollow and unlike the first. */
const dagger = (bevel: object, from = 30) => {
  const { falseEdge: _, ...field } = example("field");
  return checked({
    ...field,
    secondEdge: {
      from,
      behind: [
        { v: 0, t: 0.5 },
        { v: 1, t: 0.3 },
      ],
      angle: { left: 20, right: 20 },
      bevels: { right: { runIn: { lean: 8, radius: 4 }, ...bevel }, left: "same" },
    },
  });
};

describe("on an outline of its own", () => {
  test.each([
    [
      "flat by its line",
      {
        kind: "flat",
        set: "height",
        height: [
          { v: 0, h: 9 },
          { v: 1, h: 5 },
        ],
      },
    ],
    ["flat by its angle", { kind: "flat", set: "angle", angle: 9 }],
    [
      "hollow",
      {
        kind: "hollow",
        wheelDiameter: 254,
        set: "height",
        height: [
          { v: 0, h: 9 },
          { v: 1, h: 5 },
        ],
      },
    ],
    [
      "convex",
      {
        kind: "convex",
        bulge: 0.1,
        set: "height",
        height: [
          { v: 0, h: 9 },
          { v: 1, h: 5 },
        ],
      },
    ],
  ])("%s: a second integrator that shares no code agrees place by place, and in all", (_, bevel) => {
    const blade = dagger(bevel);
    const raw = blade as Parameters<typeof prepare>[0];
    const field = compileField(blade);
    const reference = prepare(raw);
    for (const station of secondStations(field, 8)) {
      for (const up of [0.2, 0.6, 1.5, 4, 8]) {
        const [x, y] = [station.x + up * station.inward[0], station.y + up * station.inward[1]];
        if (up < station.height)
          expect(Math.abs(thicknessAt(field, x, y) - reference.thicknessAt(x, y))).toBeLessThan(0.005);
      }
    }
    const theirs = sumCells(raw, 0.8);
    expect(Math.abs(solidBetween(field).volume / theirs.volume - 1)).toBeLessThan(0.002);
  });

  test("its stations say what it was asked: behind it, its line, its angle; ahead of its start only", () => {
    const field = compileField(
      dagger({
        kind: "flat",
        set: "height",
        height: [
          { v: 0, h: 9 },
          { v: 1, h: 5 },
        ],
      }),
    );
    const station = secondStationAt(field, 0.5)!;
    expect(station.behind).toBeCloseTo(0.4, 4);
    expect(station.right.grindLine).toBeCloseTo(7, 3);
    expect(station.x).toBeGreaterThan(30);
    expect(secondStationAt(compileField(example("field")), 0.5)).toBeNull();
    // Behind its start the spine is as thick as it was.
    expect(thicknessAt(field, 20, -0.2)).toBeCloseTo(
      thicknessAt(compileField(example("field")), 20, -0.2),
      9,
    );
  });

  test("the evaluator tells its stations apart; its lines are drawn clear of its start", () => {
    const blade = dagger({ kind: "flat", set: "angle", angle: 9 });
    const { secondEdge } = evaluate(blade, [0.25, 0.5]);
    expect(secondEdge!.stations.map(({ v }) => v)).toEqual([0.25, 0.5]);
    expect(secondEdge!.stations[0]!.behind.total).toBeCloseTo(0.45, 4);
    expect(secondEdge!.stations[1]!.primaryAngle.right).toBeCloseTo(9, 4);
    expect(evaluate(example("field"), [0.5]).secondEdge).toBeUndefined();
    const { grindLine, shoulder } = secondLines(compileField(blade));
    const [first] = grindLine.right[0]!;
    expect(first![0]).toBeGreaterThan(30);
    expect(shoulder.right[0]!.length).toBeGreaterThan(20);
  });

  test("beside a false edge, ahead of its own end, without an angle, or thicker than the flat it is refused", () => {
    const faultsOf = (change: (copy: Blade) => void) => {
      const copy = structuredClone(dagger({ kind: "flat", set: "angle", angle: 9 }));
      change(copy);
      const parsed = parseBlade(copy);
      return parsed.ok ? [] : parsed.faults.map(({ path }) => path);
    };
    expect(faultsOf((copy) => (copy.falseEdge = { from: 40, to: 90, angle: 20, land: 1 }))).toContain(
      "$.falseEdge",
    );
    expect(faultsOf((copy) => (copy.secondEdge!.to = 20))).toContain("$.secondEdge.to");
    expect(faultsOf((copy) => (copy.secondEdge!.angle.right = 0))).toContain("$.secondEdge.angle.right");
    expect(faultsOf((copy) => (copy.secondEdge!.behind = [{ v: 0, t: 9 }]))).toContain("$.secondEdge.behind");
    expect(
      faultsOf(
        (copy) =>
          (copy.secondEdge!.behind = [
            { v: 0.5, t: 0.3 },
            { v: 0.5, t: 0.4 },
          ]),
      ),
    ).toContain("$.secondEdge.behind[1].v");
  });
});
