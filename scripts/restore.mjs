import { resolve } from "node:path";
import { readCopy, restoreInto } from "./copies.mjs";
import { openProjectCluster } from "./database.mjs";
import { Plain, say } from "./plain.mjs";
import { run, setUp } from "./setup.mjs";

const NAME = "true_spine";

/**
 * Puts a copy in the place of what stands: `npm run restore -- FILE`. What stood stays in the same cluster under another name; a copy of
 * an earlier version is brought up to date by the next start.
 */
run(async () => {
  const [file] = process.argv.slice(2);
  if (!file) throw new Plain("npm run restore -- FILE");
  await setUp();
  const { made, tables } = await readCopy(resolve(file));
  const cluster = process.env.DATABASE_URL ? null : await openProjectCluster();
  const admin = process.env.DATABASE_URL ?? cluster?.url("postgres");
  try {
    const fresh = `${NAME}_restoring_${process.pid}`;
    await restoreInto(admin, fresh, resolve(file), tables);
    const before = await putInPlace(admin, fresh);
    say(
      `What was copied on ${made} stands again: ${tables.map(({ name, count }) => `${name} ${count}`).join(", ")}.`,
    );
    if (before) say(`What stood before is kept as the database ${before}.`);
    return 0;
  } finally {
    await cluster?.stop();
  }
});

/** Swaps the databases' names; refused while anybody is connected to the one that stands. */
async function putInPlace(admin, fresh) {
  const { Client } = (await import("pg")).default;
  const client = new Client({ connectionString: admin });
  await client.connect();
  try {
    const name = (one) => client.escapeIdentifier(one);
    const stands =
      (await client.query("select 1 from pg_database where datname = $1", [NAME])).rows.length > 0;
    const before = `${NAME}_before_${new Date().toISOString().replace(/\D/g, "").slice(0, 14)}`;
    try {
      if (stands) await client.query(`alter database ${name(NAME)} rename to ${name(before)}`);
    } catch {
      await client.query(`drop database ${name(fresh)}`);
      throw new Plain("True Spine runs on it just now: stop it, then restore. Nothing was changed.");
    }
    await client.query(`alter database ${name(fresh)} rename to ${name(NAME)}`);
    return stands ? before : null;
  } finally {
    await client.end();
  }
}
