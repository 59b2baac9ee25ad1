import type { Blade } from "../../src/blade/schema.ts";
import { benchOf } from "../../src/inspect/bench.ts";
import { NO_CHECK, type Reading, type Spot } from "../../src/inspect/schema.ts";
import type { Route } from "../../src/route/schema.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";

/** What the bench is asked of a blade on a route at a stage, in the usual shop, hardened to 60. */
export const askedAt = (blade: Blade, route: Route, stage: string, readings: readonly Reading[] = []) => ({
  blade,
  route,
  shop: USUAL_SHOP,
  stage,
  check: { ...NO_CHECK, hardness: 60 },
  readings,
});

/** Every spot of the round read as it should be but for `off`; where that is null it is not read. */
export function roundAt(
  blade: Blade,
  route: Route,
  stage: string,
  off: (spot: Spot) => number | null,
): Reading[] {
  return benchOf(askedAt(blade, route, stage)).lines.flatMap(({ spot, shows }, i) => {
    const by = off(spot);
    const id = `00000000-0000-4000-8000-${String(i).padStart(12, "0")}`;
    const reading = { id, when: "2026-11-20T10:00:00Z", stage, ...spot, by: "hand" as const };
    return by === null ? [] : [{ ...reading, value: shows + by }];
  });
}
