import type { Blade } from "@true-spine/core/blade/schema.ts";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import type { KeptDraft } from "../../src/saving/browser-store.ts";
import type { Save } from "../../src/saving/saving.ts";
import { pretendBrowser, settled } from "../browser.ts";
import { knife, radiusOf } from "../knife.ts";

interface Sent {
  file: Blade;
  base: number;
  saveKey: string;
}
type Mood = "well" | "away" | "answers nothing" | { readonly status: number; readonly title: string };

/** A server of a few lines: keeps revisions by save key, refuses stale saves, and may be away or lose its answer. */
function pretendServer() {
  const saves: Sent[] = [];
  const known = new Map<string, number>();
  const state = { revision: 1, mood: "well" as Mood };
  vi.stubGlobal("fetch", async (_: string, { body }: { body: string }) => {
    if (state.mood === "away") throw new TypeError("no connection");
    if (typeof state.mood === "object") return answer(state.mood.status, { title: state.mood.title });
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

let browser: ReturnType<typeof pretendBrowser>;
let tab: number;
const open: { stop(): void }[] = [];
beforeEach(() => {
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout", "Date"] });
  browser = pretendBrowser();
  tab = browser.openTab();
});
afterEach(() => {
  for (const one of open.splice(0)) one.stop();
  vi.restoreAllMocks();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const pass = async (ms: number) => {
  await settled();
  await vi.advanceTimersByTimeAsync(ms);
  await settled();
};

/** Opens the blade in the tab that is open: what it found there, and its saving. */
async function openHere(
  id = "one",
  revision = 1,
  hands?: { standing: Blade; together(base: Blade, mine: Blade, theirs: Blade): Blade | null },
) {
  const { draftPlace, findDrafts, readDraft, takeUpDrafts } = await import("../../src/saving/drafts.ts");
  const { startSaving } = await import("../../src/saving/saving.ts");
  const { saveBlade } = await import("../../src/api/blades.ts");
  const { parseBlade } = await import("@true-spine/core/blade/parse.ts");
  const isBlade = (value: unknown) => parseBlade(value).ok;
  const draftOf = (kept: KeptDraft) => readDraft<Blade>(kept, isBlade);
  const { resumed, left } = await takeUpDrafts(await findDrafts([id]), (kept) => draftOf(kept) !== null);
  const shown: Blade[] = [];
  const saving = startSaving<Blade>({
    send: (save: Save<Blade>) => saveBlade(id, save),
    revision,
    place: await draftPlace(id),
    left: resumed && draftOf(resumed.drafts[0]!),
    show: (file) => shown.push(file),
    onSaved: () => {},
    ...hands,
  });
  open.push(saving);
  return { saving, resumed, left, shown, draftOf };
}

const drafts = async () =>
  (await (await import("../../src/saving/browser-store.ts")).browserStore()).getAll("drafts");
const state = ({ saving }: Awaited<ReturnType<typeof openHere>>) => saving.state.getState();

describe("a blade saves itself", () => {
  test("a burst of changes is one save, of the last of them", async () => {
    const { saves } = pretendServer();
    const here = await openHere();
    for (const radius of [5, 6, 7]) here.saving.changed(knife(radius));
    await pass(2000);
    expect(saves.map(({ file }) => radiusOf(file))).toEqual([7]);
    expect(state(here)).toMatchObject({ status: "saved", revision: 2 });
    expect(await drafts()).toEqual([]);
  });

  test("a save whose answer was lost is sent again under its key, and what was typed since follows", async () => {
    const { saves, state: server } = pretendServer();
    const here = await openHere();
    server.mood = "answers nothing";
    here.saving.changed(knife(5));
    await pass(600);
    expect(state(here).status).toBe("away");
    here.saving.changed(knife(6));
    server.mood = "well";
    for (let i = 0; i < 20; i++) await pass(1000);
    const keys = saves.filter(({ file }) => radiusOf(file) === 5).map(({ saveKey }) => saveKey);
    expect(keys.length).toBeGreaterThan(1);
    expect(new Set(keys).size).toBe(1);
    expect(radiusOf(saves[saves.length - 1]!.file)).toBe(6);
    expect(state(here)).toMatchObject({ status: "saved", revision: 3 });
    expect(server.revision).toBe(3);
  });

  test("a stale save waits for the maker: keep mine saves on top of theirs", async () => {
    const { saves, state: server } = pretendServer();
    const here = await openHere();
    server.revision = 4;
    here.saving.changed(knife(5));
    await pass(2000);
    expect(state(here)).toMatchObject({ status: "conflict", theirs: { revision: 4 } });
    here.saving.changed(knife(6));
    await pass(5000);
    expect(saves).toHaveLength(1);
    here.saving.keepMine();
    await pass(2000);
    expect(saves[1]).toMatchObject({ base: 4 });
    expect(radiusOf(saves[1]!.file)).toBe(6);
    expect(state(here)).toMatchObject({ status: "saved", revision: 5 });
  });

  test("what two hands did to different things is put together, and nobody is asked", async () => {
    const { saves, state: server } = pretendServer();
    const asked: (number | null)[][] = [];
    const here = await openHere("one", 1, {
      standing: knife(3),
      together(...files) {
        asked.push(files.map((file) => radiusOf(file)));
        return knife(7);
      },
    });
    server.revision = 4;
    here.saving.changed(knife(5));
    await pass(3000);
    // The server's own is knife(9).
    expect(asked).toEqual([[3, 5, 9]]);
    expect(here.shown.map((file) => radiusOf(file))).toEqual([7]);
    expect(saves[1]).toMatchObject({ base: 4 });
    expect(radiusOf(saves[1]!.file)).toBe(7);
    expect(state(here)).toMatchObject({ status: "saved", revision: 5, theirs: null });
  });

  test("take theirs shows theirs, forgets what was not saved here, and saves nothing", async () => {
    const { saves, state: server } = pretendServer();
    const here = await openHere();
    server.revision = 4;
    here.saving.changed(knife(5));
    await pass(2000);
    here.saving.takeTheirs();
    await pass(5000);
    expect(here.shown.map(radiusOf)).toEqual([9]);
    expect(saves).toHaveLength(1);
    expect(server.revision).toBe(4);
    expect(state(here)).toMatchObject({ status: "saved", revision: 4, theirs: null });
    expect(await drafts()).toEqual([]);
  });

  test.each([400, 401, 404, 413, 422, 500])(
    "an answer of %i that no retry cures is shown as what it is, with what was typed kept; tried again it goes on",
    async (status) => {
      const { saves, state: server } = pretendServer();
      const here = await openHere();
      server.mood = { status, title: "The radius is not to its liking." };
      here.saving.changed(knife(5));
      await pass(3000);
      expect(state(here)).toMatchObject({ status: "refused", why: "The radius is not to its liking." });
      expect(await drafts()).toHaveLength(1);
      server.mood = "well";
      await pass(20_000);
      expect(saves).toEqual([]);
      here.saving.tryNow();
      await pass(100);
      expect(state(here)).toMatchObject({ status: "saved", why: null });
      expect(saves.map(({ file }) => radiusOf(file))).toEqual([5]);
    },
  );

  test.each([429, 502, 503, 504])(
    "an answer of %i means away: it is tried again by itself",
    async (status) => {
      const { saves, state: server } = pretendServer();
      const here = await openHere();
      server.mood = { status, title: "Later." };
      here.saving.changed(knife(5));
      await pass(800);
      expect(state(here).status).toBe("away");
      server.mood = "well";
      for (let i = 0; i < 8; i++) await pass(1000);
      expect(state(here).status).toBe("saved");
      expect(saves).toHaveLength(1);
    },
  );

  test("what was typed while a save was refused is sent after it", async () => {
    const { saves, state: server } = pretendServer();
    const here = await openHere();
    server.mood = { status: 422, title: "No." };
    here.saving.changed(knife(5));
    await vi.advanceTimersByTimeAsync(500);
    here.saving.changed(knife(6));
    server.mood = "well";
    await pass(2000);
    expect(saves.map(({ file }) => radiusOf(file))).toContain(6);
    expect(state(here).status).toBe("saved");
  });
});

describe("with the browser's storage full", () => {
  test("everything is sent all the same", async () => {
    const { saves } = pretendServer();
    browser.fillUp();
    const here = await openHere();
    here.saving.changed(knife(5));
    await pass(2000);
    expect(saves.map(({ file }) => radiusOf(file))).toEqual([5]);
    expect(state(here).status).toBe("saved");
  });

  test("and the server away, the page says that it alone has it, and asks before it is left", async () => {
    const { saves, state: server } = pretendServer();
    browser.fillUp();
    const here = await openHere();
    server.mood = "away";
    here.saving.changed(knife(5));
    await pass(2000);
    expect(state(here)).toMatchObject({ status: "away", isKept: false });
    const leaving = new Event("beforeunload", { cancelable: true });
    window.dispatchEvent(leaving);
    expect(leaving.defaultPrevented).toBe(true);
    server.mood = "well";
    for (let i = 0; i < 8; i++) await pass(1000);
    expect(saves.length).toBeGreaterThan(0);
    expect(state(here)).toMatchObject({ status: "saved", isKept: true });
  });
});

describe("what a tab leaves behind", () => {
  async function typedOffline(radius: number, pause = 3000) {
    const { state: server } = pretendServer();
    server.mood = "away";
    const here = await openHere();
    here.saving.changed(knife(radius));
    await pass(pause);
    return server;
  }
  const shownRadius = ({ resumed, draftOf }: Awaited<ReturnType<typeof openHere>>) =>
    radiusOf(draftOf(resumed!.drafts[0]!)!.latest);

  test("comes back when the tab is loaded again, and is saved", async () => {
    const server = await typedOffline(8);
    browser.reload();
    server.mood = "well";
    const again = await openHere();
    expect(shownRadius(again)).toBe(8);
    expect(again.left).toEqual([]);
    await pass(3000);
    expect(state(again)).toMatchObject({ status: "saved", revision: 2 });
    expect(await drafts()).toEqual([]);
  });

  test("is kept too when the page goes within a moment of a keystroke", async () => {
    await typedOffline(8, 0);
    window.dispatchEvent(new Event("pagehide"));
    browser.reload();
    expect(shownRadius(await openHere())).toBe(8);
  });

  test("what was jotted down in the last moment does not come back once a later one is saved", async () => {
    const server = await typedOffline(8, 0);
    window.dispatchEvent(new Event("pagehide"));
    server.mood = "well";
    await pass(3000);
    expect(await drafts()).toEqual([]);
    browser.reload();
    expect((await openHere()).resumed).toBeNull();
  });

  test("comes back in another tab when it is the only one of a tab that is closed", async () => {
    await typedOffline(8);
    browser.closeTab(tab);
    browser.openTab();
    expect(shownRadius(await openHere())).toBe(8);
    // It is this tab's now: loaded again it is there again, once.
    browser.reload();
    const again = await openHere();
    expect(shownRadius(again)).toBe(8);
    expect(again.left).toEqual([]);
  });

  test("a living tab's is left to it", async () => {
    await typedOffline(8);
    browser.openTab();
    const other = await openHere();
    expect(other.resumed).toBeNull();
    expect(other.left).toEqual([]);
    expect(await drafts()).toHaveLength(1);
  });

  test("of two closed tabs is offered, each with its time; nothing is deleted before somebody has decided", async () => {
    vi.setSystemTime(Date.UTC(2026, 10, 20, 9, 0));
    await typedOffline(7);
    const second = browser.openTab();
    vi.setSystemTime(Date.UTC(2026, 10, 20, 11, 30));
    await typedOffline(8);
    browser.closeTab(tab);
    browser.closeTab(second);
    browser.openTab();
    const third = await openHere();
    expect(third.resumed).toBeNull();
    const found = third.left.map((work) => [
      radiusOf(third.draftOf(work.drafts[0]!)!.latest),
      new Date(work.at).getUTCHours(),
    ]);
    expect(found).toEqual([
      [8, 11],
      [7, 9],
    ]);
    // Not decided, they are offered again.
    browser.reload();
    const again = await openHere();
    expect(again.left).toHaveLength(2);
    const { claimDrafts, forgetDrafts } = await import("../../src/saving/drafts.ts");
    const [newer, older] = again.left;
    await claimDrafts(newer!.drafts);
    again.saving.adopt(again.draftOf(newer!.drafts[0]!)!);
    expect(again.shown.map(radiusOf)).toEqual([8]);
    await forgetDrafts(older!.drafts);
    expect((await drafts()).map(({ draft }) => radiusOf((draft as { latest: Blade }).latest))).toEqual([8]);
  });

  test("what is no blade any more is offered as such, and stays until it is decided", async () => {
    pretendServer();
    localStorage.setItem(
      "true-spine-draft:one:old",
      JSON.stringify({ latest: { name: "broken" }, base: 1, sent: null }),
    );
    localStorage.setItem("true-spine-draft:one:older", "{");
    const here = await openHere();
    expect(here.resumed).toBeNull();
    expect(here.left.flatMap((work) => work.drafts.map(here.draftOf))).toEqual([null, null]);
    // What is typed now does not write over it.
    here.saving.changed(knife(5));
    await pass(3000);
    expect(await drafts()).toHaveLength(2);
    expect(localStorage).toHaveLength(0);
  });

  test("this tab's own that is not sound any more is put aside, not written over", async () => {
    await typedOffline(8);
    const store = await (await import("../../src/saving/browser-store.ts")).browserStore();
    const [mine] = await store.getAll("drafts");
    await store.put("drafts", { ...mine!, draft: { latest: { name: "broken" }, base: 1, sent: null } });
    browser.reload();
    const again = await openHere();
    expect(again.resumed).toBeNull();
    expect(again.left).toHaveLength(1);
    again.saving.changed(knife(6));
    await settled();
    await vi.advanceTimersByTimeAsync(100);
    await settled();
    expect(await drafts()).toHaveLength(2);
  });

  test("an earlier version's is taken over, and local storage is empty afterwards", async () => {
    pretendServer();
    const sent = { file: knife(6), base: 1, saveKey: "5d1f8a0e-6f55-4d0f-9f7a-000000000001" };
    localStorage.setItem(
      "true-spine-draft:one:5d1f8a0e-6f55-4d0f-9f7a-3b1f2a9b7c10",
      JSON.stringify({ latest: knife(7), base: 1, sent }),
    );
    const here = await openHere();
    expect(shownRadius(here)).toBe(7);
    expect(here.draftOf(here.resumed!.drafts[0]!)!.sent).toEqual(sent);
    expect(localStorage).toHaveLength(0);
  });

  test("a photo lies here once, not twice, while it is on its way", async () => {
    const server = await typedOffline(8);
    const [kept] = await drafts();
    const draft = kept!.draft as { latest: Blade; sent: { file: Blade } };
    expect(draft.sent.file).toBe(draft.latest);
    expect(server.mood).toBe("away");
  });
});

describe("without a secure context", () => {
  test("tabs find each other by asking, and ids are made all the same", async () => {
    Object.defineProperty(navigator, "locks", { value: undefined, configurable: true });
    vi.stubGlobal("crypto", { getRandomValues: crypto.getRandomValues.bind(crypto) });
    vi.useRealTimers();
    const { newId } = await import("../../src/saving/id.ts");
    const ids = Array.from({ length: 50 }, newId);
    for (const id of ids)
      expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    expect(new Set(ids).size).toBe(50);
    const first = await import("../../src/saving/tab.ts");
    const mine = await first.thisTab();
    vi.resetModules();
    // A copy of the tab has its memory of the id, too; the first one still answers to it.
    const copy = await import("../../src/saving/tab.ts");
    const theirs = await copy.thisTab();
    expect(theirs).not.toBe(mine);
    const living = await copy.livingTabs();
    expect([living.has(mine), living.has(theirs), living.has("gone")]).toEqual([true, true, false]);
  });
});
