import type { Run } from "@true-spine/core/inspect/run-schema.ts";
import type { Reading } from "@true-spine/core/inspect/schema.ts";
import {
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from "drizzle-orm/pg-core";
import { blades } from "./blades.ts";

const when = (name: string) => timestamp(name, { withTimezone: true, mode: "string" });

/** Every reading ever taken. Rows are only ever added; one that was wrong is struck out and stays. */
export const readings = pgTable(
  "readings",
  {
    /** Made up where it was taken, so that one that is sent twice is one reading. */
    id: uuid("id").primaryKey(),
    bladeId: uuid("blade_id")
      .notNull()
      .references(() => blades.id, { onDelete: "cascade" }),
    takenAt: when("taken_at").notNull(),
    stage: text("stage").notNull(),
    spot: text("spot").notNull(),
    reading: jsonb("reading").$type<Reading>().notNull(),
    struckAt: when("struck_at"),
    createdAt: when("created_at").notNull().defaultNow(),
  },
  (table) => [
    index("readings_blade").on(table.bladeId, table.takenAt),
    index("readings_spot").on(table.bladeId, table.stage, table.spot),
  ],
);

/** Every state of every run; the highest number stands, and one without a file was thrown away. */
export const runs = pgTable(
  "runs",
  {
    id: uuid("id").notNull(),
    number: integer("number").notNull(),
    file: jsonb("file").$type<Run>(),
    saveKey: uuid("save_key").notNull(),
    createdAt: when("created_at").notNull().defaultNow(),
  },
  (table) => [
    primaryKey({ columns: [table.id, table.number] }),
    uniqueIndex("runs_save_key").on(table.id, table.saveKey),
  ],
);
