import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { BladeSchema } from "../src/blade/schema.ts";
import { LimitsSchema } from "../src/findings/limits.ts";
import { HandleSchema } from "../src/handle/schema.ts";

test.each(Object.entries({ blade: BladeSchema, handle: HandleSchema, limits: LimitsSchema }))(
  "the published schema of the %s is the one that the code is typed by",
  (name, schema) => {
    const published = readFileSync(new URL(`../../../docs/${name}.schema.json`, import.meta.url), "utf8");
    expect(JSON.parse(published)).toEqual(JSON.parse(JSON.stringify(schema)));
  },
);
