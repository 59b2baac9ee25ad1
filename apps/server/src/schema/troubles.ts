import { pgTable, serial, text, timestamp } from "drizzle-orm/pg-core";

/** What a server did wrong, for whoever looks after it; the last ones only. */
export const troubles = pgTable("troubles", {
  id: serial("id").primaryKey(),
  at: timestamp("at", { withTimezone: true, mode: "string" }).notNull().defaultNow(),
  what: text("what").notNull(),
  /** What was asked, without what was sent. */
  where: text("where"),
});
