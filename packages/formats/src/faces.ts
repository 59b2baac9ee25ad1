import fontkit, { type Font, type GlyphRun, type Path } from "@pdf-lib/fontkit";
import type { PDFDocument, PDFFont } from "pdf-lib";
import { waysOf } from "./reading-order.ts";

/** Words of one font, as they stand from the left. Sizes in pt. */
export interface Run {
  readonly words: string;
  readonly font: PDFFont;
  readonly widthAt: (size: number) => number;
  /**
   * Its letters as an SVG path, y down, from where its line begins; only where they go from right to left: they join, and their marks stand
   * where the font puts them, which text in a PDF of this library does not.
   */
  readonly outlineAt: ((size: number) => string) | null;
}

interface Face {
  readonly font: PDFFont;
  /** The same with its outlines. */
  readonly drawn: Font;
  readonly has: ReadonlySet<number>;
}

/** Stands where no font has the sign. */
const LACKING = "?";
/** Joiners, selectors and marks of order: nothing is seen of them. */
const UNSEEN = /\p{Cc}|\p{Cf}|\p{Variation_Selector}/u;
/** Keeps two letters from being joined. */
const PARTED = "\u200c";

/** Words without what nothing is seen of. */
export const seen = (words: string): string => [...words].filter((sign) => !UNSEEN.test(sign)).join("");

/** Fonts within a document: each sign is set in the first that has it. */
export class Faces {
  private constructor(private readonly faces: readonly Face[]) {}

  /** Puts fonts into a document, of each only what is used. The fonts' own bytes, TrueType, OpenType or WOFF. */
  static async embedded(pdf: PDFDocument, bytes: readonly Uint8Array[]): Promise<Faces> {
    pdf.registerFontkit(fontkit);
    const faces: Face[] = [];
    for (const [i, one] of bytes.entries()) {
      const drawn = fontkit.create(one);
      const font = await pdf.embedFont(one, { subset: true, customName: subsetName(drawn, i) });
      faces.push({ font, drawn, has: new Set(font.getCharacterSet()) });
    }
    return new Faces(faces);
  }

  /** A line in pieces of one font each, from the left. */
  runsOf(line: string): Run[] {
    return waysOf(line.normalize("NFC")).flatMap(({ words, isBack }) => {
      const runs: { face: Face; words: string }[] = [];
      let isParted = true;
      for (const sign of words) {
        if (sign === PARTED) isParted = true;
        if (UNSEEN.test(sign)) continue;
        const found = this.faces.find(({ has }) => has.has(sign.codePointAt(0)!));
        const face = found ?? this.faces[0]!;
        const shown = found ? sign : LACKING;
        const last = runs.at(-1);
        if (last?.face === face && !isParted) last.words += shown;
        else runs.push({ face, words: shown });
        isParted = false;
      }
      return (isBack ? runs.reverse() : runs).map(({ face, words }) => asSeen(face, words, isBack));
    });
  }
}

/** Signs given to the font in the order that it needs: it turns about by itself what it lays out from right to left. */
function asSeen({ font, drawn }: Face, words: string, isBack: boolean): Run {
  const turns = drawn.layout(words).direction === "rtl";
  const given = turns === isBack ? words : [...words].reverse().join("");
  if (!turns)
    return {
      words: given,
      font,
      widthAt: (size) => font.widthOfTextAtSize(given, size),
      outlineAt: null,
    };
  const laid = drawn.layout(given);
  const width = laid.positions.reduce((sum, { xAdvance }) => sum + xAdvance, 0);
  return {
    words: given,
    font,
    widthAt: (size) => (width * size) / drawn.unitsPerEm,
    outlineAt: (size) => outlineOf(laid, size / drawn.unitsPerEm),
  };
}

/** What the library's types leave out: an affine map, as SVG writes one. */
type Placeable = Path & { transform(a: number, b: number, c: number, d: number, e: number, f: number): Path };

function outlineOf({ glyphs, positions }: GlyphRun, scale: number): string {
  let pen = 0;
  return glyphs
    .map(({ path }, i) => {
      const { xAdvance, xOffset, yOffset } = positions[i]!;
      const [x, y] = [(pen + xOffset) * scale, -yOffset * scale];
      pen += xAdvance;
      return (path as Placeable).transform(scale, 0, 0, -scale, x, y).toSVG();
    })
    .join("");
}

/** The name of a font of which only some signs are embedded: six letters of its own, a plus, its name. Source: ISO 32000-1, 9.6.4. */
function subsetName({ postscriptName }: Font, index: number): string {
  const tag = [...`${index}`.padStart(6, "0")].map((digit) => "ABCDEFGHIJ"[Number(digit)]).join("");
  return `${tag}+${postscriptName ?? "Sans"}`;
}
