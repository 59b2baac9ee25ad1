import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { chmodSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { openThrowawayCluster, PROJECT } from "../scripts/database.mjs";
import { commandOf } from "../scripts/processes.mjs";

/** A state of its own for each test: nothing of the project's own cluster is touched. */
let state: string;
const started: Started[] = [];

interface Started {
  readonly child: ChildProcess;
  said(): string;
  readonly gone: Promise<number | null>;
}

test.beforeEach(() => {
  state = mkdtempSync(join(tmpdir(), "start-"));
  chmodSync(state, 0o755);
});
test.afterEach(async () => {
  for (const { child, gone } of started.splice(0)) {
    if (child.exitCode === null) child.kill("SIGTERM");
    await gone;
  }
  await expect.poll(() => (postmaster() ? commandOf(postmaster()) : null)).toBeNull();
  rmSync(state, { recursive: true, force: true });
});

/** `npm start`, as it is typed. */
function npmStart(env: Record<string, string> = {}, words: readonly string[] = []): Started {
  const child = spawn("npm", ["start", ...words], {
    cwd: PROJECT,
    env: { ...process.env, TRUE_SPINE_STATE: state, ...env },
    stdio: ["ignore", "pipe", "pipe"],
  });
  let told = "";
  for (const stream of [child.stdout!, child.stderr!]) stream.on("data", (data) => (told += data));
  const one = {
    child,
    said: () => told,
    gone: new Promise<number | null>((resolve) => child.once("exit", resolve)),
  };
  started.push(one);
  return one;
}

const postmaster = () => {
  try {
    const home = readFileSync(join(state, "cluster-home"), "utf8").trim();
    return Number(readFileSync(join(home, "data", "postmaster.pid"), "utf8").split("\n")[0]);
  } catch {
    return 0;
  }
};
const READY = /True Spine is ready: (http:\/\/\S+)/;
async function ready(one: Started): Promise<string> {
  const isOver = () => READY.test(one.said()) || one.child.exitCode !== null;
  await expect.poll(isOver, { timeout: 480_000 }).toBe(true);
  expect(one.said()).toMatch(READY);
  return READY.exec(one.said())![1]!;
}
const healthOf = (url: string) =>
  fetch(`${url}/api/health`).then(
    ({ status }) => status,
    () => 0,
  );

test("three starts at once on an empty machine serve all three from one cluster, each on its own port", async () => {
  const three = [npmStart(), npmStart(), npmStart()];
  const urls = await Promise.all(three.map(ready));
  expect(new Set(urls).size).toBe(3);
  for (const url of urls) {
    await expect.poll(() => healthOf(url)).toBe(200);
    const rack = await (await fetch(`${url}/api/blades`)).json();
    expect(rack.map(({ name }: { name: string }) => name).sort()).toEqual(
      (await (await fetch(`${urls[0]}/api/blades`)).json()).map(({ name }: { name: string }) => name).sort(),
    );
    expect(rack.length).toBeGreaterThan(2);
  }
  // The cluster goes with the last of them.
  const pid = postmaster();
  three[0]!.child.kill("SIGTERM");
  await three[0]!.gone;
  await expect.poll(() => healthOf(urls[1]!)).toBe(200);
  for (const { child, gone } of three.slice(1)) {
    child.kill("SIGTERM");
    await gone;
  }
  await expect.poll(() => commandOf(pid)).toBeNull();
});

test("PostgreSQL killed, then the server killed: both are started again, and the blades are there", async () => {
  const one = npmStart();
  const url = await ready(one);
  const before = postmaster();
  process.kill(before, "SIGKILL");
  await expect.poll(() => postmaster() !== before && one.said()).toContain("PostgreSQL runs again.");
  await expect.poll(() => healthOf(url)).toBe(200);
  const server = serverOf(url);
  process.kill(server, "SIGKILL");
  await expect.poll(() => one.said()).toContain("The server runs again.");
  await expect.poll(() => healthOf(url)).toBe(200);
  expect((await (await fetch(`${url}/api/blades`)).json()).length).toBeGreaterThan(2);
});

test("SIGTERM or SIGKILL to the pid of npm start ends everything", async () => {
  for (const signal of ["SIGTERM", "SIGKILL"] as const) {
    const one = npmStart();
    const url = await ready(one);
    const pid = postmaster();
    one.child.kill(signal);
    await one.gone;
    await expect.poll(() => commandOf(pid)).toBeNull();
    await expect.poll(() => healthOf(url)).toBe(0);
  }
});

test("for tablets it is started as a shop: TLS for everything, nothing for a stranger, one plain page that tells how to trust it", async ({
  playwright,
}) => {
  const alone = npmStart({ HOST: "0.0.0.0" });
  expect(await alone.gone).toBe(1);
  expect(alone.said()).toContain("npm start -- --shop");

  const one = npmStart({}, ["--", "--shop"]);
  const desk = await ready(one);
  await expect.poll(() => one.said()).toContain("Ctrl+C stops it.");
  const address = /https:\/\/\S+/.exec(one.said())![0];
  const { addresses, trust, fingerprint } = await (await fetch(`${desk}/api/door`)).json();
  expect(addresses[0]).toBe(address);
  expect(await (await fetch(trust)).text()).toContain(fingerprint);
  expect(await (await fetch(`${trust}true-spine-shop.crt`)).text()).toContain("BEGIN CERTIFICATE");
  for (const path of ["api/blades", "shop", "../etc/passwd"])
    expect((await fetch(`${trust}${path}`)).status).toBe(404);
  const stranger = await playwright.request.newContext({ ignoreHTTPSErrors: true });
  for (const path of ["", "api/blades", "api/door", "assets/x.js"])
    expect((await stranger.get(`${address}${path}`)).status()).toBe(401);
  await stranger.dispose();
  // Plain HTTP is spoken to this machine alone.
  await expect(fetch(address.replace("https", "http"))).rejects.toThrow();
  one.child.kill("SIGTERM");
  await one.gone;
});

const names = async (url: string) =>
  (await (await fetch(`${url}/api/blades`)).json()).map(
    ({ name, revision }: { name: string; revision: number }) => [name, revision],
  );

test("two share a database that is kept elsewhere: one is killed, the other goes on, and the database is nobody's to stop", async () => {
  const wrong = npmStart({ DATABASE_URL: "somewhere" });
  expect(await wrong.gone).toBe(1);
  expect(wrong.said()).toContain("DATABASE_URL is no address of a PostgreSQL");

  const cluster = await openThrowawayCluster();
  try {
    const two = [0, 1].map(() => npmStart({ DATABASE_URL: cluster.url("postgres") }));
    const [one, other] = (await Promise.all(two.map(ready))) as [string, string];
    expect(await names(one)).toEqual(await names(other));
    const [{ id }] = await (await fetch(`${one}/api/blades`)).json();
    const copy = await fetch(`${one}/api/blades/${id}/copy`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ id: crypto.randomUUID() }),
    });
    expect(copy.status).toBe(201);
    expect(await names(other)).toEqual(await names(one));
    two[0]!.child.kill("SIGTERM");
    await two[0]!.gone;
    expect(await healthOf(other)).toBe(200);
    two[1]!.child.kill("SIGTERM");
    await two[1]!.gone;
    expect(commandOf(cluster.pid)).not.toBeNull();
  } finally {
    await cluster.stop();
  }
});

test("a copy is taken, the cluster deleted, and everything stands again as it was", async () => {
  const one = npmStart();
  const url = await ready(one);
  const folder = join(state, "copies");
  const send = (method: string, body?: object) =>
    fetch(`${url}/api/copies`, {
      method,
      headers: { "content-type": "application/json" },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
  await send("PUT", { folder });
  await send("POST");
  const copies = async () => (await send("GET")).json();
  await expect.poll(async () => (await copies()).lastGood, { timeout: 300_000 }).not.toBeNull();
  const { file } = (await copies()).rows[0];
  const before = await names(url);
  expect(before.length).toBeGreaterThan(2);
  const restore = () =>
    execFileSync("npm", ["run", "-s", "restore", "--", file], {
      cwd: PROJECT,
      encoding: "utf8",
      env: { ...process.env, TRUE_SPINE_STATE: state },
      stdio: ["ignore", "pipe", "pipe"],
    });
  // Not under somebody's hands.
  expect(restore).toThrow(/stop it, then restore\. Nothing was changed/);
  expect(await names(url)).toEqual(before);
  one.child.kill("SIGTERM");
  await one.gone;

  rmSync(join(state, "cluster"), { recursive: true });
  rmSync(join(state, "cluster-home"));
  expect(restore()).toMatch(/stands again: .*public\.blades \d+/);
  const again = npmStart();
  expect(await names(await ready(again))).toEqual(before);
  again.child.kill("SIGTERM");
  await again.gone;
  // What stands is never thrown away for a copy.
  expect(restore()).toMatch(/What stood before is kept as the database true_spine_before_\d{14}/);
});

/** pid of the server behind an address. */
function serverOf(url: string): number {
  const port = new URL(url).port;
  const look = `for p in $(pgrep -f apps/server/dist/main.mjs); do
    tr '\\0' '\\n' < /proc/$p/environ | grep -qx PORT=${port} && echo $p
  done`;
  return Number(execFileSync("sh", ["-c", `${look}; true`], { encoding: "utf8" }).trim());
}
