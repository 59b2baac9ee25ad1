import { expect, test } from "vitest";
import { benchReport } from "../../src/findings/bench-report.ts";
import { benchOf } from "../../src/inspect/bench.ts";
import { steelAt } from "../../src/inspect/reader.ts";
import { NO_CHECK, type Reading, type Spot } from "../../src/inspect/schema.ts";
import { benchSteel, targetAt } from "../../src/inspect/target.ts";
import { firstRoute } from "../../src/route/first.ts";
import { USUAL_INSTRUMENTS } from "../../src/shop/instrument.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { changed, example } from "../examples.ts";

/** 1.0414 behind an edge of 20.11°: its bevel 1.422 high. */
const blade = changed(example("prism"), (copy) => {
  copy.edge.behind = [{ u: 0, t: 1.0414 }];
  copy.edge.angle = { left: 20.113, right: 20.113 };
  copy.use = "field";
});
const route = firstRoute(blade);
const whole = { blade, route, shop: USUAL_SHOP, stage: "sharpen", check: { ...NO_CHECK, hardness: 60 } };
const stage = benchSteel(blade, route, USUAL_SHOP, "sharpen", 60);
const high: Spot = { what: "edge-height", u: 0.5, side: "right" };
const face: Spot = { what: "edge-face", u: 0.5, side: "right" };
const behind: Spot = { what: "behind", u: 0.5 };
const caliper = USUAL_INSTRUMENTS.find(({ kind }) => kind === "caliper")!;
let serial = 0;
const reading = (spot: Spot, value: number): Reading => ({
  id: `00000000-0000-4000-8000-${String(++serial).padStart(12, "0")}`,
  when: `2026-11-20T10:${String(serial % 60).padStart(2, "0")}:00Z`,
  stage: "sharpen",
  ...spot,
  value,
  by: "hand",
});
const shown = (spot: Spot) => steelAt(stage, spot, spot.what === "behind" ? (caliper.jaw ?? 0) : 0)!;

test("of a sharpened edge: its bevel's height and its face, by the field; before that there is none", () => {
  expect(steelAt(stage, high)).toBeCloseTo(1.422, 3);
  expect(steelAt(stage, face)).toBeCloseTo(Math.hypot(1.422, 0.5207), 3);
  expect(targetAt(benchSteel(blade, route, USUAL_SHOP, "finish", 60), high)).toBeNull();
});

test("the angle from what is behind it and the height: 20.1°, within a degree or two on so short a bevel", () => {
  const { together } = benchOf({
    ...whole,
    readings: [reading(behind, shown(behind)), reading(high, shown(high))],
  });
  const [angle] = together.edgeAngles;
  expect(angle).toMatchObject({ side: "right", open: null });
  expect(angle!.value).toBeCloseTo(20.11, 1);
  expect(angle!.ends[1] - angle!.ends[0]).toBeGreaterThan(1);
  const byFace = benchOf({
    ...whole,
    readings: [reading(behind, shown(behind)), reading(face, shown(face))],
  });
  expect(byFace.together.edgeAngles[0]!.value).toBeCloseTo(20.11, 1);
  expect(benchOf({ ...whole, readings: [reading(high, 1.4)] }).together.edgeAngles).toEqual([]);
});

test("all three close within what they are sure to, or the height is to be read again", () => {
  const of = (long: number) =>
    benchReport(
      {
        ...whole,
        readings: [reading(behind, shown(behind)), reading(high, shown(high)), reading(face, long)],
      },
      "mm",
    ).findings.map(({ id }) => id);
  expect(of(shown(face))).not.toContain("triangle-open");
  expect(of(shown(face) + 0.8)).toContain("triangle-open");
});
