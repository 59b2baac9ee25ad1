import { relative } from "node:path";
import { serve } from "@hono/node-server";
import pino from "pino";
import { createApp } from "./app.ts";
import { openDatabase } from "./database.ts";
import { seedDemo } from "./demo/seed.ts";

const DRAIN_WITHIN_MS = 8000;

const log = pino({ level: process.env.LOG_LEVEL ?? "warn" });
const { db, close } = await openDatabase(required("DATABASE_URL"));
await seedDemo(db);

const webDist = process.env.WEB_DIST ? relative(process.cwd(), process.env.WEB_DIST) : undefined;
const app = createApp({ db, log, webDist });
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
  server.close(async () => {
    await close();
    process.exit(0);
  });
  if ("closeIdleConnections" in server) server.closeIdleConnections();
}
for (const signal of ["SIGINT", "SIGTERM"] as const) process.on(signal, drain);
process.on("disconnect", drain);

function required(name: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`${name} must be set; npm start sets it.`);
  return value;
}
