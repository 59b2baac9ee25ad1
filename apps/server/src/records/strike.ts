import { and, asc, eq, inArray, isNotNull, isNull } from "drizzle-orm";
import { type Database, inTransaction } from "../database.ts";
import type { readings } from "../schema/readings.ts";
import type { workRows } from "../schema/work.ts";
import { mustBeThere } from "./documents.ts";

/** Strikes rows of a blade out, or puts them back; none is ever deleted. */
export async function strikeRows(
  db: Database,
  table: typeof readings | typeof workRows,
  bladeId: string,
  ids: readonly string[],
  isStruck: boolean,
): Promise<void> {
  await mustBeThere(db, bladeId);
  await inTransaction(db, async (tx) => {
    const rows = and(
      eq(table.bladeId, bladeId),
      inArray(table.id, [...ids]),
      isStruck ? isNull(table.struckAt) : isNotNull(table.struckAt),
    );
    // Locked in the order of their ids: two that strike the same rows never wait for each other crosswise.
    await tx.select({ id: table.id }).from(table).where(rows).orderBy(asc(table.id)).for("update");
    await tx
      .update(table)
      .set({ struckAt: isStruck ? new Date().toISOString() : null })
      .where(rows);
  });
}
