import { type SQL, sql } from "drizzle-orm";
import { type PgColumn, PgTimestampString } from "drizzle-orm/pg-core";
import type { Database } from "../database.ts";

/** A `T` as JSON, put together by the database: what leaves as it is need not be read here and written again. */
export type JsonOf<T> = string & { readonly of?: T };

export const read = <T>(answer: JsonOf<T>): T => JSON.parse(answer) as T;

/** Columns of a row as one object in JSON; times as they are otherwise given. */
export function jsonOf(columns: Readonly<Record<string, PgColumn>>): SQL<string> {
  const pairs = Object.entries(columns).map(([key, column]) => {
    const value = column instanceof PgTimestampString ? sql`${column}::text` : sql`${column}`;
    return sql`${sql.raw(`'${key}'`)}, ${value}`;
  });
  return sql<string>`json_build_object(${sql.join(pairs, sql`, `)})::text`;
}

/** Rows, each in JSON, as one list. */
export const listOf = <T>(rows: readonly { json: string }[]): JsonOf<T[]> =>
  `[${rows.map(({ json }) => json).join(",")}]`;

/** A question that is put over and over: written once for each database, and planned once by each of its connections. */
export function prepared<Query>(prepare: (db: Database) => Query): (db: Database) => Query {
  const queries = new WeakMap<Database, Query>();
  return (db) => {
    const query = queries.get(db) ?? prepare(db);
    queries.set(db, query);
    return query;
  };
}
