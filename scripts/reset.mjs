import { spawnSync } from "node:child_process";
import { createInterface } from "node:readline/promises";
import { openProjectCluster, PROJECT } from "./database.mjs";
import { checkNode, ensurePackages, ensurePostgres, Plain, run, say } from "./setup.mjs";

run(async () => {
  checkNode();
  if (!process.argv.includes("--yes")) {
    if (!process.stdin.isTTY)
      throw new Plain("This throws away every blade. Say so with: npm run reset -- --yes");
    const ask = createInterface({ input: process.stdin, output: process.stdout });
    const answer = await ask.question("Throw away every blade and bring the demo data back? Type yes: ");
    ask.close();
    if (answer.trim().toLowerCase() !== "yes") {
      say("Nothing was changed.");
      return 0;
    }
  }
  ensurePackages();
  ensurePostgres();
  const cluster = await openProjectCluster();
  try {
    const { status } = spawnSync(process.execPath, ["--import", "tsx", "apps/server/src/reset.ts"], {
      cwd: PROJECT,
      stdio: "inherit",
      env: { ...process.env, DATABASE_URL: cluster.url("postgres") },
    });
    if (status === 0) say("The demo data is back.");
    return status ?? 1;
  } finally {
    await cluster.stop();
  }
});
