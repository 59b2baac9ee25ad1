import { describe, expect, test } from "vitest";
import { judgeStraight } from "../../src/findings/straight.ts";
import {
  buildOf,
  chosenState,
  type StraightAsked,
  stateAt,
  statesAt,
  straightReport,
} from "../../src/inspect/straightness.ts";
import { parseDocument } from "../../src/registry/documents.ts";
import { firstRoute } from "../../src/route/first.ts";
import { isHeat, withUsualHeats } from "../../src/route/heats.ts";
import { withStage } from "../../src/route/stages.ts";
import { USUAL_INSTRUMENTS } from "../../src/shop/instrument.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import type { Struck } from "../../src/shop/struck.ts";
import { secondsInAir } from "../../src/steel/heating.ts";
import { adviceFor, firstFace, pastBy } from "../../src/straight/advice.ts";
import { perBlow } from "../../src/straight/log.ts";
import { yieldBy } from "../../src/straight/overbend.ts";
import { type Blow, NO_STRAIGHT, type State, type StraightSet } from "../../src/straight/schema.ts";
import { reversed } from "../../src/straight/sets.ts";
import { straightAt, straightWithWork } from "../../src/work/joined.ts";
import { parseWorkRow, type WorkRow } from "../../src/work/schema.ts";
import { example } from "../examples.ts";

const blade = example("field");
const route = withUsualHeats(firstRoute(blade));
const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
const at = (n: number) => `2026-01-01T10:${String(n).padStart(2, "0")}:00Z`;
const feelers = USUAL_INSTRUMENTS.find(({ kind }) => kind === "feelers")!;
const HALF = () => 1.5;

/** Gaps on a face, read at the tenth of an hour that is said. */
const gaps = (n: number, values: readonly number[], more: Partial<StraightSet> = {}): StraightSet => ({
  id: uuid(n),
  when: at(n),
  stage: "true",
  state: "hard",
  kind: "gap",
  face: "left",
  rows: values.map((v, i) => ({ x: (110 * i) / (values.length - 1), y: -4, v })),
  ...more,
});
/** Gaps as they are under a blade with a taper of its own: what stands out is put in. */
const onBlade = (n: number, height: (x: number) => number, more: Partial<StraightSet> = {}): StraightSet => {
  const set = gaps(n, Array(11).fill(0), more);
  const asked = ask([set]);
  const flat = straightReport(asked).points;
  const f = set.face === "left" ? 1 : -1;
  return {
    ...set,
    rows: set.rows.map((row, i) => ({ ...row, v: f * (height(row.x) - flat[i]!.z) })),
  };
};
const ask = (sets: StraightSet[], blows: Blow[] = [], more: Partial<StraightAsked> = {}): StraightAsked => ({
  blade,
  route,
  shop: USUAL_SHOP,
  stage: "true",
  straight: NO_STRAIGHT,
  sets,
  blows,
  ...more,
});
/** A blade that is never hardened. */
const SOFT = { route: { ...route, stages: route.stages.filter(({ kind }) => !isHeat(kind)) } };
const AS_QUENCHED = { stage: "harden" };
const inState = (state: State) => ({ straight: { ...NO_STRAIGHT, states: [{ stage: "true", state }] } });
const bump = (x: number) => (x <= 60 ? (0.5 * x) / 60 : (0.5 * (110 - x)) / 50);
const ids = (asked: StraightAsked) => judgeStraight(asked, straightReport(asked)).map(({ id }) => id);

describe("the straightedge it is read against", () => {
  const set = onBlade(1, bump, { instrument: feelers.id });
  const { band } = straightReport(ask([set]));
  /** Findings of the straightedge, with feelers so bent and checked so long before the reading. */
  const told = (bent: number, checked?: string, sets = [set]) => {
    const own = {
      ...feelers,
      shape: [
        { x: 0, t: 0 },
        { x: 100, t: -bent },
        { x: 300, t: 0 },
      ],
      ...(checked ? { checked } : {}),
    };
    const asked = ask(sets, [], { shop: { ...USUAL_SHOP, instruments: [own] } });
    return judgeStraight(asked, straightReport(asked)).filter(({ id }) => id.startsWith("reference"));
  };

  test("bent itself by more than a quarter of what is asked, it is told with by how much; by less it is not", () => {
    const [bent] = told(0.3 * band, "2025-12-01");
    expect(bent).toMatchObject({ id: "reference-bent", severity: "watch" });
    expect(bent!.message).toContain((0.3 * band).toFixed(2));
    expect(told(0.2 * band, "2025-12-01")).toEqual([]);
  });

  test("nobody's word within a year: told; a check or a reversed reading is word enough", () => {
    expect(told(0).map(({ id }) => id)).toEqual(["reference-unchecked"]);
    expect(told(0, "2024-12-01").map(({ id }) => id)).toEqual(["reference-unchecked"]);
    expect(told(0, "2025-02-01")).toEqual([]);
    const pair = uuid(77);
    const both = [
      { ...set, pair },
      { ...set, id: uuid(2), when: at(2), pair },
    ];
    expect(told(0, undefined, both)).toEqual([]);
  });
});

describe("read on a blade with a taper of its own", () => {
  test("a bend 0.5 high at 60: its place, its turn, the hollow face, and how it is worked by build", () => {
    const set = onBlade(1, bump);
    const report = straightReport(ask([set]));
    expect(report.best!.shape).toEqual({ kind: "bend", at: 60 });
    expect(report.height).toBeCloseTo(0.5, 1);
    expect(report.state).toBe("hard");
    expect(report.build).toBe("solid");
    expect(report.work[0]!.advice).toMatchObject({ what: "peen", face: "left", isHollowUp: true });
    const [line] = report.work[0]!.strikes;
    expect(line!.x).toBe(60);
    expect(line!.from[0]).toBeCloseTo(60, 6);
    const clad = straightReport(ask([set], [], { blade: { ...blade, core: { t: 1, offset: 0 } } }));
    expect(clad.build).toBe("clad");
    expect(clad.work[0]!.advice).toMatchObject({ what: "tap", face: "right", isHollowUp: false });
    const doubt = straightReport(ask([set], [], { straight: { ...NO_STRAIGHT, unknown: true } }));
    expect(doubt.work[0]!.advice.what).toBe("try");
    // Read on the other face it is the same blade.
    const other = straightReport(ask([onBlade(1, bump, { face: "right" })]));
    expect(other.height).toBeCloseTo(report.height, 6);
    expect(judgeStraight(ask([set]), report)[0]!.message).toMatch(/^Bent 1\.05° at 60.*left flat hollow/);
  });

  test("soft it is pressed past straight, raw it is left alone", () => {
    const set = onBlade(1, bump);
    const soft = straightReport(ask([set], [], SOFT));
    expect(soft.load!.past).toBeGreaterThan(soft.height);
    expect(soft.load!.sagitta - soft.load!.past).toBeCloseTo(soft.height, 6);
    expect(soft.work[0]!.advice).toMatchObject({ what: "bend", face: "right" });
    const raw = straightReport(ask([set], [], AS_QUENCHED));
    expect(raw.work[0]!.advice).toMatchObject({ what: "nothing", face: null });
    expect(raw.load).toBeNull();
  });

  test("a roll of 1.5°: lines at 45° on both faces; a straight blade has nothing to do", () => {
    const roll: StraightSet = {
      ...gaps(1, []),
      kind: "roll",
      rows: [0, 25, 50, 75, 100].map((x) => ({ x, y: -4, v: (1.5 * x) / 100 })),
    };
    const report = straightReport(ask([roll]));
    expect((report.twist!.total * 180) / Math.PI).toBeCloseTo(1.5, 6);
    const faces = report.work.map(({ advice, lines }) => [
      advice.face,
      Math.round((lines.lean * 180) / Math.PI),
    ]);
    expect(faces).toContainEqual(["right", 45]);
    expect(faces).toContainEqual(["left", -45]);
    expect(ids(ask([roll]))).toContain("twist");
    const straight = straightReport(ask([onBlade(1, () => 0)]));
    expect(straight.best).toBeNull();
    expect(straight.work).toEqual([]);
    expect(straight.isWithin).toBe(true);
  });
});

describe("what is said of it", () => {
  const set = onBlade(1, bump);
  const blow = (n: number, more: Partial<Blow> = {}): Blow => ({
    id: uuid(n),
    when: at(n),
    stage: "true",
    state: "hard",
    face: "left",
    from: [60, -5],
    to: [60, -22],
    tool: "bit",
    count: 4,
    ...more,
  });

  test("struck since, it must be read again; past straight, nothing moved, raw, ground since: each told", () => {
    expect(straightReport(ask([set], [blow(2)])).rows).toBe(0);
    const over = ask([set, onBlade(3, (x) => -bump(x))], [blow(2)]);
    expect(ids(over)).toContain("overshot");
    expect(ids(ask([set, onBlade(3, bump)], [blow(2)]))).toContain("blow-none");
    expect(ids(ask([set, onBlade(3, (x) => 0.4 * bump(x))], [blow(2)]))).not.toContain("blow-none");
    expect(ids(ask([set], [blow(2, { state: "raw" })]))).toContain("raw-worked");
    const ground = {
      ...route,
      stages: route.stages.map((one) => (one.kind === "finish" ? { ...one, done: at(9) } : one)),
    };
    expect(ids(ask([set], [], { route: ground }))).toContain("read-again");
    expect(ids(ask([gaps(1, [0, 0.2, 0])]))).toContain("too-few");
  });

  test("where nobody knows its build the sign of the first blow tells", () => {
    const straight = { ...NO_STRAIGHT, unknown: true };
    const after = (share: number) =>
      ask([set, onBlade(3, (x) => share * bump(x))], [blow(2, { count: 1 })], { straight });
    const told = (asked: StraightAsked) =>
      judgeStraight(asked, straightReport(asked)).find(({ id }) => id === "build-told")?.message;
    expect(told(after(0.7))).toContain("works as one steel");
    expect(told(after(1.3))).toContain("its sides are soft");
    expect(told(after(1))).toBeUndefined();
  });

  test("left to grinding where every face holds it: twice what is left over its skin", () => {
    const thick = {
      ...route,
      skin: 0.1,
      stages: route.stages.map((one) => (one.kind === "true" ? { ...one, takes: 0.45 } : one)),
    };
    const before = ask([], [], { route: thick, stage: "temper-2" });
    const { spares } = straightReport(before);
    expect(spares.bow).toBeGreaterThan(0.3);
    expect(ids(ask([set]))).toContain("straight-no-allowance");
  });

  test("what a blow does here, from five: 0.027 ± 0.0104", () => {
    const each = perBlow([0.021, 0.034, 0.027, 0.018, 0.04])!;
    expect(each.median).toBeCloseTo(0.027, 9);
    expect(each.scatter).toBeCloseTo(0.01036, 5);
    expect(perBlow([0.021, 0.034])).toBeNull();
    const rounds = [0, 1, 2, 3, 4, 5].map((n) => onBlade(2 * n + 1, (x) => (1 - n / 10) * bump(x)));
    const blows = [0, 1, 2, 3, 4].map((n) => blow(2 * n + 2));
    const { blows: log } = straightReport(ask(rounds, blows));
    expect(log.each!.count).toBe(5);
    expect(log.made).toBe(20);
    // A tenth of the bend went with each four: five tenths are left, half of what that takes comes first.
    expect(log.next).toBe(10);
  });

  test("what stays of a clamping, from three; before that half", () => {
    const clamped = (n: number, past: number) => blow(n, { tool: "clamp", state: "temper", past });
    const heights = [1, 0.8, 0.64, 0.512].map((share, i) => onBlade(2 * i + 1, (x) => share * bump(x)));
    const two = straightReport(ask(heights.slice(0, 3), [clamped(2, 0.1), clamped(4, 0.1)]));
    expect(two.stays).toBeNull();
    const three = straightReport(ask(heights, [clamped(2, 0.1), clamped(4, 0.1), clamped(6, 0.1)]));
    // A fifth of 0.5, of what it was bent back by in all, 0.6; then of 0.4 and 0.5.
    expect(three.stays!).toBeCloseTo(0.16, 2);
  });

  test("an edge that wanders under a straight spine is no bend: no blow", () => {
    const edge = (height: (x: number) => number) => ({
      ...onBlade(2, () => 0),
      kind: "edge" as const,
      rows: Array.from({ length: 11 }, (_, i) => ({ x: 11 * i, y: -25, v: -height(11 * i) })),
    });
    const waved = ask([onBlade(1, () => 0), edge(bump)]);
    expect(ids(waved)).toContain("edge-waves");
    expect(straightReport(waved).work).toEqual([]);
    expect(ids(ask([onBlade(1, bump), edge(bump)]))).not.toContain("edge-waves");
  });

  test("a straightedge of its own bow: 0.22 and −0.38 are 0.30 of blade and 0.08 of straightedge", () => {
    const values = (of: number) => [0, of, 0];
    const both = reversed(
      gaps(1, values(0.22), { pair: uuid(9) }),
      gaps(2, values(-0.38), { face: "right", pair: uuid(9) }),
      feelers,
      HALF,
    )!;
    expect(both.blade[1]!.z).toBeCloseTo(0.3, 9);
    expect(both.own[1]!.t).toBeCloseTo(0.08, 9);
    expect(both.bow.height).toBeCloseTo(0.08, 9);
    expect(reversed(gaps(1, values(1)), gaps(2, values(1)), feelers, HALF)).toBeNull();
  });

  test("between oil and martensite: 3 mm from 260 to 150 in still air are 144 s at 500 J/kgK", () => {
    expect(secondsInAir(3, 260, 150, 500)).toBeCloseTo(144, 0);
    const { window } = straightReport(
      ask([], [], { blade: { ...blade, steel: "1084" }, ...inState("window") }),
    );
    // 1084 starts between 150.3 and 236.1.
    expect(window!.from).toBeCloseTo(193.2, 1);
    expect(window!.to).toBeCloseTo(130.2, 1);
    expect(window!.seconds).toBeGreaterThan(60);
    expect(straightReport(ask([], [], { blade: { ...blade, steel: "440C" } })).window).toBeNull();
  });
});

describe("state and build", () => {
  test("the route tells the state, the core the build", () => {
    const states = ["rough", "harden", "temper", "temper-2", "true"].map((id) => stateAt(route, id));
    expect(states).toEqual(["soft", "raw", "temper", "hard", "hard"]);
    expect(stateAt(firstRoute(blade), "harden")).toBe("hard");
    expect(stateAt({ stages: [] }, "sharpen")).toBe("hard");
    expect(buildOf({ core: { t: 1, offset: 0.5 } }, 4, false)).toBe("unknown");
    expect(buildOf({ core: { t: 4, offset: 0 } }, 4, false)).toBe("unknown");
    expect(buildOf({}, 4, true)).toBe("unknown");
  });

  test("steel that the route hardens is never worked as soft, as-quenched steel never as tempered", () => {
    expect(statesAt(route, "rough")).toEqual(["soft", "hot", "window", "raw", "temper", "hard"]);
    expect(statesAt(route, "harden")).toEqual(["raw", "window"]);
    expect(statesAt(route, "true")).toEqual(["hard", "hot", "window", "raw", "temper"]);
    const stages = withStage(route.stages, { id: "soft-again", kind: "anneal" });
    const moved = [
      ...stages.filter(({ id }) => id !== "soft-again"),
      { id: "soft-again", kind: "anneal" } as const,
    ];
    expect(statesAt({ stages: moved }, "soft-again")).toContain("soft");
    const soft = { ...NO_STRAIGHT, states: [{ stage: "true", state: "soft" as const }] };
    expect(chosenState(route, soft, "true")).toBe("hard");
    expect(chosenState(SOFT.route, soft, "true")).toBe("soft");
  });

  test("a laminated blade said to be hard and tempered is tapped along the crest, never pressed as soft", () => {
    const laminated = { ...blade, core: { t: 1, offset: 0 } };
    const set = onBlade(1, bump);
    const told = straightReport(ask([set], [], { blade: laminated, route: SOFT.route, ...inState("hard") }));
    expect([told.state, told.build]).toEqual(["hard", "clad"]);
    expect(told.work[0]!.advice).toMatchObject({ what: "tap", tool: "hammer", on: "on a soft stump" });
  });

  test.each<[State, string, string]>([
    ["soft", "bend", "right"],
    ["hot", "bend", "right"],
    ["window", "bend", "right"],
    ["temper", "clamp", "right"],
    ["hard", "peen", "left"],
  ])("%s: %s, the %s face up where the left is hollow", (state, what, face) => {
    const left = { kappa: -1e-4, hollow: "left", lean: 0 } as const;
    expect(adviceFor(state, "solid", left, false)).toMatchObject({ what, face });
  });

  test("hands begin on the face whose tip points away from them; half of what it is clamped past stays", () => {
    expect([firstFace("right"), firstFace("left")]).toEqual(["left", "right"]);
    expect(pastBy(0.4)).toBeCloseTo(0.4, 9);
  });
});

describe("rows of the work", () => {
  const { id, when, stage, ...set } = gaps(1, [0, 0.1, 0]);
  const {
    id: blowId,
    when: struck,
    stage: on,
    ...rest
  } = {
    id: uuid(2),
    when: at(2),
    stage: "true",
    state: "hard" as const,
    face: "left" as const,
    from: [60, -5],
    to: [60, -22],
    tool: "bit" as const,
    count: 1,
  };
  const rows = [
    { id, when, stage, what: "set", ...set },
    { id: blowId, when: struck, stage: on, what: "blow", ...rest },
    { id: uuid(3), when: at(3), stage, what: "set", ...set },
  ] as WorkRow[];

  test("are sound as they are taken, and join the document where it is exported", () => {
    for (const row of rows) expect(parseWorkRow(row)).toEqual({ ok: true, row });
    const { sets, blows } = straightAt(rows);
    expect(sets).toHaveLength(2);
    expect(blows[0]!.after).toBe(uuid(3));
    const whole = straightWithWork(NO_STRAIGHT, rows);
    expect(parseDocument("straight", whole)).toEqual({ ok: true, document: whole });
    expect(straightWithWork(NO_STRAIGHT, [])).toEqual(NO_STRAIGHT);
  });

  test("places that go back are refused with where", () => {
    const back = {
      ...rows[0]!,
      rows: [
        { x: 10, y: 0, v: 0 },
        { x: 5, y: 0, v: 0 },
      ],
    };
    expect(JSON.stringify(parseWorkRow(back))).toContain("does not lie beyond 10");
    const file = { ...NO_STRAIGHT, sets: [{ ...gaps(1, [0, 0.1]), rows: back.rows }] };
    expect(JSON.stringify(parseDocument("straight", file))).toContain("does not lie beyond 10");
    expect(parseWorkRow({ ...rows[1]!, count: 0 }).ok).toBe(false);
  });
});

describe("what the shop's other blades said", () => {
  const es = [0.021, 0.034, 0.027, 0.018, 0.04];
  const struck = (blade: string, more: Partial<Struck> = {}): Struck => ({
    blade,
    when: at(0),
    build: "solid",
    blows: es.map((e) => ({ state: "hard", tool: "bit", e })),
    shares: [],
    yields: [],
    ...more,
  });
  const shop = (...all: Struck[]) => ({ ...USUAL_SHOP, struck: all });
  const set = onBlade(1, bump);

  test("blows of the same tool, state and build count, the blade's own record does not count twice", () => {
    const each = (asked: Partial<StraightAsked>) => straightReport(ask([set], [], asked)).blows.each;
    expect(each({ shop: shop(struck("a")) })!.median).toBe(0.027);
    expect(each({ shop: shop(struck("a")), id: "a" })).toBeNull();
    expect(each({ shop: shop(struck("a", { build: "clad" })) })).toBeNull();
    expect(each({ shop: shop(struck("a")), ...SOFT })).toBeNull();
    const hammered = es.map((e) => ({ state: "hard" as const, tool: "hammer" as const, e }));
    expect(each({ shop: shop(struck("a", { blows: hammered })) })).toBeNull();
  });

  test("clampings and presses: the median of three takes the place of what is usual", () => {
    const clamped = straightReport(
      ask([set], [], { ...inState("temper"), shop: shop(struck("a", { shares: [0.4, 0.6, 0.45] })) }),
    );
    expect(clamped.stays).toBe(0.45);
    const yields = [300, 420, 500].map((sigma) => ({ state: "soft" as const, sigma }));
    const usual = straightReport(ask([set], [], SOFT)).load!;
    const learned = straightReport(ask([set], [], { ...SOFT, shop: shop(struck("a", { yields })) })).load!;
    expect(usual.isLearned).toBe(false);
    expect(learned.isLearned).toBe(true);
    // Mostly spring-back: nearly as the yield, 420 for 350.
    expect(learned.sagitta / usual.sagitta).toBeGreaterThan(1.15);
    expect(learned.sagitta / usual.sagitta).toBeLessThan(1.21);
    const two = { ...struck("a"), yields: yields.slice(0, 2) };
    expect(straightReport(ask([set], [], { ...SOFT, shop: shop(two) })).load!.isLearned).toBe(false);
  });

  test("a press says its yield: soft steel bent 7.31 over 200 that keeps 0.5 is of 350, thickness 3", () => {
    // Check value of overbend read backwards: to leave 0.5 in 200 of 3 thick, load to 7.31 soft.
    expect(yieldBy((8 * 7.31) / 200 ** 2, (8 * 0.5) / 200 ** 2, 3)).toBeCloseTo(350, -1);
    expect(yieldBy((8 * 4.17) / 200 ** 2, (8 * 0.5) / 200 ** 2, 3)).toBeCloseTo(180, -1);
    expect(yieldBy(0.001, 0, 3)).toBeNull();
    expect(yieldBy(0.001, 0.002, 3)).toBeNull();
  });

  test("pressed between two readings this blade has something to keep; with two tools nobody knows which did it", () => {
    const after = onBlade(5, (x) => bump(x) * 0.4);
    const blow: Blow = {
      id: uuid(90),
      when: at(3),
      stage: "true",
      state: "soft",
      face: "right",
      from: [60, 0],
      to: [60, -20],
      tool: "wood",
      count: 1,
      past: 4,
      span: 110,
      sagitta: 4.5,
    };
    const one = straightReport(ask([set, after], [blow], SOFT));
    expect(one.here).toMatchObject({ build: "solid", blows: [{ state: "soft", tool: "wood" }] });
    expect(one.here!.yields[0]!.sigma).toBeGreaterThan(100);
    const both = [blow, { ...blow, id: uuid(91), when: at(4), tool: "press" as const, sagitta: 6 }];
    expect(straightReport(ask([set, after], both, SOFT)).here).toBeNull();
    expect(straightReport(ask([set])).here).toBeNull();
  });
});
