import { type Limits, parseLimits } from "../findings/limits.ts";
import { parseHandle } from "../handle/parse.ts";
import type { Handle } from "../handle/schema.ts";
import type { Fault } from "./fault.ts";

/** The documents that may belong to a blade beside its own file, by kind. */
export interface Documents {
  readonly limits: Limits;
  readonly handle: Handle;
}
export type DocumentKind = keyof Documents;
export const DOCUMENT_KINDS: readonly DocumentKind[] = ["limits", "handle"];

type Parsed<K extends DocumentKind> =
  | { ok: true; document: Documents[K] }
  | { ok: false; faults: readonly Fault[] };

const PARSERS: { [K in DocumentKind]: (value: unknown) => Parsed<K> } = {
  limits: (value) => {
    const parsed = parseLimits(value);
    return parsed.ok ? { ok: true, document: parsed.limits } : parsed;
  },
  handle: (value) => {
    const parsed = parseHandle(value);
    return parsed.ok ? { ok: true, document: parsed.handle } : parsed;
  },
};

/** A sound document of a kind, or every fault found with its path. Never throws. */
export function parseDocument<K extends DocumentKind>(kind: K, value: unknown): Parsed<K> {
  return PARSERS[kind](value);
}
