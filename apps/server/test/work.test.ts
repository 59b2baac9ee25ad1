import { randomUUID } from "node:crypto";
import type { WorkRow } from "@true-spine/core/work/schema.ts";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { named, openApi } from "./api.ts";

let api: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  api = await openApi();
});
afterAll(() => api.close());

async function blade(): Promise<string> {
  const id = randomUUID();
  expect((await api.send("POST", "/blades", { id, file: named("Worked") })).status).toBe(201);
  return id;
}
const done = (more: Partial<WorkRow> = {}): WorkRow =>
  ({ id: randomUUID(), when: "2026-11-20T10:00:00Z", stage: "rough", what: "done", ...more }) as WorkRow;
const take = (id: string, work: unknown[]) => api.send("POST", `/blades/${id}/work`, { work });
const read = async (id: string) => (await api.send("GET", `/blades/${id}/work`)).body;

describe("what is recorded at the work", () => {
  test("is kept in the order it was, each row once however often it is sent", async () => {
    const id = await blade();
    const [first, second] = [done({ when: "2026-11-20T09:00:00Z" }), done({ stage: "finish" })];
    expect((await take(id, [second])).body).toEqual({ kept: 1 });
    expect((await take(id, [first, second])).body).toEqual({ kept: 1 });
    expect(await read(id)).toEqual({ taken: [first, second], struck: [] });
  });

  test("is struck out and put back, never deleted", async () => {
    const id = await blade();
    const row = done();
    await take(id, [row]);
    const strike = (struck: boolean) =>
      api.send("POST", `/blades/${id}/work/strike`, { ids: [row.id], struck });
    expect((await strike(true)).status).toBe(204);
    expect(await read(id)).toEqual({ taken: [row], struck: [row.id] });
    await strike(false);
    expect(await read(id)).toEqual({ taken: [row], struck: [] });
  });

  test("under an id that says something else already, or on another blade, it is refused, and nothing of it is kept", async () => {
    const [id, other] = [await blade(), await blade()];
    const row = done();
    await take(id, [row]);
    const [fresh, changed] = [done(), { ...row, stage: "finish" }];
    expect((await take(id, [fresh, changed])).status).toBe(409);
    expect((await take(other, [row])).status).toBe(409);
    expect((await read(id)).taken).toEqual([row]);
    expect((await read(other)).taken).toEqual([]);
  });

  test("what is no row is refused with its path; a blade that is not there has none", async () => {
    const id = await blade();
    const wrong = await take(id, [done(), { ...done(), what: "dreamt" }]);
    expect(wrong.status).toBe(422);
    expect(JSON.stringify(wrong.body)).toContain("$.work[1]");
    expect((await api.send("GET", `/blades/${randomUUID()}/work`)).status).toBe(404);
  });

  test("stands beside every edit at the desk: the route is saved on its own revision meanwhile", async () => {
    const id = await blade();
    const route = (await api.send("GET", `/blades/${id}/documents/route`)).body;
    await take(id, [done()]);
    const file = {
      format: "true-spine/route",
      version: 1,
      stock: 4.5,
      oven: 0.2,
      skin: 0.1,
      coarse: 125,
      finish: { bevels: 35, flats: 35, edge: 16 },
      gap: 0.5,
      stages: [{ kind: "rough" }],
    };
    const saved = await api.send("PUT", `/blades/${id}/documents/route`, {
      file,
      base: route.revision,
      saveKey: randomUUID(),
    });
    expect(saved.status).toBe(200);
    await take(id, [done({ what: "pass", side: "left" } as Partial<WorkRow>)]);
    const standing = (await api.send("GET", `/blades/${id}/documents/route`)).body;
    expect(standing.revision).toBe(1);
    // From before stages had names of their own: it is named by its kind.
    expect(standing.file.stages).toEqual([{ id: "rough", kind: "rough" }]);
    expect((await read(id)).taken).toHaveLength(2);
  });
});
