import { readdirSync } from "node:fs";
import { expect, test } from "vitest";
import { inLines } from "./lines.ts";

const SOURCE = new URL("../../src/", import.meta.url);
/** A table is written whole. */
const WHOLE = 1000;

/** Neither what does something nor a schema, which is published and tried elsewhere. */
const isTable = (value: unknown) =>
  typeof value !== "function" &&
  (typeof value !== "object" || Object.getOwnPropertySymbols(value ?? {}).length === 0);

/** Every table and starting value that a module gives out, by the module. */
test("tables and starting values stand as they did", async () => {
  const files = readdirSync(SOURCE, { recursive: true, encoding: "utf8" })
    .filter((file) => file.endsWith(".ts") && !file.endsWith("cli.ts"))
    .sort();
  const lines: string[] = [];
  for (const file of files) {
    const given: Record<string, unknown> = await import(new URL(file, SOURCE).href);
    for (const name of Object.keys(given).sort())
      if (name !== "SCHEMAS" && isTable(given[name]))
        lines.push(...inLines(given[name], `${file} ${name}`, WHOLE));
  }
  await expect(`${lines.join("\n")}\n`).toMatchFileSnapshot("tables.txt");
});
