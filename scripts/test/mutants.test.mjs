import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { alikeIn, chosen, everyMutant, marked, mutantsOf } from "../mutants.mjs";

const slips = (source) => mutantsOf(source).map(({ was, is, line }) => `${line}: ${was} → ${is}`);

describe("slips that are made in the core", () => {
  test("are of figures, operators, signs, turns of a condition and neighbouring functions", () => {
    expect(
      slips("const a = b + 2;\nif (c < 1 && !d) e = -f;\ng = Math.min(h, 10) === 0;\ni = true;"),
    ).toEqual([
      "1: + → -",
      "1: 2 → 2.2",
      "2: && → ||",
      "2: < → <=",
      "2: 1 → 0",
      "2: ! → ",
      "2: - → +",
      "3: === → !==",
      "3: min → max",
      "3: 10 → 11",
      "3: 0 → 1",
      "4: true → false",
    ]);
  });

  test("leave words, types, places in lists and comments alone", () => {
    const source = `/* 1 + 2 */ type A = 1 | true;\nconst b: readonly [1, 2] = c[0]!;\nd = "e" + f;\ng = \`\${h}\`;`;
    expect(slips(source)).toEqual([]);
  });

  test("are where they say they are, in files that are there, and the same for a seed", () => {
    const every = everyMutant();
    const some = chosen(every, 40, 7);
    expect(some).toEqual(chosen(every, 40, 7));
    expect(some).not.toEqual(chosen(every, 40, 8));
    expect(new Set(some.map(({ file, start }) => `${file} ${start}`)).size).toBe(40);
    for (const { file, start, end, was, is, line, around } of some) {
      const text = readFileSync(new URL(`../../${file}`, import.meta.url), "utf8");
      expect(text.slice(start, end)).toBe(was);
      expect(is).not.toBe(was);
      expect(text.split("\n")[line - 1].trim()).toBe(around);
    }
  });

  test("that change nothing are named, each with why, and each still stands in the code", () => {
    const text = readFileSync(new URL("../../packages/core/mutants-alike.json", import.meta.url), "utf8");
    for (const one of JSON.parse(text)) {
      expect(one.why.length).toBeGreaterThan(20);
      const source = readFileSync(new URL(`../../${one.file}`, import.meta.url), "utf8");
      const found = mutantsOf(source).map((mutant) => ({ file: one.file, ...mutant }));
      expect(
        found.some((mutant) => alikeIn(text, mutant) === one.why),
        `${one.file}: ${one.around}`,
      ).toBe(true);
    }
    expect(alikeIn(text, { file: "none.ts", around: "a", was: "+", is: "-" })).toBeNull();
  });

  test("places that are watched are marked in the function around them, and it does what it did", () => {
    const source =
      "const a = (b) => b + 2;\nfunction c(d) { return d ? (e) => ({ f: e * d }) : 1; }\nconst g = 3;\n";
    const start = (text) => source.indexOf(text);
    const code = marked(source, [
      [1, start("2;")],
      [2, start("1; }")],
      [3, start("* d")],
      [4, start("3;")],
    ]);
    const run = new Function(`${code}; return { a, c };`);
    globalThis.reached = new Set();
    const { a, c } = run();
    expect([...globalThis.reached]).toEqual([4]);
    expect(a(1)).toBe(3);
    expect([...globalThis.reached]).toEqual([4, 1]);
    const inner = c(5);
    expect([...globalThis.reached]).toEqual([4, 1, 2]);
    expect(inner(2)).toEqual({ f: 10 });
    expect([...globalThis.reached]).toEqual([4, 1, 2, 3]);
    delete globalThis.reached;
  });
});
