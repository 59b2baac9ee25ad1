import type { Severity } from "@true-spine/core/findings/finding.ts";
import type { HeatWork } from "@true-spine/core/findings/heat-finding.ts";
import type { Heat } from "@true-spine/core/heat/schema.ts";
import { heatWorkAt, readingsAt, seenAt } from "@true-spine/core/work/joined.ts";
import type { Remote } from "comlink";
import { useEffect, useMemo, useState } from "react";
import { useSettings } from "../app/settings.ts";
import { useDocument, useFile } from "../blade/screen.ts";
import { useReadings } from "../readings/useReadings.ts";
import { useShop } from "../shop/shop.ts";
import { useCheck, useWorkRows } from "../work/useWorkRows.ts";
import { useStraightAsked } from "./straight.ts";
import { useWork } from "./useWork.ts";
import type { Workers } from "./workers.ts";

/** What is found of the route and of the readings, beside the blade as it is drawn. */
export interface WorkJudged {
  readonly forge: Counts | null;
  readonly heat: Counts | null;
  readonly route: Counts | null;
  readonly check: Counts | null;
  /** Whether nothing is known of them yet, or not any more: then nobody may say that all is well. */
  readonly isBehind: boolean;
}
type Counts = { readonly fix: number; readonly watch: number };

/** The hand has rested so long before the work is looked through: it takes longer than the blade. */
const QUIET_MS = 900;

/** What is to fix or to watch of the blade's work, looked through once the hand rests; null where there is no work yet. */
export function useWorkJudged(stage: string): WorkJudged | null {
  const blade = useFile();
  const route = useDocument("route");
  const check = useCheck();
  const handle = useDocument("handle");
  const forge = useDocument("forge");
  const heat = useDocument("heat");
  const rows = useWorkRows();
  const readings = useReadings();
  const { shop } = useShop();
  const unit = useSettings((settings) => settings.unit);
  const along = useStraightAsked(stage);
  const straight = along.sets.length + along.blows.length > 0 ? along : undefined;
  const now = useMemo(
    () => ({
      blade,
      route,
      check,
      handle,
      forge,
      heat,
      work: heatWorkAt(route, rows, readings),
      seen: seenAt(rows),
      shop,
      unit,
      stage,
      readings: readingsAt(readings, rows, stage),
      ...(straight ? { straight } : {}),
    }),
    [blade, route, check, handle, forge, heat, rows, shop, unit, stage, readings, straight],
  );
  const [rested, setRested] = useState<typeof now | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => setRested(now), QUIET_MS);
    return () => clearTimeout(timer);
  }, [now]);
  const isRouted = route.stages.length > 0;
  const isRead = now.readings.length > 0 || straight !== undefined;
  const ofRoute = useWork("route", isRouted ? rested : null, planned);
  const ofCheck = useWork("bench", isRead ? rested : null, read);
  if (!isRouted && !isRead) return null;
  const isKnown = (work: { answer: { to: unknown } | null }) => work.answer?.to === now;
  return {
    forge: ofRoute.answer?.value.forge ?? null,
    heat: ofRoute.answer?.value.heat ?? null,
    route: ofRoute.answer?.value.route ?? null,
    check: ofCheck.answer?.value ?? null,
    isBehind: (isRouted && !isKnown(ofRoute)) || (isRead && !isKnown(ofCheck)),
  };
}

type Question = Parameters<Remote<Workers["bench"]>["report"]>[0] & {
  readonly seen: ReturnType<typeof seenAt>;
  readonly heat: Heat;
  readonly work: HeatWork;
  readonly forge: Parameters<Remote<Workers["route"]>["forge"]>[2];
  readonly handle: Parameters<Remote<Workers["route"]>["report"]>[3]["handle"];
  readonly unit: ReturnType<typeof useSettings.getState>["unit"];
};

async function planned(
  remote: Remote<Workers["route"]>,
  { blade, route, shop, unit, handle, forge, seen, heat, work, check }: Question,
  tell: (counts: { route: Counts; forge: Counts | null; heat: Counts | null }) => void,
): Promise<void> {
  const { findings } = await remote.report(blade, route!, shop, { x: 0, unit, handle, forge });
  const isForged = route!.stages.some(({ kind }) => kind === "forge");
  const forged = isForged ? await remote.forge(blade, route!, forge, shop, { x: 0, unit, seen }) : null;
  const isHardened = route!.stages.some(({ kind }) => kind === "harden");
  const heated = isHardened
    ? await remote.heat(blade, route!, heat, shop, {
        unit,
        work,
        handle,
        wanted: check.hardness ?? null,
      })
    : null;
  tell({
    route: counted(findings),
    forge: forged && counted(forged.findings),
    heat: heated && counted(heated.findings),
  });
}

async function read(
  remote: Remote<Workers["bench"]>,
  { unit, handle: _, seen: __, heat: ___, work: ____, ...asked }: Question,
  tell: (counts: Counts) => void,
): Promise<void> {
  const { findings } = await remote.report(asked, unit);
  tell(counted(findings));
}

function counted(findings: readonly { readonly severity: Severity }[]): Counts {
  const count = (severity: Severity) => findings.filter((one) => one.severity === severity).length;
  return { fix: count("fix"), watch: count("watch") };
}
