import { randomUUID } from "node:crypto";
import type { Run } from "@true-spine/core/inspect/run-schema.ts";
import { spotKey } from "@true-spine/core/inspect/schema.ts";
import type { DeletedRow, RunReadings, RunRow } from "@true-spine/core/registry/contract.ts";
import { and, desc, eq, gt, inArray, isNotNull, isNull, sql } from "drizzle-orm";
import { type Database, inTransaction, type Transaction } from "../database.ts";
import { notFound, Problem } from "../problem.ts";
import { blades, revisions } from "../schema/blades.ts";
import { runs } from "../schema/readings.ts";
import { shared, type Tagged, tagged } from "./answers.ts";
import { KEPT_FOR } from "./kept-for.ts";
import { readingsOf } from "./readings.ts";

/** Every run that was not deleted, newest change first. */
export async function listRuns(db: Database): Promise<RunRow[]> {
  const rows = await db
    .selectDistinctOn([runs.id], {
      id: runs.id,
      revision: runs.number,
      file: runs.file,
      updatedAt: runs.createdAt,
    })
    .from(runs)
    .orderBy(runs.id, desc(runs.number));
  return rows
    .flatMap(({ file, ...row }) => (file ? [{ ...row, file }] : []))
    .sort((a, b) => b.updatedAt.localeCompare(a.updatedAt));
}

async function standing(db: Database | Transaction, id: string) {
  const [row] = await db
    .select({ revision: runs.number, file: runs.file, updatedAt: runs.createdAt })
    .from(runs)
    .where(eq(runs.id, id))
    .orderBy(desc(runs.number))
    .limit(1);
  return row ?? { revision: 0, file: null, updatedAt: "" };
}

/** A run as it stands; a 404 where there is none, or it was deleted. */
export async function readRun(db: Database, id: string): Promise<RunRow> {
  const { file, ...row } = await standing(db, id);
  if (!file) throw notFound("run");
  return { id, ...row, file };
}

/** Saves a run as its next state, if `base` is the one that stands; the same save sent again answers as the first did. */
export async function saveRun(
  db: Database,
  id: string,
  save: { file: Run; base: number; saveKey: string },
): Promise<{ revision: number }> {
  return inTransaction(db, async (tx) => {
    await lock(tx, id);
    const [already] = await tx
      .select({ number: runs.number })
      .from(runs)
      .where(and(eq(runs.id, id), eq(runs.saveKey, save.saveKey)));
    if (already) return { revision: already.number };
    const stands = await standing(tx, id);
    if (stands.revision > 0 && !stands.file) throw notFound("run");
    if (stands.revision !== save.base) {
      throw new Problem(409, "Someone else has saved this run in the meantime.", { ...stands });
    }
    return { revision: await add(tx, id, stands.revision + 1, save.file, save.saveKey) };
  });
}

/** Deletes a run: its states stay, and it can be taken back. */
export async function deleteRun(db: Database, id: string): Promise<void> {
  await inTransaction(db, async (tx) => {
    await lock(tx, id);
    const stands = await standing(tx, id);
    if (stands.revision === 0) throw notFound("run");
    if (stands.file) await add(tx, id, stands.revision + 1, null);
  });
}

/** Takes a deleted run back, as it last stood. */
export async function takeBackRun(db: Database, id: string): Promise<void> {
  await inTransaction(db, async (tx) => {
    await lock(tx, id);
    const stands = await standing(tx, id);
    if (stands.file) return;
    const [last] = await tx
      .select({ file: runs.file })
      .from(runs)
      .where(and(eq(runs.id, id), isNotNull(runs.file)))
      .orderBy(desc(runs.number))
      .limit(1);
    if (!last) throw notFound("run");
    await add(tx, id, stands.revision + 1, last.file);
  });
}

/** Runs deleted within the last 30 days, the newest first. */
export async function listDeletedRuns(db: Database): Promise<DeletedRow[]> {
  const last = db
    .selectDistinctOn([runs.id], { id: runs.id, file: runs.file, deletedAt: runs.createdAt })
    .from(runs)
    .orderBy(runs.id, desc(runs.number))
    .as("last");
  const named = db
    .selectDistinctOn([runs.id], { id: runs.id, name: sql<string>`${runs.file} ->> 'name'`.as("name") })
    .from(runs)
    .where(isNotNull(runs.file))
    .orderBy(runs.id, desc(runs.number))
    .as("named");
  return db
    .select({ id: last.id, name: named.name, deletedAt: last.deletedAt })
    .from(last)
    .innerJoin(named, eq(named.id, last.id))
    .where(and(isNull(last.file), gt(last.deletedAt, sql`now() - ${KEPT_FOR}::interval`)))
    .orderBy(desc(last.deletedAt));
}

/** One save of a run at a time; there is no row to lock before its first. */
async function lock(tx: Transaction, id: string): Promise<void> {
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`run ${id}`}, 0))`);
}

async function add(
  tx: Transaction,
  id: string,
  number: number,
  file: Run | null,
  saveKey: string = randomUUID(),
): Promise<number> {
  await tx.insert(runs).values({ id, number, file, saveKey });
  return number;
}

/** A run with its blades' names and what was read at its places, in JSON. Blades deleted since are left out. */
export const readRunReadings = shared(async (db, id: string): Promise<Tagged<RunReadings>> => {
  const { file, ...run } = await readRun(db, id);
  const rows = await db
    .select({ id: blades.id, name: blades.name })
    .from(blades)
    .where(and(inArray(blades.id, file.blades), isNull(blades.deletedAt)));
  const names = new Map(rows.map(({ id: blade, name }) => [blade, name]));
  const there = file.blades.filter((blade) => names.has(blade));
  const places = file.places.map(({ stage, spot }) => ({ stage, spot: spotKey(spot) }));
  const named = there.map((blade) => ({ id: blade, name: names.get(blade)! }));
  // All are of one specification: bands are worked out from the first of them.
  const specification = there[0] === undefined ? null : await fileOf(db, there[0]);
  const readings = await readingsOf(db, there, places);
  const head: Omit<RunReadings, "readings"> = { ...run, file, blades: named, specification };
  return tagged(`${JSON.stringify(head).slice(0, -1)},"readings":${readings}}`);
});

async function fileOf(db: Database, id: string): Promise<RunReadings["specification"]> {
  const [row] = await db
    .select({ file: revisions.file })
    .from(revisions)
    .innerJoin(blades, and(eq(revisions.bladeId, blades.id), eq(revisions.number, blades.revision)))
    .where(eq(blades.id, id));
  return row ? { id, file: row.file } : null;
}
