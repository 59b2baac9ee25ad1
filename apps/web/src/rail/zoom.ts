import type { Ring } from "@true-spine/core/blade/outline.ts";
import type { Scale } from "./scale.ts";

/** What stretch of the blade's length the rail shows, mm. */
export interface View {
  readonly from: number;
  readonly to: number;
}

/** The nearest that can be looked at, mm from side to side. */
const NEAREST = 12;
/** How far behind the junction the blade is shown from, when only the blade is. */
const BEHIND = 14;

/** All there is to show: the blade with a little of its handle, or the whole knife. */
export function fittedView(ring: Ring, fit: "whole" | "blade"): View {
  return { from: fit === "whole" ? ring.left : Math.max(ring.left, -BEHIND), to: ring.right };
}

/** A view drawn nearer by `factor` about a place that stays where it is; null once all of it is shown again. */
export function zoomed(view: View, all: View, about: number, factor: number): View | null {
  const width = Math.max(NEAREST, (view.to - view.from) / factor);
  if (width >= all.to - all.from) return null;
  const share = Math.min(1, Math.max(0, (about - view.from) / (view.to - view.from)));
  return panned({ from: about - share * width, to: about + (1 - share) * width }, all, 0);
}

/** A view moved along by mm, as far as there is something to show. */
export function panned(view: View, all: View, by: number): View {
  const width = view.to - view.from;
  const from = Math.min(all.to - width, Math.max(all.from, view.from + by));
  return { from, to: from + width };
}

/** A view moved along just far enough that a place is in it. */
export function showing(view: View, all: View, x: number): View {
  if (x < view.from) return panned(view, all, x - view.from);
  return x > view.to ? panned(view, all, x - view.to) : view;
}

/** A finger on the rail: where it is, pixels, and the place it took hold of, mm. */
export interface Finger {
  readonly px: number;
  readonly mm: number;
}

/** The view in which each of two fingers lies on the place it took hold of; null once all of it is shown. */
export function pinched(scale: Scale, all: View, one: Finger, two: Finger): View | null {
  const perMm = (two.px - one.px) / (two.mm - one.mm);
  if (!Number.isFinite(perMm) || perMm <= 0) return { from: scale.from, to: scale.to };
  const start = scale.px(scale.from);
  const width = Math.max(NEAREST, (scale.px(scale.to) - start) / perMm);
  if (width >= all.to - all.from) return null;
  const from = one.mm - (one.px - start) / perMm;
  return panned({ from, to: from + width }, all, 0);
}
