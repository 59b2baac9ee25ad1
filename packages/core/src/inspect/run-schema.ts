import { type Static, Type } from "@sinclair/typebox";
import { faultsOf } from "../document/explain.ts";
import type { Fault } from "../document/fault.ts";
import { PRINTABLE } from "../document/printable.ts";
import { validatorOf } from "../document/validator.ts";
import { StageIdSchema } from "../route/schema.ts";
import { SpotSchema } from "./schema.ts";

/** Several blades made to one specification, in the order they were made, and the places charted: `true-spine/run` version 1. */
const only = { additionalProperties: false } as const;
const Uuid = Type.String({ pattern: "^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$" });

export const RunSchema = Type.Object(
  {
    format: Type.Literal("true-spine/run"),
    version: Type.Literal(1),
    name: Type.String({ minLength: 1, maxLength: 120, pattern: PRINTABLE }),
    blades: Type.Array(Uuid, { maxItems: 500, uniqueItems: true }),
    places: Type.Array(Type.Object({ stage: StageIdSchema, spot: SpotSchema }, only), {
      maxItems: 24,
    }),
  },
  { ...only, $id: "true-spine/run/1", title: "True Spine run, version 1" },
);
export type Run = Static<typeof RunSchema>;
export type ChartedPlace = Run["places"][number];

const validate = validatorOf(RunSchema);

/** A sound run, or every fault found with its path. Never throws. */
export function parseRun(value: unknown): { ok: true; run: Run } | { ok: false; faults: readonly Fault[] } {
  const faults = faultsOf(validate, value);
  return faults.length > 0 ? { ok: false, faults } : { ok: true, run: value as Run };
}
