import type { Stage } from "./schema.ts";

/** A stage that was taken off a route, as it last stood. */
export interface RemovedStage {
  readonly stage: Stage;
  /** When the route was first saved without it, ISO 8601. */
  readonly at: string;
}

/**
 * The stages that stood in an earlier state of a route and do not stand in its last, the one removed last first.
 * `states` oldest first, each with when it was saved.
 */
export function removedStages(
  states: readonly { readonly at: string; readonly stages: readonly Stage[] }[],
): RemovedStage[] {
  const removed = new Map<string, RemovedStage>();
  let before: readonly Stage[] = [];
  for (const { at, stages } of states) {
    const ids = new Set(stages.map(({ id }) => id));
    for (const stage of before) if (!ids.has(stage.id)) removed.set(stage.id, { stage, at });
    for (const id of ids) removed.delete(id);
    before = stages;
  }
  return [...removed.values()].reverse();
}
