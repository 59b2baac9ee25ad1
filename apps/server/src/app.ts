import { createHash } from "node:crypto";
import { serveStatic } from "@hono/node-server/serve-static";
import { BundleSchema } from "@true-spine/core/registry/bundle.ts";
import type { Door } from "@true-spine/core/registry/contract.ts";
import { SCHEMAS } from "@true-spine/core/registry/documents.ts";
import { published } from "@true-spine/core/registry/published.ts";
import { AnvilBench } from "@true-spine/instruments/anvil-bench.ts";
import { Hono } from "hono";
import { bodyLimit } from "hono/body-limit";
import { compress } from "hono/compress";
import { etag } from "hono/etag";
import { secureHeaders } from "hono/secure-headers";
import type { Logger } from "pino";
import { Doors, isOverLoopback, meOf, type WithDevice } from "./access/doors.ts";
import { onlyHosts } from "./access/hosts.ts";
import type { Copying } from "./copying.ts";
import { type Database, isAnswering } from "./database.ts";
import type { Judging } from "./judging/judging.ts";
import { away, notFound, Problem, problemResponse } from "./problem.ts";
import { thinHistory, thinnable } from "./records/history.ts";
import { listTroubles, noteTrouble } from "./records/troubles.ts";
import { LARGEST_BODY } from "./request.ts";
import { anvilRoutes } from "./routes/anvil.ts";
import { bladeRoutes } from "./routes/blades.ts";
import { bundleRoutes } from "./routes/bundles.ts";
import { copyRoutes } from "./routes/copies.ts";
import { deviceRoutes, doorRoutes } from "./routes/devices.ts";
import { type Instruments, instrumentRoutes } from "./routes/instruments.ts";
import { runRoutes } from "./routes/runs.ts";
import { shopRoutes } from "./routes/shop.ts";

const schemas = new Map(
  Object.entries({ ...SCHEMAS, bundle: BundleSchema }).map(([kind, schema]) => [kind, published(schema)]),
);

export interface AppOptions {
  readonly db: Database;
  /** Where lists are read from, if not from the database itself. */
  readonly lists?: Database | null;
  readonly judging: Judging;
  readonly log: Logger;
  readonly instruments: Instruments;
  /** Folder of the built pages, relative to the working folder; none in tests of the API alone. */
  readonly webDist?: string;
  /** Names and addresses that this server goes by beside the loopback's. */
  readonly hosts?: readonly string[];
  /** Who is let in; made for this app where it is not given. */
  readonly doors?: Doors;
  /** Where other machines reach this one; null where none may. */
  readonly door?: Door | null;
  /** What makes copies of everything; none in tests of the API alone. */
  readonly copying?: Copying | null;
  /** Whether not even requests from this machine itself are let in without a device's proof: a balancer passes them on. */
  readonly isDeskShut?: boolean;
}

type App = Hono<WithDevice>;

/** Words and figures; what an instrument says goes out as it comes. */
const COMPRESSED = /^(application\/(problem\+)?json|text\/(html|css|javascript)|image\/svg\+xml)\b/;

/** The whole server as one Hono app: API under /api, the pages for everything else. */
export function createApp({
  db,
  lists = null,
  judging,
  log,
  instruments,
  webDist,
  hosts = [],
  doors = new Doors(db),
  door = null,
  copying = null,
  isDeskShut = false,
}: AppOptions): App {
  const app: App = new Hono();
  app.onError((error, c) =>
    problemResponse(log, error, c, (what, where) => void noteTrouble(db, what, where)),
  );

  app.use(async (c, next) => {
    const from = performance.now();
    await next();
    const ms = Math.round((performance.now() - from) * 10) / 10;
    c.header("server-timing", `total;dur=${ms}`);
    log.info({ method: c.req.method, path: c.req.path, status: c.res.status, ms }, "request");
  });
  const packed = compress({ contentTypeFilter: COMPRESSED });
  // To this machine itself there is no line to spare.
  app.use((c, next) => (isOverLoopback(c) ? next() : packed(c, next)));
  app.use(onlyHosts(hosts));
  app.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", "data:", "blob:"],
        workerSrc: ["'self'", "blob:"],
        objectSrc: ["'none'"],
        frameAncestors: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(doors.guard(isDeskShut));
  app.use("/api/*", async (c, next) => {
    const origin = c.req.header("origin");
    if (origin && hostOf(origin) !== c.req.header("host")) {
      throw new Problem(403, "Requests from other pages are refused.");
    }
    await next();
    // What is asked for is how it stands now: kept only where it is asked each time whether it still is that.
    const kept = c.res.headers.has("etag") ? "private, no-cache" : "no-store";
    if (!c.res.headers.has("cache-control")) c.header("cache-control", kept);
  });
  const tagged = etag({ generateDigest: sha1 });
  for (const path of ["/api/blades/*", "/api/runs/*", "/api/shop"]) app.use(path, tagged);
  const small = bodyLimit({
    maxSize: LARGEST_BODY,
    onError: () => {
      throw new Problem(413, "The request is too large for a blade.");
    },
  });
  // A bundle has its own limit.
  app.use("/api/*", (c, next) => (c.req.path === "/api/bundles" ? next() : small(c, next)));

  app.get("/api/health", async (c) => {
    if (!(await isAnswering(db))) throw away("The database does not answer.");
    return c.json({ status: "ok", database: "ok" });
  });
  app.get("/api/schema/:kind", (c) => {
    const schema = schemas.get(c.req.param("kind"));
    if (!schema) throw notFound("schema");
    return c.json(schema);
  });
  app.get("/api/me", (c) => c.json(meOf(c)));
  const stores = { db, judging, lists };
  app.route("/api/blades", bladeRoutes(stores));
  app.route("/api/bundles", bundleRoutes(stores));
  app.route("/api/shop", shopRoutes(stores));
  app.route("/api/runs", runRoutes(stores));
  app.route("/api/devices", deviceRoutes(stores));
  app.route("/api/copies", copyRoutes(stores, copying));
  app.get("/api/history", async (c) => c.json(await thinnable(db)));
  app.post("/api/history/thin", async (c) => c.json(await thinHistory(db)));
  app.get("/api/troubles", async (c) => c.json(await listTroubles(db)));
  app.route("/api/door", doorRoutes(door));
  app.route("/api/instruments", instrumentRoutes(instruments, judging, doors));
  const asked = async (path: string) => {
    const answer = await app.request(`/api${path}`, { headers: { host: "localhost" } });
    if (!answer.ok) throw notFound("blade");
    return answer.json();
  };
  app.route("/api/anvil", anvilRoutes(new AnvilBench(asked), judging));
  app.all("/api/*", () => {
    throw notFound("address");
  });

  if (webDist) servePages(app, webDist);
  return app;
}

/**
 * The built pages. Built files carry their content in their names and may be kept for ever; one that is missing is missing, not the
 * page. What begins with a dot is nobody's business.
 */
function servePages(app: App, webDist: string): void {
  app.use("*", async (c, next) => {
    if (c.req.method !== "GET" && c.req.method !== "HEAD") throw notFound("address");
    if (/(^|\/)\./.test(decodedPath(c.req.path))) throw notFound("file");
    await next();
    if (c.res.ok && !c.req.path.startsWith("/assets/")) c.header("cache-control", "no-cache");
  });
  app.use("/assets/*", async (c, next) => {
    await next();
    if (c.res.ok) c.header("cache-control", "public, max-age=31536000, immutable");
  });
  app.use("*", serveStatic({ root: webDist }));
  // A file that is not there; an address of a page has no ending.
  app.get("*", async (c, next) => {
    if (c.req.path.startsWith("/assets/") || /\.[a-z0-9]+$/i.test(c.req.path)) throw notFound("file");
    await next();
  });
  app.get("*", serveStatic({ root: webDist, path: "index.html" }));
}

function decodedPath(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    throw notFound("file");
  }
}

/** The host an Origin header names; null for `null` and whatever else is no address. */
function hostOf(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}

/** At once, where the web's own digest takes a turn of a thread for each. */
function sha1(body: Uint8Array): ArrayBuffer {
  return new Uint8Array(createHash("sha1").update(body).digest()).buffer;
}
