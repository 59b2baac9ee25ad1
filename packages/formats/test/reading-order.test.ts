import fontkit from "@pdf-lib/fontkit";
import { PDFDocument } from "pdf-lib";
import { beforeAll, describe, expect, test } from "vitest";
import { Faces } from "../src/faces.ts";
import { inOwnWay, waysOf } from "../src/reading-order.ts";
import { writeTemplate } from "../src/write-template.ts";
import { FIELD, FONT, fontOf } from "./blades.ts";
import { readPdf } from "./read-pdf.ts";

const HEBREW = fontOf("noto-sans-hebrew/files/noto-sans-hebrew-hebrew");
const ARABIC = fontOf("noto-sans-arabic/files/noto-sans-arabic-arabic");

/** Capitals stand for Hebrew letters, as the standard's own examples have it. */
const hebrew = (words: string) =>
  words.replace(/[A-Z]/g, (sign) => String.fromCodePoint(0x5d0 + sign.charCodeAt(0) - 65));
const capitals = (words: string) =>
  words.replace(/[\u05d0-\u05ea]/g, (sign) => String.fromCharCode(65 + sign.codePointAt(0)! - 0x5d0));
/** How a line is seen, sign by sign from the left. */
const seenFrom = (line: string) =>
  capitals(
    waysOf(hebrew(line))
      .map(({ words, isBack }) => (isBack ? [...words].reverse().join("") : words))
      .join("")
      .replace(/[\u2066-\u2069]/g, ""),
  );

describe("the order of a line", () => {
  test.each([
    // Source: the examples of UAX #9, 3.4, from memory.
    ["car means CAR.", "car means RAC."],
    ["\u2067car MEANS CAR.\u2069", ".RAC SNAEM car"],
    ['he said "\u2067car MEANS CAR\u2069."', 'he said "RAC SNAEM car."'],
    // Rules W2, W4, N1 and L4 of the same, worked by hand.
    ["AB 240 CD", "DC 240 BA"],
    ["AB (CD) x", "(DC) BA x"],
    ["AB 1.5 mm", "1.5 BA mm"],
    ["x2 AB", "x2 BA"],
    ["", ""],
    ["plain (as it is)", "plain (as it is)"],
  ])("%j is seen as %j", (line, seen) => {
    expect(seenFrom(line)).toBe(seen);
  });

  test("a name is turned by itself: what follows it stays behind it", () => {
    expect(seenFrom("AB, 210 mm")).toBe("210 ,BA mm");
    expect(seenFrom(`${inOwnWay(hebrew("AB"))}, 210 mm`)).toBe("BA, 210 mm");
    expect(inOwnWay("Fen hook")).toBe("Fen hook");
  });
});

describe("letters from right to left", () => {
  let faces: Faces;
  beforeAll(async () => {
    faces = await Faces.embedded(await PDFDocument.create(), [FONT, HEBREW, ARABIC]);
  });

  /** The letters of one run as outlines, and how wide they are. */
  const drawn = (words: string) => {
    const runs = faces.runsOf(words);
    expect(runs).toHaveLength(1);
    return { path: runs[0]!.outlineAt!(1000), wide: runs[0]!.widthAt(1000) };
  };

  test("the last one read stands first from the left", () => {
    const [bet, word] = [drawn("ב"), drawn("אב")];
    expect(word.path.startsWith(bet.path)).toBe(true);
    expect(word.wide).toBeCloseTo(bet.wide + drawn("א").wide, 6);
  });

  test("Arabic letters join to one another, unless they are kept apart", () => {
    const bare = fontkit.create(ARABIC);
    const apart = [..."سكين"].reduce((sum, sign) => sum + bare.layout(sign).advanceWidth, 0);
    const joined = drawn("سكين").wide;
    expect(joined).toBeLessThan(0.9 * apart);
    const parted = faces.runsOf("سك\u200cين").reduce((sum, run) => sum + run.widthAt(1000), 0);
    expect(parted).toBeGreaterThan(joined);
  });

  test("its figures are read from the left all the same", () => {
    expect(drawn("٢٤٠").path.startsWith(drawn("٢").path)).toBe(true);
    const runs = faces.runsOf("سكين ٢٤٠");
    expect(runs[0]!.outlineAt!(10)).toBe(faces.runsOf("٢٤٠")[0]!.outlineAt!(10));
  });

  test("on a sheet the name is drawn before what follows it, is not ?, and is there to be read out", async () => {
    const name = "سكين ٢";
    const bytes = await writeTemplate(
      { ...FIELD, name },
      { paper: "A4", unit: "mm", fonts: [FONT, ARABIC], date: new Date("2026-04-17"), revision: 3 },
    );
    const [page] = await readPdf(bytes);
    expect(page!.text).not.toContain("?");
    const behind = page!.words.find(({ text }) => text.includes("revision 3"))!;
    const letters = page!.paths.filter((path) =>
      path.every(([, y]) => y > behind.y - 2.5 && y < behind.y + 5),
    );
    // The figure, then the word, then the revision.
    expect(letters).toHaveLength(2);
    const [figure, word] = letters.map((path) => path.map(([x]) => x));
    expect(Math.max(...figure!)).toBeLessThan(Math.min(...word!));
    expect(Math.max(...word!)).toBeLessThan(behind.x + 0.5);
    const told = /ActualText <FEFF([0-9A-F]+)>/.exec(new TextDecoder("latin1").decode(bytes))![1]!;
    const said = told.match(/.{4}/g)!.map((hex) => String.fromCharCode(Number.parseInt(hex, 16)));
    expect(said.join("")).toBe("سكين ٢, revision 3");
  });
});
