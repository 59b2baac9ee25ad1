import { DxfWriter, point3d, Units } from "@tarikjabiri/dxf";
import { placeAt } from "@true-spine/core/blade/chain.ts";
import { compileField, type Field, thicknessAt } from "@true-spine/core/blade/field.ts";
import { spansAt } from "@true-spine/core/blade/outline.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Point } from "./drawing.ts";

/** A flat gauge, mm: its outline, and what is marked on it, line by line from its upper left corner. */
export interface Gauge {
  readonly outline: readonly Point[];
  readonly marks: readonly string[];
}

/** Steel left round a notch, mm: what a laser or a printer can hold. */
const MARGIN = 12;
/** How deep a section gauge takes the blade, mm at most: past that a hand cannot keep it square. */
const DEEPEST = 25;
const STEP = 0.25;
const LETTERS = 2.5;

/**
 * A section gauge at x: slipped over the edge it lies along both faces where the blade is right. The notch is the
 * finished section square to the datum, edge down. Null where there is no steel at x.
 */
export function sectionGauge(field: Field, x: number): Gauge | null {
  const [span] = spansAt(field.ring, x);
  if (!span) return null;
  const [low, high] = span;
  const deep = Math.min(DEEPEST, 0.8 * (high - low));
  const right: Point[] = [];
  const left: Point[] = [];
  for (let h = 0; h <= deep + 1e-9; h += STEP) {
    field.sampleAt(x, low + Math.max(h, 1e-6));
    right.push([field.right.lowest, h]);
    left.push([-field.left.lowest, h]);
  }
  const wide = Math.max(...right.map((p) => p[0])) + MARGIN;
  const wideLeft = Math.min(...left.map((p) => p[0])) - MARGIN;
  const top = right[right.length - 1]![1];
  const outline: Point[] = [
    [wideLeft, top],
    ...left.reverse(),
    ...right,
    [wide, top],
    [wide, -MARGIN],
    [wideLeft, -MARGIN],
  ];
  const thick = thicknessAt(field, x, low + Math.min(10, deep));
  const marks = [
    field.blade.name,
    `section at ${x.toFixed(1)}`,
    `${Math.min(10, deep).toFixed(0)} up: ${thick.toFixed(2)}`,
  ];
  return { outline, marks };
}

/** A feeler plate with two slots: one that must go over the edge to the shoulder, and one that must not. mm. */
export function edgeGauge(name: string, least: number, most: number): Gauge {
  const deep = 6;
  const slot = (x: number, width: number): Point[] => [
    [x - width / 2, deep],
    [x - width / 2, 0],
    [x + width / 2, 0],
    [x + width / 2, deep],
  ];
  const outline: Point[] = [
    [0, deep],
    ...slot(12, most),
    ...slot(30, least),
    [42, deep],
    [42, -14],
    [0, -14],
  ];
  return { outline, marks: [name, `goes ${most.toFixed(2)}   stays out ${least.toFixed(2)}`] };
}

/** Shares of the edge at which section gauges are made. */
const PLACES = [0.15, 0.4, 0.65, 0.85] as const;

/** Gauges for a blade: sections along its edge, and an edge gauge where its thickness behind the edge has bounds. */
export function gaugesOf(blade: Blade, behind: readonly [number, number] | null): Gauge[] {
  const field = compileField(blade);
  const sections = PLACES.flatMap((u) => {
    const { x } = placeAt(field.edge, u * field.edge.length);
    const gauge = sectionGauge(field, Math.round(x * 2) / 2);
    return gauge ? [gauge] : [];
  });
  const isBounded = behind !== null && behind[0] > 0.05 && Number.isFinite(behind[1]);
  return [
    ...sections,
    ...(isBounded ? [edgeGauge(`${blade.name}, behind the edge`, behind[0], behind[1])] : []),
  ];
}

/** Gauges side by side on one sheet as DXF: cut lines and marks on layers of their own, mm. */
export function writeGauges(gauges: readonly Gauge[]): string {
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
      dxf.addText(point3d(at + 1.5, -3.5 - i * (LETTERS + 0.9), 0), LETTERS, mark);
    }
    at += right - left + 6;
  }
  return dxf.stringify();
}
