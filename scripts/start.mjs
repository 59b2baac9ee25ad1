import { randomBytes } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { hostname, networkInterfaces } from "node:os";
import { join } from "node:path";
import { openProjectCluster, STATE } from "./database.mjs";
import { Plain, say } from "./plain.mjs";
import { freePort, isSameProcess, parentOf, startOf } from "./processes.mjs";
import { run, setUp } from "./setup.mjs";
import { supervise } from "./supervise.mjs";

const USUAL_PORT = 4570;
const PORTS_TRIED = 20;
const LOOPBACK = ["127.0.0.1", "localhost", "::1"];
const LOOK_FOR_PARENT_MS = 1000;

run(async () => {
  const asked = untilAskedToStop();
  const dist = await setUp({ pages: true });
  say("Starting the database …");
  const cluster = await openProjectCluster();
  let serving;
  try {
    const host = process.env.HOST ?? "127.0.0.1";
    const isShared = !LOOPBACK.includes(host);
    const others = isShared ? addressesOf(host) : [];
    const key = isShared ? accessKey() : "";
    const names = [...others, hostname(), `${hostname()}.local`, process.env.ALLOWED_HOSTS ?? ""];
    const env = { HOST: host, ACCESS_KEY: key, HOSTS: isShared ? names.join(",") : names.at(-1) };
    serving = await onSomePort(host, (port) => supervise(cluster, { port, dist, env }));
    say(`\nTrue Spine is ready: ${isHere(host) ? serving.url : addressed(others[0] ?? host, serving, key)}`);
    if (isShared) {
      say("From another machine or a tablet on this network, once with its key:");
      for (const address of others) say(`  ${addressed(address, serving, key)}`);
      if (others.length === 0) say("  this machine has no address on a network just now.");
      say("Over plain HTTP the card needs the network: it does not work without it.");
    }
    say("Ctrl+C stops it.");
    await asked;
    say("\nStopping …");
    return 0;
  } finally {
    await serving?.stop();
    await cluster.stop();
  }
});

/** Until a signal comes, or npm and its shell, if they started this, are gone: they may not hand on what ended them. */
function untilAskedToStop() {
  const between = process.env.npm_lifecycle_event ? [process.ppid, parentOf(process.ppid)] : [];
  const watched = between.map((pid) => ({ pid, start: startOf(pid) }));
  return new Promise((resolve) => {
    for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, resolve);
    setInterval(() => {
      if (!watched.every(isSameProcess)) resolve();
    }, LOOK_FOR_PARENT_MS).unref();
  });
}

/** Serves on the usual port, or on another where somebody was quicker. */
async function onSomePort(host, serve) {
  for (let tries = 1; ; tries++) {
    const port = await freePort(tries === 1 ? Number(process.env.PORT) || USUAL_PORT : undefined, host);
    try {
      return await serve(port);
    } catch (error) {
      const isTaken = (await freePort(port, host)) !== port;
      if (!isTaken || tries === PORTS_TRIED) throw error;
    }
  }
}

/** Whether this machine reaches the server by its loopback too. */
const isHere = (host) => LOOPBACK.includes(host) || host === "0.0.0.0" || host === "::";

/** Addresses at which other machines reach this one. */
function addressesOf(host) {
  if (!isHere(host)) return [host];
  return Object.values(networkInterfaces())
    .flat()
    .filter(({ internal, family }) => !internal && family === "IPv4")
    .map(({ address }) => address);
}

function addressed(address, { url }, key) {
  return `http://${address}:${new URL(url).port}/${key && `?key=${key}`}`;
}

/** What other machines need to get in: made once, kept for this project, readable by its owner only. */
function accessKey() {
  const file = join(STATE, "access-key");
  if (!existsSync(file)) writeFileSync(file, randomBytes(18).toString("base64url"), { mode: 0o600 });
  const key = readFileSync(file, "utf8").trim();
  if (key.length < 22) throw new Plain(`${file} holds no key; delete it, and a new one is made.`);
  return key;
}
