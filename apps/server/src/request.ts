import { DOCUMENT_KINDS, type DocumentKind } from "@true-spine/core/registry/documents.ts";
import type { Context } from "hono";
import { type BodyName, type BodyOf, isUuid } from "./bodies.ts";
import type { Judging } from "./judging/judging.ts";
import { Problem } from "./problem.ts";

/** Requests are refused above this many bytes; the largest blade within its limits is far below it. */
export const LARGEST_BODY = 2 * 1024 * 1024;
const LONGEST_SEARCH = 120;

/** The request's body, checked: 415 unless it is JSON, 400 where it cannot be read, 422 with its faults. */
export async function bodyOf<N extends BodyName>(c: Context, judging: Judging, name: N): Promise<BodyOf<N>> {
  if (!/^application\/json\b/.test(c.req.header("content-type") ?? "")) {
    throw new Problem(415, "Send JSON, as application/json.");
  }
  return judging.read(name, await c.req.text());
}

export function kindOf(c: Context): DocumentKind {
  const kind = DOCUMENT_KINDS.find((one) => one === c.req.param("kind"));
  if (!kind) throw new Problem(404, "There is no such kind of document.");
  return kind;
}

export function idOf(c: Context, what: "blade" | "run" | "device" = "blade"): string {
  const id = c.req.param("id");
  if (!isUuid(id)) throw new Problem(404, `There is no such ${what}.`);
  return id;
}

export function numberOf(c: Context): number {
  const number = Number(c.req.param("number"));
  if (!Number.isInteger(number) || number < 1 || number > 1_000_000)
    throw new Problem(404, "There is no such revision.");
  return number;
}

/** What is searched for, without signs that no name can have. */
export function searchOf(c: Context): string {
  return (c.req.query("search") ?? "").replace(/[\p{Cc}\p{Cs}]/gu, "").slice(0, LONGEST_SEARCH);
}
