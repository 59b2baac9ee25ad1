import type { Check } from "@true-spine/core/inspect/schema.ts";
import type { Route, Stage } from "@true-spine/core/route/schema.ts";
import { checkWithWork, passesAt, routeWithWork, type Spent, spentAt } from "@true-spine/core/work/joined.ts";
import type { WorkRow } from "@true-spine/core/work/schema.ts";
import { useEffect, useMemo, useState } from "react";
import { useStore } from "zustand";
import { type BladeScreen, useDocument, useScreen } from "../blade/screen.ts";
import { useNotices } from "../parts/Notices.tsx";
import { newId } from "../saving/id.ts";

/** What was recorded at the work and not struck out since. */
export function useWorkRows(): readonly WorkRow[] {
  const { taken, struck } = useStore(useScreen().work.state);
  return useMemo(() => taken.filter(({ id }) => !struck.has(id)), [taken, struck]);
}

/** The route with what was done of it. */
export function useRoute(): Route {
  const route = useDocument("route");
  const rows = useWorkRows();
  return useMemo(() => routeWithWork(route, rows), [route, rows]);
}

/** What was decided at the bench, with what of it was carried out. */
export function useCheck(): Check {
  const check = useDocument("check");
  const rows = useWorkRows();
  return useMemo(() => checkWithWork(check, rows), [check, rows]);
}

export function usePasses(stage: string): { left: number; right: number } {
  const rows = useWorkRows();
  return useMemo(() => passesAt(rows, stage), [rows, stage]);
}

const TICK_MS = 15_000;

/** Time spent at a stage, going on while its clock runs. */
export function useSpent(stage: string): Spent {
  const rows = useWorkRows();
  const [now, setNow] = useState(() => Date.now());
  const spent = useMemo(() => spentAt(rows, stage, Math.max(now, Date.now())), [rows, stage, now]);
  useEffect(() => {
    if (!spent.isRunning) return;
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, [spent.isRunning]);
  return spent;
}

/** Says how many minutes a stage took, instead of all that its clock has. */
export function setSpent(screen: Pick<BladeScreen, "work">, stage: string, minutes: number): void {
  const { taken, struck } = screen.work.state.getState();
  for (const row of taken)
    if (row.stage === stage && (row.what === "clock" || row.what === "spent") && !struck.has(row.id))
      screen.work.strike(row.id, true);
  if (minutes > 0) record(screen, { stage, what: "spent", minutes });
}

type NewRow<R = WorkRow> = R extends WorkRow ? Omit<R, "id" | "when"> : never;

/** Records something done, now; answers with its id, by which it is struck out again. */
export function record({ work }: Pick<BladeScreen, "work">, row: NewRow): string {
  const id = newId();
  work.take({ ...row, id, when: new Date().toISOString() } as WorkRow);
  return id;
}

/** Says that a stage is not done after all: its rows are struck out, and a tick from an older file is taken off. */
export function notDone({ work, open }: Pick<BladeScreen, "work" | "open">, stage: string): void {
  const { taken, struck } = work.state.getState();
  for (const row of taken) {
    if (row.what === "done" && row.stage === stage && !struck.has(row.id)) work.strike(row.id, true);
  }
  const { route } = open.store.getState();
  if (!route.stages.some((one) => one.id === stage && one.done)) return;
  open.end();
  open.put({
    route: { ...route, stages: route.stages.map((one) => (one.id === stage ? undone(one) : one)) },
  });
}

function undone({ done: _, ...stage }: Stage): Stage {
  return stage;
}

/** Ticks a stage, and says so with its undo. */
export function tick(screen: Pick<BladeScreen, "work" | "open">, stage: Stage, name: string): string {
  const id = record(screen, { stage: stage.id, what: "done" });
  useNotices.getState().tell(`${name} is ticked as done.`, () => screen.work.strike(id, true));
  return id;
}

/** Says that corrections were carried out, now; undone from the notice. */
export function carriedOut({ work }: Pick<BladeScreen, "work">, corrections: Check["corrections"]): void {
  const ids = corrections.map(({ id, stage }) =>
    record({ work }, { stage, what: "corrected", correction: id }),
  );
  useNotices
    .getState()
    .tell(ids.length === 1 ? "The correction is done." : "The corrections are done.", () => {
      for (const id of ids) work.strike(id, true);
    });
}
