import { randomUUID } from "node:crypto";
import { parseBlade } from "@true-spine/core/blade/parse.ts";
import { withChanges } from "@true-spine/core/findings/finding.ts";
import { confirmRemedies, isSameFinding, judge } from "@true-spine/core/findings/judge.ts";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { DEMO_BLADES } from "../src/demo/blades.ts";
import { seedDemo } from "../src/demo/seed.ts";
import { fieldKnife, named, openApi } from "./api.ts";

let api: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  api = await openApi();
});
afterAll(() => api.close());

async function make(name = "Test knife") {
  const id = randomUUID();
  const made = await api.send("POST", "/blades", { id, file: named(name) });
  expect(made.status).toBe(201);
  return id;
}

const save = (id: string, base: number, name: string, saveKey = randomUUID()) =>
  api.send("PUT", `/blades/${id}`, { base, saveKey, file: named(name) });

describe("a blade on record", () => {
  test("is created once however often it is sent, and read back as it was", async () => {
    const id = randomUUID();
    const file = fieldKnife();
    for (let i = 0; i < 2; i++) {
      const made = await api.send("POST", "/blades", { id, file });
      expect(made).toMatchObject({ status: 201, body: { id, revision: 1, state: "design" } });
    }
    const { body } = await api.send("GET", `/blades/${id}`);
    expect(body.file).toEqual(file);
    expect(body.summary.length).toBe(125);
    expect(body.summary.mass).toBeCloseTo(129.03, 1);
    expect(body.summary.outline).toMatch(/^M0\.00 .*Z$/);
  });

  test("keeps every revision, and any can come back", async () => {
    const id = await make("One");
    expect((await save(id, 1, "Two")).body).toEqual({ revision: 2 });
    expect((await save(id, 2, "Three")).body).toEqual({ revision: 3 });
    const { body: all } = await api.send("GET", `/blades/${id}/revisions`);
    expect(all.map((row: { number: number }) => row.number)).toEqual([3, 2, 1]);
    const old = await api.send("GET", `/blades/${id}/revisions/1`);
    expect(old.body.file.name).toBe("One");
    const back = await api.send("POST", `/blades/${id}/revisions/1/restore`, {
      base: 3,
      saveKey: randomUUID(),
    });
    expect(back.body).toEqual({ revision: 4 });
    const now = await api.send("GET", `/blades/${id}`);
    expect(now.body).toMatchObject({ name: "One", revision: 4 });
    const labels = (await api.send("GET", `/blades/${id}/revisions`)).body;
    expect(labels[0].label).toBe("back to revision 1");
  });

  test("a revision can be given a name", async () => {
    const id = await make();
    expect((await api.send("PATCH", `/blades/${id}/revisions/1`, { label: "to the oven" })).status).toBe(204);
    expect((await api.send("GET", `/blades/${id}/revisions`)).body[0].label).toBe("to the oven");
    expect((await api.send("PATCH", `/blades/${id}/revisions/9`, { label: "x" })).status).toBe(404);
  });

  test("a stale save is refused, with the standing version beside it", async () => {
    const id = await make("Base");
    await save(id, 1, "Theirs");
    const stale = await save(id, 1, "Mine");
    expect(stale.status).toBe(409);
    expect(stale.headers.get("content-type")).toBe("application/problem+json");
    expect(stale.body).toMatchObject({ status: 409, revision: 2, file: { name: "Theirs" } });
    expect((await api.send("GET", `/blades/${id}`)).body.name).toBe("Theirs");
  });

  test("the same save sent twice is one revision, even after others have followed", async () => {
    const id = await make("Base");
    const key = randomUUID();
    expect((await save(id, 1, "Mine", key)).body).toEqual({ revision: 2 });
    expect((await save(id, 1, "Mine", key)).body).toEqual({ revision: 2 });
    await save(id, 2, "Later");
    expect((await save(id, 1, "Mine", key)).body).toEqual({ revision: 2 });
    expect((await api.send("GET", `/blades/${id}`)).body).toMatchObject({ name: "Later", revision: 3 });
  });

  test("of many saves at once on one base, exactly one lands", async () => {
    const id = await make("Base");
    const answers = await Promise.all(Array.from({ length: 12 }, (_, i) => save(id, 1, `Tab ${i}`)));
    expect(answers.filter((answer) => answer.status === 200)).toHaveLength(1);
    expect(answers.filter((answer) => answer.status === 409)).toHaveLength(11);
    expect((await api.send("GET", `/blades/${id}/revisions`)).body).toHaveLength(2);
  });

  test("is copied, marked, archived, thrown away and taken back", async () => {
    const id = await make("Original");
    const copyId = randomUUID();
    const copy = await api.send("POST", `/blades/${id}/copy`, { id: copyId });
    expect(copy.body).toMatchObject({ id: copyId, name: "Original (copy)", revision: 1 });
    expect((await api.send("PATCH", `/blades/${id}`, { state: "in work" })).body.state).toBe("in work");
    await api.send("PATCH", `/blades/${id}`, { archived: true });
    const names = async (query: string) =>
      (await api.send("GET", `/blades?search=Original${query}`)).body.map((row: { id: string }) => row.id);
    expect(await names("")).toEqual([copyId]);
    expect(await names("&archived=true")).toEqual([id]);
    expect((await api.send("DELETE", `/blades/${id}`)).status).toBe(204);
    expect((await api.send("GET", `/blades/${id}`)).status).toBe(404);
    expect((await save(id, 1, "Gone")).status).toBe(404);
    const back = await api.send("POST", `/blades/${id}/take-back`);
    expect(back.body).toMatchObject({ id, name: "Original" });
  });

  test("is found by name, purpose or steel, and a search for signs is only a search", async () => {
    const id = randomUUID();
    const file = fieldKnife((blade) =>
      Object.assign(blade, { name: "100 % Heron", use: "slicer", steel: "O1" }),
    );
    await api.send("POST", "/blades", { id, file });
    const found = async (search: string) =>
      (await api.send("GET", `/blades?search=${encodeURIComponent(search)}`)).body.map(
        (row: { id: string }) => row.id,
      );
    for (const search of ["heron", "slicer", "o1", "100 %"]) expect(await found(search)).toContain(id);
    expect(await found("1_0 %")).toEqual([]);
    expect(await found("'; drop table blades; --")).toEqual([]);
    expect(await found("heron")).toEqual([id]);
  });
});

test("an id that is known is the same blade sent again, or refused", async () => {
  const id = randomUUID();
  expect((await api.send("POST", "/blades", { id, file: named("First") })).status).toBe(201);
  await save(id, 1, "Second");
  const again = await api.send("POST", "/blades", { id, file: named("First") });
  expect(again.status).toBe(201);
  expect(again.body).toMatchObject({ name: "Second", revision: 2 });
  const other = await api.send("POST", "/blades", { id, file: named("Other") });
  expect(other.status).toBe(409);
  expect((await api.send("GET", `/blades/${id}`)).body.name).toBe("Second");
});

test("what was deleted stands in a list, the newest first, from where it is taken back", async () => {
  const [one, two] = [await make("Gone first"), await make("Gone last")];
  await api.send("DELETE", `/blades/${one}`);
  await api.send("DELETE", `/blades/${two}`);
  const deleted = async () =>
    (await api.send("GET", "/blades/deleted")).body.map((row: { id: string }) => row.id);
  expect((await deleted()).slice(0, 2)).toEqual([two, one]);
  // Deleted again, it does not count from anew.
  await api.send("DELETE", `/blades/${one}`);
  expect((await deleted()).slice(0, 2)).toEqual([two, one]);
  await api.send("POST", `/blades/${one}/take-back`);
  expect(await deleted()).not.toContain(one);
  await api.db.execute(sql`update blades set deleted_at = now() - interval '31 days' where id = ${two}`);
  expect(await deleted()).not.toContain(two);
});

describe("bad input", () => {
  test.each<[string, unknown, number, string | undefined]>([
    ["no body", undefined, 415, undefined],
    ["no JSON", "{", 400, undefined],
    ["nothing in it", {}, 422, "$.id"],
    ["an unknown key", { id: randomUUID(), file: fieldKnife(), extra: 1 }, 422, "$.extra"],
    ["an id that is none", { id: "1", file: fieldKnife() }, 422, "$.id"],
    [
      "a blade with a fault",
      { id: randomUUID(), file: fieldKnife((b) => (b.thickness[0]!.t = 99)) },
      422,
      "$.thickness[0].t",
    ],
    [
      "a name with a nul",
      { id: randomUUID(), file: fieldKnife((b) => (b.name = "a\u0000b")) },
      422,
      "$.name",
    ],
    ["nested without end", `{"id":"x","file":${"[".repeat(10_000)}${"]".repeat(10_000)}}`, 413, undefined],
    ["half a character", { id: randomUUID(), file: fieldKnife((b) => (b.name = "a\ud800b")) }, 422, "$.name"],
    ["far too much", "x".repeat(3 * 1024 * 1024), 413, undefined],
  ])("%s", async (_, body, status, path) => {
    const answer = await api.send("POST", "/blades", body);
    expect(answer.status).toBe(status);
    expect(answer.headers.get("content-type")).toBe("application/problem+json");
    expect(answer.body.title).toMatch(/\w+ \w+/);
    if (path) expect(answer.body.faults.map((fault: { path: string }) => fault.path)).toContain(path);
    expect(JSON.stringify(answer.body)).not.toMatch(/node_modules|\bat .*:\d+/);
  });

  test("a faulty save leaves the record as it was", async () => {
    const id = await make("Sound");
    const file = fieldKnife((blade) => (blade.outline.edge[2]!.at = [125, -8]));
    const refused = await api.send("PUT", `/blades/${id}`, { base: 1, saveKey: randomUUID(), file });
    expect(refused.status).toBe(422);
    expect((await api.send("GET", `/blades/${id}`)).body).toMatchObject({ name: "Sound", revision: 1 });
  });

  test("a nul in a label or a search is no reason to break", async () => {
    const id = await make();
    const label = await api.send("PATCH", `/blades/${id}/revisions/1`, { label: "a\u0000b" });
    expect(label).toMatchObject({ status: 422, body: { faults: [{ path: "$.label" }] } });
    const found = await api.send("GET", "/blades?search=a%00b%ed%a0%80");
    expect(found.status).toBe(200);
  });

  test("addresses that lead nowhere say so", async () => {
    for (const path of ["/nothing", "/blades/7", `/blades/${randomUUID()}`, "/blades/x/revisions/1"]) {
      const answer = await api.send("GET", path);
      expect(answer.status).toBe(404);
      expect(answer.headers.get("content-type")).toBe("application/problem+json");
    }
  });

  test.each(["http://elsewhere.example", "null", "nonsense"])(
    "a page from %s cannot write here",
    async (origin) => {
      const headers = { origin, host: "127.0.0.1" };
      const answer = await api.send("POST", "/blades", { id: randomUUID(), file: fieldKnife() }, headers);
      expect(answer.status).toBe(403);
    },
  );
});

test("what was saved is there after the server starts again", async () => {
  const first = await openApi();
  const id = randomUUID();
  await first.send("POST", "/blades", { id, file: named("Overnight") });
  await first.close();
  const second = await openApi(first.name);
  expect((await second.send("GET", `/blades/${id}`)).body.name).toBe("Overnight");
  await second.close();
});

test("health and the published schema answer", async () => {
  expect((await api.send("GET", "/health")).body).toEqual({ status: "ok", database: "ok" });
  expect((await api.send("GET", "/schema/blade")).body.$id).toBe("urn:true-spine:blade:1");
});

describe("the demo workshop", () => {
  test("every revision of every blade is sound", () => {
    for (const { history, file } of DEMO_BLADES) {
      for (const one of [...history.map((h) => h.file), file]) expect(parseBlade(one).ok).toBe(true);
    }
  });

  test("what is offered for its faults holds: each remedy clears its finding and makes nothing new to fix", () => {
    let tried = 0;
    for (const { file } of DEMO_BLADES) {
      const before = judge(file).findings;
      for (const finding of confirmRemedies(file, before)) {
        for (const remedy of finding.remedies) {
          tried++;
          const parsed = parseBlade(withChanges(file, remedy.changes));
          if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
          const after = judge(parsed.blade, parsed.field).findings;
          expect(after.some((other) => isSameFinding(other, finding))).toBe(false);
          const fixes = after.filter((other) => other.severity === "fix");
          expect(fixes.every((fix) => before.some((known) => isSameFinding(known, fix)))).toBe(true);
        }
      }
    }
    expect(tried).toBeGreaterThan(5);
  });

  test("is put into an empty database, once, with one blade sound and one with faults", async () => {
    const demo = await openApi();
    await seedDemo(demo);
    await seedDemo(demo);
    const { body } = await demo.send("GET", "/blades");
    expect(body).toHaveLength(DEMO_BLADES.length);
    const by = (state: string) => body.find((row: { state: string }) => row.state === state);
    expect(by("finished").summary).toMatchObject({ fix: 0, watch: 0 });
    expect(by("design").summary.fix).toBeGreaterThan(1);
    expect(by("in work").revision).toBe(3);
    await demo.close();
  });
});
