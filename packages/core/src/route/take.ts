import { isBelt } from "../abrasive/schema.ts";
import { depthAfter, planSequence } from "../abrasive/sequence.ts";
import type { Side } from "../blade/schema.ts";
import type { Shop } from "../shop/schema.ts";
import { type Areas, areaOn } from "./areas.ts";
import type { Route, Stage, StageKind, WhichEdge } from "./schema.ts";
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

/** Whether a stage works on one of a blade's edges. */
export function isOnEdge({ edge }: Pick<Stage, "edge">, which: WhichEdge): boolean {
  return edge === undefined || edge === which;
}

/**
 * What a stage of a route takes along one edge: what was said, else what its kind needs, which the last of a kind on that edge sees
 * to.
 */
export function takesOf(
  stages: readonly Stage[],
  i: number,
  taking: Taking,
  which: WhichEdge = "first",
): Takes {
  const stage = stages[i]!;
  if (!isOnEdge(stage, which)) return NOTHING;
  const { takes, kind, side } = stage;
  const on = workedOn(stage);
  if (takes !== undefined && (on === "flats" || on === "bevels"))
    return on === "flats" ? { faces: 0, flats: takes } : { faces: takes, flats: 0, side };
  const isLast = !stages.slice(i + 1).some((one) => one.kind === kind && isOnEdge(one, which));
  return (isLast && taking[kind]) || NOTHING;
}

/** What every stage of a route takes, from what was chosen and from the surfaces' areas. */
export function takingOf(route: Route, shop: Shop, area: Areas): Taking {
  const { oven, skin, coarse, finish } = route;
  const share = shop.scratchShare;
  return {
    true: { faces: 0, flats: skin + finerDepth(shop, area.flats, coarse, finish.flats) },
    finish: { faces: oven + skin, flats: 0 },
    grits: { faces: finerDepth(shop, areaOn(area, "bevels"), coarse, finish.bevels), flats: 0 },
    hand: { faces: depthAfter(finish.bevels, share), flats: depthAfter(finish.flats, share) },
  };
}

/** What the belts after a coarse one take to a finish, mm: by the cheapest sequence on hand, else by halving each time. */
function finerDepth(shop: Shop, area: number, from: number, to: number): number {
  if (to >= from) return 0;
  const planned = planSequence(shop.abrasives.filter(isBelt), {
    ...ratesOf(shop),
    area,
    from,
    to,
    depth: null,
  });
  if (planned.ok) return planned.sequence.depth;
  let depth = 0;
  for (let size = from; size > to; size /= 2) depth += depthAfter(size, shop.scratchShare);
  return depth;
}

/** The shop's own rates, as a sequence of belts is planned by. */
export function ratesOf({ hourly, largestStep, scratchShare }: Shop) {
  return { hourly, largestStep, scratchShare };
}
