import type { Blade } from "@true-spine/core/blade/schema.ts";
import { NO_THIN } from "@true-spine/core/edge/schema.ts";
import { type EdgeFinding, edgeNotJudged, judgeEdge } from "@true-spine/core/findings/edge.ts";
import type { NotJudged } from "@true-spine/core/findings/finding.ts";
import { judgeForging } from "@true-spine/core/findings/forge.ts";
import type { ForgeFinding, Seen } from "@true-spine/core/findings/forge-finding.ts";
import { judgeHeat } from "@true-spine/core/findings/heat.ts";
import type { HeatFinding, HeatWork } from "@true-spine/core/findings/heat-finding.ts";
import { judgePlan, type PlanFinding } from "@true-spine/core/findings/plan.ts";
import type { Forge } from "@true-spine/core/forge/schema.ts";
import type { Handle } from "@true-spine/core/handle/schema.ts";
import type { Heat } from "@true-spine/core/heat/schema.ts";
import { type EdgeAsked, type EdgeReport, edgeReport } from "@true-spine/core/route/edge-report.ts";
import { type ForgeReport, forgeReport } from "@true-spine/core/route/forge-report.ts";
import { type Forging, forgingOf } from "@true-spine/core/route/forging.ts";
import { type HeatReport, heatReport } from "@true-spine/core/route/heat-report.ts";
import { type RouteReport, reportOf } from "@true-spine/core/route/report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import { type ThinReport, thinReport } from "@true-spine/core/route/thin-report.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { hardenedOf, type Said } from "@true-spine/core/work/hardened.ts";
import { expose } from "comlink";

let last: { readonly key: string; readonly forging: Forging | null } | null = null;

/** The forging of what was asked last is kept: the scribe moves, and nothing else does. What comes over is a copy each time. */
function forgingFor(...asked: Parameters<typeof forgingOf>): Forging | null {
  const key = JSON.stringify(asked);
  if (last?.key !== key) last = { key, forging: forgingOf(...asked) };
  return last.forging;
}

/** Works routes out off the main thread: every stage is a blade of its own. */
const routing = {
  report(
    blade: Blade,
    route: Route,
    shop: Shop,
    { x, unit, handle, forge }: { x: number; unit: LengthUnit; handle: Handle; forge: Forge },
  ): { report: RouteReport; findings: PlanFinding[] } {
    const report = reportOf(blade, route, shop, x, forge);
    return { report, findings: judgePlan(blade, route, report, shop, { unit, handle }) };
  },
  /** The way from the bar to the blank; null where the bar is not known yet. */
  forge(
    blade: Blade,
    route: Route,
    forge: Forge,
    shop: Shop,
    { x, unit, seen }: { x: number; unit: LengthUnit; seen: readonly Seen[] },
  ): { report: ForgeReport; findings: ForgeFinding[] } | null {
    const forging = forgingFor(blade, route, forge, shop);
    if (!forging) return null;
    return {
      report: forgeReport(blade, route, forge, shop, x, forging)!,
      findings: judgeForging(blade, route, forge, shop, { unit, seen, forging }),
    };
  },
  /** How an edge is sharpened, and what years of it do; null where the blade has no such edge. */
  edge(
    asked: EdgeAsked,
    unit: LengthUnit,
  ): {
    report: EdgeReport;
    thin: ThinReport | null;
    findings: EdgeFinding[];
    notJudged: NotJudged[];
  } | null {
    const report = edgeReport(asked);
    if (!report) return null;
    const { blade, shop, which, edge, behind } = asked;
    const thin = thinReport({
      blade,
      shop,
      which,
      thin: edge.thin ?? NO_THIN,
      lost: report.life.lost,
      ...(behind ? { read: behind } : {}),
    });
    return { report, thin, findings: judgeEdge(asked, report, unit, thin), notJudged: edgeNotJudged(report) };
  },
  /** The blade's heats. */
  heat(
    blade: Blade,
    route: Route,
    heat: Heat,
    shop: Shop,
    beside: { unit: LengthUnit; work: HeatWork; handle: Handle; wanted: number | null },
  ): { report: HeatReport; findings: HeatFinding[]; said: Said | null } {
    const report = heatReport(blade, route, heat, shop);
    // What the shop has learned must not learn from itself.
    const bare = shop.hardened ? heatReport(blade, route, heat, { ...shop, hardened: [] }) : report;
    return {
      report,
      findings: judgeHeat(blade, route, heat, shop, { ...beside, report }),
      said: hardenedOf(bare, beside.work),
    };
  },
};

export type Routing = typeof routing;

expose(routing);
