import { placeAt } from "@true-spine/core/blade/chain.ts";
import { compileField, type Field, thicknessAt } from "@true-spine/core/blade/field.ts";
import { drawnLines } from "@true-spine/core/blade/lines.ts";
import { spansAt } from "@true-spine/core/blade/outline.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Allowance } from "@true-spine/core/blade/side.ts";
import { constant } from "@true-spine/core/blade/table.ts";
import type { Point } from "./drawing.ts";
import type { Gauge } from "./gauge.ts";
import { angleBlocks, plungeGuides, scribeBlock } from "./guides.ts";

/** Steel left round a notch, mm: what a laser or a printer can hold. */
const MARGIN = 12;
/** How deep a section gauge takes the blade, mm at most: past that a hand cannot keep it square. */
const DEEPEST = 25;
const STEP = 0.25;

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

/** What a set of gauges is made for. */
export interface GaugeOrder {
  /** Least and most behind the finished edge, mm; null where nothing is asked. */
  readonly behind: readonly [number, number] | null;
  /** How thick the very edge is left for hardening, mm; null where nothing is left. */
  readonly leave: number | null;
  /** Gap between the two scribed centre lines, mm. */
  readonly gap: number;
}

/** How far an edge may stray from what is wanted before a gauge says so, mm. Source: common practice, rough and fine. */
const STRAY = { rough: 0.1, fine: 0.05 } as const;

/** Gauges for a blade: sections along its edge, the edge at each stage, plunge guides, angle and scribe blocks. */
export function gaugesOf(blade: Blade, { behind, leave, gap }: GaugeOrder): Gauge[] {
  const field = compileField(blade);
  const sections = PLACES.flatMap((u) => {
    const { x } = placeAt(field.edge, u * field.edge.length);
    const gauge = sectionGauge(field, Math.round(x * 2) / 2);
    return gauge ? [gauge] : [];
  });
  const isBounded = behind !== null && behind[0] > 0.05 && Number.isFinite(behind[1]);
  const rough = leave === null ? null : edgeLeft(blade, leave);
  const ground = edgeRange(compileField(blade, leftOn(0)));
  return [
    ...sections,
    ...(rough ? [slots(blade, "edge for hardening", rough, STRAY.rough)] : []),
    ...(ground ? [slots(blade, "edge before sharpening", ground, STRAY.fine)] : []),
    ...(isBounded ? [edgeGauge(`${blade.name}, behind the edge`, behind[0], behind[1])] : []),
    ...plungeGuides(field),
    ...angleBlocks(field),
    scribeBlock(blade, gap),
  ];
}

function slots(blade: Blade, name: string, [least, most]: readonly [number, number], stray: number): Gauge {
  return edgeGauge(`${blade.name}, ${name}`, Math.max(0.05, least - stray), most + stray);
}

const leftOn = (a: number): Allowance => ({
  flats: 0,
  faces: { left: constant(a), right: constant(a) },
  edgeBevel: false,
  falseEdge: false,
});

/** Thinnest and thickest that the very edge reads along its clear length, mm; null where no bevel reaches it. */
function edgeRange(field: Field): readonly [number, number] | null {
  const { stations, clear } = drawnLines(compileField(field.blade));
  const read = stations.flatMap(({ x, y, right, left }, i) =>
    clear[i] && (right.grindLine !== null || left.grindLine !== null) ? [thicknessAt(field, x, y)] : [],
  );
  return read.length > 0 ? [Math.min(...read), Math.max(...read)] : null;
}

/**
 * The range of the edge at the stage that leaves it `leave` mm thick at its thickest; null where it is thicker finished.
 * What is left on the faces is alike all along, so the edge stays as much thinner to the tip as it will be.
 */
export function edgeLeft(blade: Blade, leave: number): readonly [number, number] | null {
  const thickest = (a: number) => edgeRange(compileField(blade, leftOn(a)))?.[1] ?? 0;
  const bare = thickest(0);
  if (bare === 0 || leave <= bare) return null;
  // In proportion on flat faces, nearly so on arcs: a secant or two settles it.
  let [a, there] = [0.25, thickest(0.25)];
  for (let i = 0; i < 4 && Math.abs(there - leave) > 0.001 && there > bare; i++) {
    a *= (leave - bare) / (there - bare);
    there = thickest(a);
  }
  return edgeRange(compileField(blade, leftOn(a)));
}
