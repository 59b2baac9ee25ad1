import { bevelSetups, type NamedSetup, type Shop } from "../shop/schema.ts";
import type { Route } from "./schema.ts";

/** What a stage is held by: as was said of it, else what the stage before it was last held by, else the shop's first. */
export function setupFor(stages: Route["stages"], i: number, shop: Shop): NamedSetup | undefined {
  const setups = bevelSetups(shop);
  for (let k = i; k >= 0; k--) {
    const named = setups.find(({ id }) => id === stages[k]?.setup);
    if (named) return named;
  }
  return setups[0];
}
