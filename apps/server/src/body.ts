import { type Static, type TSchema, Type } from "@sinclair/typebox";
import { parseBlade } from "@true-spine/core/blade/parse.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { BLADE_STATES } from "@true-spine/core/contract.ts";
import {
  DOCUMENT_KINDS,
  type DocumentKind,
  type Documents,
  parseDocument,
} from "@true-spine/core/document/documents.ts";
import { faultsOf } from "@true-spine/core/document/explain.ts";
import { parseReading } from "@true-spine/core/inspect/parse.ts";
import { parseRun, type Run } from "@true-spine/core/inspect/run-schema.ts";
import { type Reading, SpotSchema } from "@true-spine/core/inspect/schema.ts";
import { BEHAVIOURS } from "@true-spine/core/inspect/wire.ts";
import { STAGE_KINDS } from "@true-spine/core/route/schema.ts";
import { parseShop } from "@true-spine/core/shop/parse.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import { Ajv } from "ajv";
import type { Context } from "hono";
import { Problem, refusedDocument } from "./problem.ts";

/** Requests are refused above this many bytes; the largest blade within its limits is far below it. */
export const LARGEST_BODY = 2 * 1024 * 1024;

const ajv = new Ajv({ allErrors: true, verbose: true, strict: true });
const only = { additionalProperties: false };
const Uuid = Type.String({ pattern: "^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$" });
const Revision = Type.Integer({ minimum: 1, maximum: 1_000_000 });
const Label = Type.String({ minLength: 1, maxLength: 120 });

export const Create = ajvChecked(Type.Object({ id: Uuid, file: Type.Unknown() }, only));
export const Save = ajvChecked(
  Type.Object({ file: Type.Unknown(), base: Revision, saveKey: Uuid, label: Type.Optional(Label) }, only),
);
export const SaveDocument = ajvChecked(
  Type.Object(
    { file: Type.Unknown(), base: Type.Integer({ minimum: 0, maximum: 1_000_000 }), saveKey: Uuid },
    only,
  ),
);
export const Marks = ajvChecked(
  Type.Object(
    {
      state: Type.Optional(Type.Union(BLADE_STATES.map((state) => Type.Literal(state)))),
      archived: Type.Optional(Type.Boolean()),
    },
    only,
  ),
);
export const Copy = ajvChecked(Type.Object({ id: Uuid }, only));
export const Restore = ajvChecked(Type.Object({ base: Revision, saveKey: Uuid }, only));
export const Labelled = ajvChecked(Type.Object({ label: Type.Union([Label, Type.Null()]) }, only));
/** Readings in one request. */
const MOST_READINGS = 1000;
export const TakeReadings = ajvChecked(
  Type.Object({ readings: Type.Array(Type.Unknown(), { maxItems: MOST_READINGS }) }, only),
);
export const Strike = ajvChecked(
  Type.Object(
    { ids: Type.Array(Uuid, { minItems: 1, maxItems: MOST_READINGS }), struck: Type.Boolean() },
    only,
  ),
);
export const Press = ajvChecked(
  Type.Object(
    {
      blade: Uuid,
      stage: Type.Union(STAGE_KINDS.map((kind) => Type.Literal(kind))),
      spot: SpotSchema,
    },
    only,
  ),
);
export const Behave = ajvChecked(
  Type.Object({ how: Type.Union(BEHAVIOURS.map((how) => Type.Literal(how))) }, only),
);
const uuid = ajv.compile(Uuid);

function ajvChecked<T extends TSchema>(schema: T) {
  const validate = ajv.compile(schema);
  return (value: unknown): Static<T> => {
    const faults = faultsOf(validate, value);
    if (faults.length === 0) return value as Static<T>;
    throw refusedDocument(faults);
  };
}

/** The request's body, checked: 415 unless it is JSON, 400 where it cannot be read, 422 with its faults. */
export async function bodyOf<T>(c: Context, check: (value: unknown) => T): Promise<T> {
  if (!/^application\/json\b/.test(c.req.header("content-type") ?? "")) {
    throw new Problem(415, "Send JSON, as application/json.");
  }
  let value: unknown;
  try {
    value = await c.req.json();
  } catch {
    throw new Problem(400, "The request is not readable JSON.");
  }
  return check(value);
}

/** A blade from a request's value, or a 422 with every fault and its path. */
export function bladeOf(value: unknown): Blade {
  const parsed = parseBlade(value);
  if (!parsed.ok) throw refusedDocument(parsed.faults);
  return parsed.blade;
}

/** A document of a kind from a request's value, or a 422 with every fault and its path. */
export function documentOf<K extends DocumentKind>(kind: K, value: unknown): Documents[K] {
  const parsed = parseDocument(kind, value);
  if (!parsed.ok) throw refusedDocument(parsed.faults);
  return parsed.document;
}

/** The shop from a request's value, or a 422 with every fault and its path. */
export function shopOf(value: unknown): Shop {
  const parsed = parseShop(value);
  if (!parsed.ok) throw refusedDocument(parsed.faults);
  return parsed.shop;
}

/** Readings from a request's values, or a 422 with every fault and its path. */
export function readingsOf(values: readonly unknown[]): Reading[] {
  const parsed = values.map(parseReading);
  const faults = parsed.flatMap((one, i) =>
    one.ok
      ? []
      : one.faults.map(({ path, message }) => ({ path: `$.readings[${i}]${path.slice(1)}`, message })),
  );
  if (faults.length > 0) throw refusedDocument(faults.slice(0, 100));
  return parsed.flatMap((one) => (one.ok ? [one.reading] : []));
}

/** A run from a request's value, or a 422 with every fault and its path. */
export function runOf(value: unknown): Run {
  const parsed = parseRun(value);
  if (!parsed.ok) throw refusedDocument(parsed.faults);
  return parsed.run;
}

export function kindOf(c: Context): DocumentKind {
  const kind = DOCUMENT_KINDS.find((one) => one === c.req.param("kind"));
  if (!kind) throw new Problem(404, "There is no such kind of document.");
  return kind;
}

export function idOf(c: Context, what: "blade" | "run" = "blade"): string {
  const id = c.req.param("id");
  if (!uuid(id)) throw new Problem(404, `There is no such ${what}.`);
  return id as string;
}

export function numberOf(c: Context): number {
  const number = Number(c.req.param("number"));
  if (!Number.isInteger(number) || number < 1 || number > 1_000_000)
    throw new Problem(404, "There is no such revision.");
  return number;
}
