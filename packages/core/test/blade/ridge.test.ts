import { describe, expect, test } from "vitest";
import { compileField, thicknessAt } from "../../src/blade/field.ts";
import { drawnLines } from "../../src/blade/lines.ts";
import { stationAt } from "../../src/blade/station.ts";
import { benchOf } from "../../src/inspect/bench.ts";
import { NO_CHECK } from "../../src/inspect/schema.ts";
import { firstRoute } from "../../src/route/first.ts";
import { reportOf } from "../../src/route/report.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";

const tip = checked(KINDS.find(([name]) => name === "compound-tip")![1]);

describe("a compound tip", () => {
  test("has a ridge from its corner along the line that halves it, and each face its own height beside it", () => {
    const field = compileField(tip);
    const [ridge] = drawnLines(field).ridge.right;
    const first = ridge![0]!;
    // It begins above the edge bevels.
    expect(Math.hypot(first[0] - 108, first[1] + 31)).toBeLessThan(1.2);
    // The corner turns by atan(24/34): its halving line leans back by half of that from square to the first edge.
    const last = ridge!.at(-1)!;
    const half = Math.atan2(24, 34) / 2;
    expect(Math.atan2(108 - last[0], last[1] + 31)).toBeCloseTo(half, 2);
    expect(stationAt(field, 0.4).right.grindLine).toBeCloseTo(21, 3);
    expect(stationAt(field, 0.9).right.grindLine).toBeCloseTo(12.5 - (1.5 * (0.9 - 0.706138)) / 0.293862, 2);
  });

  test("each grind line runs to its own place on the ridge, and none across it", () => {
    const { grindLine } = drawnLines(compileField(tip));
    expect(grindLine.right).toHaveLength(2);
    const [main, point] = grindLine.right;
    // 21 and 12.5 from the edge on the line that halves the corner: that far over cos of half its turn.
    const half = Math.atan2(24, 34) / 2;
    const on = (height: number) => [
      108 - (height / Math.cos(half)) * Math.sin(half),
      -31 + (height / Math.cos(half)) * Math.cos(half),
    ];
    for (const [place, height] of [
      [main!.at(-1)!, 21],
      [point![0]!, 12.5],
    ] as const) {
      expect(place[0]).toBeCloseTo(on(height)[0]!, 0);
      expect(place[1]).toBeCloseTo(on(height)[1]!, 0);
    }
    expect(Math.max(...main!.map(([x]) => x))).toBeLessThan(108);
  });

  test("steps there: just before the ridge it is thinner than just past it, by the two heights", () => {
    const field = compileField(tip);
    const [ridge] = drawnLines(field).ridge.right;
    const [x, y] = ridge!.find(([, up]) => up > -25)!;
    const half = Math.atan2(24, 34) / 2;
    const beside = (by: number) => thicknessAt(field, x + by * Math.cos(half), y + by * Math.sin(half));
    expect(beside(0.05) - beside(-0.05)).toBeGreaterThan(0.2);
  });

  test("is routed and read like any other", () => {
    const route = firstRoute(tip);
    const { stages } = reportOf(tip, route, USUAL_SHOP, 60);
    expect(stages.find(({ kind }) => kind === "finish")!.belts!.planned.ok).toBe(true);
    const asked = { blade: tip, route, shop: USUAL_SHOP, stage: "finish", check: NO_CHECK };
    const { lines } = benchOf({ ...asked, readings: [] });
    const readings = lines.map(({ spot, shows }, i) => ({
      id: `00000000-0000-4000-8000-${i.toString(16).padStart(12, "0")}`,
      when: "2026-11-20T10:00:00Z",
      stage: "finish",
      ...spot,
      value: shows,
      by: "hand" as const,
    }));
    const bench = benchOf({ ...asked, readings });
    expect(bench.diagnosis.pattern).toBe("sound");
    expect(bench.figures.every(({ verdict }) => verdict !== "out")).toBe(true);
  });

  test("a blade without a corner has none", () => {
    expect(drawnLines(compileField(example("field"))).ridge).toEqual({ left: [], right: [] });
  });
});
