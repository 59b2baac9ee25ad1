import { Hono } from "hono";
import { bodyOf, idOf, runOf, SaveDocument } from "../body.ts";
import type { Database } from "../database.ts";
import { listRuns, readRun, readRunReadings, saveRun } from "../records/runs.ts";

/** Runs of blades made to one specification, under /api/runs. */
export function runRoutes(db: Database): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => c.json(await listRuns(db)));

  routes.get("/:id", async (c) => c.json(await readRun(db, idOf(c, "run"))));

  routes.get("/:id/readings", async (c) => c.json(await readRunReadings(db, idOf(c, "run"))));

  routes.put("/:id", async (c) => {
    const { file, ...save } = await bodyOf(c, SaveDocument);
    return c.json(await saveRun(db, idOf(c, "run"), { ...save, file: file === null ? null : runOf(file) }));
  });

  return routes;
}
