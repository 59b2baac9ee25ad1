import { describe, expect, test } from "vitest";
import { parseBlade } from "../../src/blade/parse.ts";
import { servedBlade } from "../../src/design/served.ts";
import { NO_EDGE, NO_THIN } from "../../src/edge/schema.ts";
import { judgeEdge } from "../../src/findings/edge.ts";
import { edgeReport } from "../../src/route/edge-report.ts";
import { firstRoute } from "../../src/route/first.ts";
import { thinReport } from "../../src/route/thin-report.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { checked } from "../examples.ts";
import { KINDS } from "../kinds.ts";

const wear = { k: 1.5, perYear: 6, touch: 0.01, full: 0.04 };

/** Every number in a report, however deep. */
function numbersIn(value: unknown): number[] {
  if (typeof value === "number") return [value];
  if (typeof value !== "object" || value === null) return [];
  return Object.values(value).flatMap(numbersIn);
}

describe.each(KINDS)("%s", (_, file) => {
  const blade = checked(file);
  const edges = blade.secondEdge ? (["first", "second"] as const) : (["first"] as const);

  test.each(edges)("%s edge: every figure of it is one, heel to tip, and it only grows thicker", (which) => {
    const asked = {
      blade,
      route: firstRoute(blade),
      shop: USUAL_SHOP,
      edge: { ...NO_EDGE, wear },
      which,
      done: [],
    };
    const report = edgeReport(asked)!;
    expect(report.places.map(({ place }) => place)).toEqual(["heel", "middle", "tip"]);
    expect(numbersIn(report).filter((one) => !Number.isFinite(one))).toEqual([]);
    const middles = report.life.rows.flatMap(({ at }) => at[1]!.behind ?? []);
    for (const [i, behind] of middles.slice(1).entries())
      expect(behind).toBeGreaterThanOrEqual(middles[i]! - 1e-6);
    const thin = thinReport({ blade, shop: USUAL_SHOP, which, thin: NO_THIN, lost: 0.5 });
    expect(numbersIn(thin).filter((one) => !Number.isFinite(one))).toEqual([]);
    expect(judgeEdge(asked, report, "mm", thin).every(({ message }) => !message.includes("NaN"))).toBe(true);
  });

  test("drawn as it stands after half a millimetre it is a sound blade, or none is offered", () => {
    const served = servedBlade(blade, 0.5);
    if (served) expect(parseBlade(JSON.parse(JSON.stringify(served))).ok).toBe(true);
  });
});

test("held on one side alone, what one setting gives is told of that side", () => {
  const blade = checked(KINDS.find(([name]) => name === "chisel-slicer")![1]);
  const asked = {
    blade,
    route: firstRoute(blade),
    shop: USUAL_SHOP,
    edge: NO_EDGE,
    which: "first" as const,
    done: [],
  };
  const [finish] = edgeReport(asked)!.steps;
  const backs = finish!.settings.right.map(({ back }) => back!);
  expect(finish!.varies).toBeCloseTo(Math.max(...backs) - Math.min(...backs), 9);
});

test("ground on one side alone, that face takes all of what is to go behind the edge", () => {
  const blade = checked(KINDS.find(([name]) => name === "chisel-slicer")![1]);
  const thin = thinReport({ blade, shop: USUAL_SHOP, which: "first", thin: NO_THIN, lost: 0.5 })!;
  const ground = blade.bevels.right.kind === "none" ? "left" : "right";
  for (const { by, faces } of thin.places) {
    const face = faces[ground];
    expect(by).toBeGreaterThan(0);
    // Square to a face of some degrees it is a little less than all, and far more than half.
    expect(face!.off / by).toBeGreaterThan(0.95);
    expect(face!.off / by).toBeLessThanOrEqual(1);
  }
});

test("a blade of one edge has no second", () => {
  const [, field] = KINDS.find(([name]) => name === "chisel-slicer")!;
  const blade = checked(field);
  const asked = { blade, route: firstRoute(blade), shop: USUAL_SHOP, edge: NO_EDGE, done: [] };
  expect(edgeReport({ ...asked, which: "second" })).toBeNull();
  expect(thinReport({ blade, shop: USUAL_SHOP, which: "second", thin: NO_THIN, lost: 0.5 })).toBeNull();
});
