import { randomUUID } from "node:crypto";
import { isDeepStrictEqual } from "node:util";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type {
  BladeRow,
  BladeState,
  BladeWithFile,
  DeletedRow,
  RevisionRow,
} from "@true-spine/core/registry/contract.ts";
import { and, desc, eq, gt, ilike, isNotNull, isNull, or, sql } from "drizzle-orm";
import { type Database, inTransaction } from "../database.ts";
import { notFound, Problem } from "../problem.ts";
import { blades, revisions } from "../schema/blades.ts";
import { besideOf, judgeAgain } from "./documents.ts";
import { KEPT_FOR } from "./kept-for.ts";
import { isSameJson } from "./same.ts";
import type { Stores } from "./stores.ts";

const ROW = {
  id: blades.id,
  name: blades.name,
  use: blades.use,
  steel: blades.steel,
  state: blades.state,
  revision: blades.revision,
  summary: blades.summary,
  updatedAt: blades.updatedAt,
  archivedAt: blades.archivedAt,
};

/** Blades not deleted, newest change first; `search` looks in name, purpose and steel. */
export function listBlades(db: Database, { search = "", archived = false }): Promise<BladeRow[]> {
  const like = `%${search.replace(/[\\%_]/g, "\\$&")}%`;
  return db
    .select(ROW)
    .from(blades)
    .where(
      and(
        isNull(blades.deletedAt),
        archived ? isNotNull(blades.archivedAt) : isNull(blades.archivedAt),
        search ? or(ilike(blades.name, like), ilike(blades.use, like), ilike(blades.steel, like)) : undefined,
      ),
    )
    .orderBy(desc(blades.updatedAt), blades.name);
}

/** A blade with the file of its standing revision. Throws a 404 where there is none, or it is deleted. */
export async function readBlade(db: Database, id: string): Promise<BladeWithFile> {
  const [found] = await db
    .select({ ...ROW, file: revisions.file })
    .from(blades)
    .innerJoin(revisions, and(eq(revisions.bladeId, blades.id), eq(revisions.number, blades.revision)))
    .where(and(eq(blades.id, id), isNull(blades.deletedAt)));
  if (!found) throw notFound("blade");
  return found;
}

/**
 * Makes a blade under an id the caller made up. Sent twice, it is made once; another blade under the same id is refused with a 409.
 */
export async function createBlade(
  { db, judging }: Stores,
  id: string,
  file: Blade,
  state: BladeState = "design",
): Promise<BladeWithFile> {
  const summary = await judging.summarize(file);
  await inTransaction(db, async (tx) => {
    const made = await tx
      .insert(blades)
      .values({ id, ...columnsOf(file), state, revision: 1, summary })
      .onConflictDoNothing()
      .returning({ id: blades.id });
    if (made.length > 0) {
      await tx.insert(revisions).values({ bladeId: id, number: 1, file, saveKey: randomUUID() });
      return;
    }
    const [first] = await tx
      .select({ file: revisions.file })
      .from(revisions)
      .where(and(eq(revisions.bladeId, id), eq(revisions.number, 1)));
    if (!isSameJson(first?.file, file)) {
      throw new Problem(409, "Another blade is known under this id.");
    }
  });
  return readBlade(db, id);
}

/**
 * Saves a file as the next revision, if `base` is the one that stands. The same save sent again answers as the
 * first did. Otherwise throws a 409 with the standing file, so that both versions can be offered.
 */
export async function saveBlade(
  { db, judging }: Stores,
  id: string,
  save: { file: Blade; base: number; saveKey: string; label?: string },
): Promise<{ revision: number }> {
  // Judged before anything is locked: what it is judged beside may have changed until then, and is looked at again.
  const beside = await besideOf(db, id);
  const summary = await judging.summarize(save.file, beside.documents);
  const saved = await inTransaction(db, async (tx) => {
    const [standing] = await tx.select().from(blades).where(eq(blades.id, id)).for("update");
    if (!standing || standing.deletedAt) throw notFound("blade");
    const [already] = await tx
      .select({ number: revisions.number })
      .from(revisions)
      .where(and(eq(revisions.bladeId, id), eq(revisions.saveKey, save.saveKey)));
    if (already) return { revision: already.number, isStale: false };
    if (standing.revision !== save.base) {
      const [theirs] = await tx
        .select({ file: revisions.file })
        .from(revisions)
        .where(and(eq(revisions.bladeId, id), eq(revisions.number, standing.revision)));
      throw new Problem(409, "Someone else has saved this blade in the meantime.", {
        revision: standing.revision,
        file: theirs?.file,
      });
    }
    const number = standing.revision + 1;
    await tx
      .insert(revisions)
      .values({ bladeId: id, number, file: save.file, saveKey: save.saveKey, label: save.label ?? null });
    await tx
      .update(blades)
      .set({ ...columnsOf(save.file), revision: number, summary, updatedAt: new Date().toISOString() })
      .where(eq(blades.id, id));
    const now = await besideOf(tx, id);
    return { revision: number, isStale: !isDeepStrictEqual(now.numbers, beside.numbers) };
  });
  if (saved.isStale) await judgeAgain({ db, judging }, id);
  return { revision: saved.revision };
}

function columnsOf(file: Blade) {
  return { name: file.name, use: file.use ?? null, steel: file.steel ?? null };
}

/** Sets what is not geometry. Renaming is a save of its own: the name is in the file. */
export async function markBlade(
  db: Database,
  id: string,
  marks: { state?: BladeState; archived?: boolean },
): Promise<BladeWithFile> {
  const { state, archived } = marks;
  const changes = {
    ...(state === undefined ? {} : { state }),
    ...(archived === undefined ? {} : { archivedAt: archived ? new Date().toISOString() : null }),
  };
  if (Object.keys(changes).length > 0) await db.update(blades).set(changes).where(eq(blades.id, id));
  return readBlade(db, id);
}

/** Deletes a blade, or takes it back: it stays in the database with all its history. */
export async function deleteBlade(db: Database, id: string, isDeleted: boolean): Promise<void> {
  const changed = await db
    .update(blades)
    .set({ deletedAt: isDeleted ? sql`coalesce(${blades.deletedAt}, now())` : null })
    .where(eq(blades.id, id))
    .returning({ id: blades.id });
  if (changed.length === 0) throw notFound("blade");
}

/** Blades deleted within the last 30 days, the newest first. */
export function listDeleted(db: Database): Promise<DeletedRow[]> {
  return db
    .select({ id: blades.id, name: blades.name, deletedAt: sql<string>`${blades.deletedAt}` })
    .from(blades)
    .where(gt(blades.deletedAt, sql`now() - ${KEPT_FOR}::interval`))
    .orderBy(desc(blades.deletedAt));
}

/** Every revision of a blade, newest first, without the files. */
export async function listRevisions(db: Database, id: string): Promise<RevisionRow[]> {
  await readBlade(db, id);
  return db
    .select({ number: revisions.number, label: revisions.label, createdAt: revisions.createdAt })
    .from(revisions)
    .where(eq(revisions.bladeId, id))
    .orderBy(desc(revisions.number));
}

export async function readRevision(
  db: Database,
  id: string,
  number: number,
): Promise<RevisionRow & { file: Blade }> {
  const [found] = await db
    .select({
      number: revisions.number,
      label: revisions.label,
      createdAt: revisions.createdAt,
      file: revisions.file,
    })
    .from(revisions)
    .where(and(eq(revisions.bladeId, id), eq(revisions.number, number)));
  if (!found) throw notFound("revision");
  return found;
}

/** Gives a revision a name of its own, or takes it away. */
export async function labelRevision(
  db: Database,
  id: string,
  number: number,
  label: string | null,
): Promise<void> {
  const changed = await db
    .update(revisions)
    .set({ label })
    .where(and(eq(revisions.bladeId, id), eq(revisions.number, number)))
    .returning({ number: revisions.number });
  if (changed.length === 0) throw notFound("revision");
}
