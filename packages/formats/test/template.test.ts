import { compileRing, ringPoints } from "@true-spine/core/blade/outline.ts";
import { describe, expect, test } from "vitest";
import { PAPERS, type Paper } from "../src/papers.ts";
import { BAR, writeTemplate } from "../src/write-template.ts";
import { FIELD, FONT, KINDS } from "./blades.ts";
import { type ReadPage, readPdf } from "./read-pdf.ts";

const options = (paper: Paper) => ({
  paper,
  unit: "mm" as const,
  font: FONT,
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

test("a name in letters the font lacks is no failure", async () => {
  const pages = await readPdf(await writeTemplate({ ...FIELD, name: "Болото 刃" }, options("A4")));
  expect(pages[0]!.text).toContain("This bar is 100 mm");
});
