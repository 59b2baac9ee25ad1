import { readFileSync } from "node:fs";
import { parseBlade } from "../src/blade/parse.ts";
import type { Blade } from "../src/blade/schema.ts";

const folder = new URL("../examples/", import.meta.url);

/** An example file's text, by name without its ending. */
export function exampleText(name: string): string {
  return readFileSync(new URL(`${name}.json`, folder), "utf8");
}

/** An example blade, checked. */
export function example(name: string): Blade {
  return checked(JSON.parse(exampleText(name)));
}

/** A blade that has been through the parser, or a failed test that says why not. */
export function checked(value: unknown): Blade {
  const parsed = parseBlade(value);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
  return parsed.blade;
}

/** A copy of a blade with something changed, checked again. */
export function changed(blade: Blade, change: (copy: Blade) => void): Blade {
  const copy = structuredClone(blade);
  change(copy);
  return checked(copy);
}

export const PIECES = ["chisel", "offset", "hollow", "convex", "full", "straight", "plunge"] as const;
