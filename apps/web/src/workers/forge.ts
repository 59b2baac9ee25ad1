import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { ForgeFinding, Seen } from "@true-spine/core/findings/forge-finding.ts";
import type { Forge } from "@true-spine/core/forge/schema.ts";
import type { ForgeReport } from "@true-spine/core/route/forge-report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { seenAt } from "@true-spine/core/work/joined.ts";
import type { Remote } from "comlink";
import { useMemo } from "react";
import { useSettings } from "../app/settings.ts";
import { useDocument, useFile, useRail } from "../blade/screen.ts";
import { useShop } from "../shop/shop.ts";
import { useWorkRows } from "../work/useWorkRows.ts";
import { useWork, type Work } from "./useWork.ts";
import type { Workers } from "./workers.ts";

interface Question {
  readonly blade: Blade;
  readonly route: Route;
  readonly forge: Forge;
  readonly shop: Shop;
  readonly x: number;
  readonly unit: LengthUnit;
  readonly seen: readonly Seen[];
}

/** Null where the bar is not known yet. */
type Answer = { readonly report: ForgeReport; readonly findings: readonly ForgeFinding[] } | null;

/** The forging of the open blade worked out: behind while a newer one is on its way; not asked at all while it is `isOff`. */
export function useForging(isOff = false): Work<Question, Answer> {
  const blade = useFile();
  const route = useDocument("route");
  const forge = useDocument("forge");
  const { shop } = useShop();
  const rows = useWorkRows();
  const x = useRail((state) => state.scribe);
  const unit = useSettings((settings) => settings.unit);
  const question = useMemo(
    () => (isOff ? null : { blade, route, forge, shop, x, unit, seen: seenAt(rows) }),
    [isOff, blade, route, forge, shop, x, unit, rows],
  );
  return useWork("route", question, ask);
}

async function ask(
  remote: Remote<Workers["route"]>,
  { blade, route, forge, shop, x, unit, seen }: Question,
  tell: (answer: Answer) => void,
): Promise<void> {
  tell(await remote.forge(blade, route, forge, shop, { x, unit, seen }));
}
