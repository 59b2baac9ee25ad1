import { writeFileSync } from "node:fs";
import { BladeSchema } from "../packages/core/src/blade/schema.ts";

/** Writes the published JSON Schema of the blade file from the definition that the code is typed by. */
writeFileSync(
  new URL("../docs/blade.schema.json", import.meta.url),
  `${JSON.stringify(BladeSchema, null, 2)}\n`,
);
