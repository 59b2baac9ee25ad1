import { createHash, randomUUID } from "node:crypto";
import { DOCUMENT_KINDS } from "@true-spine/core/registry/documents.ts";
import { unzipSync, zipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { freshThings } from "../soak/things.ts";
import { named, openApi } from "./api.ts";

type Api = Awaited<ReturnType<typeof openApi>>;

/** Two shops, each on a database of its own. */
let here: Api;
let there: Api;
beforeAll(async () => {
  [here, there] = await Promise.all([openApi(), openApi()]);
});
afterAll(() => Promise.all([here.close(), there.close()]));

const out = async (api: Api, id: string, history = true) => {
  const answer = await api.app.request(`/api/bundles/${id}?history=${history}`, {
    headers: { host: "localhost" },
  });
  expect(answer.status).toBe(200);
  return new Uint8Array(await answer.arrayBuffer());
};
const into = async (api: Api, bytes: Uint8Array, standing = "ask") => {
  const answer = await api.app.request(`/api/bundles?standing=${standing}`, {
    method: "POST",
    headers: { host: "localhost", "content-type": "application/zip" },
    body: bytes as Uint8Array<ArrayBuffer>,
  });
  // biome-ignore lint/suspicious/noExplicitAny: answers of every kind
  return { status: answer.status, body: (await answer.json()) as any };
};
const get = async (api: Api, path: string) => (await api.send("GET", path)).body;
/** What a test changes of a bundle's list. */
interface List {
  version: number;
  blade: { id: string };
  struck: string[];
  files: { path: string; sha256: string }[];
}
const NOTHING = { revisions: 0, documents: 0, readings: 0, work: 0, struck: 0, runs: 0 };

const edge = (value: number, id = randomUUID()) => ({
  id,
  when: "2026-11-20T10:00:00.000Z",
  stage: "rough",
  what: "edge",
  u: 0.5,
  value,
  by: "hand",
});
const spent = (minutes: number) => ({
  id: randomUUID(),
  when: "2026-11-20T10:00:00.000Z",
  stage: "rough",
  what: "spent",
  minutes,
});

/** A blade with two states of everything that may belong to one, readings, work, and a run that it is in. */
async function make(api: Api) {
  const things = await freshThings(api as never);
  const ofBlade = things.filter(({ path }) => path.startsWith("/blades/"));
  const id = ofBlade[0]!.path.split("/")[2]!;
  for (const { path, file } of ofBlade) {
    const first = path.includes("/documents/") ? 0 : 1;
    for (const n of [1, 2]) {
      const save = { file: file(n), base: first + n - 1, saveKey: randomUUID() };
      expect(await api.send("PUT", path, save)).toMatchObject({ status: 200 });
    }
  }
  const readings = [edge(0.9), edge(1), edge(1.1)];
  const work = [spent(12), spent(20)];
  await api.send("POST", `/blades/${id}/readings`, { readings });
  await api.send("POST", `/blades/${id}/readings/strike`, { ids: [readings[1]!.id], struck: true });
  await api.send("POST", `/blades/${id}/work`, { work });
  const run = randomUUID();
  const file = { format: "true-spine/run", version: 1, name: "Order", blades: [id], places: [] };
  expect(await api.send("PUT", `/runs/${run}`, { file, base: 0, saveKey: randomUUID() })).toMatchObject({
    status: 200,
  });
  return { id, run, paths: ofBlade.map(({ path }) => path) };
}

/** What may be asked about a blade, but for when it was last touched here; the moments of its history to the millisecond. */
async function allOf(api: Api, id: string, paths: readonly string[]) {
  const { updatedAt: _, ...blade } = await get(api, `/blades/${id}`);
  const more = ["readings", "work", "revisions", "documents"].map((what) => `/blades/${id}/${what}`);
  const rest = await Promise.all([...paths.slice(1), ...more].map((path) => get(api, path)));
  const dated = (rows: { createdAt: string }[]) =>
    rows.map((row) => ({ ...row, createdAt: Date.parse(row.createdAt) }));
  return { blade, documents: dated(rest.pop()), revisions: dated(rest.pop()), rest };
}

describe("a blade moves whole", () => {
  test("with every kind of document, its history, readings, work and run; the same bundle again adds nothing", async () => {
    const { id, run, paths } = await make(here);
    expect(paths).toHaveLength(1 + DOCUMENT_KINDS.length);
    const bytes = await out(here, id);
    const taken = await into(there, bytes);
    expect(taken).toMatchObject({ status: 200, body: { id } });
    expect(taken.body.added).toEqual({
      revisions: 3,
      documents: 2 * DOCUMENT_KINDS.length,
      readings: 3,
      work: 2,
      struck: 1,
      runs: 1,
    });
    expect(await allOf(there, id, paths)).toEqual(await allOf(here, id, paths));
    expect((await get(there, `/runs/${run}`)).file.blades).toEqual([id]);
    for (const way of ["ask", "onto"]) expect((await into(there, bytes, way)).body.added).toEqual(NOTHING);
    expect((await into(here, bytes)).body.added).toEqual(NOTHING);
  });

  test("as it stands, without its history, and on from there", async () => {
    const { id, paths } = await make(here);
    expect((await into(there, await out(here, id, false))).body.added).toMatchObject({
      revisions: 1,
      documents: DOCUMENT_KINDS.length,
    });
    expect(await get(there, `/blades/${id}`)).toMatchObject({ revision: 3 });
    for (const path of paths.slice(1)) expect(await get(there, path)).toEqual(await get(here, path));
    const save = { file: named("On from there"), base: 3, saveKey: randomUUID() };
    expect(await there.send("PUT", `/blades/${id}`, save)).toMatchObject({
      status: 200,
      body: { revision: 4 },
    });
    // Back where it came from: what was done there is the next here.
    const bytes = await out(there, id);
    const asked = await into(here, bytes);
    expect(asked.status).toBe(409);
    expect(asked.body.title).toMatch(/stands here under the same id\. New in this bundle: 1 revision\.$/);
    expect(asked.body.standing).toMatchObject({ id });
    expect((await get(here, `/blades/${id}`)).revision).toBe(3);
    expect((await into(here, bytes, "onto")).body.added).toEqual({ ...NOTHING, revisions: 1 });
    expect(await get(here, `/blades/${id}`)).toMatchObject({ revision: 4, name: "On from there" });
  });

  test("beside the one that stands it is another blade, with readings of its own", async () => {
    const { id } = await make(here);
    const bytes = await out(here, id);
    const beside = await into(here, bytes, "beside");
    expect(beside.body.id).not.toBe(id);
    const [first, second] = [
      await get(here, `/blades/${id}/readings`),
      await get(here, `/blades/${beside.body.id}/readings`),
    ];
    expect(second.taken.map(({ value }: never) => value).sort()).toEqual([0.9, 1, 1.1]);
    expect(second.struck).toHaveLength(1);
    const ids = new Set(first.taken.map((one: { id: string }) => one.id));
    expect(second.taken.some((one: { id: string }) => ids.has(one.id))).toBe(false);
  });

  test("one that was deleted is asked about, and taken back", async () => {
    const { id } = await make(here);
    await into(there, await out(here, id));
    await there.send("DELETE", `/blades/${id}`);
    await here.send("POST", `/blades/${id}/readings`, { readings: [edge(0.8)] });
    const bytes = await out(here, id);
    expect((await into(there, bytes)).body.title).toMatch(
      /1 reading\. It was deleted here, and would be taken back\.$/,
    );
    expect((await into(there, bytes, "onto")).body.added).toEqual({ ...NOTHING, readings: 1 });
    expect((await there.send("GET", `/blades/${id}`)).status).toBe(200);
    await there.send("DELETE", `/blades/${id}`);
    expect((await into(there, bytes)).body.title).toMatch(
      /Nothing in this bundle is new\. It was deleted here/,
    );
    expect((await into(there, bytes, "onto")).body.added).toEqual(NOTHING);
    expect((await there.send("GET", `/blades/${id}`)).status).toBe(200);
  });

  test("10 000 readings go through", async () => {
    const id = randomUUID();
    await here.send("POST", "/blades", { id, file: named("Often read") });
    for (let part = 0; part < 10; part++) {
      const readings = Array.from({ length: 1000 }, (_, i) => edge(1 + (part * 1000 + i) / 1e5));
      expect((await here.send("POST", `/blades/${id}/readings`, { readings })).status).toBe(200);
    }
    expect((await into(there, await out(here, id))).body.added).toMatchObject({ readings: 10_000 });
    expect(await get(there, `/blades/${id}/readings`)).toEqual(await get(here, `/blades/${id}/readings`));
  });
});

describe("what is refused, in words, and nothing is taken in of it", () => {
  let bytes: Uint8Array;
  let id: string;
  beforeAll(async () => {
    ({ id } = await make(here));
    bytes = await out(here, id);
  });
  const changed = (change: (files: Record<string, Uint8Array>, list: List) => void) => {
    const files = unzipSync(bytes);
    const list = JSON.parse(new TextDecoder().decode(files["bundle.json"]));
    change(files, list);
    files["bundle.json"] = new TextEncoder().encode(JSON.stringify(list));
    return zipSync(files);
  };
  const refused = async (sent: Uint8Array, status: number, why: RegExp) => {
    const before = (await get(there, "/blades")).length;
    const answer = await into(there, sent);
    expect(answer).toMatchObject({ status, body: { title: expect.stringMatching(why) } });
    expect((await get(there, "/blades")).length).toBe(before);
    return answer.body;
  };
  const put = (files: Record<string, Uint8Array>, list: List, path: string, text: string) => {
    files[path] = new TextEncoder().encode(text);
    const sum = createHash("sha256").update(files[path]).digest("hex");
    list.files.find((one) => one.path === path)!.sha256 = sum;
  };

  test("what is no zip, or is cut off", async () => {
    await refused(new TextEncoder().encode("{}"), 422, /cannot be unpacked/);
    await refused(bytes.slice(0, bytes.length / 2), 422, /cannot be unpacked/);
    await refused(zipSync({ "a.json": new Uint8Array(3) }), 422, /no bundle of a blade/);
  });

  test("a newer version", async () => {
    const body = await refused(
      changed((_, list) => (list.version = 2)),
      422,
      /has faults/,
    );
    expect(body.faults[0]).toEqual({
      path: "$.version",
      message: "is 2: it was made by a newer True Spine than this one, which reads version 1",
    });
  });

  test("a file that is missing, or is not as it was written", async () => {
    await refused(
      changed((files) => delete files["blade/1.json"]),
      422,
      /blade\/1\.json is missing/,
    );
    await refused(
      changed((files) => (files["blade/1.json"]![40]! ^= 1)),
      422,
      /blade\/1\.json is not as it was written: its checksum differs/,
    );
  });

  test("a file with faults, with its name and path", async () => {
    const faulty = JSON.stringify({ ...named("x"), stock: -4 });
    const body = await refused(
      changed((files, list) => put(files, list, "blade/3.json", faulty)),
      422,
      /blade\/3\.json has faults/,
    );
    expect(body.faults[0].path).toMatch(/^\$\.stock/);
    const deep = `${"[".repeat(50_000)}${"]".repeat(50_000)}`;
    await refused(
      changed((files, list) => put(files, list, "blade/3.json", deep)),
      422,
      /blade\/3\.json (has faults|is not readable JSON)/,
    );
  });

  test("the same state twice, or a reading twice", async () => {
    await refused(
      changed((_, list) => list.files.push(list.files[0]!)),
      422,
      /blade\/1 stands in it twice/,
    );
  });

  test("a reading that is another blade's here", async () => {
    await into(there, bytes);
    const sent = changed((_, list) => (list.blade.id = randomUUID()));
    await refused(sent, 409, /known here as another blade's/);
    // Nor is one struck out that is.
    const other = await make(there);
    const { taken, struck } = await get(there, `/blades/${other.id}/readings`);
    const reading = taken.find((one: { id: string }) => !struck.includes(one.id));
    const striking = changed((_, list) => list.struck.push(reading.id));
    expect((await into(there, striking, "onto")).body.added).toEqual(NOTHING);
    expect((await get(there, `/blades/${other.id}/readings`)).struck).not.toContain(reading.id);
  });

  test("more than a bundle may be, and what is sent as something else", async () => {
    const bomb = zipSync({ "bundle.json": new Uint8Array(140 * 1024 * 1024) }, { level: 9 });
    expect(bomb.length).toBeLessThan(2 * 1024 * 1024);
    await refused(bomb, 422, /more than a blade can be/);
    const large = await here.app.request("/api/bundles", {
      method: "POST",
      headers: {
        host: "localhost",
        "content-type": "application/zip",
        "content-length": String(33 * 1024 * 1024),
      },
      body: "x",
    });
    expect(large.status).toBe(413);
    expect((await here.send("POST", "/bundles", {})).status).toBe(415);
    expect((await into(here, bytes, "somehow")).status).toBe(400);
    expect((await here.send("GET", `/bundles/${randomUUID()}`)).status).toBe(404);
  });
});
