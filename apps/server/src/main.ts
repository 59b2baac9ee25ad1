import { relative } from "node:path";
import { serve } from "@hono/node-server";
import pino from "pino";
import { createApp } from "./app.ts";
import { openDatabase } from "./database.ts";
import { seedDemo } from "./demo/seed.ts";
import { Gateway } from "./instruments/gateway.ts";
import { SimulatedBench } from "./instruments/simulated.ts";

const DRAIN_WITHIN_MS = 8000;
const REQUESTS_WITHIN_MS = 2000;
/** Where instruments come in, unless another program has it. */
const USUAL_INSTRUMENT_PORT = 4580;

const log = pino({ level: process.env.LOG_LEVEL ?? "warn" });
const { db, close } = await openDatabase(required("DATABASE_URL"));
await seedDemo(db);

const webDist = process.env.WEB_DIST ? relative(process.cwd(), process.env.WEB_DIST) : undefined;
const gateway = new Gateway(log);
await gateway.open(Number(process.env.INSTRUMENT_PORT) || USUAL_INSTRUMENT_PORT);
const bench = new SimulatedBench();
const app = createApp({ db, log, instruments: { gateway, bench }, webDist });
const server = serve(
  { fetch: app.fetch, port: Number(required("PORT")), hostname: process.env.HOST ?? "127.0.0.1" },
  ({ port }) => {
    log.info({ port }, "listening");
    process.send?.({ ready: true, port });
  },
);

let draining = false;
/** Takes no more requests, answers those it has, and lets go of the database. */
function drain(): void {
  if (draining) return;
  draining = true;
  setTimeout(() => process.exit(1), DRAIN_WITHIN_MS).unref();
  bench.stop();
  gateway.close();
  server.close(async () => {
    await close();
    process.exit(0);
  });
  if ("closeIdleConnections" in server) server.closeIdleConnections();
  // What is left then is no request but a page listening to the instruments: it comes back by itself.
  setTimeout(() => {
    if ("closeAllConnections" in server) server.closeAllConnections();
  }, REQUESTS_WITHIN_MS).unref();
}
for (const signal of ["SIGINT", "SIGTERM"] as const) process.on(signal, drain);
process.on("disconnect", drain);

function required(name: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`${name} must be set; npm start sets it.`);
  return value;
}
