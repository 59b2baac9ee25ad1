import { describe, expect, test } from "vitest";
import { parseBlade } from "../../src/blade/parse.ts";
import { SIDES } from "../../src/blade/schema.ts";
import { benchReport } from "../../src/findings/bench-report.ts";
import { benchOf } from "../../src/inspect/bench.ts";
import { figureOf, verdictOf } from "../../src/inspect/figure.ts";
import { inHandOrder, potentialSpots, readingPlan, spotsNear, withPlaces } from "../../src/inspect/plan.ts";
import { steelAt as readAt } from "../../src/inspect/reader.ts";
import { NO_CHECK, type Reading, type Spot, spotKey } from "../../src/inspect/schema.ts";
import { benchSteel, showsAt, targetAt } from "../../src/inspect/target.ts";
import { firstRoute } from "../../src/route/first.ts";
import { ladderOf } from "../../src/route/ladder.ts";
import type { StageKind } from "../../src/route/schema.ts";
import { targetsAt } from "../../src/route/targets.ts";
import { type Instrument, USUAL_INSTRUMENTS } from "../../src/shop/instrument.ts";
import { instrumentsOf } from "../../src/shop/instruments.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { example } from "../examples.ts";

const parsed = parseBlade(example("field"));
if (!parsed.ok) throw new Error("the field example is sound");
const { falseEdge: _, ...blade } = { ...parsed.blade, use: "field" };
const route = firstRoute(blade);
const steelAt = (stage: StageKind) => benchSteel(blade, route, USUAL_SHOP, stage, 60);

let serial = 0;
const reading = (spot: Spot, value: number, stage: StageKind, more: Partial<Reading> = {}): Reading => ({
  id: `00000000-0000-4000-8000-${(serial++).toString(16).padStart(12, "0")}`,
  when: `2026-11-20T10:${String(serial % 60).padStart(2, "0")}:00Z`,
  stage,
  ...spot,
  value,
  by: "hand",
  ...more,
});

/** Every spot of the round read as it should be, changed by `off`. */
function roundOf(
  stage: StageKind,
  off: (spot: Spot) => number = () => 0,
  more: Partial<Reading> = {},
): Reading[] {
  const { lines } = benchOf({
    blade,
    route,
    shop: USUAL_SHOP,
    stage,
    check: { ...NO_CHECK, hardness: 60 },
    readings: [],
  });
  return lines.map(({ spot, shows }) => reading(spot, shows + off(spot), stage, more));
}
const bench = (stage: StageKind, readings: readonly Reading[], check = NO_CHECK) =>
  benchReport({ blade, route, shop: USUAL_SHOP, stage, check: { hardness: 60, ...check }, readings }, "mm");

test("steel is soft until it is hardened, and hard at the last stage whatever the route says of it", () => {
  const hardOf = (kinds: readonly StageKind[]) => {
    const stages = firstRoute(blade).stages.filter(({ kind }) => kinds.includes(kind));
    const some = { ...firstRoute(blade), stages };
    return ladderOf(blade, some, USUAL_SHOP).map(({ kind, isHard }) => `${kind} ${isHard ? "hard" : "soft"}`);
  };
  expect(hardOf(["stock", "rough", "harden", "finish", "sharpen"])).toEqual([
    "stock soft",
    "rough soft",
    "harden hard",
    "finish hard",
    "sharpen hard",
  ]);
  expect(hardOf(["stock", "rough", "finish", "sharpen"])).toEqual([
    "stock soft",
    "rough soft",
    "finish soft",
    "sharpen hard",
  ]);
});

describe("what should be read at a stage", () => {
  test("what the field knows nothing of is shown with the instrument's own error and where it reads zero", () => {
    const stage = steelAt("sharpen");
    const target = targetAt(stage, { what: "hardness", x: -8 })!;
    const files = { ...USUAL_INSTRUMENTS[0]!, error: 0.7, zero: 0.2 };
    expect(showsAt(stage, target, files)).toBeCloseTo(target.value + 0.9, 9);
  });

  test("the edge is what the route's own ladder says", () => {
    const rung = ladderOf(blade, route, USUAL_SHOP).find(({ kind }) => kind === "rough")!;
    for (const { u, edge, grindLine } of targetsAt(rung)) {
      expect(targetAt(steelAt("rough"), { what: "edge", u })!.value).toBeCloseTo(edge, 6);
      expect(targetAt(steelAt("rough"), { what: "line", u, side: "left" })!.value).toBeCloseTo(
        grindLine.left!,
        6,
      );
    }
  });

  test("both sides over the edge from the plate are the flats and the edge together", () => {
    const steel = steelAt("true");
    const over = SIDES.map((side) => targetAt(steel, { what: "over", u: 0.5, side })!.value);
    const edge = targetAt(steel, { what: "edge", u: 0.5 })!.value;
    const flats = targetAt(steel, { what: "flats", x: steel.steel.station(0.5).x })!.value;
    expect(over[0]! + over[1]!).toBeCloseTo(flats + edge, 6);
  });

  test("jaws of a width read 2w·tan β too much on a flat bevel", () => {
    const steel = steelAt("true");
    const jaws = (wide: number, spot: Spot = { what: "edge", u: 0.5 }) =>
      readAt(steel, spot, wide)! - readAt(steel, spot)!;
    const beta = steel.steel.station(0.5).right.primaryAngle! * (Math.PI / 180);
    expect(jaws(1)).toBeCloseTo(2 * Math.tan(beta), 3);
    expect(jaws(0)).toBe(0);
    expect(jaws(1, { what: "line", u: 0.5, side: "left" })).toBe(0);
  });

  test("bands are wider before the oven; nothing of a bevel is asked before there is one", () => {
    const spot: Spot = { what: "over", u: 0.5, side: "left" };
    expect(targetAt(steelAt("rough"), spot)!.band).toBe(0.25);
    expect(targetAt(steelAt("true"), spot)!.band).toBe(0.1);
    expect(targetAt(steelAt("flats"), { what: "line", u: 0.5, side: "left" })).toBeNull();
    expect(targetAt(steelAt("rough"), { what: "hardness", x: -8 })).toBeNull();
  });
});

describe("a figure and what it is worth", () => {
  const steel = steelAt("true");
  const spot: Spot = { what: "edge", u: 0.5 };
  const wanted = targetAt(steel, spot)!;
  const of = (values: number[], instruments: readonly Instrument[] = USUAL_INSTRUMENTS) =>
    figureOf(
      steel,
      spot,
      values.map((value) => reading(spot, value, "true")),
      instruments,
    )!;

  test("known error, zero and jaws are taken off, and not called noise", () => {
    const mine: Instrument = { ...USUAL_INSTRUMENTS[0]!, error: 0.04, zero: -0.01 };
    const bias = readAt(steel, spot, mine.jaw!)! - wanted.value;
    const figure = of([wanted.value + bias + 0.03], [mine]);
    expect(figure.value).toBeCloseTo(wanted.value, 9);
    expect(figure.corrected).toEqual({ error: 0.04, zero: -0.01, jaw: bias });
  });

  test("repeats are averaged, and four of them speak for themselves", () => {
    const one = of([1.2]);
    const four = of([1.19, 1.21, 1.2, 1.2]);
    expect(four.value).toBeCloseTo(one.value, 9);
    expect(four.uncertainty.expanded).toBeLessThan(one.uncertainty.expanded);
    expect(four.uncertainty.components[0]!.from).toBe("spread of 4 readings");
    expect(four.spread).toBeCloseTo(0.00816, 4);
  });

  test("a checked instrument is worth more than one never checked, a steep place less than a gentle one", () => {
    const checked: Instrument = { ...USUAL_INSTRUMENTS[0]!, checked: "2026-11-01" };
    expect(of([1.2], [checked]).uncertainty.u).toBeLessThan(of([1.2]).uncertainty.u);
    const flat = figureOf(
      steel,
      { what: "flats", x: -8 },
      [reading({ what: "flats", x: -8 }, 4, "true")],
      USUAL_INSTRUMENTS,
    )!;
    const high = figureOf(
      steel,
      { what: "above", u: 0.5, height: 8 },
      [reading({ what: "above", u: 0.5, height: 8 }, 2, "true")],
      USUAL_INSTRUMENTS,
    )!;
    expect(high.uncertainty.u).toBeGreaterThan(flat.uncertainty.u);
  });

  test("good and out are beyond what a reading is worth, doubtful within it", () => {
    expect(verdictOf(0.02, 0.1, 0.05)).toBe("good");
    expect(verdictOf(-0.2, 0.1, 0.05)).toBe("out");
    expect(verdictOf(0.09, 0.1, 0.05)).toBe("doubtful");
    expect(verdictOf(-0.12, 0.1, 0.05)).toBe("doubtful");
  });

  test("every kind has an instrument, the shop's own first", () => {
    const own: Instrument = { ...USUAL_INSTRUMENTS[0]!, id: "mine", name: "my caliper" };
    const all = instrumentsOf({ instruments: [own] });
    expect(all.filter(({ kind }) => kind === "caliper").map(({ id }) => id)).toEqual(["mine"]);
    expect(new Set(all.map(({ kind }) => kind)).size).toBe(6);
  });
});

describe("where to read", () => {
  test("seven are read first: the edge at heel, middle and tip, each side's line at heel and tip", () => {
    const first = (kind: StageKind) => {
      const plan = readingPlan(steelAt(kind), USUAL_INSTRUMENTS);
      return plan.round.filter((spot) => plan.first.has(spotKey(spot)));
    };
    const rough = first("rough");
    expect(rough.map(({ what }) => what)).toEqual(["edge", "edge", "edge", "line", "line", "line", "line"]);
    const [heel, , tip] = rough.map(({ u }) => u);
    expect(rough.slice(3).map(({ u, side }) => [u, side])).toEqual([
      [heel, "left"],
      [tip, "left"],
      [heel, "right"],
      [tip, "right"],
    ]);
    expect(first("sharpen").filter(({ what }) => what === "behind")).toHaveLength(3);
    expect(first("flats").length).toBeLessThanOrEqual(7);
  });

  test("fewer places than could be read, caliper work first, then one side after the other", () => {
    const plan = readingPlan(steelAt("true"), USUAL_INSTRUMENTS).round;
    expect(plan.length).toBeLessThan(potentialSpots(steelAt("true")).length * 0.6);
    const sides = plan.map(({ side }) => side).filter((side) => side !== undefined);
    // The blade is turned over once.
    expect(sides.lastIndexOf("left")).toBeLessThan(sides.indexOf("right"));
    expect(plan[0]!.what).toBe("flats");
    expect(new Set(plan.map(spotKey)).size).toBe(plan.length);
  });

  test("before there is a bevel only the flats and the whole are read; a sharpened edge is read behind", () => {
    const soft = readingPlan(steelAt("flats"), USUAL_INSTRUMENTS).round.map(({ what }) => what);
    expect(new Set(soft)).toEqual(new Set(["flats", "bow", "twist", "square"]));
    const sharp = readingPlan(steelAt("sharpen"), USUAL_INSTRUMENTS).round.map(({ what }) => what);
    expect(sharp).toContain("behind");
    expect(sharp).not.toContain("over");
  });

  test("a maker's own place joins the round once, and what may be read there is what the steel has", () => {
    const plan = readingPlan(steelAt("true"), USUAL_INSTRUMENTS).round;
    const own: Spot = { what: "above", u: 0.44, height: 6 };
    expect(withPlaces(plan, [own, plan[0]!])).toHaveLength(plan.length + 1);
    const near = spotsNear(steelAt("true"), 0.5, 6).map(({ what }) => what);
    expect(near).toEqual(expect.arrayContaining(["edge", "above", "over", "line", "angle", "flats"]));
    expect(near).not.toContain("behind");
    expect(inHandOrder([own, { what: "bow" }, { what: "flats", x: 0 }]).map(({ what }) => what)).toEqual([
      "flats",
      "above",
      "bow",
    ]);
  });
});

describe("the bench", () => {
  test("read as planned everything is good, nothing is found, nothing is to be put right", () => {
    const { lines, findings, found, corrections, spare, together } = bench("true", roundOf("true"));
    expect(lines.every(({ figure }) => figure && figure.verdict !== "out")).toBe(true);
    expect(findings).toEqual([]);
    expect(found).toEqual([]);
    expect(corrections).toEqual([]);
    expect(spare!.least).toBeGreaterThan(0.3);
    expect(together.centre.every(({ value }) => Math.abs(value) < 1e-9)).toBe(true);
    expect(together.edge!.range.value).toBeLessThan(1e-9);
  });

  test("a worn caliper is named, and nothing is ground on its word", () => {
    const isCaliper = ({ what }: Spot) => ["flats", "edge", "above"].includes(what);
    const { found, corrections } = bench(
      "true",
      roundOf("true", (spot) => (isCaliper(spot) ? 0.2 : 0)),
    );
    expect(found[0]!.pattern).toBe("worn-reference");
    expect(found[0]!.words).toContain("caliper");
    expect(corrections).toEqual([]);
  });

  test("an edge off centre: said by how much and where, what it does to the lines, what centring costs", () => {
    const readings = roundOf("true", ({ what, side }) =>
      what === "over" ? (side === "left" ? 0.2 : -0.2) : 0,
    );
    const { findings, together } = bench("true", readings);
    const off = findings.find(({ id }) => id === "edge-off-centre")!;
    expect(off.message).toMatch(/^Edge is 0\.20 mm left of centre from \d+ to \d+ mm, within 0\.0\d mm/);
    expect(off.advice).toMatch(/^Centring it takes 0\.40 mm off the left face/);
    expect(off.severity).toBe("fix");
    const { linesApart, u } = together.centre[1]!;
    const beta = steelAt("true").steel.station(u).left.primaryAngle! * (Math.PI / 180);
    expect(linesApart).toBeCloseTo(0.4 / Math.tan(beta), 1);
  });

  test("so far off centre that a line would leave the blade, it says so instead of a length no blade has", () => {
    // A line that has left the blade cannot be read.
    const readings = roundOf("rough", ({ what, side }) =>
      what === "over" ? (side === "left" ? 1.9 : -1.9) : 0,
    ).filter(({ what }) => what !== "line");
    const { findings, together, corrections } = bench("rough", readings);
    const off = findings.find(({ id }) => id === "edge-off-centre")!;
    const { linesApart, u } = together.centre.toSorted((a, b) => Math.abs(b.value) - Math.abs(a.value))[0]!;
    const { height, left } = steelAt("rough").steel.station(u);
    expect(linesApart).toBeGreaterThan(height);
    expect(off.message).toMatch(/; it takes one grind line out over the spine\.$/);
    expect(
      `${off.message} ${off.advice}`
        .match(/\d+(\.\d+)? mm/g)!
        .map(Number.parseFloat)
        .every((mm) => mm < 126),
    ).toBe(true);
    for (const { lineClimbs } of corrections)
      expect(lineClimbs).toBeLessThanOrEqual(height - left.grindLine! + 8);
  });

  test("plunges, taper, bow, twist and hardness each speak when they are off", () => {
    const offs: Partial<Record<Spot["what"], (spot: Spot) => number>> = {
      plunge: ({ side }) => (side === "left" ? -1.5 : 0),
      lean: ({ side }) => (side === "right" ? 3 : 0),
      flats: ({ x }) => (x! > 60 ? 0.4 : 0),
      bow: () => 0.6,
      twist: () => -2.5,
      hardness: () => -5,
    };
    const { findings } = bench(
      "true",
      roundOf("true", (spot) => offs[spot.what]?.(spot) ?? 0),
    );
    const said = (id: string) => findings.find((one) => one.id === id)?.message;
    expect(said("plunges-apart")).toBe("The left plunge starts 1.50 mm further back than the other.");
    expect(said("plunges-lean")).toBe("The plunges lean 3.0° apart.");
    expect(said("taper-off")).toMatch(/the tip's end is too thick/);
    expect(said("bow")).toMatch(/^Bowed 0\.60 mm: the left flat is the hollow one/);
    expect(said("twist")).toMatch(/^Twisted 2\.5° heel to tip: the tip's edge is turned to the right/);
    expect(said("hardness-off")).toMatch(/^Reads 55\.0 HRC where 60\.0 is wanted/);
    expect(findings.map(({ severity }) => severity)).toEqual(
      [...findings.map(({ severity }) => severity)].sort(
        (a, b) => ["fix", "watch", "note"].indexOf(a) - ["fix", "watch", "note"].indexOf(b),
      ),
    );
  });

  test("what was not read is listed as not judged", () => {
    const { notJudged } = bench(
      "true",
      roundOf("true").filter(({ what }) => what === "flats"),
    );
    expect(notJudged.map(({ id }) => id)).toEqual(
      expect.arrayContaining(["edge-off-centre", "hardness-off", "bow", "twist"]),
    );
  });

  test("once a face is ground its old readings no longer speak, and where it was ground is asked for", () => {
    const readings = roundOf("true", () => 0, { when: "2026-11-20T10:00:00Z" });
    const correction = {
      id: "00000000-0000-4000-8000-00000000c0de",
      when: "2026-11-20T11:00:00Z",
      stage: "true" as const,
      side: "left" as const,
      from: 40,
      to: 80,
      off: [{ x: 40, t: 0.1 }],
      passes: 4,
      why: "left face",
      done: "2026-11-20T12:00:00Z",
    };
    const after = bench("true", readings, { ...NO_CHECK, corrections: [correction] });
    const read = after.lines.filter(({ figure }) => figure).map(({ spot }) => spot.what);
    expect(read).not.toContain("line");
    expect(read).toContain("flats");
    const lines = after.lines
      .filter(({ spot }) => spot.what === "line" && spot.side === "left")
      .map(({ target }) => target.x);
    expect(lines.some((x) => Math.abs(x - 44) < 0.5)).toBe(true);
    expect(lines.some((x) => Math.abs(x - 76) < 0.5)).toBe(true);
  });

  test("what was ground after another stage takes nothing from this one's readings", () => {
    const later = {
      id: "00000000-0000-4000-8000-00000000beef",
      when: "2026-11-22T11:00:00Z",
      stage: "finish" as const,
      side: "left" as const,
      from: 40,
      to: 80,
      off: [{ x: 40, t: 0.1 }],
      passes: 4,
      why: "left face",
      done: "2026-11-22T12:00:00Z",
    };
    const readings = roundOf("true", () => 0, { when: "2026-11-20T10:00:00Z" });
    const { lines } = bench("true", readings, { ...NO_CHECK, corrections: [later] });
    expect(lines.every(({ figure }) => figure !== null)).toBe(true);
  });

  test("readings where the blade has nothing to read are kept and counted, not judged", () => {
    const stray = reading({ what: "behind", u: 0.5 }, 0.5, "flats");
    expect(bench("flats", [stray]).astray).toBe(1);
  });

  test("what is to come off says side, place, passes, and what it does; more steel than is there is never asked for", () => {
    const beta = (u: number) => steelAt("true").steel.station(u).left.primaryAngle! * (Math.PI / 180);
    // The left face proud by 0.2 all along: over the edge, on the edge, and its line lower.
    const readings = roundOf("true", (spot) => {
      if (spot.what === "edge") return 0.2 / Math.cos(beta(spot.u!));
      if (spot.what === "over" && spot.side === "left") return 0.2 / Math.cos(beta(spot.u!));
      if (spot.what === "line" && spot.side === "left") return -0.2 / Math.sin(beta(spot.u!));
      return 0;
    });
    const { corrections, spare } = bench("true", readings);
    expect(corrections).toHaveLength(1);
    const [one] = corrections;
    expect(one!.side).toBe("left");
    expect(one!.most).toBeGreaterThan(0.17);
    expect(one!.most).toBeLessThan(0.24);
    expect(one!.lineClimbs).toBeCloseTo(one!.most / Math.sin(beta(0.5)), 0);
    // It reaches the plunge: with a radius of 4 its sweep comes out of the flat further back.
    expect(one!.plungeBack).toBeGreaterThan(0.05);
    expect(one!.plungeBack).toBeLessThan(1.5);
    expect(one!.passes).toBe(Math.round(one!.most / 0.02));
    expect(one!.spare).toBeGreaterThanOrEqual(one!.needed);
    expect(spare!.least).toBeGreaterThan(0);
  });
});
