import { DxfWriter, Units } from "@tarikjabiri/dxf";
import earcut from "earcut";
import { strToU8, zipSync } from "fflate";
import type { Point } from "./drawing.ts";
import type { Gauge } from "./gauge.ts";
import { Letters } from "./letters.ts";
import { setExtents } from "./write-dxf.ts";
import { type Solid, writeStl } from "./write-solids.ts";

const LETTERS = 2.5;
/** Thickness of a printed gauge, mm: stiff, and narrow enough to read at one place of the edge. */
const PLATE = 3;

/** Gauges side by side on one sheet as DXF: cut lines, and marks as outlines of their letters, on layers of their own, mm. */
export function writeGauges(gauges: readonly Gauge[], fonts: readonly Uint8Array[]): string {
  const letters = new Letters(fonts);
  const reached: Point[] = [];
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  dxf.addLayer("CUT", 7, "Continuous");
  dxf.addLayer("MARK", 1, "Continuous");
  let at = 0;
  for (const { outline, marks } of gauges) {
    const left = Math.min(...outline.map((p) => p[0]));
    const right = Math.max(...outline.map((p) => p[0]));
    const shift = at - left;
    dxf.setCurrentLayerName("CUT");
    dxf.addLWPolyline(
      outline.map(([x, y]) => ({ point: { x: x + shift, y } })),
      { flags: 1 },
    );
    dxf.setCurrentLayerName("MARK");
    for (const [i, mark] of marks.entries()) {
      const place: Point = [at + 1.5, -3.5 - i * (LETTERS + 0.9)];
      for (const outline of letters.outlines(mark, place, LETTERS)) {
        reached.push(...outline);
        dxf.addLWPolyline(
          outline.map(([x, y]) => ({ point: { x, y } })),
          { flags: 1 },
        );
      }
    }
    reached.push(...outline.map(([x, y]): Point => [x + shift, y]));
    at += right - left + 6;
  }
  setExtents(dxf, reached);
  return dxf.stringify();
}

/** A zip of one printable plate (binary STL, mm) for each gauge, named by what is marked on it, and a list of them. */
export function writeGaugePlates(gauges: readonly Gauge[]): Uint8Array {
  const files: Record<string, Uint8Array> = {};
  const list: string[] = [];
  for (const [i, gauge] of gauges.entries()) {
    const name = `${String(i + 1).padStart(2, "0")} ${fileName(gauge.marks.slice(1).join(" ") || gauge.marks[0]!)}.stl`;
    files[name] = writeStl(plateOf(gauge), gauge.marks.join(", "));
    list.push(`${name}: ${gauge.marks.join(", ")}`);
  }
  files["gauges.txt"] = strToU8(`${list.join("\n")}\n`);
  return zipSync(files);
}

/** A gauge as a closed plate, its face in the plane of its drawing. */
export function plateOf(gauge: Gauge): Solid {
  const outline = corners(gauge.outline);
  const count = outline.length;
  const positions = new Float64Array(6 * count);
  for (const [i, [x, y]] of outline.entries()) {
    positions.set([x, y, 0], 3 * i);
    positions.set([x, y, PLATE], 3 * (count + i));
  }
  const face = earcut(outline.flat());
  const isLeft = area(outline) > 0;
  const triangles: number[] = [];
  for (let i = 0; i < face.length; i += 3) {
    const [a, b, c] = ordered(outline, face[i]!, face[i + 1]!, face[i + 2]!);
    triangles.push(a, c, b, a + count, b + count, c + count);
  }
  for (let i = 0; i < count; i++) {
    const next = (i + 1) % count;
    const [a, b] = isLeft ? [i, next] : [next, i];
    triangles.push(a, b, b + count, a, b + count, a + count);
  }
  return { positions, triangles: Uint32Array.from(triangles) };
}

/** Only the points at which an outline turns: those in between would be corners of its sides and not of its face. */
function corners(points: Gauge["outline"]): Gauge["outline"] {
  const kept = points.filter((point, i) => {
    const before = points[(i + points.length - 1) % points.length]!;
    return Math.hypot(point[0] - before[0], point[1] - before[1]) > 1e-7;
  });
  for (;;) {
    const flat = kept.findIndex((q, i) => {
      const p = kept[(i + kept.length - 1) % kept.length]!;
      const r = kept[(i + 1) % kept.length]!;
      return Math.abs((q[0] - p[0]) * (r[1] - q[1]) - (q[1] - p[1]) * (r[0] - q[0])) < 1e-9;
    });
    if (flat < 0) return kept;
    kept.splice(flat, 1);
  }
}

/** A triangle's corners, turning left. */
function ordered(points: Gauge["outline"], a: number, b: number, c: number): [number, number, number] {
  const [p, q, r] = [points[a]!, points[b]!, points[c]!];
  const turn = (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]);
  return turn > 0 ? [a, b, c] : [a, c, b];
}

function area(points: Gauge["outline"]): number {
  return points.reduce((sum, [x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length]!;
    return sum + (x * ny - nx * y) / 2;
  }, 0);
}

function fileName(text: string): string {
  return text
    .replace(/[^\w .,-]+/g, " ")
    .replace(/\s+/g, " ")
    .trim()
    .slice(0, 60);
}
