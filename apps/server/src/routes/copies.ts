import { Hono } from "hono";
import type { Copying } from "../copying.ts";
import { Problem } from "../problem.ts";
import { nameFolder, readCopies } from "../records/copies.ts";
import type { Stores } from "../records/stores.ts";
import { bodyOf } from "../request.ts";

/** Copies of everything, under /api/copies: for the desk alone. */
export function copyRoutes({ db, judging }: Stores, copying: Copying | null): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => c.json(await readCopies(db)));

  routes.put("/", async (c) => {
    const { folder } = await bodyOf(c, judging, "copyFolder");
    await nameFolder(db, folder);
    return c.json(await readCopies(db));
  });

  routes.post("/", async (c) => {
    const { isRunning } = await readCopies(db);
    if (!copying) throw new Problem(503, "This server makes no copies.");
    if (!isRunning) await copying.begin();
    return c.json(await readCopies(db), 202);
  });

  return routes;
}
