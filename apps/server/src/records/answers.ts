import { createHash } from "node:crypto";
import { type SQL, sql } from "drizzle-orm";
import { type PgColumn, PgTimestampString } from "drizzle-orm/pg-core";
import type { Database } from "../database.ts";

/** A `T` as JSON, put together by the database: what leaves as it is need not be read here and written again. */
export type JsonOf<T> = string & { readonly of?: T };

export const read = <T>(answer: JsonOf<T>): T => JSON.parse(answer) as T;

/** JSON as it goes out, and what it is known by. */
export interface Tagged<T> {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly etag: string;
  readonly of?: T;
}

export function tagged<T>(json: JsonOf<T>): Tagged<T> {
  const bytes = new TextEncoder().encode(json);
  return { bytes, etag: `"${createHash("sha1").update(bytes).digest("base64url")}"` };
}

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

/**
 * A large question that many put at once, as every screen does when a blade is saved. Those that are the same and come while one is being
 * answered wait for its end and share the next answer: it is asked for after all of them, so nobody is told how things stood before.
 */
export function shared<Question, Answer>(
  answer: (db: Database, question: Question) => Promise<Answer>,
): (db: Database, question: Question) => Promise<Answer> {
  interface Asked {
    readonly now: Promise<Answer>;
    next: Promise<Answer> | null;
  }
  const all = new WeakMap<Database, Map<string, Asked>>();
  return (db, question) => {
    const asked = all.get(db) ?? new Map<string, Asked>();
    all.set(db, asked);
    const key = JSON.stringify(question);
    const begin = () => {
      const mine: Asked = { now: answer(db, question), next: null };
      asked.set(key, mine);
      const end = () => mine.next === null && asked.delete(key);
      mine.now.then(end, end);
      return mine.now;
    };
    const standing = asked.get(key);
    if (!standing) return begin();
    standing.next ??= standing.now.then(begin, begin);
    return standing.next;
  };
}
