import type { Blade } from "../../src/blade/schema.ts";
import { NO_CHECK, type Reading } from "../../src/inspect/schema.ts";
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
