import { type LearnedLimit, standingLimits } from "@true-spine/core/edge/trials.ts";
import { useMemo } from "react";
import { useShop } from "./shop.ts";

/** Limits of purposes that this shop's trials moved, as far as their evidence stands. */
export function useLearned(): readonly LearnedLimit[] {
  const { shop } = useShop();
  return useMemo(() => standingLimits(shop.limits ?? [], shop.trials ?? []), [shop.limits, shop.trials]);
}
