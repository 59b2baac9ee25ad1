import { randomUUID } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { parseBlade } from "@true-spine/core/blade/parse.ts";
import { parseReading } from "@true-spine/core/inspect/parse.ts";
import { parseRun } from "@true-spine/core/inspect/run-schema.ts";
import { DOCUMENT_KINDS, parseDocument } from "@true-spine/core/registry/documents.ts";
import { Client } from "pg";
import { describe, expect, inject, test } from "vitest";
import { openApi } from "./api.ts";

const folder = new URL("dumps/", import.meta.url);
const dumps = readdirSync(folder).map((name) => name.replace(".sql.gz", ""));
const { entries } = JSON.parse(
  readFileSync(new URL("../migrations/meta/_journal.json", import.meta.url), "utf8"),
) as { entries: { tag: string }[] };
const tags = entries.map(({ tag }) => tag);
/** The first version of which a dump was left. */
const FIRST = "0003_readings";

/** Puts a dump into a database of its own, as it was written; with what is in it, counted there. */
async function restored(tag: string) {
  const name = `dump_${randomUUID().replaceAll("-", "")}`;
  const admin = new Client({ connectionString: inject("databaseUrl") });
  await admin.connect();
  await admin.query(`create database ${name}`);
  await admin.end();
  const url = new URL(inject("databaseUrl"));
  url.pathname = `/${name}`;
  const client = new Client({ connectionString: url.href });
  await client.connect();
  const text = gunzipSync(readFileSync(new URL(`${tag}.sql.gz`, folder))).toString("utf8");
  // Lines for psql itself are not SQL.
  await client.query(text.replace(/^\\.*$/gm, ""));
  const count = async (table: string) =>
    Number((await client.query(`select count(*) from public.${table}`)).rows[0].count);
  const counts = { blades: await count("blades"), readings: await count("readings") };
  await client.end();
  return { name, counts };
}

describe("what an earlier version left in the database", () => {
  test("every migration leaves a dump of the version before it", () => {
    const wanted = tags.slice(tags.indexOf(FIRST), -1);
    expect(dumps).toEqual(expect.arrayContaining(wanted));
    for (const tag of dumps) expect(tags).toContain(tag);
  });

  test.each(dumps)("%s is migrated, and all of it is there and sound", async (tag) => {
    const { name, counts } = await restored(tag);
    const api = await openApi(name);
    const get = async (path: string) => {
      const answer = await api.send("GET", path);
      expect(answer.status).toBe(200);
      return answer.body;
    };
    const blades = [...(await get("/blades")), ...(await get("/blades?archived=true"))];
    expect(blades).toHaveLength(counts.blades);
    let readings = 0;
    for (const { id, revision } of blades) {
      const blade = await get(`/blades/${id}`);
      expect(parseBlade(blade.file).ok).toBe(true);
      expect(await get(`/blades/${id}/revisions`)).toHaveLength(revision);
      for (const kind of DOCUMENT_KINDS) {
        const { file } = await get(`/blades/${id}/documents/${kind}`);
        if (file) expect(parseDocument(kind, file).ok).toBe(true);
      }
      const { taken } = await get(`/blades/${id}/readings`);
      for (const reading of taken) expect(parseReading(reading).ok).toBe(true);
      readings += taken.length;
    }
    expect(readings).toBe(counts.readings);
    expect(readings).toBeGreaterThan(100);
    const [run] = await get("/runs");
    expect(parseRun(run.file).ok).toBe(true);
    // And it can be worked on.
    const { file, revision } = await get(`/blades/${blades[0].id}`);
    const save = await api.send("PUT", `/blades/${blades[0].id}`, {
      file,
      base: revision,
      saveKey: randomUUID(),
    });
    expect(save.body).toEqual({ revision: revision + 1 });
    await api.close();
  });
});
