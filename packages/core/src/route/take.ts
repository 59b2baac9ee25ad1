import { depthAfter, planSequence } from "../abrasive/sequence.ts";
import type { Shop } from "../shop/schema.ts";
import type { Route, StageKind } from "./schema.ts";

/** What each stage takes off a face and off a flat, mm a side. */
export type Taking = Partial<Record<StageKind, { readonly faces: number; readonly flats: number }>>;

/** What every stage of a route takes, from what was chosen and from areas of bevels and flats, mm². */
export function takingOf(route: Route, shop: Shop, area: { bevels: number; flats: number }): Taking {
  const { oven, skin, coarse, finish } = route;
  const share = shop.scratchShare;
  return {
    true: { faces: 0, flats: skin + finerDepth(shop, area.flats, coarse, finish.flats) },
    finish: { faces: oven + skin, flats: 0 },
    grits: { faces: finerDepth(shop, area.bevels, coarse, finish.bevels), flats: 0 },
    hand: { faces: depthAfter(finish.bevels, share), flats: depthAfter(finish.flats, share) },
  };
}

/** What the belts after a coarse one take to a finish, mm: by the cheapest sequence on hand, else by halving each time. */
function finerDepth(shop: Shop, area: number, from: number, to: number): number {
  if (to >= from) return 0;
  const planned = planSequence(shop.abrasives, { ...ratesOf(shop), area, from, to, depth: null });
  if (planned.ok) return planned.sequence.depth;
  let depth = 0;
  for (let size = from; size > to; size /= 2) depth += depthAfter(size, shop.scratchShare);
  return depth;
}

/** The shop's own rates, as a sequence of belts is planned by. */
export function ratesOf({ hourly, largestStep, scratchShare }: Shop) {
  return { hourly, largestStep, scratchShare };
}
