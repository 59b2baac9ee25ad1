import { type Static, type TSchema, Type } from "@sinclair/typebox";
import { parseBlade } from "@true-spine/core/blade/parse.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { faultsOf } from "@true-spine/core/document/explain.ts";
import { PRINTABLE } from "@true-spine/core/document/printable.ts";
import { validatorOf } from "@true-spine/core/document/validator.ts";
import { parseReading } from "@true-spine/core/inspect/parse.ts";
import { parseRun, type Run } from "@true-spine/core/inspect/run-schema.ts";
import { type Reading, SpotSchema } from "@true-spine/core/inspect/schema.ts";
import { BEHAVIOURS, MOST_PRESS } from "@true-spine/core/inspect/wire.ts";
import { BLADE_STATES, ROLES } from "@true-spine/core/registry/contract.ts";
import {
  DOCUMENT_KINDS,
  type DocumentKind,
  type Documents,
  parseDocument,
} from "@true-spine/core/registry/documents.ts";
import { StageIdSchema } from "@true-spine/core/route/schema.ts";
import { parseShop } from "@true-spine/core/shop/parse.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import { SET_KINDS } from "@true-spine/core/straight/schema.ts";
import { parseWork, type WorkRow } from "@true-spine/core/work/schema.ts";
import { refusedDocument } from "./problem.ts";

const only = { additionalProperties: false };
const Uuid = Type.String({ pattern: "^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$" });
const Revision = Type.Integer({ minimum: 1, maximum: 1_000_000 });
const Label = Type.String({ minLength: 1, maxLength: 120, pattern: PRINTABLE });
/** Readings in one request. */
const MOST_READINGS = 1000;

const SaveShape = Type.Object(
  { file: Type.Unknown(), base: Type.Integer({ minimum: 0, maximum: 1_000_000 }), saveKey: Uuid },
  only,
);
const createShape = checked(Type.Object({ id: Uuid, file: Type.Unknown() }, only));
const saveBladeShape = checked(
  Type.Object({ file: Type.Unknown(), base: Revision, saveKey: Uuid, label: Type.Optional(Label) }, only),
);
const saveShape = checked(SaveShape);
const readingsShape = checked(
  Type.Object({ readings: Type.Array(Type.Unknown(), { maxItems: MOST_READINGS }) }, only),
);

const workShape = checked(
  Type.Object({ work: Type.Array(Type.Unknown(), { maxItems: MOST_READINGS }) }, only),
);

/**
 * What a request's body may be, by name, as plain data: each check answers with the sound body, or throws a 422 with every fault and
 * its path.
 */
export const BODIES = {
  createBlade: (value: unknown) => {
    const { id, file } = createShape(value);
    return { id, file: bladeOf(file) };
  },
  saveBlade: (value: unknown) => {
    const { file, ...save } = saveBladeShape(value);
    return { ...save, file: bladeOf(file) };
  },
  ...saves(),
  saveShop: (value: unknown) => {
    const { file, ...save } = saveShape(value);
    return { ...save, file: shopOf(file) };
  },
  saveRun: (value: unknown) => {
    const { file, ...save } = saveShape(value);
    return { ...save, file: runOf(file) };
  },
  takeReadings: (value: unknown) => readingsOf(readingsShape(value).readings),
  takeWork: (value: unknown) => workOf(workShape(value).work),
  marks: checked(
    Type.Object(
      {
        state: Type.Optional(Type.Union(BLADE_STATES.map((state) => Type.Literal(state)))),
        archived: Type.Optional(Type.Boolean()),
      },
      only,
    ),
  ),
  copy: checked(Type.Object({ id: Uuid }, only)),
  restore: checked(Type.Object({ base: Revision, saveKey: Uuid }, only)),
  copyFolder: checked(
    // Whole, from the root: where the server was started from is nobody's business.
    Type.Object(
      { folder: Type.String({ minLength: 2, maxLength: 500, pattern: "^/[^\\p{Cc}\\p{Cs}]*$" }) },
      only,
    ),
  ),
  letIn: checked(
    Type.Object({ name: Label, role: Type.Union(ROLES.map((role) => Type.Literal(role))) }, only),
  ),
  label: checked(Type.Object({ label: Type.Union([Label, Type.Null()]) }, only)),
  strike: checked(
    Type.Object(
      { ids: Type.Array(Uuid, { minItems: 1, maxItems: MOST_READINGS }), struck: Type.Boolean() },
      only,
    ),
  ),
  press: checked(
    Type.Object(
      {
        blade: Uuid,
        stage: StageIdSchema,
        spot: SpotSchema,
        press: Type.Optional(Type.Integer({ minimum: 1, maximum: MOST_PRESS })),
      },
      only,
    ),
  ),
  layOnAnvil: checked(
    Type.Object(
      {
        height: Type.Number({ minimum: -20, maximum: 20 }),
        at: Type.Union([Type.Number({ minimum: 1, maximum: 2000 }), Type.Null()]),
        twist: Type.Number({ minimum: -45, maximum: 45 }),
        isClad: Type.Boolean(),
        rule: Type.Number({ minimum: -5, maximum: 5 }),
      },
      only,
    ),
  ),
  readOnAnvil: checked(
    Type.Object(
      {
        stage: StageIdSchema,
        kind: Type.Union(SET_KINDS.map((kind) => Type.Literal(kind))),
        face: Type.Union([Type.Literal("left"), Type.Literal("right")]),
        places: Type.Array(
          Type.Object(
            {
              x: Type.Number({ minimum: -2000, maximum: 2000 }),
              y: Type.Number({ minimum: -2000, maximum: 2000 }),
            },
            only,
          ),
          { minItems: 2, maxItems: 40 },
        ),
      },
      only,
    ),
  ),
  behave: checked(Type.Object({ how: Type.Union(BEHAVIOURS.map((how) => Type.Literal(how))) }, only)),
} as const;
export type BodyName = keyof typeof BODIES;
export type BodyOf<N extends BodyName> = ReturnType<(typeof BODIES)[N]>;

const uuidShape = validatorOf(Uuid);
export const isUuid = (value: unknown): value is string => uuidShape(value) as boolean;

function checked<T extends TSchema>(schema: T) {
  const validate = validatorOf(schema);
  return (value: unknown): Static<T> => {
    const faults = faultsOf(validate, value);
    if (faults.length === 0) return value as Static<T>;
    throw refusedDocument(faults);
  };
}

/** A save of each kind of document that belongs to a blade, as `document:route` and the like. */
function saves() {
  return Object.fromEntries(DOCUMENT_KINDS.map((kind) => [`document:${kind}`, saveOf(kind)])) as {
    readonly [K in DocumentKind as `document:${K}`]: ReturnType<typeof saveOf<K>>;
  };
}

function saveOf<K extends DocumentKind>(kind: K) {
  return (value: unknown): { base: number; saveKey: string; file: Documents[K] } => {
    const { file, ...save } = saveShape(value);
    const parsed = parseDocument(kind, file);
    if (!parsed.ok) throw refusedDocument(parsed.faults);
    return { ...save, file: parsed.document };
  };
}

function bladeOf(value: unknown): Blade {
  const parsed = parseBlade(value);
  if (!parsed.ok) throw refusedDocument(parsed.faults);
  return parsed.blade;
}

function shopOf(value: unknown): Shop {
  const parsed = parseShop(value);
  if (!parsed.ok) throw refusedDocument(parsed.faults);
  return parsed.shop;
}

function runOf(value: unknown): Run {
  const parsed = parseRun(value);
  if (!parsed.ok) throw refusedDocument(parsed.faults);
  return parsed.run;
}

function workOf(values: readonly unknown[]): WorkRow[] {
  const parsed = parseWork({ format: "true-spine/work", version: 1, rows: values });
  if (parsed.ok) return parsed.work.rows;
  const faults = parsed.faults.map(({ path, message }) => ({
    path: path.replace("$.rows", "$.work"),
    message,
  }));
  throw refusedDocument(faults.slice(0, 100));
}

function readingsOf(values: readonly unknown[]): Reading[] {
  const parsed = values.map(parseReading);
  const faults = parsed.flatMap((one, i) =>
    one.ok
      ? []
      : one.faults.map(({ path, message }) => ({ path: `$.readings[${i}]${path.slice(1)}`, message })),
  );
  if (faults.length > 0) throw refusedDocument(faults.slice(0, 100));
  return parsed.flatMap((one) => (one.ok ? [one.reading] : []));
}
