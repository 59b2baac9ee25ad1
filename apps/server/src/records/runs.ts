import type { RunReadings, RunRow } from "@true-spine/core/contract.ts";
import type { Run } from "@true-spine/core/inspect/run-schema.ts";
import { spotKey } from "@true-spine/core/inspect/schema.ts";
import { and, desc, eq, inArray, isNull } from "drizzle-orm";
import type { Database, Transaction } from "../database.ts";
import { notFound, Problem } from "../problem.ts";
import { blades, revisions } from "../schema/blades.ts";
import { runs } from "../schema/readings.ts";
import { readingsOf } from "./readings.ts";

/** Every run that was not thrown away, newest change first. */
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

/** A run as it stands; a 404 where there is none, or it was thrown away. */
export async function readRun(db: Database, id: string): Promise<RunRow> {
  const { file, ...row } = await standing(db, id);
  if (!file) throw notFound("run");
  return { id, ...row, file };
}

/** Saves a run as its next state, if `base` is the one that stands; the same save sent again answers as the first did. */
export async function saveRun(
  db: Database,
  id: string,
  save: { file: Run | null; base: number; saveKey: string },
): Promise<{ revision: number }> {
  return db.transaction(async (tx) => {
    const [already] = await tx
      .select({ number: runs.number })
      .from(runs)
      .where(and(eq(runs.id, id), eq(runs.saveKey, save.saveKey)));
    if (already) return { revision: already.number };
    const stands = await standing(tx, id);
    if (stands.revision !== save.base) {
      throw new Problem(409, "Someone else has saved this run in the meantime.", { ...stands });
    }
    const number = stands.revision + 1;
    // Two saves at once on the same number: the key of the table lets one through.
    const [row] = await tx
      .insert(runs)
      .values({ id, number, file: save.file, saveKey: save.saveKey })
      .onConflictDoNothing()
      .returning({ number: runs.number });
    if (!row)
      throw new Problem(409, "Someone else has saved this run in the meantime.", {
        ...(await standing(tx, id)),
      });
    return { revision: number };
  });
}

/** A run with its blades' names and what was read at its places. Blades thrown away since are left out. */
export async function readRunReadings(db: Database, id: string): Promise<RunReadings> {
  const run = await readRun(db, id);
  const { file } = run;
  const rows =
    file.blades.length === 0
      ? []
      : await db
          .select({ id: blades.id, name: blades.name, revision: blades.revision, file: revisions.file })
          .from(blades)
          .innerJoin(revisions, and(eq(revisions.bladeId, blades.id), eq(revisions.number, blades.revision)))
          .where(and(inArray(blades.id, file.blades), isNull(blades.deletedAt)));
  const there = new Map(rows.map((row) => [row.id, row]));
  const inOrder = file.blades.flatMap((blade) => there.get(blade) ?? []);
  const places = file.places.map(({ stage, spot }) => ({ stage, spot: spotKey(spot) }));
  return {
    ...run,
    blades: inOrder.map(({ id: blade, name }) => ({ id: blade, name })),
    // All are of one specification: bands are worked out from the first of them.
    specification: inOrder[0] ? { id: inOrder[0].id, file: inOrder[0].file } : null,
    readings: await readingsOf(
      db,
      inOrder.map(({ id: blade }) => blade),
      places,
    ),
  };
}
