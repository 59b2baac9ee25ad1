import type { Fault } from "./fault.ts";

/** Longest document taken, in characters. The largest blade within the format's limits is under a tenth of it. */
export const LONGEST_FILE = 2_000_000;

/** Reads JSON from text, or says where it stops being JSON. Never throws. */
export function readJson(text: string): { ok: true; value: unknown } | { ok: false; fault: Fault } {
  if (text.length > LONGEST_FILE) {
    return {
      ok: false,
      fault: { path: "$", message: `the file is over ${LONGEST_FILE} characters, too long for a document` },
    };
  }
  try {
    return { ok: true, value: JSON.parse(text) };
  } catch (error) {
    return { ok: false, fault: { path: "$", message: `not JSON: ${syntaxPlace(text, error)}` } };
  }
}

/** Line and column of a syntax error, where the engine tells the position. */
function syntaxPlace(text: string, error: unknown): string {
  const message = error instanceof Error ? error.message : "unreadable";
  const position = /position (\d+)/.exec(message)?.[1];
  if (position === undefined) return "the text ends too soon, or is empty";
  const before = text.slice(0, Number(position)).split("\n");
  return `unreadable at line ${before.length}, column ${before[before.length - 1]!.length + 1}`;
}
