import type { WorkRow } from "@true-spine/core/work/schema.ts";
import { index, jsonb, pgTable, text, timestamp, uuid } from "drizzle-orm/pg-core";
import { blades } from "./blades.ts";

const when = (name: string) => timestamp(name, { withTimezone: true, mode: "string" });

/** What was recorded at the work beside readings. Rows are only ever added; one that was wrong is struck out and stays. */
export const workRows = pgTable(
  "work_rows",
  {
    /** Made up where it was recorded, so that one that is sent twice is one row. */
    id: uuid("id").primaryKey(),
    bladeId: uuid("blade_id")
      .notNull()
      .references(() => blades.id, { onDelete: "cascade" }),
    recordedAt: when("recorded_at").notNull(),
    stage: text("stage").notNull(),
    what: text("what").notNull(),
    row: jsonb("row").$type<WorkRow>().notNull(),
    struckAt: when("struck_at"),
    createdAt: when("created_at").notNull().defaultNow(),
  },
  (table) => [index("work_rows_blade").on(table.bladeId, table.recordedAt)],
);
