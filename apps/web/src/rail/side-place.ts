import { type Ring, spansAt } from "@true-spine/core/blade/outline.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { useMemo } from "react";
import { fieldOf } from "../blade/derived.ts";
import { useStill } from "../blade/screen.ts";
import type { Scale } from "./scale.ts";

/** Where a side view draws: the rail's scale across, and the pixel row of the spine datum. */
export interface SidePlace {
  readonly scale: Scale;
  readonly datum: number;
  px(x: number): number;
  py(y: number): number;
}

/** Pixel row of the datum: the whole blade in the middle of what is left below `top`, or, looked at closely, the steel that is in view above its edge. */
function datumRow(ring: Ring, scale: Scale, height: number, top: number): number {
  const tall = (ring.top - ring.bottom) * scale.perMm;
  if (tall < height) {
    const middle = (height - 12 + Math.min(top, height - 12 - tall)) / 2;
    return middle + ((ring.top + ring.bottom) / 2) * scale.perMm;
  }
  const [low = ring.bottom, high = ring.top] = spansAt(ring, (scale.from + scale.to) / 2)[0] ?? [];
  const isTaller = (high - low) * scale.perMm > height * 0.8;
  return isTaller ? height * 0.78 + low * scale.perMm : height / 2 - 6 + ((low + high) / 2) * scale.perMm;
}

/** Whether steel is out of sight above or below that could be seen. */
function isOut(ring: Ring, { perMm }: Scale, height: number, datum: number): boolean {
  const isAllSeen = (ring.top - ring.bottom) * perMm < height;
  return isAllSeen && (datum < ring.top * perMm || datum - ring.bottom * perMm > height);
}

/** The same object while it is the same place: what stands still is then not drawn again. */
export function useSidePlace(file: Blade, scale: Scale, height: number, top = 0): SidePlace {
  const { ring } = fieldOf(file);
  const now = { datum: datumRow(ring, scale, height, top), scale, height };
  const { datum } = useStill(
    now,
    (still) => still.scale !== scale || still.height !== height || isOut(ring, scale, height, still.datum),
  );
  return useMemo(() => ({ scale, datum, px: scale.px, py: (y) => datum - y * scale.perMm }), [scale, datum]);
}
