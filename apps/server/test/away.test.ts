import { randomUUID } from "node:crypto";
import { Client } from "pg";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
// @ts-expect-error plain JavaScript, so that it runs before anything is installed
import { openThrowawayCluster } from "../../../scripts/database.mjs";
import { openDatabase } from "../src/database.ts";
import { Judging } from "../src/judging/judging.ts";
import { apiOn, named } from "./api.ts";

/** A cluster of its own: here it is killed, filled and cut off. */
let cluster: {
  url(database: string): string;
  kill(): Promise<void>;
  startAgain(): Promise<void>;
  stop(): Promise<void>;
};
let api: ReturnType<typeof apiOn>;
let judging: Judging;
let close: () => Promise<void>;

beforeAll(async () => {
  cluster = await openThrowawayCluster(["-c", "max_connections=20"]);
  const opened = await openDatabase(cluster.url("postgres"));
  judging = new Judging();
  close = opened.close;
  api = apiOn(opened.db, judging);
});
afterAll(async () => {
  await judging.close();
  await close();
  await cluster.stop();
});

async function make() {
  const id = randomUUID();
  expect((await api.send("POST", "/blades", { id, file: named("Stands") })).status).toBe(201);
  return id;
}
const save = (id: string, base: number, name: string, saveKey: string) =>
  api.send("PUT", `/blades/${id}`, { base, saveKey, file: named(name) });

/** Sends a save until it is answered for good, as a page does: whatever else comes must say to come back. */
async function saveUntilAnswered(id: string, base: number, name: string): Promise<number> {
  const saveKey = randomUUID();
  for (let tries = 0; tries < 2000; tries++) {
    const answer = await save(id, base, name, saveKey);
    if (answer.status === 200) return answer.body.revision;
    expect(answer.status, JSON.stringify(answer.body)).toBe(503);
    expect(answer.headers.get("retry-after")).toMatch(/^\d+$/);
    expect(answer.headers.get("content-type")).toBe("application/problem+json");
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
  throw new Error("never answered");
}

const asAdmin = async <T>(work: (client: Client) => Promise<T>) => {
  const client = new Client({ connectionString: cluster.url("postgres") });
  client.on("error", () => {});
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end().catch(() => {});
  }
};

describe("a server whose database goes away", () => {
  test("lives while its connections are cut in the middle of saves, and no acknowledged save is lost or doubled", async () => {
    const id = await make();
    let isOver = false;
    let cut = 0;
    const cutting = asAdmin(async (client) => {
      while (!isOver) {
        const { rows } = await client.query(
          "select pg_terminate_backend(pid) from pg_stat_activity where datname = 'true_spine'",
        );
        cut += rows.length;
        await new Promise((resolve) => setTimeout(resolve, 15));
      }
    });
    let base = 1;
    for (let i = 0; i < 25; i++) {
      const revision = await saveUntilAnswered(id, base, `Cut ${i}`);
      expect(revision).toBe(base + 1);
      base = revision;
    }
    isOver = true;
    await cutting;
    expect(cut).toBeGreaterThan(5);
    const revisions = (await api.send("GET", `/blades/${id}/revisions`)).body;
    expect(revisions.map((row: { number: number }) => row.number)).toEqual(
      Array.from({ length: 26 }, (_, i) => 26 - i),
    );
  });

  test("says that it is away when no connection is to be had, health too, and serves again by itself", async () => {
    const id = await make();
    const hogs: Client[] = [];
    // Everybody's places, not only those that are kept for administrators.
    await asAdmin((client) =>
      client.query("select pg_terminate_backend(pid) from pg_stat_activity where datname = 'true_spine'"),
    );
    for (;;) {
      const hog = new Client({ connectionString: cluster.url("postgres") });
      hog.on("error", () => {});
      try {
        await hog.connect();
      } catch {
        break;
      }
      hogs.push(hog);
    }
    const health = await api.send("GET", "/health");
    expect(health.status).toBe(503);
    expect(health.headers.get("retry-after")).toMatch(/^\d+$/);
    const refused = await save(id, 1, "No room", randomUUID());
    expect(refused.status).toBe(503);
    for (const hog of hogs) await hog.end();
    expect(await saveUntilAnswered(id, 1, "Room again")).toBe(2);
  });

  test("outlives a killed PostgreSQL while four are writing, tells it in its health, and has every acknowledged write once it is back", async () => {
    const ids = await Promise.all(Array.from({ length: 4 }, make));
    const written = ids.map(() => 1);
    let isOver = false;
    const writers = ids.map(async (id, i) => {
      while (!isOver) {
        const revision = await saveUntilAnswered(id, written[i]!, `Writer ${i} ${written[i]}`);
        expect(revision).toBe(written[i]! + 1);
        written[i] = revision;
      }
    });
    const reach = async (sum: number) => {
      while (written.reduce((a, b) => a + b) < sum) await new Promise((resolve) => setTimeout(resolve, 20));
    };
    await reach(16);
    await cluster.kill();
    let health = 200;
    while (health !== 503) health = (await api.send("GET", "/health")).status;
    await cluster.startAgain();
    await reach(written.reduce((a, b) => a + b) + 12);
    isOver = true;
    await Promise.all(writers);
    for (const [i, id] of ids.entries()) {
      const { body } = await api.send("GET", `/blades/${id}`);
      expect(body).toMatchObject({ revision: written[i], name: `Writer ${i} ${written[i]! - 1}` });
    }
    expect((await api.send("GET", "/health")).body).toEqual({ status: "ok", database: "ok" });
  });

  test("a lock that somebody sits on is waited for no longer than it must be", async () => {
    const id = await make();
    const sitter = new Client({ connectionString: cluster.url("true_spine") });
    await sitter.connect();
    await sitter.query("begin");
    await sitter.query("select 1 from blades where id = $1 for update", [id]);
    const answer = await save(id, 1, "Waiting", randomUUID());
    expect(answer.status).toBe(503);
    await sitter.query("rollback");
    await sitter.end();
    expect(await saveUntilAnswered(id, 1, "Waited")).toBe(2);
  });
});
