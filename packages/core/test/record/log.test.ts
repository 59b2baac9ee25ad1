import { describe, expect, test } from "vitest";
import { parseCheck, parseReading, parseReadings } from "../../src/inspect/parse.ts";
import { parseRun } from "../../src/inspect/run-schema.ts";
import { NO_CHECK, type Reading } from "../../src/inspect/schema.ts";
import { logOf } from "../../src/record/log.ts";
import { NO_ROUTE } from "../../src/route/schema.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";

const id = (n: number) => `00000000-0000-4000-8000-${n.toString(16).padStart(12, "0")}`;
const reading: Reading = {
  id: id(1),
  when: "2026-11-20T10:00:00Z",
  stage: "rough",
  what: "edge",
  u: 0.5,
  value: 1.2,
  by: "hand",
};

describe("the log", () => {
  const entries = logOf({
    revisions: [{ number: 1, label: "as ordered", createdAt: "2026-11-18 09:00:00+00" }],
    documents: [
      { kind: "photo", number: 1, createdAt: "2026-11-18T10:00:00Z" },
      { kind: "photo", number: 2, createdAt: "2026-11-18T10:04:00Z" },
      { kind: "handle", number: 1, createdAt: "2026-11-18T10:05:00Z" },
      { kind: "photo", number: 3, createdAt: "2026-11-18T15:00:00Z" },
    ],
    route: {
      ...NO_ROUTE,
      stages: [
        { id: "rough", kind: "rough", done: "2026-11-20T12:00:00Z", setup: "rest", note: "belt was worn" },
        { id: "harden", kind: "harden" },
      ],
    },
    check: {
      ...NO_CHECK,
      corrections: [
        {
          id: id(7),
          when: "2026-11-20T13:00:00Z",
          stage: "rough",
          side: "left",
          from: 40,
          to: 70,
          off: [{ x: 40, t: 0.1 }],
          passes: 5,
          why: "Left face from 40 to 70 mm.",
          done: "2026-11-20T14:00:00Z",
        },
      ],
      accepted: [
        {
          when: "2026-11-21T08:00:00Z",
          stage: "rough",
          finding: "bow",
          words: "Bowed 0.3 mm.",
          reason: "unseen",
        },
      ],
    },
    readings: [reading, { ...reading, id: id(2), when: "2026-11-20T10:01:00Z", by: "card", past: true }],
    struck: new Set([id(1)]),
    shop: USUAL_SHOP,
    work: [
      { id: id(20), when: "2026-11-22T08:00:00Z", stage: "harden", what: "run", moment: "ended", T: 801 },
      {
        id: id(21),
        when: "2026-11-22T08:05:00Z",
        stage: "harden",
        what: "proof",
        place: "edge",
        saw: "skates",
      },
      { id: id(22), when: "2026-11-22T08:06:00Z", stage: "harden", what: "coupon", T: 790, saw: "bites" },
      { id: id(23), when: "2026-11-22T08:07:00Z", stage: "harden", what: "snap", T: 790, grain: "fine" },
      { id: id(24), when: "2026-11-22T08:08:00Z", stage: "harden", what: "skin", mm: 0.12 },
      {
        id: id(25),
        when: "2026-11-22T09:00:00Z",
        stage: "harden",
        what: "set",
        state: "hard",
        kind: "gap",
        face: "left",
        rows: [{ x: 0, y: -4, v: 0 }],
      },
      {
        id: id(26),
        when: "2026-11-22T09:05:00Z",
        stage: "harden",
        what: "blow",
        state: "hard",
        face: "left",
        from: [58, -5],
        to: [62, -20],
        tool: "bit",
        count: 3,
      },
      { id: id(27), when: "2026-11-22T09:06:00Z", stage: "harden", what: "done" },
    ],
  });
  const said = entries.map(({ words }) => words);

  test("tells what was done and seen at the fire and the anvil, and a tick only once", () => {
    expect(entries.filter(({ when }) => when.startsWith("2026-11-22")).map(({ words }) => words)).toEqual([
      "Harden and temper: struck 3 times at 60 mm, left face up",
      "Harden and temper: 1 place read along it, left face up",
      "Harden and temper: skin found 0.12 mm deep",
      "Harden and temper: coupon at 790 °C, fine grain",
      "Harden and temper: coupon at 790 °C, a file bites",
      "Harden and temper: a file skates at the edge",
      "Harden and temper: out of it, 801 °C",
    ]);
  });

  test("has everything that happened, newest first", () => {
    expect(entries.map(({ when }) => when)).toEqual(
      entries
        .map(({ when }) => when)
        .toSorted()
        .reverse(),
    );
    expect(new Set(entries.map(({ kind }) => kind))).toEqual(
      new Set([
        "revision",
        "stage",
        "set-up",
        "reading",
        "correction",
        "deviation",
        "note",
        "photo",
        "document",
      ]),
    );
  });

  test("says what was struck out, taken on the card, past the line, corrected, accepted, and with what", () => {
    expect(said).toContain("Rough bevels: the very edge at 50 % of the edge read 1.2 mm; struck out");
    expect(said).toContain(
      "Rough bevels: the very edge at 50 % of the edge read 1.2 mm, on the card; past the line",
    );
    expect(said).toContain("Correction: Left face from 40 to 70 mm.");
    expect(said).toContain("Correction done: Left face from 40 to 70 mm.");
    expect(said).toContain("Accepted as it is: Bowed 0.3 mm. Reason: unseen");
    expect(said).toContain("Rough bevels with the rest against the platen");
    expect(said).toContain("Revision 1: as ordered");
  });

  test("saves of one document within minutes are one entry, later ones another", () => {
    expect(said.filter((words) => words.startsWith("The photo under it was changed"))).toEqual([
      "The photo under it was changed",
      "The photo under it was changed, 2 times",
    ]);
  });
});

describe("readings, checks and runs at the border", () => {
  test("a sound reading is one; each fault has its path", () => {
    expect(parseReading(reading).ok).toBe(true);
    const faultsOf = (change: object) => {
      const parsed = parseReading({ ...reading, ...change });
      return parsed.ok ? [] : parsed.faults.map(({ path }) => path);
    };
    expect(faultsOf({ u: 1.5 })).toEqual(["$.u"]);
    expect(faultsOf({ side: "left" })).toEqual(["$.side"]);
    expect(faultsOf({ what: "line" })).toEqual(["$.side"]);
    expect(faultsOf({ what: "above" })).toEqual(["$.height"]);
    expect(faultsOf({ value: -0.1 })).toEqual(["$.value"]);
    expect(faultsOf({ what: "twist", u: undefined, value: 91 })).toEqual(expect.arrayContaining(["$.value"]));
    expect(faultsOf({ when: "yesterday" })).toEqual(["$.when"]);
    expect(faultsOf({ more: 1 })).toEqual(["$.more"]);
    expect(parseReading(null).ok).toBe(false);
  });

  test("a list names the reading at fault, and one id twice", () => {
    const list = { format: "true-spine/readings", version: 1, taken: [reading, { ...reading, value: -1 }] };
    const parsed = parseReadings(list);
    expect(parsed.ok ? [] : parsed.faults.map(({ path }) => path)).toEqual([
      "$.taken[1].value",
      "$.taken[1].id",
    ]);
    expect(parseReadings({ ...list, taken: [reading] }).ok).toBe(true);
  });

  test("a check's own places say where they lie", () => {
    expect(parseCheck(NO_CHECK).ok).toBe(true);
    const parsed = parseCheck({ ...NO_CHECK, places: [{ what: "flats", u: 0.5 }] });
    expect(parsed.ok ? [] : parsed.faults.map(({ path }) => path)).toEqual([
      "$.places[0].u",
      "$.places[0].x",
    ]);
    expect(parseCheck({ ...NO_CHECK, hardness: 90 }).ok).toBe(false);
  });

  test("a run holds each blade once", () => {
    const run = { format: "true-spine/run", version: 1, name: "r", blades: [id(1), id(1)], places: [] };
    expect(parseRun(run).ok).toBe(false);
    expect(parseRun({ ...run, blades: [id(1)] }).ok).toBe(true);
  });
});
