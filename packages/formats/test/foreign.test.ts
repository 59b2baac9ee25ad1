import makerjs from "makerjs";
import { describe, expect, test } from "vitest";
import { figuresOf } from "../src/drawing-figures.ts";
import { areaOf } from "./areas.ts";

/**
 * Drawings written by a general-purpose library of shapes that shares nothing with this reader, in many shapes, units and ways of writing:
 * each is read as large as it was made. What it was made as is worked out from its numbers alone.
 */
interface Shape {
  readonly model: () => makerjs.IModel;
  /** In its own units. */
  readonly width: number;
  readonly height: number;
  readonly area: number;
  readonly holes: number;
}

const models = makerjs.models;
/** A plain knife of straight lines: tang, heel, belly in two lines, tip. */
const KNIFE: [number, number][] = [
  [0, 0],
  [150, 0],
  [240, -14],
  [180, -30],
  [115, -30],
  [110, -24],
  [0, -24],
];

const withHoles = (model: makerjs.IModel, at: readonly (readonly [number, number])[], radius: number) => ({
  models: {
    outline: model,
    holes: new models.Holes(
      radius,
      at.map(([x, y]) => [x, y]),
    ),
  },
});

const SHAPES: Readonly<Record<string, Shape>> = {
  "a knife of lines": {
    model: () => new models.ConnectTheDots(true, KNIFE),
    width: 240,
    height: 30,
    area: areaOf(KNIFE),
    holes: 0,
  },
  "a knife with two pins": {
    model: () =>
      withHoles(
        new models.ConnectTheDots(true, KNIFE),
        [
          [20, -12],
          [80, -12],
        ],
        3.175,
      ),
    width: 240,
    height: 30,
    area: areaOf(KNIFE),
    holes: 2,
  },
  "a bar": { model: () => new models.Rectangle(200, 38), width: 200, height: 38, area: 7600, holes: 0 },
  // Its corners are quarters of a circle: the square on each less (1 - π/4) r².
  "a bar with round corners": {
    model: () => new models.RoundRectangle(200, 38, 6),
    width: 200,
    height: 38,
    area: 7600 - (4 - Math.PI) * 36,
    holes: 0,
  },
  // A rectangle and two half circles.
  "a handle with round ends": {
    model: () => new models.Oval(120, 30),
    width: 120,
    height: 30,
    area: 90 * 30 + Math.PI * 225,
    holes: 0,
  },
  // A rectangle, a half circle of its whole width on top.
  "a blank with a round end": {
    model: () => new models.Dome(30, 100),
    width: 30,
    height: 100,
    area: 30 * 85 + (Math.PI * 225) / 2,
    holes: 0,
  },
  "a six-sided bar": {
    model: () => new models.Polygon(6, 20),
    width: 40,
    height: 40 * Math.sin(Math.PI / 3),
    area: 1.5 * Math.sqrt(3) * 400,
    holes: 0,
  },
  // Four arcs between their ends, of which each bulges by half its chord: half circles on a square.
  "an outline of arcs": {
    model: () => ({
      paths: {
        a: new makerjs.paths.Arc([50, 0], 50, 180, 360),
        b: new makerjs.paths.Arc([100, 50], 50, 270, 90),
        c: new makerjs.paths.Arc([50, 100], 50, 0, 180),
        d: new makerjs.paths.Arc([0, 50], 50, 90, 270),
      },
    }),
    width: 200,
    height: 200,
    area: 10_000 + 4 * (Math.PI * 1250),
    holes: 0,
  },
};

/** Units that the writer knows, their names in its own words, and mm to each. */
const UNITS = [
  ["mm", makerjs.unitType.Millimeter, 1],
  ["cm", makerjs.unitType.Centimeter, 10],
  ["in", makerjs.unitType.Inch, 25.4],
  ["m", makerjs.unitType.Meter, 1000],
  ["ft", makerjs.unitType.Foot, 304.8],
] as const;

const shapes = Object.entries(SHAPES);
const near = (value: number, wanted: number, share: number) =>
  expect(Math.abs(value - wanted), `${value} and ${wanted}`).toBeLessThan(Math.max(1e-9, wanted * share));

function held(name: string, text: string, shape: Shape, mm: number): void {
  const read = figuresOf(name, text);
  if (!read.ok) throw new Error(read.why);
  const { figures } = read;
  near(figures.width, shape.width * mm, 2e-5);
  near(figures.height, shape.height * mm, 2e-5);
  near(figures.area, shape.area * mm * mm, 4e-5);
  expect(figures.holes).toHaveLength(shape.holes);
}

describe("DXF by another writer", () => {
  // Each shape in every unit, as loose pieces; then as polylines, and moved, turned and cut into loose pieces in any order.
  const files: [string, Shape, number, string][] = shapes.flatMap(([what, shape]) => {
    const write = (model: makerjs.IModel, options: makerjs.exporter.IDXFRenderOptions = {}) =>
      makerjs.exporter.toDXF(model, options);
    return [
      ...UNITS.map(([unit, , mm]): [string, Shape, number, string] => [
        `${what}, in ${unit}`,
        shape,
        mm,
        write(withUnit(shape.model(), unit)),
      ]),
      [`${what}, as a polyline`, shape, 1, write(withUnit(shape.model(), "mm"), { usePOLYLINE: true })],
    ];
  });

  test.each(files)("%s", (_, shape, mm, text) => held("x.dxf", text, shape, mm));
  test("are forty-eight", () => expect(files).toHaveLength(48));
});

describe("SVG by another writer", () => {
  const files: [string, Shape, number, string][] = shapes.flatMap(([what, shape]) => {
    const write = (options: makerjs.exporter.ISVGRenderOptions) =>
      makerjs.exporter.toSVG(shape.model(), { useSvgPathOnly: false, ...options });
    return [
      ...UNITS.slice(0, 3).map(([unit, type, mm]): [string, Shape, number, string] => [
        `${what}, in ${unit}`,
        shape,
        mm,
        write({ units: type }),
      ]),
      [`${what}, as one path`, shape, 1, write({ useSvgPathOnly: true, units: makerjs.unitType.Millimeter })],
      [`${what}, drawn twice as large`, shape, 2, write({ units: makerjs.unitType.Millimeter, scale: 2 })],
    ];
  });
  // And the knife turned by whole angles before it is written.
  for (const turn of [90, 180, 270])
    files.push([
      `a knife turned by ${turn}`,
      turn === 180 ? SHAPES["a knife of lines"]! : turned(SHAPES["a knife of lines"]!),
      1,
      makerjs.exporter.toSVG(makerjs.model.rotate(SHAPES["a knife of lines"]!.model(), turn), {
        units: makerjs.unitType.Millimeter,
      }),
    ]);

  test.each(files)("%s", (_, shape, mm, text) => held("x.svg", text, shape, mm));
  test("are forty-three", () => expect(files).toHaveLength(43));
});

const turned = ({ width, height, ...rest }: Shape): Shape => ({ ...rest, width: height, height: width });

function withUnit(model: makerjs.IModel, unit: string): makerjs.IModel {
  const words = { mm: "mm", cm: "cm", in: "inch", m: "m", ft: "foot" }[unit]!;
  return { ...model, units: words };
}
