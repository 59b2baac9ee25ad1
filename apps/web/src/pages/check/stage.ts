import type { Route, StageKind } from "@true-spine/core/route/schema.ts";

/** Stages after which there is something new to read. */
const READ_AFTER: readonly StageKind[] = [
  "flats",
  "rough",
  "harden",
  "true",
  "finish",
  "grits",
  "hand",
  "sharpen",
];

/** The stage to check: the last one done that left something to read, else the first that will; the finished blade without a route. */
export function stageToCheck({ stages }: Route): StageKind {
  const done = stages.findLast(({ kind, done: when }) => when !== undefined && READ_AFTER.includes(kind));
  return done?.kind ?? stages.find(({ kind }) => READ_AFTER.includes(kind))?.kind ?? "sharpen";
}

/** The stages a maker may check, in the route's order. */
export function stagesToCheck({ stages }: Route): StageKind[] {
  const kinds = stages.map(({ kind }) => kind).filter((kind) => READ_AFTER.includes(kind));
  return kinds.length > 0 ? kinds : ["sharpen"];
}
