import type { Blade } from "../blade/schema.ts";
import type { Shop } from "../shop/schema.ts";
import { ladderOf } from "./ladder.ts";
import type { Route } from "./schema.ts";
import { placesOf } from "./targets.ts";

/** The most that is left for the oven on one face, mm. */
const MOST = 3;
const NEAR = 1e-4;

export type EdgeToLeave = { ok: true; route: Route } | { ok: false; why: "thin" | "thick"; nearest: number };

/** The very edge that the last stage before hardening leaves at the middle of the blade, mm; null where none is ground soft. */
export function edgeLeft(blade: Blade, route: Route, shop: Shop): number | null {
  const harden = route.stages.findIndex(({ kind }) => kind === "harden");
  const rung = ladderOf(blade, route, shop).findLast(
    ({ kind, isBevelled }, i) => isBevelled && kind === "rough" && (harden < 0 || i < harden),
  );
  if (!rung) return null;
  return rung.steel.station(placesOf(rung.finished)[1]!.u).edge;
}

/**
 * The route whose rough bevels leave an edge of so much at the middle of the blade, mm: what is left for the oven is found by halving,
 * as the edge grows with it. Refused with the nearest edge where even nothing, or all there is, leaves another.
 */
export function leavingEdge(blade: Blade, route: Route, shop: Shop, edge: number): EdgeToLeave {
  const at = (oven: number) => edgeLeft(blade, { ...route, oven }, shop) ?? 0;
  let [low, high] = [0, MOST];
  const [least, most] = [at(low), at(high)];
  if (edge < least - NEAR) return { ok: false, why: "thin", nearest: least };
  if (edge > most + NEAR) return { ok: false, why: "thick", nearest: most };
  while (high - low > NEAR / 10) {
    const middle = (low + high) / 2;
    if (at(middle) < edge) low = middle;
    else high = middle;
  }
  return { ok: true, route: { ...route, oven: Math.round(((low + high) / 2) * 1e5) / 1e5 } };
}
