import { execFile } from "node:child_process";
import { createHash } from "node:crypto";
import {
  createReadStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { isAbsolute, join } from "node:path";
import { pipeline } from "node:stream/promises";
import { promisify } from "node:util";
import { openThrowawayCluster, serverBinaries } from "./database.mjs";
import { Plain } from "./plain.mjs";

/** Copies of everything: a dump of the database, and beside it what it holds, table by table, by count and checksum. */
const NAME = /^true-spine-(\d{4}-\d{2}-\d{2}T\d{6})Z\.dump$/;
const KEPT = { days: 7, weeks: 4, months: 12 };
const DAY_MS = 24 * 3600 * 1000;
const run = promisify(execFile);

/**
 * Copies the database that `url` points to into a folder, restores the copy into a cluster of its own and compares it there, and only
 * then gives it its name; older copies are thinned out. Throws a Plain that says why it is none.
 */
export async function makeCopy({ url, folder, now = new Date() }) {
  if (!isAbsolute(folder)) throw new Plain("Name the folder whole, from the root.");
  try {
    // One folder, in one that is there: a disk that is not plugged in is not made up.
    if (!existsSync(folder)) mkdirSync(folder);
  } catch (error) {
    throw new Plain(`The folder ${folder} cannot be made: ${error.message}`);
  }
  const stamp = now.toISOString().replace(/:|\.\d+Z$/g, "");
  const file = join(folder, `true-spine-${stamp}Z.dump`);
  const beside = `${file}.unchecked`;
  try {
    const tables = await dumped(url, beside);
    await verify(beside, tables);
    const bytes = statSync(beside).size;
    const about = {
      format: "true-spine/copy",
      version: 1,
      made: now.toISOString(),
      sha256: await sha256(beside),
      bytes,
      tables,
    };
    writeFileSync(`${file}.json`, `${JSON.stringify(about, null, 2)}\n`);
    renameSync(beside, file);
    thinOut(folder);
    return { file, bytes, tables };
  } catch (error) {
    throw error instanceof Plain ? error : new Plain(`The copy could not be made: ${wordsOf(error)}`);
  } finally {
    rmSync(beside, { force: true });
  }
}

/** Dumps a database into a file, and counts it as it stood at that very moment. */
async function dumped(url, file) {
  const { Client } = (await import("pg")).default;
  const client = new Client({ connectionString: url });
  client.on("error", () => {});
  await client.connect();
  try {
    await client.query("begin isolation level repeatable read read only");
    const { rows } = await client.query("select pg_export_snapshot() as snapshot");
    const tables = await sumsOf(client);
    await tool(
      "pg_dump",
      ["--format=custom", "--no-owner", `--snapshot=${rows[0].snapshot}`, `--file=${file}`],
      url,
    );
    return tables;
  } finally {
    await client.end();
  }
}

/** Every table by name, how many rows it has, and a sum over all of them that no order changes. */
export async function sumsOf(client) {
  await client.query("set timezone to 'UTC'");
  const { rows } = await client.query(
    "select schemaname as schema, tablename as name from pg_tables where schemaname not in ('pg_catalog', 'information_schema') order by 1, 2",
  );
  const tables = [];
  for (const { schema, name } of rows) {
    const table = `${client.escapeIdentifier(schema)}.${client.escapeIdentifier(name)}`;
    const sums = await client.query(
      `select count(*)::text as count, coalesce(sum(hashtextextended(t::text, 0)::numeric), 0)::text as sum from ${table} t`,
    );
    tables.push({ name: `${schema}.${name}`, count: Number(sums.rows[0].count), sum: sums.rows[0].sum });
  }
  return tables;
}

/** Restores a copy into a throwaway cluster and compares every table. Throws where one differs. */
async function verify(file, tables) {
  const cluster = await openThrowawayCluster([], tmpdir());
  try {
    await restoreInto(cluster.url("postgres"), "copy", file, tables);
  } finally {
    await cluster.stop();
  }
}

/** Makes a database of a copy, and compares it with what stands beside the copy. Throws a Plain where it differs. */
export async function restoreInto(admin, name, file, tables) {
  const { Client } = (await import("pg")).default;
  const maker = new Client({ connectionString: admin });
  await maker.connect();
  try {
    await maker.query(`create database ${maker.escapeIdentifier(name)}`);
  } finally {
    await maker.end();
  }
  const url = new URL(admin);
  url.pathname = `/${name}`;
  await tool("pg_restore", ["--no-owner", "--exit-on-error", `--dbname=${url.href}`, file]);
  const client = new Client({ connectionString: url.href });
  await client.connect();
  try {
    const restored = new Map((await sumsOf(client)).map((table) => [table.name, table]));
    for (const { name: table, count, sum } of tables) {
      const there = restored.get(table);
      if (!there || there.count !== count || there.sum !== sum) {
        throw new Plain(
          `Restored, ${table} has ${there?.count ?? "no"} rows of ${count}, or other ones: the copy is not good.`,
        );
      }
    }
  } finally {
    await client.end();
  }
}

/** What a copy is said to hold by the file beside it, once its own bytes are as they were written. */
export async function readCopy(file) {
  if (!existsSync(file)) throw new Plain(`There is no ${file}.`);
  if (!existsSync(`${file}.json`))
    throw new Plain(`${file}.json is missing, which says what the copy holds: it cannot be checked.`);
  let about;
  try {
    about = JSON.parse(readFileSync(`${file}.json`, "utf8"));
  } catch {
    throw new Plain(`${file}.json cannot be read.`);
  }
  if (about.format !== "true-spine/copy") throw new Plain(`${file} is no copy of True Spine.`);
  if (about.version !== 1) throw new Plain(`${file} was made by a newer True Spine than this one.`);
  if ((await sha256(file)) !== about.sha256)
    throw new Plain(`${file} is not as it was written: its checksum differs.`);
  return about;
}

/** The copies that stay: the newest of each of the last 7 days, 4 weeks and 12 months that have one. Newest first. */
export function keptOf(times) {
  const newestFirst = [...times].sort((a, b) => b - a);
  const kept = new Set();
  const keep = (most, periodOf) => {
    const periods = new Set();
    for (const time of newestFirst) {
      const period = periodOf(new Date(time));
      if (periods.has(period) || periods.size === most) continue;
      periods.add(period);
      kept.add(time);
    }
  };
  keep(KEPT.days, (day) => day.toISOString().slice(0, 10));
  // Weeks begin on Monday; 1970 began on a Thursday.
  keep(KEPT.weeks, (day) => Math.floor((day.getTime() / DAY_MS + 3) / 7));
  keep(KEPT.months, (day) => day.toISOString().slice(0, 7));
  return newestFirst.filter((time) => kept.has(time));
}

/** Deletes copies that no longer stay; a file that is no copy is not touched. */
function thinOut(folder) {
  const files = readdirSync(folder).flatMap((name) => {
    const stamp = NAME.exec(name)?.[1];
    return stamp && existsSync(join(folder, `${name}.json`)) ? [{ name, time: timeOf(stamp) }] : [];
  });
  const kept = new Set(keptOf(files.map(({ time }) => time)));
  for (const { name, time } of files) {
    if (kept.has(time)) continue;
    for (const one of [name, `${name}.json`]) rmSync(join(folder, one), { force: true });
  }
}

const timeOf = (stamp) => Date.parse(`${stamp.slice(0, 13)}:${stamp.slice(13, 15)}:${stamp.slice(15)}Z`);

async function sha256(file) {
  const hash = createHash("sha256");
  await pipeline(createReadStream(file), hash);
  return hash.digest("hex");
}

/** One of PostgreSQL's own programs; `url` is handed over by the environment, where no list of processes shows it. */
async function tool(name, args, url) {
  const bin = serverBinaries();
  if (!bin) throw new Plain("PostgreSQL's programs are not installed here.");
  const dbname = args.find((arg) => arg.startsWith("--dbname="))?.slice("--dbname=".length) ?? url;
  const { hostname, port, username, password, pathname, searchParams } = new URL(dbname);
  const env = {
    ...process.env,
    PGHOST: hostname,
    PGPORT: port || "5432",
    PGUSER: decodeURIComponent(username),
    PGPASSWORD: decodeURIComponent(password),
    PGDATABASE: pathname.slice(1),
    ...(searchParams.has("sslmode") ? { PGSSLMODE: searchParams.get("sslmode") ?? "" } : {}),
  };
  const rest = args.filter((arg) => !arg.startsWith("--dbname="));
  const target = name === "pg_restore" ? [`--dbname=${env.PGDATABASE}`] : [];
  await run(join(bin, name), [...target, ...rest], { env, maxBuffer: 2 ** 24 });
}

const wordsOf = (error) =>
  (error.stderr || error.message || String(error)).trim().split("\n").slice(-3).join(" ");
