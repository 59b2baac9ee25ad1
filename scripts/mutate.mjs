import { spawn } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, relative } from "node:path";
import { PROJECT } from "./database.mjs";
import { Plain, say } from "./plain.mjs";
import { run, setUp } from "./setup.mjs";

const AS_IT_WAS = join(PROJECT, "packages/core/test/as-it-was");
/** The tests that are run first for a slip take about so long in all. */
const FIRST_MS = 45_000;
/** Slips are looked for by the tests of these. */
const PROJECTS = ["core", "formats"];

/**
 * How many small slips in the core its tests notice: `npm run mutate -- --count 100 --seed 1`, or from one of them on: `--from 40`. All
 * tests are run once to see which come by each of the places; then each slip is made for those tests alone, the quickest first. No file is
 * changed. Prints the slips that nobody noticed.
 */
run(async () => {
  await setUp();
  // It reads with packages that may not have been there before.
  const { alikeIn, chosen, everyMutant } = await import("./mutants.mjs");
  const [count, seed] = [numberOf("--count", 100), numberOf("--seed", 1)];
  const alike = readFileSync(join(PROJECT, "packages/core/mutants-alike.json"), "utf8");
  const from = Math.max(1, numberOf("--from", 1));
  const picked = chosen(everyMutant(), count, seed).slice(from - 1);
  say("Looking which tests come by which of the places …");
  const testsOf = await whoComesBy(picked);
  const unseen = [];
  let [caught, passedOver] = [0, 0];
  for (const [i, mutant] of picked.entries()) {
    const why = alikeIn(alike, mutant);
    const told = `${from + i} of ${count}: ${mutant.file}:${mutant.line} ${mutant.was} → ${mutant.is || "nothing"}`;
    if (why) {
      passedOver++;
      say(`${told}: alike. ${why}`);
      continue;
    }
    const isCaught = await isNoticed(mutant, testsOf[i]);
    if (isCaught) caught++;
    else unseen.push(mutant);
    say(`${told}: ${isCaught ? "noticed" : `NOT NOTICED by ${testsOf[i].length} files of tests`}`);
  }
  say(`Seed ${seed}: ${caught} of ${picked.length - passedOver} noticed, ${passedOver} left out as alike.`);
  for (const { file, line, was, is, around } of unseen)
    say(`  ${file}:${line} ${was} → ${is || "nothing"}   ${around}`);
  return 0;
});

/**
 * For each slip the files of tests that run the function around it: those of its own folder first, then what holds everything to how it
 * was, then the quickest.
 */
async function whoComesBy(mutants) {
  const folder = mkdtempSync(join(tmpdir(), "true-spine-reached-"));
  try {
    const places = {};
    for (const [id, { file, start }] of mutants.entries())
      places[file] = [...(places[file] ?? []), [id, start]];
    const env = {
      TRUE_SPINE_PLACES: JSON.stringify(places),
      TRUE_SPINE_REACHED: folder,
    };
    if (!(await passes([], env))) throw new Plain("The tests of the core fail as it is; mend them first.");
    const seen = readdirSync(folder).map((name) => JSON.parse(readFileSync(join(folder, name), "utf8")));
    return mutants.map(({ file }, id) => {
      const own = join(PROJECT, "packages/core/test", dirname(relative("packages/core/src", file)));
      const rank = ({ file }) => (dirname(file) === own ? 0 : dirname(file) === AS_IT_WAS ? 1 : 2);
      return seen
        .filter(({ places }) => places.includes(id))
        .sort((a, b) => rank(a) - rank(b) || a.ms - b.ms);
    });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Whether any of the tests fails with it, or the code does not even load. */
async function isNoticed(mutant, tests) {
  const env = { TRUE_SPINE_MUTANT: JSON.stringify(mutant) };
  let [many, ms] = [0, 0];
  while (many < tests.length && ms + tests[many].ms <= FIRST_MS) ms += tests[many++].ms;
  for (const some of [tests.slice(0, many), tests.slice(many)])
    if (some.length > 0 && !(await passes(some, env))) return true;
  return false;
}

/** Whether the tests of these files pass, or of all for none. Those that a slip lets run without end do not. */
function passes(tests, env) {
  const files = tests.map(({ file }) => relative(PROJECT, file));
  const options = [...PROJECTS.flatMap((name) => ["--project", name]), "--bail", "1", "--reporter", "dot"];
  const child = spawn(join(PROJECT, "node_modules/.bin/vitest"), ["run", ...files, ...options], {
    cwd: PROJECT,
    stdio: "ignore",
    // What the tests try of one kind of blade in three they try of every one here.
    env: { ...process.env, TRUE_SPINE_LONG: "1", ...env },
    detached: true,
  });
  const usual = tests.reduce((sum, { ms }) => sum + ms, 0);
  const end = () => process.kill(-Number(child.pid), "SIGKILL");
  const timer = tests.length > 0 ? setTimeout(end, 60_000 + 4 * usual) : undefined;
  const stopped = () => {
    end();
    process.exit(1);
  };
  process.on("SIGINT", stopped).on("SIGTERM", stopped);
  return new Promise((resolve) =>
    child.once("exit", (code) => {
      clearTimeout(timer);
      process.off("SIGINT", stopped).off("SIGTERM", stopped);
      resolve(code === 0);
    }),
  );
}

function numberOf(flag, usual) {
  const at = process.argv.indexOf(flag);
  return at < 0 ? usual : Number(process.argv[at + 1]);
}
