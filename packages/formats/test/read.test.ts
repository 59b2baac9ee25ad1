import { DxfWriter, point3d, Units } from "@tarikjabiri/dxf";
import { compileRing, ringPoints } from "@true-spine/core/blade/outline.ts";
import { firstBlade } from "@true-spine/core/design/first.ts";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { Read } from "../src/contours.ts";
import { drawingOf, flattened, outlinePath } from "../src/drawing.ts";
import { guessMarks, laid, outlineFrom } from "../src/outline-from.ts";
import { readDxf } from "../src/read-dxf.ts";
import { readSvg } from "../src/read-svg.ts";
import { writeDxf } from "../src/write-dxf.ts";
import { writeSvg } from "../src/write-svg.ts";
import { areaOf } from "./areas.ts";
import { FIELD, KINDS } from "./blades.ts";

const read = (result: Read) => {
  if (!result.ok) throw new Error(result.why);
  return result.drawing;
};
const refused = (result: Read) => (result.ok ? "" : result.why);
/** A 100 × 30 rectangle with its front cut to a point: 40 back along the bottom. Area 100·30 − 40·30/2 = 2400. */
const AREA = 2400;
const POINTS = [
  [0, 0],
  [100, 0],
  [60, 30],
  [0, 30],
] as const;
const D = "M0 0L100 0L60 30L0 30Z";
const svg = (inside: string, attributes = 'width="120mm" height="40mm" viewBox="0 0 120 40"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inside}</svg>`;
/** Area of the largest run, mm², by the file's own unit or as it stands. */
const area = (result: Read) => {
  const { contours, mmPerUnit } = read(result);
  return areaOf(flattened(contours[0]!, 0.001)) * (mmPerUnit ?? 1) ** 2;
};

describe("SVG this product did not write", () => {
  test.each<[string, string, number]>([
    ["plain millimetres", svg(`<path d="${D}"/>`), AREA],
    ["inches", svg(`<path d="${D}"/>`, 'width="12in" height="4in" viewBox="0 0 120 40"'), AREA * 2.54 ** 2],
    [
      "points, with a viewBox off the origin",
      svg(`<path d="${D}"/>`, 'width="340.157pt" viewBox="-10 -5 120 40"'),
      AREA,
    ],
    [
      "pixels without a viewBox, said in mm",
      svg(`<path d="${D}"/>`, 'width="120mm"'),
      AREA * (25.4 / 96) ** 2,
    ],
    ["no unit at all", svg(`<path d="${D}"/>`, 'viewBox="0 0 120 40"'), AREA],
    ["a polygon", svg('<polygon points="0,0 100,0 60,30 0,30"/>'), AREA],
    ["a polyline that comes home", svg('<polyline points="0 0 100 0 60 30 0 30 0 0"/>'), AREA],
    ["relative commands", svg('<path d="m0 0h100l-40 30h-60z"/>'), AREA],
    [
      "nested transforms: doubled, turned by a right angle, moved and mirrored",
      svg(
        `<g transform="translate(50 3) scale(2)"><g transform="rotate(90)"><path transform="matrix(-1 0 0 1 7 9)" d="${D}"/></g></g>`,
      ),
      AREA * 4,
    ],
    [
      "an svg within an svg, half as large",
      svg(`<svg x="4" y="4" width="60" height="20" viewBox="0 0 120 40"><path d="${D}"/></svg>`),
      AREA / 4,
    ],
    [
      "four loose lines, one of them backward",
      svg('<path d="M0 0H100"/><path d="M60 30L100 0"/><path d="M60 30H0"/><path d="M0 30V0"/>'),
      AREA,
    ],
    [
      "every line drawn twice",
      svg(`${`<path d="${D}"/><path d="M0 30L60 30L100 0L0 0Z"/>`.repeat(1)}<path d="${D}"/>`),
      AREA,
    ],
    ["not quite closed", svg('<path d="M0 0L100 0L60 30L0 30L0 0.4"/>'), AREA],
    [
      "half a circle of radius 15 on its back",
      svg('<path d="M0 0H60A15 15 0 0 1 60 30H0Z"/>'),
      60 * 30 + (Math.PI * 225) / 2,
    ],
    [
      "hidden things beside it",
      svg(`<g style="display:none"><path d="M0 0H900V900Z"/></g><path d="${D}"/>`),
      AREA,
    ],
    [
      "a larger shape among the definitions",
      svg(`<defs><path d="M0 0H900V900Z"/></defs><path d="${D}"/>`),
      AREA,
    ],
  ])("%s", (_, text, wanted) => {
    expect(area(readSvg(text)) / wanted).toBeCloseTo(1, 3);
  });

  test("what is no outline is passed over and told, and nothing is run or fetched", () => {
    const { notes, contours } = read(
      readSvg(
        svg(
          `<script>globalThis.ran = true</script><image href="http://192.0.2.1/x.png"/><use href="#a"/><text>9</text><path d="${D}"/>`,
        ),
      ),
    );
    expect(contours).toHaveLength(1);
    expect(notes.join(" ")).toMatch(/script.*picture.*copy.*Lettering/);
    expect((globalThis as { ran?: boolean }).ran).toBeUndefined();
  });

  test.each<[string, string, RegExp]>([
    ["empty", "", /not readable|not an SVG/],
    ["nothing drawn", svg(""), /Nothing is drawn/],
    ["another kind of XML", "<html><body/></html>", /not an SVG/],
    ["cut off", svg(`<path d="${D}"/>`).slice(0, -12), /line \d+/],
    [
      "entities of its own",
      `<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]>${svg("&b;")}`,
      /entities/,
    ],
    ["an open line only", svg('<path d="M0 0L100 0L60 30"/>'), /closed/],
    ["numbers too large", svg('<path d="M0 0L1e300 0L60 1e300Z"/>'), /too large/],
    ["a path of nonsense", svg('<path d="M0 0L oops Z"/>'), /not readable/],
    ["a transform of nonsense", svg(`<path transform="spin(3)" d="${D}"/>`), /transform/],
    [
      "nested a thousand deep",
      svg(`${"<g>".repeat(1000)}<path d="${D}"/>${"</g>".repeat(1000)}`),
      /nested|deep|readable/i,
    ],
    ["forty thousand pieces", svg(`<path d="M0 0${"L1 1L2 0".repeat(20_000)}Z"/>`), /too many/],
    ["no area", svg('<path d="M0 0L100 0L0 0Z"/>'), /area|closed/],
  ])("%s is refused in words", (_, text, wanted) => {
    expect(refused(readSvg(text))).toMatch(wanted);
  });

  test("whatever text it is given, it answers", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), (text) => {
        const result = readSvg(`<svg>${text}</svg>`);
        expect(result.ok ? result.drawing.contours.length > 0 : result.why.length > 5).toBe(true);
      }),
      { numRuns: 300 },
    );
  });
});

const dxf = (draw: (writer: DxfWriter) => void, units = Units.Millimeters) => {
  const writer = new DxfWriter();
  writer.setUnits(units);
  draw(writer);
  return writer.stringify();
};
const line = (writer: DxfWriter, a: readonly number[], b: readonly number[]) =>
  writer.addLine(point3d(a[0]!, a[1]!, 0), point3d(b[0]!, b[1]!, 0));
const loop = POINTS.map(([x, y]) => ({ point: { x, y } }));
/** A DXF of the oldest kind, by hand: a heavy polyline, no header. */
const OLD = `0\nSECTION\n2\nENTITIES\n0\nPOLYLINE\n8\n0\n66\n1\n70\n1\n${POINTS.map(
  ([x, y]) => `0\nVERTEX\n8\n0\n10\n${x}\n20\n${y}\n30\n0\n`,
).join("")}0\nSEQEND\n0\nENDSEC\n0\nEOF\n`;

describe("DXF this product did not write", () => {
  test.each<[string, string, number]>([
    ["a closed polyline in millimetres", dxf((w) => w.addLWPolyline(loop, { flags: 1 })), AREA],
    ["in inches", dxf((w) => w.addLWPolyline(loop, { flags: 1 }), Units.Inches), AREA * 25.4 ** 2],
    ["in no unit", dxf((w) => w.addLWPolyline(loop, { flags: 1 }), Units.Unitless), AREA],
    ["the oldest kind, by hand", OLD, AREA],
    [
      "loose lines in any order and direction, one twice",
      dxf((w) => {
        line(w, POINTS[2], POINTS[1]);
        line(w, POINTS[0], POINTS[1]);
        line(w, POINTS[3], POINTS[0]);
        line(w, POINTS[2], POINTS[3]);
        line(w, POINTS[1], POINTS[0]);
      }),
      AREA,
    ],
    [
      "lines and an arc",
      dxf((w) => {
        line(w, [0, 0], [60, 0]);
        line(w, [60, 30], [0, 30]);
        line(w, [0, 30], [0, 0]);
        w.addArc(point3d(60, 15, 0), 15, -90, 90);
      }),
      60 * 30 + (Math.PI * 225) / 2,
    ],
    [
      "a polyline with a bulge of half a circle",
      dxf((w) =>
        w.addLWPolyline(
          [
            { point: { x: 0, y: 0 } },
            { point: { x: 60, y: 0 }, bulge: 1 },
            { point: { x: 60, y: 30 } },
            { point: { x: 0, y: 30 } },
          ],
          { flags: 1 },
        ),
      ),
      60 * 30 + (Math.PI * 225) / 2,
    ],
    [
      "a spline of one cubic, closed by lines",
      dxf((w) => {
        w.addSpline({
          controlPoints: [point3d(0, 0, 0), point3d(30, 40, 0), point3d(70, 40, 0), point3d(100, 0, 0)],
          degreeCurve: 3,
        });
        line(w, [100, 0], [100, -10]);
        line(w, [100, -10], [0, -10]);
        line(w, [0, -10], [0, 0]);
      }),
      // Source: ∫ y dx with y = 120 t(1 − t) and x′ = 90 + 60 t − 60 t² is 120 (90/6 + 60/30), plus the box below it.
      2040 + 1000,
    ],
  ])("%s", (_, text, wanted) => {
    expect(area(readDxf(text)) / wanted).toBeCloseTo(1, 3);
  });

  test("lettering is passed over and told; circles are kept as holes", () => {
    const { notes, circles } = read(
      readDxf(
        dxf((w) => {
          w.addLWPolyline(loop, { flags: 1 });
          w.addText(point3d(5, 5, 0), 3, "front");
          w.addCircle(point3d(20, 15, 0), 3);
        }),
      ),
    );
    expect(notes.join(" ")).toContain("TEXT");
    expect(circles).toEqual([{ at: [20, 15], diameter: 6 }]);
  });

  test.each<[string, string, RegExp]>([
    ["empty", "", /not readable|Nothing/],
    ["no DXF at all", "once upon a time\n".repeat(20), /not readable|Nothing/],
    ["binary", "Anything Binary DXF\r\n\x1a\0\x01", /binary/],
    ["cut off", dxf((w) => w.addLWPolyline(loop, { flags: 1 })).slice(0, 900), /not readable|Nothing/],
    ["numbers too large", OLD.replace("100", "1e300"), /too large|none/],
    ["open lines only", dxf((w) => line(w, [0, 0], [50, 0])), /closed/],
  ])("%s is refused in words", (_, text, wanted) => {
    expect(refused(readDxf(text))).toMatch(wanted);
  });

  test("whatever text it is given, it answers", () => {
    const pair = fc.tuple(
      fc.constantFrom("0", "2", "8", "10", "20", "70", "42"),
      fc.string({ maxLength: 12 }),
    );
    fc.assert(
      fc.property(fc.array(pair, { maxLength: 40 }), (pairs) => {
        const text = pairs.map(([code, value]) => `${code}\n${value}\n`).join("");
        const result = readDxf(`0\nSECTION\n2\nENTITIES\n${text}0\nENDSEC\n0\nEOF\n`);
        expect(result.ok || result.why.length > 5).toBe(true);
      }),
      { numRuns: 300 },
    );
  });
});

describe("from a drawing to a blade", () => {
  const as = { contour: 0, flipX: false, flipY: false, turn: 0 };
  const outlineOf = (result: Read, laying: Partial<typeof as> = {}) => {
    const drawing = read(result);
    const placed = laid(drawing, { ...as, ...laying, mmPerUnit: drawing.mmPerUnit ?? 1 });
    const drawn = outlineFrom(placed, guessMarks(placed.path));
    if (!drawn.ok) throw new Error(drawn.why);
    return drawn;
  };

  test.each([["field", FIELD] as const, ...KINDS])(
    "%s: written as SVG and as DXF, both read back to an outline as large, that makes a blade",
    (name, blade) => {
      const model = areaOf(ringPoints(compileRing(blade.outline)));
      const drawing = drawingOf(blade);
      for (const result of [
        readSvg(writeSvg(drawing)),
        readDxf(writeDxf(drawing, { curves: "polylines" })),
        readDxf(writeDxf(drawing, { curves: "splines" })),
        readDxf(writeDxf(drawing, { curves: "splines", isCutOnly: true })),
      ]) {
        const { outline, holes } = outlineOf(result);
        expect(areaOf(flattened(outlinePath(outline), 0.005)) / model).toBeCloseTo(1, 3);
        expect(holes).toHaveLength(blade.holes?.length ?? 0);
        for (const chain of Object.values(outline)) expect(chain.length).toBeLessThan(200);
        if (name === "double-edge" || name === "marking") continue;
        const made = firstBlade({
          name,
          use: "own",
          family: "drop",
          values: {},
          tang: "full",
          grind: "full flat",
          stock: 4,
          drawn: { outline, holes },
        });
        expect(made.ok ? "" : made.why).toBe("");
      }
    },
  );

  test("a drawing with its tip to the left and its edge up is laid right by mirroring it both ways", () => {
    const { spine } = FIELD.outline;
    const turned = writeSvg(drawingOf(FIELD)).replace(/<path d/g, '<path transform="rotate(180)" d');
    const { outline } = outlineOf(readSvg(turned), { flipX: true, flipY: true });
    expect(outline.edge[0]!.at[1]).toBeLessThan(0);
    const long = (nodes: typeof spine) => nodes[nodes.length - 1]!.at[0];
    expect(Math.abs(long(outline.spine) - long(spine))).toBeLessThan(20);
  });

  test("places that part nothing are refused in words", () => {
    const placed = laid(read(readSvg(svg(`<path d="${D}"/>`))), { ...as, mmPerUnit: 1 });
    const { tip } = guessMarks(placed.path);
    expect(outlineFrom(placed, { tip, heel: tip, junction: tip })).toMatchObject({ ok: false });
  });
});
