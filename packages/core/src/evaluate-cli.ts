import { readFileSync, statSync } from "node:fs";
import { parseArgs } from "node:util";
import { compileField } from "./blade/field.ts";
import { parseBlade } from "./blade/parse.ts";
import type { Blade } from "./blade/schema.ts";
import type { Fault } from "./document/fault.ts";
import { LONGEST_FILE, readJson } from "./document/read-json.ts";
import { evaluate, USUAL_PLACES } from "./evaluation.ts";
import { parseLimits } from "./findings/limits.ts";
import { parseHandle } from "./handle/parse.ts";
import { ladderOf, readingsAt } from "./route/ladder.ts";
import { parseRoute } from "./route/parse.ts";
import { USUAL_SHOP } from "./shop/schema.ts";

const USAGE =
  "usage: npm run -s evaluate -- FILE [--at 0.1,0.25,0.5] [--handle FILE] [--limits FILE] [--route FILE --stage KIND]";

/** What is said on standard error before ending with status 2. */
class Refusal extends Error {
  constructor(readonly lines: readonly string[]) {
    super(lines.join("\n"));
  }
}

/** Prints an evaluation, or faults on standard error with exit status 2. Nothing else is ever printed. */
function main(): number {
  try {
    const { file, at, handle, limits, route, stage } = argumentsGiven();
    const places = at === undefined ? USUAL_PLACES : at.split(",").map(Number);
    if (at === "" || places.some((u) => !(u >= 0 && u <= 1))) {
      throw new Refusal(["--at takes fractions of the edge from 0 to 1, parted by commas"]);
    }
    const { blade } = documentIn(file, "", parseBlade);
    const beside = {
      ...(handle === undefined ? {} : { handle: documentIn(handle, "handle ", parseHandle).handle }),
      ...(limits === undefined ? {} : { limits: documentIn(limits, "limits ", parseLimits).limits }),
    };
    const evaluation = evaluate(blade, places, beside);
    const staged = route === undefined && stage === undefined ? {} : { stage: stageOf(blade, route, stage) };
    process.stdout.write(`${JSON.stringify({ ...evaluation, ...staged }, null, 2)}\n`);
    return 0;
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    process.stderr.write(`${error.message}\n`);
    return 2;
  }
}

/** What should be read at a stage of a route, with the usual belts. */
function stageOf(blade: Blade, file: string | undefined, kind: string | undefined) {
  if (file === undefined || kind === undefined) throw new Refusal(["--route and --stage go together"]);
  const { route } = documentIn(file, "route ", parseRoute);
  const kinds = route.stages.map((stage) => stage.kind);
  const rung = ladderOf(blade, route, USUAL_SHOP).find((one) => one.kind === kind);
  if (!rung) throw new Refusal([`--stage must be one of ${kinds.join(", ")}`]);
  return { kind, left: rung.left, volume: rung.volume, readings: readingsAt(rung, compileField(blade)) };
}

function argumentsGiven() {
  const text = { type: "string" } as const;
  try {
    const { values, positionals } = parseArgs({
      allowPositionals: true,
      options: { at: text, handle: text, limits: text, route: text, stage: text },
    });
    const [file, ...more] = positionals;
    if (file !== undefined && more.length === 0) return { ...values, file };
  } catch {
    // Told below: how it is called.
  }
  throw new Refusal([USAGE]);
}

/** A document from a file, parsed; `which` names it before each fault's path where it is not the blade. */
function documentIn<T extends { ok: true }>(
  file: string,
  which: string,
  parse: (value: unknown) => T | { ok: false; faults: readonly Fault[] },
): T {
  const faulty = (faults: readonly Fault[]) =>
    new Refusal(faults.map(({ path, message }) => `${which}${path}: ${message}`));
  const text = readText(file);
  if (text === null) throw faulty([{ path: "$", message: `${file} cannot be read` }]);
  const json = readJson(text);
  if (!json.ok) throw faulty([json.fault]);
  const parsed = parse(json.value);
  if (!parsed.ok) throw faulty(parsed.faults);
  return parsed;
}

function readText(file: string): string | null {
  try {
    const { size } = statSync(file);
    return size > LONGEST_FILE * 4 ? " ".repeat(LONGEST_FILE + 1) : readFileSync(file, "utf8");
  } catch {
    return null;
  }
}

process.exitCode = main();
