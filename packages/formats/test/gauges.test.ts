import { compileField, thicknessAt } from "@true-spine/core/blade/field.ts";
import { spansAt } from "@true-spine/core/blade/outline.ts";
import { stationAt } from "@true-spine/core/blade/station.ts";
import DxfParser, { type ILwpolylineEntity } from "dxf-parser";
import { strFromU8, unzipSync } from "fflate";
import Module from "manifold-3d";
import { describe, expect, test } from "vitest";
import { edgeGauge, edgeLeft, type GaugeOrder, gaugesOf, sectionGauge } from "../src/gauges.ts";
import { angleBlock, plungeGuides, scribeBlock } from "../src/guides.ts";
import { Letters } from "../src/letters.ts";
import { plateOf, writeGaugePlates, writeGauges } from "../src/write-gauges.ts";
import { areaOf } from "./areas.ts";
import { FIELD, FONT, KINDS, SOME_KINDS } from "./blades.ts";

const ORDER: GaugeOrder = { behind: [0.3, 0.5], leave: 1.27, gap: 0.5 };

type Vertex = { x: number; y: number };
/** Where the level y meets a closed outline, from left to right. */
const crossings = (vertices: readonly Vertex[], y: number) =>
  vertices
    .flatMap((a, i) => {
      const b = vertices[(i + 1) % vertices.length]!;
      return a.y > y !== b.y > y ? [a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)] : [];
    })
    .sort((a, b) => a - b);
const readBack = (text: string) => {
  const { entities } = new DxfParser().parseSync(text)!;
  return {
    cuts: entities.filter((entity) => entity.layer === "CUT") as ILwpolylineEntity[],
    marks: entities.filter((entity) => entity.layer === "MARK") as ILwpolylineEntity[],
  };
};

test("marks are letters of the height asked, on the line they were put on", () => {
  const outlines = new Letters([FONT]).outlines("H 8", [10, 5], 2.5);
  // H is one outline, 8 is three: itself and its two holes.
  expect(outlines).toHaveLength(4);
  const box = (points: readonly (readonly [number, number])[], k: 0 | 1) => [
    Math.min(...points.map((p) => p[k])),
    Math.max(...points.map((p) => p[k])),
  ];
  expect(box(outlines[0]!, 1).map((y) => Number(y.toFixed(3)))).toEqual([5, 7.5]);
  expect(box(outlines[0]!, 0)[0]).toBeGreaterThan(10);
  expect(box(outlines[1]!, 0)[0]).toBeGreaterThan(box(outlines[0]!, 0)[1]! + 0.5);
  expect(Math.max(...outlines.slice(1).map(areaOf))).toBeGreaterThan(areaOf(outlines[0]!) * 0.8);
});

describe("gauges, read back by another reader", () => {
  test("a section gauge's notch is as wide, height by height, as the blade is thick there", () => {
    const field = compileField(FIELD);
    const x = 60;
    const gauge = sectionGauge(field, x)!;
    const { cuts } = readBack(writeGauges([gauge], [FONT]));
    const [low] = spansAt(field.ring, x)[0]!;
    for (const height of [1.05, 2.55, 5.05, 10.05, 18.05]) {
      const [, from, to] = crossings(cuts[0]!.vertices, height);
      expect(to! - from!).toBeCloseTo(thicknessAt(field, x, low + height), 2);
    }
    expect(gauge.marks).toContain("section at 60.0");
    expect(gauge.marks).toContain(`10 up: ${thicknessAt(field, x, low + 10).toFixed(2)}`);
  });

  test("an edge gauge has a slot of each bound and steel all round", () => {
    const gauge = edgeGauge("Fen hook", 0.35, 0.65);
    const { cuts } = readBack(writeGauges([gauge], [FONT]));
    const at = crossings(cuts[0]!.vertices, 3);
    expect(at[2]! - at[1]!).toBeCloseTo(0.65, 6);
    expect(at[4]! - at[3]!).toBeCloseTo(0.35, 6);
    expect(gauge.marks.join(" ")).toContain("goes 0.65   stays out 0.35");
  });

  test("kinds of blades get their sets, each gauge closed, marked, and clear of the next", () => {
    for (const [name, blade] of SOME_KINDS) {
      const gauges = gaugesOf(blade, ORDER);
      expect(gauges.length, name).toBeGreaterThanOrEqual(6);
      for (const { marks } of gauges) expect(marks[0]).toContain(blade.name);
      const { cuts, marks } = readBack(writeGauges(gauges, [FONT]));
      // Letters as closed outlines: a reader of the file needs no font, and none of them is cut out of a gauge.
      expect(marks.length).toBeGreaterThanOrEqual(20 * gauges.length);
      expect(marks.every(({ type, shape }) => type === "LWPOLYLINE" && shape)).toBe(true);
      const spans = cuts.map(({ vertices, shape }) => {
        expect(shape).toBe(true);
        const xs = vertices.map((vertex) => vertex.x);
        return [Math.min(...xs), Math.max(...xs)] as const;
      });
      spans.slice(1).forEach(([left], i) => {
        expect(left).toBeGreaterThan(spans[i]![1]);
      });
    }
  });

  test("without bounds there is no gauge behind the edge, and off the blade no section", () => {
    const named = (behind: GaugeOrder["behind"]) =>
      gaugesOf(FIELD, { ...ORDER, behind }).filter(({ marks }) => marks[0]!.includes("behind the edge"));
    expect(named([0.3, 0.5])).toHaveLength(1);
    expect(named(null)).toHaveLength(0);
    expect(named([0, Number.POSITIVE_INFINITY])).toHaveLength(0);
    expect(sectionGauge(compileField(FIELD), 500)).toBeNull();
  });

  test("the edge left for hardening is as thick as was asked, at every kind of blade that has an edge to leave", () => {
    for (const [name, blade] of [["field", FIELD] as const, ...KINDS]) {
      const range = edgeLeft(blade, 1.27);
      if (!range) continue;
      expect(range[1], name).toBeCloseTo(1.27, 2);
      expect(range[0], name).toBeGreaterThan(0.3);
    }
    // A finished edge thicker than that leaves nothing to gauge.
    expect(edgeLeft(FIELD, 0.1)).toBeNull();
  });

  test("the slot for the edge before sharpening agrees with e0 = e(1 - tan b / tan a) at heel and tip", () => {
    // e 0.50 at the heel and 0.40 at the tip, 18 degrees; the bevel's own angle is read from the field.
    const gauge = gaugesOf(FIELD, ORDER).find(({ marks }) => marks[0]!.endsWith("before sharpening"))!;
    const [, goes, out] = /goes ([\d.]+) {3}stays out ([\d.]+)/.exec(gauge.marks[1]!)!;
    const e0 = (u: number) => {
      const { behind, right } = stationAt(compileField(FIELD), u);
      const slope = (degrees: number) => Math.tan((degrees * Math.PI) / 180);
      return behind! * (1 - slope(right.primaryAngle!) / slope(18));
    };
    const ends = [e0(0.15), e0(0.97)];
    expect(Number(goes) - 0.05).toBeCloseTo(Math.max(...ends), 1);
    expect(Number(out) + 0.05).toBeCloseTo(Math.min(...ends), 1);
  });
});

describe("guides and blocks", () => {
  test("a plunge guide's front lies along the plunge, its upper edge along the spine, notched at the junction", () => {
    const field = compileField(FIELD);
    const [guide] = plungeGuides(field);
    const [lower, front] = guide!.outline;
    const lean = (Math.atan2(front![0] - lower![0], front![1] - lower![1]) * 180) / Math.PI;
    expect(lean).toBeCloseTo(10, 6);
    const { x, y } = field.plunges.right!;
    const at = lower![0] + ((y - lower![1]) / (front![1] - lower![1])) * (front![0] - lower![0]);
    expect(at).toBeCloseTo(x, 6);
    expect(guide!.outline.find(([px]) => px === 0)![1]).toBeCloseTo(-2, 6);
    for (const [px, py] of guide!.outline.slice(2, -3).filter(([px]) => px > 2 && px < front![0])) {
      expect(py).toBeCloseTo(Math.max(...spansAt(field.ring, px).flat()), 6);
    }
  });

  test("an angle block climbs by its angle; a scribe block carries the scriber at (T - g)/2", () => {
    const { outline } = angleBlock("Fen hook", 4.5, "a side");
    const [low, , , high] = outline;
    expect((Math.atan2(high![1] - low![1], high![0] - low![0]) * 180) / Math.PI).toBeCloseTo(4.5, 9);
    // Two centre lines 0.48 apart on 4.48 mm stock: the gauge at 2.00 exactly. Source: geometry.
    const stock = structuredClone(FIELD);
    stock.thickness = [{ x: 0, t: 4.48 }];
    const block = scribeBlock(stock, 0.48);
    expect(block.outline[3]).toEqual([26, 2]);
    expect(block.marks[1]).toBe("scribe at 2.00");
  });

  test("a blade of no single angle gets a block for heel, middle and tip", () => {
    const blocks = gaugesOf(FIELD, ORDER).filter(({ marks }) => marks[1]?.startsWith("bevel"));
    expect(blocks.map(({ marks }) => marks[1])).toEqual([
      "bevel a side, heel",
      "bevel a side, middle",
      "bevel a side, tip",
    ]);
  });
});

/** Source: manifold-3d 3.2.1, a general-purpose mesh library: it takes only closed, oriented, manifold meshes. */
describe("gauges as plates to print", () => {
  test("every gauge of these kinds is a closed plate 3 mm thick with the area of its drawing", async () => {
    const library = await Module();
    library.setup();
    for (const [name, blade] of SOME_KINDS) {
      for (const gauge of gaugesOf(blade, ORDER)) {
        const { positions, triangles } = plateOf(gauge);
        const mesh = new library.Mesh({
          numProp: 3,
          vertProperties: Float32Array.from(positions),
          triVerts: triangles,
        });
        const solid = new library.Manifold(mesh);
        const where = `${name}: ${gauge.marks.join(", ")}`;
        expect(solid.status(), where).toBe("NoError");
        expect(solid.volume() / (3 * areaOf(gauge.outline)), where).toBeCloseTo(1, 4);
        solid.delete();
      }
    }
  });

  test("they come as one zip, each named by its mark, with a list of all", () => {
    const gauges = gaugesOf(FIELD, ORDER);
    const files = unzipSync(writeGaugePlates(gauges));
    expect(Object.keys(files)).toHaveLength(gauges.length + 1);
    const list = strFromU8(files["gauges.txt"]!).trim().split("\n");
    expect(list).toHaveLength(gauges.length);
    expect(list[0]).toMatch(/^01 section at .*stl: .*, section at /);
    for (const [name, bytes] of Object.entries(files)) {
      if (!name.endsWith(".stl")) continue;
      const count = new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true);
      expect(bytes.length).toBe(84 + 50 * count);
    }
  });
});
