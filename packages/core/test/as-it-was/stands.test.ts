import { describe, expect, test } from "vitest";
import { isBelt } from "../../src/abrasive/schema.ts";
import { compileField } from "../../src/blade/field.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { cutChoil, mirrorEdge, notchSpine, otherHand } from "../../src/design/cuts.ts";
import { DRIVERS } from "../../src/design/drive.ts";
import { firstBlade, STARTS } from "../../src/design/first.ts";
import { firstHandle } from "../../src/design/first-handle.ts";
import { holesAlong, pairsAlong } from "../../src/design/holes.ts";
import { addAfter, moveHandle, remove, smooth } from "../../src/design/nodes.ts";
import { servedBlade } from "../../src/design/served.ts";
import { isSameJson } from "../../src/document/same.ts";
import { NO_EDGE, NO_THIN } from "../../src/edge/schema.ts";
import { evaluate } from "../../src/evaluate/evaluation.ts";
import { planFigures } from "../../src/evaluate/plan.ts";
import { benchReport } from "../../src/findings/bench-report.ts";
import { judgeEdge } from "../../src/findings/edge.ts";
import { judgeForging } from "../../src/findings/forge.ts";
import { judgeHeat } from "../../src/findings/heat.ts";
import { judge } from "../../src/findings/judge.ts";
import { judgeStraight } from "../../src/findings/straight.ts";
import { NO_FORGE } from "../../src/forge/schema.ts";
import { balanceLevers, balanceOf } from "../../src/handle/balance.ts";
import { NO_HEAT } from "../../src/heat/schema.ts";
import { benchOf } from "../../src/inspect/bench.ts";
import { NO_CHECK, type Spot } from "../../src/inspect/schema.ts";
import { straightReport } from "../../src/inspect/straightness.ts";
import { edgeReport } from "../../src/route/edge-report.ts";
import { firstRoute } from "../../src/route/first.ts";
import { forgeReport } from "../../src/route/forge-report.ts";
import { heatReport } from "../../src/route/heat-report.ts";
import { withUsualHeats } from "../../src/route/heats.ts";
import type { Route } from "../../src/route/schema.ts";
import { SCHOOLS, withStage } from "../../src/route/stages.ts";
import { thinReport } from "../../src/route/thin-report.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { NO_STRAIGHT, type StraightSet } from "../../src/straight/schema.ts";
import { checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";
import { inLines } from "./lines.ts";

/**
 * What the core says of unlike blades stands as it did, to four figures: whatever changes it unmeant is seen. Meant changes are written
 * with `npx vitest run --project core -u as-it-was`, and read in the difference. Whether it is right is what every other test asks.
 */
const BLADES: readonly (readonly [string, Blade])[] = [
  ["field", example("field")],
  ...KINDS.map(([name, raw]) => [name, checked(raw)] as const),
];
const STEELS = ["1084", "1095", "5160", "1075", "O1"];
const BARS: readonly (readonly [stock: number, bar: NonNullable<Route["bar"]>])[] = [
  [6.35, { surface: "rolled", width: 38 }],
  [5, { surface: "rolled", width: 25.4, length: 150 }],
  [25.4, { surface: "rolled", diameter: 25.4 }],
];
const asItWas = (name: string, told: object) =>
  expect(`${inLines(told).join("\n")}\n`).toMatchFileSnapshot(`${name}.txt`);

/** What a finding offers is told by its words alone. */
const inWords = <F extends { readonly offers: readonly { readonly words: string }[] }>({
  offers,
  ...told
}: F) => ({
  ...told,
  offers: offers.map(({ words }) => words),
});

const shop = USUAL_SHOP;
const routeOf = (blade: Blade, i: number) => firstRoute(blade, SCHOOLS[i % SCHOOLS.length]);
const NAMED = BLADES.map(([name, blade], i) => [name, blade, i] as const);

describe.each(NAMED)("%s", (name, blade, i) => {
  const route = routeOf(blade, i);

  test("measured, judged, planned", async () => {
    const bare = judge({ ...blade, use: ["field", "kitchen", "chopper", "carving"][i % 4]! });
    await asItWas(`${name}-blade`, {
      evaluation: evaluate(blade, [0.1, 0.5, 0.9]),
      elsewhere: bare.findings.map(({ id, message, advice, remedies }) => ({
        id,
        message,
        advice,
        remedies: remedies.map(({ words }) => words),
      })),
      plan: planFigures(blade, route, shop),
    });
  });
});

test("what a blade begins as, a grind of every purpose", async () => {
  const begun = Object.entries(STARTS).map(([use, { family, values, stock, grinds }], i) => {
    const tang = i % 2 === 0 ? ("full" as const) : ("hidden" as const);
    const grind = grinds[i % grinds.length]!;
    const made = firstBlade({ name: "First", use, family, values, stock, tang, grind, steel: "1084" });
    return [`${use}, ${grind}`, made];
  });
  await asItWas("first-blades", Object.fromEntries(begun));
});

test.each(NAMED.filter(([, , i]) => i % 3 === 0))(
  "%s, changed: driven, cut, turned over, its nodes moved",
  async (name, blade) => {
    const { ring } = compileField(blade);
    const changed = (change: (copy: Blade) => void) => {
      const copy = structuredClone(blade);
      try {
        change(copy);
      } catch (refused) {
        // A cut that has no room says so; anything else is a fault.
        if (!(refused instanceof RangeError)) throw refused;
        return refused.message;
      }
      const apart = Object.entries(copy).filter(
        ([key, part]) => !isSameJson(part, blade[key as keyof Blade]),
      );
      return Object.fromEntries(apart);
    };
    const nodes = (change: (list: Blade["outline"]["spine"]) => void) =>
      changed(({ outline }) => change(outline.spine.length > 2 ? outline.spine : outline.tang));
    const hand = firstHandle(blade, "full");
    await asItWas(`${name}-changed`, {
      driven: Object.fromEntries(
        DRIVERS.map(({ key, measure, set }) => {
          const now = measure(ring, blade);
          return [key, now === null ? null : { now, made: changed((copy) => set(copy, now * 1.06)) }];
        }),
      ),
      choil: changed((copy) => cutChoil(copy, 3)),
      notched: changed((copy) => notchSpine(copy, { from: 4, to: 16, count: 4, depth: 0.6 })),
      otherHand: changed(otherHand),
      mirrored: changed(mirrorEdge),
      added: nodes((list) => addAfter(list, 0, 0.4)),
      removed: nodes((list) => remove(list, 1)),
      smoothed: nodes((list) => smooth(list, 1, true)),
      moved: nodes((list) => moveHandle(list[1]!, "back", [-9, 3])),
      pairs: pairsAlong(blade, 3, 4),
      along: holesAlong(blade, 3, 4),
      handle: hand,
      balance: balanceOf(compileField(blade), hand),
      levers: balanceLevers(blade, hand),
      served: servedBlade(blade, 0.7),
    });
  },
);

describe.each(NAMED.filter(([, , i]) => i % 2 === 0))("%s", (name, blade, i) => {
  const route = routeOf(blade, i);

  test("forged, hardened, straightened, sharpened", async () => {
    const steel = { ...blade, steel: STEELS[i % STEELS.length]! };
    const [stock, bar] = BARS[i % BARS.length]!;
    const first = firstRoute(blade);
    const isForged = first.stages.some(({ kind }) => kind === "forge");
    const stages = isForged ? first.stages : withStage(first.stages, "forge");
    const forged = { ...first, stock, bar, stages };
    const hot = withUsualHeats(route);
    const edgeAsked = { blade, route, shop, edge: NO_EDGE, which: "first" as const, done: [] };
    const edge = edgeReport(edgeAsked);
    const belts = { ...edgeAsked, shop: { ...shop, abrasives: shop.abrasives.filter(isBelt) } };
    const byBelt = edgeReport(belts);
    const rows = [0, 20, 40, 60, 80, 100].map((x) => ({ x: x * 0.9, y: -4, v: 0.004 * x * (1 - x / 100) }));
    const set: StraightSet = {
      id: ID,
      when: "2026-01-01T10:00:00Z",
      stage: "true",
      state: "hard",
      kind: "gap",
      face: "left",
      rows,
    };
    const straightAsked = {
      blade,
      route: hot,
      shop,
      stage: "true",
      straight: NO_STRAIGHT,
      sets: [set],
      blows: [],
    };
    const straight = straightReport(straightAsked);
    await asItWas(`${name}-work`, {
      forge: forgeReport(steel, forged, NO_FORGE, shop, 30),
      forging: judgeForging(steel, forged, NO_FORGE, shop).map(inWords),
      heat: heatReport(steel, hot, NO_HEAT, shop),
      heats: judgeHeat(steel, hot, NO_HEAT, shop).map(inWords),
      straight,
      bends: judgeStraight(straightAsked, straight),
      edge,
      edges: edge && judgeEdge(edgeAsked, edge, "mm"),
      byBelt: byBelt && judgeEdge(belts, byBelt, "mm"),
      thin: thinReport({ blade, shop, which: "first", thin: NO_THIN, lost: 0.6 }),
    });
  });

  test("read at the bench, thick here and out of line there", async () => {
    const told = Object.fromEntries(
      (["rough", "sharpen"] as const).map((stage) => {
        const asked = { blade, route, shop, stage, check: { ...NO_CHECK, hardness: 60 }, readings: [] };
        const readings = benchOf(asked).lines.map(({ spot, shows }, n) => ({
          id: ID.slice(0, -4) + String(n).padStart(4, "0"),
          when: "2026-11-20T10:00:00Z",
          stage,
          ...spot,
          value: shows + OFF[(i + (stage === "rough" ? 0 : 1)) % OFF.length]!(spot),
          by: "hand" as const,
        }));
        const report = benchReport({ ...asked, readings }, "mm");
        const { lines, found, rivals, settles, corrections, findings, notJudged, spare } = report;
        const asRead = lines.map(({ key, shows, target: { band }, figure }) => [
          key,
          [shows, band, figure?.off, figure?.uncertainty.expanded],
          figure?.uncertainty.components.map(({ u }) => u),
          figure?.verdict,
        ]);
        const told = { found, rivals, settles, corrections, findings, notJudged, spare };
        return [stage, { ...asRead, ...told }];
      }),
    );
    await asItWas(`${name}-bench`, told);
  });
});

const ID = "00000000-0000-4000-8000-000000000000";
/** What is wrong with what is read, each of another kind. */
const OFF: readonly ((spot: Spot) => number)[] = [
  ({ what }) => (what === "edge" || what === "behind" ? 0.3 : what === "over" ? 0.15 : 0),
  ({ what, side }) => (what === "over" ? (side === "left" ? 0.2 : -0.2) : 0),
  ({ what, u = 0 }) => (what === "edge" || what === "behind" ? 0.4 * u : what === "over" ? 0.2 * u : 0),
  ({ what }) => ({ bow: 0.6, twist: -2.5, hardness: -4, flats: 0.15 })[what as string] ?? 0,
  ({ what, side }) => (what === "line" || what === "plunge" ? (side === "left" ? 1.2 : 0) : 0),
];
