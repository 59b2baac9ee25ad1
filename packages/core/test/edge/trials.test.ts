import jStat from "jstat";
import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import {
  alike,
  apexFor,
  apexStands,
  type Batch,
  bodyFor,
  bodyStands,
  changesBetween,
  counted,
  demandOf,
  dropWork,
  knownTrials,
  limitFrom,
  nextOf,
  parseTrials,
  SEEDS,
  STAGES,
  siteOf,
  standingLimits,
  stands,
} from "../../src/edge/trials.ts";
import { judge } from "../../src/findings/judge.ts";
import { learnedBasis, purposeLearned } from "../../src/findings/limits.ts";
import { purposeOf } from "../../src/findings/purposes.ts";
import { binomialAtMost, rateBelow, ratioOf } from "../../src/numbers/rates.ts";
import { changed, example } from "../examples.ts";

let serial = 0;
const batch = (more: Partial<Batch> = {}): Batch => ({
  id: `00000000-0000-4000-8000-${String(++serial).padStart(12, "0")}`,
  when: "2026-01-01T10:00:00Z",
  material: "pine",
  cuts: 50,
  force: 155,
  least: 0.25,
  most: 0.5,
  angle: 10,
  damage: "none",
  ...more,
});
const NOTHING = { lo: null, hi: null, isUnsettled: false };
const open = { most: 20, demand: NOTHING };

describe("rates and ratios from a few", () => {
  test("none of five may still be 0.451, one of twenty 0.2161, none of n near 3/n", () => {
    expect(rateBelow(0, 5)).toBeCloseTo(0.451, 3);
    expect(rateBelow(1, 20)).toBeCloseTo(0.2161, 4);
    expect(rateBelow(0, 100)).toBeCloseTo(0.03, 3);
    expect(rateBelow(3, 3)).toBe(1);
    expect(rateBelow(0, 0)).toBeNaN();
  });

  test("the same as by the beta distribution of a statistics library", () => {
    for (const [k, n] of [
      [0, 3],
      [1, 7],
      [2, 15],
      [5, 40],
      [30, 60],
    ] as const) {
      expect(rateBelow(k, n)).toBeCloseTo(jStat.beta.inv(0.95, k + 1, n - k), 6);
      expect(binomialAtMost(k, n, 0.2)).toBeCloseTo(jStat.binomial.cdf(k, n, 0.2), 8);
    }
  });

  test("forces of two edges by pairs: 1.222 times, 1.169 to 1.279; three pairs say nothing", () => {
    const pairs = [
      [12.1, 9.8],
      [11.7, 9.9],
      [12.6, 10.4],
      [12, 9.5],
    ] as const;
    const { ratio, low, high } = ratioOf(pairs)!;
    expect(ratio).toBeCloseTo(1.222, 3);
    expect(low).toBeCloseTo(1.169, 3);
    expect(high).toBeCloseTo(1.279, 3);
    expect(ratioOf(pairs.slice(0, 3))).toBeNull();
    const logs = pairs.map(([a, b]) => Math.log(a / b));
    const t = jStat.studentt.inv(0.975, 3);
    expect(Math.log(high / ratio)).toBeCloseTo((t * jStat.stdev(logs, true)) / 2, 9);
  });
});

describe("what an edge stands", () => {
  test("an apex of 15° stands 2.309 times one of 10°; the body of 0.5 at 18° over 3° stands 58.61", () => {
    expect(apexStands(15) / apexStands(10)).toBeCloseTo(2.309, 3);
    expect(bodyStands(0.5, 18, 3)).toBeCloseTo(58.61, 2);
    expect(bodyFor(58.61, 18, 3)).toBeCloseTo(0.5, 3);
    expect(apexFor(apexStands(12))).toBeCloseTo(12, 9);
    expect(dropWork({ kg: 2, m: 0.5 })).toBeCloseTo(9.81, 9);
  });

  test("between what failed and what stood lies what the material asks: found for edges of a known demand", () => {
    // A made-up material that asks an apex to stand 25 N/mm: whatever stands less is damaged there.
    const batches = [8, 10, 12, 14, 16, 18].map((angle) =>
      batch({ angle, damage: apexStands(angle) < 25 ? "apex" : "none", least: 0, most: 0 }),
    );
    const { lo, hi, isUnsettled } = demandOf(batches, "apex");
    expect(lo!).toBeLessThan(25);
    expect(hi!).toBeGreaterThanOrEqual(25);
    expect(isUnsettled).toBe(false);
    const offer = limitFrom(batches, { alpha: 10, beta: null })!;
    expect(apexStands(offer.angle!)).toBeGreaterThanOrEqual(25);
    // The body never went; without a bevel nothing is told of it.
    expect(offer.behind).toBeNull();
    const crossed = [...batches, batch({ angle: 18, damage: "apex", least: 0, most: 0 })];
    expect(demandOf(crossed, "apex").isUnsettled).toBe(true);
    expect(limitFrom(crossed, { alpha: 10, beta: null })).toBeNull();
  });

  test("of the body by its bevel; of several materials the hardest; one that only failed stops it", () => {
    const body = (least: number, damage: Batch["damage"], material = "hardwood") =>
      batch({ least, most: least + 0.1, angle: 18, bevel: 3, damage, material });
    const batches = [body(0.3, "body"), body(0.5, "none"), body(0.2, "none", "pine")];
    const offer = limitFrom(batches, { alpha: 18, beta: 3 })!;
    expect(offer.behind).toBeCloseTo(0.5, 3);
    expect(
      limitFrom([...batches, body(0.5, "body", "food can")], { alpha: 18, beta: 3 })?.behind ?? null,
    ).toBeNull();
  });
});

describe("which comes next", () => {
  test("sound: a stage thinner at the same angle, four stages, then stop", () => {
    for (const [i, [least, most]] of STAGES.entries()) {
      const next = nextOf([batch({ least, most })], open);
      if (i < 3) expect(next).toEqual({ do: "thinner", to: STAGES[i + 1], angle: 10 });
      else expect(next).toMatchObject({ do: "stop" });
    }
  });

  test("only the apex: steeper by 2.5 until the purpose's most; the body: a stage thicker, or softer use", () => {
    const apex = batch({ damage: "apex", depth: 0.05, least: 0.13, most: 0.25 });
    expect(nextOf([apex], open)).toEqual({ do: "steeper", angle: 12.5 });
    expect(nextOf([apex], { ...open, most: 11 })).toEqual({ do: "thicker", to: STAGES[0], angle: 10 });
    expect(nextOf([{ ...apex, damage: "body" }], open)).toEqual({ do: "thicker", to: STAGES[0], angle: 10 });
    expect(nextOf([batch({ damage: "body" })], open)).toEqual({ do: "softer" });
    expect(nextOf([apex], { ...open, demand: { ...NOTHING, lo: 20, hi: 25 } })).toMatchObject({ do: "stop" });
    // Deeper than the apex's own facet, 0.25/(2·tan 10°) = 0.709 high, it took the body along; a micro-bevel is less of one.
    expect(nextOf([{ ...apex, least: 0.25, most: 0.5, depth: 0.7 }], open)).toEqual({
      do: "steeper",
      angle: 12.5,
    });
    expect(nextOf([{ ...apex, least: 0.25, most: 0.5, depth: 0.72 }], open)).toEqual({ do: "softer" });
    expect(siteOf({ ...apex, depth: 0.06, micro: 0.05 })).toBe("body");
    expect(siteOf({ ...apex, depth: 0.05, micro: 0.05 })).toBe("apex");
    expect(siteOf(SEEDS.find(({ damage }) => damage === "apex")!)).toBe("apex");
    const deep = { ...apex, least: 0.25, most: 0.5, bevel: 3, depth: 0.72 };
    expect(demandOf([deep], "body").lo).toBeCloseTo(stands(deep, "body")!, 9);
    expect(demandOf([{ ...deep, depth: 0.7 }], "body").lo).toBeNull();
    expect(nextOf([], open)).toBeNull();
  });

  test("one change at a time: what else was changed is named; only the like are counted together", () => {
    expect(changesBetween(batch(), batch({ angle: 12.5 }))).toEqual(["the angle"]);
    expect(changesBetween(batch(), batch({ angle: 12.5, least: 0.1 }))).toHaveLength(2);
    expect(changesBetween(batch({ material: "card" }), batch())).toEqual([]);
    const hard = batch({ hrc: 60 });
    const all = [batch({ hrc: 59.5 }), batch({ hrc: 58 }), batch({ drop: { kg: 1, m: 1 }, hrc: 60 }), hard];
    expect(alike(all, hard).map(({ hrc }) => hrc)).toEqual([59.5, 60]);
  });

  test("what counts is edges ground anew, not cuts", () => {
    const blade = "00000000-0000-4000-8000-00000000000b";
    const mine = [
      batch({ blade, edge: 1 }),
      batch({ blade, edge: 1, material: "card" }),
      batch({ blade, edge: 2 }),
    ];
    expect(counted(mine)).toMatchObject({ n: 2, failed: 0 });
    expect(counted([...mine, batch({ blade, edge: 2, damage: "apex" })])).toMatchObject({ n: 2, failed: 1 });
    // Of no blade of the rack, the same grinding is the same edge.
    expect(counted([batch({ edge: 1 }), batch({ edge: 1, material: "card" })]).n).toBe(1);
  });
});

describe("a limit that trials moved", () => {
  const blade = changed({ ...example("field"), use: "field" }, (copy) => {
    copy.edge.angle = { left: 12, right: 12 };
  });
  const limit = (evidence: string[]) => ({ use: "field", when: "2026-02-01T10:00:00Z", angle: 11, evidence });
  const ids = (learned: Parameters<typeof standingLimits>[0]) =>
    judge(blade, compileField(blade), { learned }).findings.map(({ id }) => id);

  test("holds where its evidence stands, says so, and is back where a batch is struck out", () => {
    const one = batch();
    expect(standingLimits([limit([one.id])], [one])).toHaveLength(1);
    expect(standingLimits([limit([one.id])], [])).toEqual([]);
    expect(standingLimits([limit([SEEDS[0]!.id])], [])).toHaveLength(1);
    const purpose = purposeLearned(purposeOf("field")!, [limit([one.id])]);
    expect(purpose.edgeAngle).toEqual([11, 20]);
    expect(purpose.behind).toEqual(purposeOf("field")!.behind);
    expect(learnedBasis("edgeAngle", "field", [limit([one.id])])).toBe(
      "this shop's own trials: 1 batch, moved 2026-02-01",
    );
    expect(learnedBasis("behind", "field", [limit([one.id])])).toBeNull();
    // 12° is too fine for a field knife by the usual limit of 15°, and not by 11°.
    const before = ids([]).filter((id) => /angle|edge-fine|steep/.test(id));
    expect(before.length).toBeGreaterThan(0);
    expect(ids([limit([one.id])]).length).toBeLessThan(ids([]).length);
  });
});

test("its file: as it is written; crossed bounds, a depth of nothing, both ways of pressing are refused by their path", () => {
  const file = (...batches: object[]) => ({ format: "true-spine/trials", version: 1, batches });
  expect(
    parseTrials(file(batch({ blade: "00000000-0000-4000-8000-00000000000b", revision: 3, edge: 1, x: 60 }))),
  ).toMatchObject({ ok: true });
  expect(parseTrials(file(batch({ least: 0.6 })))).toMatchObject({
    ok: false,
    faults: [{ path: "$.batches[0].most" }],
  });
  expect(parseTrials(file(batch({ drop: { kg: 1, m: 1 } }))).ok).toBe(false);
  expect(parseTrials(file(batch({ depth: 0.1 }))).ok).toBe(false);
  expect(parseTrials(file({ ...batch(), more: 1 })).ok).toBe(false);
  const twice = batch();
  expect(parseTrials(file(twice, twice)).ok).toBe(false);
});

test("starting rows are counted as nobody's edges, move no limit alone, and can be removed", () => {
  const own = [1, 2, 3, 4].map((edge) => ({ ...SEEDS[0]!, id: crypto.randomUUID(), edge }));
  const known = knownTrials({ trials: own });
  expect(known).toHaveLength(SEEDS.length + 4);
  expect(counted(known)).toMatchObject({ n: 4, failed: 0 });
  expect(limitFrom(SEEDS, { alpha: 15, beta: 3 })).toBeNull();
  expect(knownTrials({ trials: own, ownTrialsOnly: true })).toEqual(own);
});
