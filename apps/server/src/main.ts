import { once } from "node:events";
import { relative } from "node:path";
import { serve } from "@hono/node-server";
import { sql } from "drizzle-orm";
import pino from "pino";
import { Doors } from "./access/doors.ts";
import { listed, openShop } from "./access/shop.ts";
import { createApp } from "./app.ts";
import { Copying } from "./copying.ts";
import { openDatabase, openReplica } from "./database.ts";
import { seedDemo } from "./demo/seed.ts";
import { BENCHES, Benches } from "./instruments/benches.ts";
import { Gateway } from "./instruments/gateway.ts";
import { SimulatedBench } from "./instruments/simulated.ts";
import { Judging } from "./judging/judging.ts";
import { REVOKED } from "./records/devices.ts";

const DRAIN_WITHIN_MS = 8000;
const REQUESTS_WITHIN_MS = 2000;
const KEEP_ALIVE_MS = 75_000;
/** Where instruments come in, unless another program has it. */
const USUAL_INSTRUMENT_PORT = 4580;

const log = pino({ level: process.env.LOG_LEVEL ?? "warn" });
const port = Number(required("PORT"));
const { db, url, hear, close } = await openDatabase(required("DATABASE_URL"), process.env.DATABASE_NAME);
const replica = process.env.DATABASE_READ_URL
  ? openReplica(process.env.DATABASE_READ_URL, process.env.DATABASE_NAME)
  : null;
const judging = new Judging();
await seedDemo({ db, judging });

const webDist = process.env.WEB_DIST ? relative(process.cwd(), process.env.WEB_DIST) : undefined;
const gateway = new Gateway(log);
await gateway.open(Number(process.env.INSTRUMENT_PORT) || USUAL_INSTRUMENT_PORT);
const bench = new SimulatedBench();
const doors = new Doors(db);
const deaf = hear(
  REVOKED,
  (id) => doors.shut(id),
  () =>
    void doors.lookAgain().catch((error: unknown) => log.warn({ err: error }, "devices not looked after")),
);
const benches = new Benches(gateway, (words) => {
  void db
    .execute(sql`select pg_notify(${BENCHES}, ${words})`)
    .catch((error: unknown) => log.warn({ err: error }, "other servers not told of the bench"));
});
const unheard = hear(
  BENCHES,
  (words) => benches.hear(words),
  () => benches.sayWhoIsHere(),
);
const shared = process.env.SHOP_DIR ? await openShop(process.env.SHOP_DIR) : null;
const copying = new Copying(db, url, log);
copying.startNightly();
const app = createApp({
  db,
  lists: replica?.db ?? null,
  judging,
  log,
  instruments: { gateway: benches, bench, self: `http://127.0.0.1:${port}` },
  webDist,
  hosts: [...listed(process.env.HOSTS), ...(shared?.names ?? [])],
  doors,
  copying,
  door: shared?.door ?? null,
  isDeskShut: process.env.DESK === "shut",
});
const servers = [
  serve({ fetch: app.fetch, port, hostname: process.env.DESK_HOST ?? "127.0.0.1" }),
  ...(shared ? shared.serve(app) : []),
];
for (const server of servers) {
  // Longer than a page waits between two requests, so that none is sent on a connection that is just being closed.
  if ("keepAliveTimeout" in server) server.keepAliveTimeout = KEEP_ALIVE_MS;
  server.on("error", (error) => {
    log.fatal({ err: error }, "cannot listen");
    process.exit(1);
  });
}
await Promise.all(servers.map((server) => server.listening || once(server, "listening")));
log.info({ port }, "listening");
process.send?.({ ready: true, port });
// The first save need not wait for the thread that judges it.
void judging.warm();

let draining = false;
/** Takes no more requests, answers those it has, and lets go of the database. */
function drain(): void {
  if (draining) return;
  draining = true;
  setTimeout(() => process.exit(1), DRAIN_WITHIN_MS).unref();
  copying.stop();
  bench.stop();
  benches.stop();
  gateway.close();
  const closed = servers.map((server) => new Promise<void>((resolve) => server.close(() => resolve())));
  void Promise.all(closed).then(async () => {
    await judging.close();
    await deaf();
    await unheard();
    await replica?.close();
    await close();
    process.exit(0);
  });
  for (const server of servers) if ("closeIdleConnections" in server) server.closeIdleConnections();
  // What is left then is no request but a page listening to the instruments: it comes back by itself.
  setTimeout(() => {
    for (const server of servers) if ("closeAllConnections" in server) server.closeAllConnections();
  }, REQUESTS_WITHIN_MS).unref();
}
for (const signal of ["SIGINT", "SIGTERM"] as const) process.on(signal, drain);
process.on("disconnect", drain);

function required(name: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`${name} must be set; npm start sets it.`);
  return value;
}
