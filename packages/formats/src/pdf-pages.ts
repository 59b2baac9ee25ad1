import {
  type Color,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFOperator,
  PDFOperatorNames,
  type PDFPage,
  type PDFRef,
  PrintScaling,
  rgb,
} from "pdf-lib";
import { Faces, seen } from "./faces.ts";

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
    private readonly faces: Faces,
  ) {
    this.document = pdf.context.nextRef();
  }

  /** Opens a document with its title and date. The fonts' own bytes, TrueType, OpenType or WOFF: each sign is set in the first that has it. */
  static async open(title: string, bytes: readonly Uint8Array[], date: Date): Promise<Pages> {
    const pdf = await PDFDocument.create();
    const faces = await Faces.embedded(pdf, bytes);
    pdf.setTitle(title, { showInWindowTitleBar: true });
    pdf.setLanguage("en-GB");
    pdf.catalog.getOrCreateViewerPreferences().setPrintScaling(PrintScaling.None);
    pdf.setCreator("True Spine");
    pdf.setProducer("True Spine");
    pdf.setCreationDate(date);
    pdf.setModificationDate(date);
    return new Pages(pdf, faces);
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
    return this.faces.runsOf(words).reduce((sum, run) => sum + run.widthAt(size), 0);
  }

  /** Puts words on a page. */
  words(page: PDFPage, words: string, { x, y, size, color, as = "P" }: Put): void {
    const runs = this.faces.runsOf(words);
    if (runs.length === 0) return;
    const isTurned = runs.some(({ outlineAt }) => outlineAt);
    page.pushOperators(END, this.tagged(page, as, isTurned ? seen(words) : null));
    let at = x;
    for (const { words, font, widthAt, outlineAt } of runs) {
      if (outlineAt) page.drawSvgPath(outlineAt(size), { x: at, y, color: color ?? BLACK });
      else page.drawText(words, { x: at, y, size, font, ...(color ? { color } : {}) });
      at += widthAt(size);
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

  /** Begins what is the next words of a page, in the tree of the document and in the page; with `spoken` where they are not read as they stand. */
  private tagged(page: PDFPage, as: Kind, spoken: string | null): PDFOperator {
    const mark = this.marks.get(page)!;
    this.marks.set(page, mark + 1);
    const { context } = this.pdf;
    const element = context.obj({
      Type: "StructElem",
      S: as,
      P: this.document,
      Pg: page.ref,
      K: mark,
      ...(spoken === null ? {} : { ActualText: PDFHexString.fromText(spoken) }),
    });
    this.tags.push({ ref: context.register(element), page: [...this.marks.keys()].indexOf(page) });
    return PDFOperator.of(PDFOperatorNames.BeginMarkedContentSequence, [PDFName.of(as), `<</MCID ${mark}>>`]);
  }
}

const ARTIFACT = PDFOperator.of(PDFOperatorNames.BeginMarkedContent, [PDFName.of("Artifact")]);
const END = PDFOperator.of(PDFOperatorNames.EndMarkedContent);
const BLACK = rgb(0, 0, 0);
