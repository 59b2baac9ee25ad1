import { parseReading, parseReadings } from "@true-spine/core/inspect/parse.ts";
import { QUANTITIES, QUANTITY, type Quantity } from "@true-spine/core/inspect/quantity.ts";
import type { Reading } from "@true-spine/core/inspect/schema.ts";
import { valueIn, type WireUnit } from "@true-spine/core/inspect/wire.ts";
import { STAGE_KINDS } from "@true-spine/core/route/schema.ts";
import papaparse from "papaparse";
import { csvOf } from "./csv.ts";
import { type DateOrder, isOfEitherOrder, momentOf, provenOrder } from "./moments.ts";
import { COLUMNS, type Column, type Heading, headingsOf, unitOf } from "./reading-columns.ts";

/** Readings out of a file: those that are sound, and every row that is not, with its line and why. */
export interface BroughtReadings {
  readonly readings: readonly Reading[];
  /** Which of them were struck out where they come from, by their ids. */
  readonly struck: readonly string[];
  readonly refused: readonly { readonly line: number; readonly why: string }[];
  /** What somebody must say before anything is read; null where nothing is open. */
  readonly asks: Asks | null;
  /** Headings of the file that nothing was read from. */
  readonly passedOver: readonly string[];
}

/** What a file leaves open. */
export interface Asks {
  /** A date of it that may be read in two ways, as it stands. */
  readonly date: string | null;
  /** Headings that are near a column's name, and the column. */
  readonly headings: readonly { readonly words: string; readonly column: Column }[];
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
  /** How dates that may be read in two ways are meant, as somebody said. */
  readonly dates?: DateOrder | undefined;
  /** Whether somebody agreed to what headings that are only near a column's name were taken for. */
  readonly isAgreed?: boolean;
  readonly onProgress?: (share: number) => void;
}

/** Rows beyond this are refused as one, and so is a file beyond LONGEST characters. */
const MOST_ROWS = 50_000;
const LONGEST = 16 * 1024 * 1024;
const NOTHING = { readings: [], struck: [], refused: [], asks: null, passedOver: [] };

/**
 * Reads readings from CSV with a line of column names, or from a `true-spine/readings` file. Where the file leaves open what it means, that
 * is asked and nothing is read. Never throws.
 */
export function readReadings(text: string, options: BringOptions): BroughtReadings {
  if (text.length > LONGEST) return refusal(1, "the file is larger than 16 million characters");
  const plain = text.replace(/^\uFEFF/, "");
  return plain.trimStart().startsWith("{") ? fromJson(plain) : fromCsv(plain, options);
}

const refusal = (line: number, why: string): BroughtReadings => ({ ...NOTHING, refused: [{ line, why }] });

function fromJson(text: string): BroughtReadings {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return refusal(1, "this is not readable JSON");
  }
  const parsed = parseReadings(value);
  if (parsed.ok) return { ...NOTHING, readings: parsed.readings.taken, struck: parsed.readings.struck ?? [] };
  return {
    ...NOTHING,
    refused: parsed.faults.map(({ path, message }) => ({ line: 1, why: `${path} ${message}` })),
  };
}

type Row = Partial<Record<Column, string>>;

interface Sheet {
  readonly headings: readonly Heading[];
  readonly rows: readonly { readonly line: number; readonly row: Row }[];
}

/** A sheet's rows under the columns that its headings stand for, each with its line in the file. */
function sheetOf(text: string): Sheet {
  let line = 1;
  let rest = text;
  const passed = /^\s*\n/.exec(rest)?.[0] ?? "";
  rest = rest.slice(passed.length);
  line += newlinesIn(passed);
  // Some sheets say in a line of its own what they set apart with.
  const said = /^"?sep=(.)"?[^\S\n]*(?:\r?\n|\r)/i.exec(rest);
  if (said) {
    rest = rest.slice(said[0].length);
    line++;
  }
  const names = rest.split(/\r?\n/, 1)[0]!;
  const { data } = papaparse.parse<string[]>(rest, {
    // Told by the line of names, which has no figures in it.
    delimiter: said?.[1] ?? [";", "\t"].find((one) => names.includes(one)) ?? ",",
  });
  const headings = headingsOf(data[0] ?? []);
  const rows: { line: number; row: Row }[] = [];
  for (const cells of data) {
    if (cells !== data[0] && cells.some((cell) => cell.trim() !== "")) {
      const under = headings.flatMap(({ column }, i) =>
        column && cells[i] ? [[column, cells[i].trim()]] : [],
      );
      rows.push({ line, row: Object.fromEntries(under) });
    }
    line += 1 + cells.reduce((sum, cell) => sum + newlinesIn(cell), 0);
  }
  return { headings, rows };
}

const newlinesIn = (words: string) => words.match(/\n/g)?.length ?? 0;

function fromCsv(text: string, options: BringOptions): BroughtReadings {
  const { headings, rows } = sheetOf(text);
  for (const column of ["what", "value"]) {
    if (!headings.some((one) => one.column === column))
      return refusal(1, `there is no column “${column}”; the columns are ${COLUMNS.join(", ")}`);
  }
  if (rows.length > MOST_ROWS) return refusal(MOST_ROWS + 1, `more than ${MOST_ROWS} rows in one file`);
  const dates = rows.map(({ row }) => row.when ?? "");
  const order = provenOrder(dates) ?? options.dates ?? null;
  const date = order ? null : (dates.find(isOfEitherOrder) ?? null);
  const near = options.isAgreed
    ? []
    : headings.flatMap(({ words, column, isNear }) => (column && isNear ? [{ words, column }] : []));
  const passedOver = headings.flatMap(({ words, column }) => (column || !words.trim() ? [] : [words]));
  if (date !== null || near.length > 0) return { ...NOTHING, passedOver, asks: { date, headings: near } };
  const units = Object.fromEntries(
    headings.flatMap(({ column, unit }) => (column && unit ? [[column, unit]] : [])),
  );
  const readings: Reading[] = [];
  const struck: string[] = [];
  const refused: { line: number; why: string }[] = [];
  // The same row of the same file is the same reading, however often it is brought in for a blade.
  const file = idOf(`${options.of} ${text}`);
  for (const [i, { line, row }] of rows.entries()) {
    const read = rowOf(row, { ...options, dates: order ?? undefined }, units, idOf(`${file} ${i}`));
    if (typeof read === "string") refused.push({ line, why: read });
    else readings.push(read);
    if (typeof read !== "string" && isYes(row.struck)) struck.push(read.id);
    if (i % 500 === 0) options.onProgress?.(i / rows.length);
  }
  options.onProgress?.(1);
  return { ...NOTHING, readings, struck, refused, passedOver };
}

const isYes = (word = "") => /^(yes|y|true|1|x|struck)$/i.test(word);

/** A reading, or why not. */
function rowOf(
  row: Row,
  { uAt, stage, stages = [], when, dates }: BringOptions,
  units: Partial<Record<Column, WireUnit>>,
  id: string,
): Reading | string {
  const text = (name: Column) => row[name] ?? "";
  const what = QUANTITIES.find((one): one is Quantity => one === text("what").toLowerCase());
  if (!what) return `“${text("what")}” is nothing that is read here; use one of ${QUANTITIES.join(", ")}`;
  const facts = QUANTITY[what];
  const numbers: Record<string, number> = {};
  for (const name of ["u", "x", "height", "value"] as const) {
    const word = text(name);
    if (word === "") continue;
    // Where figures have a decimal comma: columns are then set apart by semicolons, or the figures are in quotes.
    const value = Number(word.replace(",", "."));
    if (!/^[+-]?(\d+[.,]?\d*|[.,]\d+)$/.test(word) || !Number.isFinite(value))
      return `“${word}” is no number for ${name}`;
    numbers[name] = value;
  }
  if (numbers.value === undefined) return "there is no value";
  const unit = text("unit") ? unitOf(text("unit")) : (units.value ?? usualUnit(facts.unit));
  const value = unit && valueIn(unit, numbers.value, facts.unit);
  if (value === null) return `${facts.name} is not read in “${text("unit") || unit}”`;
  for (const name of ["x", "height"] as const) {
    const given = units[name];
    const length = given && numbers[name] !== undefined ? valueIn(given, numbers[name], "mm") : undefined;
    if (length === null) return `${name} is a length, and not in “${given}”`;
    if (length !== undefined) numbers[name] = Math.round(length * 1e4) / 1e4;
  }
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
  const taken = momentOf(text("when") || when, dates);
  if (!taken) {
    return `“${text("when")}” is no date and time of the calendar; write it like 2026-11-20 or 2026-11-20 14:30`;
  }
  const stageWord = text("stage") || stage;
  const known = [...new Set([...stages, ...STAGE_KINDS])];
  if (!known.includes(stageWord)) return `“${stageWord}” is no stage; use one of ${known.join(", ")}`;
  // One line; and what was set in quotes on the way out, lest it be taken for a formula, without them.
  const note = text("note")
    .replace(/\s*[\r\n]+\s*/g, " ")
    .replace(/^'(?=[=+\-@])/, "");
  const built = {
    stage: stageWord,
    what,
    ...(edge === undefined ? {} : { edge }),
    ...(u === undefined ? {} : { u }),
    ...(x === undefined ? {} : { x }),
    ...(text("side") ? { side: text("side").toLowerCase() } : {}),
    ...(numbers.height === undefined ? {} : { height: numbers.height }),
    when: taken,
    value: Math.round(value * 1e4) / 1e4,
    ...(text("instrument") ? { instrument: text("instrument") } : {}),
    by: "file",
    ...(note ? { note: note.slice(0, 500) } : {}),
  };
  const parsed = parseReading({ ...built, id: text("id") || id });
  if (parsed.ok) return parsed.reading;
  return parsed.faults.map(({ path, message }) => `${path.replace("$.", "")} ${message}`).join("; ");
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
    "x (mm)": one.x ?? "",
    side: one.side ?? "",
    "height (mm)": one.height ?? "",
    value: one.value,
    unit: usualUnit(QUANTITY[one.what].unit),
    instrument: one.instrument ?? "",
    note: one.note ?? "",
    id: one.id,
    by: one.by,
    struck: out.has(one.id) ? "yes" : "",
  }));
  return csvOf(rows);
}
