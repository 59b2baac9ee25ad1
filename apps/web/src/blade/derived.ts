import { compileField, type Field } from "@true-spine/core/blade/field.ts";
import { type DrawnLines, drawnLines } from "@true-spine/core/blade/lines.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";

/** What is worked out from a file is kept beside it, by identity: a file never changes, a new one replaces it. */
const fields = new WeakMap<Blade, Field>();
const lines = new WeakMap<Blade, DrawnLines>();

/** A field that came with the parsing of its file. */
export function rememberField(file: Blade, field: Field): void {
  fields.set(file, field);
}

export function fieldOf(file: Blade): Field {
  return remembered(fields, file, () => compileField(file));
}

export function linesOf(file: Blade): DrawnLines {
  return remembered(lines, file, () => drawnLines(fieldOf(file)));
}

function remembered<T>(kept: WeakMap<Blade, T>, file: Blade, make: () => T): T {
  let value = kept.get(file);
  if (value === undefined) {
    value = make();
    kept.set(file, value);
  }
  return value;
}
