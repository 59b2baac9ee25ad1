import fontkit from "@pdf-lib/fontkit";
import {
  type Color,
  PDFDocument,
  type PDFFont,
  PDFName,
  PDFOperator,
  PDFOperatorNames,
  type PDFPage,
  type PDFRef,
  PrintScaling,
} from "pdf-lib";

/** What words are to whoever is read the sheet. Source: the standard structure types of ISO 32000-1, 14.8.4. */
type Kind = "H1" | "H2" | "P";

export interface Put {
  /** From the page's lower left corner, pt. */
  readonly x: number;
  readonly y: number;
  /** Of the letters, pt. */
  readonly size: number;
  readonly color?: Color;
  readonly as?: Kind;
}

/** Stands where no font has the sign. */
const LACKING = "?";
/** Joiners, selectors and marks of order: nothing is seen of them. */
const UNSEEN = /\p{Cc}|\p{Cf}|\p{Variation_Selector}/gu;

/**
 * A document of pages that are read aloud as well as seen: words are tagged in the order they are put down, everything else is passed over.
 * It names itself and its language, and asks a printer to keep the scale. Source: ISO 32000-1, 14.6 to 14.8 and 12.2.
 */
export class Pages {
  private readonly tags: { ref: PDFRef; page: number }[] = [];
  private readonly document: PDFRef;
  private readonly marks = new Map<PDFPage, number>();

  private constructor(
    private readonly pdf: PDFDocument,
    private readonly fonts: readonly { readonly font: PDFFont; readonly has: ReadonlySet<number> }[],
  ) {
    this.document = pdf.context.nextRef();
  }

  /** Opens a document with its title and date. The fonts' own bytes, TrueType, OpenType or WOFF: each sign is set in the first that has it. */
  static async open(title: string, bytes: readonly Uint8Array[], date: Date): Promise<Pages> {
    const pdf = await PDFDocument.create();
    pdf.registerFontkit(fontkit);
    const fonts: { font: PDFFont; has: Set<number> }[] = [];
    for (const [i, one] of bytes.entries()) {
      const font = await pdf.embedFont(one, { subset: true, customName: subsetName(one, i) });
      fonts.push({ font, has: new Set(font.getCharacterSet()) });
    }
    pdf.setTitle(title, { showInWindowTitleBar: true });
    pdf.setLanguage("en-GB");
    pdf.catalog.getOrCreateViewerPreferences().setPrintScaling(PrintScaling.None);
    pdf.setCreator("True Spine");
    pdf.setProducer("True Spine");
    pdf.setCreationDate(date);
    pdf.setModificationDate(date);
    return new Pages(pdf, fonts);
  }

  /** Another page, of so many points. */
  add(width: number, height: number): PDFPage {
    const page = this.pdf.addPage([width, height]);
    page.node.set(PDFName.of("StructParents"), this.pdf.context.obj(this.marks.size));
    page.node.set(PDFName.of("Tabs"), PDFName.of("S"));
    this.marks.set(page, 0);
    page.pushOperators(ARTIFACT);
    return page;
  }

  /** How wide words are, pt. */
  widthOf(words: string, size: number): number {
    return this.runsOf(words).reduce((sum, run) => sum + run.font.widthOfTextAtSize(run.words, size), 0);
  }

  /** Puts words on a page. */
  words(page: PDFPage, words: string, { x, y, size, color, as = "P" }: Put): void {
    const runs = this.runsOf(words);
    if (runs.length === 0) return;
    page.pushOperators(END, this.tagged(page, as));
    let at = x;
    for (const run of runs) {
      page.drawText(run.words, { x: at, y, size, font: run.font, ...(color ? { color } : {}) });
      at += run.font.widthOfTextAtSize(run.words, size);
    }
    page.pushOperators(END, ARTIFACT);
  }

  /** The whole document, its pages closed. */
  save(): Promise<Uint8Array> {
    const { context, catalog } = this.pdf;
    const pages = [...this.marks.keys()];
    for (const page of pages) page.pushOperators(END);
    const root = context.nextRef();
    const refs = this.tags.map(({ ref }) => ref);
    context.assign(this.document, context.obj({ Type: "StructElem", S: "Document", P: root, K: refs }));
    const byPage = pages.flatMap((_, i) => [
      i,
      this.tags.flatMap(({ page, ref }) => (page === i ? [ref] : [])),
    ]);
    const tree = context.register(context.obj({ Nums: byPage as never }));
    context.assign(
      root,
      context.obj({
        Type: "StructTreeRoot",
        K: [this.document],
        ParentTree: tree,
        ParentTreeNextKey: pages.length,
      }),
    );
    catalog.set(PDFName.of("StructTreeRoot"), root);
    catalog.set(PDFName.of("MarkInfo"), context.obj({ Marked: true }));
    return this.pdf.save({ useObjectStreams: false });
  }

  /** Begins what is the next words of a page, in the tree of the document and in the page. */
  private tagged(page: PDFPage, as: Kind): PDFOperator {
    const mark = this.marks.get(page)!;
    this.marks.set(page, mark + 1);
    const { context } = this.pdf;
    const element = context.obj({ Type: "StructElem", S: as, P: this.document, Pg: page.ref, K: mark });
    this.tags.push({ ref: context.register(element), page: [...this.marks.keys()].indexOf(page) });
    return PDFOperator.of(PDFOperatorNames.BeginMarkedContentSequence, [PDFName.of(as), `<</MCID ${mark}>>`]);
  }

  /** Words in pieces of one font each. */
  private runsOf(words: string): { font: PDFFont; words: string }[] {
    const runs: { font: PDFFont; words: string }[] = [];
    for (const sign of words.normalize("NFC").replace(UNSEEN, "")) {
      const found = this.fonts.find(({ has }) => has.has(sign.codePointAt(0)!));
      const font = found?.font ?? this.fonts[0]!.font;
      const shown = found ? sign : LACKING;
      const last = runs.at(-1);
      if (last?.font === font) last.words += shown;
      else runs.push({ font, words: shown });
    }
    return runs;
  }
}

const ARTIFACT = PDFOperator.of(PDFOperatorNames.BeginMarkedContent, [PDFName.of("Artifact")]);
const END = PDFOperator.of(PDFOperatorNames.EndMarkedContent);

/** The name of a font of which only some signs are embedded: six letters of its own, a plus, its name. Source: ISO 32000-1, 9.6.4. */
function subsetName(bytes: Uint8Array, index: number): string {
  const tag = [...`${index}`.padStart(6, "0")].map((digit) => "ABCDEFGHIJ"[Number(digit)]).join("");
  return `${tag}+${fontkit.create(bytes).postscriptName ?? "Sans"}`;
}
