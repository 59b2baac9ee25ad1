import { expect, test } from "vitest";
import { filesWith } from "../../src/print/other-scripts.ts";

/** The fonts that a name is set in, and what none of them has. */
const setIn = (name: string) => {
  const { urls, lacking } = filesWith([...name.replace(/\s/g, "")]);
  const families = urls.map(
    (url) => /(noto-sans(?:-(?:arabic|hebrew|jp|kr|sc))?)-[\da-z-]+-400-normal/.exec(url)![1],
  );
  return [[...new Set(families)].sort(), lacking];
};

test.each([
  ["Болото Żar", ["noto-sans"], []],
  ["三徳包丁", ["noto-sans-jp"], []],
  ["刀锋", ["noto-sans-sc"], []],
  ["칼날 刀", ["noto-sans-kr"], []],
  ["Нож 刀锋", ["noto-sans", "noto-sans-sc"], []],
  ["徳 칼 锋", ["noto-sans-jp", "noto-sans-kr", "noto-sans-sc"], []],
  ["刀锋 ᚠ", ["noto-sans-sc"], ["ᚠ"]],
  ["סכין", ["noto-sans-hebrew"], []],
  ["سكين شيف", ["noto-sans-arabic"], []],
])("%s is set in %j, without %j", (name, families, lacking) => {
  expect(setIn(name)).toEqual([families, lacking]);
});
