import { isSameJson } from "@true-spine/core/document/same.ts";
import type { TakenWork } from "@true-spine/core/registry/contract.ts";
import type { WorkRow } from "@true-spine/core/work/schema.ts";
import { asc, eq, inArray } from "drizzle-orm";
import { type Database, inTransaction } from "../database.ts";
import { Problem } from "../problem.ts";
import { workRows } from "../schema/work.ts";
import { mustBeThere } from "./documents.ts";

/** Everything recorded at a blade's work in the order it was; what was struck out is named apart. */
export async function readWork(db: Database, bladeId: string): Promise<TakenWork> {
  await mustBeThere(db, bladeId);
  const rows = await db
    .select({ row: workRows.row, struckAt: workRows.struckAt })
    .from(workRows)
    .where(eq(workRows.bladeId, bladeId))
    .orderBy(asc(workRows.recordedAt), asc(workRows.id));
  return {
    taken: rows.map(({ row }) => row),
    struck: rows.flatMap(({ row, struckAt }) => (struckAt ? [row.id] : [])),
  };
}

/**
 * Keeps rows, each once however often it is sent: all of them or none. Answers how many were new. Throws a 409 where one of them is
 * known as another blade's, or says something else.
 */
export async function keepWork(
  db: Database,
  bladeId: string,
  taken: readonly WorkRow[],
): Promise<{ kept: number }> {
  await mustBeThere(db, bladeId);
  if (taken.length === 0) return { kept: 0 };
  // In the order of their ids: the same rows sent twice at once never wait for each other crosswise.
  const inOrder = [...taken].sort((a, b) => (a.id < b.id ? -1 : 1));
  return inTransaction(db, async (tx) => {
    const fresh = await tx
      .insert(workRows)
      .values(
        inOrder.map((row) => ({
          id: row.id,
          bladeId,
          recordedAt: row.when,
          stage: row.stage,
          what: row.what,
          row,
        })),
      )
      .onConflictDoNothing()
      .returning({ id: workRows.id });
    const standing = await tx
      .select({ id: workRows.id, of: workRows.bladeId, row: workRows.row })
      .from(workRows)
      .where(
        inArray(
          workRows.id,
          inOrder.map(({ id }) => id),
        ),
      );
    const known = new Map(standing.map((one) => [one.id, one]));
    for (const row of inOrder) {
      const { of, row: kept } = known.get(row.id)!;
      if (of !== bladeId) throw new Problem(409, "One of these rows is known as another blade's.");
      if (!isSameJson(kept, row))
        throw new Problem(409, "One of these rows has an earlier one's id and says something else.");
    }
    return { kept: fresh.length };
  });
}
