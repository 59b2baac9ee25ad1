import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { BladeState, Summary } from "@true-spine/core/registry/contract.ts";
import type { DocumentKind, Documents } from "@true-spine/core/registry/documents.ts";
import { sql } from "drizzle-orm";
import {
  check,
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

const when = (name: string) => timestamp(name, { withTimezone: true, mode: "string" });

/** A blade: which revision stands, and what is not part of its geometry. */
export const blades = pgTable(
  "blades",
  {
    id: uuid("id").primaryKey(),
    name: text("name").notNull(),
    use: text("use"),
    steel: text("steel"),
    state: text("state").$type<BladeState>().notNull().default("design"),
    revision: integer("revision").notNull(),
    summary: jsonb("summary").$type<Summary>().notNull(),
    createdAt: when("created_at").notNull().defaultNow(),
    updatedAt: when("updated_at").notNull().defaultNow(),
    archivedAt: when("archived_at"),
    deletedAt: when("deleted_at"),
    /** What a search looks in, one to a line, in small letters: written down once and not each time that one is looked for. */
    words: text("words").generatedAlwaysAs(
      sql`lower(name || chr(10) || coalesce(use, '') || chr(10) || coalesce(steel, '') || chr(10) || state)`,
    ),
  },
  (table) => [
    // The rack in its order: which are on a page, how many stand there and what is looked for are read from the index alone.
    index("blades_on_rack")
      .on(table.updatedAt, table.id, table.words)
      .where(sql`${table.deletedAt} is null and ${table.archivedAt} is null`),
    index("blades_updated").on(table.updatedAt),
    check("blades_state", sql`${table.state} in ('design', 'in work', 'finished')`),
  ],
);

/** Every file a blade has ever been. Rows are only ever added; a label may be set later. */
export const revisions = pgTable(
  "revisions",
  {
    bladeId: uuid("blade_id")
      .notNull()
      .references(() => blades.id, { onDelete: "cascade" }),
    number: integer("number").notNull(),
    file: jsonb("file").$type<Blade>().notNull(),
    /** Made up by whoever saves, so that a save sent twice is one revision. */
    saveKey: uuid("save_key").notNull(),
    label: text("label"),
    createdAt: when("created_at").notNull().defaultNow(),
  },
  (table) => [
    primaryKey({ columns: [table.bladeId, table.number] }),
    uniqueIndex("revisions_save_key").on(table.bladeId, table.saveKey),
  ],
);

/** Every state of the documents that belong to a blade. Rows are only ever added; the highest number stands. */
export const documents = pgTable(
  "documents",
  {
    bladeId: uuid("blade_id")
      .notNull()
      .references(() => blades.id, { onDelete: "cascade" }),
    kind: text("kind").$type<DocumentKind>().notNull(),
    number: integer("number").notNull(),
    file: jsonb("file").$type<Documents[DocumentKind]>().notNull(),
    /** Made up by whoever saves, so that a save sent twice is one state. */
    saveKey: uuid("save_key").notNull(),
    createdAt: when("created_at").notNull().defaultNow(),
  },
  (table) => [
    primaryKey({ columns: [table.bladeId, table.kind, table.number] }),
    uniqueIndex("documents_save_key").on(table.bladeId, table.kind, table.saveKey),
  ],
);
