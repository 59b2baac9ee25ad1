import { spawn } from "node:child_process";
import { PROJECT } from "./database.mjs";
import { otherPostgres } from "./other-postgres.mjs";
import { freePort } from "./processes.mjs";
import { run, setUp } from "./setup.mjs";

/** Another major version than this machine's packages have: the trial of two servers is run on it too. */
const OTHER_MAJOR = 17;
const PURE = ["--project", "core", "--project", "formats"];

/** The long trials: the server, rounds of readings at the bench, a page whose server is killed under it; what they count is printed. */
run(async () => {
  const chosen = process.argv.slice(2);
  const other = () =>
    execute(process.execPath, ["--import", "tsx", "apps/server/soak/run.ts", "two"], {
      TRUE_SPINE_POSTGRES: otherPostgres(OTHER_MAJOR),
    });
  const rounds = () =>
    execute(process.execPath, ["--import", "tsx", "apps/instruments/soak/run.ts", ...chosen.slice(1)]);
  // What of the tests tries one kind of blade in three elsewhere tries every one.
  const tests = () => execute("npx", ["vitest", "run", ...PURE], { TRUE_SPINE_LONG: "1" });
  if (chosen[0] === "rounds") return rounds();
  if (chosen[0] === "other-postgres") return other();
  if (chosen[0] === "tests") return tests();
  await setUp({ chromium: true, built: true });
  const server = await execute(process.execPath, ["--import", "tsx", "apps/server/soak/run.ts", ...chosen]);
  if (chosen.length > 0) return server;
  const elsewhere = await other();
  const bench = await rounds();
  const whole = await tests();
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
  return (
    (await execute("npx", page, { KILLS: "50", E2E_PORT: String(await freePort()) })) ||
    server ||
    elsewhere ||
    bench ||
    whole
  );
});

function execute(command, args, env = {}) {
  const child = spawn(command, args, { cwd: PROJECT, stdio: "inherit", env: { ...process.env, ...env } });
  return new Promise((resolve) => child.once("exit", (code) => resolve(code ?? 1)));
}
