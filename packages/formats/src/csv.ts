import papaparse from "papaparse";

/** What every sheet ends its lines with. Source: RFC 4180. */
const LINE_END = "\r\n";

/**
 * A table as CSV, its columns in the order of the first row's keys, a word that would be taken for a formula set in quotes. It begins with
 * a byte order mark where it has signs beyond ASCII: without one they are misread by sheets that take a file for the machine's own page.
 */
export function csvOf(rows: readonly Readonly<Record<string, string | number | null>>[]): string {
  const text = `${papaparse.unparse([...rows], { newline: LINE_END, escapeFormulae: true })}${LINE_END}`;
  return /[^\0-\x7f]/.test(text) ? `\uFEFF${text}` : text;
}
