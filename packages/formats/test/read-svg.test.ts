import { describe, expect, test } from "vitest";
import { figuresOf } from "../src/drawing-figures.ts";

/** SVG as other programs write it: figures by geometry, what it means by SVG 2 and CSS Values. */
const svg = (inside: string, root = 'width="200mm" height="100mm" viewBox="0 0 200 100"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${root}>${inside}</svg>`;
function read(text: string) {
  const figures = figuresOf("x.svg", text);
  if (!figures.ok) throw new Error(figures.why);
  return figures.figures;
}
const SLAB = '<rect x="10" y="10" width="120" height="30"/>';

describe("lengths", () => {
  test.each([
    ["millimetres", 'x="10mm" y="0" width="120mm" height="30mm"', 120, 30],
    ["inches", 'x="0" y="0" width="2in" height="1in"', 50.8, 25.4],
    ["points", 'x="0" y="0" width="72pt" height="36pt"', 25.4, 12.7],
  ])("with units in their attributes: %s", (_, attributes, width, height) => {
    // A user unit is a pixel here: 25.4/96 mm.
    const { width: w, height: h } = read(svg(`<rect ${attributes}/>`, 'width="400mm" height="200mm"'));
    expect(w).toBeCloseTo(width, 6);
    expect(h).toBeCloseTo(height, 6);
  });

  test("in percent are of the view they stand in", () => {
    expect(read(svg('<rect y="10" width="100%" height="60%"/>'))).toMatchObject({ width: 200, height: 60 });
    const within = '<svg x="10" width="50%" height="50%"><rect width="80%" height="50%"/></svg>';
    expect(read(svg(within))).toMatchObject({ width: 80, height: 25 });
    // Of a radius: of the diagonal over the root of two, √(200² + 100²) / √2.
    const { holes } = read(svg(`<rect width="200" height="60"/><circle cx="50%" cy="30%" r="2%"/>`));
    expect(holes).toEqual([{ x: 100, y: -30, diameter: expect.closeTo(0.04 * Math.sqrt(25_000), 3) }]);
  });

  test.each([
    ["in the middle of its place", "", 70, 25],
    ["at its beginning", 'preserveAspectRatio="xMinYMin"', 25, 25],
    ["at its end", 'preserveAspectRatio="xMaxYMid meet"', 115, 25],
  ])("a view within a view keeps its shape, and is %s", (_, keeps, x, y) => {
    const within = `<svg x="10" y="10" width="120" height="30" viewBox="0 0 60 60" ${keeps}><circle cx="30" cy="30" r="6"/></svg>`;
    expect(read(svg(SLAB + within)).holes).toEqual([{ x, y: -y, diameter: expect.closeTo(6, 3) }]);
  });

  test("a view within a view that is filled without keeping its shape stretches what is in it", () => {
    const within =
      '<svg x="10" width="120" height="30" viewBox="5 0 60 60" preserveAspectRatio="none"><rect x="5" width="50" height="50"/></svg>';
    expect(read(svg(within))).toMatchObject({ width: 100, height: 25 });
  });

  test("a page wider than its viewBox keeps the drawing's shape; filled without, it does not", () => {
    const wide = 'width="400mm" height="100mm" viewBox="0 0 200 100"';
    expect(read(svg(SLAB, wide))).toMatchObject({ width: 120, height: 30, mmPerUnit: 1 });
    expect(read(svg(SLAB, `${wide} preserveAspectRatio="xMidYMid slice"`))).toMatchObject({
      width: 240,
      height: 60,
    });
    expect(read(svg(SLAB, `${wide} preserveAspectRatio="none"`))).toMatchObject({ width: 240, height: 30 });
  });
});

describe("what is seen", () => {
  const BIG = '<rect width="190" height="90"';
  test.each([
    ["by an attribute", `${BIG} visibility="hidden"/>`],
    ["by its style", `${BIG} style="visibility: collapse"/>`],
    ["by its group", `<g visibility="hidden">${BIG}/></g>`],
    ["by a class", `<style>.off, .other { display: none }</style>${BIG} class="a off"/>`],
    ["by an id", `<style>/* rect {} */ #frame{visibility:hidden !important}</style>${BIG} id="frame"/>`],
    ["by a tag", "<style>ellipse{display:none}</style><ellipse cx='95' cy='45' rx='95' ry='45'/>"],
    ["as a symbol that nobody uses", `<symbol id="s">${BIG}/></symbol>`],
  ])("what is hidden %s is no outline", (_, hidden) => {
    expect(read(svg(hidden + SLAB))).toMatchObject({ width: 120, runs: [{ width: 120 }] });
  });

  test("in a hidden group what is said to be visible is seen; its own style counts more than a class", () => {
    expect(read(svg(`<g visibility="hidden"><g visibility="visible">${BIG}/></g></g>${SLAB}`)).width).toBe(
      190,
    );
    expect(
      read(svg(`<style>.off{display:none}</style>${BIG} class="off" style="display:inline"/>${SLAB}`)).width,
    ).toBe(190);
  });

  test("a transform in a style is one", () => {
    const turned = `<rect width="120" height="30" style="transform: translate(100px, 0px) rotate(90deg)"/>`;
    const { width, height } = read(svg(turned));
    expect([width, height].map((v) => Number(v.toFixed(6)))).toEqual([30, 120]);
  });
});

test("of a switch what anybody would see, neither another tongue's nor another program's own", () => {
  const either = `<switch><foreignObject requiredExtensions="urn:x"/><rect systemLanguage="xx" width="190" height="90"/>${SLAB}<rect width="150" height="90"/></switch>`;
  expect(read(svg(either)).runs).toMatchObject([{ width: 120, height: 30 }]);
  expect(
    read(svg(`<switch><rect systemLanguage="fr, en-GB" width="150" height="20"/>${SLAB}</switch>`)).runs,
  ).toMatchObject([{ width: 150 }]);
});

describe("shapes", () => {
  test("a round-cornered slab, and a slot that is a hole's shape no longer", () => {
    const { area } = read(svg('<rect width="120" height="30" rx="10"/>'));
    expect(area).toBeCloseTo(3600 - (4 - Math.PI) * 100, 1);
    // Radii are no larger than half of it: a disc.
    const { holes } = read(svg(`${SLAB}<rect x="20" y="20" width="8" height="8" rx="50"/>`));
    expect(holes).toEqual([{ x: 24, y: -24, diameter: expect.closeTo(8, 4) }]);
  });

  test("circles are as large as they are drawn", () => {
    const { holes } = read(svg(`${SLAB}<circle cx="20" cy="25" r="3.175"/>`));
    expect(holes[0]!.diameter).toBeCloseTo(6.35, 4);
    expect(read(svg('<ellipse cx="100" cy="50" rx="80" ry="20"/>')).area).toBeCloseTo(Math.PI * 1600, 1);
  });
});

describe("copies", () => {
  test("of an element stand where they are used, as large as they are used", () => {
    const used = `<defs><g id="knife">${SLAB}</g></defs><use href="#knife" x="20" y="5"/><use xlink:href="#knife" transform="scale(1.5)"/>`;
    const { runs } = read(svg(used));
    expect(runs.map(({ width }) => width)).toEqual([180, 120]);
    const symbol = `<symbol id="s" viewBox="0 0 240 60"><rect width="240" height="60"/></symbol><use href="#s" x="5" y="5" width="120" height="30"/>`;
    expect(read(svg(symbol))).toMatchObject({ width: 120, height: 30 });
  });

  test("of nothing, of something elsewhere, of itself: told, or ended, and nothing is fetched", () => {
    for (const href of ["#gone", "http://elsewhere.example/x.svg#a"])
      expect(read(svg(`<use href="${href}"/>${SLAB}`)).notes.join(" ")).toContain("not in the file");
    expect(figuresOf("x.svg", svg(`<g id="a"><use href="#a"/></g>${SLAB}`))).toMatchObject({
      ok: false,
      why: expect.stringContaining("deep"),
    });
    const bomb = Array.from(
      { length: 12 },
      (_, i) => `<g id="g${i}">${`<use href="#g${i + 1}"/>`.repeat(10)}</g>`,
    ).join("");
    expect(figuresOf("x.svg", svg(`${bomb}<g id="g12">${SLAB}</g>`))).toMatchObject({
      ok: false,
      why: expect.stringContaining("more than"),
    });
  });
});
