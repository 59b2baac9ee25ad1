import { type Static, Type } from "@sinclair/typebox";
import type { Blade } from "../blade/schema.ts";
import { faultsOf } from "../document/explain.ts";
import type { Fault } from "../document/fault.ts";
import { PRINTABLE } from "../document/printable.ts";
import { TimeSchema } from "../document/time.ts";
import { validatorOf } from "../document/validator.ts";
import type { Run } from "../inspect/run-schema.ts";
import type { Reading } from "../inspect/schema.ts";
import type { WorkRow } from "../work/schema.ts";
import { BLADE_STATES, type BladeState } from "./contract.ts";
import { DOCUMENT_KINDS, type DocumentKind, type Documents } from "./documents.ts";

/**
 * `true-spine/bundle` version 1: a blade whole, as a zip of the files of the other formats. This is its list, `bundle.json`: what each
 * file is, and the SHA-256 of its bytes.
 */
const only = { additionalProperties: false } as const;
const Uuid = Type.String({ pattern: "^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$" });
const Words = Type.String({ minLength: 1, maxLength: 120, pattern: PRINTABLE });
const literals = <T extends string>(words: readonly T[]) =>
  Type.Union(words.map((word) => Type.Literal(word)));

/** Rows of a file of readings or work: a larger one is written as several. */
export const MOST_ROWS = 5000;
/** Files of a bundle. */
export const MOST_FILES = 10_000;

const FILE = {
  path: Type.String({ pattern: "^[a-z0-9/-]{1,100}\\.json$" }),
  sha256: Type.String({ pattern: "^[0-9a-f]{64}$" }),
};
/** A state of something that is saved by numbers: the highest stands, the others are its history. */
const STATE = {
  ...FILE,
  number: Type.Integer({ minimum: 1, maximum: 1_000_000 }),
  saveKey: Uuid,
  at: TimeSchema,
};

const FileSchema = Type.Union([
  Type.Object({ ...STATE, what: Type.Literal("blade"), label: Type.Optional(Words) }, only),
  Type.Object({ ...STATE, what: Type.Literal("document"), kind: literals(DOCUMENT_KINDS) }, only),
  Type.Object({ ...FILE, what: Type.Literal("readings") }, only),
  Type.Object({ ...FILE, what: Type.Literal("work") }, only),
  Type.Object({ ...FILE, what: Type.Literal("run"), id: Uuid }, only),
]);

export const BundleSchema = Type.Object(
  {
    format: Type.Literal("true-spine/bundle"),
    version: Type.Literal(1),
    made: TimeSchema,
    blade: Type.Object({ id: Uuid, name: Words, state: literals(BLADE_STATES) }, only),
    /** Readings and rows of work that were struck out. */
    struck: Type.Array(Uuid, { maxItems: 100_000 }),
    files: Type.Array(FileSchema, { minItems: 1, maxItems: MOST_FILES }),
  },
  { ...only, $id: "true-spine/bundle/1", title: "True Spine bundle of one blade, version 1" },
);
export type BundleList = Static<typeof BundleSchema>;
export type BundleFile = BundleList["files"][number];

interface State<T> {
  readonly number: number;
  readonly saveKey: string;
  readonly at: string;
  readonly file: T;
}
export type BladeStateOf = State<Blade> & { readonly label?: string };
export type DocumentStateOf = State<Documents[DocumentKind]> & { readonly kind: DocumentKind };

/** A blade whole: its states and those of its documents, oldest first, what was recorded on it, and the runs that it is in. */
export interface Bundle {
  readonly id: string;
  readonly name: string;
  readonly state: BladeState;
  readonly states: readonly BladeStateOf[];
  readonly documents: readonly DocumentStateOf[];
  readonly readings: readonly Reading[];
  readonly work: readonly WorkRow[];
  readonly struck: readonly string[];
  readonly runs: readonly { readonly id: string; readonly file: Run }[];
}

const listShape = validatorOf(BundleSchema);

/** The list of a bundle, or every fault found with its path; a later version is told as that. Never throws. */
export function parseBundleList(
  value: unknown,
): { ok: true; list: BundleList } | { ok: false; faults: readonly Fault[] } {
  const { format, version } = (value ?? {}) as { format?: unknown; version?: unknown };
  if (format === "true-spine/bundle" && typeof version === "number" && version > 1) {
    const message = `is ${version}: it was made by a newer True Spine than this one, which reads version 1`;
    return { ok: false, faults: [{ path: "$.version", message }] };
  }
  const faults = faultsOf(listShape, value);
  return faults.length > 0 ? { ok: false, faults } : { ok: true, list: value as BundleList };
}

/** How much was taken in of a bundle. */
export interface TakenIn {
  /** The blade's id here: another one where it was taken in beside the one that stood. */
  readonly id: string;
  readonly name: string;
  readonly added: {
    readonly revisions: number;
    readonly documents: number;
    readonly readings: number;
    readonly work: number;
    readonly struck: number;
    readonly runs: number;
  };
  /** What is worth knowing beside. */
  readonly notes: readonly string[];
}

/** What a bundle would add, in words: “2 revisions, 30 readings”; empty where it is nothing. */
export function addedInWords({
  revisions,
  documents,
  readings,
  work,
  struck,
  runs,
}: TakenIn["added"]): string {
  const of = (count: number, one: string, many = `${one}s`) =>
    count === 0 ? [] : [`${count} ${count === 1 ? one : many}`];
  return [
    ...of(revisions, "revision"),
    ...of(documents, "state of its documents", "states of its documents"),
    ...of(readings, "reading"),
    ...of(work, "entry of the work", "entries of the work"),
    ...of(struck, "reading or entry struck out", "readings or entries struck out"),
    ...of(runs, "run"),
  ].join(", ");
}
