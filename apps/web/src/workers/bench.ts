import type { BenchReport } from "@true-spine/core/findings/bench-report.ts";
import type { Asked } from "@true-spine/core/inspect/bench.ts";
import type { StageKind } from "@true-spine/core/route/schema.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { wrap } from "comlink";
import { useEffect, useMemo, useState } from "react";
import { useSettings } from "../app/settings.ts";
import { useDocument, useFile } from "../blade/screen.ts";
import { useReadings } from "../readings/useReadings.ts";
import { useShop } from "../shop/shop.ts";
import type { Bench } from "./bench.worker.ts";
import { lastAsked } from "./last-asked.ts";

interface Question {
  readonly asked: Asked;
  readonly unit: LengthUnit;
}

const newWorker = () => new Worker(new URL("./bench.worker.ts", import.meta.url), { type: "module" });

/** What the bench is asked for one stage of the open blade, as it stands. */
export function useAsked(stage: StageKind): Asked {
  const blade = useFile();
  const route = useDocument("route");
  const check = useDocument("check");
  const { shop } = useShop();
  const readings = useReadings();
  return useMemo(
    () => ({ blade, route, shop, stage, check, readings: readings.filter((one) => one.stage === stage) }),
    [blade, route, shop, stage, check, readings],
  );
}

/** The bench worked out: null until it first is for this stage, and behind while a newer one is on its way. */
export function useBench(asked: Asked): { report: BenchReport | null; isBehind: boolean } {
  const unit = useSettings((settings) => settings.unit);
  const [answer, setAnswer] = useState<{ to: Question; report: BenchReport } | null>(null);
  const [asker] = useState(startAsking);
  useEffect(() => {
    asker.show = setAnswer;
    return () => asker.end();
  }, [asker]);
  useEffect(() => asker.ask({ asked, unit }), [asker, asked, unit]);
  const isOfStage = answer?.to.asked.stage === asked.stage;
  return { report: isOfStage ? answer.report : null, isBehind: answer?.to.asked !== asked };
}

function startAsking() {
  const asker = {
    show: (_: { to: Question; report: BenchReport }) => {},
    ...lastAsked<Bench, Question>(newWorker, async (remote, question, { isOver }) => {
      const report = await remote.report(question.asked, question.unit);
      if (!isOver()) asker.show({ to: question, report });
    }),
  };
  return asker;
}

/** Asks a bench of its own once. Its worker ends with the answer, or with `signal`. */
export async function askBench<T>(
  question: (bench: ReturnType<typeof wrap<Bench>>) => Promise<T>,
): Promise<T> {
  const worker = newWorker();
  try {
    return await question(wrap<Bench>(worker));
  } finally {
    worker.terminate();
  }
}
