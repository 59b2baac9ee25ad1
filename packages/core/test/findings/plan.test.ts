import { describe, expect, test } from "vitest";
import type { Blade } from "../../src/blade/schema.ts";
import { firstHandle } from "../../src/design/first-handle.ts";
import { judgePlan } from "../../src/findings/plan.ts";
import { fitOf } from "../../src/route/bar.ts";
import { firstRoute } from "../../src/route/first.ts";
import { reportOf } from "../../src/route/report.ts";
import type { Route } from "../../src/route/schema.ts";
import { type Shop, USUAL_SHOP } from "../../src/shop/schema.ts";
import { changed, example } from "../examples.ts";

/** A blade of one angle all along, so that a plan for it has nothing to say. */
const plain = changed(example("prism"), (copy) => {
  copy.thickness = [{ x: 0, t: 4 }];
});
const judged = (route: Partial<Route> = {}, shop: Shop = USUAL_SHOP, blade: Blade = plain) => {
  const whole = { ...firstRoute(blade), ...route };
  return judgePlan(blade, whole, reportOf(blade, whole, shop, 50), shop);
};
const ids = (findings: ReturnType<typeof judged>) => findings.map(({ id }) => id);
const stages = (...kinds: Route["stages"][number]["kind"][]) => ({
  stages: kinds.map((kind) => ({ id: kind, kind })),
});

describe("is the plan sound", () => {
  test("a first route of a plain blade has nothing against it", () => {
    expect(ids(judged())).toEqual([]);
  });

  test("a belt that is not there: which stage, and why", () => {
    const few = { ...USUAL_SHOP, abrasives: USUAL_SHOP.abrasives.slice(0, 4) };
    const told = judged({}, few).find(({ id }) => id === "belt-cannot-reach")!;
    expect(told).toMatchObject({ severity: "fix" });
    expect(told.message).toMatch(/Nothing on hand is as fine as 35/);
  });

  test("a step that only this shop allows", () => {
    const bold = {
      ...USUAL_SHOP,
      largestStep: 6,
      abrasives: USUAL_SHOP.abrasives.filter(({ grade }) => ["P36", "P120", "P400"].includes(grade)),
    };
    expect(ids(judged({}, bold))).toContain("belt-step-large");
    expect(ids(judged())).not.toContain("belt-step-large");
  });

  test("less off after the oven than its skin", () => {
    const told = judged(stages("stock", "profile", "flats", "layout", "rough", "harden", "sharpen"));
    expect(told.find(({ id }) => id === "skin-stays")).toMatchObject({ severity: "fix" });
  });

  test("holes after hardening, with the reason", () => {
    const told = judged(
      stages(
        "stock",
        "profile",
        "flats",
        "layout",
        "rough",
        "harden",
        "drill",
        "true",
        "finish",
        "grits",
        "sharpen",
      ),
    );
    expect(told.find(({ id }) => id === "order-of-work")!.message).toMatch(/only while the steel is soft/);
  });

  test("stock too thin, and wastefully thick", () => {
    expect(judged({ stock: 4.05 }).find(({ id }) => id === "stock-thin")!.message).toMatch(
      /needs 4\.\d\d mm/,
    );
    expect(judged({ stock: 8 }).find(({ id }) => id === "stock-thick")!.message).toMatch(
      /A bar of 4\.50 mm would do/,
    );
  });

  test("the blade is thinned to what a bar gives where that is more than half of it; a bar is offered always", () => {
    const lost = fitOf(plain, firstRoute(plain), USUAL_SHOP).needed - 4;
    const offers = (gives: number) =>
      judged({ stock: lost + gives })
        .find(({ id }) => id === "stock-thin")!
        .offers!.map(({ words }) => words.replace(/[\d.]+ mm( bar)?/, "…"));
    expect(offers(2.05)).toEqual(["Thin the blade to …", "Take a …"]);
    expect(offers(1.95)).toEqual(["Take a …"]);
  });

  test("a taper that no one setting grinds: what the line does at one setting, and what the angle does at the line", () => {
    const told = judged({}, USUAL_SHOP, example("field")).find(({ id }) => id === "no-single-angle")!;
    expect(told.message).toMatch(/from 3\.\d° to 4\.\d° a side/);
    expect(told.advice).toMatch(/held at 3\.\d° moves the line/);
  });

  test("a round-over bit larger than the scale is thick", () => {
    const route = firstRoute(plain);
    const report = reportOf(plain, route, USUAL_SHOP, 50);
    const handle = (roundOver: number) => {
      const { parts, ...rest } = firstHandle(plain, "full");
      return {
        ...rest,
        parts: parts.map((part) => (part.kind === "scales" ? { ...part, roundOver } : part)),
      };
    };
    const of = (radius: number) =>
      ids(judgePlan(plain, route, report, USUAL_SHOP, { handle: handle(radius) }));
    expect(of(9.5)).toContain("round-over-large");
    expect(of(6)).toEqual([]);
  });

  test("so much left for the oven that nothing is ground", () => {
    expect(ids(judged({ oven: 1.6 }))).toContain("rough-bevel-none");
  });

  test("a bar in hand: as wide and as long as the outline is enough, a hair less is told, what is not known is not judged", () => {
    const nodes = Object.values(plain.outline).flat();
    const [xs, ys] = [nodes.map(({ at }) => at[0]), nodes.map(({ at }) => at[1])];
    const [long, wide] = [xs, ys].map((all) => Math.max(...all) - Math.min(...all)) as [number, number];
    const of = (bar: object) =>
      ids(judged({ bar: { surface: "rolled", ...bar } })).filter((id) => id.startsWith("bar-not"));
    expect(of({ width: wide, length: long })).toEqual([]);
    expect(of({ width: wide + 10, length: long + 10 })).toEqual([]);
    expect(of({ width: wide - 0.01, length: long })).toEqual(["bar-not-wide"]);
    expect(of({ width: wide, length: long - 0.01 })).toEqual(["bar-not-long"]);
    expect(of({ width: wide - 1 })).toEqual(["bar-not-wide"]);
    expect(of({})).toEqual([]);
  });
});
