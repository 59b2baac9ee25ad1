import { Hono } from "hono";
import { readShop, saveShop } from "../records/shop.ts";
import type { Stores } from "../records/stores.ts";
import { bodyOf } from "../request.ts";

/** The shop's stores, under /api/shop. */
export function shopRoutes({ db, judging }: Stores): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => c.json(await readShop(db)));

  routes.put("/", async (c) => c.json(await saveShop(db, await bodyOf(c, judging, "saveShop"))));

  return routes;
}
