import { placeAt } from "../blade/chain.ts";
import { clearFrom } from "../blade/measure.ts";
import type { StageSteel } from "../route/ladder.ts";

type Finished = Pick<StageSteel, "finished">;

/** The last share of the edge that can be read: short of the point. */
export const LAST_READ = 0.95;

/** A station's x for a share of the edge, without reading the whole section. */
export function placeOf({ finished: { field } }: Finished, u: number): number {
  return placeAt(field.edge, u * field.edge.length).x;
}

/** Shares of the edge where it can be read at all: clear of the plunges, and short of the point. */
export function clearSpan(stage: Finished): readonly [number, number] {
  const from = clearFrom(stage.finished.field);
  return [Math.min(0.9, Math.max(0.01, from + 0.01)), LAST_READ];
}
