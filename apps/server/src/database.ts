import { setTimeout as pause } from "node:timers/promises";
import { sql } from "drizzle-orm";
import { drizzle, type NodePgDatabase } from "drizzle-orm/node-postgres";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { Client, escapeIdentifier, Pool } from "pg";
import { codeOf, isDatabaseAway } from "./database-away.ts";
import { MIGRATIONS } from "./places.ts";

export type Transaction = NodePgDatabase;
export type Database = NodePgDatabase & { $client: Pool };

const NAME = "true_spine";
const MOST_CONNECTIONS = 8;
/** A database that is busy is waited for so long, one that hangs no longer. */
const CONNECT_WITHIN_MS = 5000;
const STATEMENT_WITHIN_MS = 15_000;
const LOCK_WITHIN_MS = 5000;
const IDLE_IN_TRANSACTION_MS = 20_000;
/** Past the server's own limit: what answers then is no server any more. */
const ANSWER_WITHIN_MS = STATEMENT_WITHIN_MS + 5000;
const HEALTH_WITHIN_MS = 3000;
const HEAR_AGAIN_MS = 1000;
const UP_WITHIN_MS = 60_000;
/** Two transactions that wait for each other: one is undone by PostgreSQL and may be done again. */
const UNDONE = new Set(["40001", "40P01"]);
const TRIES = 4;

export interface OpenDatabase {
  readonly db: Database;
  /** Where it is. */
  readonly url: string;
  /** Hears what is told on a channel, from whichever server; `onBack` when words may have been missed. Answers with how to stop. */
  hear(channel: string, onWords: (words: string) => void, onBack: () => void): () => Promise<void>;
  close(): Promise<void>;
}

/**
 * Opens the product's database on the server that `url` points to, making and migrating it as needed; waits a minute for
 * one that is just starting. `name` lets tests have one each.
 */
export async function openDatabase(url: string, name = NAME): Promise<OpenDatabase> {
  const own = new URL(url);
  own.pathname = `/${name}`;
  await patiently(() => prepare(url, name, own.href));
  const pool = new Pool(limitsOf(own.href));
  listenTo(pool);
  const db = drizzle(pool);
  return {
    db,
    url: own.href,
    hear: (channel, onWords, onBack) => hear(own.href, channel, onWords, onBack),
    close: () => pool.end(),
  };
}

/** Opens a copy of the product's database that is kept up by PostgreSQL itself, to read from alone. Nothing is made or migrated there. */
export function openReplica(url: string, name = NAME): Omit<OpenDatabase, "hear"> {
  const own = new URL(url);
  own.pathname = `/${name}`;
  const pool = new Pool({ ...limitsOf(own.href), options: "-c default_transaction_read_only=on" });
  listenTo(pool);
  return { db: drizzle(pool), url: own.href, close: () => pool.end() };
}

/**
 * What a list reads: from the replica where there is one, and from the database itself where the replica is away. Throws what the reading throws.
 */
export async function listed<T>(
  { db, lists }: { db: Database; lists?: Database | null },
  read: (from: Database) => Promise<T>,
): Promise<T> {
  if (!lists) return read(db);
  try {
    return await read(lists);
  } catch (error) {
    if (!isDatabaseAway(error)) throw error;
    return read(db);
  }
}

const limitsOf = (url: string) => ({
  connectionString: url,
  max: MOST_CONNECTIONS,
  connectionTimeoutMillis: CONNECT_WITHIN_MS,
  statement_timeout: STATEMENT_WITHIN_MS,
  lock_timeout: LOCK_WITHIN_MS,
  idle_in_transaction_session_timeout: IDLE_IN_TRANSACTION_MS,
  query_timeout: ANSWER_WITHIN_MS,
  keepAlive: true,
});

/** A connection may break while it is idle or while it is lent; without a listener either would end the process. */
function listenTo(pool: Pool): void {
  pool.on("error", () => {});
  pool.on("connect", (client) => client.on("error", () => {}));
}

/** LISTEN on a connection of its own, made again for as long as it is wanted. */
function hear(
  url: string,
  channel: string,
  onWords: (words: string) => void,
  onBack: () => void,
): () => Promise<void> {
  let isOver = false;
  let client: Client | null = null;
  const begin = async () => {
    if (isOver) return;
    const lost = () => setTimeout(() => void begin(), HEAR_AGAIN_MS).unref();
    try {
      client = await connected(url);
      client.on("notification", ({ payload }) => onWords(payload ?? ""));
      client.on("end", lost);
      await client.query(`listen ${escapeIdentifier(channel)}`);
      onBack();
    } catch {
      if (client?.listenerCount("end") === 0 || !client) lost();
      else await client.end().catch(() => {});
    }
  };
  const begun = begin();
  return async () => {
    isOver = true;
    await begun;
    await client?.end().catch(() => {});
  };
}

/**
 * Does work as one transaction: all of it or nothing. Done again where PostgreSQL undid it for another's sake. Throws what the work
 * throws; a connection that broke is not lent again.
 */
export async function inTransaction<T>(db: Database, work: (tx: Transaction) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    const client = await db.$client.connect();
    let broken: Error | undefined;
    try {
      await client.query("begin");
      const result = await work(drizzle(client));
      await client.query("commit");
      return result;
    } catch (error) {
      await client.query("rollback").catch((problem: Error) => {
        broken = problem;
      });
      if (!UNDONE.has(codeOf(error) ?? "") || tries === TRIES) throw error;
    } finally {
      client.release(broken);
    }
  }
}

/** Whether the database answers, within a moment. Never throws. */
export async function isAnswering(db: Database): Promise<boolean> {
  const tooLate = pause(HEALTH_WITHIN_MS, false, { ref: false });
  const asked = db.execute(sql`select 1`).then(
    () => true,
    () => false,
  );
  return Promise.race([asked, tooLate]);
}

async function patiently(doing: () => Promise<void>): Promise<void> {
  for (const end = Date.now() + UP_WITHIN_MS; ; ) {
    try {
      await doing();
      return;
    } catch (error) {
      if (!isDatabaseAway(error) || Date.now() > end) throw error;
      await pause(500);
    }
  }
}

/** One server at a time makes and migrates: whoever comes later finds it done. Held by its connection, and gone with it. */
const PREPARING = 7_419_020;

async function prepare(url: string, name: string, own: string): Promise<void> {
  const client = await connected(url);
  try {
    await client.query("select pg_advisory_lock($1)", [PREPARING]);
    const found = await client.query("select 1 from pg_database where datname = $1", [name]);
    if (found.rowCount === 0) await client.query(`create database ${escapeIdentifier(name)}`);
    const migrating = await connected(own);
    try {
      await migrate(drizzle(migrating), { migrationsFolder: MIGRATIONS });
    } finally {
      await migrating.end().catch(() => {});
    }
  } finally {
    await client.end().catch(() => {});
  }
}

async function connected(url: string): Promise<Client> {
  const client = new Client({ connectionString: url, connectionTimeoutMillis: CONNECT_WITHIN_MS });
  client.on("error", () => {});
  await client.connect();
  return client;
}
