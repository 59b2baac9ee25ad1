import { readdirSync, readFileSync } from "node:fs";
import type { Blade } from "@true-spine/core/blade/schema.ts";

const examples = new URL("../../core/examples/", import.meta.url);
const read = (path: string): Blade => JSON.parse(readFileSync(new URL(path, examples), "utf8"));

/** The field knife, and thirteen unlike blades. */
export const FIELD = read("field.json");
export const KINDS: readonly (readonly [string, Blade])[] = readdirSync(new URL("kinds/", examples)).map(
  (name) => [name.replace(".json", ""), read(`kinds/${name}`)],
);

/** One in three, for what takes seconds each; every one where there is time: `npm run soak -- tests`. */
export const SOME_KINDS = process.env.TRUE_SPINE_LONG === "1" ? KINDS : KINDS.filter((_, i) => i % 3 === 0);

/** A font's own bytes, of the usual weight. */
export const fontOf = (path: string, weight = 400) =>
  new Uint8Array(
    readFileSync(new URL(`../../../node_modules/@fontsource/${path}-${weight}-normal.woff`, import.meta.url)),
  );

export const FONT = fontOf("archivo/files/archivo-latin", 500);
