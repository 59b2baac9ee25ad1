import type { Database } from "../database.ts";
import type { Judging } from "../judging/judging.ts";

/** What keeping a blade takes: where it is kept, and what judges it. */
export interface Stores {
  readonly db: Database;
  /** Where lists are read from, if not from there. */
  readonly lists?: Database | null;
  readonly judging: Judging;
}
