import { describe, expect, test } from "vitest";
import { judgeHeat } from "../../src/findings/heat.ts";
import { NO_HEAT_WORK } from "../../src/findings/heat-finding.ts";
import { parseHeat } from "../../src/heat/parse.ts";
import { type Heat, type HeatOp, NO_HEAT } from "../../src/heat/schema.ts";
import { knownOf, spanOfKnown } from "../../src/heat/steel.ts";
import { parseDocument } from "../../src/registry/documents.ts";
import { firstRoute } from "../../src/route/first.ts";
import { heatReport } from "../../src/route/heat-report.ts";
import { heatsDone, opsOf, withOp, withUsualHeats } from "../../src/route/heats.ts";
import type { Route } from "../../src/route/schema.ts";
import { SCHOOLS, withStage } from "../../src/route/stages.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { secondsThrough } from "../../src/steel/heating.ts";
import { gatesAt, heatWithWork, heatWorkAt, proofsAt, runsAt } from "../../src/work/joined.ts";
import type { WorkRow } from "../../src/work/schema.ts";
import { changed, example } from "../examples.ts";

const of = (steel: string) => ({ ...example("field"), steel });
const blade = of("1084");
const route = withUsualHeats(firstRoute(blade));
const report = heatReport(blade, route, NO_HEAT, USUAL_SHOP);
const found = (b: typeof blade, r: Route, heat: Heat, work = NO_HEAT_WORK) =>
  judgeHeat(b, r, heat, USUAL_SHOP, {
    work: { ...work, done: r.stages.flatMap(({ id, done }) => (done ? [id] : [])) },
  });
const ids = (...asked: Parameters<typeof found>) => found(...asked).map(({ id }) => id);

describe("the heat document", () => {
  test("is read as it is written, and says what is wrong where", () => {
    const heat = withOp(opsOf(route, NO_HEAT, blade), NO_HEAT, "harden", { T: 810 });
    expect(parseHeat(JSON.parse(JSON.stringify(heat)))).toEqual({ ok: true, heat });
    expect(parseDocument("heat", NO_HEAT).ok).toBe(true);
    const twice = { ...heat, ops: [heat.ops[0], heat.ops[0]] };
    expect(JSON.stringify(parseHeat(twice))).toContain("stands in the list already");
    const back = withOp(heat.ops, heat, "harden", { H: [0.5, 0.3], expect: [66, 60] });
    expect(JSON.stringify(parseHeat(back)).match(/the least stands first/g)).toHaveLength(2);
    const bare = { ...NO_HEAT, steel: { ...NO_HEAT.steel, from: "certificate" } };
    expect(JSON.stringify(parseHeat(bare))).toContain("what is in the steel");
    expect(parseHeat({ ...NO_HEAT, ops: [{ ...heat.ops[0], T: 5000 }] }).ok).toBe(false);
  });
});

describe("the usual recipe", () => {
  test("three falling heats, 802 °C for 10 minutes into oil, two of two hours at 204; each a stage of the route", () => {
    const kinds = route.stages.map(({ kind }) => kind);
    expect(kinds.filter((kind) => ["normalize", "harden", "temper"].includes(kind))).toEqual([
      "normalize",
      "normalize",
      "normalize",
      "harden",
      "temper",
      "temper",
    ]);
    expect(opsOf(route, NO_HEAT, blade).map(({ T, minutes }) => [T, minutes])).toEqual([
      [870, 10],
      [830, 10],
      [790, 10],
      [802, 10],
      [204, 120],
      [204, 120],
    ]);
    expect(route.stages.find(({ kind }) => kind === "harden")!.name).toBe("Harden");
    expect(withUsualHeats(route)).toEqual(route);
    const named = report.ops.map(({ op }) => op.id);
    expect(new Set(named).size).toBe(6);
    for (const id of named) expect(route.stages.some((stage) => stage.id === id)).toBe(true);
  });

  test("an old route's own harden is its one heat, as usual; a changed one is as chosen", () => {
    const old = firstRoute(blade);
    expect(opsOf(old, NO_HEAT, blade).map(({ kind }) => kind)).toEqual(["harden"]);
    const changed = withOp(opsOf(route, NO_HEAT, blade), NO_HEAT, "temper", { T: 232 });
    expect(opsOf(route, changed, blade).map(({ T }) => T)).toEqual([870, 830, 790, 802, 232, 204]);
    // Taken off the route it is no heat any more.
    const without = { ...route, stages: route.stages.filter(({ id }) => id !== "temper") };
    expect(opsOf(without, changed, blade)).toHaveLength(5);
  });
});

describe("a blade's heats worked out", () => {
  test("the steel's figures with their spans", () => {
    const { steel } = report;
    expect(steel!.ac1.middle).toBeCloseTo(722.2, 1);
    expect(steel!.austenite.middle).toBeCloseTo(756.8, 1);
    expect(steel!.ideal.middle).toBeCloseTo(32.9, 1);
    expect(steel!.ideal.low).toBeCloseTo(25.5, 1);
    expect(steel!.ideal.high).toBeCloseTo(40.6, 1);
    expect(steel!.isBeyond).toBe(true);
    expect(heatReport(of("440C"), route, NO_HEAT, USUAL_SHOP).steel).toBeNull();
    expect(
      heatReport({ ...example("field"), steel: undefined }, route, NO_HEAT, USUAL_SHOP).steel,
    ).toBeNull();
  });

  test("it is warm through by its thickest, and a thicker blade later", () => {
    const harden = report.ops.find(({ op }) => op.kind === "harden")!;
    expect(harden.through * 60).toBeCloseTo(secondsThrough(report.thick.spine, 802), 6);
    expect(harden.total).toBeCloseTo(harden.through + 10, 9);
    const thick = structuredClone(blade);
    for (const row of thick.thickness) row.t *= 2;
    const twice = heatReport(thick, { ...route, stock: 10 }, NO_HEAT, USUAL_SHOP);
    expect(twice.ops.find(({ op }) => op.kind === "harden")!.through / harden.through).toBeGreaterThan(1.7);
    expect(harden.window).toBeGreaterThan(1);
    expect(harden.sections.map(({ place }) => place)).toEqual(["edge", "spine"]);
    expect(harden.sections[0]!.q[1]).toBeGreaterThan(harden.sections[1]!.q[1]);
  });

  test("the skin after 870, 830, 790 and 802 is 0.182 deep, and half as much again is left; tempers take nothing", () => {
    const skin = report.ops.find(({ op }) => op.kind === "harden")!.skin;
    expect(skin.depth).toBeCloseTo(0.1821, 3);
    expect(report.leave).toBeCloseTo(1.5 * skin.depth, 9);
    expect(report.ops.at(-1)!.skin.depth).toBeCloseTo(skin.depth, 9);
    const foil = withOp(opsOf(route, NO_HEAT, blade), NO_HEAT, "harden", { air: "foil" });
    expect(heatReport(blade, route, foil, USUAL_SHOP).leave!).toBeLessThan(report.leave!);
    // Ground between, what was lost is gone: two heats count.
    const ground = {
      ...route,
      stages: route.stages.toSpliced(
        route.stages.findIndex(({ id }) => id === "normalize-3"),
        0,
        { id: "own-1", kind: "own" as const, on: "flats" as const },
        { id: "own-2", kind: "own" as const, on: "bevels" as const },
      ),
    };
    expect(heatReport(blade, ground, NO_HEAT, USUAL_SHOP).leave!).toBeLessThan(0.8 * report.leave!);
  });

  test("what was done is told, and nothing that was not", () => {
    expect(heatsDone(blade, route, NO_HEAT)).toEqual([]);
    const all = {
      ...route,
      stages: route.stages.map((one) =>
        one.id === "temper-2" ? one : { ...one, done: "2026-01-01T10:00:00Z" },
      ),
    };
    expect(heatsDone(blade, all, NO_HEAT)).toEqual([
      "normalized 870 °C 10 min, 830 °C 10 min, 790 °C 10 min",
      "hardened 802 °C 10 min, into oil",
      "tempered 204 °C 120 min",
    ]);
    const done = { ...all, stages: all.stages.map((one) => ({ ...one, done: "2026-01-01T10:00:00Z" })) };
    expect(heatsDone(blade, done, NO_HEAT).at(-1)).toBe("tempered 2 × 204 °C 120 min");
  });

  test("two of two hours are 7.1 to 8.7 °C hotter than two of one", () => {
    expect(report.tempers!.hotter[0]).toBeCloseTo(7.1, 1);
    expect(report.tempers!.hotter[1]).toBeCloseTo(8.7, 1);
  });

  test("a certificate is good to half of its last digit, a standard to its corners", () => {
    const certificate = { from: "certificate", certainty: "certificate", sure: 95 } as const;
    const known = knownOf({ ...certificate, mass: { C: 0.98, Mn: 0.22 } }, undefined)!;
    const span = spanOfKnown(known, ({ Mn }) => Mn);
    expect([span.low, span.high]).toEqual([0.215, 0.225]);
    expect(knownOf({ ...certificate, mass: { C: 1, Mn: 0.5, Cr: 13 } }, undefined)).toBeNull();
    expect(knownOf(NO_HEAT.steel, "1095")!.corners).toHaveLength(8);
  });
});

describe("judged", () => {
  const hardened: Route = {
    ...route,
    stages: route.stages.map((one) =>
      one.kind === "harden" ? { ...one, done: "2026-01-01T10:00:00Z" } : one,
    ),
  };
  const proof = (place: "edge" | "spine", saw: "skates" | "bites") => ({
    when: "2026-01-01T10:10:00Z",
    after: "harden",
    what: "file" as const,
    place,
    saw,
  });

  test("nothing to fix as it is usually done; each offer clears what it is offered for", () => {
    expect(found(blade, route, NO_HEAT).filter(({ severity }) => severity === "fix")).toEqual([]);
    const cool = withOp(opsOf(route, NO_HEAT, blade), NO_HEAT, "harden", { T: 735 });
    const hot = withOp(opsOf(route, NO_HEAT, blade), NO_HEAT, "harden", { T: 900 });
    const rising = withOp(opsOf(route, NO_HEAT, blade), NO_HEAT, "normalize", { T: 800 });
    for (const [id, heat] of [
      ["heat-cool", cool],
      ["heat-hot", hot],
      ["cycles-not-falling", rising],
    ] as const) {
      const one = found(blade, route, heat).find((finding) => finding.id === id)!;
      expect(one, id).toBeDefined();
      expect(ids(blade, route, one.offers[0]!.heat!)).not.toContain(id);
    }
    const skin = found(blade, route, NO_HEAT).find(({ id }) => id === "skin-more")!;
    expect(skin.message).toContain("0.12 mm to 0.27 mm");
    expect(ids(blade, skin.offers[0]!.route!, NO_HEAT)).not.toContain("skin-more");
  });

  test("by a magnet alone it is still 45 to 84 short", () => {
    const heat = withOp(opsOf(route, NO_HEAT, blade), NO_HEAT, "harden", { control: "magnet" });
    const one = found(blade, route, heat).find(({ id }) => id === "magnet-only")!;
    // Ac1 of the grade: 717.7 at 0.90 Mn and 0.15 Si, 726.8 at 0.60 and 0.35; it lets go up to 30 above. 802 less 756.8, and less 717.7.
    expect(one.message).toContain("still 45 to 84 °C short");
  });

  test("hardened it wants a file; skating says all well, biting what to take off and where to look next", () => {
    expect(ids(blade, hardened, NO_HEAT)).toContain("no-file-test");
    const severity = (of: Route) =>
      found(blade, of, NO_HEAT).find(({ id }) => id === "no-file-test")!.severity;
    expect(severity(hardened)).toBe("fix");
    const gone = hardened.stages.map((one) =>
      one.kind === "true" ? { ...one, done: "2026-01-02T10:00:00Z" } : one,
    );
    expect(severity({ ...hardened, stages: gone })).toBe("watch");
    const sound = { ...NO_HEAT_WORK, proofs: [proof("edge", "skates")] };
    expect(ids(blade, hardened, NO_HEAT, sound)).not.toContain("no-file-test");
    const soft = { ...NO_HEAT_WORK, proofs: [proof("edge", "bites")] };
    const one = found(blade, hardened, NO_HEAT, soft).find(({ id }) => id === "edge-soft")!;
    expect(one.severity).toBe("fix");
    expect(one.advice).toContain("0.36 mm");
    const cool = withOp(opsOf(route, NO_HEAT, blade), NO_HEAT, "harden", { T: 700 });
    expect(found(blade, hardened, cool, soft).find(({ id }) => id === "edge-soft")!.advice).toContain(
      "too cool",
    );
    // Filed again when a skin had come off, the last word counts.
    const mended = { ...NO_HEAT_WORK, proofs: [proof("edge", "bites"), proof("edge", "skates")] };
    expect(ids(blade, hardened, NO_HEAT, mended)).not.toContain("edge-soft");
    const mixed = { ...NO_HEAT_WORK, proofs: [proof("edge", "skates"), proof("spine", "bites")] };
    expect(ids(blade, hardened, NO_HEAT, mixed)).toContain("hardness-mixed");
  });

  test("scrap is unproved until a file has skated on it", () => {
    const heat: Heat = { ...NO_HEAT, steel: { from: "scrap", certainty: "guessed", sure: 40 } };
    expect(ids(blade, route, heat)).toContain("scrap-unproved");
    const proved = { ...NO_HEAT_WORK, proofs: [proof("edge", "skates")] };
    expect(ids(blade, route, heat, proved)).not.toContain("scrap-unproved");
    expect(ids(blade, route, { ...heat, steel: { ...heat.steel, from: "standard" } })).toContain(
      "scrap-unproved",
    );
  });

  test("clay comes clear on 0.22 manganese by its certificate, weak on the grade's own, poor on 1084", () => {
    const clayed = { ...route, clay: true };
    const says = (steel: string, heat: Heat = NO_HEAT) =>
      found(of(steel), clayed, heat).find(({ id }) => id === "clay-unfit")?.message;
    expect(says("1084")).toContain("poor");
    expect(says("1095")).toContain("weak");
    expect(says("440C")).toContain("hardens in air");
    expect(ids(blade, route, NO_HEAT)).not.toContain("clay-unfit");
    expect(
      says("1095", {
        ...NO_HEAT,
        steel: {
          from: "certificate",
          certainty: "certificate",
          sure: 95,
          mass: { C: 0.98, Mn: 0.22, Si: 0.2 },
        },
      }),
    ).toBeUndefined();
  });

  test("held too short, and tempered too late", () => {
    const at = (time: string) => `2026-01-01T${time}:00Z`;
    const runs = [
      { op: "harden", began: at("09:00"), through: at("09:06"), ended: at("09:11") },
      { op: "temper", began: at("11:00") },
    ];
    const all = found(blade, hardened, NO_HEAT, { ...NO_HEAT_WORK, runs, proofs: [proof("edge", "skates")] });
    expect(all.find(({ id }) => id === "soak-short")!.message).toContain("held 5 of 10 minutes");
    expect(all.find(({ id }) => id === "temper-late")!.message).toContain("109 minutes");
    const right = [
      { ...runs[0]!, ended: at("09:16") },
      { op: "temper", began: at("09:40") },
    ];
    const after = ids(blade, hardened, NO_HEAT, { ...NO_HEAT_WORK, runs: right });
    expect(after).not.toContain("soak-short");
    expect(after).not.toContain("temper-late");
    // Half a minute is nobody's fault: 9.52 of 10 will do, 9.45 will not.
    const held = (ended: string) =>
      ids(blade, hardened, NO_HEAT, {
        ...NO_HEAT_WORK,
        runs: [{ ...runs[0]!, ended: `2026-01-01T${ended}Z` }],
      });
    expect(held("09:15:31")).not.toContain("soak-short");
    expect(held("09:15:27")).toContain("soak-short");
  });

  test("a hardness without its source is told, and a thin edge has no time", () => {
    const bare = withOp(opsOf(route, NO_HEAT, blade), NO_HEAT, "temper", { expect: [58, 60] });
    expect(ids(blade, route, bare)).toContain("hardness-unsourced");
    const close = { ...firstRoute(blade, SCHOOLS[2]), oven: 0 };
    expect(heatReport(blade, close, NO_HEAT, USUAL_SHOP).ops[0]!.window!).toBeLessThan(
      report.ops.find(({ op }) => op.kind === "harden")!.window!,
    );
  });
});

describe("rows of the work", () => {
  const row = (n: number, of: object) =>
    ({
      id: `00000000-0000-4000-8000-00000000000${n}`,
      when: `2026-01-01T10:0${n}:00Z`,
      stage: "harden",
      ...of,
    }) as WorkRow;
  const rows = [
    row(1, { what: "run", moment: "began" }),
    row(2, { what: "run", moment: "through", T: 801 }),
    row(3, { what: "run", moment: "ended" }),
    row(4, { what: "proof", place: "edge", saw: "skates" }),
    row(5, { what: "gate", gate: "oil-wiped" }),
    row(6, { what: "run", moment: "began" }),
  ];

  test("make runs, proofs and gates in the order of time, and are exported with what is chosen", () => {
    expect(runsAt(rows.toReversed())).toEqual([
      {
        op: "harden",
        began: "2026-01-01T10:01:00Z",
        through: "2026-01-01T10:02:00Z",
        ended: "2026-01-01T10:03:00Z",
        T: 801,
      },
      { op: "harden", began: "2026-01-01T10:06:00Z" },
    ]);
    expect(proofsAt(rows)).toHaveLength(1);
    expect(gatesAt(rows)[0]!.gate).toBe("oil-wiped");
    // Done by a row of the work, or by a tick in an older file; not by a row of a stage that is gone.
    const ticked = {
      ...route,
      stages: route.stages.map((one) =>
        one.id === "flats" ? { ...one, done: "2026-01-01T08:00:00Z" } : one,
      ),
    };
    const more = [...rows, row(7, { what: "done" }), row(8, { what: "done", stage: "gone" })];
    expect(heatWorkAt(ticked, more).done).toEqual(["flats", "harden"]);
    expect(parseHeat(heatWithWork(NO_HEAT, rows)).ok).toBe(true);
    expect(heatWithWork(NO_HEAT, [])).toEqual(NO_HEAT);
  });
});

describe("annealing", () => {
  const annealed = (grade: string, change: Partial<HeatOp>, thickness?: number) => {
    const steel = changed(example("field"), (copy) => {
      copy.steel = grade;
      if (thickness) copy.thickness = [{ x: 0, t: thickness }];
    });
    const plain = withUsualHeats(firstRoute(steel));
    const planned = { ...plain, stages: withStage(plain.stages, "anneal") };
    const own = opsOf(planned, NO_HEAT, steel);
    const heat: Heat = {
      ...NO_HEAT,
      ops: own.map((op) => (op.kind === "anneal" ? { ...op, ...change } : op)),
    };
    const report = heatReport(steel, planned, heat, USUAL_SHOP);
    const found = judgeHeat(steel, planned, heat, USUAL_SHOP).filter(({ id }) => id === "anneal-hardens");
    return { op: report.ops.find(({ op: { kind } }) => kind === "anneal")!, report, found, planned, steel };
  };

  test("is begun below the steel's own Ac1 and cooled in the oven, never in air", () => {
    const { op, report, found } = annealed("1084", {});
    expect(op.op.T).toBeLessThan(report.steel!.ac1.middle - 20);
    expect(op.op.T).toBeGreaterThan(report.steel!.ac1.middle - 30);
    expect(op.op).toMatchObject({ medium: "oven", coolBy: 15 });
    expect(found).toEqual([]);
  });

  test("O1 of 6 mm in insulation may stay hard, in the oven at 15 °C an hour it does not; 1084 of 4 mm does neither", () => {
    expect(annealed("O1", { T: 790, medium: "insulated" }, 6).found).toHaveLength(1);
    expect(annealed("O1", { T: 790, medium: "oven", coolBy: 15 }, 6).found).toEqual([]);
    expect(annealed("O1", { T: 790, medium: "oven", coolBy: 60 }, 6).found).toHaveLength(1);
    expect(annealed("1084", { T: 760, medium: "insulated" }, 4).found).toEqual([]);
  });

  test("at 760 °C cooled in air it is a normalize, and the remedy lies below Ac1", () => {
    const { found, report } = annealed("1084", { T: 760, medium: "air" });
    expect(found[0]!.severity).toBe("fix");
    expect(found[0]!.message).toContain("is a normalize, not an anneal");
    const taken = found[0]!.offers[0]!.heat!.ops.find(({ kind }) => kind === "anneal")!;
    expect(taken.T).toBeLessThan(report.steel!.ac1.middle);
    for (const medium of ["oil", "water", "plates"] as const)
      expect(annealed("1084", { T: 760, medium }).found).toHaveLength(1);
  });

  test("a draw by torch is told by its colour and has no soak; a kiln's does", () => {
    const plain = withUsualHeats(firstRoute(blade));
    const drawn = { ...plain, stages: withStage(plain.stages, "draw") };
    const draw = heatReport(blade, drawn, NO_HEAT, USUAL_SHOP).ops.find(
      ({ op: { kind } }) => kind === "draw",
    )!;
    expect([draw.op.by, draw.through]).toEqual(["torch", 0]);
  });
});
