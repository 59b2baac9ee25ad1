import { describe, expect, test } from "vitest";
import { parseForge } from "../../src/forge/parse.ts";
import { NO_FORGE } from "../../src/forge/schema.ts";
import { NO_CHECK, type Reading } from "../../src/inspect/schema.ts";
import { firstRoute } from "../../src/route/first.ts";
import { withUsualHeats } from "../../src/route/heats.ts";
import {
  checkWithWork,
  forgeWithWork,
  heatsAt,
  heatWorkAt,
  passesAt,
  readingsAt,
  routeWithWork,
  spentAt,
} from "../../src/work/joined.ts";
import { parseWork, parseWorkRow, type WorkRow } from "../../src/work/schema.ts";
import { example } from "../examples.ts";

const id = (n: number) => `00000000-0000-4000-8000-${n.toString(16).padStart(12, "0")}`;
const at = (hour: number) => `2026-11-20T${String(hour).padStart(2, "0")}:00:00Z`;
const route = firstRoute(example("field"));
const rows: WorkRow[] = [
  { id: id(1), when: at(9), stage: "rough", what: "pass", side: "left" },
  { id: id(2), when: at(10), stage: "rough", what: "pass", side: "left" },
  { id: id(3), when: at(10), stage: "rough", what: "pass", side: "right" },
  { id: id(4), when: at(11), stage: "rough", what: "note", words: "belt glazed" },
  { id: id(5), when: at(12), stage: "rough", what: "done" },
  { id: id(6), when: at(8), stage: "rough", what: "note", words: "began" },
  { id: id(7), when: at(13), stage: "gone", what: "done" },
];

describe("work beside its documents", () => {
  test("a stage is done when its last row says so, with the last note; the route's own choices stay as they are", () => {
    const joined = routeWithWork(route, rows);
    const rough = joined.stages.find((stage) => stage.id === "rough")!;
    expect(rough).toMatchObject({ done: at(12), note: "belt glazed" });
    expect(joined.stages.filter(({ done }) => done)).toHaveLength(1);
    expect(route.stages.every(({ done }) => done === undefined)).toBe(true);
    expect(routeWithWork(route, [])).toBe(route);
  });

  test("a stage done in a file from before there were rows is still done; a later row has the last word", () => {
    const old = {
      ...route,
      stages: route.stages.map((one) => (one.id === "rough" ? { ...one, done: at(1) } : one)),
    };
    expect(routeWithWork(old, rows.slice(0, 3)).stages.find(({ id }) => id === "rough")!.done).toBe(at(1));
    expect(routeWithWork(old, rows).stages.find(({ id }) => id === "rough")!.done).toBe(at(12));
  });

  test("heats are counted step by step; a fault seen at the fire is a row like them", () => {
    const heat = (n: number, step: "bevel" | "taper"): WorkRow => ({
      id: id(n),
      when: at(14),
      stage: "forge",
      what: "heat",
      step,
    });
    expect(heatsAt([...rows, heat(20, "bevel"), heat(21, "bevel"), heat(22, "taper")])).toEqual({
      bevel: 2,
      taper: 1,
    });
    const seen = {
      id: id(23),
      when: at(14),
      stage: "forge",
      what: "seen",
      fault: "cold-shut",
      x: [120, 126],
      depth: 0.6,
    };
    const joined = forgeWithWork(NO_FORGE, [heat(20, "bevel"), heat(21, "bevel"), seen as WorkRow]);
    expect(joined.done).toEqual([{ step: "bevel", heats: 2, when: at(14) }]);
    expect(joined.seen).toEqual([{ fault: "cold-shut", x: [120, 126], depth: 0.6, when: at(14) }]);
    expect(parseForge(joined).ok).toBe(true);
    expect(parseWorkRow(seen)).toEqual({ ok: true, row: seen });
    expect(parseWorkRow({ ...seen, fault: "dragon" }).ok).toBe(false);
    expect(parseWorkRow({ ...heat(24, "bevel"), step: "polish" }).ok).toBe(false);
  });

  test("passes are counted by stage and side", () => {
    expect(passesAt(rows, "rough")).toEqual({ left: 2, right: 1 });
    expect(passesAt(rows, "finish")).toEqual({ left: 0, right: 0 });
  });

  test("a correction is carried out when a row says so", () => {
    const correction = {
      id: id(90),
      when: at(1),
      stage: "true",
      side: "left",
      from: 1,
      to: 2,
      off: [{ x: 1, t: 0.1 }],
      passes: 1,
      why: "w",
    } as const;
    const check = { ...NO_CHECK, corrections: [{ ...correction, off: [...correction.off] }] };
    const done = checkWithWork(check, [
      { id: id(91), when: at(15), stage: "true", what: "corrected", correction: id(90) },
    ]);
    expect(done.corrections[0]!.done).toBe(at(15));
    expect(checkWithWork(check, [])).toBe(check);
  });
});

describe("rows from elsewhere", () => {
  test("sound ones pass; what is no row is refused with its path", () => {
    expect(rows.every((row) => parseWorkRow(row).ok)).toBe(true);
    expect(parseWork({ format: "true-spine/work", version: 1, rows }).ok).toBe(true);
    const wrong = parseWorkRow({ ...rows[0], side: "top" });
    expect(wrong.ok ? [] : wrong.faults.map(({ path }) => path)).not.toEqual([]);
    const twice = parseWork({ format: "true-spine/work", version: 1, rows: [rows[0], rows[0]] });
    expect(twice.ok ? [] : twice.faults.map(({ path }) => path)).toEqual(["$.rows[1].id"]);
  });
});

test("time at a stage: between start and pause, up to when it is done, and what was said beside it", () => {
  const then = (minute: number) => new Date(Date.UTC(2026, 10, 20, 10, minute)).toISOString();
  let n = 0;
  const row = (minute: number, more: Record<string, unknown>, stage = "rough") =>
    ({
      id: `00000000-0000-4000-8000-${(n++).toString(16).padStart(12, "0")}`,
      when: then(minute),
      stage,
      ...more,
    }) as WorkRow;
  const rows = [
    row(0, { what: "clock", runs: true }),
    row(10, { what: "clock", runs: false }),
    row(12, { what: "clock", runs: true }),
    row(13, { what: "clock", runs: true }),
    row(20, { what: "done" }),
    row(30, { what: "spent", minutes: 5 }),
    row(1, { what: "clock", runs: true }, "flats"),
  ];
  expect(spentAt(rows, "rough", Date.parse(then(50)))).toEqual({ minutes: 23, isRunning: false });
  expect(spentAt(rows, "flats", Date.parse(then(50)))).toEqual({ minutes: 49, isRunning: true });
  expect(spentAt(rows, "hand", Date.parse(then(50)))).toEqual({ minutes: 0, isRunning: false });
});

describe("hardness belongs to the last temper done", () => {
  const route = withUsualHeats(firstRoute(example("field")));
  const done = (stage: string, hour: number): WorkRow => ({
    id: id(hour),
    when: at(hour),
    stage,
    what: "done",
  });
  const read = (stage: string, hour: number) =>
    ({ id: id(50 + hour), when: at(hour), stage, what: "hardness", x: -10, value: 60 }) as Reading;
  const rows = [done("harden", 8), done("temper", 10), done("temper-2", 12)];
  const heatOf = (reading: Reading) => heatWorkAt(route, rows, [reading]).hardness[0]!.stage;

  test.each([
    ["as quenched", read("harden", 9), "harden"],
    ["as quenched, typed in later", read("harden", 15), "harden"],
    ["between the tempers", read("temper", 11), "temper"],
    ["after both, filed under the first", read("temper", 13), "temper-2"],
    ["after both, filed under a later stage", read("true", 14), "temper-2"],
    ["before any stage was marked as done, filed under a later stage", read("true", 7), "temper-2"],
  ])("%s", (_, reading, heat) => expect(heatOf(reading)).toBe(heat));
});

test("a place read again after a pass is not averaged with how it was before; read twice without one, both count", () => {
  const read = (n: number, hour: number, value: number): Reading => ({
    id: id(n),
    when: at(hour),
    stage: "rough",
    what: "edge",
    u: 0.5,
    value,
    by: "hand",
  });
  const [first, again, later] = [read(41, 8, 0.8), read(42, 9, 0.81), read(43, 12, 0.524)];
  const passed: WorkRow[] = [{ id: id(44), when: at(10), stage: "rough", what: "pass", side: "left" }];
  const other = { ...read(45, 8, 1.2), u: 0.9 };
  expect(readingsAt([first, again, later, other], passed, "rough")).toEqual([later, other]);
  expect(readingsAt([first, again], passed, "rough")).toEqual([first, again]);
  expect(readingsAt([first, later], [], "rough")).toEqual([first, later]);
});
