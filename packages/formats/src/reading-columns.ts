import { UNITS, type WireUnit } from "@true-spine/core/inspect/wire.ts";

/** The columns that a sheet of readings may have, in the order they are written. */
export const COLUMNS = [
  "when",
  "stage",
  "what",
  "edge",
  "u",
  "x",
  "side",
  "height",
  "value",
  "unit",
  "instrument",
  "note",
  "id",
  "by",
  "struck",
] as const;
export type Column = (typeof COLUMNS)[number];

/** A heading of the file, what it is taken for, and the unit it names. */
export interface Heading {
  readonly words: string;
  readonly column: Column | null;
  readonly unit: WireUnit | null;
  /** Whether it is not the column's own name: somebody must agree. */
  readonly isNear: boolean;
}

/** Other words for a column. Common practice. */
const ALSO: Readonly<Record<string, Column>> = {
  date: "when",
  time: "when",
  "date and time": "when",
  taken: "when",
  operation: "stage",
  op: "stage",
  step: "stage",
  quantity: "what",
  kind: "what",
  measured: "what",
  share: "u",
  along: "x",
  position: "x",
  station: "x",
  "from the plunge": "x",
  face: "side",
  "above the edge": "height",
  reading: "value",
  size: "value",
  figure: "value",
  result: "value",
  units: "unit",
  tool: "instrument",
  gauge: "instrument",
  remark: "note",
  remarks: "note",
  comment: "note",
  comments: "note",
  notes: "note",
  "struck out": "struck",
};

const UNIT_WORDS: Readonly<Record<string, WireUnit>> = {
  mm: "mm",
  millimetre: "mm",
  millimetres: "mm",
  millimeter: "mm",
  millimeters: "mm",
  in: "in",
  inch: "in",
  inches: "in",
  '"': "in",
  "″": "in",
  deg: "deg",
  "°": "deg",
  degree: "deg",
  degrees: "deg",
  hrc: "hrc",
};

/** A unit by the words that people write for it; null where it is none that is known. */
export const unitOf = (words: string): WireUnit | null => {
  const word = words.trim().toLowerCase().replace(/\.$/, "");
  return UNIT_WORDS[word] ?? UNITS.find((unit) => unit === word) ?? null;
};

/**
 * What the headings of a sheet stand for: a column's own name, with a unit behind it in brackets, after a comma or a blank; or one that is
 * near it, by another common word or by a slip of the hand. No column is taken twice: its own name goes first.
 */
export function headingsOf(words: readonly string[]): readonly Heading[] {
  const parts = words.map(parted);
  const own = new Set(parts.flatMap(({ name }) => (isColumn(name) ? [name] : [])));
  const taken = new Set<Column>();
  return parts.map(({ name, unit }, i): Heading => {
    const exact = isColumn(name) ? name : null;
    const near = exact ? null : nearTo(name);
    const column = exact ?? (near && !own.has(near) ? near : null);
    if (!column || taken.has(column)) return { words: words[i]!, column: null, unit: null, isNear: false };
    taken.add(column);
    return { words: words[i]!, column, unit, isNear: exact === null };
  });
}

const isColumn = (word: string): word is Column => (COLUMNS as readonly string[]).includes(word);

function parted(words: string): { name: string; unit: WireUnit | null } {
  const plain = words
    .trim()
    .toLowerCase()
    .replace(/[_\s]+/g, " ");
  const found = /^(.+?)\s*(?:[([]\s*([^)\]]+?)\s*[)\]]|[,/ ]\s*([^,/ ]+))$/.exec(plain);
  const unit = found && unitOf(found[2] ?? found[3]!);
  return unit ? { name: found[1]!.trim(), unit } : { name: plain, unit: null };
}

function nearTo(name: string): Column | null {
  if (ALSO[name]) return ALSO[name];
  // Of short names every other is a slip away.
  if (name.length < 4) return null;
  return COLUMNS.find((column) => column.length >= 4 && isSlip(name, column)) ?? null;
}

/** Whether two words are one sign apart: one more, one less, another one, or two the wrong way round. */
function isSlip(a: string, b: string): boolean {
  let from = 0;
  while (from < a.length && a[from] === b[from]) from++;
  const [restA, restB] = [a.slice(from), b.slice(from)];
  return (
    restA.slice(1) === restB ||
    restA === restB.slice(1) ||
    restA.slice(1) === restB.slice(1) ||
    (restA[0] === restB[1] && restA[1] === restB[0] && restA.slice(2) === restB.slice(2))
  );
}
