import { Hono } from "hono";
import {
  deleteRun,
  listDeletedRuns,
  listRuns,
  readRun,
  readRunReadings,
  saveRun,
  takeBackRun,
} from "../records/runs.ts";
import type { Stores } from "../records/stores.ts";
import { bodyOf, idOf } from "../request.ts";
import { asItIs } from "./as-it-is.ts";

/** Runs of blades made to one specification, under /api/runs. */
export function runRoutes({ db, judging }: Stores): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => c.json(await listRuns(db)));

  routes.get("/deleted", async (c) => c.json(await listDeletedRuns(db)));

  routes.get("/:id", async (c) => c.json(await readRun(db, idOf(c, "run"))));

  routes.get("/:id/readings", async (c) => asItIs(c, await readRunReadings(db, idOf(c, "run"))));

  routes.put("/:id", async (c) => {
    const id = idOf(c, "run");
    return c.json(await saveRun(db, id, await bodyOf(c, judging, "saveRun")));
  });

  routes.delete("/:id", async (c) => {
    await deleteRun(db, idOf(c, "run"));
    return c.body(null, 204);
  });

  routes.post("/:id/take-back", async (c) => {
    await takeBackRun(db, idOf(c, "run"));
    return c.body(null, 204);
  });

  return routes;
}
