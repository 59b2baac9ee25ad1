import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { openThrowawayCluster } from "./database.mjs";
import { shopDoor } from "./door.mjs";
import { DIST, startServer } from "./server.mjs";
import { run } from "./setup.mjs";

/** A server on a cluster of its own, demo data in it, for the browser tests. Ends with SIGINT. */
run(async () => {
  const cluster = await openThrowawayCluster();
  const asked = new Promise((resolve) => {
    for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => resolve(0));
  });
  const folder = mkdtempSync(join(tmpdir(), "true-spine-shop-"));
  try {
    const door = await shopDoor(folder);
    const server = await startServer({
      databaseUrl: cluster.url("postgres"),
      port: Number(process.env.E2E_PORT),
      dist: DIST,
      env: { LOG_LEVEL: "warn", TRUE_SPINE_COPIES: join(folder, "copies"), ...door.env },
    });
    const code = await Promise.race([asked, server.gone]);
    await server.stop();
    return code;
  } finally {
    rmSync(folder, { recursive: true, force: true });
    await cluster.stop();
  }
});
