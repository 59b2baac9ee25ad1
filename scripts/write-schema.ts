import { writeFileSync } from "node:fs";
import { BenchFiguresSchema } from "../packages/core/src/evaluate/bench.ts";
import { PlanFiguresSchema } from "../packages/core/src/evaluate/plan.ts";
import { BundleSchema } from "../packages/core/src/registry/bundle.ts";
import { SCHEMAS } from "../packages/core/src/registry/documents.ts";
import { published } from "../packages/core/src/registry/published.ts";

/** Writes the published JSON Schemas from the definitions that the code is typed by. */
for (const [name, schema] of Object.entries({
  ...SCHEMAS,
  bundle: BundleSchema,
  bench: BenchFiguresSchema,
  plan: PlanFiguresSchema,
})) {
  writeFileSync(
    new URL(`../docs/${name}.schema.json`, import.meta.url),
    `${JSON.stringify(published(schema), null, 2)}\n`,
  );
}
