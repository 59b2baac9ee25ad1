import { readdirSync, readFileSync } from "node:fs";
import { Validator } from "@cfworker/json-schema";
import { Ajv2020 } from "ajv/dist/2020.js";
import addFormats from "ajv-formats";
import { describe, expect, test } from "vitest";
import { parseBlade } from "../src/blade/parse.ts";
import { BenchFiguresSchema } from "../src/evaluate/bench.ts";
import { PlanFiguresSchema } from "../src/evaluate/plan.ts";
import { BundleSchema } from "../src/registry/bundle.ts";
import { SCHEMAS } from "../src/registry/documents.ts";
import { published } from "../src/registry/published.ts";

const ALL = Object.entries({
  ...SCHEMAS,
  bundle: BundleSchema,
  bench: BenchFiguresSchema,
  plan: PlanFiguresSchema,
});
const examples = new URL("../examples/", import.meta.url);
const read = (path: string) => JSON.parse(readFileSync(new URL(path, examples), "utf8"));

describe.each(ALL)("the published schema of the %s", (name, schema) => {
  const text = readFileSync(new URL(`../../../docs/${name}.schema.json`, import.meta.url), "utf8");
  const out = JSON.parse(text);

  test("is the one that the code is typed by", () => {
    expect(out).toEqual(JSON.parse(JSON.stringify(published(schema))));
  });

  test("is sound by its dialect's own schema, and every keyword of it is one of that dialect", () => {
    const ajv = addFormats.default(new Ajv2020({ strict: true, allowUnionTypes: true }));
    expect(ajv.validateSchema(out), ajv.errorsText()).toBe(true);
    expect(() => ajv.compile(out)).not.toThrow();
    expect(new URL(out.$id).protocol).toBe("urn:");
  });

  test("has patterns that hold in every dialect of regular expressions", () => {
    for (const [, found] of text.matchAll(/"pattern": ("(?:[^"\\]|\\.)*")/g)) {
      const pattern: string = JSON.parse(found!);
      // Without the letters for classes, looking ahead, names and lazy repeats, which dialects write in different ways.
      expect(pattern).not.toMatch(/\\[dDwWsSpPbBkuc]|\(\?|[*+}]\?/);
      for (const flags of ["", "u"]) expect(() => new RegExp(pattern, flags)).not.toThrow();
    }
  });
});

describe("another validator", () => {
  const validator = new Validator(published(SCHEMAS.blade), "2020-12");

  test("takes every blade of the examples", () => {
    const names = readdirSync(new URL("kinds/", examples)).map((name) => `kinds/${name}`);
    for (const name of ["field.json", ...names])
      expect(validator.validate(read(name)).errors, name).toEqual([]);
  });

  test.each([
    ["a point of three figures", (file: Changed) => file.outline.spine[0].at.push(1)],
    ["a point of one figure", (file: Changed) => file.outline.spine[0].at.pop()],
    ["a point of words", (file: Changed) => (file.outline.spine[0].at[0] = "1")],
    ["a name with a control sign", (file: Changed) => (file.name = "Fen\u0007hook")],
    ["a key that is none", (file: Changed) => (file.colour = "red")],
    ["no outline", (file: Changed) => delete file.outline],
    ["another version", (file: Changed) => (file.version = 99)],
  ])("refuses %s, as the program does", (_, change) => {
    const file = read("field.json");
    change(file);
    expect(validator.validate(file).valid).toBe(false);
    expect(parseBlade(file).ok).toBe(false);
  });
});

// biome-ignore lint/suspicious/noExplicitAny: files are changed freely here
type Changed = any;
