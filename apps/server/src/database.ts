import { fileURLToPath } from "node:url";
import { drizzle, type NodePgDatabase } from "drizzle-orm/node-postgres";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { Client, escapeIdentifier, Pool } from "pg";

export type Database = NodePgDatabase;
export type Transaction = Parameters<Parameters<Database["transaction"]>[0]>[0];

const NAME = "true_spine";
const MIGRATIONS = fileURLToPath(new URL("../migrations", import.meta.url));

export interface OpenDatabase {
  readonly db: Database;
  close(): Promise<void>;
}

/**
 * Opens the product's database on the server that `url` points to, making and migrating it as needed.
 * `name` lets tests have one each.
 */
export async function openDatabase(url: string, name = NAME): Promise<OpenDatabase> {
  await makeDatabase(url, name);
  const own = new URL(url);
  own.pathname = `/${name}`;
  const pool = new Pool({ connectionString: own.href, max: 8, statement_timeout: 15_000 });
  // A broken idle connection is replaced by the pool; without a listener it would end the process.
  pool.on("error", () => {});
  const db = drizzle(pool);
  await migrate(db, { migrationsFolder: MIGRATIONS });
  return { db, close: () => pool.end() };
}

async function makeDatabase(url: string, name: string): Promise<void> {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    const found = await client.query("select 1 from pg_database where datname = $1", [name]);
    if (found.rowCount === 0) await client.query(`create database ${escapeIdentifier(name)}`);
  } finally {
    await client.end();
  }
}
