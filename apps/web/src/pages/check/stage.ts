import type { Route, StageKind } from "@true-spine/core/route/schema.ts";

/** Stages after which there is something new to read. */
const READ_AFTER: readonly StageKind[] = [
  "forge",
  "flats",
  "rough",
  "harden",
  "temper",
  "true",
  "finish",
  "grits",
  "hand",
  "sharpen",
];

/** The stage to check: the last one done that left something to read, else the first that will; the finished blade without a route. */
export function stageToCheck({ stages }: Route): string {
  const done = stages.findLast(({ kind, done: when }) => when !== undefined && READ_AFTER.includes(kind));
  return done?.id ?? stages.find(({ kind }) => READ_AFTER.includes(kind))?.id ?? "sharpen";
}

/** The stages a maker may check, in the route's order, by their own names. */
export function stagesToCheck({ stages }: Route): string[] {
  const ids = stages.filter(({ kind }) => READ_AFTER.includes(kind)).map(({ id }) => id);
  return ids.length > 0 ? ids : ["sharpen"];
}
