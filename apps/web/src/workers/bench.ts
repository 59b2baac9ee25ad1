import type { BenchReport } from "@true-spine/core/findings/bench-report.ts";
import type { Asked } from "@true-spine/core/inspect/bench.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { readingsAt } from "@true-spine/core/work/joined.ts";
import type { Remote } from "comlink";
import { useMemo } from "react";
import { useSettings } from "../app/settings.ts";
import { useDocument, useFile } from "../blade/screen.ts";
import { useReadings } from "../readings/useReadings.ts";
import { useShop } from "../shop/shop.ts";
import { useCheck, useWorkRows } from "../work/useWorkRows.ts";
import { useStraightAsked } from "./straight.ts";
import { useWork, type Work } from "./useWork.ts";
import type { Workers } from "./workers.ts";

interface Question {
  readonly asked: Asked;
  readonly unit: LengthUnit;
}

/** What the bench is asked for one stage of the open blade, as it stands. */
export function useAsked(stage: string): Asked {
  const blade = useFile();
  const route = useDocument("route");
  const check = useCheck();
  const { shop } = useShop();
  const forge = useDocument("forge");
  const readings = useReadings();
  const rows = useWorkRows();
  const along = useStraightAsked(stage);
  const straight = along.sets.length + along.blows.length > 0 ? along : undefined;
  return useMemo(
    () => ({
      blade,
      route,
      shop,
      stage,
      check,
      forge,
      readings: readingsAt(readings, rows, stage),
      ...(straight ? { straight } : {}),
    }),
    [blade, route, shop, stage, check, forge, readings, rows, straight],
  );
}

/** The bench worked out: null until it first is for this stage, and behind while a newer one is on its way. */
export function useBench(asked: Asked): Work<Question, BenchReport> & { report: BenchReport | null } {
  const unit = useSettings((settings) => settings.unit);
  const question = useMemo(() => ({ asked, unit }), [asked, unit]);
  const work = useWork("bench", question, report);
  const isOfStage = work.answer?.to.asked.stage === asked.stage;
  return { ...work, report: isOfStage ? work.answer!.value : null };
}

async function report(
  remote: Remote<Workers["bench"]>,
  { asked, unit }: Question,
  tell: (report: BenchReport) => void,
): Promise<void> {
  tell(await remote.report(asked, unit));
}
