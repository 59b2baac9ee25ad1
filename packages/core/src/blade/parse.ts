import { Type } from "@sinclair/typebox";
import { Ajv, type ErrorObject, type ValidateFunction } from "ajv";
import { checkBlade } from "./check.ts";
import { type Fault, pathFromPointer, pathOf } from "./fault.ts";
import type { Field } from "./field.ts";
import { BEVELS, type Blade, BladeSchema } from "./schema.ts";

/** A sound blade with its compiled field, or every fault that was found. */
export type ParsedBlade = { ok: true; blade: Blade; field: Field } | { ok: false; faults: readonly Fault[] };

/** Longest blade file taken, in characters. The largest file within the format's limits is under a tenth of it. */
export const LONGEST_FILE = 2_000_000;
const MOST_FAULTS = 40;

const ajv = new Ajv({ allErrors: true, strict: true, strictTuples: false, inlineRefs: false });

/** The file without the inside of its bevels, which are explained one by one below. */
const shell: ValidateFunction = ajv.compile(
  Type.Object(
    {
      ...BladeSchema.properties,
      bevels: Type.Object({ right: Type.Unknown(), left: Type.Unknown() }, { additionalProperties: false }),
    },
    { additionalProperties: false },
  ),
);

const bevelValidators = Object.fromEntries(
  Object.entries(BEVELS).map(([key, schema]) => [key, ajv.compile(schema)]),
) as Record<keyof typeof BEVELS, ValidateFunction>;

const SETS: Readonly<Record<string, readonly string[]>> = {
  "flat/follow": ["angle", "height", "full"],
  "flat/straight": ["angle"],
  "hollow/follow": ["height", "full"],
  "convex/follow": ["height", "full"],
};

/**
 * Reads a blade file's text. Returns the blade, checked in every way that check.ts knows, or every fault found
 * with its path; never throws, and never changes what it was given.
 */
export function parseBladeText(text: string): ParsedBlade {
  if (text.length > LONGEST_FILE) {
    return refused([
      { path: "$", message: `the file is over ${LONGEST_FILE} characters, too long for a blade` },
    ]);
  }
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    return refused([{ path: "$", message: `not JSON: ${syntaxPlace(text, error)}` }]);
  }
  return parseBlade(value);
}

/** The same for a value that has already been read from JSON. */
export function parseBlade(value: unknown): ParsedBlade {
  const faults = shapeFaults(value);
  if (faults.length > 0) return refused(faults);
  const blade = value as Blade;
  const { faults: deeper, field } = checkBlade(blade);
  return field ? { ok: true, blade, field } : refused(deeper);
}

function refused(faults: readonly Fault[]): ParsedBlade {
  if (faults.length <= MOST_FAULTS) return { ok: false, faults };
  const more = { path: "$", message: `and ${faults.length - MOST_FAULTS} more faults like these` };
  return { ok: false, faults: [...faults.slice(0, MOST_FAULTS), more] };
}

/** Faults of shape alone: types, limits, unknown and missing keys. Agrees with the published JSON Schema. */
export function shapeFaults(value: unknown): Fault[] {
  const faults = shell(value) ? [] : explain(shell.errors ?? [], "");
  const bevels = isRecord(value) && isRecord(value.bevels) ? value.bevels : undefined;
  if (!bevels) return faults;
  if ("right" in bevels) faults.push(...bevelFaults(bevels.right, "/bevels/right"));
  if ("left" in bevels && bevels.left !== "same") faults.push(...bevelFaults(bevels.left, "/bevels/left"));
  return faults;
}

function bevelFaults(bevel: unknown, at: string): Fault[] {
  const path = pathFromPointer(at);
  if (!isRecord(bevel)) {
    const or = at.endsWith("left") ? ', or "same"' : "";
    return [{ path, message: `must be a bevel with its kind${or}` }];
  }
  const { kind, pull, set } = bevel;
  if (kind === "none") return explain(run(bevelValidators.none, bevel), at);
  if (kind !== "flat" && kind !== "hollow" && kind !== "convex") {
    return [{ path: `${path}.kind`, message: `must be one of flat, hollow, convex, none${was(kind)}` }];
  }
  const pulls = kind === "flat" ? ["follow", "straight"] : ["follow"];
  if (typeof pull !== "string" || !pulls.includes(pull)) {
    return [
      { path: `${path}.pull`, message: `must be ${pulls.join(" or ")} on a ${kind} bevel${was(pull)}` },
    ];
  }
  const sets = SETS[`${kind}/${pull}`]!;
  if (typeof set !== "string" || !sets.includes(set)) {
    const how = pull === "straight" ? "straight pull" : `${kind} bevel`;
    return [{ path: `${path}.set`, message: `must be ${sets.join(" or ")} on a ${how}${was(set)}` }];
  }
  return explain(run(bevelValidators[`${kind}/${pull}/${set}` as keyof typeof BEVELS], bevel), at);
}

function run(validate: ValidateFunction, value: unknown): ErrorObject[] {
  return validate(value) ? [] : (validate.errors ?? []);
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function was(value: unknown): string {
  return value === undefined ? ", and is missing" : `, not ${show(value)}`;
}

function show(value: unknown): string {
  const text = JSON.stringify(value) ?? String(value);
  return text.length > 40 ? `${text.slice(0, 37)}…` : text;
}

/** A validator's errors in words; alternatives are told as one sentence instead of one line each. */
export function explain(errors: readonly ErrorObject[], under: string): Fault[] {
  const faults = new Map<string, Fault>();
  for (const error of errors) {
    if (error.schemaPath.includes("/anyOf/") && error.keyword !== "additionalProperties") continue;
    const path = pathFromPointer(under + error.instancePath);
    const fault = inWords(error, path);
    faults.set(`${fault.path} ${fault.message}`, fault);
  }
  return [...faults.values()];
}

function inWords(error: ErrorObject, path: string): Fault {
  const p = error.params as Record<string, unknown>;
  switch (error.keyword) {
    case "additionalProperties":
      return { path: extend(path, String(p.additionalProperty)), message: "is not a key that belongs here" };
    case "required":
      return { path: extend(path, String(p.missingProperty)), message: "is missing" };
    case "type":
      return { path, message: `must be ${withArticle(String(p.type))}` };
    case "const":
      return { path, message: `must be ${JSON.stringify(p.allowedValue)}` };
    case "minimum":
      return { path, message: `must be ${p.limit} or more` };
    case "exclusiveMinimum":
      return { path, message: `must be more than ${p.limit}` };
    case "maximum":
      return { path, message: `must be ${p.limit} or less` };
    case "minItems":
      return { path, message: `must have ${p.limit} entries or more` };
    case "maxItems":
    case "additionalItems":
      return { path, message: `must have ${p.limit} entries or fewer` };
    case "minLength":
      return { path, message: "must not be empty" };
    case "pattern":
      return { path, message: "must be plain text without control characters" };
    case "maxLength":
      return { path, message: `must be ${p.limit} characters or fewer` };
    case "anyOf":
      return { path, message: 'must be a number from −12.5 to 12.5, "left-face" or "right-face"' };
    default:
      return { path, message: error.message ?? "is not allowed" };
  }
}

function extend(path: string, key: string): string {
  return path + pathOf(key).slice(1);
}

function withArticle(type: string): string {
  return `${/^[aeiou]/.test(type) ? "an" : "a"} ${type === "object" ? "object { … }" : type === "array" ? "array [ … ]" : type}`;
}

/** Line and column of a syntax error, where the engine tells the position. */
function syntaxPlace(text: string, error: unknown): string {
  const message = error instanceof Error ? error.message : "unreadable";
  const position = /position (\d+)/.exec(message)?.[1];
  if (position === undefined) return "the text ends too soon, or is empty";
  const before = text.slice(0, Number(position)).split("\n");
  return `unreadable at line ${before.length}, column ${before[before.length - 1]!.length + 1}`;
}
