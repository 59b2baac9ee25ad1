import { compileField } from "@true-spine/core/blade/field.ts";
import { massOf, solidBetween } from "@true-spine/core/blade/mass.ts";
import { meshOf } from "@true-spine/core/blade/mesh.ts";
import { compileRing, ringPoints } from "@true-spine/core/blade/outline.ts";
import { parseBlade } from "@true-spine/core/blade/parse.ts";
import { stationAt } from "@true-spine/core/blade/station.ts";
import DxfParser, { type ICircleEntity, type ILwpolylineEntity } from "dxf-parser";
import { XMLParser, XMLValidator } from "fast-xml-parser";
import { strFromU8, unzipSync } from "fflate";
import papaparse from "papaparse";
import { svgPathProperties } from "svg-path-properties";
import { describe, expect, test } from "vitest";
import { drawingOf } from "../src/drawing.ts";
import { writeDxf } from "../src/write-dxf.ts";
import { write3mf, writeStl } from "../src/write-solids.ts";
import { writeStations } from "../src/write-stations.ts";
import { writeSvg } from "../src/write-svg.ts";
import { FIELD, KINDS } from "./blades.ts";

type Points = readonly (readonly [number, number])[];
/** Area within a closed run of points, mm²: the shoelace formula. */
const areaOf = (points: Points) =>
  Math.abs(
    points.reduce((sum, [x, y], i) => {
      const [nx, ny] = points[(i + 1) % points.length]!;
      return sum + x * ny - nx * y;
    }, 0) / 2,
  );
const modelArea = (blade: typeof FIELD) => areaOf(ringPoints(compileRing(blade.outline)));

describe.each([["field", FIELD] as const, ...KINDS])(
  "%s, written and read back by other readers",
  (_, blade) => {
    test("DXF: millimetres, named layers, the outline closed and as large as the model, holes where they are", () => {
      const dxf = new DxfParser().parseSync(writeDxf(drawingOf(blade)))!;
      expect(dxf.header.$INSUNITS).toBe(4);
      const outline = dxf.entities.filter((entity) => entity.layer === "OUTLINE") as ILwpolylineEntity[];
      expect(outline).toHaveLength(1);
      expect(outline[0]!.shape).toBe(true);
      const points = outline[0]!.vertices.map(({ x, y }) => [x, y] as const);
      expect(areaOf(points) / modelArea(blade)).toBeCloseTo(1, 3);
      const holes = dxf.entities.filter((entity) => entity.layer === "HOLES") as ICircleEntity[];
      expect(holes.map(({ center, radius }) => ({ x: center.x, y: center.y, d: 2 * radius }))).toEqual(
        blade.holes ?? [],
      );
    });

    test("SVG: true millimetres, and the outline runs as long and as wide as the model's", () => {
      const text = writeSvg(drawingOf(blade));
      expect(XMLValidator.validate(text)).toBe(true);
      const { svg } = new XMLParser({ ignoreAttributes: false }).parse(text);
      const [, , width, height] = svg["@_viewBox"].split(" ").map(Number);
      expect([svg["@_width"], svg["@_height"]]).toEqual([`${width}mm`, `${height}mm`]);
      const groups = [svg.g].flat();
      const outline = new svgPathProperties(groups.find((g) => g["@_id"] === "OUTLINE").path["@_d"]);
      const { spine, edge, tang, left, right } = compileRing(blade.outline);
      expect(outline.getTotalLength()).toBeCloseTo(spine.length + edge.length + tang.length, 0);
      expect(width - 10).toBeCloseTo(right - left, 3);
      const around = Array.from({ length: 4000 }, (_, i) => {
        const { x, y } = outline.getPointAtLength((i / 4000) * outline.getTotalLength());
        return [x, -y] as const;
      });
      expect(areaOf(around) / modelArea(blade)).toBeCloseTo(1, 3);
    });
  },
);

test("layers hold lines for a side that is ground, and none for one that is not", () => {
  const chisel = KINDS.find(([name]) => name === "chisel-slicer")![1];
  const names = drawingOf(chisel).layers.map((layer) => layer.name);
  expect(names).toContain("GRIND_RIGHT");
  expect(names).not.toContain("PLUNGE_LEFT");
});

test("a name cannot break out of a file", () => {
  const svg = writeSvg(drawingOf({ ...FIELD, name: `<script>alert("x")</script> & more` }));
  expect(XMLValidator.validate(svg)).toBe(true);
  expect(svg).not.toContain("<script");
});

test("CSV: one line a station, the figures the stations have", () => {
  const { data, errors } = papaparse.parse<Record<string, string>>(writeStations(FIELD), {
    header: true,
    skipEmptyLines: true,
  });
  expect(errors).toEqual([]);
  expect(data).toHaveLength(19);
  const middle = stationAt(compileField(FIELD), 0.5);
  const row = data.find(({ u }) => u === "0.5")!;
  expect(Number(row["behind the edge (mm)"])).toBeCloseTo(middle.behind!, 4);
  expect(Number(row["grind line right (mm)"])).toBeCloseTo(middle.right.grindLine!, 4);
});

describe("solids", () => {
  const field = compileField(FIELD);
  const mesh = meshOf(field, { tolerance: 0.1 });
  const { volume } = solidBetween(field);
  /** Volume of a closed mesh, mm³: the sum of its tetrahedra about the origin. */
  const volumeOf = (corner: (triangle: number, k: number) => number[], count: number) => {
    let six = 0;
    for (let i = 0; i < count; i++) {
      const [a, b, c] = [corner(i, 0), corner(i, 1), corner(i, 2)] as [number[], number[], number[]];
      six +=
        a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) -
        a[1]! * (b[0]! * c[2]! - b[2]! * c[0]!) +
        a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!);
    }
    return six / 6;
  };

  test("STL holds the blade's volume, and outward normals of one", () => {
    const bytes = writeStl(mesh, "Fen hook ☂");
    const view = new DataView(bytes.buffer);
    const count = view.getUint32(80, true);
    expect(bytes).toHaveLength(84 + 50 * count);
    const floats = (at: number) => [0, 1, 2].map((k) => view.getFloat32(at + 4 * k, true));
    const read = volumeOf((i, k) => floats(84 + 50 * i + 12 + 12 * k), count);
    expect(read / volume).toBeCloseTo(1, 2);
    for (let i = 0; i < count; i += 97) expect(Math.hypot(...floats(84 + 50 * i))).toBeCloseTo(1, 5);
  });

  test("3MF is a package whose model, in millimetres, holds the blade's volume", () => {
    const files = unzipSync(write3mf(mesh, "Fen & hook"));
    expect(Object.keys(files).sort()).toEqual(["3D/3dmodel.model", "[Content_Types].xml", "_rels/.rels"]);
    const text = strFromU8(files["3D/3dmodel.model"]!);
    expect(XMLValidator.validate(text)).toBe(true);
    const { model } = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: "" }).parse(text);
    expect(model.unit).toBe("millimeter");
    const { vertices, triangles } = model.resources.object.mesh;
    const at = (index: string) => {
      const { x, y, z } = vertices.vertex[Number(index)];
      return [Number(x), Number(y), Number(z)];
    };
    const read = volumeOf((i, k) => at(triangles.triangle[i][`v${k + 1}`]), triangles.triangle.length);
    expect(read / volume).toBeCloseTo(1, 2);
  });
});

test("the blade file is its own format: written, it reads back the same", () => {
  const parsed = parseBlade(JSON.parse(JSON.stringify(FIELD)));
  expect(parsed.ok && parsed.blade).toEqual(FIELD);
  expect(massOf(solidBetween(compileField(FIELD)).volume, 7.85)).toBeCloseTo(129.03, 1);
});
