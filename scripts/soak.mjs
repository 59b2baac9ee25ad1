import { spawn } from "node:child_process";
import { PROJECT } from "./database.mjs";
import { run, setUp } from "./setup.mjs";

/** The long trial; what it counts is printed. */
run(async () => {
  await setUp();
  const args = ["--import", "tsx", "apps/server/soak/run.ts", ...process.argv.slice(2)];
  const child = spawn(process.execPath, args, { cwd: PROJECT, stdio: "inherit" });
  return new Promise((resolve) => child.once("exit", (code) => resolve(code ?? 1)));
});
