import { bigint, boolean, integer, pgTable, serial, text, timestamp } from "drizzle-orm/pg-core";

const when = (name: string) => timestamp(name, { withTimezone: true, mode: "string" });

/** Where copies of everything go; one row. */
export const copySettings = pgTable("copy_settings", {
  id: integer("id").primaryKey(),
  folder: text("folder").notNull(),
});

/** Every copy that was begun, and what came of it. */
export const copies = pgTable("copies", {
  id: serial("id").primaryKey(),
  startedAt: when("started_at").notNull().defaultNow(),
  endedAt: when("ended_at"),
  file: text("file"),
  bytes: bigint("bytes", { mode: "number" }),
  /** Whether it was restored elsewhere and was the same there. */
  isGood: boolean("is_good").notNull().default(false),
  why: text("why"),
});
