import { randomUUID } from "node:crypto";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import { Client } from "pg";
import pino from "pino";
import { afterAll, beforeAll, describe, expect, inject, test, vi } from "vitest";
// @ts-expect-error plain JavaScript, so that it runs without the server
import { keptOf, makeCopy, readCopy, restoreInto, sumsOf } from "../../../scripts/copies.mjs";
// @ts-expect-error the same
import { openThrowawayCluster } from "../../../scripts/database.mjs";
import { Copying, isDue } from "../src/copying.ts";
import { openDatabase } from "../src/database.ts";
import { apiOn, fieldKnife, named, openApi } from "./api.ts";

const folder = mkdtempSync(join(tmpdir(), "true-spine-copies-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const urlOf = (name: string, base = inject("databaseUrl")) => {
  const url = new URL(base);
  url.pathname = `/${name}`;
  return url.href;
};

describe("which copies stay", () => {
  const day = 86_400_000;
  const noon = Date.UTC(2026, 10, 28, 12);
  const nightly = (days: number) => Array.from({ length: days }, (_, i) => noon - i * day);

  test("after two years of nights: seven days, four weeks, twelve months, each its newest", () => {
    const kept = (keptOf(nightly(730)) as number[]).map((time) => new Date(time).toISOString().slice(0, 10));
    expect(kept.slice(0, 7)).toEqual(
      ["28", "27", "26", "25", "24", "23", "22"].map((date) => `2026-11-${date}`),
    );
    // Sundays, the newest of their weeks; then the ends of months.
    expect(kept).toEqual(
      expect.arrayContaining([
        "2026-11-22",
        "2026-11-15",
        "2026-11-08",
        "2026-10-31",
        "2026-02-28",
        "2025-12-31",
      ]),
    );
    expect(kept).not.toContain("2025-11-30");
    expect(kept).toHaveLength(7 + 2 + 11);
  });

  test("none that is the only one of its time goes, and what stays once stays when it is asked again", () => {
    expect(keptOf([noon])).toEqual([noon]);
    expect(keptOf([])).toEqual([]);
    const kept = keptOf(nightly(400));
    expect(keptOf(kept)).toEqual(kept);
    // Ten within one day: the newest.
    expect(keptOf(Array.from({ length: 10 }, (_, i) => noon - i * 60_000))).toEqual([noon]);
  });
});

describe("a copy of everything", () => {
  test("is made, its cluster deleted, restored into another, and everything is there and goes on", async () => {
    const cluster = await openThrowawayCluster();
    const opened = await openDatabase(cluster.url("postgres"), "shop");
    const api = await openApi();
    const first = apiOn(opened.db, api.judging);
    const ids = [randomUUID(), randomUUID()];
    for (const id of ids) await first.send("POST", "/blades", { id, file: named(`Copied ${id}`) });
    await first.send("PUT", `/blades/${ids[0]}`, { file: fieldKnife(), base: 1, saveKey: randomUUID() });
    const before = await Promise.all(ids.map(async (id) => (await first.send("GET", `/blades/${id}`)).body));
    const copy = await makeCopy({ url: opened.url, folder });
    await opened.close();
    await cluster.stop();

    const { tables } = await readCopy(copy.file);
    const counts = Object.fromEntries(tables.map(({ name, count }: never) => [name, count]));
    expect(counts).toMatchObject({ "public.blades": 2, "public.revisions": 3, "public.shops": 0 });
    const name = `restored_${randomUUID().replaceAll("-", "")}`;
    await restoreInto(inject("databaseUrl"), name, copy.file, tables);
    const again = await openApi(name);
    for (const [i, id] of ids.entries())
      expect((await again.send("GET", `/blades/${id}`)).body).toEqual(before[i]);
    const save = { file: named("Goes on"), base: 2, saveKey: randomUUID() };
    expect((await again.send("PUT", `/blades/${ids[0]}`, save)).body).toEqual({ revision: 3 });
    await Promise.all([again.close(), api.close()]);
  });

  test.each(readdirSync(new URL("dumps/", import.meta.url)))(
    "of what %s left is restored, and brought up to date",
    async (dump) => {
      const name = `old_${randomUUID().replaceAll("-", "")}`;
      const admin = new Client({ connectionString: inject("databaseUrl") });
      await admin.connect();
      await admin.query(`create database ${name}`);
      await admin.end();
      const client = new Client({ connectionString: urlOf(name) });
      await client.connect();
      const text = gunzipSync(readFileSync(new URL(`dumps/${dump}`, import.meta.url))).toString("utf8");
      await client.query(text.replace(/^\\.*$/gm, ""));
      await client.end();
      const copy = await makeCopy({ url: urlOf(name), folder, now: new Date("2026-01-01T00:00:00Z") });
      const restored = `${name}_restored`;
      await restoreInto(inject("databaseUrl"), restored, copy.file, copy.tables);
      const api = await openApi(restored);
      expect((await api.send("GET", "/blades")).body.length).toBeGreaterThan(2);
      expect((await api.send("GET", "/devices")).body).toEqual([]);
      await api.close();
    },
  );

  test("that is not as it was written, or lacks what says so, is refused in words", async () => {
    const api = await openApi();
    const copy = await makeCopy({ url: urlOf(api.name), folder, now: new Date("2026-02-01T00:00:00Z") });
    const bytes = readFileSync(copy.file);
    bytes[bytes.length - 40]! ^= 1;
    writeFileSync(copy.file, bytes);
    await expect(readCopy(copy.file)).rejects.toThrow(/not as it was written/);
    const about = JSON.parse(readFileSync(`${copy.file}.json`, "utf8"));
    writeFileSync(`${copy.file}.json`, JSON.stringify({ ...about, version: 2 }));
    await expect(readCopy(copy.file)).rejects.toThrow(/newer True Spine/);
    rmSync(`${copy.file}.json`);
    await expect(readCopy(copy.file)).rejects.toThrow(/is missing/);
    await expect(readCopy(join(folder, "none"))).rejects.toThrow(/There is no/);
    await expect(makeCopy({ url: urlOf(api.name), folder: "here" })).rejects.toThrow(/from the root/);
    await expect(makeCopy({ url: urlOf(api.name), folder: "/proc/copies" })).rejects.toThrow(
      /cannot be made/,
    );
    await expect(makeCopy({ url: urlOf("not_there"), folder })).rejects.toThrow(
      /could not be made.*not_there/,
    );
    expect(readdirSync(folder).some((name) => name.endsWith(".unchecked"))).toBe(false);
    await api.close();
  });

  test("one row that differs is found: by the sum where the count is the same", async () => {
    const api = await openApi();
    await api.send("POST", "/blades", { id: randomUUID(), file: named("Counted") });
    const client = new Client({ connectionString: urlOf(api.name) });
    await client.connect();
    const before = await sumsOf(client);
    expect(await sumsOf(client)).toEqual(before);
    await client.query("update blades set name = 'Counted otherwise'");
    const after = await sumsOf(client);
    const differing = after.filter(({ sum }: { sum: string }, i: number) => sum !== before[i].sum);
    expect(differing.map(({ name }: { name: string }) => name)).toEqual(["public.blades"]);
    const copy = await makeCopy({ url: urlOf(api.name), folder, now: new Date("2026-03-01T00:00:00Z") });
    const name = `differs_${randomUUID().replaceAll("-", "")}`;
    await expect(restoreInto(inject("databaseUrl"), name, copy.file, before)).rejects.toThrow(
      /public\.blades has 1 rows of 1, or other ones/,
    );
    await client.end();
    await api.close();
  });
});

describe("copies that the server makes", () => {
  let api: Awaited<ReturnType<typeof openApi>>;
  let copying: Copying;
  beforeAll(async () => {
    const own = await openApi();
    copying = new Copying(own.db, urlOf(own.name), pino({ level: "silent" }));
    api = { ...own, ...apiOn(own.db, own.judging, { copying }) };
  });
  afterAll(() => api.close());
  const state = async () => (await api.send("GET", "/copies")).body;

  test("go to the folder that is named, one at a time, and what came of each is told", async () => {
    expect(await state()).toMatchObject({ isOwn: true, lastGood: null, isLate: true, rows: [] });
    expect((await state()).folder, "the program's own folder until another is named").toBe(
      process.env.TRUE_SPINE_COPIES,
    );
    for (const wrong of ["copies", "", "/a\nb"])
      expect((await api.send("PUT", "/copies", { folder: wrong })).status).toBe(422);
    const own = join(folder, "named");
    expect((await api.send("PUT", "/copies", { folder: own })).body).toMatchObject({
      folder: own,
      isOwn: false,
    });
    const begun = await Promise.all([1, 2, 3].map(() => api.send("POST", "/copies")));
    expect(begun.map(({ status }) => status)).toEqual([202, 202, 202]);
    await vi.waitFor(async () => expect((await state()).isRunning).toBe(false), {
      timeout: 300_000,
      interval: 200,
    });
    const { rows, isLate, lastGood } = await state();
    expect(rows).toEqual([
      expect.objectContaining({ isGood: true, why: null, file: expect.stringContaining(own) }),
    ]);
    expect({ isLate, lastGood: typeof lastGood }).toEqual({ isLate: false, lastGood: "string" });
    expect(existsSync(rows[0].file)).toBe(true);
  });

  test("one that fails says why, and is no good one", async () => {
    await api.send("PUT", "/copies", { folder: "/proc/copies" });
    await api.send("POST", "/copies");
    await vi.waitFor(async () => expect((await state()).isRunning).toBe(false), {
      timeout: 300_000,
      interval: 200,
    });
    const { rows } = await state();
    expect(rows[0]).toMatchObject({
      isGood: false,
      file: null,
      why: expect.stringContaining("cannot be made"),
    });
  });

  test("are due once a night: after two, where none is good since, an hour after one that failed", () => {
    const at = (time: string) => new Date(`2026-11-28T${time}:00`);
    const row = (time: Date, isGood: boolean) => ({
      startedAt: time.toISOString(),
      isGood,
      endedAt: null,
      file: null,
      bytes: null,
      why: null,
    });
    expect(isDue({ rows: [] }, at("03:00"))).toBe(true);
    expect(isDue({ rows: [row(at("02:10"), true)] }, at("03:00"))).toBe(false);
    expect(isDue({ rows: [row(at("01:00"), true)] }, at("03:00"))).toBe(true);
    // Before two it is still the night before.
    expect(isDue({ rows: [row(new Date(at("01:00").getTime() - 20 * 3600_000), true)] }, at("01:30"))).toBe(
      false,
    );
    expect(isDue({ rows: [row(at("02:10"), false)] }, at("02:40"))).toBe(false);
    expect(isDue({ rows: [row(at("02:10"), false)] }, at("03:20"))).toBe(true);
  });
});
