import { compose, type Matrix, scale, translate } from "transformation-matrix";
import type { Attributes } from "./svg-tree.ts";

/** Millimetres to each unit of length that SVG names. Source: CSS Values, absolute lengths. */
const MM_IN: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  in: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
  q: 0.25,
};

/** How wide and tall a view is within, in its user units. */
export type View = readonly [wide: number, tall: number];

/**
 * Millimetres to a user unit, where width or height and viewBox tell it, and how much taller a unit is than it is wide: only where the page is said to
 * be filled without keeping its shape. Source: SVG 2, 8.6 and 8.7.
 */
export function pageOf({ width, height, viewBox, preserveAspectRatio = "" }: Attributes) {
  const box = boxOf(viewBox);
  const across = lengthInMm(width);
  const up = lengthInMm(height);
  if (!box) {
    // Without a viewBox a user unit is a pixel, and absolute widths say so. Source: CSS Values, 96 px to the inch.
    return { mmPerUnit: across !== null || up !== null ? 25.4 / 96 : null, tall: 1 };
  }
  const x = across !== null && box[2]! > 0 ? across / box[2]! : null;
  const y = up !== null && box[3]! > 0 ? up / box[3]! : null;
  if (x === null || y === null) return { mmPerUnit: x ?? y, tall: 1 };
  const [wide, high] = kept(x, y, preserveAspectRatio);
  return { mmPerUnit: wide, tall: high / wide };
}

/** The four numbers of a viewBox; null where they are not that. */
function boxOf(viewBox: string | undefined): readonly [number, number, number, number] | null {
  const box = (viewBox ?? "")
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  return box.length === 4 && box.every(Number.isFinite) ? (box as [number, number, number, number]) : null;
}

/** How wide and tall a view is within, user units: what shares in percent are of. Source: SVG 2, 8.9. */
export function viewOf({ viewBox, width, height }: Attributes, around: View = [0, 0]): View {
  const box = boxOf(viewBox);
  return box
    ? [box[2], box[3]]
    : [lengthOf(width ?? "100%", around[0]), lengthOf(height ?? "100%", around[1])];
}

function lengthInMm(text: string | undefined): number | null {
  const match = /^\s*([+-]?[\d.]+(?:e[+-]?\d+)?)\s*([a-z]+)\s*$/i.exec(text ?? "");
  const unit = MM_IN[match?.[2]?.toLowerCase() ?? ""];
  const value = Number(match?.[1]);
  return unit !== undefined && Number.isFinite(value) && value > 0 ? value * unit : null;
}

/** An svg within an svg has a view of its own, in the middle of its place unless it says otherwise. Source: SVG 2, 8.6 and 8.7. */
export function innerViewport(attributes: Attributes, [wide, tall]: View): Matrix {
  const { viewBox, x, y, width = "100%", height = "100%", preserveAspectRatio = "" } = attributes;
  const box = boxOf(viewBox);
  const [w, h] = [lengthOf(width, wide), lengthOf(height, tall)];
  const at = translate(lengthOf(x, wide), lengthOf(y, tall));
  if (!box || !(w > 0 && h > 0 && box[2] > 0 && box[3] > 0)) return at;
  const [across, up] = kept(w / box[2], h / box[3], preserveAspectRatio);
  const share = (side: "x" | "Y") =>
    SHARES[new RegExp(`${side}(Min|Max)`).exec(preserveAspectRatio)?.[1] ?? "Mid"]!;
  const [left, top] = [share("x") * (w - box[2] * across), share("Y") * (h - box[3] * up)];
  return compose(at, translate(left, top), scale(across, up), translate(-box[0], -box[1]));
}

/** Which share of the room that is left is put before a view. */
const SHARES: Readonly<Record<string, number>> = { Min: 0, Mid: 0.5, Max: 1 };

/** How much larger a view is drawn across and up that would fill its place by these: alike, unless it need not keep its shape. */
function kept(across: number, up: number, preserveAspectRatio: string): readonly [number, number] {
  if (/\bnone\b/.test(preserveAspectRatio)) return [across, up];
  const both = /\bslice\b/.test(preserveAspectRatio) ? Math.max(across, up) : Math.min(across, up);
  return [both, both];
}

/** A length in user units; absolute units are so many pixels, and shares in percent are of a whole. Source: CSS Values, 96 px to the inch. */
export function lengthOf(text: string | undefined, whole: number): number {
  const value = Number.parseFloat(text ?? "");
  if (!Number.isFinite(value)) return 0;
  const unit = /([a-z]+|%)\s*$/i
    .exec(text ?? "")?.[0]
    .trim()
    .toLowerCase();
  if (unit === "%") return (value / 100) * whole;
  const mm = unit && unit !== "px" ? MM_IN[unit] : undefined;
  return mm === undefined ? value : (value * mm * 96) / 25.4;
}
