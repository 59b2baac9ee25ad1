import { readdirSync, readFileSync } from "node:fs";

const folder = new URL("../examples/kinds/", import.meta.url);

/** Unlike blades, one for each way of grinding that the model knows: raw files, by name. */
export const KINDS: readonly [string, unknown][] = readdirSync(folder)
  .filter((name) => name.endsWith(".json"))
  .map((name) => [name.replace(".json", ""), JSON.parse(readFileSync(new URL(name, folder), "utf8"))]);
