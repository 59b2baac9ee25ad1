import jstat from "jstat";
import { describe, expect, test } from "vitest";
import { betweenEnds, curveOf, fitBends, fitTwist, highest } from "../../src/straight/fit.ts";
import { bowLeft, bowSpared, kappaOf, linesOf, perLine, turnSpared } from "../../src/straight/lines.ts";
import { kept, loadFor, sagitta, sagOf, yieldCurvature, yieldsAt } from "../../src/straight/overbend.ts";

const degrees = (radians: number) => (radians * 180) / Math.PI;
/** Feelers of 0.05 that repeat within 0.03. */
const U = Math.hypot(0.03, 0.05 / Math.sqrt(12));
const named = (values: readonly number[], step = 25) =>
  fitBends([values.map((z, i) => ({ x: step * i, z, u: U }))]);
const of = (report: ReturnType<typeof fitBends>, kind: string) =>
  report.bends.find(({ shape }) => shape.kind === kind);

describe("which bend it is, by the chapter's own readings", () => {
  const first = [0, 0.1, 0.15, 0.25, 0.2, 0.15, 0.1, 0.05, 0];

  test("one bend at 76 (60 to 93), 0.298° ± 0.042, an even bow nearly as well", () => {
    const report = named(first);
    expect(of(report, "even")!.gain).toBeCloseTo(42.7, 1);
    const bend = of(report, "bend")!;
    expect(bend.gain).toBeCloseTo(46.4, 1);
    expect(bend.shape).toEqual({ kind: "bend", at: 76 });
    expect(report.place).toEqual([60, 93]);
    expect(degrees(-bend.amplitudes[0]!)).toBeCloseTo(0.298, 3);
    expect(degrees(bend.u[0]!)).toBeCloseTo(0.042, 3);
  });

  test("an even bow of 0.409 ± 0.030", () => {
    const report = named([0, 0.2, 0.3, 0.4, 0.4, 0.4, 0.3, 0.2, 0]);
    const even = of(report, "even")!;
    expect(even.gain).toBeCloseTo(179.1, 1);
    expect((-even.amplitudes[0]! * 200 ** 2) / 8).toBeCloseTo(0.409, 3);
    expect((even.u[0]! * 200 ** 2) / 8).toBeCloseTo(0.03, 3);
    expect(of(report, "bend")!.gain).toBeCloseTo(164.5, 1);
  });

  test("of five readings even and bent are alike: one more at 80 tells", () => {
    const report = named(
      first.filter((_, i) => i % 2 === 0),
      50,
    );
    expect(of(report, "even")!.gain).toBeCloseTo(25.6, 1);
    expect(of(report, "bend")!.gain).toBeCloseTo(25.4, 1);
    expect(report.next!.x).toBe(80);
  });

  test("an S at 58 and 142, 0.400° ± 0.066", () => {
    const report = named([0, -0.05, -0.15, -0.1, 0, 0.1, 0.15, 0.05, 0]);
    const two = of(report, "two")!;
    expect(two.shape).toEqual({ kind: "two", at: [58, 142] });
    expect(two.gain).toBeCloseTo(35.4, 1);
    expect(degrees(Math.abs(two.amplitudes[0]!))).toBeCloseTo(0.4, 3);
    expect(degrees(two.u[0]!)).toBeCloseTo(0.066, 3);
    expect(of(report, "bend")!.gain).toBeCloseTo(6.1, 1);
  });
});

// Source: jstat, a general-purpose library; its standard errors are by what scatters, as Birge has them where that is more.
describe("the fit, against a library's least squares", () => {
  test("on a hundred made-up blades: an even bow and one bend, with how sure they are", () => {
    let seed = 11;
    const draw = () => {
      seed = (seed * 16807) % 2147483647;
      return seed / 2147483647;
    };
    let told = 0;
    for (let n = 0; n < 100; n++) {
      const at = 40 + 120 * draw();
      const values = Array.from(
        { length: 9 },
        (_, i) => 0.012 * Math.max(0, 25 * i - at) + 0.3 * (draw() - 0.5) + 0.01 * i,
      );
      const report = named(values);
      for (const bend of report.bends) {
        const { shape } = bend;
        if (shape.kind !== "even" && shape.kind !== "bend") continue;
        const column = (x: number) => (shape.kind === "even" ? x ** 2 / 2 : Math.max(0, x - shape.at));
        const fit = jstat.models.ols(
          values,
          values.map((_, i) => [1, 25 * i, column(25 * i)]),
        );
        expect(bend.amplitudes[0]!).toBeCloseTo(fit.coef[2]!, 8);
        told++;
        // The library counts 9 − 3 degrees of freedom; a place that was searched takes one more.
        const k = shape.kind === "even" ? 6 : 5;
        const wider = Math.sqrt(bend.chiSquare / k) > 1 ? Math.sqrt(6 / k) * fit.t.se[2]! : null;
        if (wider !== null) expect(bend.u[0]! / wider).toBeCloseTo(1, 6);
      }
    }
    expect(told).toBeGreaterThan(100);
  });
});

describe("from bend to lines", () => {
  test("a bend of 0.25° at 60 of 200 stands 0.1833", () => {
    const bend = { shape: { kind: "bend", at: 60 }, amplitudes: [(-0.25 * Math.PI) / 180] } as const;
    expect(highest(betweenEnds(curveOf(bend), 0, 200), 0, 200).z).toBeCloseTo(0.1833, 4);
  });

  test("what a face spares: 0.25 left over a skin of 0.10 holds 0.30, 0.45 holds 0.70; a degree of 30 tall asks 0.1309", () => {
    expect(bowSpared(0.25, 0.1)).toBeCloseTo(0.3, 9);
    expect(bowSpared(0.45, 0.1)).toBeCloseTo(0.7, 9);
    expect(bowSpared(0.05, 0.1)).toBe(0);
    expect(degrees(turnSpared(0.1309 + 0.1, 0.1, 30))).toBeCloseTo(1, 3);
  });

  test("a bow: lines square across on one face", () => {
    const kappa = kappaOf(0.5, 200);
    expect(kappa).toBeCloseTo(-1e-4, 9);
    const [line, ...more] = linesOf(kappa, 0);
    expect(more).toEqual([]);
    expect(line).toMatchObject({ hollow: "left", lean: 0 });
    expect(degrees(perLine(line!, 25))).toBeCloseTo(0.1432, 4);
  });

  test("a twist: lines at 45° on both faces, half each; on one face alone it leaves a bow", () => {
    const tau = Math.PI / 180 / 200;
    const lines = linesOf(0, tau);
    expect(lines.map(({ kappa }) => kappa).sort()).toEqual([
      expect.closeTo(-8.727e-5, 8),
      expect.closeTo(8.727e-5, 8),
    ]);
    for (const line of lines) {
      expect(degrees(line.lean)).toBeCloseTo(line.kappa > 0 ? 45 : -45, 6);
      expect(degrees(perLine(line, 25))).toBeCloseTo(0.0884, 4);
    }
    expect(bowLeft(Math.PI / 180, 200)).toBeCloseTo(0.436, 3);
  });

  test("both: leaning lines, the larger first", () => {
    const [larger, smaller] = linesOf(-1e-4, Math.PI / 180 / 200);
    expect(larger).toMatchObject({ kappa: expect.closeTo(-1.5058e-4, 8), hollow: "left" });
    expect(degrees(larger!.lean)).toBeCloseTo(-30.1, 1);
    expect(degrees(perLine(larger!, 25))).toBeCloseTo(0.1866, 4);
    expect(smaller).toMatchObject({ kappa: expect.closeTo(5.058e-5, 8), hollow: "right" });
    expect(degrees(smaller!.lean)).toBeCloseTo(59.9, 1);
    expect(degrees(perLine(smaller!, 25))).toBeCloseTo(0.0363, 4);
  });
});

describe("past straight", () => {
  test("3 thick at 350: yields at 5.69 over 200, over a span of 60 at 0.341; half of it keeps 0.3125", () => {
    expect(yieldCurvature(3, 350)).toBeCloseTo(0.0011382, 7);
    expect(sagitta(yieldCurvature(3, 350), 200)).toBeCloseTo(5.69, 2);
    expect(yieldsAt(3, 350, 60)).toBeCloseTo(0.341, 3);
    const twice = 2 * yieldCurvature(3, 350);
    expect(kept(twice, 3, 350) / twice).toBeCloseTo(0.3125, 6);
  });

  test.each([
    [350, 7.31],
    [180, 4.17],
    [2000, 36],
  ])("to leave 0.5 in 200 of 3 thick at %d: load to %d", (sigma, wanted) => {
    expect(sagitta(loadFor((8 * 0.5) / 200 ** 2, 3, sigma)!, 200)).toBeCloseTo(wanted, wanted > 9 ? 1 : 2);
  });

  test("clad: both forms meet where the core begins to yield; a core never bends past its own", () => {
    const clad = { core: 1, sigma: 2000 };
    expect(kept(0.006, 3, 350, clad)).toBeCloseTo(0.00426, 6);
    const seam = 0.0034146;
    expect(kept(seam - 1e-9, 3, 350, clad)).toBeCloseTo(0.0017706, 6);
    expect(kept(seam + 1e-9, 3, 350, clad)).toBeCloseTo(0.0017706, 6);
    expect(loadFor(0.03, 3, 350, clad)).toBeNull();
    expect(kept(loadFor(0.003, 3, 350, clad)!, 3, 350, clad)).toBeCloseTo(0.003, 8);
  });

  test("its own weight: 0.0235 over 200 of 2, 0.668 over 400 of 1.5", () => {
    expect(sagOf(200, 2)).toBeCloseTo(0.0235, 4);
    expect(sagOf(400, 1.5)).toBeCloseTo(0.668, 3);
  });

  // Moments over the section, strip by strip: each strip's stress up to its own yield, then let go elastically.
  test("agrees with stresses added up strip by strip, solid and clad", () => {
    const E = 205_000;
    const strips = (loaded: number, t: number, sigma: number, clad?: { core: number; sigma: number }) => {
      const n = 20_000;
      let moment = 0;
      for (let i = 0; i < n; i++) {
        const y = ((i + 0.5) / n - 0.5) * t;
        const most = clad && Math.abs(y) < clad.core / 2 ? clad.sigma : sigma;
        moment += Math.max(-most, Math.min(most, E * loaded * y)) * y * (t / n);
      }
      return loaded - moment / ((E * t ** 3) / 12);
    };
    for (const loaded of [0.0015, 0.003, 0.006]) {
      expect(kept(loaded, 3, 350)).toBeCloseTo(strips(loaded, 3, 350), 7);
      const clad = { core: 1, sigma: 2000 };
      expect(kept(loaded, 3, 350, clad)).toBeCloseTo(strips(loaded, 3, 350, clad), 7);
    }
  });
});

describe("a turn by its roll", () => {
  const roll = (values: readonly number[]) => [
    values.map((z, i) => ({ x: 50 * i, z: (z * Math.PI) / 180, u: 0.002 })),
  ];

  test("even along it, or all at one place", () => {
    const even = fitTwist(roll([0, 0.38, 0.75, 1.12, 1.5]))!;
    expect(even.kind).toBe("even");
    expect(degrees(even.total)).toBeCloseTo(1.5, 2);
    const step = fitTwist(roll([0, 0, 0, 1.5, 1.5]))!;
    expect(step).toMatchObject({ kind: "step", at: 125 });
    expect(degrees(step.total)).toBeCloseTo(1.5, 6);
    expect(fitTwist(roll([0, 1]))).toBeNull();
    // Rows that fit better than they were read are no surer for it. Source: of a line's slope, u / √Σ(x − x̄)².
    const [apart, rows] = [50, [-2, -1, 0, 1, 2]];
    const wide = Math.sqrt(rows.reduce((sum, n) => sum + (n * apart) ** 2, 0));
    expect(even.u).toBeCloseTo((0.002 * 4 * apart) / wide, 9);
  });
});
