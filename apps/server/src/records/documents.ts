import type { DocumentState, StandingDocument } from "@true-spine/core/contract.ts";
import { DOCUMENT_KINDS, type DocumentKind, type Documents } from "@true-spine/core/document/documents.ts";
import { and, desc, eq } from "drizzle-orm";
import type { Database, Transaction } from "../database.ts";
import { notFound, Problem } from "../problem.ts";
import { blades, documents, revisions } from "../schema/blades.ts";
import { summaryOf } from "../summary.ts";

/** Throws a 404 for a blade that is not there, or was thrown away. */
export async function mustBeThere(db: Database, id: string): Promise<void> {
  const [blade] = await db.select({ away: blades.deletedAt }).from(blades).where(eq(blades.id, id));
  if (!blade || blade.away) throw notFound("blade");
}

/** A document of a blade as it stands; revision 0 where there is none yet. Throws a 404 without the blade. */
export async function readDocument<K extends DocumentKind>(
  db: Database,
  id: string,
  kind: K,
): Promise<StandingDocument<K>> {
  await mustBeThere(db, id);
  return standing(db, id, kind);
}

/** The same for a blade known to be there. */
export async function standing<K extends DocumentKind>(
  db: Database | Transaction,
  id: string,
  kind: K,
): Promise<StandingDocument<K>> {
  const [row] = await db
    .select({ revision: documents.number, file: documents.file })
    .from(documents)
    .where(and(eq(documents.bladeId, id), eq(documents.kind, kind)))
    .orderBy(desc(documents.number))
    .limit(1);
  return row ? { revision: row.revision, file: row.file as Documents[K] } : { revision: 0, file: null };
}

/**
 * Saves a document as the next of its kind, if `base` is the one that stands; the blade is judged again with it.
 * The same save sent again answers as the first did. Otherwise throws a 409 with what stands.
 */
export async function saveDocument<K extends DocumentKind>(
  db: Database,
  id: string,
  kind: K,
  save: { file: Documents[K]; base: number; saveKey: string },
): Promise<{ revision: number }> {
  return db.transaction(async (tx) => {
    const [blade] = await tx.select().from(blades).where(eq(blades.id, id)).for("update");
    if (!blade || blade.deletedAt) throw notFound("blade");
    const [already] = await tx
      .select({ number: documents.number })
      .from(documents)
      .where(and(eq(documents.bladeId, id), eq(documents.kind, kind), eq(documents.saveKey, save.saveKey)));
    if (already) return { revision: already.number };
    const stands = await standing(tx, id, kind);
    if (stands.revision !== save.base) {
      throw new Problem(409, `Someone else has saved this blade's ${kind} in the meantime.`, { ...stands });
    }
    const number = stands.revision + 1;
    await tx.insert(documents).values({ bladeId: id, kind, number, file: save.file, saveKey: save.saveKey });
    await judgeAgain(tx, id, blade.revision);
    return { revision: number };
  });
}

async function judgeAgain(tx: Transaction, id: string, revision: number): Promise<void> {
  const [row] = await tx
    .select({ file: revisions.file })
    .from(revisions)
    .where(and(eq(revisions.bladeId, id), eq(revisions.number, revision)));
  if (!row) return;
  const summary = summaryOf(row.file, await besideOf(tx, id));
  await tx.update(blades).set({ summary, updatedAt: new Date().toISOString() }).where(eq(blades.id, id));
}

/** What a stored blade is judged beside: its own limits and handle. */
export async function besideOf(db: Database | Transaction, id: string) {
  const [limits, handle] = [await standing(db, id, "limits"), await standing(db, id, "handle")];
  return { ...(limits.file ? { limits: limits.file } : {}), handle: handle.file };
}

/** When each document of a blade was saved, oldest first; what stood is not read. */
export async function listDocumentStates(db: Database, id: string): Promise<DocumentState[]> {
  await mustBeThere(db, id);
  return db
    .select({ kind: documents.kind, number: documents.number, createdAt: documents.createdAt })
    .from(documents)
    .where(eq(documents.bladeId, id))
    .orderBy(documents.createdAt);
}

/** Gives a copied blade copies of its documents. */
export async function copyDocuments(db: Database, from: string, to: string): Promise<void> {
  for (const kind of DOCUMENT_KINDS) {
    const { file } = await standing(db, from, kind);
    if (file && (await standing(db, to, kind)).revision === 0) {
      await saveDocument(db, to, kind, { file, base: 0, saveKey: to });
    }
  }
}
