import type { CopyRow, CopyState } from "@true-spine/core/registry/contract.ts";
import { desc, eq, sql } from "drizzle-orm";
import { type Database, inTransaction } from "../database.ts";
import { OWN_COPIES } from "../places.ts";
import { copies, copySettings } from "../schema/copies.ts";

const ONLY = 1;
const MOST_SHOWN = 20;
/** One that has not ended after so long never will: what made it is gone. */
const ENDS_WITHIN = "2 hours";
/** Without a good copy for so long, the shop says so. */
export const LATE_AFTER = "7 days";

const isRunning = sql<boolean>`${copies.endedAt} is null and ${copies.startedAt} > now() - ${ENDS_WITHIN}::interval`;

/** Where copies go, what came of the last ones, and whether a good one is overdue. */
export async function readCopies(db: Database): Promise<CopyState> {
  const [settings] = await db.select().from(copySettings).limit(1);
  const rows: (CopyRow & { isRunning: boolean })[] = await db
    .select({
      startedAt: copies.startedAt,
      endedAt: copies.endedAt,
      file: copies.file,
      bytes: copies.bytes,
      isGood: copies.isGood,
      why: copies.why,
      isRunning,
    })
    .from(copies)
    .orderBy(desc(copies.id))
    .limit(MOST_SHOWN);
  const [last] = await db
    .select({
      at: copies.startedAt,
      isLate: sql<boolean>`${copies.startedAt} < now() - ${LATE_AFTER}::interval`,
    })
    .from(copies)
    .where(eq(copies.isGood, true))
    .orderBy(desc(copies.id))
    .limit(1);
  return {
    folder: settings?.folder ?? OWN_COPIES,
    isOwn: (settings?.folder ?? OWN_COPIES) === OWN_COPIES,
    lastGood: last?.at ?? null,
    isLate: last?.isLate ?? true,
    isRunning: rows.some((row) => row.isRunning),
    rows: rows.map(({ isRunning: _, ...row }) => row),
  };
}

export async function nameFolder(db: Database, folder: string): Promise<void> {
  await db
    .insert(copySettings)
    .values({ id: ONLY, folder })
    .onConflictDoUpdate({ target: copySettings.id, set: { folder } });
}

/** Notes that a copy is begun; null where one is being made, or where `isWanted` says no once nobody else can begin one. */
export async function beginCopy(
  db: Database,
  isWanted: (state: CopyState) => boolean = () => true,
): Promise<{ id: number; folder: string } | null> {
  return inTransaction(db, async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtext('copies'))`);
    const state = await readCopies(tx as Database);
    if (state.isRunning || !isWanted(state)) return null;
    const [made] = await tx.insert(copies).values({}).returning({ id: copies.id });
    return { id: made!.id, folder: state.folder };
  });
}

export async function endCopy(
  db: Database,
  id: number,
  came: { file: string; bytes: number } | { why: string },
): Promise<void> {
  const isGood = "file" in came;
  await db
    .update(copies)
    .set({ endedAt: sql`now()`, isGood, ...came })
    .where(eq(copies.id, id));
}
