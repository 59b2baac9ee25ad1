import { randomUUID } from "node:crypto";
import { NO_DOCUMENTS } from "@true-spine/core/registry/documents.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { named, openApi } from "./api.ts";

/** History is thinned by its rule, and never by anything else. */
let api: Awaited<ReturnType<typeof openApi>>;
let id: string;
beforeAll(async () => {
  api = await openApi();
  id = randomUUID();
  await api.send("POST", "/blades", { id, file: named("Long worked on") });
  // Eleven more, three a day: days 200 to 197 before today, then yesterday.
  for (let n = 1; n <= 13; n++) {
    const save = { file: named(`Revision ${n + 1}`), base: n, saveKey: randomUUID() };
    expect((await api.send("PUT", `/blades/${id}`, save)).status).toBe(200);
  }
  await api.db.execute(sql`
    update revisions set created_at = date_trunc('day', now() at time zone 'UTC') at time zone 'UTC'
      - (200 - (number - 1) / 3) * interval '1 day' + number * interval '1 minute' where blade_id = ${id} and number <= 12`);
  await api.send("PATCH", `/blades/${id}/revisions/4`, { label: "before the heat" });
  await api.db.execute(
    sql`update revisions set label = 'back to revision 7' where blade_id = ${id} and number = 14`,
  );
  const batch = {
    id: randomUUID(),
    when: "2026-01-01T10:00:00Z",
    blade: id,
    revision: 8,
    material: "pine",
    cuts: 50,
    force: 155,
    least: 0.3,
    most: 0.4,
    angle: 10,
    damage: "none",
  };
  const file = { ...USUAL_SHOP, trials: [batch] };
  expect((await api.send("PUT", "/shop", { file, base: 0, saveKey: randomUUID() })).status).toBe(200);
  for (let n = 0; n < 4; n++) {
    const limits = { ...NO_DOCUMENTS.limits, behind: { least: 0.1, most: 0.5, reason: `State ${n}` } };
    await api.send("PUT", `/blades/${id}/documents/limits`, { file: limits, base: n, saveKey: randomUUID() });
  }
  await api.db.execute(sql`update documents set created_at = now() - interval '100 days' + number * interval '1 second'
    where blade_id = ${id} and number < 4`);
});
afterAll(() => api.close());

const numbers = async () =>
  (await api.send("GET", `/blades/${id}/revisions`)).body
    .map(({ number }: { number: number }) => number)
    .reverse();

test("what would go is told, and stays while there is no good copy", async () => {
  // Of 1 to 3, 4 to 6, 7 to 9, 10 to 12, a day each: the last stays, and 1, 4, 7, 8 by what they are.
  expect((await api.send("GET", "/history")).body).toEqual({ revisions: 4, documents: 2 });
  expect(await numbers()).toHaveLength(14);
  const refused = await api.send("POST", "/history/thin");
  expect(refused).toMatchObject({ status: 409, body: { title: expect.stringMatching(/Make one first/) } });
  expect(await numbers()).toHaveLength(14);
});

test("of each old day the last stays, and what has a name, is named, is the first or stands", async () => {
  await api.db.execute(sql`insert into copies (ended_at, is_good) values (now(), true)`);
  expect((await api.send("POST", "/history/thin")).body).toEqual({ revisions: 4, documents: 2 });
  expect(await numbers()).toEqual([1, 3, 4, 6, 7, 8, 9, 12, 13, 14]);
  expect((await api.send("POST", "/history/thin")).body).toEqual({ revisions: 0, documents: 0 });
  const states = (await api.send("GET", `/blades/${id}/documents`)).body.map(
    ({ number }: { number: number }) => number,
  );
  expect(states).toEqual([3, 4]);
  // And it is worked on as ever.
  const save = { file: named("Goes on"), base: 14, saveKey: randomUUID() };
  expect((await api.send("PUT", `/blades/${id}`, save)).body).toEqual({ revision: 15 });
  expect(
    (await api.send("POST", `/blades/${id}/revisions/9/restore`, { base: 15, saveKey: randomUUID() })).body,
  ).toEqual({
    revision: 16,
  });
});
