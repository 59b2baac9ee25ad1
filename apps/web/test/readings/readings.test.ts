import type { Reading } from "@true-spine/core/inspect/schema.ts";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { readFigure, showFigure, unitOf } from "../../src/readings/figures.ts";
import { pretendBrowser, settled } from "../browser.ts";

/** A server of a few lines: keeps readings by id, and may be away, or keep them and lose its answer. */
function pretendServer() {
  const kept = new Map<string, Reading>();
  const struck = new Set<string>();
  const state = {
    mood: "well" as "well" | "away" | "answers nothing",
    refuses: (_: number) => false,
    posts: 0,
  };
  vi.stubGlobal("fetch", async (path: string, { method, body }: { method: string; body?: string }) => {
    if (state.mood === "away") throw new TypeError("no connection");
    if (method === "GET") return answer(200, { taken: [...kept.values()], struck: [...struck] });
    const sent = JSON.parse(body ?? "{}");
    const isRefused = (sent.readings ?? []).some(({ value }: Reading) => state.refuses(value));
    if (isRefused) return answer(422, { title: "The document has faults." });
    state.posts++;
    if (path.endsWith("/strike")) {
      for (const id of sent.ids) {
        if (sent.struck) struck.add(id);
        else struck.delete(id);
      }
    } else for (const one of sent.readings as Reading[]) kept.set(one.id, one);
    if (state.mood === "answers nothing") throw new TypeError("cut off");
    return answer(200, { kept: 1 });
  });
  return { kept, struck, state };
}

const answer = (status: number, body: unknown) => ({
  ok: status < 400,
  status,
  text: async () => JSON.stringify(body),
});

let serial = 0;
const reading = (value: number): Reading => ({
  id: `00000000-0000-4000-8000-${(serial++).toString(16).padStart(12, "0")}`,
  when: new Date(Date.UTC(2026, 10, 20, 10, 0, serial)).toISOString(),
  stage: "rough",
  what: "edge",
  u: 0.5,
  value,
  by: "hand",
});
const NOTHING = { taken: [], struck: [] };
const open: { stop(): void }[] = [];
let browser: ReturnType<typeof pretendBrowser>;
async function openKept(id = "b") {
  const { keepReadings } = await import("../../src/readings/kept.ts");
  const kept = await keepReadings(id, NOTHING);
  open.push(kept);
  return kept;
}
const settle = async () => {
  for (let i = 0; i < 12; i++) {
    await settled();
    await vi.advanceTimersByTimeAsync(700);
  }
};
const rows = async () =>
  (await (await import("../../src/saving/browser-store.ts")).browserStore()).getAll("rows");

beforeEach(() => {
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout", "Date"] });
  browser = pretendBrowser();
  browser.openTab();
});
afterEach(() => {
  for (const one of open.splice(0)) one.stop();
  vi.restoreAllMocks();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("readings kept in this browser", () => {
  test("one taken is shown at once, sent, and owed no more", async () => {
    const server = pretendServer();
    const mine = await openKept();
    mine.take(reading(1.2));
    expect(mine.state.getState().taken).toHaveLength(1);
    expect(mine.state.getState().status).toBe("unsaved");
    await settled();
    expect(await rows()).toHaveLength(1);
    await settle();
    expect(server.kept.size).toBe(1);
    expect(mine.state.getState().status).toBe("saved");
    expect(await rows()).toEqual([]);
  });

  test("with the server away nothing is lost, and each arrives once when it is back", async () => {
    const server = pretendServer();
    server.state.mood = "away";
    const mine = await openKept();
    for (const value of [1.2, 1.1, 1]) mine.take(reading(value));
    await settle();
    expect(mine.state.getState().status).toBe("away");
    expect(server.kept.size).toBe(0);
    // The tab goes, and another is opened: what is owed is shown and sent from there.
    mine.stop();
    browser.reload();
    const next = await openKept();
    expect(next.state.getState().taken.map(({ value }) => value)).toEqual([1.2, 1.1, 1]);
    server.state.mood = "well";
    await settle();
    expect([...server.kept.values()].map(({ value }) => value)).toEqual([1.2, 1.1, 1]);
    expect(next.state.getState().status).toBe("saved");
  });

  test("an answer that is lost is asked for again, and is still one reading", async () => {
    const server = pretendServer();
    server.state.mood = "answers nothing";
    const mine = await openKept();
    mine.take(reading(1.2));
    await settled();
    await vi.advanceTimersByTimeAsync(100);
    await settled();
    expect(server.kept.size).toBe(1);
    server.state.mood = "well";
    await settle();
    expect(server.state.posts).toBeGreaterThan(1);
    expect(server.kept.size).toBe(1);
    expect(await rows()).toEqual([]);
  });

  test("struck out and put back, in the order it was done", async () => {
    const server = pretendServer();
    const mine = await openKept();
    const one = reading(1.2);
    mine.take(one);
    mine.strike(one.id, true);
    expect([...mine.state.getState().struck]).toEqual([one.id]);
    await settle();
    expect([...server.struck]).toEqual([one.id]);
    mine.strike(one.id, false);
    await settle();
    expect(server.struck.size).toBe(0);
    expect(server.kept.size).toBe(1);
  });

  test("one the server refuses is kept here and said so; those beside it arrive; tried again it goes", async () => {
    const server = pretendServer();
    server.state.refuses = (value) => value === 1.3;
    const mine = await openKept();
    for (const value of [1.2, 1.3, 1.4]) mine.take(reading(value));
    await settle();
    expect(mine.state.getState()).toMatchObject({ status: "refused", why: "The document has faults." });
    expect([...server.kept.values()].map(({ value }) => value)).toEqual([1.2, 1.4]);
    expect(await rows()).toHaveLength(1);
    server.state.refuses = () => false;
    mine.tryNow();
    await settle();
    expect(server.kept.size).toBe(3);
    expect(mine.state.getState()).toMatchObject({ status: "saved", why: null });
  });

  test("with no room in the browser they are sent all the same", async () => {
    const server = pretendServer();
    browser.fillUp();
    const mine = await openKept();
    mine.take(reading(1.2));
    await settle();
    expect(server.kept.size).toBe(1);
    expect(mine.state.getState().status).toBe("saved");
    server.state.mood = "away";
    mine.take(reading(1.3));
    await settle();
    expect(mine.state.getState()).toMatchObject({ status: "away", isKept: false });
  });

  test("one taken in the page's last moment is there when it is opened again", async () => {
    const server = pretendServer();
    server.state.mood = "away";
    const mine = await openKept();
    mine.take(reading(1.2));
    window.dispatchEvent(new Event("pagehide"));
    mine.stop();
    browser.reload();
    server.state.mood = "well";
    const next = await openKept();
    expect(next.state.getState().taken.map(({ value }) => value)).toEqual([1.2]);
    await settle();
    expect(server.kept.size).toBe(1);
  });

  test("an earlier version's is taken over; what cannot be read is left out, and left where it is", async () => {
    const server = pretendServer();
    localStorage.setItem("true-spine-reading:b:1", "{");
    localStorage.setItem("true-spine-reading:b:2", '{"say":"take","reading":{"value":9},"at":1}');
    localStorage.setItem("true-spine-reading:other:3", "null");
    localStorage.setItem(
      "true-spine-reading:b:4",
      JSON.stringify({ say: "take", reading: reading(1.2), at: 5 }),
    );
    const mine = await openKept();
    expect(mine.state.getState().taken.map(({ value }) => value)).toEqual([1.2]);
    await settle();
    expect(server.kept.size).toBe(1);
    expect(await rows()).toHaveLength(3);
    expect(localStorage.length).toBe(0);
  });

  test("many are sent a few hundred at a time, told as they go, and stopped when asked", async () => {
    const server = pretendServer();
    const mine = await openKept();
    const many = Array.from({ length: 1200 }, (_, i) => reading(1 + i / 1e4));
    const done: number[] = [];
    await mine.bring(many, [], (count) => done.push(count), new AbortController().signal);
    expect(done).toEqual([500, 1000, 1200]);
    expect(server.kept.size).toBe(1200);
    const control = new AbortController();
    const others = Array.from({ length: 1200 }, (_, i) => reading(2 + i / 1e4));
    await mine.bring(others, [], () => control.abort(), control.signal);
    expect(server.kept.size).toBe(1700);
  });
});

describe("figures as a maker types and reads them", () => {
  const value = (...args: Parameters<typeof readFigure>) => {
    const read = readFigure(...args);
    return read.ok ? read.value : read.why;
  };

  test("lengths in any unit, angles, hardness; a minus only where there is one", () => {
    expect(value("edge", '0.047"', "mm")).toBeCloseTo(1.1938, 4);
    expect(value("edge", "60 thou", "mm")).toBeCloseTo(1.524, 4);
    expect(value("bow", "-0.2", "mm")).toBe(-0.2);
    expect(value("bow", "−0.2", "mm")).toBe(-0.2);
    expect(value("edge", "-0.2", "mm")).toMatch(/cannot be below 0/);
    expect(value("twist", "-1.5", "mm")).toBe(-1.5);
    expect(value("hardness", "60,5", "mm")).toBe(60.5);
    expect(value("hardness", "hard", "mm")).toMatch(/is no hardness/);
    expect(value("hardness", "200", "mm")).toMatch(/is no hardness/);
    expect(value("edge", "900", "mm")).toMatch(/below 500 mm/);
  });

  test("thicknesses to hundredths, lines to tenths, angles to tenths, squareness finer", () => {
    expect(showFigure("edge", 1.234, "mm")).toBe("1.23");
    expect(showFigure("line", 19.06, "mm")).toBe("19.1");
    expect(showFigure("angle", 3.44, "mm")).toBe("3.4");
    expect(showFigure("square", 0.25, "mm")).toBe("0.25");
    expect(unitOf("edge", "inch")).toBe("inch");
    expect(unitOf("hardness", "inch")).toBe("HRC");
  });
});
