import { serveStatic } from "@hono/node-server/serve-static";
import { SCHEMAS } from "@true-spine/core/document/documents.ts";
import { sql } from "drizzle-orm";
import { Hono } from "hono";
import { bodyLimit } from "hono/body-limit";
import { secureHeaders } from "hono/secure-headers";
import type { Logger } from "pino";
import { LARGEST_BODY } from "./body.ts";
import type { Database } from "./database.ts";
import { notFound, Problem, problemResponse } from "./problem.ts";
import { bladeRoutes } from "./routes/blades.ts";
import { type Instruments, instrumentRoutes } from "./routes/instruments.ts";
import { runRoutes } from "./routes/runs.ts";
import { shopRoutes } from "./routes/shop.ts";

const schemas = new Map<string, object>(Object.entries(SCHEMAS));

export interface AppOptions {
  readonly db: Database;
  readonly log: Logger;
  readonly instruments: Instruments;
  /** Folder of the built pages, relative to the working folder; none in tests of the API alone. */
  readonly webDist?: string;
}

/** The whole server as one Hono app: API under /api, the pages for everything else. */
export function createApp({ db, log, instruments, webDist }: AppOptions): Hono {
  const app = new Hono();
  app.onError((error, c) => problemResponse(log, error, c));

  app.use(async (c, next) => {
    const from = performance.now();
    await next();
    const ms = Math.round(performance.now() - from);
    log.info({ method: c.req.method, path: c.req.path, status: c.res.status, ms }, "request");
  });
  app.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        // Ajv makes its validators as functions; everything that runs comes from here all the same.
        scriptSrc: ["'self'", "'unsafe-eval'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", "data:", "blob:"],
        workerSrc: ["'self'", "blob:"],
        objectSrc: ["'none'"],
        frameAncestors: ["'none'"],
        baseUri: ["'none'"],
      },
      strictTransportSecurity: false,
    }),
  );
  app.use("/api/*", async (c, next) => {
    const origin = c.req.header("origin");
    if (origin && hostOf(origin) !== c.req.header("host")) {
      throw new Problem(403, "Requests from other pages are refused.");
    }
    await next();
  });
  app.use(
    "/api/*",
    bodyLimit({
      maxSize: LARGEST_BODY,
      onError: () => {
        throw new Problem(413, "The request is too large for a blade.");
      },
    }),
  );

  app.get("/api/health", async (c) => {
    await db.execute(sql`select 1`);
    return c.json({ status: "ok" });
  });
  app.get("/api/schema/:kind", (c) => {
    const schema = schemas.get(c.req.param("kind"));
    if (!schema) throw notFound("schema");
    return c.json(schema);
  });
  app.route("/api/blades", bladeRoutes(db));
  app.route("/api/shop", shopRoutes(db));
  app.route("/api/runs", runRoutes(db));
  app.route("/api/instruments", instrumentRoutes(instruments));
  app.all("/api/*", () => {
    throw notFound("address");
  });

  if (webDist) {
    app.use("/assets/*", async (c, next) => {
      await next();
      if (c.res.ok) c.header("cache-control", "public, max-age=31536000, immutable");
    });
    app.use("*", serveStatic({ root: webDist }));
    app.get("*", serveStatic({ root: webDist, path: "index.html" }));
  }
  return app;
}

/** The host an Origin header names; null for `null` and whatever else is no address. */
function hostOf(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}
