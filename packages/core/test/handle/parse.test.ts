import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { parseHandle } from "../../src/handle/parse.ts";

const text = readFileSync(new URL("../../examples/handles/walnut-scales.json", import.meta.url), "utf8");
// biome-ignore lint/suspicious/noExplicitAny: documents are broken here on purpose
type Loose = any;
const broken = (change: (document: Loose) => void) => {
  const document = JSON.parse(text);
  change(document);
  const parsed = parseHandle(document);
  return parsed.ok ? [] : parsed.faults.map(({ path, message }) => `${path}: ${message}`);
};

describe("a handle at the border", () => {
  test("a sound one passes as it is", () => {
    expect(parseHandle(JSON.parse(text))).toEqual({ ok: true, handle: JSON.parse(text) });
  });

  test.each<[string, (document: Loose) => void, RegExp]>([
    ["an unknown key", (d) => (d.parts[0].colour = "red"), /^\$\.parts\[0\]\.colour: is not a key/],
    [
      "an unknown kind",
      (d) => (d.parts[0].kind = "sock"),
      /^\$\.parts\[0\]\.kind: must be one of .*not "sock"$/,
    ],
    ["no kind", (d) => delete d.parts[0].kind, /^\$\.parts\[0\]\.kind: .*is missing$/],
    ["a part that is none", (d) => (d.parts[0] = 7), /^\$\.parts\[0\]: must be a part/],
    [
      "a material without a density",
      (d) => (d.pins[1].material = "moonstone"),
      /^\$\.pins\[1\]\.material: has no known/,
    ],
    ["a bore as wide as its tube", (d) => (d.pins[0].bore = 6.35), /^\$\.pins\[0\]\.bore: must be less/],
    [
      "a thickness of nothing",
      (d) => (d.parts[0].thickness = 0),
      /^\$\.parts\[0\]\.thickness: must be more than 0/,
    ],
    ["another format", (d) => (d.format = "true-spine/blade"), /^\$\.format: must be "true-spine\/handle"$/],
    ["parts that are no list", (d) => (d.parts = {}), /^\$\.parts: must be an array/],
    [
      "a block from front to back",
      (d) =>
        (d.parts[0] = {
          kind: "block",
          material: "oak",
          from: -10,
          to: -60,
          height: 30,
          thickness: 24,
          fullness: 0.9,
        }),
      /^\$\.parts\[0\]\.to: must lie ahead of from/,
    ],
  ])("%s is refused with its path", (_, change, wanted) => {
    expect(broken(change).join("\n")).toMatch(new RegExp(wanted.source, "m"));
  });

  test("whatever it is given, it answers", () => {
    fc.assert(fc.property(fc.jsonValue(), (value) => !parseHandle(value).ok));
  });
});
