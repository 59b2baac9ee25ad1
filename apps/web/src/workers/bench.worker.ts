import { shareAtX } from "@true-spine/core/blade/chain.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { type Offer, stillInIt } from "@true-spine/core/design/still-in-it.ts";
import { type BenchReport, benchReport } from "@true-spine/core/findings/bench-report.ts";
import type { Finding } from "@true-spine/core/findings/finding.ts";
import { speechIn } from "@true-spine/core/findings/judged.ts";
import { bendWords, judgeStraight, workWords } from "@true-spine/core/findings/straight.ts";
import { type Asked, benchOf } from "@true-spine/core/inspect/bench.ts";
import { inHandOrder, potentialSpots, spotsNear } from "@true-spine/core/inspect/plan.ts";
import { type Spot, spotKey, spotOf } from "@true-spine/core/inspect/schema.ts";
import { placeOf } from "@true-spine/core/inspect/span.ts";
import {
  type StraightAsked,
  type StraightReport,
  straightReport,
} from "@true-spine/core/inspect/straightness.ts";
import { benchSteel, targetAt } from "@true-spine/core/inspect/target.ts";
import { type RunReport, runReport } from "@true-spine/core/record/run-report.ts";
import type { RunReadings } from "@true-spine/core/registry/contract.ts";
import { onSecondEdge } from "@true-spine/core/route/ladder.ts";
import { reportOf } from "@true-spine/core/route/report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { expose } from "comlink";

export interface OfferWithRoute extends Offer {
  /** Minutes at the belts for what is still to be done, on its own ladder; null without a route. */
  readonly minutes: number | null;
}

/** The bench worked out off the main thread: every stage is a blade of its own, and faults are searched for. */
const bench = {
  report: (asked: Asked, unit: LengthUnit): BenchReport => benchReport(asked, unit),
  /** How straight it is, and what to do about it. */
  straight(
    asked: StraightAsked,
    unit: LengthUnit,
  ): { report: StraightReport; findings: Finding[]; words: string | null; work: string } {
    const report = straightReport(asked);
    const place = report.fit.place;
    return {
      report,
      findings: judgeStraight(asked, report, unit),
      words: report.best && bendWords(report.best, report.height, { say: speechIn(unit), place }),
      work: workWords(report),
    };
  },
  /** Blades that are still in the steel as found, each with its route worked out anew. */
  offers(asked: Asked): OfferWithRoute[] {
    const { stage, found } = benchOf(asked);
    if (!found) return [];
    return stillInIt(stage, found).map((offer) => ({ ...offer, minutes: minutesAfter(asked, offer.blade) }));
  },
  /** Every spot that may be read after a stage, and those that were: what a run can chart. */
  spots({
    blade,
    route,
    shop,
    stage: id,
    check,
    readings,
    forge,
  }: Asked): { spot: Spot; x: number; isRead: boolean }[] {
    const stage = benchSteel(blade, route, shop, id, check.hardness ?? null, forge);
    const read = new Map(
      readings.filter((one) => one.stage === id).map((one) => [spotKey(one), spotOf(one)]),
    );
    const turned = onSecondEdge(stage);
    const may = [...potentialSpots(stage), ...(turned ? potentialSpots(turned) : [])];
    const all = new Map([...read, ...may.map((spot) => [spotKey(spot), spot] as const)]);
    return inHandOrder([...all.values()]).flatMap((spot) => {
      const target = targetAt(stage, spot);
      return target ? [{ spot, x: target.x, isRead: read.has(spotKey(spot)) }] : [];
    });
  },
  run: (read: RunReadings, route: Route | null, shop: Shop): RunReport => runReport(read, route, shop),
  /** What may be read where a maker pointed. */
  near({ blade, route, shop, stage, check, forge }: Asked, u: number, height: number): Spot[] {
    const steel = benchSteel(blade, route, shop, stage, check.hardness ?? null, forge);
    const turned = onSecondEdge(steel);
    const along = turned && shareAtX(turned.steel.field.edge, placeOf(steel, u));
    return [
      ...spotsNear(steel, u, height),
      ...(turned && along !== null ? spotsNear(turned, along, height) : []),
    ];
  },
};

function minutesAfter({ route, shop, stage }: Asked, blade: Blade): number | null {
  if (!route?.stages.length) return null;
  const report = reportOf(blade, route, shop, 0);
  const i = report.stages.findIndex(({ id }) => id === stage);
  return report.stages.slice(i + 1).reduce((sum, { minutes }) => sum + minutes, 0);
}

export type Bench = typeof bench;

expose(bench);
