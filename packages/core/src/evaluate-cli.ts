import { readFileSync, statSync } from "node:fs";
import { parseArgs } from "node:util";
import { LONGEST_FILE, parseBladeText } from "./blade/parse.ts";
import { evaluate, USUAL_PLACES } from "./evaluation.ts";

const USAGE = "usage: npm run -s evaluate -- FILE [--at 0.1,0.25,0.5]";

/** Prints an evaluation, or faults on standard error with exit status 2. Nothing else is ever printed. */
function main(): number {
  let file: string | undefined;
  let at: string | undefined;
  try {
    const { values, positionals } = parseArgs({
      allowPositionals: true,
      options: { at: { type: "string" } },
    });
    file = positionals.length === 1 ? positionals[0] : undefined;
    at = values.at;
  } catch {
    file = undefined;
  }
  if (file === undefined) return refuse([USAGE]);
  const places = at === undefined ? USUAL_PLACES : at.split(",").map(Number);
  if (at === "" || places.some((u) => !(u >= 0 && u <= 1))) {
    return refuse(["--at takes fractions of the edge from 0 to 1, parted by commas"]);
  }
  const text = readText(file);
  if (text === null) return refuse([`$: ${file} cannot be read`]);
  const parsed = parseBladeText(text);
  if (!parsed.ok) return refuse(parsed.faults.map(({ path, message }) => `${path}: ${message}`));
  process.stdout.write(`${JSON.stringify(evaluate(parsed.blade, places), null, 2)}\n`);
  return 0;
}

function readText(file: string): string | null {
  try {
    const { size } = statSync(file);
    return size > LONGEST_FILE * 4 ? " ".repeat(LONGEST_FILE + 1) : readFileSync(file, "utf8");
  } catch {
    return null;
  }
}

function refuse(lines: readonly string[]): number {
  process.stderr.write(`${lines.join("\n")}\n`);
  return 2;
}

process.exitCode = main();
