import type { Blade } from "../blade/schema.ts";
import { purposeOf } from "../findings/purposes.ts";

/** What a first blade is drawn from. Lengths mm: length 40…400, height at the heel 8…90, handle 60…180. */
export interface StartingPoint {
  readonly name: string;
  readonly use: string;
  readonly length: number;
  readonly height: number;
  readonly handle: number;
  readonly stock: number;
}

/** Sizes to start from for a purpose. Source: common practice, and starting values of our own. */
export const STARTING_SIZES: Readonly<Record<string, { length: number; height: number; stock: number }>> = {
  slicer: { length: 240, height: 36, stock: 2 },
  kitchen: { length: 180, height: 44, stock: 2.2 },
  pocket: { length: 80, height: 22, stock: 2.5 },
  carving: { length: 90, height: 20, stock: 3.2 },
  field: { length: 120, height: 30, stock: 3.5 },
  chopper: { length: 230, height: 46, stock: 5 },
  marking: { length: 60, height: 18, stock: 2 },
  display: { length: 180, height: 30, stock: 4 },
};

/**
 * A plain drop point with a full tang, flat ground within its purpose's limits: a blade to start from and
 * change, not a finished design.
 */
export function startingBlade({ name, use, length, height, handle, stock }: StartingPoint): Blade {
  const purpose = purposeOf(use);
  const [thin, thick] = purpose?.behind ?? [0.3, 0.6];
  const [fine, strong] = purpose?.edgeAngle ?? [15, 20];
  const isZeroBevel = thin === 0;
  const behind = isZeroBevel ? 0 : Math.round(((thin + thick) / 2) * 100) / 100;
  const middle = Math.round((fine + strong) / 2);
  const angle = isZeroBevel ? strong : middle;
  const heel = Math.max(4, length * 0.05);
  const drop = height * 0.3;
  const tang = height * 0.8;
  const pin = Math.min(5, Math.floor(tang / 3.2));
  const tip: [number, number] = [length, -drop];
  return {
    format: "true-spine/blade",
    version: 1,
    name,
    outline: {
      spine: [
        { at: [0, 0] },
        { at: [length * 0.5, 0], back: [-length * 0.2, 0], ahead: [length * 0.25, 0] },
        { at: tip, back: [-length * 0.16, drop * 0.9] },
      ],
      edge: [
        { at: [heel, -height] },
        { at: [length * 0.55, -height], back: [-length * 0.2, 0], ahead: [length * 0.22, 0] },
        { at: tip, back: [-length * 0.07, -height * 0.38] },
      ],
      tang: [
        { at: [heel, -height] },
        { at: [heel * 0.5, -tang] },
        { at: [-handle, -tang] },
        { at: [-handle, 0] },
        { at: [0, 0] },
      ],
    },
    thickness: [
      { x: -handle, t: round(stock * 0.75) },
      { x: 0, t: stock },
      { x: heel + 4, t: stock },
      { x: length, t: round(Math.max(stock * 0.45, (purpose?.tip ?? 0.6) * 1.05)) },
    ],
    edge: { behind: [{ u: 0, t: behind }], angle: { left: angle, right: angle }, rightShare: 0.5, offset: 0 },
    bevels: {
      right: {
        kind: "flat",
        pull: "follow",
        ...(isZeroBevel ? { set: "angle", angle: middle } : { set: "full" }),
        plunge: { x: heel + 3, lean: 5, radius: stock },
      },
      left: "same",
    },
    holes: [
      { x: round(-handle * 0.22), y: round(-tang / 2), d: pin },
      { x: round(-handle * 0.8), y: round(-tang / 2), d: pin },
    ],
    use,
    steel: "1084",
  };
}

function round(value: number): number {
  return Math.round(value * 100) / 100;
}
