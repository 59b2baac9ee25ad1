import type { Blade } from "@true-spine/core/blade/schema.ts";
import { judgePlan, type PlanFinding } from "@true-spine/core/findings/plan.ts";
import type { Handle } from "@true-spine/core/handle/schema.ts";
import { type RouteReport, reportOf } from "@true-spine/core/route/report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { expose } from "comlink";

/** Works routes out off the main thread: every stage is a blade of its own. */
const routing = {
  report(
    blade: Blade,
    route: Route,
    shop: Shop,
    { x, unit, handle }: { x: number; unit: LengthUnit; handle: Handle },
  ): { report: RouteReport; findings: PlanFinding[] } {
    const report = reportOf(blade, route, shop, x);
    return { report, findings: judgePlan(blade, route, report, shop, { unit, handle }) };
  },
};

export type Routing = typeof routing;

expose(routing);
