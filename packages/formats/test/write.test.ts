import { compileField } from "@true-spine/core/blade/field.ts";
import { massOf, solidBetween } from "@true-spine/core/blade/mass.ts";
import { meshOf } from "@true-spine/core/blade/mesh.ts";
import { compileRing, ringPoints } from "@true-spine/core/blade/outline.ts";
import { parseBlade } from "@true-spine/core/blade/parse.ts";
import { stationAt } from "@true-spine/core/blade/station.ts";
import DxfParser, {
  type ICircleEntity,
  type ILineEntity,
  type ILwpolylineEntity,
  type ISplineEntity,
} from "dxf-parser";
import { XMLParser, XMLValidator } from "fast-xml-parser";
import { strFromU8, unzipSync } from "fflate";
import papaparse from "papaparse";
import { svgPathProperties } from "svg-path-properties";
import { describe, expect, test } from "vitest";
import { drawingOf, flattened, outlinePath } from "../src/drawing.ts";
import { writeDxf } from "../src/write-dxf.ts";
import { write3mf, writeStl } from "../src/write-solids.ts";
import { writeStations } from "../src/write-stations.ts";
import { writeSvg } from "../src/write-svg.ts";
import { areaOf } from "./areas.ts";
import { FIELD, KINDS, SOME_KINDS } from "./blades.ts";

const modelArea = (blade: typeof FIELD) => areaOf(ringPoints(compileRing(blade.outline)));

/** A place on a spline. Source: de Boor's rule. */
function onSpline(
  points: readonly { x: number; y: number }[],
  knots: readonly number[],
  t: number,
): readonly [number, number] {
  let k = 3;
  while (k < points.length - 1 && knots[k + 1]! <= t) k++;
  const d = [0, 1, 2, 3].map((i) => points[k - 3 + i]!);
  for (let r = 1; r <= 3; r++) {
    for (let i = 3; i >= r; i--) {
      const from = knots[k - 3 + i]!;
      const a = (t - from) / (knots[i + 1 + k - r]! - from);
      d[i] = { x: (1 - a) * d[i - 1]!.x + a * d[i]!.x, y: (1 - a) * d[i - 1]!.y + a * d[i]!.y };
    }
  }
  return [d[3]!.x, d[3]!.y];
}

describe.each([["field", FIELD] as const, ...KINDS])(
  "%s, written and read back by other readers",
  (_, blade) => {
    test("DXF: millimetres, named layers, the outline closed and as large as the model, holes where they are", () => {
      const dxf = new DxfParser().parseSync(writeDxf(drawingOf(blade), { curves: "polylines" }))!;
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

    test("DXF of splines: end to end round the blade, the model's own curves to a ten-thousandth, and how far it all reaches", () => {
      const dxf = new DxfParser().parseSync(writeDxf(drawingOf(blade), { curves: "splines" }))!;
      const ring = compileRing(blade.outline);
      expect(dxf.header.$EXTMIN).toMatchObject({ x: ring.left, y: expect.any(Number) });
      expect((dxf.header.$EXTMAX as { x: number }).x).toBeCloseTo(ring.right, 2);
      const { spine, edge, tang } = blade.outline;
      const nodes = [...spine, ...edge, ...tang].map(({ at }) => at.join(" "));
      const ends: string[] = [];
      const around: (readonly [number, number])[] = [];
      for (const entity of dxf.entities.filter(({ layer }) => layer === "OUTLINE")) {
        if (entity.type === "LINE") {
          const { vertices } = entity as ILineEntity;
          around.push(...vertices.map(({ x, y }) => [x, y] as const));
          ends.push(...vertices.map(({ x, y }) => `${x} ${y}`));
          continue;
        }
        const { controlPoints, knotValues, degreeOfSplineCurve } = entity as ISplineEntity;
        expect(degreeOfSplineCurve).toBe(3);
        expect(knotValues).toHaveLength(controlPoints!.length + 4);
        const points = Array.from({ length: 4000 }, (_, i) =>
          onSpline(controlPoints!, knotValues!, (i / 3999) * knotValues!.at(-1)!),
        );
        around.push(...points);
        ends.push(...[controlPoints![0]!, controlPoints!.at(-1)!].map(({ x, y }) => `${x} ${y}`));
      }
      // Every end is met by another, and is one of the blade's own nodes.
      for (const end of ends) {
        expect(ends.filter((one) => one === end)).toHaveLength(2);
        expect(nodes).toContain(end);
      }
      const drawn = flattened(outlinePath(blade.outline), 1e-5);
      expect(areaOf(around) / areaOf(drawn)).toBeCloseTo(1, 5);
    });

    test("DXF to cut holds what is cut through, and nothing else", () => {
      const dxf = new DxfParser().parseSync(
        writeDxf(drawingOf(blade), { curves: "polylines", isCutOnly: true }),
      )!;
      const layers = new Set(dxf.entities.map(({ layer }) => layer));
      expect([...layers]).toEqual(blade.holes?.length ? ["OUTLINE", "HOLES"] : ["OUTLINE"]);
      expect(Object.keys(dxf.tables.layer.layers)).not.toContain("DATUM");
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

  /** Edges of a list of triangles, each three corners by name, at which not exactly two faces meet, one going each way. */
  const openEdges = (triangles: readonly (readonly string[])[]) => {
    const met = new Map<string, number>();
    for (const [a, b, c] of triangles as readonly (readonly [string, string, string])[])
      for (const [from, to] of [
        [a, b],
        [b, c],
        [c, a],
      ] as const) {
        expect(from).not.toBe(to);
        met.set(`${from}|${to}`, (met.get(`${from}|${to}`) ?? 0) + 1);
      }
    return [...met].filter(
      ([key, times]) => times !== 1 || met.get(key.split("|").reverse().join("|")) !== 1,
    );
  };

  test.each(SOME_KINDS)(
    "%s: as read from its STL and its 3MF, exactly two faces meet at every edge",
    (_, blade) => {
      const own = meshOf(compileField(blade));
      const view = new DataView(writeStl(own, "x").buffer);
      const corner = (at: number) => [0, 4, 8].map((k) => view.getFloat32(at + k, true)).join(" ");
      const ofStl = Array.from({ length: view.getUint32(80, true) }, (_, i) =>
        [12, 24, 36].map((k) => corner(84 + 50 * i + k)),
      );
      expect(openEdges(ofStl)).toEqual([]);
      const text = strFromU8(unzipSync(write3mf(own, "x"))["3D/3dmodel.model"]!);
      const places = [...text.matchAll(/<vertex x="(.*?)" y="(.*?)" z="(.*?)"\/>/g)].map((found) =>
        found.slice(1).join(" "),
      );
      const of3mf = [...text.matchAll(/v1="(\d+)" v2="(\d+)" v3="(\d+)"/g)].map((found) =>
        found.slice(1).map((index) => places[Number(index)]!),
      );
      expect(openEdges(of3mf)).toEqual([]);
    },
  );

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
    // Core specification 1.3, 3.3 and 4.1: three unlike corners that are there, none twice, and a build where all is positive.
    for (const { v1, v2, v3 } of triangles.triangle) {
      expect(new Set([v1, v2, v3]).size).toBe(3);
      for (const index of [v1, v2, v3]) expect(Number(index)).toBeLessThan(vertices.vertex.length);
    }
    const places = vertices.vertex.map(({ x, y, z }: Record<string, string>) => [x, y, z].map(Number));
    expect(new Set(places.map(String)).size).toBe(places.length);
    const transform = model.build.item.transform.split(" ").map(Number);
    expect(transform.slice(0, 9)).toEqual([1, 0, 0, 0, 1, 0, 0, 0, 1]);
    for (const axis of [0, 1, 2])
      expect(
        Math.min(...places.map((place: number[]) => place[axis]! + transform[9 + axis])),
      ).toBeGreaterThanOrEqual(0);
    const read = volumeOf((i, k) => at(triangles.triangle[i][`v${k + 1}`]), triangles.triangle.length);
    expect(read / volume).toBeCloseTo(1, 2);
  });
});

test("the blade file is its own format: written, it reads back the same", () => {
  const parsed = parseBlade(JSON.parse(JSON.stringify(FIELD)));
  expect(parsed.ok && parsed.blade).toEqual(FIELD);
  expect(massOf(solidBetween(compileField(FIELD)).volume, 7.85)).toBeCloseTo(129.03, 1);
});
