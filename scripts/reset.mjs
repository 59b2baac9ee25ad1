import { spawnSync } from "node:child_process";
import { createInterface } from "node:readline/promises";
import { openProjectCluster, PROJECT } from "./database.mjs";
import { Plain, say } from "./plain.mjs";
import { run, setUp } from "./setup.mjs";

const WHAT =
  "This deletes every blade with its history and readings, every run and the shop's stores, and brings the demo data back.";

run(async () => {
  if (!process.argv.includes("--yes")) {
    if (!process.stdin.isTTY) throw new Plain(`${WHAT} Say so with: npm run reset -- --yes`);
    const ask = createInterface({ input: process.stdin, output: process.stdout });
    const answer = await ask.question(`${WHAT} Type yes: `);
    ask.close();
    if (answer.trim().toLowerCase() !== "yes") {
      say("Nothing was changed.");
      return 0;
    }
  }
  await setUp();
  const cluster = await openProjectCluster();
  try {
    const { status } = spawnSync(process.execPath, ["--import", "tsx", "apps/server/src/reset.ts"], {
      cwd: PROJECT,
      stdio: "inherit",
      env: { ...process.env, DATABASE_URL: cluster.url("postgres") },
    });
    if (status === 0) {
      say("The demo data is back: blades with their readings, the run, the stores as they come.");
      say("What browsers keep until it is saved is still there, and is offered when its blade is opened.");
    }
    return status ?? 1;
  } finally {
    await cluster.stop();
  }
});
