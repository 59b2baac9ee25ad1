import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Finding } from "@true-spine/core/findings/finding.ts";
import type { Handle } from "@true-spine/core/handle/schema.ts";
import type { RouteReport } from "@true-spine/core/route/report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { useEffect, useState } from "react";
import { useSettings } from "../app/settings.ts";
import { useDocument, useFile, useRail } from "../blade/screen.ts";
import { useShop } from "../shop/shop.ts";
import { lastAsked } from "./last-asked.ts";
import type { Routing } from "./route.worker.ts";

interface Question {
  readonly blade: Blade;
  readonly route: Route;
  readonly shop: Shop;
  readonly x: number;
  readonly unit: LengthUnit;
  readonly handle: Handle;
}

interface Answer {
  readonly to: Question;
  readonly report: RouteReport;
  readonly findings: readonly Finding[];
}

/** The route of the open blade worked out: null until it first is, and `isBehind` while a newer one is on its way. */
export function useRouteReport(): {
  report: RouteReport | null;
  findings: readonly Finding[];
  isBehind: boolean;
} {
  const blade = useFile();
  const route = useDocument("route");
  const handle = useDocument("handle");
  const { shop } = useShop();
  const x = useRail((state) => state.scribe);
  const unit = useSettings((settings) => settings.unit);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [asker] = useState(startAsking);
  useEffect(() => {
    asker.show = setAnswer;
    return () => asker.end();
  }, [asker]);
  useEffect(() => {
    if (route.stages.length > 0) asker.ask({ blade, route, shop, x, unit, handle });
  }, [asker, blade, route, shop, x, unit, handle]);
  const isCurrent =
    answer?.to.blade === blade && answer.to.route === route && answer.to.shop === shop && answer.to.x === x;
  return { report: answer?.report ?? null, findings: answer?.findings ?? NONE, isBehind: !isCurrent };
}

const NONE: readonly Finding[] = [];

function startAsking() {
  const asker = {
    show: (_: Answer) => {},
    ...lastAsked<Routing, Question>(
      () => new Worker(new URL("./route.worker.ts", import.meta.url), { type: "module" }),
      async (remote, question, { isOver }) => {
        const { blade, route, shop } = question;
        const answer = await remote.report(blade, route, shop, question);
        if (!isOver()) asker.show({ to: question, ...answer });
      },
    ),
  };
  return asker;
}
