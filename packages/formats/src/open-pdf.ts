import fontkit from "@pdf-lib/fontkit";
import { PDFDocument, type PDFFont } from "pdf-lib";

/** A new document with its title, its date and its one font: the font's own bytes, TrueType, OpenType or WOFF. */
export async function openPdf(
  title: string,
  bytes: Uint8Array,
  date: Date,
): Promise<{ pdf: PDFDocument; font: PDFFont }> {
  const pdf = await PDFDocument.create();
  pdf.registerFontkit(fontkit);
  const font = await pdf.embedFont(bytes, { subset: true });
  pdf.setTitle(title);
  pdf.setCreator("True Spine");
  pdf.setProducer("True Spine");
  pdf.setCreationDate(date);
  pdf.setModificationDate(date);
  return { pdf, font };
}
