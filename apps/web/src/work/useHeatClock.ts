import type { HeatRun } from "@true-spine/core/heat/schema.ts";
import type { OpReport } from "@true-spine/core/route/heat-report.ts";
import { runsAt } from "@true-spine/core/work/joined.ts";
import { useEffect, useState } from "react";
import { useWorkRows } from "./useWorkRows.ts";

const MINUTE = 60_000;
const TICK_MS = 1000;

/** A time of day. */
export const clock = (time: number) =>
  new Date(time).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

/** Minutes as a clock is set. */
export function inMinutes(minutes: number): string {
  const whole = Math.round(minutes);
  return whole < 60 ? `${whole} min` : `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, "0")}`;
}

/** How long until then, or since. */
export function leftInWords(end: number, now: number): string {
  return now < end
    ? `${inMinutes(Math.ceil((end - now) / MINUTE))} left`
    : `over since ${inMinutes((now - end) / MINUTE)}: take it out`;
}

/** When a running heat is through and when it is over: what was said, else what is reckoned. */
export function endsOf(run: HeatRun, { through, op }: OpReport): { through: number; end: number } {
  const warm = run.through ? Date.parse(run.through) : Date.parse(run.began) + through * MINUTE;
  return { through: warm, end: warm + op.minutes * MINUTE };
}

/** The clock of a heat, going on while it is in: kept as rows of the work, so that it stands through a reload. Null before it is known. */
export function useHeatClock(report: OpReport | null) {
  const rows = useWorkRows();
  const mine = report ? runsAt(rows).filter((run) => run.op === report.op.id) : [];
  const running = mine.findLast((run) => run.ended === undefined) ?? null;
  const isRunning = running !== null;
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!isRunning) return;
    setNow(Date.now());
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, [isRunning]);
  return {
    running,
    now: Math.max(now, Date.now()),
    times: mine.length,
    ends: running && report ? endsOf(running, report) : null,
  };
}
