import { describe, expect, test } from "vitest";
import { type Abrasive, isBelt } from "../../src/abrasive/schema.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { type Edge, type EdgeStep, NO_EDGE, type Sharpened } from "../../src/edge/schema.ts";
import { zeroOf } from "../../src/edge/tools.ts";
import { edgeNotJudged, judgeEdge } from "../../src/findings/edge.ts";
import { parseDocument } from "../../src/registry/documents.ts";
import { edgeReport } from "../../src/route/edge-report.ts";
import { firstRoute } from "../../src/route/first.ts";
import { reportOf } from "../../src/route/report.ts";
import { parseShop } from "../../src/shop/parse.ts";
import { type Shop, USUAL_SHOP } from "../../src/shop/schema.ts";
import { edgeWithWork, sharpenedAt } from "../../src/work/joined.ts";
import { parseWorkRow, type WorkRow } from "../../src/work/schema.ts";
import { changed, example } from "../examples.ts";
import { prism } from "./prism.ts";

const field = example("field");
const stone = (grade: string, microns: number, form: Abrasive["form"] = "stone"): Abrasive => ({
  id: `stone-${microns}`,
  abrasive: "alumina",
  backing: "water",
  form: form!,
  scale: "JIS",
  grade,
  microns,
  condition: "fresh",
  onHand: 1,
  price: 40,
});
const STONES = [stone("400", 37), stone("1000", 14), stone("3000", 6), stone("8000", 2)];
const BELTS: Shop = { ...USUAL_SHOP, abrasives: USUAL_SHOP.abrasives.filter(isBelt) };
const shop: Shop = { ...BELTS, abrasives: [...BELTS.abrasives, ...STONES] };
const of = (blade: Blade, more: Partial<Parameters<typeof edgeReport>[0]> = {}) => ({
  blade,
  route: firstRoute(blade),
  shop,
  edge: NO_EDGE,
  which: "first" as const,
  done: [],
  ...more,
});
const step = (more: Partial<EdgeStep> = {}): EdgeStep => ({
  edge: "first",
  kind: "finish",
  angle: { left: 18, right: 18 },
  to: 14,
  ...more,
});
const edge = (...steps: EdgeStep[]): Edge => ({ ...NO_EDGE, steps });
const ids = (asked: ReturnType<typeof of>) => judgeEdge(asked, edgeReport(asked)!, "mm").map(({ id }) => id);

describe("steps", () => {
  test("none said: a finish bevel at the blade's own angle and a strop, on a stone by hand, lift by station", () => {
    const report = edgeReport(of(field))!;
    expect(report.isUsual).toBe(true);
    expect(report.steps.map(({ step: { kind } }) => kind)).toEqual(["finish", "strop"]);
    const [finish] = report.steps;
    const { right } = finish!.settings;
    // By the plan's own example: 9.502, 9.915, 5.931; the middle's held: 18.81, 18, 31.10.
    for (const [i, lift] of [9.502, 9.915, 5.931].entries()) expect(right[i]!.set).toBeCloseTo(lift, 3);
    for (const [i, back] of [18.81, 18, 31.1].entries()) expect(right[i]!.back).toBeCloseTo(back, 2);
    expect(ids(of(field))).toContain("edge-setting-varies");
  });

  test("what comes off is 0.1613 mm² of edge, 0.0997 deep over its facets, and no stone coarser than the bevel's last begins", () => {
    const report = edgeReport(of(prism, { edge: edge(step({ to: 14 })) }))!;
    const [finish] = report.steps;
    expect(finish!.area).toBeCloseTo(100 * 2 * (0.25 / Math.sin((18 * Math.PI) / 180)), 0);
    expect(finish!.ladder!.ok).toBe(true);
    if (!finish!.ladder!.ok) return;
    expect(finish!.ladder!.sequence.depth).toBeCloseTo(0.0997, 3);
    expect(finish!.ladder!.sequence.depth * finish!.area).toBeCloseTo(16.13, 1);
    for (const { belt } of finish!.ladder!.sequence.steps) {
      expect(belt.form).toBe("stone");
      expect(belt.microns).toBeLessThanOrEqual(report.bevelAt);
    }
    // A stone of 14 µm takes over an hour for it: the 37 µm one is offered, with the height it costs.
    expect(finish!.ladder!.sequence.minutes).toBeGreaterThan(15);
    expect(finish!.coarser!.abrasive.microns).toBe(37);
    expect(finish!.coarser!.minutes).toBeGreaterThan(10);
    expect(finish!.coarser!.takes).toBeCloseTo((0.12 * 1.3 * 0.037) / Math.sin((18 * Math.PI) / 180), 6);
  });

  test("a second step at the same angle takes the scratches of the first: 0.0177 of height after 35 µm", () => {
    const steps = edge(step({ kind: "rough", to: 35 }), step({ to: 6 }));
    const report = edgeReport(of(prism, { edge: steps }))!;
    expect(report.steps[1]!.takes).toBeCloseTo(0.0177, 4);
    expect(report.steps[0]!.proud).toBeCloseTo(0.0177, 4);
    expect(report.proud).toBeCloseTo(0.0177, 4);
  });

  test("a micro-bevel on a zero bevel of 14.1°: 0.0217 of height, 0.0611 behind it", () => {
    const zero = changed(prism, (copy) => {
      copy.edge.behind = [{ u: 0, t: 0 }];
      const bevel = copy.bevels.right;
      if (bevel.kind === "flat" && bevel.set === "angle") bevel.angle = 14.1;
      copy.edge.angle = { left: 14.1, right: 14.1 };
    });
    const micro = step({ kind: "micro", facet: 0.1, angle: { left: 17, right: 17 }, to: 2 });
    const report = edgeReport(of(zero, { edge: edge(step({ angle: { left: 14.1, right: 14.1 } }), micro) }))!;
    expect(report.steps[1]!.takes).toBeCloseTo(0.0217, 4);
    expect(report.steps[1]!.behind).toBeCloseTo(0.0611, 4);
    expect(report.life.isZero).toBe(true);
    // A touch-up of 0.01 at 2° more: 0.0671 high; on a convex face its apex is steeper than its chord.
    expect(report.life.touchUp.high).toBeCloseTo(0.0671, 4);
    expect(report.life.until).toBeNull();
  });

  /** 4.48 over the flats, nothing behind the edge. */
  const zeroBlade = (bevel: Blade["bevels"]["right"]) =>
    changed(prism, (copy) => {
      copy.thickness = [{ x: 0, t: 4.48 }];
      copy.edge.behind = [{ u: 0, t: 0 }];
      copy.edge.angle = { left: 15, right: 15 };
      copy.bevels = { right: bevel, left: "same" };
    });
  const plunge = { x: 0, lean: 0, radius: 0 };

  test("a zero bevel is sharpened at its own angle, flat on the stone, on Route and here alike", () => {
    const zero = zeroBlade({ kind: "flat", pull: "follow", set: "angle", angle: 13.24, plunge });
    const asked = of(zero);
    const report = edgeReport(asked)!;
    const [finish] = report.steps;
    expect(finish!.step.angle).toEqual({ left: 13.24, right: 13.24 });
    expect(finish!.isFlat).toBe(true);
    // The spine's centre is lifted by 30·sin 13.24°.
    expect(finish!.settings.right[1]!.set).toBeCloseTo(6.871, 3);
    expect(ids(asked)).not.toContain("edge-lies-on-face");
    expect(report.life.isZero).toBe(true);
    for (const { now, later } of report.life.along) expect(later).toBe(now);
    const plan = reportOf(zero, asked.route, shop, 50);
    const sharpen = plan.stages.find(({ kind }) => kind === "sharpen")!;
    expect(sharpen.work.angle.right[1]).toBeCloseTo(13.24, 3);
    // Held steeper it is an edge bevel, and grows.
    const steep = edgeReport(of(zero, { edge: edge(step({ angle: { left: 20, right: 20 } })) }))!;
    expect(steep.steps[0]!.isFlat).toBe(false);
    expect(steep.life.isZero).toBe(false);
  });

  test("a convex face to the apex is sharpened at its tangent there: chord and θ", () => {
    // Chord from the apex to 20 up and 2.24 out, bulge 0.3: 6.390° + 2·atan(0.6/20.125) = 9.806°. Source: geometry.
    const round = zeroBlade({
      kind: "convex",
      pull: "follow",
      bulge: 0.3,
      set: "height",
      height: [{ u: 0, h: 20 }],
      plunge,
    });
    const [finish] = edgeReport(of(round))!.steps;
    expect(finish!.step.angle.right).toBeCloseTo(9.81, 2);
  });

  test("with a rod through a ball, a support, a slack belt or a free hand: each gives its own setting", () => {
    const setups: Shop["setups"] = [
      { id: "rod-1", name: "rod", setup: { kind: "rod", P: [50, 120], s: 6 } },
      { id: "support-1", name: "support", setup: { kind: "support", R: 125, p: 140, q: 8 } },
      { id: "slack-1", name: "slack", setup: { kind: "slack", F: 10, N: 100 } },
      { id: "hand-1", name: "hand", setup: { kind: "hand", sd: 2 } },
    ];
    const held = (tool: string, angle = 18) => {
      const steps = edge(step({ tool, angle: { left: angle, right: angle } }));
      const report = edgeReport(of(prism, { edge: steps, shop: { ...shop, setups } }))!;
      return report.steps[0]!.settings.right;
    };
    // The prism's edge lies at y −30: the ball is 150 off it everywhere.
    for (const { set, back } of held("rod-1")) {
      expect(set).toBeCloseTo(55.047, 3);
      expect(back).toBeCloseTo(18, 6);
    }
    expect(held("support-1", 15)[0]!.set).toBeCloseTo(215.127, 3);
    expect(held("slack-1")[1]!.set).toBeCloseTo(18 - 2.866, 3);
    expect(held("hand-1")[1]).toMatchObject({ set: 18, back: 20 });
    // Facets that are no flats, by their chord: a wheel's arc turns by what it spans at the axle, a belt's stands out by its sagitta.
    const face = (angle: number) =>
      edgeReport(of(prism, { edge: edge(step({})) }))!.places[1]!.high! / Math.cos((angle * Math.PI) / 180);
    const spans = (2 * Math.asin(face(15) / 2 / 125) * 180) / Math.PI;
    expect(held("support-1", 15)[1]).toMatchObject({ shoulder: expect.closeTo(15 + spans, 6), bulge: null });
    const R = face(18) / 2 / 0.05;
    expect(held("slack-1")[1]).toMatchObject({
      shoulder: null,
      bulge: expect.closeTo(R - Math.sqrt(R * R - (face(18) / 2) ** 2), 6),
    });
    expect(held("rod-1")[1]).toMatchObject({ shoulder: null, bulge: null });
  });
});

test("what a tool gives beyond what it is set for, from three edges on; its zero is taken off and put back", () => {
  const found = [19.2, 18.8, 19].map((angle) => ({ tool: "rod-1", set: 18, found: angle }));
  expect(zeroOf(found.slice(0, 2), "rod-1")).toBeNull();
  expect(zeroOf(found, "other")).toBeNull();
  const zero = zeroOf(found, "rod-1")!;
  expect(zero.mean).toBeCloseTo(1, 9);
  expect(zero.spread).toBeCloseTo(0.2, 9);
  const setups = (off: number): Shop["setups"] => [
    { id: "hand-1", name: "hand", setup: { kind: "hand", sd: 2, zero: off } },
  ];
  const steps = edge(step({ tool: "hand-1" }));
  const report = edgeReport(of(prism, { edge: steps, shop: { ...shop, setups: setups(1) } }))!;
  expect(report.steps[0]!.settings.right[1]).toMatchObject({
    set: expect.closeTo(17, 9),
    back: expect.closeTo(20, 9),
  });
});

describe("what is told of it", () => {
  test("an angle below the face lies on it; a micro that leaves nothing, a step coarser than its bevel: each with its cure", () => {
    expect(ids(of(prism, { edge: edge(step({ angle: { left: 3, right: 3 } })) }))).toContain(
      "edge-lies-on-face",
    );
    const micro = of(prism, {
      edge: edge(step(), step({ kind: "micro", facet: 0.9, angle: { left: 22, right: 22 } })),
    });
    const [swallows] = judgeEdge(micro, edgeReport(micro)!, "mm");
    expect(swallows!.id).toBe("micro-swallows-edge");
    expect(ids({ ...micro, edge: swallows!.offers[0]!.edge })).not.toContain("micro-swallows-edge");
    const coarse = of(prism, { edge: edge(step({ kind: "rough", to: 200 }), step()) });
    const told = judgeEdge(coarse, edgeReport(coarse)!, "mm").find(({ id }) => id === "edge-starts-coarse")!;
    expect(told.offers[0]!.edge.steps).toHaveLength(1);
    expect(ids({ ...coarse, edge: told.offers[0]!.edge })).not.toContain("edge-starts-coarse");
  });

  test("an edge no stronger than one that failed in a trial of its steel is told, with how steep it has to be", () => {
    const steel = { ...prism, steel: "1075" };
    const steps = (angle: number) => edge(step({ angle: { left: angle, right: angle } }));
    const asked = of(steel, { edge: steps(10) });
    const told = judgeEdge(asked, edgeReport(asked)!, "mm").find(({ id }) => id === "edge-under-trial")!;
    expect(told.message).toMatch(/10\.0°.*food can/);
    expect(ids(of(steel, { edge: steps(15) }))).not.toContain("edge-under-trial");
    expect(ids(of({ ...prism, steel: "1084" }, { edge: steps(10) }))).not.toContain("edge-under-trial");
  });

  test("no stones: said where they go, never made up", () => {
    const report = edgeReport(of(prism, { shop: BELTS }))!;
    expect(report.steps[0]!.ladder).toMatchObject({ ok: false });
  });

  test("fifty sharpenings until it is half as thick again; under three years is told, no rate is not judged", () => {
    const wear = { k: 1.5, perYear: 25, touch: 0.01, full: 0.04 };
    const asked = of(prism, { edge: { ...NO_EDGE, wear } });
    const report = edgeReport(asked)!;
    expect(report.life.until!.n).toBeCloseTo(50, 1);
    expect(report.life.years).toBeCloseTo(2, 1);
    expect(ids(asked)).toContain("edge-life-short");
    const row = report.life.rows.find(({ n }) => n === 24)!;
    expect(row.lost).toBeCloseTo(0.96, 9);
    expect(row.at[1]!.behind).toBeCloseTo(0.5 + 0.96 * 0.125, 3);
    expect(edgeNotJudged(edgeReport(of(prism))!).map(({ id }) => id)).toEqual(["edge-life-short"]);
  });

  test("an unsharpened heel is left standing: 1.2 after five years of six", () => {
    const late = changed(field, (copy) => {
      copy.edge.start = 20;
    });
    const asked = of(late, { edge: { ...NO_EDGE, wear: { k: 1.5, perYear: 6, touch: 0.01, full: 0.04 } } });
    const told = judgeEdge(asked, edgeReport(asked)!, "mm").find(({ id }) => id === "heel-stub-proud")!;
    expect(told.message).toMatch(/^After 5 years the heel stands 1\.20 mm proud, .*8.*20/);
    expect(told.advice).toBe("Notch it while it is soft.");
  });

  test("the log takes over from the starting value once it knows", () => {
    const done: Sharpened[] = Array.from({ length: 13 }, (_, i) => ({
      id: `00000000-0000-4000-8000-${String(i).padStart(12, "0")}`,
      when: `2026-01-${String(i + 1).padStart(2, "0")}T10:00:00Z`,
      kind: "full",
      ...(i === 0 || i === 12 ? { height: [{ u: 0.5, h: 30 - 0.05 * i }] } : {}),
    }));
    const report = edgeReport(of(prism, { done }))!;
    expect(report.life.each).toBeCloseTo(0.05, 9);
    expect(report.life.until!.n).toBeCloseTo(40, 0);
    expect(report.life.done).toBe(13);
    expect(report.life.lost).toBeCloseTo(13 * report.life.each, 9);
    // A chip of 0.4 mm and one nobody measured: each ground out 0.05 below its floor.
    const chipped = [
      ...done,
      ...[{ damage: 0.4 }, {}].map(
        (more, i): Sharpened => ({
          ...done[0]!,
          id: `${done[0]!.id.slice(0, -2)}9${i}`,
          height: [],
          kind: "repair",
          ...more,
        }),
      ),
    ];
    const repaired = edgeReport(of(prism, { done: chipped }))!;
    expect(repaired.life.done).toBe(13);
    expect(repaired.life.lost - 13 * repaired.life.each).toBeCloseTo(0.4 + 0.05 + 0.05, 9);
    // Drawn as it stood after the tenth: three are still to be counted off it.
    const drawn = { ...NO_EDGE, drawn: "2026-01-10T12:00:00Z" };
    expect(edgeReport(of(prism, { done, edge: drawn }))!.life.done).toBe(3);
  });
});

test("its file: as written it is read, unknown keys and a micro without a height are refused by their path", () => {
  const file = {
    ...NO_EDGE,
    steps: [step({ tool: "rod-1", burr: "each" }), step({ kind: "micro", facet: 0.1 })],
    wear: { k: 1.5, perYear: 6, touch: 0.01, full: 0.04 },
    thin: { way: "parallel", wanted: [{ u: 0, t: 0.3 }] },
  };
  expect(parseDocument("edge", file)).toMatchObject({ ok: true });
  const bare = parseDocument("edge", { ...file, steps: [step({ kind: "micro" })] });
  expect(bare).toMatchObject({ ok: false, faults: [{ path: "$.steps[0].facet" }] });
  expect(parseDocument("edge", { ...file, more: 1 }).ok).toBe(false);
  const back = {
    ...file,
    thin: {
      way: "parallel",
      wanted: [
        { u: 0.5, t: 0.3 },
        { u: 0.5, t: 0.3 },
      ],
    },
  };
  expect(parseDocument("edge", back)).toMatchObject({ ok: false, faults: [{ path: "$.thin.wanted[1].u" }] });
});

test("what was sharpened is rows of the work, each edge's own, joined in where it is exported", () => {
  const made = (n: number, more: object): WorkRow => {
    const row = parseWorkRow({
      id: `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`,
      when: `2026-01-0${n}T10:00:00Z`,
      stage: "sharpen",
      what: "sharpened",
      kind: "full",
      ...more,
    });
    if (!row.ok) throw new Error(JSON.stringify(row.faults));
    return row.row;
  };
  const rows = [made(2, { edge: "second" }), made(1, { height: [{ u: 0.5, h: 32 }] })];
  expect(sharpenedAt(rows).map(({ when }) => when)).toEqual(["2026-01-01T10:00:00Z"]);
  expect(sharpenedAt(rows, "second")).toHaveLength(1);
  const whole = edgeWithWork(NO_EDGE, rows);
  expect(whole.done).toHaveLength(2);
  expect(parseDocument("edge", whole).ok).toBe(true);
});

test("the usual stores, stones among them, are a sound file", () => {
  expect(parseShop(JSON.parse(JSON.stringify(USUAL_SHOP)))).toMatchObject({ ok: true });
});
