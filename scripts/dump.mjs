import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { openThrowawayCluster, PROJECT, serverBinaries } from "./database.mjs";
import { say } from "./plain.mjs";
import { freePort } from "./processes.mjs";
import { startServer } from "./server.mjs";
import { run, setUp } from "./setup.mjs";

const DUMPS = "apps/server/test/dumps";

/**
 * Writes the demo data, as the newest migration has it, to a file among the server's tests: run before a migration is added, so that it
 * is tried on what stood before it.
 */
run(async () => {
  await setUp({ built: true });
  const journal = join(PROJECT, "apps/server/migrations/meta/_journal.json");
  const { entries } = JSON.parse(readFileSync(journal, "utf8"));
  const { tag } = entries.at(-1);
  const cluster = await openThrowawayCluster();
  try {
    const server = await startServer({ databaseUrl: cluster.url("postgres"), port: await freePort() });
    await server.stop();
    const options = ["--no-owner", "--inserts", "--rows-per-insert=200", cluster.url("true_spine")];
    const text = execFileSync(join(String(serverBinaries()), "pg_dump"), options, { maxBuffer: 2 ** 28 });
    const file = `${DUMPS}/${tag}.sql.gz`;
    writeFileSync(join(PROJECT, file), gzipSync(text, { level: 9 }));
    say(`${file} holds the demo data as ${tag} has it.`);
    return 0;
  } finally {
    await cluster.stop();
  }
});
