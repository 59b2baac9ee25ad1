import { readFileSync, statSync } from "node:fs";
import { parseArgs } from "node:util";
import { parseBlade } from "../blade/parse.ts";
import type { Blade } from "../blade/schema.ts";
import type { Fault } from "../document/fault.ts";
import { LONGEST_FILE, readJson } from "../document/read-json.ts";
import { parseLimits } from "../findings/limits.ts";
import { parseForge } from "../forge/parse.ts";
import { NO_FORGE } from "../forge/schema.ts";
import { parseHandle } from "../handle/parse.ts";
import { parseReadings } from "../inspect/parse.ts";
import { NO_CHECK } from "../inspect/schema.ts";
import { ladderOf } from "../route/ladder.ts";
import { parseRoute } from "../route/parse.ts";
import { targetsAt } from "../route/targets.ts";
import { parseShop } from "../shop/parse.ts";
import { USUAL_SHOP } from "../shop/schema.ts";
import { benchFigures } from "./bench.ts";
import { evaluate, USUAL_PLACES } from "./evaluation.ts";
import { planFigures } from "./plan.ts";

const USAGE =
  "usage: npm run -s evaluate -- FILE [--at 0.1,0.25,0.5] [--handle FILE] [--limits FILE] [--shop FILE] [--route FILE --plan [--forge FILE]] [--route FILE --stage ID_OR_KIND [--readings FILE] [--forge FILE]]";

/** What is said on standard error before ending with status 2. */
class Refusal extends Error {
  constructor(readonly lines: readonly string[]) {
    super(lines.join("\n"));
  }
}

/** Prints an evaluation, or faults on standard error with exit status 2. Nothing else is ever printed. */
function main(): number {
  try {
    const { file, at, handle, limits, route, stage, readings, shop, plan, forge } = argumentsGiven();
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
    const staged =
      plan || (route === undefined && stage === undefined && readings === undefined)
        ? {}
        : stageOf(blade, { route, stage, readings, shop, forge });
    if (forge !== undefined && route === undefined) throw new Refusal(["--forge goes with --route"]);
    const planned = plan ? planOf(blade, { route, stage, readings, shop, forge }) : {};
    process.stdout.write(`${JSON.stringify({ ...evaluation, ...staged, ...planned }, null, 2)}\n`);
    return 0;
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    process.stderr.write(`${error.message}\n`);
    return 2;
  }
}

interface Staged {
  readonly route: string | undefined;
  readonly stage: string | undefined;
  readonly readings: string | undefined;
  readonly shop: string | undefined;
  readonly forge: string | undefined;
}

/** What should be read at a stage of a route; and, with readings, what they say of it. */
function stageOf(blade: Blade, { route: file, stage, readings, shop: shopFile, forge: forgeFile }: Staged) {
  if (file === undefined || stage === undefined) {
    throw new Refusal([
      `--route and --stage go together${readings === undefined ? "" : ", and --readings with them"}`,
    ]);
  }
  const { route } = documentIn(file, "route ", parseRoute);
  const shop = shopFile === undefined ? USUAL_SHOP : documentIn(shopFile, "shop ", parseShop).shop;
  const forge = forgeIn(forgeFile);
  const rungs = ladderOf(blade, route, shop, forge);
  const rung = rungs.find(({ id }) => id === stage) ?? onlyOf(rungs.filter(({ kind }) => kind === stage));
  if (!rung) throw new Refusal([`--stage must be one of ${rungs.map(({ id }) => id).join(", ")}`]);
  const { id, kind, left, steel } = rung;
  const told = { stage: { id, kind, left, volume: steel.volume, readings: targetsAt(rung) } };
  if (readings === undefined) return told;
  const { taken, struck = [] } = documentIn(readings, "readings ", parseReadings).readings;
  const out = new Set(struck);
  return {
    ...told,
    bench: benchFigures({
      blade,
      route,
      shop,
      stage: id,
      check: NO_CHECK,
      forge,
      readings: taken.filter((one) => !out.has(one.id)),
    }),
  };
}

/** A whole route: every stage with what it works on, its belts and settings, and the layout. */
function planOf(blade: Blade, { route: file, stage, readings, shop: shopFile, forge: forgeFile }: Staged) {
  if (file === undefined || stage !== undefined || readings !== undefined)
    throw new Refusal(["--plan goes with --route, and with neither --stage nor --readings"]);
  const { route } = documentIn(file, "route ", parseRoute);
  if (route.stages.length === 0) throw new Refusal(["route $.stages: names no stage"]);
  const shop = shopFile === undefined ? USUAL_SHOP : documentIn(shopFile, "shop ", parseShop).shop;
  const forge = forgeIn(forgeFile);
  return { plan: planFigures(blade, route, shop, forge) };
}

const forgeIn = (file: string | undefined) =>
  file === undefined ? NO_FORGE : documentIn(file, "forge ", parseForge).forge;

const onlyOf = <T>(all: readonly T[]) => (all.length === 1 ? all[0] : undefined);

function argumentsGiven() {
  const text = { type: "string" } as const;
  try {
    const { values, positionals } = parseArgs({
      allowPositionals: true,
      options: {
        at: text,
        handle: text,
        limits: text,
        route: text,
        stage: text,
        readings: text,
        forge: text,
        shop: text,
        plan: { type: "boolean" },
      },
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
