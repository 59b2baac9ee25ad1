import { Type } from "@sinclair/typebox";
import type { ValidateFunction } from "ajv";
import { faultsOf, fewEnough, insteadOf, isRecord } from "../document/explain.ts";
import { type Fault, pathFromPointer } from "../document/fault.ts";
import { readJson } from "../document/read-json.ts";
import { validatorOf } from "../document/validator.ts";
import { checkBlade } from "./check.ts";
import type { Field } from "./field.ts";
import { BEVELS, type Blade, BladeSchema, SECOND_BEVELS } from "./schema.ts";

/** A sound blade with its compiled field, or every fault that was found. */
export type ParsedBlade = { ok: true; blade: Blade; field: Field } | { ok: false; faults: readonly Fault[] };

const BEVELS_UNREAD = Type.Object(
  { right: Type.Unknown(), left: Type.Unknown() },
  { additionalProperties: false },
);

/** The file without the inside of its bevels, which are explained one by one below. */
const shell: ValidateFunction = validatorOf(
  Type.Object(
    {
      ...BladeSchema.properties,
      bevels: BEVELS_UNREAD,
      secondEdge: Type.Optional(
        Type.Object(
          { ...BladeSchema.properties.secondEdge.properties, bevels: BEVELS_UNREAD },
          { additionalProperties: false },
        ),
      ),
    },
    { additionalProperties: false },
  ),
);

const bevelValidators = Object.fromEntries(
  Object.entries(BEVELS).map(([key, schema]) => [key, validatorOf(schema)]),
) as Record<keyof typeof BEVELS, ValidateFunction>;

const secondValidators = Object.fromEntries(
  Object.entries(SECOND_BEVELS).map(([key, schema]) => [key, validatorOf(schema)]),
) as Record<keyof typeof SECOND_BEVELS, ValidateFunction>;

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
  const json = readJson(text);
  return json.ok ? parseBlade(json.value) : { ok: false, faults: [json.fault] };
}

/** The same for a value that has already been read from JSON. */
export function parseBlade(value: unknown): ParsedBlade {
  const faults = shapeFaults(value);
  if (faults.length > 0) return { ok: false, faults: fewEnough(faults) };
  const blade = value as Blade;
  const { faults: deeper, field } = checkBlade(blade);
  return field ? { ok: true, blade, field } : { ok: false, faults: fewEnough(deeper) };
}

/** Faults of shape alone: types, limits, unknown and missing keys. Agrees with the published JSON Schema. */
export function shapeFaults(value: unknown): Fault[] {
  const faults = faultsOf(shell, value);
  const bevels = isRecord(value) && isRecord(value.bevels) ? value.bevels : undefined;
  if (bevels) {
    if ("right" in bevels) faults.push(...bevelFaults(bevels.right, "/bevels/right"));
    if ("left" in bevels && bevels.left !== "same") faults.push(...bevelFaults(bevels.left, "/bevels/left"));
  }
  const second = isRecord(value) && isRecord(value.secondEdge) ? value.secondEdge.bevels : undefined;
  if (isRecord(second)) {
    const at = "/secondEdge/bevels";
    if ("right" in second) faults.push(...secondFaults(second.right, `${at}/right`));
    if ("left" in second && second.left !== "same") faults.push(...secondFaults(second.left, `${at}/left`));
  }
  return faults;
}

function secondFaults(bevel: unknown, at: string): Fault[] {
  const path = pathFromPointer(at);
  if (!isRecord(bevel)) return [{ path, message: "must be a bevel with its kind" }];
  const { kind, set } = bevel;
  if (kind === "none") return faultsOf(secondValidators.none, bevel, at);
  if (kind !== "flat" && kind !== "hollow" && kind !== "convex")
    return [{ path: `${path}.kind`, message: `must be one of flat, hollow, convex, none${insteadOf(kind)}` }];
  const sets = SETS[`${kind}/follow`]!;
  if (typeof set !== "string" || !sets.includes(set))
    return [
      { path: `${path}.set`, message: `must be ${sets.join(" or ")} on a ${kind} bevel${insteadOf(set)}` },
    ];
  return faultsOf(secondValidators[`${kind}/${set}` as keyof typeof SECOND_BEVELS], bevel, at);
}

function bevelFaults(bevel: unknown, at: string): Fault[] {
  const path = pathFromPointer(at);
  if (!isRecord(bevel)) {
    const or = at.endsWith("left") ? ', or "same"' : "";
    return [{ path, message: `must be a bevel with its kind${or}` }];
  }
  const { kind, pull, set } = bevel;
  if (kind === "none") return faultsOf(bevelValidators.none, bevel, at);
  if (kind !== "flat" && kind !== "hollow" && kind !== "convex") {
    return [{ path: `${path}.kind`, message: `must be one of flat, hollow, convex, none${insteadOf(kind)}` }];
  }
  const pulls = kind === "flat" ? ["follow", "straight"] : ["follow"];
  if (typeof pull !== "string" || !pulls.includes(pull)) {
    return [
      { path: `${path}.pull`, message: `must be ${pulls.join(" or ")} on a ${kind} bevel${insteadOf(pull)}` },
    ];
  }
  const sets = SETS[`${kind}/${pull}`]!;
  if (typeof set !== "string" || !sets.includes(set)) {
    const how = pull === "straight" ? "straight pull" : `${kind} bevel`;
    return [{ path: `${path}.set`, message: `must be ${sets.join(" or ")} on a ${how}${insteadOf(set)}` }];
  }
  return faultsOf(bevelValidators[`${kind}/${pull}/${set}` as keyof typeof BEVELS], bevel, at);
}
