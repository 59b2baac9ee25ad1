import { type TSchema, Type } from "@sinclair/typebox";
import type { ValidateFunction } from "ajv";
import { faultsOf, fewEnough, insteadOf, isRecord } from "../document/explain.ts";
import { type Fault, pathFromPointer, pathOf } from "../document/fault.ts";
import { validatorOf } from "../document/validator.ts";
import { MATERIALS } from "./materials.ts";
import { type Handle, HandleSchema, PARTS } from "./schema.ts";

/** The document without the inside of its parts, which are explained one by one. */
const shell = validatorOf(
  Type.Object(
    { ...HandleSchema.properties, parts: Type.Array(Type.Unknown(), { maxItems: 20 }) },
    { additionalProperties: false },
  ),
);
const partValidators = new Map<unknown, ValidateFunction>(
  Object.entries(PARTS).map(([kind, schema]: [string, TSchema]) => [kind, validatorOf(schema)]),
);

/** A sound handle, or every fault found with its path. Never throws. */
export function parseHandle(
  value: unknown,
): { ok: true; handle: Handle } | { ok: false; faults: readonly Fault[] } {
  const shape = [...faultsOf(shell, value), ...partFaults(value)];
  if (shape.length > 0) return { ok: false, faults: fewEnough(shape) };
  const handle = value as Handle;
  const faults = [...placeFaults(handle), ...materialFaults(handle)];
  return faults.length > 0 ? { ok: false, faults: fewEnough(faults) } : { ok: true, handle };
}

function partFaults(value: unknown): Fault[] {
  if (!isRecord(value) || !Array.isArray(value.parts)) return [];
  return value.parts.flatMap((part: unknown, i) => {
    const at = `/parts/${i}`;
    const path = pathFromPointer(at);
    if (!isRecord(part)) return [{ path, message: "must be a part with its kind" }];
    const validate = partValidators.get(part.kind);
    if (validate) return faultsOf(validate, part, at);
    const kinds = Object.keys(PARTS).join(", ");
    return [{ path: `${path}.kind`, message: `must be one of ${kinds}${insteadOf(part.kind)}` }];
  });
}

function placeFaults({ parts, pins }: Handle): Fault[] {
  return [
    ...parts.flatMap((part, i) =>
      part.kind !== "scales" && part.from >= part.to
        ? [{ path: pathOf("parts", i, "to"), message: `must lie ahead of from, ${part.from}` }]
        : [],
    ),
    ...pins.flatMap((pin, i) =>
      pin.bore >= pin.diameter
        ? [{ path: pathOf("pins", i, "bore"), message: `must be less than the diameter, ${pin.diameter}` }]
        : [],
    ),
  ];
}

function materialFaults({ parts, pins }: Handle): Fault[] {
  const names = MATERIALS.map((material) => material.name);
  const check = (material: string, ...at: (string | number)[]) =>
    names.includes(material)
      ? []
      : [
          {
            path: pathOf(...at, "material"),
            message: `has no known density: use one of ${names.join(", ")}`,
          },
        ];
  return [
    ...parts.flatMap(({ material }, i) => check(material, "parts", i)),
    ...pins.flatMap(({ material }, i) => check(material, "pins", i)),
  ];
}
