import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { solidBetween } from "../../src/blade/mass.ts";
import { stationAt, thicknessAbove } from "../../src/blade/station.ts";
import { evaluate } from "../../src/evaluate/evaluation.ts";
import { example, exampleText, PIECES } from "../examples.ts";
import { prepare, sumCells } from "./integrator.ts";

/**
 * The check pieces: prisms 100 × 30 × 4 mm, each with one feature. Source of the closed forms: geometry;
 * of the tabled figures: brute-force integration by two independent programs, 0.02 % on volumes.
 */
const L = 100;
const H = 30;
const T = 4;
const tan = (a: number) => Math.tan((a * Math.PI) / 180);

/** Area under one side's chain of straight faces (d, h), up to the spine. */
const under = (points: [number, number][]) =>
  points.slice(1).reduce((sum, [d, h], i) => sum + ((h + points[i]![1]) / 2) * (d - points[i]![0]), 0);

/** Area between a chord and its arc. */
const segment = (chord: number, radius: number) => {
  const angle = 2 * Math.asin(chord / 2 / radius);
  return (radius ** 2 / 2) * (angle - Math.sin(angle));
};

const volumeOf = (name: string) => solidBetween(compileField(example(name))).volume;

describe("closed forms", () => {
  const flatSide = (e: number, alpha: number, b: number) =>
    under([
      [0, 0],
      [e / tan(alpha), e],
      [b, T / 2],
      [H, T / 2],
    ]);

  test("the plain prism holds its section's area times its length", () => {
    expect(volumeOf("prism")).toBeCloseTo(2 * flatSide(0.25, 20, 15) * L, 6);
    expect(volumeOf("prism")).toBeCloseTo(9237.63, 1);
    const { mass, centreOfMass } = evaluate(example("prism")).blade;
    expect(mass).toBeCloseTo(72.515, 2);
    expect(centreOfMass[0]).toBeCloseTo(50, 6);
    expect(centreOfMass[1]).toBeCloseTo(-12.0038, 4);
  });

  test("a chisel has one flat face and its whole thickness on the other", () => {
    const e = 0.4;
    const right = under([
      [0, 0],
      [e / tan(24), e],
      [15, T],
      [H, T],
    ]);
    expect(volumeOf("piece-chisel")).toBeCloseTo(right * L, 6);
  });

  test("an edge off centre with unlike angles is two half sections about its own plane", () => {
    const side = (offset: number, alpha: number, b: number) =>
      under([
        [0, offset],
        [0.3 / tan(alpha), offset + 0.3],
        [b, T / 2],
        [H, T / 2],
      ]);
    expect(volumeOf("piece-offset")).toBeCloseTo((side(0.1, 24, 15) + side(-0.1, 18, 12)) * L, 6);
  });

  test("a hollow takes a circular segment more off each side than its chord", () => {
    const climb = 20 - 0.25 / tan(20);
    const chord = Math.hypot(climb, 1.75);
    const section = flatSide(0.25, 20, 20) - segment(chord, 127);
    expect(volumeOf("piece-hollow")).toBeCloseTo(2 * section * L, 3);
  });

  test("a convex face leaves a circular segment more", () => {
    const climb = 24 - 0.25 / tan(20);
    const chord = Math.hypot(climb, 1.75);
    const radius = chord ** 2 / (8 * 0.3) + 0.15;
    const section = flatSide(0.25, 20, 24) + segment(chord, radius);
    expect(volumeOf("piece-convex")).toBeCloseTo(2 * section * L, 4);
  });

  test("a straight pull up a rest is a plane: its section changes evenly along the blade", () => {
    const [rest, beta] = [0.5, 6];
    const dP = 0.25 / tan(20);
    const sectionAt = (x: number) => {
      const at = (d: number) =>
        0.25 + (d * Math.cos((rest * Math.PI) / 180) - x * Math.sin((rest * Math.PI) / 180) - dP) * tan(beta);
      const slope = at(1) - at(0);
      const meetsEdge = at(0) / (tan(20) - slope);
      const meetsFlat = (T / 2 - at(0)) / slope;
      return under([
        [0, 0],
        [meetsEdge, meetsEdge * tan(20)],
        [meetsFlat, T / 2],
        [H, T / 2],
      ]);
    };
    // The area is a square in x, so Simpson's rule over the whole length is exact.
    const volume = (2 * L * (sectionAt(0) + 4 * sectionAt(L / 2) + sectionAt(L))) / 6;
    expect(volumeOf("piece-straight")).toBeCloseTo(volume, 3);
  });

  test("a bevel to the spine is one wedge where only the long spine is near", () => {
    const slope = (2 - 0.25) / (H - 0.25 / tan(20));
    const section = under([
      [0, 0],
      [0.25 / tan(20), 0.25],
      [H, 0.25 + (H - 0.25 / tan(20)) * slope],
    ]);
    expect(evaluate(example("piece-full"), [0.5]).stations[0]!.area).toBeCloseTo(2 * section, 4);
  });

  test("a leaning plunge only adds steel: behind it the bar is whole, ahead of it the prism stands", () => {
    const field = compileField(example("piece-plunge"));
    const bar = solidBetween(field, 0, 20);
    expect(bar.volume).toBeCloseTo(20 * H * T, 6);
    const clear = solidBetween(field, 60, 80).volume;
    expect(clear).toBeCloseTo((9237.6203 * 20) / 100, 2);
  });
});

describe("tabled figures", () => {
  const expected = JSON.parse(exampleText("expected"));
  test.each(PIECES)("piece-%s", (name) => {
    const blade = example(`piece-${name}`);
    const wanted = expected[`piece-${name}`];
    const { volume, centre } = solidBetween(compileField(blade));
    expect(Math.abs(volume / wanted.volume - 1)).toBeLessThan(0.0002);
    expect(centre[0]).toBeCloseTo(wanted.centreOfMass[0], 2);
    expect(centre[1]).toBeCloseTo(wanted.centreOfMass[1], 2);
    const field = compileField(blade);
    const station = stationAt(field, 0.5);
    for (const [height, thickness] of Object.entries(wanted.above)) {
      expect(thicknessAbove(field, station, Number.parseFloat(height))).toBeCloseTo(thickness as number, 3);
    }
  });

  test("prism thicknesses above the edge", () => {
    const { above } = evaluate(example("prism"), [0.5]).stations[0]!;
    const wanted = { "0.5": 0.364, "1": 0.5766, "2": 0.8211, "5": 1.5547, "10": 2.7773 };
    for (const [height, t] of Object.entries(wanted)) expect(above[height]).toBeCloseTo(t, 4);
  });

  test("the field knife", () => {
    const { blade, forward, stations } = evaluate(example("field"), [0.1, 0.5, 0.9]);
    expect(Math.abs(blade.volume / 16437 - 1)).toBeLessThan(0.0002);
    expect(blade.mass).toBeCloseTo(129.03, 1);
    expect(blade.centreOfMass[0]).toBeCloseTo(-6.419, 2);
    expect(blade.centreOfMass[1]).toBeCloseTo(-11.817, 2);
    expect(Math.abs(forward.volume / 7579 - 1)).toBeLessThan(0.0002);
    expect(forward.centreOfMass[0]).toBeCloseTo(46.5, 1);
    expect(forward.centreOfMass[1]).toBeCloseTo(-11.65, 2);
    const wanted = [
      [0.3249, 0.5281, 0.6831, 1.1479, 1.9217],
      [0.3249, 0.4833, 0.5914, 0.9159, 1.4567],
      [0.3249, 0.4512, 0.5644, 0.9158, 1.5417],
    ];
    stations.forEach((station, i) => {
      const got = ["0.5", "1", "2", "5", "10"].map((height) => station.above[height]!);
      got.forEach((t, k) => {
        expect(Math.abs(t - wanted[i]![k]!)).toBeLessThan(0.001);
      });
    });
  });
});

describe("the second reading of the model", () => {
  test.each(["field", ...PIECES.map((name) => `piece-${name}`)])(
    "%s: volume, centre and thickness",
    (name) => {
      const raw = JSON.parse(exampleText(name));
      const field = compileField(example(name));
      const ours = solidBetween(field);
      const theirs = sumCells(raw, 0.5);
      expect(Math.abs(ours.volume / theirs.volume - 1)).toBeLessThan(0.001);
      expect(ours.centre[0]).toBeCloseTo(theirs.centre[0], 1);
      expect(ours.centre[1]).toBeCloseTo(theirs.centre[1], 1);
      const reference = prepare(raw);
      for (const u of [0.2, 0.45, 0.7, 0.93]) {
        const station = stationAt(field, u);
        for (const height of [0.3, 1, 4, 9]) {
          const x = station.x + station.inward[0] * height;
          const y = station.y + station.inward[1] * height;
          expect(
            Math.abs(thicknessAbove(field, station, height)! - reference.thicknessAt(x, y)),
          ).toBeLessThan(0.002);
        }
      }
    },
  );
});
