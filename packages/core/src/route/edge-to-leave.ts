import { type Blade, SIDES } from "../blade/schema.ts";
import type { Shop } from "../shop/schema.ts";
import { stagesOf } from "./ladder.ts";
import type { Route } from "./schema.ts";
import { placesOf } from "./targets.ts";

/** The most that is left for the oven on one face, mm. */
const MOST = 3;
/** How near is there: of an edge, mm, and of a line, as a share. */
const NEAR = 1e-4;
const MOST_STEPS = 40;

/** What the last stage before hardening leaves at the middle of the blade. */
export interface LeftSoft {
  /** The very edge, mm. */
  readonly edge: number;
  /** How high its grind line stands, as a share of where it ends; null where there is no line. */
  readonly line: number | null;
}

export type Leaving = { ok: true; route: Route } | { ok: false; why: "low" | "high"; nearest: number };

/** What is left soft; null where no bevel is ground soft. */
export function leftSoft(blade: Blade, route: Route, shop: Shop): LeftSoft | null {
  const harden = route.stages.findIndex(({ kind }) => kind === "harden");
  const stage = stagesOf(blade, route, shop).stages.findLast(
    ({ kind, isBevelled }, i) => isBevelled && kind === "rough" && (harden < 0 || i < harden),
  );
  if (!stage) return null;
  const { u } = placesOf(stage.finished)[1]!;
  const [now, last] = [stage.steel.station(u), stage.finished.station(u)];
  const side = SIDES.find((one) => last[one].grindLine !== null && now[one].grindLine !== null);
  return { edge: now.edge, line: side ? now[side].grindLine! / last[side].grindLine! : null };
}

/** Edge left for the oven on a usual field knife, mm. Source: common practice, 0.050 in. */
const USUAL_FOR_OVEN = 1.27;

/** The edge that a route leaves for the oven at the middle of the blade, mm, to a hundredth; a usual one where it leaves none. */
export function edgeForOven(blade: Blade, route: Route, shop: Shop): number {
  const left = route.stages.length > 0 ? leftSoft(blade, route, shop) : null;
  return left ? Math.round(100 * left.edge) / 100 : USUAL_FOR_OVEN;
}

/** The route whose rough bevels leave an edge of so much at the middle of the blade, mm. */
export function leavingEdge(blade: Blade, route: Route, shop: Shop, edge: number): Leaving {
  return leaving(route, edge, (one) => leftSoft(blade, one, shop)?.edge ?? 0);
}

/** The route whose rough bevels reach so much of the grind line's height at the middle of the blade, 0…1. */
export function leavingLine(blade: Blade, route: Route, shop: Shop, share: number): Leaving {
  return leaving(route, share, (one) => leftSoft(blade, one, shop)?.line ?? 0);
}

/**
 * What is left for the oven is sought between nothing and all there is, as what is wanted rises or falls with it. Refused with the
 * nearest where even nothing, or all there is, leaves another.
 */
function leaving(route: Route, wanted: number, of: (route: Route) => number): Leaving {
  const at = (oven: number) => of({ ...route, oven });
  let [low, high] = [0, MOST];
  let [first, last] = [at(low), at(high)];
  const [least, most] = first < last ? [first, last] : [last, first];
  if (wanted < least - NEAR) return { ok: false, why: "low", nearest: least };
  if (wanted > most + NEAR) return { ok: false, why: "high", nearest: most };
  // It changes very nearly evenly, so the straight line through both ends finds it; halving where it does not.
  let oven = low;
  for (let step = 0; step < MOST_STEPS; step++) {
    const share = step % 2 === 0 && last !== first ? (wanted - first) / (last - first) : 0.5;
    oven = low + share * (high - low);
    const now = at(oven);
    if (Math.abs(now - wanted) < NEAR / 10) break;
    if (now < wanted === first < last) [low, first] = [oven, now];
    else [high, last] = [oven, now];
  }
  return { ok: true, route: { ...route, oven: Math.round(oven * 1e6) / 1e6 } };
}
