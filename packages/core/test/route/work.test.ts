import { describe, expect, test } from "vitest";
import { parseBlade } from "../../src/blade/parse.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { judgePlan } from "../../src/findings/plan.ts";
import { readingFor } from "../../src/grind/setups.ts";
import { fitOf, stockOfRound, thicknessFrom, thinnedTo, widestInRound } from "../../src/route/bar.ts";
import { edgeForOven, leavingEdge, leavingLine, leftSoft } from "../../src/route/edge-to-leave.ts";
import { firstRoute } from "../../src/route/first.ts";
import { ladderOf } from "../../src/route/ladder.ts";
import { crossingInWords, stopInWords } from "../../src/route/layout.ts";
import { reportOf } from "../../src/route/report.ts";
import { NO_ROUTE, type Route, type Stage } from "../../src/route/schema.ts";
import { SCHOOLS, withStage } from "../../src/route/stages.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { changed, checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";

const RAD = Math.PI / 180;
const field = example("field");
/** A bar of one thickness with a flat bevel at an angle, ground to a thickness behind its edge. */
const knife = (t: number, angle: number, behind = 0, edge = 19): Blade =>
  changed(field, (file) => {
    delete file.falseEdge;
    file.thickness = [{ x: 0, t }];
    file.edge.behind = [{ u: 0, t: behind }];
    file.edge.angle = { left: edge, right: edge };
    file.bevels.right = {
      kind: "flat",
      pull: "follow",
      set: "angle",
      angle,
      plunge: { x: 12, lean: 0, radius: 2 },
    };
  });
const onBar = (blade: Blade, stock: number, more: Partial<Route> = {}): Route => ({
  ...firstRoute(blade, SCHOOLS[0]!, { ...NO_ROUTE, stock, bar: { surface: "ground" } }),
  ...more,
});
const report = (blade: Blade, route: Route) => reportOf(blade, route, USUAL_SHOP, 40);
const at = (blade: Blade, route: Route, kind: Stage["kind"]) =>
  report(blade, route).stages.find((stage) => stage.kind === kind)!;

describe("what a stage shows is its own", () => {
  test("sharpening shows the edge's angle and height, never the primary's", () => {
    const blade = knife(4, 4, 0.508);
    const { work } = at(blade, onBar(blade, 4), "sharpen");
    expect(work.on).toBe("edge");
    expect(work.single.right).toBeCloseTo(19, 9);
    // Source: geometry, (e/2)/tan α.
    expect(work.line.right[1]).toBeCloseTo(0.254 / Math.tan(19 * RAD), 3);
    expect(work.line.right[1]).toBeCloseTo(0.738, 3);
    expect(work.stop[1]).toBeCloseTo(0.508, 3);
  });

  test("a zero bevel is sharpened as it is ground", () => {
    const blade = knife(3.175, 14.1);
    const { work } = at(blade, onBar(blade, 3.175), "sharpen");
    expect(work.single.right).toBeCloseTo(14.1, 1);
  });

  test("a rest is read from the platen and from square, a stone by its lift", () => {
    const rest = readingFor({ kind: "rest" }, 19);
    expect([rest.value, rest.also?.value]).toEqual([71, 19]);
    expect(readingFor({ kind: "stone", width: 30 }, 19).value).toBeCloseTo(30 * Math.sin(19 * RAD), 9);
  });

  test.each(["stock", "profile", "drill", "layout", "harden", "hand", "handle", "etch"] as const)(
    "%s grinds no face: nothing to stop at, no line, no angle",
    (kind) => {
      const { work } = at(field, firstRoute(field), kind);
      expect(work.stop).toEqual([null, null, null]);
      expect([...work.line.right, ...work.angle.left]).toEqual(Array(6).fill(null));
      expect(work.single).toEqual({ left: null, right: null });
    },
  );
});

describe("the bar in hand", () => {
  test.each([1.5875, 4.48, 4.7625])("%f mm stays what it is", (stock) => {
    const blade = knife(stock, 8, 0.2);
    expect(onBar(blade, stock).stock).toBe(stock);
    const single = report(blade, onBar(blade, stock)).layout!.places[1]!.single;
    // With nothing lost a line at half the thickness: 0.794 on 1.5875.
    expect(single).toBeCloseTo(stock / 2, 3);
  });

  test("no stage is thicker than the bar", () => {
    const blade = knife(3, 8, 0.3);
    for (const { targets } of report(blade, onBar(blade, 3.1)).stages)
      for (const { flats } of targets) expect(flats).toBeLessThanOrEqual(3.1 + 1e-9);
  });

  test("a bar and a blade that disagree are told with both ways out, and either ends it", () => {
    const blade = knife(3.4, 8, 0.3);
    const route = { ...onBar(blade, 3.5), bar: { surface: "descaled" as const } };
    const judged = (one: Blade, by: Route) => judgePlan(one, by, report(one, by), USUAL_SHOP);
    const found = judged(blade, route).find(({ id }) => id === "stock-thin")!;
    const { needed, gives } = fitOf(blade, route, USUAL_SHOP);
    expect(needed - 3.4).toBeCloseTo(3.5 - gives, 9);
    expect(found.offers.map(({ words }) => words)).toEqual([
      `Thin the blade to ${(Math.floor(gives * 100) / 100).toFixed(2)} mm`,
      "Take a 4.00 mm bar",
    ]);
    const [thin, take] = found.offers;
    expect(judged(thin!.blade!, route).some(({ id }) => id === "stock-thin")).toBe(false);
    expect(judged(blade, take!.route!).some(({ id }) => id === "stock-thin")).toBe(false);
    expect(parseBlade(thin!.blade!).ok).toBe(true);
  });

  test("a ground bar as thick as the blade is accepted by its own route, and takes no minutes for flats that stay", () => {
    const blade = knife(3.4, 8, 0.3);
    const route = onBar(blade, 3.4);
    expect(route.bar!.surface).toBe("ground");
    const found = judgePlan(blade, route, report(blade, route), USUAL_SHOP);
    expect(found.filter(({ severity }) => severity === "fix").map(({ id }) => id)).toEqual([]);
    expect(found.map(({ id }) => id)).toContain("flats-as-ground");
    const again = report(blade, route).stages.find(({ kind }) => kind === "true")!;
    expect([again.belts, again.minutes, again.removed]).toEqual([null, 0, 0]);
  });

  test("what is done is judged no more and costs no minutes; the column sums to the headline", () => {
    const blade = knife(3.4, 8, 0.3);
    const rough = { ...onBar(blade, 3.0), bar: { surface: "rolled" as const, width: 10, length: 50 } };
    const all = report(blade, rough);
    expect(all.minutes).toBe(all.stages.reduce((sum, { minutes }) => sum + minutes, 0));
    expect(all.stages.every(({ minutes }) => Number.isInteger(minutes))).toBe(true);
    const last = rough.stages.findIndex(({ kind }) => kind === "finish");
    const when = "2026-01-01T10:00:00Z";
    const begun = {
      ...rough,
      stages: rough.stages.map((one, i) => (i <= last ? { ...one, done: when } : one)),
    };
    const left = report(blade, begun);
    expect(left.stages.slice(0, last + 1).every(({ minutes }) => minutes === 0)).toBe(true);
    expect(left.minutes).toBe(all.stages.slice(last + 1).reduce((sum, { minutes }) => sum + minutes, 0));
    const ids = (by: Route) => judgePlan(blade, by, report(blade, by), USUAL_SHOP).map(({ id }) => id);
    expect(ids(rough)).toEqual(expect.arrayContaining(["stock-thin", "bar-not-wide"]));
    expect(ids(begun).filter((id) => /^(stock|bar|skin)/.test(id))).toEqual([]);
  });

  test("clean-up and the oven leave so much of a bar as it comes; a ground one is the blade already", () => {
    expect(thicknessFrom(4, "ground")).toBe(4);
    expect(thicknessFrom(4, "rolled")).toBeLessThan(thicknessFrom(4, "descaled"));
    expect(thicknessFrom(4, "descaled")).toBeGreaterThan(3.3);
    expect(Math.max(...thinnedTo(field, 2.88).thickness.map(({ t }) => t))).toBe(2.88);
  });

  test("one too narrow or too short for the outline is told", () => {
    const route = { ...firstRoute(field), bar: { surface: "rolled" as const, width: 20, length: 100 } };
    const ids = judgePlan(field, route, report(field, route), USUAL_SHOP).map(({ id }) => id);
    expect(ids).toEqual(expect.arrayContaining(["bar-not-wide", "bar-not-long"]));
  });
});

describe("a round bar", () => {
  /** Source: geometry, a chord: √(25² − 4²) = 24.678. */
  test("a blade wider than its chord is forged first; without forging that is told, and put first by a press", () => {
    expect(widestInRound(25, 4)).toBeCloseTo(24.678, 3);
    expect(widestInRound(3, 4)).toBe(0);
    const bar = { surface: "rolled" as const, diameter: 25 };
    const begun = { ...NO_ROUTE, stock: stockOfRound(25), bar };
    const route = firstRoute(field, SCHOOLS[0]!, begun);
    expect(route.stages.slice(0, 3).map(({ kind }) => kind)).toEqual(["stock", "forge", "profile"]);
    const judged = (by: Route) => judgePlan(field, by, report(field, by), USUAL_SHOP);
    expect(judged(route).map(({ id }) => id)).not.toContain("bar-round");
    const unforged = { ...route, stages: route.stages.filter(({ kind }) => kind !== "forge") };
    const told = judged(unforged).find(({ id }) => id === "bar-round")!;
    expect(told.message).toBe(
      "A round bar 25.00 mm across gives a blade of 4.00 mm no more than 24.68 mm of width.",
    );
    expect(told.offers[0]!.route!.stages[1]!.kind).toBe("forge");
    // Forged, the blank is no longer as thick as the bar.
    const [stock, forge] = ladderOf(field, route, USUAL_SHOP);
    expect(stock!.steel.station(0.5).flats).toBeCloseTo(25, 9);
    expect(forge!.steel.station(0.5).flats).toBeLessThan(6);
  });
});

describe("a second edge on a route", () => {
  /** Hollow on both, 254 across, alike: what is left on one is left on the other. */
  const dagger = checked(KINDS.find(([name]) => name === "dagger")![1]);
  test("every stage of the bevels tells both edges; sharpened, both have their edge bevels", () => {
    const { stages } = report(dagger, firstRoute(dagger));
    const of = (kind: Stage["kind"]) => stages.find((stage) => stage.kind === kind)!.work;
    const [rough, finish, sharpen] = [of("rough"), of("finish"), of("sharpen")];
    expect(rough.second!.stop[1]).toBeGreaterThan(finish.second!.stop[1]!);
    // The same is left for the oven on either edge; what is behind them differs by a few hundredths.
    const behind = 0.55 - 0.45;
    expect(Math.abs(rough.stop[1]! - rough.second!.stop[1]!)).toBeLessThan(behind + 0.1);
    expect(rough.second!.line.right[1]).toBeLessThan(finish.second!.line.right[1]!);
    expect(sharpen.second!.stop[1]).toBeCloseTo(0.45, 2);
    // (e/2)/tan 20°.
    expect(sharpen.second!.line.right[1]).toBeCloseTo(0.225 / Math.tan(20 * RAD), 2);
    expect(sharpen.second!.angle).toEqual({ left: [20, 20, 20], right: [20, 20, 20] });
    expect(of("harden").second).toBeNull();
    expect(report(field, firstRoute(field)).stages.every(({ work }) => work.second === null)).toBe(true);
  });

  test("a stage of the second edge alone tells that one's figures, and one of the first leaves them out", () => {
    const usual = firstRoute(dagger);
    const stages = usual.stages.flatMap((stage) =>
      stage.kind === "sharpen"
        ? [
            { ...stage, edge: "first" as const },
            { ...stage, id: "sharpen-2", edge: "second" as const },
          ]
        : [stage],
    );
    const told = report(dagger, { ...usual, stages }).stages;
    const [first, second] = ["sharpen", "sharpen-2"].map((id) => told.find((one) => one.id === id)!);
    expect([first!.name, second!.name]).toEqual(["Sharpen, first edge", "Sharpen, second edge"]);
    expect(first!.work.second).toBeNull();
    expect(second!.work.second).toBeNull();
    expect(second!.work.edge).toBe("second");
    expect(second!.work.stop[1]).toBeCloseTo(0.45, 2);
    expect(second!.work.single.left).toBeCloseTo(20, 6);
    expect(first!.minutes + second!.minutes).toBeGreaterThan(0);
  });

  test("its lines are scribed by the same gauge, where they stand before they climb", () => {
    const sheet = report(dagger, firstRoute(dagger)).layout!;
    expect(sheet.second).toHaveLength(3);
    for (const place of sheet.second) {
      expect(place.gap).toBeCloseTo(place.flats - 2 * sheet.setting, 9);
      expect(place.line.right!.now + place.line.right!.climb).toBeCloseTo(place.line.right!.final, 9);
      expect(place.line.right!.climb).toBeGreaterThan(0);
      expect(place.outside).toBeCloseTo((place.edge - Math.abs(place.gap)) / 2, 9);
    }
    expect(report(field, firstRoute(field)).layout!.second).toEqual([]);
  });

  test("a line found again when each flat has lost 0.1 stands 0.1/tan β lower on a flat bevel, by the steel itself", () => {
    const finish = report(field, firstRoute(field)).stages.find(({ kind }) => kind === "finish")!;
    const [line, angle] = [finish.work.line.right[1]!, finish.work.angle.right[1]!];
    expect(finish.again!).toBeCloseTo(line - 0.1 / Math.tan(angle * RAD), 1);
    expect(finish.again!).toBeLessThan(line);
  });
});

describe("the edge to leave", () => {
  /** Source: geometry: (1.27 − 0.48)/2, and a gauge at (4.48 − 0.48)/2. */
  test("1.27 on 4.48 with lines 0.48 apart: gauge at 2.00, stop 0.395 outside", () => {
    const blade = knife(4.48, 11.858);
    const made = leavingEdge(blade, onBar(blade, 4.48, { gap: 0.48 }), USUAL_SHOP, 1.27);
    if (!made.ok) throw new Error(made.why);
    expect(leftSoft(blade, made.route, USUAL_SHOP)!.edge).toBeCloseTo(1.27, 3);
    const thicker = leavingEdge(blade, made.route, USUAL_SHOP, 1.75);
    expect(
      thicker.ok && edgeForOven(blade, thicker.route, USUAL_SHOP),
      "gauges are cut for the route's own edge",
    ).toBe(1.75);
    const { layout } = report(blade, made.route);
    expect(layout!.setting).toBeCloseTo(2, 9);
    for (const { edge, outside, gap } of layout!.places) {
      expect(gap).toBeCloseTo(0.48, 9);
      expect(edge).toBeCloseTo(1.27, 2);
      expect(outside).toBeCloseTo(0.395, 2);
    }
  });

  test("less than the belts after the oven need, or more than there is, is refused with the nearest", () => {
    const blade = knife(3, 8, 0.3);
    const thin = leavingEdge(blade, onBar(blade, 3), USUAL_SHOP, 0.1);
    expect(thin).toMatchObject({ ok: false, why: "low" });
    expect(leavingEdge(blade, onBar(blade, 3), USUAL_SHOP, 9)).toMatchObject({ ok: false, why: "high" });
  });

  /** Source: similar triangles: an edge of nothing has its line at (T/2)/tan β, one of T/3 at two thirds of that. */
  test("the line two thirds up leaves a third of the thickness, 1.493 of 4.48; past what there is, refused", () => {
    const blade = knife(4.48, 11.858);
    const made = leavingLine(blade, onBar(blade, 4.48), USUAL_SHOP, 2 / 3);
    if (!made.ok) throw new Error(made.why);
    expect(leftSoft(blade, made.route, USUAL_SHOP)).toMatchObject({
      edge: expect.closeTo(4.48 / 3, 2),
      line: expect.closeTo(2 / 3, 3),
    });
    expect(leavingLine(blade, onBar(blade, 4.48), USUAL_SHOP, 1.1)).toMatchObject({ ok: false, why: "high" });
  });

  test("on a taper the lines of one setting cross: said where, and what to set beyond", () => {
    const blade = changed(knife(4.42, 8), (b) => {
      b.thickness = [
        { x: 0, t: 4.42 },
        { x: b.outline.spine.at(-1)!.at[0], t: 1.6 },
      ];
    });
    const { layout } = report(blade, onBar(blade, 4.42, { gap: 0.254 }));
    const words = crossingInWords(layout!, "mm").join(" ");
    expect(layout!.meetAt).not.toBeNull();
    expect(words).toContain(`the lines meet ${layout!.meetAt!.toFixed(2)} mm from the junction`);
    expect(words).toContain(`${layout!.places[2]!.gauge.right.toFixed(2)} mm at the tip`);
    const level = knife(4.48, 11.858);
    expect(crossingInWords(report(level, onBar(level, 4.48)).layout!, "mm")).toEqual([]);
  });

  test("where the belt stops is never told by a sign alone", () => {
    expect(stopInWords(0.395, "mm")).toBe("Stop 0.395 mm outside each scribed line.");
    expect(stopInWords(-0.1, "mm")).toBe("Go 0.100 mm past each scribed line.");
  });
});

describe("layout", () => {
  test("the gauge for the wanted gap at every station, from each face where the apex is off centre", () => {
    const blade = changed(knife(4.42, 5, 0.4), (file) => {
      file.thickness = [
        { x: 12, t: 4.42 },
        { x: 125, t: 1.96 },
      ];
      file.edge.offset = 0.1;
    });
    const { layout } = report(blade, onBar(blade, 4.42, { gap: 0.254 }));
    for (const { flats, gauge } of layout!.places) {
      // Source: geometry: (T − g)/2, moved as far as the apex is: 2.083 on 4.42, 1.448 on 3.15, 0.853 on 1.96.
      expect(gauge.right).toBeCloseTo((flats - 0.254) / 2 - 0.1, 9);
      expect(gauge.left).toBeCloseTo((flats - 0.254) / 2 + 0.1, 9);
    }
    expect((4.42 - 0.254) / 2).toBeCloseTo(2.083, 3);
  });

  test("an apex in a face has one line, from that face", () => {
    const chisel = example("piece-chisel");
    expect(report(chisel, firstRoute(chisel)).layout!.face).toBe("left");
    expect(report(field, firstRoute(field)).layout!.face).toBeNull();
  });

  test.each([
    [3.175, 0],
    [2.921, 0.254],
  ])("a drill of 3.175 laid flat on %f scribes lines %f apart", (t, apart) => {
    const blade = knife(t, 8, 0.2);
    const { layout } = report(blade, onBar(blade, t, { drill: 3.175 }));
    expect(layout!.places[0]!.drillApart).toBeCloseTo(apart, 6);
  });
});

describe("stages of any kind, any number, in any place", () => {
  test("a stage of the maker's own takes what it is said to take, and the one before leaves so much more", () => {
    const route = firstRoute(field);
    const own: Stage = { id: "own", kind: "own", name: "Slack belt", on: "bevels", takes: 0.1 };
    const more = { ...route, stages: withStage(route.stages, own) };
    expect(more.stages.at(-2)).toEqual(own);
    const left = (by: Route, kind: Stage["kind"]) =>
      ladderOf(field, by, USUAL_SHOP).find((rung) => rung.kind === kind)!.left.faces.right;
    expect(left(more, "rough") - left(route, "rough")).toBeCloseTo(0.1, 9);
    expect(left(more, "hand")).toBeCloseTo(0.1, 9);
    const shown = report(field, more).stages.at(-2)!;
    expect(shown.name).toBe("Slack belt");
    expect(shown.work.on).toBe("bevels");
    expect(shown.work.stop[1]).toBeGreaterThan(0);
  });

  test("one side alone, with a file: that face alone leaves more before it, and no belt is planned", () => {
    const route = firstRoute(field);
    const own: Stage = { id: "own", kind: "own", on: "bevels", takes: 0.1, side: "left", tool: "file" };
    const more = { ...route, stages: withStage(route.stages, own) };
    const hand = (by: Route) => ladderOf(field, by, USUAL_SHOP).find(({ kind }) => kind === "hand")!;
    expect(hand(more).left.faces).toEqual({ left: expect.closeTo(0.1, 9), right: 0 });
    // Both faces lost their last at the hand finish, the left one keeps a tenth square to itself.
    const stood = hand(more).steel.station(0.5);
    const bare = hand(route).steel.station(0.5);
    const { primaryAngle } = bare.left;
    expect(stood.edge - bare.edge).toBeCloseTo(0.1 / Math.cos(primaryAngle! * RAD), 3);
    const shown = report(field, more).stages.at(-2)!;
    expect(shown.belts).toBeNull();
    expect(shown.work.angle.right).toEqual([null, null, null]);
    expect(shown.work.angle.left[1]).toBeGreaterThan(0);
    const belted = {
      ...more,
      stages: more.stages.map((one) => (one === own ? { ...own, tool: undefined } : one)),
    };
    expect(report(field, belted).stages.at(-2)!.belts).not.toBeNull();
  });

  test("a kind may stand twice: its need is taken once", () => {
    const route = firstRoute(field);
    const twice = { ...route, stages: withStage(route.stages, "grits") };
    expect(new Set(twice.stages.map(({ id }) => id)).size).toBe(twice.stages.length);
    const rough = (by: Route) => ladderOf(field, by, USUAL_SHOP).find(({ kind }) => kind === "rough")!;
    expect(rough(twice).left.faces.right).toBeCloseTo(rough(route).left.faces.right, 9);
  });

  test("a false edge is ground at its own stage, after the hand finish", () => {
    const route = firstRoute(field);
    const kinds = route.stages.map(({ kind }) => kind);
    expect(kinds.indexOf("false-edge")).toBe(kinds.indexOf("hand") + 1);
    const volume = (kind: Stage["kind"]) =>
      ladderOf(field, route, USUAL_SHOP).find((rung) => rung.kind === kind)!.steel.volume;
    expect(volume("hand") - volume("false-edge")).toBeGreaterThan(10);
    expect(firstRoute(knife(4, 5, 0.4)).stages.some(({ kind }) => kind === "false-edge")).toBe(false);
  });

  test("the way of working stays the one that was chosen", () => {
    for (const school of SCHOOLS) expect(firstRoute(field, school).school).toBe(school.key);
  });
});

describe("ladders", () => {
  test("an edge is begun no coarser than P120, nor than its bevel was left at", () => {
    for (const bevels of [201, 125, 35]) {
      const blade = knife(4, 4, 0.5);
      const route = onBar(blade, 4.5, { finish: { bevels, flats: 35, edge: 16 }, coarse: 201 });
      const { belts } = at(blade, route, "sharpen");
      if (!belts?.planned.ok) throw new Error(belts ? (belts.planned as { why: string }).why : "none");
      expect(belts.planned.sequence.steps[0]!.belt.microns).toBeLessThanOrEqual(Math.min(125, bevels) + 1e-6);
    }
  });

  test("belts in the maker's own order are worked out; a long step is a watch with what it costs", () => {
    const blade = knife(4, 4, 0.5);
    const order = ["P60", "P220"].map((grade) => USUAL_SHOP.abrasives.find((one) => one.grade === grade)!);
    const route = onBar(blade, 4.5);
    const mine: Route = {
      ...route,
      stages: route.stages.map((stage) =>
        stage.kind === "rough" ? { ...stage, belts: order.map(({ id }) => id) } : stage,
      ),
    };
    const { belts } = at(blade, mine, "rough");
    if (!belts?.planned.ok) throw new Error("no belts");
    expect(belts.planned.sequence.steps.map(({ belt }) => belt.grade)).toEqual(["P60", "P220"]);
    const long = judgePlan(blade, mine, report(blade, mine), USUAL_SHOP).find(
      ({ id }) => id === "belt-step-large",
    )!;
    expect(long.severity).toBe("watch");
    expect(long.message).toMatch(
      /P220 is 4\.0 times as fine as .*P60 before it: about \d+ more passes and \d+ more minutes/,
    );
  });

  test("soft steel goes faster than hard", () => {
    const blade = knife(4, 4, 0.5);
    const [soft, hard] = [SCHOOLS[0]!, SCHOOLS[1]!].map((school) => {
      const route = firstRoute(blade, school);
      return at(blade, { ...route, oven: 0.25 }, "rough").minutes;
    });
    expect(soft!).toBeLessThan(hard! * 0.6);
  });
});
