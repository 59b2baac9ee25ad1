import { describe, expect, test } from "vitest";
import { compileField, thicknessAt } from "../../src/blade/field.ts";
import { solidBetween } from "../../src/blade/mass.ts";
import { isInside, spansAt } from "../../src/blade/outline.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { climbOfGrindLine } from "../../src/grind/relations.ts";
import { firstRoute } from "../../src/route/first.ts";
import { ladderOf, type Rung } from "../../src/route/ladder.ts";
import type { Route } from "../../src/route/schema.ts";
import { SCHOOLS } from "../../src/route/stages.ts";
import { targetsAt } from "../../src/route/targets.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";
import { some } from "../long.ts";
import { sumCells } from "../reference/integrator.ts";

const blades: [string, Blade][] = [
  ["field", example("field")],
  ...KINDS.map(([name, raw]): [string, Blade] => [name, checked(raw)]),
];
const routed = (blade: Blade, change: Partial<Route> = {}) =>
  ladderOf(blade, { ...firstRoute(blade), ...change }, USUAL_SHOP);
const at = (rungs: readonly Rung[], kind: string) => rungs.find((rung) => rung.kind === kind)!;

describe("the ladder of stages", () => {
  test.each(blades)("%s: its last stage is the blade, every school", (_, blade) => {
    const finished = solidBetween(compileField(blade)).volume;
    for (const school of SCHOOLS) {
      const rungs = ladderOf(blade, firstRoute(blade, school), USUAL_SHOP);
      expect(rungs.at(-1)!.steel.volume / finished).toBeCloseTo(1, 9);
      expect(rungs.at(-1)!.left).toEqual({ faces: { left: 0, right: 0 }, flats: 0 });
    }
  });

  test.each(blades)("%s: no stage dips below the next", (_, blade) => {
    const rungs = routed(blade);
    const { ring } = compileField(blade);
    for (let i = 0; i < 60; i++) {
      const x = ring.left + ((i + 0.5) / 60) * (ring.right - ring.left);
      for (const [low, high] of spansAt(ring, x)) {
        for (let k = 0; k < 12; k++) {
          const y = low + ((k + 0.5) / 12) * (high - low);
          if (!isInside(ring, x, y)) continue;
          const thick = rungs.map((rung) => thicknessAt(rung.steel.field, x, y));
          thick.slice(1).forEach((now, n) => {
            expect(now, `${rungs[n + 1]!.kind} at ${x}, ${y}`).toBeLessThanOrEqual(thick[n]! + 1e-9);
          });
        }
      }
    }
  });

  /** Source: an integrator that shares no code with the core, summing square cells. */
  test.each(some(blades))(
    "%s: each stage's own volume agrees with a second integrator to two thousandths",
    (_, blade) => {
      const route = firstRoute(blade);
      const rungs = ladderOf(blade, route, USUAL_SHOP);
      const seen = new Set<string>();
      for (const [i, rung] of rungs.entries()) {
        const done = rungs.slice(0, i + 1).map((one) => one.kind);
        const stage = {
          faces: rung.left.faces.right,
          flats: rung.left.flats,
          edgeBevel: done.includes("sharpen"),
          falseEdge: done.includes(blade.falseEdge ? "false-edge" : "finish"),
          bare: !done.includes("rough"),
          stock: done.includes("flats") ? null : route.stock,
        };
        const key = JSON.stringify(stage);
        if (seen.has(key)) continue;
        seen.add(key);
        const theirs = sumCells(blade, 1.6, undefined, stage).volume;
        expect(Math.abs(rung.steel.volume / theirs - 1), rung.kind).toBeLessThan(0.002);
      }
    },
  );

  test("what the stages take off adds up to the stock less the blade", () => {
    for (const [, blade] of blades) {
      const rungs = routed(blade);
      const taken = rungs
        .slice(1)
        .reduce((sum, rung, i) => sum + rungs[i]!.steel.volume - rung.steel.volume, 0);
      const stock = rungs[0]!.steel.volume;
      expect(taken).toBeCloseTo(stock - solidBetween(compileField(blade)).volume, 6);
    }
  });
});

describe("what was chosen drives it", () => {
  const blade = example("field");

  test("a finer finish leaves a thicker edge, a lower line, and more minutes", () => {
    const to = (microns: number) => {
      const rungs = routed(blade, { finish: { bevels: microns, flats: 125, edge: 16 } });
      const rough = at(rungs, "rough");
      const minutes = rungs.reduce((sum, { belts }) => {
        return sum + (belts?.planned.ok ? belts.planned.sequence.minutes : 0);
      }, 0);
      return { ...targetsAt(rough)[1]!, minutes };
    };
    const [coarse, fine] = [to(125), to(35)];
    expect(fine.edge).toBeGreaterThan(coarse.edge + 0.03);
    expect(fine.grindLine.right!).toBeLessThan(coarse.grindLine.right! - 0.2);
    expect(fine.minutes).toBeGreaterThan(coarse.minutes);
  });

  test("the edge to stop at is e0 + 2Δ/cos β, and the line as much lower as Δ/sin β, in the middle", () => {
    const rungs = routed(blade);
    const [rough, hand] = [at(rungs, "rough"), at(rungs, "hand")];
    const [now, last] = [targetsAt(rough)[1]!, targetsAt(hand)[1]!];
    const beta = last.angle.right!;
    const cos = Math.cos((beta * Math.PI) / 180);
    const faces = rough.left.faces.right - hand.left.faces.right;
    expect(now.edge).toBeCloseTo(last.edge + (2 * faces) / cos, 4);
    // The flats were cleaned as well: their Φ moves the line back by Φ/tan β.
    const back = rough.left.flats / Math.tan((beta * Math.PI) / 180);
    expect(last.grindLine.right! - now.grindLine.right!).toBeCloseTo(climbOfGrindLine(faces, beta) - back, 1);
  });

  test("all of it hard leaves less on the bevel than most of it soft, and nothing is bevelled before the oven", () => {
    const [soft, hard] = SCHOOLS.map((school) => ladderOf(blade, firstRoute(blade, school), USUAL_SHOP));
    expect(at(hard!, "rough").left.faces.right).toBeLessThan(at(soft!, "rough").left.faces.right);
    expect(at(hard!, "harden").isBevelled).toBe(false);
    expect(at(soft!, "harden").isBevelled).toBe(true);
  });

  test("a flat roughing of its own before a hollow stands nowhere below it, and takes off less", () => {
    const hollow = blades.find(([name]) => name === "hollow-false-edge")![1];
    const own = routed(hollow);
    const flat = routed(hollow, { roughAngle: 9 });
    expect(at(flat, "rough").steel.volume).toBeGreaterThan(at(own, "finish").steel.volume);
    expect(at(flat, "rough").steel.volume).not.toBeCloseTo(at(own, "rough").steel.volume, 0);
    expect(at(flat, "finish").steel.volume).toBeCloseTo(at(own, "finish").steel.volume, 9);
    const { ring } = compileField(hollow);
    for (let x = ring.left + 1; x < ring.right; x += 4) {
      for (const [low, high] of spansAt(ring, x)) {
        for (let y = low + 0.5; y < high; y += 2) {
          const [before, after] = [at(flat, "rough"), at(flat, "finish")].map(({ steel }) =>
            thicknessAt(steel.field, x, y),
          );
          expect(before!).toBeGreaterThanOrEqual(after! - 1e-9);
        }
      }
    }
  });

  test("a forged blank is tapered before its flats are ground, and no thicker than its bar", () => {
    const { stages, stock } = firstRoute(blade);
    const rungs = routed(blade, { stages: [stages[0]!, { id: "forge", kind: "forge" }, ...stages.slice(1)] });
    const [bar, blank] = [at(rungs, "stock"), at(rungs, "forge")];
    expect(blank.steel.volume).toBeLessThan(bar.steel.volume);
    const [heel, , tip] = targetsAt(blank);
    expect(heel!.flats).toBeLessThanOrEqual(stock);
    expect(tip!.flats).toBeLessThan(heel!.flats - 1);
  });

  test("the edge has a ladder of its own: the steel that sharpening takes over the area of the edge bevels", () => {
    const rungs = routed(blade);
    const { on, job } = at(rungs, "sharpen").belts!;
    expect(on).toBe("edge");
    const taken = at(rungs, "handle").steel.volume - at(rungs, "sharpen").steel.volume;
    expect(job.area * job.depth!).toBeCloseTo(taken, 6);
    // e 0.5 to 0.4 at 18 degrees: bevels 0.77 to 0.62 high, 0.81 to 0.65 wide, twice, over what is sharpened of the edge.
    const { edge } = compileField(blade);
    expect(job.area).toBeGreaterThan(2 * 0.65 * edge.length * 0.85);
    expect(job.area).toBeLessThan(2 * 0.81 * edge.length);
  });

  test("without belts fine enough the stages still stand, and the belts say why not", () => {
    const rungs = ladderOf(blade, firstRoute(blade), {
      ...USUAL_SHOP,
      abrasives: USUAL_SHOP.abrasives.slice(0, 4),
    });
    const planned = at(rungs, "grits").belts!.planned;
    expect(planned.ok ? "" : planned.why).toMatch(/as fine as 35/);
    expect(at(rungs, "rough").left.faces.right).toBeGreaterThan(0.3);
  });
});
