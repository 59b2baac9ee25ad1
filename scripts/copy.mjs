import { resolve } from "node:path";
import { makeCopy } from "./copies.mjs";
import { openProjectCluster } from "./database.mjs";
import { Plain, say } from "./plain.mjs";
import { run, setUp } from "./setup.mjs";

/**
 * Copies everything into a folder and checks the copy: `npm run copy -- FOLDER`. For the server it prints one line of JSON, and copies
 * the database that DATABASE_URL names.
 */
run(async () => {
  const forServer = process.argv.includes("--json");
  const [folder] = process.argv.slice(2).filter((word) => word !== "--json");
  if (!folder) throw new Plain("npm run copy -- FOLDER");
  if (forServer) return copyForServer(folder);
  await setUp();
  const cluster = process.env.DATABASE_URL ? null : await openProjectCluster();
  try {
    const url = new URL(process.env.DATABASE_URL ?? cluster?.url("postgres"));
    url.pathname = "/true_spine";
    const { file, bytes, tables } = await makeCopy({ url: url.href, folder: resolve(folder) });
    const rows = tables.reduce((sum, { count }) => sum + count, 0);
    say(
      `${file}: ${rows} rows of ${tables.length} tables, ${(bytes / 1e6).toFixed(1)} MB, restored elsewhere and found the same.`,
    );
    return 0;
  } finally {
    await cluster?.stop();
  }
});

async function copyForServer(folder) {
  try {
    const { file, bytes } = await makeCopy({ url: process.env.DATABASE_URL, folder });
    console.log(JSON.stringify({ ok: true, file, bytes }));
  } catch (error) {
    console.log(JSON.stringify({ ok: false, why: error.message }));
  }
}
