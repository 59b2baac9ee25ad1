import type { AnvilBench } from "@true-spine/instruments/anvil-bench.ts";
import { Hono } from "hono";
import type { Judging } from "../judging/judging.ts";
import { notFound } from "../problem.ts";
import { bodyOf, idOf } from "../request.ts";

/** The simulated anvil, under /api/anvil: a piece is laid on it for a blade, and read after every blow in that blade's record. */
export function anvilRoutes(anvil: AnvilBench, judging: Judging): Hono {
  const routes = new Hono();

  routes.get("/:id", (c) => c.json({ laid: anvil.laid(idOf(c)) }));

  routes.put("/:id", async (c) => {
    anvil.lay(idOf(c), await bodyOf(c, judging, "layOnAnvil"));
    return c.body(null, 204);
  });

  routes.post("/:id/read", async (c) => {
    const rows = await anvil.read(idOf(c), await bodyOf(c, judging, "readOnAnvil"));
    if (!rows) throw notFound("piece on the anvil");
    return c.json({ rows });
  });

  return routes;
}
