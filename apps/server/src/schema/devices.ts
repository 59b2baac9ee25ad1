import type { Role } from "@true-spine/core/registry/contract.ts";
import { integer, pgTable, text, timestamp, uuid } from "drizzle-orm/pg-core";

const when = (name: string) => timestamp(name, { withTimezone: true, mode: "string" });

/** Devices that were let in. What they prove themselves by is kept as its SHA-256 only; one that was shut out stays, to be seen. */
export const devices = pgTable("devices", {
  id: uuid("id").primaryKey(),
  name: text("name").notNull(),
  role: text("role").$type<Role>().notNull(),
  tokenHash: text("token_hash").notNull().unique(),
  createdAt: when("created_at").notNull().defaultNow(),
  lastSeenAt: when("last_seen_at"),
  revokedAt: when("revoked_at"),
});

/** Codes by which one device may be let in, as their SHA-256: of one use, a few tries, and short life. */
export const pairingCodes = pgTable("pairing_codes", {
  codeHash: text("code_hash").primaryKey(),
  name: text("name").notNull(),
  role: text("role").$type<Role>().notNull(),
  triesLeft: integer("tries_left").notNull(),
  expiresAt: when("expires_at").notNull(),
  usedAt: when("used_at"),
});
