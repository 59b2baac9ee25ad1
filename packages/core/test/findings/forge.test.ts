import { describe, expect, test } from "vitest";
import type { Blade } from "../../src/blade/schema.ts";
import { judgeForging } from "../../src/findings/forge.ts";
import type { ForgeFinding } from "../../src/findings/forge-finding.ts";
import { parseForge } from "../../src/forge/parse.ts";
import { type Forge, NO_FORGE } from "../../src/forge/schema.ts";
import { firstRoute } from "../../src/route/first.ts";
import { forgeReport, formAtX, stepsTo } from "../../src/route/forge-report.ts";
import { FORM_PLACES, forgingOf, formPlaceAt, heatsLearned } from "../../src/route/forging.ts";
import { ladderOf } from "../../src/route/ladder.ts";
import type { Route } from "../../src/route/schema.ts";
import { withStage } from "../../src/route/stages.ts";
import { type Shop, USUAL_SHOP } from "../../src/shop/schema.ts";
import { checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";
import { some } from "../long.ts";

const field = example("field");
function routed(blade: Blade, stock: number, bar: Partial<NonNullable<Route["bar"]>>): Route {
  const first = firstRoute(blade);
  const stages = first.stages.some(({ kind }) => kind === "forge")
    ? first.stages
    : withStage(first.stages, "forge");
  return { ...first, stock, bar: { surface: "rolled", ...bar }, stages };
}
const WIDE = routed(field, 6.35, { width: 38 });
const judged = (route: Route, forge: Forge = NO_FORGE, blade = field, shop: Shop = USUAL_SHOP) =>
  judgeForging(blade, route, forge, shop);
const named = (all: readonly ForgeFinding[], id: string) => all.find((one) => one.id === id);

describe("does the bar hold it", () => {
  test("a bar wide and thick enough has nothing to fix", () => {
    expect(judged(WIDE).filter(({ severity }) => severity === "fix")).toEqual([]);
  });

  test("a bar is too narrow where a tenth more of the thinning must go sideways than does", () => {
    const lacking = (width: number) => {
      const bar = routed(field, 9, { width });
      const { forms } = forgingOf(field, bar, NO_FORGE, USUAL_SHOP)!;
      const isTold = named(judged(bar), "forge-bar-narrow") !== undefined;
      return [forms.spreadNeeded - forms.spread, isTold];
    };
    expect(lacking(31.25)).toEqual([expect.closeTo(0.105, 2), true]);
    expect(lacking(31.4)).toEqual([expect.closeTo(0.097, 2), false]);
  });

  const cases: readonly [string, Route, Forge][] = [
    ["forge-bar-short", routed(field, 6.35, { width: 38, length: 60 }), NO_FORGE],
    ["forge-bar-thin", routed(field, 4, { width: 38 }), NO_FORGE],
    ["forge-bar-thin", routed(field, 20, { diameter: 12 }), NO_FORGE],
    ["forge-bar-narrow", routed(field, 9, { width: 22 }), NO_FORGE],
    ["forge-skin", WIDE, { ...NO_FORGE, blank: { ...NO_FORGE.blank, edge: 0.9 } }],
    ["forge-skin", WIDE, { ...NO_FORGE, blank: { ...NO_FORGE.blank, flats: 0 } }],
    ["forge-hot", { ...WIDE }, { ...NO_FORGE, heat: { from: 1240, stop: 900 } }],
    ["forge-cold", { ...WIDE }, { ...NO_FORGE, heat: { from: 1050, stop: 720 } }],
    [
      "forge-order",
      WIDE,
      { ...NO_FORGE, order: ["point", "planish", "taper", "tang", "bevel", "straighten"] },
    ],
  ];
  test.each(cases)(
    "%s is told, and what is offered against it clears it with nothing new to fix",
    (id, route, forge) => {
      const blade: Blade = { ...field, steel: "1084" };
      const before = judged(route, forge, blade);
      const found = named(before, id)!;
      expect(found, before.map((one) => one.id).join(", ")).toBeDefined();
      expect(found.offers.length).toBeGreaterThan(0);
      for (const offer of found.offers) {
        const after = judged(offer.route ?? route, offer.forge ?? forge, blade);
        expect(named(after, id), offer.words).toBeUndefined();
        const known = new Set(before.map((one) => one.id));
        expect(after.filter((one) => one.severity === "fix" && !known.has(one.id))).toEqual([]);
        if (offer.forge) expect(parseForge(offer.forge).ok).toBe(true);
      }
    },
  );

  test("a sweep of more than ten degrees is told with how sure it is; what pieces have said may be bent beforehand", () => {
    const thin: Forge = { ...NO_FORGE, blank: { ...NO_FORGE.blank, edge: 1.4 } };
    const first = named(judged(WIDE, thin), "forge-turn")!;
    expect(first.message).toMatch(/(\d+) ± \1°/);
    expect(first.offers).toEqual([]);
    const forged = Array.from({ length: 6 }, (_, i) => ({
      when: "2026-11-20T10:00:00Z",
      toWidth: 0.9 + 0.002 * i,
      reading: 0.01,
    }));
    const learned = named(judged(WIDE, thin, field, { ...USUAL_SHOP, forged }), "forge-turn");
    expect(learned!.offers).toHaveLength(1);
    const after = judged(WIDE, learned!.offers[0]!.forge!, field, { ...USUAL_SHOP, forged });
    expect(named(after, "forge-turn")).toBeUndefined();
  });

  test("a thin edge is cold before it is struck, and that is said", () => {
    const low: Forge = { ...NO_FORGE, heat: { from: 900, stop: 860 } };
    const found = named(judged(WIDE, low), "forge-seconds")!;
    expect(found.message).toContain("s in hand");
  });

  test("what was seen at the fire is to fix where it goes deeper than comes off, or is a crack", () => {
    const seen = (fault: "cold-shut" | "burnt" | "crack", depth: number, x: [number, number]) =>
      named(judgeForging(field, WIDE, NO_FORGE, USUAL_SHOP, { seen: [{ fault, depth, x }] }), "forge-seen");
    expect(seen("cold-shut", 0.3, [40, 44])).toBeUndefined();
    expect(seen("cold-shut", 0.6, [120, 126])!.message).toContain("0.60 mm deep: 0.40 mm a side comes off");
    expect(seen("crack", 0.1, [60, 61])!.advice).toContain("Cut off beyond its end");
    // Off the blank already: it was cut away.
    expect(seen("burnt", 2, [200, 210])).toBeUndefined();
  });

  test("heats that were counted speak for those that are reckoned, more the more pieces there are", () => {
    const piece = { when: "2026-11-20T10:00:00Z", heats: { counted: 40, expected: 20 } };
    const shop = (count: number): Shop => ({
      ...USUAL_SHOP,
      forged: Array.from({ length: count }, () => piece),
    });
    expect(heatsLearned(shop(0)).ratio).toBe(1);
    // (ln 2/0.3²)/(1/0.7² + 1/0.3²) = 0.5856: once seen, 1.80 for each.
    expect(heatsLearned(shop(1)).ratio).toBeCloseTo(1.796, 2);
    expect(heatsLearned(shop(4)).ratio).toBeCloseTo(
      Math.exp((4 * Math.LN2) / 0.09 / (1 / 0.49 + 4 / 0.09)),
      6,
    );
    const [usual, slow] = [shop(0), shop(4)].map((one) => forgingOf(field, WIDE, NO_FORGE, one)!.work.blade);
    expect(slow!).toBeGreaterThan(usual!);
  });

  test("a steel whose sheet is not known is not judged by heat", () => {
    const blade: Blade = { ...field, steel: "440C" };
    const cold: Forge = { ...NO_FORGE, heat: { from: 1240, stop: 700 } };
    expect(judged(WIDE, cold, blade).some(({ id }) => id === "forge-hot" || id === "forge-cold")).toBe(false);
  });
});

describe("a document of what is chosen at the fire", () => {
  test("the usual one is sound; what cannot be says where", () => {
    expect(parseForge(NO_FORGE).ok).toBe(true);
    const paths = (value: unknown) => {
      const parsed = parseForge(value);
      return parsed.ok ? [] : parsed.faults.map(({ path }) => path);
    };
    expect(paths({ ...NO_FORGE, turn: { before: 0.7, after: 0.7 } })).toEqual(["$.turn.after"]);
    expect(paths({ ...NO_FORGE, heat: { from: 800, stop: 900 } })).toEqual(["$.heat.stop"]);
    expect(paths({ ...NO_FORGE, bolster: { from: 4, to: 0, d: 20 } })).toEqual(["$.bolster.to"]);
    expect(paths({ ...NO_FORGE, taper: { spread: "held", bite: 0.5 } })).toEqual(["$.taper.bite"]);
    const height = [
      { u: 0.5, h: 9 },
      { u: 0.5, h: 8 },
    ];
    expect(paths({ ...NO_FORGE, blank: { ...NO_FORGE.blank, height } })).toEqual(["$.blank.height[1].u"]);
    expect(paths({ ...NO_FORGE, order: ["point", "point"] })[0]).toMatch(/^\$\.order/);
    expect(paths({ ...NO_FORGE, anvil: true })[0]).toContain("anvil");
  });
});

describe("the forging as a page shows it", () => {
  test("nothing before the bar's width is known", () => {
    expect(
      forgingOf(field, { ...WIDE, bar: undefined } as unknown as Route, NO_FORGE, USUAL_SHOP),
    ).toBeNull();
  });

  test("the marks go from the tip to the butt, and the bar there and back", () => {
    const report = forgeReport(field, WIDE, NO_FORGE, USUAL_SHOP, 40)!;
    expect(report.marks.map(({ name }) => name)).toEqual(["tip", "plunge", "junction", "butt"]);
    const s = report.marks.map((mark) => mark.s);
    expect([...s].sort((a, b) => a - b)).toEqual(s);
    expect(report.total).toBeGreaterThan(report.needed);
    expect(
      report.forms.every(({ places }) => places.map(({ name }) => name).join() === FORM_PLACES.join()),
    ).toBe(true);
    const bevelled = report.forms.find(({ step }) => step === "bevel")!;
    expect(formAtX(bevelled, 60)!.edge).toBeCloseTo(2, 1);
    expect(formAtX(bevelled, 999)).toBeNull();
    expect(stepsTo(report, bevelled).map(({ step }) => step)).toEqual(["bevel"]);
  });

  test("more heats cost more scale, and so more bar", () => {
    const light = { id: "light", name: "light", mass: 0.4, speed: 6, blows: 1.3, useful: 0.5 };
    const heavy = { ...light, id: "heavy", mass: 25, blows: 3 };
    const [by, power] = [light, heavy].map(
      (hammer) => forgingOf(field, WIDE, NO_FORGE, { ...USUAL_SHOP, hammers: [hammer] })!,
    );
    expect(by!.work.blade).toBeGreaterThan(power!.work.blade);
    expect(by!.map.needed).toBeGreaterThan(power!.map.needed);
    expect(by!.grams.blank).toBeCloseTo(power!.grams.blank, 6);
  });

  test("a bolster is left of the bar's own section, and everything beside it is drawn", () => {
    const round = routed(field, 25, { diameter: 25 });
    const forge: Forge = { ...NO_FORGE, bolster: { from: -10, to: 0, d: 25 } };
    const forging = forgingOf(field, round, forge, USUAL_SHOP)!;
    for (const form of forging.forms.forms) {
      const within = form.at.filter(({ x }) => x > -9.9 && x < -0.1);
      expect(within.every(({ width, thickness }) => width === 25 && thickness === 25)).toBe(true);
    }
    expect(forging.map.sAt(-10) - forging.map.sAt(0)).toBeCloseTo(10, 1);
    expect(forging.forms.preform.t).toBeLessThan(7);
  });

  test("a stage of the route has on its flats what is left at the fire", () => {
    const at = (forge: Forge) =>
      ladderOf(field, WIDE, USUAL_SHOP, forge)
        .find(({ kind }) => kind === "forge")!
        .steel.station(0.5).flats;
    const more = { ...NO_FORGE, blank: { ...NO_FORGE.blank, flats: 0.7 } };
    expect(at(more) - at(NO_FORGE)).toBeCloseTo(0.6, 6);
  });

  test("kinds of blades are forged, each form as much steel as the next", () => {
    for (const [name, raw] of some(KINDS)) {
      const blade = checked(raw);
      const forging = forgingOf(blade, routed(blade, 12, { width: 60 }), NO_FORGE, USUAL_SHOP)!;
      for (const { volume, step } of forging.forms.forms)
        expect(Math.abs(volume / forging.map.volume - 1), `${name} ${step}`).toBeLessThan(1e-3);
      expect(formPlaceAt(forging.blank, "tip")).toBeLessThan(forging.blank.right);
    }
  });
});
