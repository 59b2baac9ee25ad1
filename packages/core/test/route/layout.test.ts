import { describe, expect, test } from "vitest";
import { firstAtX, placeAt } from "../../src/blade/chain.ts";
import { compileField, type Field, thicknessAt } from "../../src/blade/field.ts";
import { parseDocument } from "../../src/registry/documents.ts";
import { firstRoute } from "../../src/route/first.ts";
import { ladderOf } from "../../src/route/ladder.ts";
import { layoutOf } from "../../src/route/layout.ts";
import { outOfOrder, SCHOOLS, STAGES } from "../../src/route/stages.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { changed, example } from "../examples.ts";

function sheetFor(change: Parameters<typeof changed>[1], gap: number, skin = 0.1) {
  const blade = changed(example("field"), change);
  const finished = compileField(blade);
  const rungs = ladderOf(blade, { ...firstRoute(blade), skin }, USUAL_SHOP);
  const at = (kind: string) => rungs.find((rung) => rung.kind === kind)!;
  return { sheet: layoutOf(at("layout"), at("rough"), { gap }), at, finished };
}

/** Where the edge lies at x. */
function edgeAt({ edge }: Field, x: number): [number, number] {
  const place = placeAt(edge, firstAtX(edge, x)!);
  return [place.x, place.y];
}

describe("the layout sheet", () => {
  test("a 4.48 mm tapered bar: gauge at 2.00 for a gap of 0.48, lines that meet and cross, and where they meet", () => {
    // Worked values: at s 2.00, T 4.24 / 4.00 / 3.80 leave 0.24 / 0 / -0.20 between the lines. Source: geometry.
    const { sheet, at } = sheetFor((copy) => {
      copy.thickness = [
        { x: 20, t: 4.48 },
        { x: 120, t: 3 },
      ];
    }, 0.48);
    const flats = 2 * at("layout").left.flats;
    expect(sheet.places[0]!.gap).toBeCloseTo(0.48, 9);
    const heel = sheet.places[0]!;
    expect(sheet.setting).toBeCloseTo((heel.flats - 0.48) / 2, 9);
    for (const { flats: T, gap } of sheet.places) expect(gap).toBeCloseTo(T - 2 * sheet.setting, 9);
    // T(x) = 4.48 - 0.0148 (x - 20) + what the flats still have on them, and the lines meet where that is 2 s.
    const meet = 20 + (4.48 + flats - 2 * sheet.setting) / 0.0148;
    expect(sheet.meetAt).toBeCloseTo(meet, 1);
    expect(sheet.places[2]!.gap).toBeLessThan(0);
    expect(sheet.missesFrom).toBeNull();
  });

  test("steel thinner than the gauge's setting is where the gauge scribes nothing", () => {
    const { sheet } = sheetFor((copy) => {
      copy.thickness = [
        { x: 20, t: 5 },
        { x: 125, t: 1 },
      ];
      copy.edge.behind = [{ u: 0, t: 0.3 }];
    }, 0.3);
    expect(sheet.missesFrom!).toBeGreaterThan(sheet.meetAt!);
    expect(sheet.missesFrom!).toBeLessThan(125);
  });

  test("how far outside the lines to stop is half of what the edge is thicker than the gap", () => {
    const { sheet, at, finished } = sheetFor(() => {}, 0.5);
    const heel = sheet.places[0]!;
    // The edge this route leaves at the heel, read off the field of its stage, less the gap, on two sides.
    const rough = thicknessAt(at("rough").steel.field, ...edgeAt(finished, heel.x));
    expect(heel.edge).toBeCloseTo(rough, 9);
    expect(2 * heel.outside + 0.5).toBeCloseTo(rough, 9);
  });

  test("the grind line to scribe now lies below where it ends, by what is still to come off", () => {
    const { sheet, at } = sheetFor(() => {}, 0.5);
    for (const { line } of sheet.places) {
      expect(line.right!.climb).toBeGreaterThan(0);
      expect(line.right!.now + line.right!.climb).toBeCloseTo(line.right!.final, 9);
    }
    expect(at("rough").left.faces.right).toBeGreaterThan(at("finish").left.faces.right);
  });

  test("plunges are marked from one datum, holes from the outline; out of square has its price", () => {
    const { sheet } = sheetFor(() => {}, 0.5);
    expect(sheet.plunges).toEqual([
      { side: "both", foot: 12, top: expect.closeTo(12 + 23.3 * Math.tan(Math.PI / 18), 0) },
    ]);
    expect(sheet.holes).toHaveLength(1);
    const [quarter, half, one] = sheet.squareness.map(({ apart }) => apart);
    expect(half! / quarter!).toBeCloseTo(2, 1);
    expect(one! / half!).toBeCloseTo(2, 0);
  });
});

describe("the order of work", () => {
  test("every school's own order is sound, and every stage says what it is and what to beware of", () => {
    for (const school of SCHOOLS) expect(outOfOrder(school.stages)).toEqual([]);
    for (const { name, words, caution } of Object.values(STAGES)) {
      expect(name && words && caution).toMatch(/.{20}/);
    }
  });

  test("holes after hardening, profile after layout, hardening after the handle: warned of, with the reason", () => {
    expect(outOfOrder(["stock", "harden", "drill"])).toMatchObject([{ kind: "drill", after: "harden" }]);
    expect(outOfOrder(["layout", "profile"])[0]!.why).toMatch(/scribed from the outline/);
    expect(outOfOrder(["handle", "harden"])[0]!.why).toMatch(/burn/);
  });

  test("a route with a stage twice, or a finish coarser than its coarse belt, is refused with its path", () => {
    const route = firstRoute(example("field"));
    const twice = { ...route, stages: [...route.stages, { kind: "rough" }] };
    expect(parseDocument("route", twice)).toMatchObject({ ok: false });
    expect(parseDocument("route", { ...route, finish: { ...route.finish, bevels: 300 } })).toMatchObject({
      ok: false,
      faults: [{ message: "must be no coarser than coarse, 125" }],
    });
    expect(parseDocument("route", route).ok).toBe(true);
  });
});
