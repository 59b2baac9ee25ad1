import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { HeatFinding, HeatWork } from "@true-spine/core/findings/heat-finding.ts";
import type { Handle } from "@true-spine/core/handle/schema.ts";
import type { Heat } from "@true-spine/core/heat/schema.ts";
import type { HeatReport } from "@true-spine/core/route/heat-report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import type { Said } from "@true-spine/core/work/hardened.ts";
import { heatWorkAt } from "@true-spine/core/work/joined.ts";
import type { Remote } from "comlink";
import { useMemo } from "react";
import { useSettings } from "../app/settings.ts";
import { useDocument, useFile } from "../blade/screen.ts";
import { useReadings } from "../readings/useReadings.ts";
import { useShop } from "../shop/shop.ts";
import { useWorkRows } from "../work/useWorkRows.ts";
import { useWork, type Work } from "./useWork.ts";
import type { Workers } from "./workers.ts";

interface Question {
  readonly blade: Blade;
  readonly route: Route;
  readonly heat: Heat;
  readonly shop: Shop;
  readonly unit: LengthUnit;
  readonly work: HeatWork;
  readonly handle: Handle;
  readonly wanted: number | null;
}
interface Answer {
  readonly report: HeatReport;
  readonly findings: readonly HeatFinding[];
  /** What it would tell the shop. */
  readonly said: Said | null;
}

/** The heats of the open blade worked out: behind while a newer answer is on its way. */
export function useHeats(isOff = false): Work<Question, Answer> {
  const blade = useFile();
  const route = useDocument("route");
  const heat = useDocument("heat");
  const { shop } = useShop();
  const rows = useWorkRows();
  const readings = useReadings();
  const handle = useDocument("handle");
  const wanted = useDocument("check").hardness ?? null;
  const unit = useSettings((settings) => settings.unit);
  const question = useMemo(
    () =>
      isOff
        ? null
        : { blade, route, heat, shop, unit, handle, wanted, work: heatWorkAt(route, rows, readings) },
    [isOff, blade, route, heat, shop, unit, handle, wanted, rows, readings],
  );
  return useWork("route", question, ask);
}

async function ask(
  remote: Remote<Workers["route"]>,
  { blade, route, heat, shop, ...beside }: Question,
  tell: (answer: Answer) => void,
): Promise<void> {
  tell(await remote.heat(blade, route, heat, shop, beside));
}
