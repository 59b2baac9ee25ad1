import type { Point } from "./drawing.ts";

/** A flat gauge, mm: its outline, and what is marked on it, line by line from its upper left corner. */
export interface Gauge {
  readonly outline: readonly Point[];
  readonly marks: readonly string[];
}
