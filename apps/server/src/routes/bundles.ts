import { LARGEST_BUNDLE } from "@true-spine/formats/bundle.ts";
import { Hono } from "hono";
import { bodyLimit } from "hono/body-limit";
import { Problem } from "../problem.ts";
import { BUNDLE_WAYS, packBlade, takeInBundle } from "../records/bundles.ts";
import type { Stores } from "../records/stores.ts";
import { idOf } from "../request.ts";

/** Blades whole, under /api/bundles: one goes out as a zip, and comes in as one. */
export function bundleRoutes(stores: Stores): Hono {
  const { db, judging } = stores;
  const routes = new Hono();

  routes.get("/:id", async (c) => {
    const bundle = await packBlade(db, idOf(c), c.req.query("history") === "true");
    const bytes = await judging.pack(bundle);
    if (bytes.length > LARGEST_BUNDLE)
      throw new Problem(
        413,
        "With its history the blade is larger than a bundle may be. Take it out as it stands.",
      );
    return c.body(bytes as Uint8Array<ArrayBuffer>, 200, {
      "content-type": "application/zip",
      "content-disposition": `attachment; filename="${bundle.id}.zip"`,
    });
  });

  routes.post(
    "/",
    bodyLimit({
      maxSize: LARGEST_BUNDLE,
      onError: () => {
        throw new Problem(413, "It is larger than a bundle may be, 32 MB.");
      },
    }),
    async (c) => {
      if (!/^application\/zip\b/.test(c.req.header("content-type") ?? "")) {
        throw new Problem(415, "Send a bundle, as application/zip.");
      }
      const how = BUNDLE_WAYS.find((way) => way === (c.req.query("standing") ?? "ask"));
      if (!how) throw new Problem(400, "Where the blade stands already: ask, onto or beside.");
      const bundle = await judging.unpack(new Uint8Array(await c.req.arrayBuffer()));
      return c.json(await takeInBundle(stores, bundle, how));
    },
  );

  return routes;
}
