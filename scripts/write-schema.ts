import { writeFileSync } from "node:fs";
import { BladeSchema } from "../packages/core/src/blade/schema.ts";
import { LimitsSchema } from "../packages/core/src/findings/limits.ts";
import { HandleSchema } from "../packages/core/src/handle/schema.ts";

/** Writes the published JSON Schemas from the definitions that the code is typed by. */
for (const [name, schema] of Object.entries({
  blade: BladeSchema,
  handle: HandleSchema,
  limits: LimitsSchema,
})) {
  writeFileSync(
    new URL(`../docs/${name}.schema.json`, import.meta.url),
    `${JSON.stringify(schema, null, 2)}\n`,
  );
}
