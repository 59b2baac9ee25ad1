import { depthAfter, planSequence } from "../abrasive/sequence.ts";
import type { Side } from "../blade/schema.ts";
import type { Shop } from "../shop/schema.ts";
import type { Route, Stage, StageKind } from "./schema.ts";
import { workedOn } from "./stages.ts";

/** What is taken off a face and off a flat, mm a side; off one side's face alone where that was said. */
export interface Takes {
  readonly faces: number;
  readonly flats: number;
  readonly side?: Side | undefined;
}

/** The same by kinds of stages. */
export type Taking = Partial<Record<StageKind, Takes>>;

const NOTHING: Takes = { faces: 0, flats: 0 };

/** What a stage of a route takes: what was said, else what its kind needs, which the last of a kind sees to. */
export function takesOf(stages: readonly Stage[], i: number, taking: Taking): Takes {
  const stage = stages[i]!;
  const { takes, kind, side } = stage;
  const on = workedOn(stage);
  if (takes !== undefined && (on === "flats" || on === "bevels"))
    return on === "flats" ? { faces: 0, flats: takes } : { faces: takes, flats: 0, side };
  const isLast = !stages.slice(i + 1).some((one) => one.kind === kind);
  return (isLast && taking[kind]) || NOTHING;
}

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
