import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { RouteReport } from "@true-spine/core/route/report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import { type Remote, wrap } from "comlink";
import { useEffect, useState } from "react";
import { useShop } from "../shop/shop.ts";
import type { Routing } from "../workers/route.worker.ts";
import { useDocument, useFile, useRail } from "./context.ts";

interface Question {
  readonly blade: Blade;
  readonly route: Route;
  readonly shop: Shop;
  readonly x: number;
}

/** The route of the open blade worked out: null until it first is, and `isBehind` while a newer one is on its way. */
export function useRouteReport(): { report: RouteReport | null; isBehind: boolean } {
  const blade = useFile();
  const route = useDocument("route");
  const { shop } = useShop();
  const x = useRail((state) => state.scribe);
  const [answer, setAnswer] = useState<{ to: Question; report: RouteReport } | null>(null);
  const [asker] = useState(startAsking);
  useEffect(() => {
    asker.show = setAnswer;
    return () => asker.end();
  }, [asker]);
  useEffect(() => {
    if (route.stages.length > 0) asker.ask({ blade, route, shop, x });
  }, [asker, blade, route, shop, x]);
  const isCurrent =
    answer?.to.blade === blade && answer.to.route === route && answer.to.shop === shop && answer.to.x === x;
  return { report: answer?.report ?? null, isBehind: !isCurrent };
}

/** One question at a time in a worker; of those that come meanwhile only the last is asked. */
function startAsking() {
  let worker: Worker | null = null;
  // Held as long as the worker: a proxy that is collected tells the worker to answer nobody any more.
  let remote: Remote<Routing> | null = null;
  let waiting: Question | null = null;
  let isBusy = false;
  const asker = {
    show: (_: { to: Question; report: RouteReport }) => {},
    ask(question: Question) {
      waiting = question;
      if (!isBusy) void work();
    },
    end() {
      worker?.terminate();
      worker = null;
      remote = null;
      isBusy = false;
      waiting = null;
    },
  };
  async function work(): Promise<void> {
    isBusy = true;
    worker ??= new Worker(new URL("../workers/route.worker.ts", import.meta.url), { type: "module" });
    const mine = worker;
    remote ??= wrap<Routing>(mine);
    const asked = remote;
    try {
      while (waiting && worker === mine) {
        const question: Question = waiting;
        waiting = null;
        const report = await asked.report(question.blade, question.route, question.shop, question.x);
        if (worker === mine) asker.show({ to: question, report });
      }
    } catch (error) {
      console.error(error);
      if (worker === mine) asker.end();
    }
    if (worker === mine) isBusy = false;
  }
  return asker;
}
