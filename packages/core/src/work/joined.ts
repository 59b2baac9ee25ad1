import type { Check } from "../inspect/schema.ts";
import type { Route, Stage } from "../route/schema.ts";
import type { WorkRow } from "./schema.ts";

/** A route with what was done of it: stages with when they were done and what was noted, from the rows taken at the work. */
export function routeWithWork(route: Route, rows: readonly WorkRow[]): Route {
  if (rows.length === 0) return route;
  const stages = route.stages.map((stage): Stage => {
    const mine = rows.filter((row) => row.stage === stage.id);
    const done = latest(mine.filter(({ what }) => what === "done"));
    const note = latest(mine.filter((row) => row.what === "note"));
    if (!done && !note) return stage;
    return {
      ...stage,
      ...(done ? { done: done.when } : {}),
      ...(note?.what === "note" ? { note: note.words } : {}),
    };
  });
  return { ...route, stages };
}

/** What was decided at the bench with what of it was carried out. */
export function checkWithWork(check: Check, rows: readonly WorkRow[]): Check {
  const done = new Map(rows.flatMap((row) => (row.what === "corrected" ? [[row.correction, row.when]] : [])));
  if (done.size === 0) return check;
  return {
    ...check,
    corrections: check.corrections.map((one) => {
      const when = done.get(one.id);
      return when ? { ...one, done: when } : one;
    }),
  };
}

/** Passes made at a stage, each side. */
export function passesAt(rows: readonly WorkRow[], stage: string): { left: number; right: number } {
  const of = (side: "left" | "right") =>
    rows.filter((row) => row.what === "pass" && row.stage === stage && row.side === side).length;
  return { left: of("left"), right: of("right") };
}

function latest<R extends WorkRow>(rows: readonly R[]): R | undefined {
  return rows.reduce<R | undefined>(
    (last, row) => (last && Date.parse(last.when) > Date.parse(row.when) ? last : row),
    undefined,
  );
}
