import type { LogEntry } from "@true-spine/core/record/log-entry.ts";
import { csvOf } from "./csv.ts";

/** A blade's log as CSV, newest first. */
export function writeLog(entries: readonly LogEntry[]): string {
  const rows = entries.map(({ when, kind, words }) => ({ when, kind, words }));
  return csvOf(rows);
}
