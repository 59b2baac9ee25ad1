import { isDay, isTime } from "@true-spine/core/document/time.ts";
import { parseReading, parseReadings } from "@true-spine/core/inspect/parse.ts";
import { QUANTITIES, QUANTITY, type Quantity } from "@true-spine/core/inspect/quantity.ts";
import type { Reading } from "@true-spine/core/inspect/schema.ts";
import { UNITS, valueIn, type WireUnit } from "@true-spine/core/inspect/wire.ts";
import { STAGE_KINDS } from "@true-spine/core/route/schema.ts";
import papaparse from "papaparse";

/** Readings out of a file: those that are sound, and every row that is not, with its line and why. */
export interface BroughtReadings {
  readonly readings: readonly Reading[];
  readonly refused: readonly { readonly line: number; readonly why: string }[];
}

export interface BringOptions {
  /** Share of the edge at an x, mm; null beyond it. For rows that give x where the edge's share is meant. */
  readonly uAt: (x: number, on?: "second") => number | null;
  /** The blade they are of, by its id: the same file may be brought in for two. */
  readonly of: string;
  /** The stages of its route by their own names, beside the kinds that every row may name. */
  readonly stages?: readonly string[];
  /** For rows that don't say. */
  readonly stage: Reading["stage"];
  readonly when: string;
  readonly onProgress?: (share: number) => void;
}

/** Rows beyond this are refused as one, and so is a file beyond LONGEST characters. */
const MOST_ROWS = 50_000;
const LONGEST = 16 * 1024 * 1024;
const COLUMNS = "when, stage, what, edge, u, x, side, height, value, unit, instrument, note, id";

/** Reads readings from CSV with a line of column names, or from a `true-spine/readings` file. Never throws. */
export function readReadings(text: string, options: BringOptions): BroughtReadings {
  if (text.length > LONGEST) return refusal(1, "the file is larger than 16 million characters");
  return text.trimStart().startsWith("{") ? fromJson(text) : fromCsv(text, options);
}

const refusal = (line: number, why: string): BroughtReadings => ({ readings: [], refused: [{ line, why }] });

function fromJson(text: string): BroughtReadings {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return refusal(1, "this is not readable JSON");
  }
  const parsed = parseReadings(value);
  if (parsed.ok) return { readings: parsed.readings.taken, refused: [] };
  return {
    readings: [],
    refused: parsed.faults.map(({ path, message }) => ({ line: 1, why: `${path} ${message}` })),
  };
}

type Row = Record<string, string | undefined>;

function fromCsv(text: string, options: BringOptions): BroughtReadings {
  const plain = text.replace(/^\uFEFF/, "");
  const names = plain.trimStart().split(/\r?\n/, 1)[0]!;
  const { data, meta } = papaparse.parse<Row>(plain, {
    header: true,
    // Told by the line of names, which has no figures in it.
    delimiter: [";", "\t"].find((one) => names.includes(one)) ?? ",",
    skipEmptyLines: "greedy",
    transformHeader: (name) => name.trim().toLowerCase(),
  });
  const fields = meta.fields ?? [];
  for (const column of ["what", "value"]) {
    if (!fields.includes(column))
      return refusal(1, `there is no column “${column}”; the columns are ${COLUMNS}`);
  }
  if (data.length > MOST_ROWS) return refusal(MOST_ROWS + 1, `more than ${MOST_ROWS} rows in one file`);
  const readings: Reading[] = [];
  const refused: { line: number; why: string }[] = [];
  // The same row of the same file is the same reading, however often it is brought in for a blade.
  const file = idOf(`${options.of} ${text}`);
  for (const [i, row] of data.entries()) {
    const line = i + 2;
    const read = rowOf(row, options, idOf(`${file} ${i}`));
    if (typeof read === "string") refused.push({ line, why: read });
    else readings.push(read);
    if (i % 500 === 0) options.onProgress?.(i / data.length);
  }
  options.onProgress?.(1);
  return { readings, refused };
}

/** A reading, or why not. */
function rowOf(row: Row, { uAt, stage, stages = [], when }: BringOptions, id: string): Reading | string {
  const text = (name: string) => row[name]?.trim() ?? "";
  const what = QUANTITIES.find((one): one is Quantity => one === text("what"));
  if (!what) return `“${text("what")}” is nothing that is read here; use one of ${QUANTITIES.join(", ")}`;
  const facts = QUANTITY[what];
  const numbers: Record<string, number> = {};
  for (const name of ["u", "x", "height", "value"]) {
    const word = text(name);
    if (word === "") continue;
    // Where figures have a decimal comma: columns are then set apart by semicolons, or the figures are in quotes.
    const value = Number(word.replace(",", "."));
    if (!/^[+-]?(\d+[.,]?\d*|[.,]\d+)$/.test(word) || !Number.isFinite(value))
      return `“${word}” is no number for ${name}`;
    numbers[name] = value;
  }
  if (numbers.value === undefined) return "there is no value";
  const unit = UNITS.find((one) => one === (text("unit").toLowerCase() || usualUnit(facts.unit)));
  const value = unit && valueIn(unit, numbers.value, facts.unit);
  if (value === null || value === undefined) return `${facts.name} is not read in “${text("unit")}”`;
  const edgeWord = text("edge").toLowerCase();
  if (edgeWord && edgeWord !== "first" && edgeWord !== "second")
    return `“${edgeWord}” is no edge; use first or second`;
  const edge = edgeWord === "second" ? edgeWord : undefined;
  let { u, x } = numbers;
  if (facts.at === "u" && u === undefined && x !== undefined) {
    const share = edge ? uAt(x, edge) : uAt(x);
    if (share === null) return `the edge does not reach x ${x}`;
    u = Math.round(share * 1000) / 1000;
    x = undefined;
  }
  if (facts.at !== "x") x = undefined;
  const taken = momentOf(text("when") || when);
  if (!taken) {
    return `“${text("when")}” is no date and time of the calendar; write it like 2026-11-20 or 2026-11-20 14:30`;
  }
  const stageWord = text("stage") || stage;
  const known = [...new Set([...stages, ...STAGE_KINDS])];
  if (!known.includes(stageWord)) return `“${stageWord}” is no stage; use one of ${known.join(", ")}`;
  const built = {
    stage: stageWord,
    what,
    ...(edge === undefined ? {} : { edge }),
    ...(u === undefined ? {} : { u }),
    ...(x === undefined ? {} : { x }),
    ...(text("side") ? { side: text("side") } : {}),
    ...(numbers.height === undefined ? {} : { height: numbers.height }),
    when: taken,
    value: Math.round(value * 1e4) / 1e4,
    ...(text("instrument") ? { instrument: text("instrument") } : {}),
    by: "file",
    ...(text("note") ? { note: text("note").slice(0, 500) } : {}),
  };
  const parsed = parseReading({ ...built, id: text("id") || id });
  if (parsed.ok) return parsed.reading;
  return parsed.faults.map(({ path, message }) => `${path.replace("$.", "")} ${message}`).join("; ");
}

/** ISO 8601 with or without a time, a T or a blank between; without a zone it is this machine's own. Null for any other. */
function momentOf(words: string): string | null {
  const parts = /^(\d{4}-\d{2}-\d{2})(?:[T ](\d{2}:\d{2}(?::\d{2}(?:\.\d+)?)?)(Z|[+-]\d{2}:\d{2})?)?$/i.exec(
    words,
  );
  if (!parts || !isDay(parts[1]!)) return null;
  const [, day, clock, zone] = parts;
  if (clock && !isTime(`${day}T${clock}Z`)) return null;
  const time = new Date(clock ? `${day}T${clock}${zone ?? ""}` : day!);
  return Number.isNaN(time.getTime()) ? null : time.toISOString();
}

const usualUnit = (unit: "mm" | "°" | "HRC"): WireUnit =>
  unit === "mm" ? "mm" : unit === "°" ? "deg" : "hrc";

/** An id from words: the same words, the same id. Source: FNV-1a over four starts. */
function idOf(words: string): string {
  const parts = [0x811c9dc5, 0x050c5d1f, 0x9e3779b9, 0x7f4a7c15].map((start) => {
    let hash = start;
    for (let i = 0; i < words.length; i++) hash = Math.imul(hash ^ words.charCodeAt(i), 0x01000193) >>> 0;
    return hash.toString(16).padStart(8, "0");
  });
  const hex = parts.join("");
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join("-");
}

/** Readings as CSV, in the columns that are read again; lengths mm, angles degrees. */
export function writeReadings(readings: readonly Reading[], struck: readonly string[]): string {
  const out = new Set(struck);
  const rows = readings.map((one) => ({
    when: one.when,
    stage: one.stage,
    what: one.what,
    edge: one.edge ?? "",
    u: one.u ?? "",
    x: one.x ?? "",
    side: one.side ?? "",
    height: one.height ?? "",
    value: one.value,
    unit: usualUnit(QUANTITY[one.what].unit),
    instrument: one.instrument ?? "",
    note: one.note ?? "",
    id: one.id,
    by: one.by,
    struck: out.has(one.id) ? "yes" : "",
  }));
  return `${papaparse.unparse(rows, { newline: "\n", escapeFormulae: true })}\n`;
}
