import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { PROJECT, STATE } from "./database.mjs";
import { say } from "./plain.mjs";
import { freePort } from "./processes.mjs";
import { run, setUp } from "./setup.mjs";

const REPORTS = join(STATE, "reports");

/**
 * Every check there is: types, lint, unit, server and browser tests. Each runner's own report is summed; a
 * runner that dies, a file that does not load, or no test at all counts as failed.
 */
run(async () => {
  await setUp({ chromium: true, built: true });
  rmSync(REPORTS, { recursive: true, force: true });
  mkdirSync(REPORTS, { recursive: true });
  const tallies = [];
  tallies.push(await step("Types", ["tsc", "-b"]));
  tallies.push(await step("Lint and format", ["biome", "check", "--error-on-warnings", "."]));
  tallies.push(
    await suite("Unit and server tests", ["vitest", "run"], "vitest.json", vitestTally, (file) => [
      "--reporter=default",
      "--reporter=json",
      `--outputFile.json=${file}`,
    ]),
  );
  const port = await freePort();
  tallies.push(
    await suite(
      "Browser tests",
      ["playwright", "test", "--config", "e2e/playwright.config.ts"],
      "playwright.json",
      playwrightTally,
      () => [],
      {
        E2E_PORT: String(port),
      },
    ),
  );
  const passed = tallies.reduce((sum, tally) => sum + tally.passed, 0);
  const failed = tallies.reduce((sum, tally) => sum + tally.failed, 0);
  say(`\n${passed} passed, ${failed} failed`);
  return failed === 0 ? 0 : 1;
});

function execute(command, env = {}) {
  return new Promise((resolve) => {
    const [name, ...args] = command;
    const child = spawn(join(PROJECT, "node_modules/.bin", name), args, {
      cwd: PROJECT,
      stdio: ["ignore", "inherit", "inherit"],
      env: { ...process.env, ...env, NO_COLOR: "1", FORCE_COLOR: "0" },
    });
    child.once("error", () => resolve(1));
    child.once("exit", (code) => resolve(code ?? 1));
  });
}

async function step(title, command) {
  say(`\n${title} …`);
  return (await execute(command)) === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

async function suite(title, command, report, tallyOf, options, env = {}) {
  say(`\n${title} …`);
  const file = join(REPORTS, report);
  const code = await execute([...command, ...options(file)], { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: file });
  if (!existsSync(file)) return { passed: 0, failed: 1 };
  const tally = tallyOf(JSON.parse(readFileSync(file, "utf8")));
  const isEmpty = tally.passed + tally.failed === 0;
  return (code !== 0 || isEmpty) && tally.failed === 0 ? { ...tally, failed: 1 } : tally;
}

function vitestTally(report) {
  const unloaded = report.testResults.filter(
    (file) => file.status === "failed" && file.assertionResults.length === 0,
  );
  return { passed: report.numPassedTests, failed: report.numFailedTests + unloaded.length };
}

function playwrightTally({ stats, errors }) {
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky + errors.length };
}
