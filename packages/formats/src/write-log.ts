import type { LogEntry } from "@true-spine/core/record/log-entry.ts";
import papaparse from "papaparse";

/** A blade's log as CSV, newest first. */
export function writeLog(entries: readonly LogEntry[]): string {
  const rows = entries.map(({ when, kind, words }) => ({ when, kind, words }));
  return `${papaparse.unparse(rows, { newline: "\n", escapeFormulae: true })}\n`;
}
