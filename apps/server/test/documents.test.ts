import { randomUUID } from "node:crypto";
import { NO_LIMITS } from "@true-spine/core/findings/limits.ts";
import { NO_HANDLE } from "@true-spine/core/handle/schema.ts";
import { NO_PHOTO } from "@true-spine/core/photo/schema.ts";
import { NO_ROUTE, type Route, type StageKind } from "@true-spine/core/route/schema.ts";
import { afterAll, beforeAll, describe, expect, inject, test } from "vitest";
import { openDatabase } from "../src/database.ts";
import { Judging } from "../src/judging/judging.ts";
import { documents } from "../src/schema/blades.ts";
import { apiOn, fieldKnife, openApi } from "./api.ts";

let api: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  api = await openApi();
});
afterAll(() => api.close());

async function make() {
  const id = randomUUID();
  const file = fieldKnife((blade) => (blade.use = "field"));
  expect((await api.send("POST", "/blades", { id, file })).status).toBe(201);
  return id;
}

const strict = { ...NO_LIMITS, behind: { least: 0.1, most: 0.25, reason: "slices only" } };
const put = (id: string, kind: string, base: number, file: unknown, saveKey = randomUUID()) =>
  api.send("PUT", `/blades/${id}/documents/${kind}`, { base, saveKey, file });

describe("a blade's other documents", () => {
  test("there is none at first; saved, it stands, and the rack judges by it at once", async () => {
    const id = await make();
    expect((await api.send("GET", `/blades/${id}/documents/limits`)).body).toEqual({
      revision: 0,
      file: null,
    });
    const before = (await api.send("GET", `/blades/${id}`)).body.summary;
    expect((await put(id, "limits", 0, strict)).body).toEqual({ revision: 1 });
    expect((await api.send("GET", `/blades/${id}/documents/limits`)).body).toEqual({
      revision: 1,
      file: strict,
    });
    const after = (await api.send("GET", `/blades/${id}`)).body.summary;
    expect(after.fix).toBeGreaterThan(before.fix);
    expect(after.worst).toMatch(/wants 0\.10 mm to 0\.25 mm/);
  });

  test("a photo is kept as it was sent; one from elsewhere, and a route with a stage twice, are refused with their paths", async () => {
    const id = await make();
    const picture = { data: "data:image/jpeg;base64,/9j/4AAQ", width: 12, height: 8 };
    expect((await put(id, "photo", 0, { ...NO_PHOTO, picture })).body).toEqual({ revision: 1 });
    expect((await api.send("GET", `/blades/${id}/documents/photo`)).body.file).toEqual({
      ...NO_PHOTO,
      picture,
    });
    const elsewhere = await put(id, "photo", 1, {
      ...NO_PHOTO,
      picture: { ...picture, data: "https://example.org/a.jpg" },
    });
    expect(elsewhere.status).toBe(422);
    expect(JSON.stringify(elsewhere.body)).toContain("picture");
    const stages = [{ kind: "rough" }, { kind: "rough" }];
    const twice = await put(id, "route", 0, { ...NO_ROUTE, stages });
    expect(twice.status).toBe(422);
    expect(JSON.stringify(twice.body)).toContain("another stage's name already");
    expect((await api.send("GET", `/blades/${id}/documents/photo`)).body.revision).toBe(1);
    expect((await api.send("GET", `/blades/${id}/documents/route`)).body).toEqual({
      revision: 0,
      file: null,
    });
  });

  test("a route kept before stages had names of their own is read with them, and what was taken off it too", async () => {
    const name = `test_${randomUUID().replaceAll("-", "")}`;
    const { db, close } = await openDatabase(inject("databaseUrl"), name);
    const judging = new Judging();
    const { send } = apiOn(db, judging);
    const id = randomUUID();
    await send("POST", "/blades", { id, file: fieldKnife() });
    const old = (...kinds: StageKind[]) =>
      ({ ...NO_ROUTE, stages: kinds.map((kind) => ({ kind })) }) as unknown as Route;
    for (const [i, file] of [old("stock", "rough"), old("stock")].entries())
      await db
        .insert(documents)
        .values({ bladeId: id, kind: "route", number: i + 1, file, saveKey: randomUUID() });
    const { body } = await send("GET", `/blades/${id}/documents/route`);
    expect(body.file.stages).toEqual([{ id: "stock", kind: "stock" }]);
    const removed = await send("GET", `/blades/${id}/removed-stages`);
    expect(JSON.stringify(removed.body)).toContain('"id":"rough"');
    await judging.close();
    await close();
  });

  test("a save of the blade itself goes on being judged by them", async () => {
    const id = await make();
    await put(id, "limits", 0, strict);
    const file = fieldKnife((blade) => Object.assign(blade, { use: "field", name: "Again" }));
    await api.send("PUT", `/blades/${id}`, { base: 1, saveKey: randomUUID(), file });
    expect((await api.send("GET", `/blades/${id}`)).body.summary.worst).toMatch(/0\.25 mm/);
  });

  test("a save sent twice is one; a stale one is refused with what stands", async () => {
    const id = await make();
    const saveKey = randomUUID();
    expect((await put(id, "handle", 0, NO_HANDLE, saveKey)).body).toEqual({ revision: 1 });
    expect((await put(id, "handle", 0, NO_HANDLE, saveKey)).body).toEqual({ revision: 1 });
    expect(await put(id, "handle", 0, NO_HANDLE)).toMatchObject({
      status: 409,
      body: { revision: 1, file: NO_HANDLE },
    });
  });

  test("of two sent at the same moment exactly one is taken", async () => {
    const id = await make();
    const answers = await Promise.all(Array.from({ length: 6 }, () => put(id, "limits", 0, strict)));
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409, 409, 409, 409, 409]);
  });

  test("a copy has its own of each", async () => {
    const id = await make();
    await put(id, "limits", 0, strict);
    const copy = randomUUID();
    await api.send("POST", `/blades/${id}/copy`, { id: copy });
    await put(id, "limits", 1, NO_LIMITS);
    expect((await api.send("GET", `/blades/${copy}/documents/limits`)).body.file).toEqual(strict);
    expect((await api.send("GET", `/blades/${copy}`)).body.summary.worst).toMatch(/0\.25 mm/);
  });

  test("faults, unknown kinds and missing blades are told", async () => {
    const id = await make();
    const refused = await put(id, "limits", 0, { ...NO_LIMITS, behind: { least: 0.1, most: 0.2 } });
    expect(refused).toMatchObject({ status: 422, body: { faults: [{ path: "$.behind.reason" }] } });
    expect((await put(id, "poems", 0, {})).status).toBe(404);
    expect((await put(randomUUID(), "limits", 0, strict)).status).toBe(404);
    expect((await api.send("GET", `/blades/${randomUUID()}/documents/limits`)).status).toBe(404);
  });
});

describe("stages taken off a route", () => {
  const stage = (kind: string, more = {}) => ({ kind, ...more });
  test("stand in a list, as they last stood, until they are on the route again", async () => {
    const id = await make();
    const route = (...stages: object[]) => ({ ...NO_ROUTE, stages });
    await put(id, "route", 0, route(stage("rough"), stage("harden", { note: "oil at 55" }), stage("finish")));
    await put(id, "route", 1, route(stage("rough"), stage("finish")));
    await put(id, "route", 2, route(stage("finish")));
    const removed = async () => (await api.send("GET", `/blades/${id}/removed-stages`)).body;
    expect(await removed()).toEqual([
      { stage: { id: "rough", kind: "rough" }, at: expect.any(String) },
      { stage: { id: "harden", kind: "harden", note: "oil at 55" }, at: expect.any(String) },
    ]);
    await put(id, "route", 3, route(stage("harden", { note: "oil at 55" }), stage("finish")));
    expect((await removed()).map((one: { stage: { kind: string } }) => one.stage.kind)).toEqual(["rough"]);
  });

  test("a day that no calendar has is refused with its path", async () => {
    const id = await make();
    const stages = [
      stage("rough", { done: "2026-02-30T10:00:00Z" }),
      stage("finish", { planned: "2026-04-31" }),
    ];
    const answer = await put(id, "route", 0, { ...NO_ROUTE, stages });
    expect(answer.status).toBe(422);
    expect(answer.body.faults.map(({ path }: { path: string }) => path)).toEqual([
      "$.stages[0].done",
      "$.stages[1].planned",
    ]);
  });
});

test("every kind of document has its published schema", async () => {
  for (const kind of ["blade", "handle", "limits"]) {
    expect((await api.send("GET", `/schema/${kind}`)).body.$id).toBe(`urn:true-spine:${kind}:1`);
  }
  expect((await api.send("GET", "/schema/poems")).status).toBe(404);
});
