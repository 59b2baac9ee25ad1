import type { ErrorObject, ValidateFunction } from "ajv";
import { type Fault, pathFromPointer, pathOf } from "./fault.ts";
import { PRINTABLE } from "./printable.ts";
import { DaySchema, TimeSchema } from "./time.ts";

/** More faults than this help nobody. */
const MOST_FAULTS = 40;

/** What a validator has against a value, in words; paths begin at `under`, a JSON pointer. */
export function faultsOf(validate: ValidateFunction, value: unknown, under = ""): Fault[] {
  return validate(value) ? [] : explain(validate.errors ?? [], under);
}

/** The first faults, and how many more there are. */
export function fewEnough(faults: readonly Fault[]): readonly Fault[] {
  if (faults.length <= MOST_FAULTS) return faults;
  const more = { path: "$", message: `and ${faults.length - MOST_FAULTS} more faults like these` };
  return [...faults.slice(0, MOST_FAULTS), more];
}

export function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

/** The end of a sentence that names what stands where something else should. */
export function insteadOf(value: unknown): string {
  if (value === undefined) return ", and is missing";
  const text = JSON.stringify(value) ?? String(value);
  return `, not ${text.length > 40 ? `${text.slice(0, 37)}…` : text}`;
}

/** A validator's errors in words; alternatives are told as one sentence instead of one line each. */
function explain(errors: readonly ErrorObject[], under: string): Fault[] {
  const faults = new Map<string, Fault>();
  for (const error of errors) {
    if (error.schemaPath.includes("/anyOf/") && error.keyword !== "additionalProperties") continue;
    const path = pathFromPointer(under + error.instancePath);
    const fault = inWords(error, path);
    faults.set(`${fault.path} ${fault.message}`, fault);
  }
  return [...faults.values()];
}

const NO_DAY = "must be a day of the calendar, like 2026-11-20";
const NO_TIME = "must be a time in UTC on a day of the calendar, like 2026-11-20T14:30:00Z";

function patternInWords(pattern: string): string {
  if (pattern === DaySchema.pattern) return NO_DAY;
  if (pattern === TimeSchema.pattern) return NO_TIME;
  if (pattern === PRINTABLE) return "must be plain text without control characters";
  if (pattern.startsWith("^[0-9a-f]{8}")) return "must be an id, a UUID in small letters";
  if (pattern.startsWith("^[a-z0-9-]")) return "must be small letters, digits and hyphens, 40 at most";
  return "is not written the way it must be";
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
    case "format":
      return { path, message: p.format === "date" ? NO_DAY : NO_TIME };
    case "pattern":
      return { path, message: patternInWords(String(p.pattern)) };
    case "maxLength":
      return { path, message: `must be ${p.limit} characters or fewer` };
    case "anyOf":
      return { path, message: alternatives(error.schema) };
    default:
      return { path, message: error.message ?? "is not allowed" };
  }
}

/** What may stand where one of several things may: each as it would be written. */
function alternatives(schema: unknown): string {
  const options = (Array.isArray(schema) ? schema : []) as Record<string, unknown>[];
  const words = options.map(({ const: exact, type, minimum, maximum }) => {
    if (exact !== undefined) return JSON.stringify(exact);
    if (type === "null") return "null";
    const range = minimum !== undefined && maximum !== undefined ? ` from ${minimum} to ${maximum}` : "";
    return `${withArticle(String(type))}${range}`;
  });
  if (words.length < 2) return "is not one of what may stand here";
  return `must be ${words.slice(0, -1).join(", ")} or ${words[words.length - 1]}`;
}

function extend(path: string, key: string): string {
  return path + pathOf(key).slice(1);
}

function withArticle(type: string): string {
  return `${/^[aeiou]/.test(type) ? "an" : "a"} ${type === "object" ? "object { … }" : type === "array" ? "array [ … ]" : type}`;
}
