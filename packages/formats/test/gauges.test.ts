import { compileField, thicknessAt } from "@true-spine/core/blade/field.ts";
import { spansAt } from "@true-spine/core/blade/outline.ts";
import DxfParser, { type ILwpolylineEntity, type ITextEntity } from "dxf-parser";
import { describe, expect, test } from "vitest";
import { edgeGauge, gaugesOf, sectionGauge, writeGauges } from "../src/gauges.ts";
import { FIELD, KINDS } from "./blades.ts";

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
    marks: (entities.filter((entity) => entity.layer === "MARK") as ITextEntity[]).map((mark) => mark.text),
  };
};

describe("gauges, read back by another reader", () => {
  test("a section gauge's notch is as wide, height by height, as the blade is thick there", () => {
    const field = compileField(FIELD);
    const x = 60;
    const { cuts, marks } = readBack(writeGauges([sectionGauge(field, x)!]));
    const [low] = spansAt(field.ring, x)[0]!;
    for (const height of [1.05, 2.55, 5.05, 10.05, 18.05]) {
      const [, from, to] = crossings(cuts[0]!.vertices, height);
      expect(to! - from!).toBeCloseTo(thicknessAt(field, x, low + height), 2);
    }
    expect(marks).toContain("section at 60.0");
    expect(marks).toContain(`10 up: ${thicknessAt(field, x, low + 10).toFixed(2)}`);
  });

  test("an edge gauge has a slot of each bound and steel all round", () => {
    const { cuts, marks } = readBack(writeGauges([edgeGauge("Fen hook", 0.35, 0.65)]));
    const at = crossings(cuts[0]!.vertices, 3);
    expect(at[2]! - at[1]!).toBeCloseTo(0.65, 6);
    expect(at[4]! - at[3]!).toBeCloseTo(0.35, 6);
    expect(marks.join(" ")).toContain("goes 0.65   stays out 0.35");
  });

  test("every kind of blade gets its set, each gauge closed, marked, and clear of the next", () => {
    for (const [name, blade] of KINDS) {
      const gauges = gaugesOf(blade, [0.3, 0.5]);
      expect(gauges.length, name).toBe(5);
      const { cuts, marks } = readBack(writeGauges(gauges));
      expect(marks.length).toBeGreaterThanOrEqual(2 * gauges.length);
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

  test("without bounds there is no edge gauge, and off the blade no section", () => {
    expect(gaugesOf(FIELD, null)).toHaveLength(4);
    expect(gaugesOf(FIELD, [0, Number.POSITIVE_INFINITY])).toHaveLength(4);
    expect(sectionGauge(compileField(FIELD), 500)).toBeNull();
  });
});
