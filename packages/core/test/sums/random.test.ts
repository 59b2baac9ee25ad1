import fc from "fast-check";
import jstat from "jstat";
import { sampleStandardDeviation } from "simple-statistics";
import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { stationAtX, thicknessAbove } from "../../src/blade/station.ts";
import { USUAL_INSTRUMENTS } from "../../src/shop/instrument.ts";
import { PIECE } from "../../src/sums/piece.ts";
import { type Answer, type Given, sayIn } from "../../src/sums/sum.ts";
import { sumOf, withUsual } from "../../src/sums/sums.ts";
import { COVERAGE, standardOf, uncertaintiesOf } from "../../src/sums/uncertainty.ts";
import "../seed.ts";

const say = sayIn("mm");
const RAD = Math.PI / 180;
const ask = (key: string, given: Given): Answer => {
  const sum = sumOf(key)!;
  return sum.answer(withUsual(sum, given), say);
};
/** To a maker's rounding: a hundredth of a millimetre, a tenth of a degree. */
const hundredth = (mm: number) => Math.round(mm * 100) / 100;
const tenth = (degrees: number) => Math.round(degrees * 10) / 10;

/** A bevel that a maker could mean. */
const bevel = fc.record({
  thickness: fc.double({ min: 1, max: 8, noNaN: true }),
  share: fc.double({ min: 0, max: 0.8, noNaN: true }),
  angle: fc.double({ min: 1.5, max: 30, noNaN: true }),
  leave: fc.constantFrom("thickness", "behind", "climb", "width", "angle"),
});

describe("2 000 random questions, each asked of the blade it makes", () => {
  test("bevels: nothing possible is refused at a maker's roundings, and the field agrees with the trigonometry", () => {
    fc.assert(
      fc.property(bevel, ({ thickness, share, angle, leave }) => {
        const behind = share * thickness;
        const climb = (thickness - behind) / 2 / Math.tan(angle * RAD);
        fc.pre(climb > 1 && climb < 150);
        const all = {
          thickness: hundredth(thickness),
          behind: hundredth(behind),
          climb: hundredth(climb),
          width: hundredth(Math.hypot(climb, (thickness - behind) / 2)),
          angle: tenth(angle),
        };
        // Three of them, by height; by width where the height is what is asked.
        const keys = (["thickness", "behind", "climb", "angle"] as const).filter((key) => key !== leave);
        const taken = leave === "width" ? (["thickness", "behind", "climb"] as const) : keys;
        const three: Record<string, number> = Object.fromEntries(taken.map((key) => [key, all[key]]));
        if (leave === "climb") {
          delete three.angle;
          three.width = all.width;
        }
        const answer = ask("bevel", three);
        expect(answer.state, JSON.stringify(three)).toBe("answered");
        if (answer.state !== "answered" || !answer.blade) return;
        const field = compileField(answer.blade);
        const { right, flats, behind: e } = stationAtX(field, PIECE.middle)!;
        const read = { high: right.grindLine! - (right.edgeBevel ?? 0), angle: right.primaryAngle! };
        const figure = (name: string) => answer.figures.find((one) => one.name === name)!.value;
        expect(figure("angle a side")).toBeCloseTo(read.angle, 6);
        expect(figure("bevel, high")).toBeCloseTo(read.high, 6);
        expect(Math.tan(read.angle * RAD)).toBeCloseTo((flats - (e ?? 0)) / 2 / read.high, 4);
        for (const [key, value] of Object.entries(three)) {
          const own = { thickness: flats, behind: e ?? 0, climb: read.high, angle: read.angle }[key];
          if (own !== undefined)
            expect(Math.abs(own - value)).toBeLessThan(
              key === "angle" ? 0.051 + 0.01 / RAD / read.high : 0.011,
            );
        }
      }),
      { numRuns: 1000 },
    );
  });

  test("edges: any two give the third, and the blade's own edge bevel is as high", () => {
    const edge = fc.record({
      behind: fc.double({ min: 0.05, max: 3, noNaN: true }),
      angle: fc.double({ min: 6, max: 45, noNaN: true }),
      leave: fc.constantFrom("behind", "height", "angle"),
    });
    fc.assert(
      fc.property(edge, ({ behind, angle, leave }) => {
        const height = behind / 2 / Math.tan(angle * RAD);
        fc.pre(height > 0.1);
        const all = { behind: hundredth(behind), height: hundredth(height), angle: tenth(angle) };
        const { [leave]: _, ...two } = all;
        const answer = ask("edge", two);
        expect(answer.state, JSON.stringify(two)).toBe("answered");
        if (answer.state !== "answered" || !answer.blade) return;
        const station = stationAtX(compileField(answer.blade), PIECE.middle)!;
        const figure = (name: string) => answer.figures.find((one) => one.name === name)!.value;
        expect(figure("edge bevel, high")).toBeCloseTo(station.right.edgeBevel!, 6);
        expect(figure("behind the edge")).toBeCloseTo(station.behind!, 6);
        expect(station.behind! / 2 / station.right.edgeBevel!).toBeCloseTo(
          Math.tan(figure("edge angle a side") * RAD),
          5,
        );
      }),
      { numRuns: 500 },
    );
  });

  test("hollows: up to the tallest every height is answered, and what it leaves is nowhere thinner than the edge", () => {
    const hollow = fc.record({
      thickness: fc.double({ min: 2, max: 7, noNaN: true }),
      share: fc.double({ min: 0.02, max: 0.4, noNaN: true }),
      wheel: fc.double({ min: 60, max: 700, noNaN: true }),
      high: fc.double({ min: 0.3, max: 1, noNaN: true }),
    });
    fc.assert(
      fc.property(hollow, ({ thickness, share, wheel, high }) => {
        const [t, e, d] = [hundredth(thickness), hundredth(share * thickness), hundredth(wheel)];
        const rise = (t - e) / 2;
        const tallest = Math.sqrt(d * rise - rise ** 2);
        const climb = hundredth(high * tallest);
        const answer = ask("hollow", { thickness: t, behind: e, wheel: d, climb });
        expect(answer.state, JSON.stringify({ t, e, d, climb })).toBe("answered");
        if (answer.state !== "answered" || !answer.blade) return;
        const field = compileField(answer.blade);
        const station = stationAtX(field, PIECE.middle)!;
        const [low, top] = [station.right.edgeBevel!, station.right.grindLine!];
        for (let k = 0; k <= 20; k++) {
          const at = thicknessAbove(field, station, low + ((top - low) * k) / 20)!;
          expect(at).toBeGreaterThan(e - 1e-3);
        }
      }),
      { numRuns: 500 },
    );
  });
});

const DRAWS = 20_000;

describe("what an instrument's reading is worth in an answer", () => {
  const caliper = USUAL_INSTRUMENTS.find(({ kind }) => kind === "caliper")!;
  const rule = USUAL_INSTRUMENTS.find(({ kind }) => kind === "rule")!;

  /** Source: JCGM 101, propagation of distributions by drawing them; readings normal about what was read. */
  test("an edge's angle agrees with 20 000 draws of both readings, the height dominating on a short bevel", () => {
    const sum = sumOf("edge")!;
    const given = { behind: 2.0828, height: 3.9116 };
    const byBoth = uncertaintiesOf(sum, given, { thickness: caliper, height: rule }, say).get(
      "edge angle a side",
    )!;
    const [ue, uh] = [standardOf(caliper), standardOf(rule)];
    // The same draws on every run.
    let state = 4711;
    jstat.setRandom(() => {
      state = (state * 1103515245 + 12345) % 2147483648;
      return (state + 0.5) / 2147483648;
    });
    const draws = Array.from({ length: DRAWS }, () => {
      const [e, h] = [jstat.normal.sample(given.behind, ue), jstat.normal.sample(given.height, uh)];
      return Math.atan(e / 2 / h) / RAD;
    });
    const deviation = sampleStandardDeviation(draws);
    expect(byBoth / deviation).toBeGreaterThan(0.95);
    expect(byBoth / deviation).toBeLessThan(1.05);
    const byHeight = uncertaintiesOf(sum, given, { height: rule }, say).get("edge angle a side")!;
    expect(byHeight / byBoth).toBeGreaterThan(0.9);
    expect(COVERAGE).toBe(2);
  });

  test("what was not read with anything is worth nothing; no instrument, no figure", () => {
    const sum = sumOf("edge")!;
    expect(uncertaintiesOf(sum, { behind: 1, height: 2 }, {}, say).size).toBe(0);
    expect(uncertaintiesOf(sum, { behind: 1, angle: 19 }, { height: rule }, say).size).toBe(0);
  });
});
