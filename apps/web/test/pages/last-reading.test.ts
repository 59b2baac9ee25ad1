import { firstRoute } from "@true-spine/core/route/first.ts";
import { reportOf } from "@true-spine/core/route/report.ts";
import type { StageKind, TakenReading } from "@true-spine/core/route/schema.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { expect, test } from "vitest";
import { standingOf, told } from "../../src/pages/card/last-reading.ts";
import { knife } from "../knife.ts";

const blade = knife();
const route = firstRoute(blade);
const report = reportOf(blade, route, USUAL_SHOP, 50);
const stage = (kind: StageKind) => report.stages.find((one) => one.kind === kind)!;
const reading = (value: number, more: Partial<TakenReading> = {}): TakenReading => ({
  when: "2026-11-26T08:00:00Z",
  what: "edge",
  place: "middle",
  value,
  ...more,
});
const say = (value: number, more: Partial<TakenReading> = {}, kind: StageKind = "rough") =>
  told(reading(value, more), stage(kind), report, "mm");
const planned = stage("rough").targets[1]!;

test("short of the line: what is still to go on each face, and about how many passes", () => {
  const words = say(planned.edge + 0.2);
  expect(words).toMatch(
    /^Last reading, middle: 1\.\d\d\. Still 0\.10 mm to go on each face, about 5 passes a side\.$/,
  );
});

test("on the line it says so; a little past, what is left and what is needed", () => {
  expect(say(planned.edge)).toMatch(/That is the line\.$/);
  expect(say(planned.edge - 0.1)).toMatch(
    /Past the line by 0\.05 mm a side; still 0\.\d\d mm on each face, 0\.\d\d mm needed\.$/,
  );
});

test("said to be past the line, what follows is planned anew; too far, the finished edge pays", () => {
  expect(say(planned.edge - 0.1, { past: true })).toMatch(/what follows is planned anew/);
  const bare = stage("hand").targets[1]!.edge;
  expect(say(bare + 0.02, { past: true })).toMatch(
    /short for what must still come off\. The finished edge comes out 0\.\d\d mm thinner/,
  );
});

test("what must still come off counts the oven's skin only before the oven", () => {
  const before = standingOf(reading(1), stage("rough"), report).needed;
  const after = standingOf(reading(1), stage("true"), report).needed;
  expect(before - after).toBeCloseTo(route.skin, 9);
});

test("a grind line is told by what it still climbs, or how much too high it stands", () => {
  const line = planned.grindLine.right!;
  expect(say(line - 1, { what: "line" })).toMatch(/The line climbs 1\.00 mm more\.$/);
  expect(say(line + 0.5, { what: "line" })).toMatch(/stands 0\.50 mm too high\.$/);
});
