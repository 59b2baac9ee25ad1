import { parseBlade } from "@true-spine/core/blade/parse.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { saveBlade } from "../src/api/blades.ts";
import { takeDraftPlace } from "../src/blade/drafts.ts";
import { type Save, startSaving } from "../src/blade/saving.ts";
import { knife, radiusOf } from "./knife.ts";

interface Sent {
  file: Blade;
  base: number;
  saveKey: string;
}

/** A server of a few lines: keeps revisions by save key, refuses stale saves, and may be away or lose its answer. */
function pretendServer() {
  const saves: Sent[] = [];
  const known = new Map<string, number>();
  const state = { revision: 1, mood: "well" as "well" | "away" | "answers nothing" };
  vi.stubGlobal("fetch", async (_: string, { body }: { body: string }) => {
    if (state.mood === "away") throw new TypeError("no connection");
    const sent = JSON.parse(body) as Sent;
    saves.push(sent);
    let revision = known.get(sent.saveKey);
    if (revision === undefined) {
      if (sent.base !== state.revision) {
        return answer(409, { title: "stale", revision: state.revision, file: knife(9) });
      }
      revision = ++state.revision;
      known.set(sent.saveKey, revision);
    }
    if (state.mood === "answers nothing") throw new TypeError("cut off");
    return answer(200, { revision });
  });
  return { saves, state };
}

const answer = (status: number, body: unknown) => ({
  ok: status < 400,
  status,
  text: async () => JSON.stringify(body),
});

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const isBlade = (value: unknown): value is Blade => parseBlade(value).ok;

async function open(id = "one") {
  const { place, left } = await takeDraftPlace(id, isBlade);
  const send = (save: Save<Blade>) => saveBlade(id, save);
  return { saving: startSaving({ send, revision: 1, place, left, onSaved: () => {} }), left };
}

describe("a blade saves itself", () => {
  test("a burst of changes is one save, of the last of them", async () => {
    const { saves } = pretendServer();
    const { saving } = await open();
    for (const radius of [5, 6, 7]) saving.changed(knife(radius));
    await vi.advanceTimersByTimeAsync(2000);
    expect(saves.map(({ file }) => radiusOf(file))).toEqual([7]);
    expect(saving.state.getState()).toMatchObject({ status: "saved", revision: 2 });
    expect(localStorage).toHaveLength(0);
    saving.stop();
  });

  test("a save whose answer was lost is sent again under its key, and what was typed since follows", async () => {
    const { saves, state } = pretendServer();
    const { saving } = await open();
    state.mood = "answers nothing";
    saving.changed(knife(5));
    await vi.advanceTimersByTimeAsync(600);
    expect(saving.state.getState().status).toBe("away");
    saving.changed(knife(6));
    state.mood = "well";
    await vi.advanceTimersByTimeAsync(20_000);
    expect(new Set(saves.filter(({ file }) => radiusOf(file) === 5).map(({ saveKey }) => saveKey)).size).toBe(
      1,
    );
    expect(radiusOf(saves[saves.length - 1]!.file)).toBe(6);
    expect(saving.state.getState()).toMatchObject({ status: "saved", revision: 3 });
    expect(state.revision).toBe(3);
    saving.stop();
  });

  test("while the server is away everything is kept here, and another tab brings it back", async () => {
    const { saves, state } = pretendServer();
    state.mood = "away";
    const first = await open();
    first.saving.changed(knife(8));
    await vi.advanceTimersByTimeAsync(3000);
    expect(first.saving.state.getState().status).toBe("away");
    first.saving.stop();
    state.mood = "well";
    const second = await open();
    expect(radiusOf(second.left!.latest)).toBe(8);
    await vi.advanceTimersByTimeAsync(3000);
    expect(radiusOf(saves[saves.length - 1]!.file)).toBe(8);
    expect(second.saving.state.getState().status).toBe("saved");
    second.saving.stop();
  });

  test("a stale save waits for the maker: keep mine saves on top of theirs", async () => {
    const { saves, state } = pretendServer();
    const { saving } = await open();
    state.revision = 4;
    saving.changed(knife(5));
    await vi.advanceTimersByTimeAsync(2000);
    expect(saving.state.getState()).toMatchObject({ status: "conflict", theirs: { revision: 4 } });
    saving.changed(knife(6));
    await vi.advanceTimersByTimeAsync(5000);
    expect(saves).toHaveLength(1);
    saving.keepMine();
    await vi.advanceTimersByTimeAsync(2000);
    expect(saves[1]).toMatchObject({ base: 4 });
    expect(radiusOf(saves[1]!.file)).toBe(6);
    expect(saving.state.getState()).toMatchObject({ status: "saved", revision: 5 });
    saving.stop();
  });

  test("take theirs forgets what was not saved here", async () => {
    const { saves, state } = pretendServer();
    const { saving } = await open();
    state.revision = 4;
    saving.changed(knife(5));
    await vi.advanceTimersByTimeAsync(2000);
    saving.takeTheirs();
    await vi.advanceTimersByTimeAsync(5000);
    expect(saves).toHaveLength(1);
    expect(saving.state.getState()).toMatchObject({ status: "saved", revision: 4, theirs: null });
    expect(localStorage).toHaveLength(0);
    saving.stop();
  });

  test("a draft that is no blade any more is thrown away, not put on the screen", async () => {
    pretendServer();
    localStorage.setItem(
      "true-spine-draft:one:old",
      JSON.stringify({ latest: { name: "broken" }, base: 1, sent: null }),
    );
    localStorage.setItem("true-spine-draft:one:older", "{");
    const { left, saving } = await open();
    expect(left).toBeNull();
    saving.stop();
  });
});
