import { Hono } from "hono";
import { bodyOf, SaveDocument, shopOf } from "../body.ts";
import type { Database } from "../database.ts";
import { readShop, saveShop } from "../records/shop.ts";

/** The shop's stores, under /api/shop. */
export function shopRoutes(db: Database): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => c.json(await readShop(db)));

  routes.put("/", async (c) => {
    const { file, ...save } = await bodyOf(c, SaveDocument);
    return c.json(await saveShop(db, { ...save, file: shopOf(file) }));
  });

  return routes;
}
