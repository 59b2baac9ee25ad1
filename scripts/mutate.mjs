import { spawn } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { PROJECT } from "./database.mjs";
import { alikeIn, chosen, everyMutant } from "./mutants.mjs";
import { say } from "./plain.mjs";
import { run, setUp } from "./setup.mjs";

/**
 * How many small slips in the core its tests notice: `npm run mutate -- --count 100 --seed 1`. Each is made for its tests alone, no file is
 * changed; first the tests of its own folder are run, then all that lean on the file. Prints those that nobody noticed.
 */
run(async () => {
  await setUp();
  const [count, seed] = [numberOf("--count", 100), numberOf("--seed", 1)];
  const alike = readFileSync(join(PROJECT, "packages/core/mutants-alike.json"), "utf8");
  const unseen = [];
  let [caught, passedOver] = [0, 0];
  for (const [i, mutant] of chosen(everyMutant(), count, seed).entries()) {
    const why = alikeIn(alike, mutant);
    const told = `${i + 1} of ${count}: ${mutant.file}:${mutant.line} ${mutant.was} → ${mutant.is || "nothing"}`;
    if (why) {
      passedOver++;
      say(`${told}: alike. ${why}`);
      continue;
    }
    const isCaught = await isNoticed(mutant);
    if (isCaught) caught++;
    else unseen.push(mutant);
    say(`${told}: ${isCaught ? "noticed" : "NOT NOTICED"}`);
  }
  say(`Seed ${seed}: ${caught} of ${count - passedOver} noticed, ${passedOver} left out as alike.`);
  for (const { file, line, was, is, around } of unseen)
    say(`  ${file}:${line} ${was} → ${is || "nothing"}   ${around}`);
  return 0;
});

/** Whether any test fails with it, or the code does not even load. */
async function isNoticed(mutant) {
  const own = join("packages/core/test", mutant.file.split("/").at(-2));
  if (existsSync(join(PROJECT, own)) && !(await passes(mutant, [own]))) return true;
  return !(await passes(mutant, ["related", mutant.file, "--run"]));
}

function passes(mutant, what) {
  const args = what[0] === "related" ? what : ["run", ...what];
  const child = spawn("npx", ["vitest", ...args, "--project", "core", "--bail", "1", "--reporter", "dot"], {
    cwd: PROJECT,
    stdio: "ignore",
    env: { ...process.env, TRUE_SPINE_MUTANT: JSON.stringify(mutant) },
  });
  return new Promise((resolve) => child.once("exit", (code) => resolve(code === 0)));
}

function numberOf(flag, usual) {
  const at = process.argv.indexOf(flag);
  return at < 0 ? usual : Number(process.argv[at + 1]);
}
