import type { Blade } from "../blade/schema.ts";
import type { Shop } from "../shop/schema.ts";
import { stagesOf } from "./ladder.ts";
import type { Route } from "./schema.ts";
import { placesOf } from "./targets.ts";

/** The most that is left for the oven on one face, mm. */
const MOST = 3;
const NEAR = 1e-4;
const MOST_STEPS = 40;

export type EdgeToLeave = { ok: true; route: Route } | { ok: false; why: "thin" | "thick"; nearest: number };

/** The very edge that the last stage before hardening leaves at the middle of the blade, mm; null where none is ground soft. */
export function edgeLeft(blade: Blade, route: Route, shop: Shop): number | null {
  const harden = route.stages.findIndex(({ kind }) => kind === "harden");
  const stage = stagesOf(blade, route, shop).stages.findLast(
    ({ kind, isBevelled }, i) => isBevelled && kind === "rough" && (harden < 0 || i < harden),
  );
  return stage ? stage.steel.station(placesOf(stage.finished)[1]!.u).edge : null;
}

/**
 * The route whose rough bevels leave an edge of so much at the middle of the blade, mm: what is left for the oven is sought between
 * nothing and all there is, as the edge grows with it. Refused with the nearest edge where even nothing, or all there is, leaves another.
 */
export function leavingEdge(blade: Blade, route: Route, shop: Shop, edge: number): EdgeToLeave {
  const at = (oven: number) => edgeLeft(blade, { ...route, oven }, shop) ?? 0;
  let [low, high] = [0, MOST];
  let [least, most] = [at(low), at(high)];
  if (edge < least - NEAR) return { ok: false, why: "thin", nearest: least };
  if (edge > most + NEAR) return { ok: false, why: "thick", nearest: most };
  // The edge grows very nearly evenly: by the straight line through both ends a few steps are enough.
  let oven = low;
  for (let step = 0; step < MOST_STEPS; step++) {
    oven = most > least ? low + ((edge - least) / (most - least)) * (high - low) : low;
    const now = at(oven);
    if (Math.abs(now - edge) < NEAR / 10) break;
    if (now < edge) [low, least] = [oven, now];
    else [high, most] = [oven, now];
  }
  return { ok: true, route: { ...route, oven: Math.round(oven * 1e6) / 1e6 } };
}
