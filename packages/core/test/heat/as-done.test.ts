import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { judgeHeat } from "../../src/findings/heat.ts";
import { type HeatWork, NO_HEAT_WORK } from "../../src/findings/heat-finding.ts";
import { judge } from "../../src/findings/judge.ts";
import type { Handle } from "../../src/handle/schema.ts";
import { couponHeats } from "../../src/heat/recipe.ts";
import { type Heat, NO_HEAT } from "../../src/heat/schema.ts";
import type { Hardened } from "../../src/heat/shop.ts";
import { knownOf } from "../../src/heat/steel.ts";
import { firstRoute } from "../../src/route/first.ts";
import { heatReport } from "../../src/route/heat-report.ts";
import {
  opsOf,
  recipeOf,
  staysSoft,
  withOp,
  withoutHeats,
  withRecipe,
  withUsualHeats,
} from "../../src/route/heats.ts";
import type { Route } from "../../src/route/schema.ts";
import { parseShop } from "../../src/shop/parse.ts";
import { type Shop, USUAL_SHOP } from "../../src/shop/schema.ts";
import { hardenedOf, withHardened } from "../../src/work/hardened.ts";
import { example } from "../examples.ts";

const blade = { ...example("field"), steel: "1084" };
const route = withUsualHeats(firstRoute(blade));
const WHEN = "2026-01-01T10:00:00Z";
const doneTo = (id: string): Route => {
  const last = route.stages.findIndex((stage) => stage.id === id);
  return { ...route, stages: route.stages.map((one, i) => (i <= last ? { ...one, done: WHEN } : one)) };
};
const found = (
  r: Route,
  heat: Heat,
  work: Partial<HeatWork> = {},
  more: { shop?: Shop; wanted?: number; handle?: Handle } = {},
) =>
  judgeHeat(blade, r, heat, more.shop ?? USUAL_SHOP, {
    ...more,
    work: {
      ...NO_HEAT_WORK,
      done: r.stages.flatMap(({ id, done }) => (done ? [id!] : [])),
      ...work,
    },
  });
const one = (id: string, ...asked: Parameters<typeof found>) => found(...asked).find((f) => f.id === id);
const file = (saw: "skates" | "bites") => ({
  when: WHEN,
  after: "harden",
  what: "file" as const,
  place: "edge" as const,
  saw,
});
const read = (stage: string, ...values: number[]) => values.map((value) => ({ stage, value }));

describe("what a tester says after the tempers", () => {
  const tempered = doneTo("temper-2");

  test("further apart than two and the tester: uneven", () => {
    const say = (...values: number[]) =>
      found(tempered, NO_HEAT, { hardness: read("harden", ...values) }).some(
        ({ id, severity }) => id === "hardness-mixed" && severity === "watch",
      );
    // The usual tester repeats within 0.5: 0.98 for 95 of 100.
    expect(say(64, 66.9)).toBe(false);
    expect(say(64, 67.1)).toBe(true);
  });

  test("too hard: ten hotter, by common practice; by the shop's own line as much as that says; one press away", () => {
    const hard = { hardness: read("temper-2", 63, 63) };
    const plain = one("hardness-high", tempered, NO_HEAT, hard)!;
    expect(plain.message).toContain("63.0 HRC after its tempers, 3.0 harder");
    expect(plain.advice).toContain("10 °C hotter");
    const hardened = [177, 204.44, 204.44, 232].map(
      (celsius, i): Hardened => ({
        blade: `b${i}`,
        when: WHEN,
        steel: "1084",
        T: 802,
        tempers: [{ celsius, hours: i === 2 ? 4 : 2 }],
        HRC: [62.5, 60.5, 60, 58][i]!,
      }),
    );
    const own = one("hardness-high", tempered, NO_HEAT, hard, { shop: { ...USUAL_SHOP, hardened } })!;
    const more = Number(/(\d+) °C hotter/.exec(own.advice)![1]);
    // 4.5 HRC for 55 °C: 3 for some 37.
    expect(more).toBeGreaterThan(33);
    expect(more).toBeLessThan(42);
    expect(own.basis).toContain("4 readings of this shop");
    const [offer] = own.offers;
    expect(offer!.route!.stages.filter(({ kind }) => kind === "temper")).toHaveLength(3);
    const last = opsOf(offer!.route!, offer!.heat!, blade).at(-1)!;
    expect(last.T).toBe(204 + more);
    expect(one("hardness-high", offer!.route!, offer!.heat!, hard)).toBeUndefined();
  });

  test("too soft gives no offer: a temper gives none back; where the blade says what is wanted that counts", () => {
    const soft = one("hardness-low", tempered, NO_HEAT, { hardness: read("temper-2", 55) })!;
    expect(soft.severity).toBe("fix");
    expect(soft.message).toContain("5.0 softer");
    const bare = withOp(opsOf(route, NO_HEAT, blade), NO_HEAT, "temper-2", { expect: undefined });
    expect(one("hardness-low", tempered, bare, { hardness: read("temper-2", 55) })).toBeUndefined();
    expect(
      one("hardness-low", tempered, bare, { hardness: read("temper-2", 55) }, { wanted: 58 }),
    ).toBeDefined();
    expect(found(tempered, NO_HEAT, { hardness: read("temper-2", 60) }).map(({ id }) => id)).not.toContain(
      "hardness-high",
    );
  });
});

describe("a file bites", () => {
  test("how much has to come off, what is there to come off, and what of it is left", () => {
    const hardened = doneTo("harden");
    const soft = one("edge-soft", hardened, NO_HEAT, { proofs: [file("bites")] })!;
    const { toCome, ops } = heatReport(blade, route, NO_HEAT, USUAL_SHOP);
    const off = 2 * ops.find(({ op }) => op.kind === "harden")!.skin.depth;
    expect(off).toBeCloseTo(0.364, 2);
    expect(toCome).toBeCloseTo(0.1356, 3);
    expect(soft.advice).toContain("Take 0.36 mm off a side");
    expect(soft.advice).toContain("Only 0.14 mm is still to come off: it ends 0.23 mm a side too thin");
    const [offer] = soft.offers;
    const plenty = one("edge-soft", { ...hardened, skin: offer!.route!.skin }, NO_HEAT, {
      proofs: [file("bites")],
    })!;
    expect(plenty.advice).toContain("is left");
  });

  test("scrap may stay as it is: no fire on the route, and its strength is that of soft steel", () => {
    const scrap: Heat = { ...NO_HEAT, steel: { from: "scrap", certainty: "guessed", sure: 50 } };
    const soft = one("edge-soft", doneTo("harden"), scrap, { proofs: [file("bites")] })!;
    const offer = soft.offers.find(({ words }) => words.includes("as soft as it is"))!;
    expect(staysSoft(offer.route!)).toBe(true);
    expect(staysSoft(route)).toBe(false);
    expect(staysSoft({ stages: [] })).toBe(false);
    expect(opsOf(offer.route!, scrap, blade)).toEqual([]);
    const knife = { ...blade, use: "field" };
    const field = compileField(knife);
    const at = (isSoft: boolean, id: string) =>
      judge(knife, field, { isRouted: true, staysSoft: isSoft }).findings.find((f) => f.id === id);
    expect(at(false, "unhardened")).toBeUndefined();
    expect(at(true, "unhardened")!.message).toContain("18 %");
    // A field knife that stands hardened does not soft: 350/2000 of what it was.
    expect(at(false, "edge-apex-weak")).toBeUndefined();
    expect(at(true, "edge-apex-weak")!.measured).toBeGreaterThan(0.1);
    expect(at(true, "edge-apex-weak")!.measured).toBeLessThan(0.6);
    expect(withoutHeats(route).stages.some(({ kind }) => kind === "temper")).toBe(false);
  });

  test("a coupon that skates proves a steel as a file on the blade does", () => {
    const scrap: Heat = { ...NO_HEAT, steel: { from: "scrap", certainty: "guessed", sure: 50 } };
    const coupon = { when: WHEN, after: "harden", what: "coupon" as const, T: 800, saw: "skates" as const };
    expect(one("scrap-unproved", route, scrap)).toBeDefined();
    expect(one("scrap-unproved", route, scrap, { proofs: [coupon] })).toBeUndefined();
    const bites = { proofs: [file("bites"), { ...coupon, saw: "bites" as const }] };
    expect(one("edge-soft", doneTo("harden"), NO_HEAT, bites)!.offers.map(({ words }) => words)).toContain(
      "It stays as soft as it is",
    );
  });

  test("coupons of 1084 at 50, 70 and 90 above Ac1, of 5160 above all austenite", () => {
    expect(couponHeats(knownOf(NO_HEAT.steel, "1084")!)).toEqual([772, 792, 812]);
    expect(couponHeats(knownOf(NO_HEAT.steel, "5160")!)).toEqual([784, 814, 844]);
  });
});

describe("what belongs before the quench", () => {
  test("soft work that was not ticked off is told once it was in the fire", () => {
    const early = { ...doneTo("harden") };
    const skipped = {
      ...early,
      stages: early.stages.map((stage) => {
        const { done: _, ...rest } = stage;
        return stage.kind === "drill" ? rest : stage;
      }),
    };
    expect(one("soft-work-left", early, NO_HEAT)).toBeUndefined();
    expect(one("soft-work-left", skipped, NO_HEAT)!.message).toContain("Holes");
    expect(one("soft-work-left", route, NO_HEAT)).toBeUndefined();
  });

  test("a guard on a hard tang: drawn, or the edge hardened alone, it is gone", () => {
    const handle = {
      format: "true-spine/handle",
      version: 1,
      pins: [],
      parts: [{ kind: "fitting" }, { kind: "block" }],
    } as unknown as Handle;
    const hard = one("tang-hard", route, NO_HEAT, {}, { handle })!;
    expect(hard.severity).toBe("fix");
    for (const offer of hard.offers)
      expect(one("tang-hard", offer.route ?? route, offer.heat ?? NO_HEAT, {}, { handle })).toBeUndefined();
    expect(one("tang-hard", route, NO_HEAT)).toBeUndefined();
  });
});

describe("recipes of the shop", () => {
  const known = recipeOf(opsOf(route, NO_HEAT, blade), { id: "r1", name: "ours", steel: "1084" });

  test("kept from a blade and laid over another's plain route, its heats come back as they were", () => {
    const laid = withRecipe(blade, firstRoute(blade), NO_HEAT, known);
    const told = (of: ReturnType<typeof opsOf>) => of.map(({ id: _, ...op }) => op);
    expect(told(opsOf(laid.route, laid.heat, blade))).toEqual(told(opsOf(route, NO_HEAT, blade)));
    expect(laid.route.stages.find(({ kind }) => kind === "harden")!.name).toBe("Harden");
  });

  test("a shorter one takes off what it has no heat for, but never what is done", () => {
    const short = { ...known, ops: known.ops.filter(({ kind }) => kind !== "normalize") };
    const laid = withRecipe(blade, route, NO_HEAT, short);
    expect(laid.route.stages.filter(({ kind }) => kind === "normalize")).toHaveLength(0);
    const begun = withRecipe(blade, doneTo("normalize"), NO_HEAT, short);
    expect(begun.route.stages.filter(({ kind }) => kind === "normalize")).toHaveLength(1);
    expect(begun.heat.ops.find(({ id }) => id === "normalize")!.T).toBe(870);
  });

  test("a shop with bars, recipes, ovens and quenchants is read as it is written, and says what is wrong where", () => {
    const shop: Shop = {
      ...USUAL_SHOP,
      steels: [{ id: "s1", name: "bar of May", record: NO_HEAT.steel }],
      heatRecipes: [known],
      quenchants: [{ id: "q1", name: "tank", medium: "oil", H: [0.35, 0.4], T: 55 }],
      ovens: [{ id: "o1", name: "the big one", by: "oven", high: 12, air: "foil" }],
      hardened: [{ blade: "b", when: WHEN, steel: "1084", T: 802, q: 1.2, isThrough: true }],
    };
    expect(parseShop(JSON.parse(JSON.stringify(shop)))).toEqual({ ok: true, shop });
    const wrong = parseShop({
      ...shop,
      ovens: [shop.ovens![0], shop.ovens![0]],
      quenchants: [{ ...shop.quenchants![0], H: [0.5, 0.3] }],
    });
    expect(JSON.stringify(wrong)).toContain("stands in the list already");
    expect(JSON.stringify(wrong)).toContain("the least stands first");
    const set = withOp(opsOf(route, NO_HEAT, blade), NO_HEAT, "harden", { oven: "o1" });
    const { ops } = heatReport(blade, route, set, shop);
    expect(ops.find(({ op }) => op.kind === "harden")!.setTo).toBe(814);
  });
});

describe("what a blade tells the shop", () => {
  const report = heatReport(blade, route, NO_HEAT, USUAL_SHOP);
  const work = (more: Partial<HeatWork>): HeatWork => ({ ...NO_HEAT_WORK, ...more });

  test("nothing where nothing was proved; its file, its reading and its skin where they were", () => {
    expect(hardenedOf(report, work({}))).toBeNull();
    const said = hardenedOf(
      report,
      work({
        proofs: [file("bites"), file("skates"), { when: WHEN, after: "harden", what: "skin", mm: 0.27 }],
        hardness: [...read("harden", 65), ...read("temper-2", 60, 61)],
        done: ["harden", "temper", "temper-2"],
      }),
    )!;
    expect(said).toMatchObject({ steel: "1084", T: 802, isThrough: true, HRC: 60.5 });
    expect(said.tempers).toHaveLength(2);
    expect(said.skin!.read / said.skin!.reckoned).toBeCloseTo(0.27 / 0.1821, 2);
    expect(said.q).toBeGreaterThan(0);
    // What was not done yet is not told.
    expect(hardenedOf(report, work({ hardness: read("temper-2", 60), done: ["harden"] }))).toBeNull();
  });

  test("a blade has one record, its last; three skins deepen what is left for it", () => {
    const skin = (n: number, read: number): Hardened => ({
      blade: `b${n}`,
      when: WHEN,
      steel: "1084",
      T: 802,
      skin: { read, reckoned: 0.1, air: "air" },
    });
    const records = [skin(1, 0.2), skin(2, 0.2), skin(3, 0.2)].reduce<Hardened[]>(withHardened, []);
    expect(withHardened(records, skin(3, 0.1))).toHaveLength(3);
    const deeper = heatReport(blade, route, NO_HEAT, { ...USUAL_SHOP, hardened: records });
    expect(deeper.leave! / report.leave!).toBeCloseTo(2, 6);
  });
});

test("the side view as it is quenched: thin at the edge and thick at the spine, all of it shaded", () => {
  const poor = withOp(opsOf(route, NO_HEAT, blade), NO_HEAT, "harden", { H: [0.25, 0.3] });
  const { shade, thick } = heatReport(blade, route, poor, USUAL_SHOP);
  expect(shade.length).toBeGreaterThan(900);
  const at = (fares: string) => shade.filter((piece) => piece.fares === fares);
  expect(at("usually through").length).toBeGreaterThan(0);
  expect(at("the file decides").length).toBeGreaterThan(0);
  const height = (pieces: typeof shade) => pieces.reduce((sum, { y }) => sum + y[0], 0) / pieces.length;
  expect(height(at("the file decides"))).toBeGreaterThan(height(at("usually through")));
  expect(thick.spine).toBeGreaterThan(thick.edge);
});
