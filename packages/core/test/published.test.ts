import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { BenchFiguresSchema } from "../src/evaluate/bench.ts";
import { PlanFiguresSchema } from "../src/evaluate/plan.ts";
import { BundleSchema } from "../src/registry/bundle.ts";
import { SCHEMAS } from "../src/registry/documents.ts";

test.each(
  Object.entries({ ...SCHEMAS, bundle: BundleSchema, bench: BenchFiguresSchema, plan: PlanFiguresSchema }),
)("the published schema of the %s is the one that the code is typed by", (name, schema) => {
  const published = readFileSync(new URL(`../../../docs/${name}.schema.json`, import.meta.url), "utf8");
  expect(JSON.parse(published)).toEqual(JSON.parse(JSON.stringify(schema)));
});
