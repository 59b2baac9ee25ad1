import type { Edge, Sharpened } from "../edge/schema.ts";
import type { HeatWork } from "../findings/heat-finding.ts";
import type { Forge, ForgeFault } from "../forge/schema.ts";
import type { Gate, Heat, HeatRun, Proof } from "../heat/schema.ts";
import { type Check, type Reading, spotKey, spotOf } from "../inspect/schema.ts";
import type { Route, Stage } from "../route/schema.ts";
import type { Blow, Straight, StraightSet } from "../straight/schema.ts";
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

/** Heats made for each step at the fire. */
export function heatsAt(rows: readonly WorkRow[]): Readonly<Record<string, number>> {
  const counts: Record<string, number> = {};
  for (const row of rows) if (row.what === "heat") counts[row.step] = (counts[row.step] ?? 0) + 1;
  return counts;
}

/** Faults that were seen at the fire. */
export function seenAt(rows: readonly WorkRow[]): { fault: ForgeFault; x: number[]; depth: number }[] {
  return rows.flatMap((row) =>
    row.what === "seen" ? [{ fault: row.fault, x: row.x, depth: row.depth }] : [],
  );
}

/** What is chosen at the fire with what was done of it and what was seen: as it is exported. */
export function forgeWithWork(forge: Forge, rows: readonly WorkRow[]): Forge {
  const steps = new Map<
    string,
    { step: NonNullable<Forge["done"]>[number]["step"]; heats: number; when: string }
  >();
  for (const row of rows) {
    if (row.what !== "heat") continue;
    const known = steps.get(row.step);
    const when = known && Date.parse(known.when) > Date.parse(row.when) ? known.when : row.when;
    steps.set(row.step, { step: row.step, heats: (known?.heats ?? 0) + 1, when });
  }
  const done = [...steps.values()];
  const seen = rows.flatMap((row) =>
    row.what === "seen" ? [{ fault: row.fault, x: row.x, depth: row.depth, when: row.when }] : [],
  );
  return { ...forge, ...(done.length > 0 ? { done } : {}), ...(seen.length > 0 ? { seen } : {}) };
}

/** Heats as they were run, in the order they began: each from its beginning to the next of the same operation. */
export function runsAt(rows: readonly WorkRow[]): HeatRun[] {
  const runs: HeatRun[] = [];
  for (const row of inTime(rows)) {
    if (row.what !== "run") continue;
    if (row.moment === "began") {
      runs.push({ op: row.stage, began: row.when, ...(row.T === undefined ? {} : { T: row.T }) });
      continue;
    }
    const i = runs.findLastIndex((run) => run.op === row.stage && run.ended === undefined);
    if (i >= 0)
      runs[i] = { ...runs[i]!, [row.moment]: row.when, ...(row.T === undefined ? {} : { T: row.T }) };
  }
  return runs;
}

/** What files, coupons and faces said, in order. */
export function proofsAt(rows: readonly WorkRow[]): Proof[] {
  return inTime(rows).flatMap((row): Proof[] => {
    const at = { when: row.when, after: row.stage };
    switch (row.what) {
      case "proof": {
        const { place, saw, x } = row;
        return [{ ...at, what: "file", place, saw, ...(x === undefined ? {} : { x }) }];
      }
      case "coupon":
        return [{ ...at, what: "coupon", T: row.T, saw: row.saw }];
      case "snap":
        return [{ ...at, what: "snap", T: row.T, grain: row.grain }];
      case "skin":
        return [{ ...at, what: "skin", mm: row.mm }];
      default:
        return [];
    }
  });
}

/** What was seen to before the next heat. */
export function gatesAt(rows: readonly WorkRow[]): Gate[] {
  return inTime(rows).flatMap((row) =>
    row.what === "gate" ? [{ when: row.when, after: row.stage, gate: row.gate }] : [],
  );
}

/** All that was done, seen and read of its heats. */
export function heatWorkAt(
  route: Route,
  rows: readonly WorkRow[],
  readings: readonly Reading[] = [],
): HeatWork {
  const { stages } = routeWithWork(route, rows);
  const done = stages.filter((stage) => stage.done !== undefined);
  return {
    runs: runsAt(rows),
    proofs: proofsAt(rows),
    gates: gatesAt(rows),
    done: done.map(({ id }) => id),
    hardness: readings.flatMap((one) =>
      one.what === "hardness" ? [{ stage: heatBefore(stages, one), value: one.value }] : [],
    ),
  };
}

/**
 * The heat that a hardness reading speaks of. As quenched it is the stage it was filed under; otherwise the last temper that was done when
 * it was taken, whichever stage it was filed under, else the last temper or hardening up to that stage.
 */
function heatBefore(stages: readonly Stage[], { stage, when }: Reading): string {
  const at = stages.findIndex(({ id }) => id === stage);
  const own = stages[at];
  if (!own || own.kind === "harden" || own.kind === "plates") return stage;
  const isTempered = ({ kind, done }: Stage) =>
    kind === "temper" && done !== undefined && Date.parse(done) <= Date.parse(when);
  const before = stages.slice(0, at + 1).findLast(({ kind }) => kind === "temper" || kind === "harden");
  return (stages.findLast(isTempered) ?? before)?.id ?? stage;
}

/** What is chosen of its heats with what was done and seen: as it is exported. */
export function heatWithWork(heat: Heat, rows: readonly WorkRow[]): Heat {
  const some = Object.fromEntries(
    Object.entries({ runs: runsAt(rows), proofs: proofsAt(rows), gates: gatesAt(rows) }).filter(
      ([, list]) => list.length > 0,
    ),
  );
  return { ...heat, ...some };
}

/** Readings along the blade and blows on it, in order. */
export function straightAt(rows: readonly WorkRow[]): { sets: StraightSet[]; blows: Blow[] } {
  const ordered = inTime(rows);
  const sets = ordered.flatMap((row) => {
    if (row.what !== "set") return [];
    const { what: _, ...set } = row;
    return [set];
  });
  const blows = ordered.flatMap((row): Blow[] => {
    if (row.what !== "blow") return [];
    const { what: _, ...blow } = row;
    const after = sets.find(({ when }) => Date.parse(when) > Date.parse(row.when));
    return [{ ...blow, ...(after ? { after: after.id } : {}) }];
  });
  return { sets, blows };
}

/** Whether its build is in doubt, with what was read and struck: as it is exported. */
export function straightWithWork(straight: Straight, rows: readonly WorkRow[]): Straight {
  const some = Object.entries(straightAt(rows)).filter(([, list]) => list.length > 0);
  return { ...straight, ...Object.fromEntries(some) };
}

/** What was sharpened, in order, of one edge. */
export function sharpenedAt(rows: readonly WorkRow[], which: "first" | "second" = "first"): Sharpened[] {
  return allSharpened(rows).filter(({ edge = "first" }) => edge === which);
}

function allSharpened(rows: readonly WorkRow[]): Sharpened[] {
  return inTime(rows).flatMap((row): Sharpened[] => {
    if (row.what !== "sharpened") return [];
    const { what: _, stage: __, ...one } = row;
    return [one];
  });
}

/** How its edges are sharpened with what was done of it: as it is exported. */
export function edgeWithWork(edge: Edge, rows: readonly WorkRow[]): Edge {
  const done = allSharpened(rows);
  return { ...edge, ...(done.length > 0 ? { done } : {}) };
}

const inTime = (rows: readonly WorkRow[]) => rows.toSorted((a, b) => Date.parse(a.when) - Date.parse(b.when));

/** How long a stage took so far. */
export interface Spent {
  /** Minutes, the running clock among them. */
  readonly minutes: number;
  readonly isRunning: boolean;
}

/** Time spent at a stage: from each start of its clock to the next pause or to when it was done, and what was said beside that. */
export function spentAt(rows: readonly WorkRow[], stage: string, now: number): Spent {
  const mine = rows
    .filter((row) => row.stage === stage)
    .toSorted((a, b) => Date.parse(a.when) - Date.parse(b.when));
  let minutes = 0;
  let since: number | null = null;
  for (const row of mine) {
    const when = Date.parse(row.when);
    if (row.what === "spent") minutes += row.minutes;
    if (row.what === "clock" && row.runs) since ??= when;
    const ends = row.what === "done" || (row.what === "clock" && !row.runs);
    if (ends && since !== null) {
      minutes += (when - since) / 60_000;
      since = null;
    }
  }
  if (since !== null) minutes += Math.max(0, now - since) / 60_000;
  return { minutes, isRunning: since !== null };
}

function latest<R extends WorkRow>(rows: readonly R[]): R | undefined {
  return rows.reduce<R | undefined>(
    (last, row) => (last && Date.parse(last.when) > Date.parse(row.when) ? last : row),
    undefined,
  );
}

/**
 * Readings of a stage that say how its steel is now. Where a pass or a correction lies between two readings of one place, steel was taken
 * off between them: the earlier one is left out, and is not averaged with the later.
 */
export function readingsAt(readings: readonly Reading[], rows: readonly WorkRow[], stage: string): Reading[] {
  const mine = readings.filter((one) => one.stage === stage);
  const ground = rows
    .filter((row) => row.stage === stage && (row.what === "pass" || row.what === "corrected"))
    .map(({ when }) => Date.parse(when));
  if (ground.length === 0) return mine;
  return mine.filter((one) => {
    const [key, at] = [spotKey(spotOf(one)), Date.parse(one.when)];
    const isReplaced = (later: Reading) => {
      const then = Date.parse(later.when);
      return spotKey(spotOf(later)) === key && ground.some((cut) => at < cut && cut <= then);
    };
    return !mine.some(isReplaced);
  });
}
