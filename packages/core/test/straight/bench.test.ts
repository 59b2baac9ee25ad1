import { expect, test } from "vitest";
import { benchReport } from "../../src/findings/bench-report.ts";
import { benchOf } from "../../src/inspect/bench.ts";
import { QUANTITY } from "../../src/inspect/quantity.ts";
import { steelAt } from "../../src/inspect/reader.ts";
import { NO_CHECK, type Reading, type Spot } from "../../src/inspect/schema.ts";
import { straightReport } from "../../src/inspect/straightness.ts";
import { firstRoute } from "../../src/route/first.ts";
import { withUsualHeats } from "../../src/route/heats.ts";
import { otherwise } from "../../src/route/ladder.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { NO_STRAIGHT, type StraightSet } from "../../src/straight/schema.ts";
import { example } from "../examples.ts";

const { falseEdge: _, ...blade } = { ...example("field"), use: "field" };
const route = withUsualHeats(firstRoute(blade));
const STAGE = "true";
const TIP = blade.outline.spine.at(-1)!.at[0];
const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
const when = (minute: number) => `2026-11-20T10:${String(minute).padStart(2, "0")}:00Z`;
const whole = { blade, route, shop: USUAL_SHOP, stage: STAGE, check: { ...NO_CHECK, hardness: 60 } };
const { lines: round, stage } = benchOf({ ...whole, readings: [] });

/** The round as it should be, and what is said beside it. */
const readings = (off: (spot: Spot, x: number) => number): Reading[] =>
  round.map(({ spot, shows, target }, i) => ({
    id: uuid(i),
    when: when(i % 50),
    stage: STAGE,
    ...spot,
    value: shows + off(spot, target.x),
    by: "hand",
  }));
const set = (rows: StraightSet["rows"], more: Partial<StraightSet> = {}): StraightSet => ({
  id: uuid(900),
  when: when(55),
  stage: STAGE,
  state: "hard",
  kind: "gap",
  face: "left",
  rows,
  ...more,
});
const asked = (sets: StraightSet[]) => ({
  blade,
  route,
  shop: USUAL_SHOP,
  stage: STAGE,
  straight: NO_STRAIGHT,
  sets,
  blows: [],
});
/** Gaps under a blade whose middle stands so far to the right: what its own taper shows is taken from the straight blade. */
function gaps(z: (x: number) => number): StraightSet {
  const xs = Array.from({ length: 12 }, (_, i) => i * 10);
  const bare = straightReport(asked([set(xs.map((x) => ({ x, y: -4, v: 0 })))])).points;
  return set(xs.map((x, i) => ({ x, y: -4, v: z(x) - bare[i]!.z })));
}
const bench = (off: (spot: Spot, x: number) => number, sets: StraightSet[] = []) =>
  benchReport(
    { ...whole, readings: readings(off), ...(sets.length > 0 ? { straight: asked(sets) } : {}) },
    "mm",
  );
const found = (report: ReturnType<typeof bench>) => report.found.map(({ pattern }) => pattern);

/** Bent at once at 40, the middle 0.6 to the right there, straight on both sides of it. */
const bend = (x: number) => (x <= 40 ? (0.6 * x) / 40 : (0.6 * (TIP - x)) / (TIP - 40));
/** On its left flat the blade stands on both ends; on its right it rocks on the bend, held down at both ends. */
const overPlate =
  (z: (x: number) => number) =>
  ({ what, side }: Spot, x: number) =>
    what === "over" ? (side === "right" ? z(x) : -z(x)) : 0;

test("a bend that was read along the blade is taken out of what its edge shows over a plate", () => {
  const alone = bench(overPlate(bend));
  // An even bow is the nearest that the bench alone can say.
  expect(alone.found[0]!.pattern).toBe("bow");
  const known = bench(overPlate(bend), [gaps(bend)]);
  expect(found(known)).toEqual([]);
  expect(known.isUnexplained).toBe(false);
  expect(known.findings.map(({ id }) => id)).toContain("bend-at");
  const diagnosis = benchOf({ ...whole, readings: readings(overPlate(bend)), straight: asked([gaps(bend)]) });
  expect(diagnosis.diagnosis.found.map(({ pattern }) => pattern)).toEqual(["bow"]);
  expect(diagnosis.diagnosis.found[0]!.size).toBeCloseTo(0.6, 1);
});

test("bent by far more than any fault, it is still this blade where that was read along it", () => {
  const far = (x: number) => 4 * bend(x);
  const known = bench(overPlate(far), [gaps(far)]);
  expect(known.doubts).toEqual([]);
  expect(known.findings.map(({ id }) => id)).toContain("bend-at");
});

test("an edge off centre is found beside it, at its own size; held flat where it was read, the bend is in nothing", () => {
  // 0.15 less on the left and more on the right, square to the faces: lines, edge and plate all show it.
  const ground = otherwise(stage, { faces: (side) => (side === "right" ? 0.15 : -0.15) });
  const aside = (spot: Spot) =>
    QUANTITY[spot.what].at === "u" ? (steelAt(ground, spot) ?? 0) - (steelAt(stage, spot) ?? 0) : 0;
  const both = bench((spot, x) => overPlate(bend)(spot, x) + aside(spot), [gaps(bend)]);
  expect(found(both)).toContain("off-centre");
  expect(Math.abs(both.found.find(({ pattern }) => pattern === "off-centre")!.size)).toBeCloseTo(0.15, 1);
  const held = bench(aside, [gaps(bend)]);
  expect(found(held)).toEqual(["off-centre"]);
  expect(found(bench(() => 0, [gaps(bend)]))).toEqual([]);
});

test("a turn of 2° by roll carries the edge aside: known, it is no edge off centre", () => {
  const turn = (x: number) => ((2 * Math.PI) / 180) * (x / TIP);
  const off = ({ what, side, u }: Spot, x: number) => {
    if (what !== "over") return 0;
    const { y } = stage.steel.station(u!);
    // About the spine, heel flush: the edge, y below it, goes y·θ to the left.
    return (side === "right" ? 1 : -1) * turn(x) * y;
  };
  const roll = set(
    [0, 25, 50, 75, 100].map((x) => ({ x, y: -4, v: (2 * x) / TIP })),
    { kind: "roll" },
  );
  const known = benchOf({ ...whole, readings: readings(off), straight: asked([roll]) });
  expect(known.diagnosis.found.map(({ pattern }) => pattern)).toEqual(["twist"]);
  // Bow was not read along it: that is still the bench's own to find.
  expect(bench(off, [roll]).notJudged.map(({ id }) => id)).not.toContain("twist");
});

test("bow as one figure counts until lines are read later; what grinding holds does not stand in the way of it", () => {
  const stale = ({ what }: Spot) => (what === "bow" ? 0.8 : 0);
  expect(bench(stale).findings.map(({ id }) => id)).toContain("bow");
  const straightened = bench(stale, [gaps(() => 0)]);
  expect(straightened.findings.map(({ id }) => id)).not.toContain("bow");
  const older = { ...gaps(() => 0), when: "2026-11-19T10:00:00Z" };
  expect(bench(stale, [older]).findings.map(({ id }) => id)).toContain("bow");
  // Thick on the left by 0.2 all along while bent by 0.6: straighten it first; by 0.05: grind.
  const thick = ({ what, side }: Spot) =>
    what === "edge" ? 0.2 : what === "over" && side === "left" ? 0.2 : what === "above" ? 0.2 : 0;
  const small = (x: number) => bend(x) / 12;
  const bent = bench((spot, x) => thick(spot) + overPlate(bend)(spot, x), [gaps(bend)]);
  expect(bent.corrections).toEqual([]);
  const near = bench((spot, x) => thick(spot) + overPlate(small)(spot, x), [gaps(small)]);
  expect(near.corrections.some(({ side }) => side === "left")).toBe(true);
});
