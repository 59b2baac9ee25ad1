import { compileRing, ringPoints } from "@true-spine/core/blade/outline.ts";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { describe, expect, test } from "vitest";
import { PAPERS, type Paper } from "../src/papers.ts";
import { BAR, writeTemplate } from "../src/write-template.ts";
import { FIELD, FONT, fontOf, KINDS } from "./blades.ts";
import { type ReadPage, readPdf } from "./read-pdf.ts";

const options = (paper: Paper) => ({
  paper,
  unit: "mm" as const,
  fonts: [FONT],
  date: new Date("2026-04-17"),
  revision: 3,
});
const boxOf = (points: readonly (readonly [number, number])[]) => {
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  return { left: Math.min(...xs), right: Math.max(...xs), bottom: Math.min(...ys), top: Math.max(...ys) };
};
/** Outlines are the large closed curves: neither a hole nor the frame that is drawn within. */
const outlinesOn = (page: ReadPage) =>
  page.paths.filter((path) => {
    const [first, last] = [path[0]!, path[path.length - 1]!];
    const { left, right } = boxOf(path);
    return path.length > 20 && Math.hypot(first[0] - last[0], first[1] - last[1]) < 1e-6 && right - left > 40;
  });
const bar = (page: ReadPage) =>
  page.paths.filter((path) => path.length === 2 && Math.abs(path[1]![0] - path[0]![0] - BAR) < 1);

/** Distance of a point from a closed run of points. */
function distance(
  [px, py]: readonly [number, number],
  points: readonly (readonly [number, number])[],
): number {
  return Math.min(
    ...points.map(([ax, ay], i) => {
      const [bx, by] = points[(i + 1) % points.length]!;
      const [ex, ey] = [bx - ax, by - ay];
      const t = Math.min(1, Math.max(0, ((px - ax) * ex + (py - ay) * ey) / (ex * ex + ey * ey || 1)));
      return Math.hypot(ax + t * ex - px, ay + t * ey - py);
    }),
  );
}

describe.each(Object.keys(PAPERS) as Paper[])("a template on %s, read back", (paper) => {
  test("the paper is that paper, the bar 100 mm on every sheet, and the words are on it", async () => {
    const pages = await readPdf(await writeTemplate(FIELD, options(paper)));
    for (const page of pages) {
      expect(page.width).toBeCloseTo(PAPERS[paper].width, 2);
      expect(page.height).toBeCloseTo(PAPERS[paper].height, 2);
      expect(bar(page)).toHaveLength(1);
      const [[from, to]] = bar(page) as [[[number, number], [number, number]]];
      expect(Math.abs(to[0] - from[0] - BAR)).toBeLessThan(0.05);
      expect(page.text).toContain("Fen hook, revision 3");
      expect(page.text).toContain("This bar is 100 mm");
    }
  });

  test("both outlines of the field knife measure within 0.1 mm of the model, the left one mirrored", async () => {
    const [page] = await readPdf(await writeTemplate(FIELD, options(paper)));
    const model = ringPoints(compileRing(FIELD.outline));
    const box = boxOf(model);
    const outlines = outlinesOn(page!);
    expect(outlines).toHaveLength(2);
    outlines.forEach((outline, i) => {
      const read = boxOf(outline);
      expect(Math.abs(read.right - read.left - (box.right - box.left))).toBeLessThan(0.1);
      const back = outline.map(([x, y]): [number, number] => [
        i === 0 ? x - read.left + box.left : box.right - (x - read.left),
        y - read.top + box.top,
      ]);
      expect(Math.max(...back.map((point) => distance(point, model)))).toBeLessThan(0.1);
      expect(Math.max(...model.map((point) => distance(point, back)))).toBeLessThan(0.1);
      expect(read.left).toBeGreaterThan(9.9);
      expect(read.right).toBeLessThan(PAPERS[paper].width - 9.9);
    });
  });
});

describe("a blade longer than the paper", () => {
  const long = KINDS.map(([, blade]) => blade).filter((blade) => {
    const { left, right } = compileRing(blade.outline);
    return right - left > 277;
  });

  test("goes over several sheets that join where their marks lie", async () => {
    expect(long.length).toBeGreaterThan(0);
    for (const blade of long) {
      const pages = await readPdf(await writeTemplate(blade, options("A4")));
      expect(pages.length).toBeGreaterThan(1);
      expect(pages[0]!.text).toContain("join 1");
      expect(pages[1]!.text).toContain("join 1");
      const crosses = pages.map((page) =>
        page.paths.filter(
          (p) => p.length === 2 && Math.abs(p[1]![0] - p[0]![0] - 8) < 1e-3 && p[0]![1] === p[1]![1],
        ),
      );
      // What lies on a cross of one sheet lies on the cross of the next: the outlines there are the same.
      const at = (page: number, side: "first" | "last") => {
        const xs = crosses[page]!.map((p) => (p[0]![0] + p[1]![0]) / 2);
        return side === "first" ? Math.min(...xs) : Math.max(...xs);
      };
      const [one, two] = [outlinesOn(pages[0]!)[0]!, outlinesOn(pages[1]!)[0]!];
      const shift = at(0, "last") - at(1, "first");
      expect(boxOf(one).left - boxOf(two).left).toBeCloseTo(shift, 2);
    }
  });
});

test("every kind of blade makes a template", async () => {
  for (const [, blade] of KINDS) {
    const pages = await readPdf(await writeTemplate(blade, options("Letter")));
    for (const page of pages) expect(bar(page)).toHaveLength(1);
  }
});

describe("words", () => {
  test("in letters that no font given has are shown as such, and nothing fails", async () => {
    const pages = await readPdf(await writeTemplate({ ...FIELD, name: "Болото" }, options("A4")));
    expect(pages[0]!.text).toContain("??????");
    expect(pages[0]!.text).toContain("This bar is 100 mm");
  });

  test("in other letters are set in the first font that has them, each embedded under a name of its own", async () => {
    const fonts = [
      FONT,
      fontOf("noto-sans/files/noto-sans-cyrillic"),
      fontOf("noto-sans/files/noto-sans-latin-ext"),
    ];
    const name = "Żar \u0041\u0308 Болото № 3";
    const bytes = await writeTemplate({ ...FIELD, name }, { ...options("A4"), fonts });
    const [page] = await readPdf(bytes);
    expect(page!.text.replace(/\s+/g, " ")).toContain("Ż ar Ä Болото № 3");
    const names = [...new TextDecoder("latin1").decode(bytes).matchAll(/\/BaseFont \/(\S+)/g)].map(
      ([, one]) => one,
    );
    for (const one of names) expect(one).toMatch(/^[A-Z]{6}\+\S+$/);
    expect(new Set(names).size).toBe(3);
  });

  test("are read aloud in order: tagged, with a title and a language; a printer is asked to keep the scale", async () => {
    const bytes = await writeTemplate({ ...FIELD, name: "Fen hook" }, options("A4"));
    const pdf = await getDocument({ data: bytes, verbosity: 0 }).promise;
    expect(await pdf.getMarkInfo()).toMatchObject({ Marked: true });
    const { info } = await pdf.getMetadata();
    expect(info).toMatchObject({ Title: "Fen hook: template", Language: "en-GB" });
    expect(await pdf.getViewerPreferences()).toEqual({ DisplayDocTitle: true, PrintScaling: "None" });
    for (let number = 1; number <= pdf.numPages; number++) {
      const page = await pdf.getPage(number);
      interface Node {
        readonly role?: string;
        readonly id?: string;
        readonly type?: string;
        readonly children?: readonly Node[];
      }
      const inTree = (node: Node): Node[] => [node, ...(node.children ?? []).flatMap(inTree)];
      const nodes = inTree((await page.getStructTree()) as Node);
      expect(
        nodes
          .map(({ role }) => role)
          .filter(Boolean)
          .slice(0, 4),
      ).toEqual(["Root", "Document", "H1", "P"]);
      const said = nodes.flatMap(({ type, id }) => (type === "content" ? [id] : []));
      const { items } = await page.getTextContent({ includeMarkedContent: true });
      const marked = (items as readonly Node[]).flatMap(({ type, id }) =>
        type === "beginMarkedContentProps" ? [id] : [],
      );
      expect(marked).toEqual(said);
      expect(marked.length).toBeGreaterThan(3);
    }
    await pdf.destroy();
  });

  test("no sign of the sheets' own words is lacking from their font, and none overprints another", async () => {
    for (const [, blade] of KINDS) {
      const pages = await readPdf(await writeTemplate(blade, options("A4")));
      for (const { text, words } of pages) {
        expect(text).not.toContain("?");
        for (const [i, one] of words.entries()) {
          for (const two of words.slice(i + 1)) {
            const isBeside = one.x + one.long <= two.x || two.x + two.long <= one.x;
            const isAbove = one.y + one.tall <= two.y + 0.5 || two.y + two.tall <= one.y + 0.5;
            expect(isBeside || isAbove, `${one.text} and ${two.text}`).toBe(true);
          }
        }
      }
    }
  });
});
