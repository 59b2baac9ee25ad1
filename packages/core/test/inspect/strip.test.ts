import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { stationAtX } from "../../src/blade/station.ts";
import { benchReport } from "../../src/findings/bench-report.ts";
import { NO_CHECK } from "../../src/inspect/schema.ts";
import { firstRoute } from "../../src/route/first.ts";
import { ladderOf } from "../../src/route/ladder.ts";
import { targetsAt } from "../../src/route/targets.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";

const kind = (name: string) => checked(KINDS.find(([one]) => one === name)![1]);

describe("the strip of the edge, on five blades", () => {
  const BLADES = [
    example("field"),
    ...["kitchen-full", "clip-point", "laminated-kitchen", "tapered-tang"].map((name) => kind(name)),
  ];

  test.each(BLADES.map((one) => [one.name, one] as const))(
    "%s: sharpened it is what is wanted behind the edge, heel to tip",
    (_, blade) => {
      const of = { blade, route: firstRoute(blade), shop: USUAL_SHOP, check: NO_CHECK, readings: [] };
      const { edge } = benchReport({ ...of, stage: "sharpen" }, "mm");
      const rows = blade.edge.behind;
      const ends = [rows[0]!.t, rows.at(-1)!.t];
      expect(edge).toHaveLength(41);
      for (const [i, { x, value, band }] of edge.entries()) {
        // By the blade's own table, straight between its rows, at the share of the edge where that x is.
        const { u } = stationAtX(compileField(blade), x)!;
        const k = Math.max(
          1,
          rows.findIndex((row) => row.u >= u),
        );
        const [a, b] = [rows[k - 1] ?? rows[0]!, rows[k] ?? rows[0]!];
        const wanted = a.u === b.u ? a.t : a.t + ((u - a.u) / (b.u - a.u)) * (b.t - a.t);
        expect(value, `at ${x}`).toBeCloseTo(wanted, 2);
        expect(value).toBeGreaterThanOrEqual(Math.min(...ends, ...rows.map(({ t }) => t)) - 1e-9);
        expect(band).toBeGreaterThan(0.01);
        if (i > 0) expect(x).toBeGreaterThan(edge[i - 1]!.x);
      }
    },
  );

  test.each(BLADES.map((one) => [one.name, one] as const))(
    "%s: after the rough bevels it is the edge that its route leaves",
    (_, blade) => {
      const route = firstRoute(blade);
      const of = { blade, route, shop: USUAL_SHOP, check: NO_CHECK, readings: [] };
      const { edge, isHard } = benchReport({ ...of, stage: "rough" }, "mm");
      expect(isHard).toBe(false);
      const rung = ladderOf(blade, route, USUAL_SHOP).find(({ kind }) => kind === "rough")!;
      for (const { x, edge: wanted } of targetsAt(rung)) {
        const near = edge.reduce((best, one) => (Math.abs(one.x - x) < Math.abs(best.x - x) ? one : best));
        expect(near.value).toBeCloseTo(wanted, 1);
      }
    },
  );
});
