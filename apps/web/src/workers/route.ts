import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { PlanFinding } from "@true-spine/core/findings/plan.ts";
import type { Forge } from "@true-spine/core/forge/schema.ts";
import type { Handle } from "@true-spine/core/handle/schema.ts";
import type { RouteReport } from "@true-spine/core/route/report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import type { Remote } from "comlink";
import { useMemo } from "react";
import { useSettings } from "../app/settings.ts";
import { useDocument, useFile, useRail } from "../blade/screen.ts";
import { useShop } from "../shop/shop.ts";
import { useWork, type Work } from "./useWork.ts";
import type { Workers } from "./workers.ts";

interface Question {
  readonly blade: Blade;
  readonly route: Route;
  readonly shop: Shop;
  readonly x: number;
  readonly unit: LengthUnit;
  readonly handle: Handle;
  readonly forge: Forge;
}

interface Answer {
  readonly report: RouteReport;
  readonly findings: readonly PlanFinding[];
}

/** The route of the open blade worked out: null until it first is, and behind while a newer one is on its way. */
export function useRouteReport(): Work<Question, Answer> & {
  report: RouteReport | null;
  findings: readonly PlanFinding[];
} {
  const blade = useFile();
  const route = useDocument("route");
  const handle = useDocument("handle");
  const forge = useDocument("forge");
  const { shop } = useShop();
  const x = useRail((state) => state.scribe);
  const unit = useSettings((settings) => settings.unit);
  const isRouted = route.stages.length > 0;
  const question = useMemo(
    () => (isRouted ? { blade, route, shop, x, unit, handle, forge } : null),
    [isRouted, blade, route, shop, x, unit, handle, forge],
  );
  const work = useWork("route", question, report);
  return {
    ...work,
    report: work.answer?.value.report ?? null,
    findings: work.answer?.value.findings ?? NONE,
  };
}

const NONE: readonly PlanFinding[] = [];

async function report(
  remote: Remote<Workers["route"]>,
  question: Question,
  tell: (answer: Answer) => void,
): Promise<void> {
  tell(await remote.report(question.blade, question.route, question.shop, question));
}
