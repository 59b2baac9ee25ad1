import { parseReading } from "@true-spine/core/inspect/parse.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import { reportOf } from "@true-spine/core/route/report.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { describe, expect, test } from "vitest";
import { lastOnCard, toReading } from "../../src/pages/card/card-reading.ts";
import { stagesToCheck, stageToCheck } from "../../src/pages/check/stage.ts";
import { knife } from "../knife.ts";

const blade = knife();
const route = firstRoute(blade);
const report = reportOf(blade, route, USUAL_SHOP, 50);
const rough = report.stages.find(({ kind }) => kind === "rough")!;
const sharpen = report.stages.find(({ kind }) => kind === "sharpen")!;
const at = { when: "2026-11-26T08:00:00Z", place: "middle", value: 1.1 } as const;

describe("what the card takes is a reading like any other", () => {
  test("sound at the border, at the place's own share of the edge, on the side in hand", () => {
    const edge = toReading({ ...at, what: "edge", past: true }, rough, "left");
    expect(parseReading(edge).ok).toBe(true);
    expect(edge).toMatchObject({ stage: "rough", what: "edge", by: "card", past: true });
    const line = toReading({ ...at, what: "line" }, rough, "left");
    expect(parseReading(line).ok).toBe(true);
    expect(line).toMatchObject({ what: "line", side: "left" });
    expect(toReading({ ...at, what: "edge" }, sharpen, "left").what).toBe("behind");
  });

  test("the last of a stage at one of its places is shown, whoever took it; those of elsewhere are not", () => {
    const one = toReading({ ...at, what: "edge" }, rough, "left");
    const two = {
      ...toReading({ ...at, what: "line", place: "tip", value: 14 }, rough, "right"),
      by: "instrument" as const,
    };
    expect(lastOnCard([one, two], rough)).toMatchObject({ what: "line", place: "tip", value: 14 });
    expect(lastOnCard([one, { ...two, u: 0.123 }], rough)).toMatchObject({ what: "edge", value: 1.1 });
    expect(lastOnCard([{ ...one, stage: "finish" }], rough)).toBeNull();
    expect(lastOnCard([], rough)).toBeNull();
  });
});

describe("which stage is checked", () => {
  const done = (...kinds: string[]) => ({
    ...route,
    stages: route.stages.map((stage) => (kinds.includes(stage.kind) ? { ...stage, done: at.when } : stage)),
  });

  test("the last one done that left something to read, else the first that will", () => {
    expect(stageToCheck(done("stock", "profile", "drill", "flats", "layout", "rough"))).toBe("rough");
    expect(
      stageToCheck(
        done(
          "stock",
          "profile",
          "drill",
          "flats",
          "layout",
          "rough",
          "harden",
          "true",
          "finish",
          "grits",
          "hand",
          "handle",
          "etch",
        ),
      ),
    ).toBe("hand");
    expect(stageToCheck(done())).toBe("flats");
    expect(stageToCheck({ ...route, stages: [] })).toBe("sharpen");
  });

  test("stages with nothing to read are not offered", () => {
    expect(stagesToCheck(route)).not.toContain("handle");
    expect(stagesToCheck(route)).toContain("true");
    expect(stagesToCheck({ ...route, stages: [] })).toEqual(["sharpen"]);
  });
});
