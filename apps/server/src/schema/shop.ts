import type { Shop } from "@true-spine/core/shop/schema.ts";
import { integer, jsonb, pgTable, timestamp, uuid } from "drizzle-orm/pg-core";

/** Every state of the shop. Rows are only ever added; the highest number stands. */
export const shops = pgTable("shops", {
  number: integer("number").primaryKey(),
  file: jsonb("file").$type<Shop>().notNull(),
  /** Made up by whoever saves, so that a save sent twice is one state. */
  saveKey: uuid("save_key").notNull().unique(),
  createdAt: timestamp("created_at", { withTimezone: true, mode: "string" }).notNull().defaultNow(),
});
