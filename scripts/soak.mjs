import { spawn } from "node:child_process";
import { PROJECT } from "./database.mjs";
import { freePort } from "./processes.mjs";
import { run, setUp } from "./setup.mjs";

/** The long trial of the server, then of a page whose server is killed under it; what they count is printed. */
run(async () => {
  const chosen = process.argv.slice(2);
  await setUp({ chromium: true, pages: true });
  const server = await execute(process.execPath, ["--import", "tsx", "apps/server/soak/run.ts", ...chosen]);
  if (chosen.length > 0) return server;
  const page = [
    "playwright",
    "test",
    "--config",
    "e2e/playwright.config.ts",
    "--project",
    "long",
    "--reporter",
    "list",
  ];
  return (await execute("npx", page, { KILLS: "50", E2E_PORT: String(await freePort()) })) || server;
});

function execute(command, args, env = {}) {
  const child = spawn(command, args, { cwd: PROJECT, stdio: "inherit", env: { ...process.env, ...env } });
  return new Promise((resolve) => child.once("exit", (code) => resolve(code ?? 1)));
}
