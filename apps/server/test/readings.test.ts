import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { named, openApi } from "./api.ts";

let api: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  api = await openApi();
});
afterAll(() => api.close());

async function make() {
  const id = randomUUID();
  expect((await api.send("POST", "/blades", { id, file: named("Read") })).status).toBe(201);
  return id;
}

const edge = (value: number, more: object = {}) => ({
  id: randomUUID(),
  when: "2026-11-20T10:00:00.000Z",
  stage: "rough",
  what: "edge",
  u: 0.5,
  value,
  by: "hand",
  ...more,
});
const take = (id: string, readings: unknown[]) => api.send("POST", `/blades/${id}/readings`, { readings });
const taken = async (id: string) => (await api.send("GET", `/blades/${id}/readings`)).body;

describe("readings", () => {
  test("are kept in the order they were taken, each once however often it is sent", async () => {
    const id = await make();
    expect(await taken(id)).toEqual({ taken: [], struck: [] });
    const late = edge(0.9, { when: "2026-11-20T12:00:00Z" });
    const early = edge(1.1, { when: "2026-11-20T09:00:00Z" });
    expect((await take(id, [late])).body).toEqual({ kept: 1 });
    expect((await take(id, [late, early])).body).toEqual({ kept: 1 });
    expect((await take(id, [late])).body).toEqual({ kept: 0 });
    expect((await taken(id)).taken.map(({ value }: { value: number }) => value)).toEqual([1.1, 0.9]);
  });

  test("ten sent at once by ten tabs are ten, and the same ten again are none", async () => {
    const id = await make();
    const all = Array.from({ length: 10 }, (_, i) => edge(1 + i / 100));
    await Promise.all(all.map((one) => take(id, [one])));
    await Promise.all(all.map((one) => take(id, [one])));
    expect((await taken(id)).taken).toHaveLength(10);
  });

  test("one that is not sound refuses the whole request, with its path, and nothing of it is kept", async () => {
    const id = await make();
    const answer = await take(id, [
      edge(0.9),
      edge(0.9, { u: undefined, x: 40 }),
      edge(-1),
      edge(0.9, { extra: 1 }),
    ]);
    expect(answer.status).toBe(422);
    const paths = answer.body.faults.map(({ path }: { path: string }) => path);
    expect(paths).toEqual(
      expect.arrayContaining(["$.readings[1].u", "$.readings[1].x", "$.readings[2].value"]),
    );
    expect(paths.some((path: string) => path.startsWith("$.readings[3]"))).toBe(true);
    expect((await taken(id)).taken).toEqual([]);
  });

  test("struck out they stay, and can be put back", async () => {
    const id = await make();
    const one = edge(0.9);
    await take(id, [one]);
    const strike = (struck: boolean) =>
      api.send("POST", `/blades/${id}/readings/strike`, { ids: [one.id], struck });
    expect((await strike(true)).status).toBe(204);
    expect(await taken(id)).toMatchObject({ taken: [{ id: one.id }], struck: [one.id] });
    await strike(false);
    expect((await taken(id)).struck).toEqual([]);
  });

  test("another blade's reading is not taken over", async () => {
    const [mine, theirs] = [await make(), await make()];
    const one = edge(0.9);
    await take(theirs, [one]);
    expect((await take(mine, [one])).status).toBe(409);
    expect((await taken(mine)).taken).toEqual([]);
  });

  test("the same 200 sent forward and backward at once are 200, and nobody is refused", async () => {
    for (let round = 0; round < 5; round++) {
      const id = await make();
      const all = Array.from({ length: 200 }, (_, i) => edge(1 + i / 1000));
      const answers = await Promise.all(
        [all, all.toReversed(), all, all.toReversed()].map((some) => take(id, some)),
      );
      expect(answers.map(({ status }) => status)).toEqual([200, 200, 200, 200]);
      expect(answers.reduce((sum, { body }) => sum + body.kept, 0)).toBe(200);
      const ids = all.map((one) => one.id);
      const strike = (some: string[], struck: boolean) =>
        api.send("POST", `/blades/${id}/readings/strike`, { ids: some, struck });
      const struck = await Promise.all([strike(ids, true), strike(ids.toReversed(), true)]);
      expect(struck.map(({ status }) => status)).toEqual([204, 204]);
    }
  });

  test("an id that is known with another value is refused, and nothing of the request is kept", async () => {
    const id = await make();
    const one = edge(0.9);
    await take(id, [one]);
    const answer = await take(id, [edge(1), { ...one, value: 0.8 }]);
    expect(answer.status).toBe(409);
    expect(answer.body.title).toMatch(/says something else/);
    expect((await taken(id)).taken).toEqual([one]);
    const twin = edge(1);
    expect((await take(id, [twin, { ...twin, value: 2 }])).status).toBe(409);
    expect((await take(id, [twin, twin])).body).toEqual({ kept: 1 });
  });

  test.each(["2026-02-30T10:00:00Z", "2026-13-01T10:00:00Z", "0000-01-01T10:00:00Z", "2026-11-20T24:00:00Z"])(
    "a time that no calendar has, %s, is refused with its path",
    async (when) => {
      const answer = await take(await make(), [edge(1, { when })]);
      expect(answer.status).toBe(422);
      expect(answer.body.faults[0]).toMatchObject({ path: "$.readings[0].when" });
      expect(answer.body.faults[0].message).toMatch(/on a day of the calendar/);
    },
  );

  test("a blade that is not there has none", async () => {
    expect((await api.send("GET", `/blades/${randomUUID()}/readings`)).status).toBe(404);
    expect((await take(randomUUID(), [edge(1)])).status).toBe(404);
  });

  test("more than a thousand at once are too many", async () => {
    const id = await make();
    expect((await take(id, new Array(1001).fill(edge(1)))).status).toBe(422);
  });
});

describe("when a blade's documents were saved", () => {
  test("is told without what stood in them", async () => {
    const id = await make();
    const check = { format: "true-spine/check", version: 1, places: [], corrections: [], accepted: [] };
    await api.send("PUT", `/blades/${id}/documents/check`, { file: check, base: 0, saveKey: randomUUID() });
    const { body } = await api.send("GET", `/blades/${id}/documents`);
    expect(body).toEqual([{ kind: "check", number: 1, createdAt: expect.any(String) }]);
  });
});

describe("runs", () => {
  const run = (blades: string[], name = "Order 9") => ({
    format: "true-spine/run",
    version: 1,
    name,
    blades,
    places: [{ stage: "rough", spot: { what: "edge", u: 0.5 } }],
  });
  const put = (id: string, base: number, file: unknown, saveKey = randomUUID()) =>
    api.send("PUT", `/runs/${id}`, { file, base, saveKey });

  test("a run answers with its blades in order and what was read at its places, struck ones left out", async () => {
    const [first, second] = [await make(), await make()];
    const wrong = edge(9);
    await take(first, [edge(1.01), wrong, edge(0.7, { stage: "finish" })]);
    await take(second, [edge(1.05), edge(1.2, { u: 0.3 })]);
    await api.send("POST", `/blades/${first}/readings/strike`, { ids: [wrong.id], struck: true });
    const id = randomUUID();
    expect((await put(id, 0, run([second, first]))).body).toEqual({ revision: 1 });
    const { body } = await api.send("GET", `/runs/${id}/readings`);
    expect(body.blades.map((blade: { id: string }) => blade.id)).toEqual([second, first]);
    expect(body.specification.id).toBe(second);
    const values = body.readings.map((one: { bladeId: string; reading: { value: number } }) => [
      one.bladeId,
      one.reading.value,
    ]);
    expect(values).toHaveLength(2);
    expect(values).toEqual(
      expect.arrayContaining([
        [first, 1.01],
        [second, 1.05],
      ]),
    );
  });

  test("a stale save is told what stands; the same save again is one, also at once", async () => {
    const id = randomUUID();
    const key = randomUUID();
    expect((await put(id, 0, run([]), key)).body).toEqual({ revision: 1 });
    expect((await put(id, 0, run([]), key)).body).toEqual({ revision: 1 });
    const stale = await put(id, 0, run([], "Other"));
    expect(stale.status).toBe(409);
    expect(stale.body).toMatchObject({ revision: 1, file: { name: "Order 9" } });
    const races = await Promise.all([put(id, 1, run([], "A")), put(id, 1, run([], "B"))]);
    expect(races.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect((await api.send("GET", "/runs")).body.some((row: { id: string }) => row.id === id)).toBe(true);
    const again = randomUUID();
    const twice = await Promise.all([put(id, 2, run([], "C"), again), put(id, 2, run([], "C"), again)]);
    expect(twice.map(({ body }) => body)).toEqual([{ revision: 3 }, { revision: 3 }]);
  });

  test("deleted it is gone from the list and stands in another, from where it is taken back as it was", async () => {
    const id = randomUUID();
    await put(id, 0, run([], "Order 12"));
    expect((await api.send("DELETE", `/runs/${id}`)).status).toBe(204);
    expect((await api.send("DELETE", `/runs/${id}`)).status).toBe(204);
    expect((await api.send("GET", `/runs/${id}`)).status).toBe(404);
    expect((await api.send("GET", "/runs")).body.some((row: { id: string }) => row.id === id)).toBe(false);
    // What is typed into it elsewhere is told so, and does not bring it back by itself.
    expect((await put(id, 1, run([], "Later"))).status).toBe(404);
    const deleted = (await api.send("GET", "/runs/deleted")).body;
    expect(deleted).toContainEqual({ id, name: "Order 12", deletedAt: expect.any(String) });
    expect((await api.send("POST", `/runs/${id}/take-back`)).status).toBe(204);
    expect((await api.send("GET", `/runs/${id}`)).body.file.name).toBe("Order 12");
    expect((await api.send("GET", "/runs/deleted")).body.map((row: { id: string }) => row.id)).not.toContain(
      id,
    );
    expect((await api.send("DELETE", `/runs/${randomUUID()}`)).status).toBe(404);
    expect((await api.send("POST", `/runs/${randomUUID()}/take-back`)).status).toBe(404);
  });

  test("a blade that was deleted leaves the run", async () => {
    const [kept, gone] = [await make(), await make()];
    const id = randomUUID();
    await put(id, 0, run([gone, kept]));
    await api.send("DELETE", `/blades/${gone}`);
    const { body } = await api.send("GET", `/runs/${id}/readings`);
    expect(body.blades.map((blade: { id: string }) => blade.id)).toEqual([kept]);
  });

  test("a faulty run is refused with its path", async () => {
    const answer = await put(randomUUID(), 0, { ...run([]), blades: ["no id"] });
    expect(answer.status).toBe(422);
    expect(answer.body.faults[0].path).toBe("$.blades[0]");
  });
});
