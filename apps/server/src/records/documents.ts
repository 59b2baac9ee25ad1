import { isDeepStrictEqual } from "node:util";
import { standingLimits } from "@true-spine/core/edge/trials.ts";
import type { Beside } from "@true-spine/core/findings/judge.ts";
import type { DocumentState, StandingDocument } from "@true-spine/core/registry/contract.ts";
import {
  asRead,
  DOCUMENT_KINDS,
  type DocumentKind,
  type Documents,
} from "@true-spine/core/registry/documents.ts";
import { withStageId } from "@true-spine/core/route/parse.ts";
import { type RemovedStage, removedStages } from "@true-spine/core/route/removed.ts";
import type { Stage } from "@true-spine/core/route/schema.ts";
import { and, desc, eq, gt, lte, or, sql } from "drizzle-orm";
import { type Database, inTransaction, type Transaction } from "../database.ts";
import { notFound, Problem } from "../problem.ts";
import { blades, documents, revisions } from "../schema/blades.ts";
import { KEPT_FOR } from "./kept-for.ts";
import { readShop } from "./shop.ts";
import type { Stores } from "./stores.ts";

/** Throws a 404 for a blade that is not there, or was deleted. */
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
  if (!row) return { revision: 0, file: null };
  return { revision: row.revision, file: asRead(kind, row.file as Documents[K]) };
}

/**
 * Saves a document as the next of its kind, if `base` is the one that stands; the blade is judged again with it.
 * The same save sent again answers as the first did. Otherwise throws a 409 with what stands.
 */
export async function saveDocument<K extends DocumentKind>(
  stores: Stores,
  id: string,
  kind: K,
  save: { file: Documents[K]; base: number; saveKey: string },
): Promise<{ revision: number }> {
  const saved = await inTransaction(stores.db, async (tx) => {
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
    await tx.update(blades).set({ updatedAt: new Date().toISOString() }).where(eq(blades.id, id));
    return { revision: number };
  });
  if (JUDGED_BESIDE.some((one) => one === kind)) await judgeAgain(stores, id);
  return saved;
}

/** The documents that a blade's findings and figures on the rack depend on. */
const JUDGED_BESIDE = ["limits", "handle"] as const;

/**
 * Judges a blade again as it stands with its documents, without holding anything while it is looked at; what was saved meanwhile is
 * judged by whoever saved it.
 */
export async function judgeAgain({ db, judging }: Stores, id: string): Promise<void> {
  const beside = await besideOf(db, id);
  const [row] = await db
    .select({ file: revisions.file, number: revisions.number })
    .from(revisions)
    .innerJoin(blades, and(eq(blades.id, revisions.bladeId), eq(blades.revision, revisions.number)))
    .where(eq(revisions.bladeId, id));
  if (!row) return;
  const summary = await judging.summarize(row.file, beside.documents);
  await inTransaction(db, async (tx) => {
    const [blade] = await tx
      .select({ revision: blades.revision })
      .from(blades)
      .where(eq(blades.id, id))
      .for("update");
    const now = await besideOf(tx, id);
    if (blade?.revision !== row.number || !isDeepStrictEqual(now.numbers, beside.numbers)) return;
    await tx.update(blades).set({ summary }).where(eq(blades.id, id));
  });
}

/** What a stored blade is judged beside: its own limits and handle, and what trials moved as it is judged, and which of their states those are. */
export async function besideOf(db: Database | Transaction, id: string) {
  const [limits, handle] = [await standing(db, id, "limits"), await standing(db, id, "handle")];
  const { file: shop } = await readShop(db);
  const learned = standingLimits(shop?.limits ?? [], shop?.trials ?? []);
  return {
    documents: {
      ...(limits.file ? { limits: limits.file } : {}),
      handle: handle.file,
      ...(learned.length > 0 ? { learned } : {}),
    } satisfies Beside,
    numbers: [limits.revision, handle.revision],
  };
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

/** Stages taken off a blade's route within the last 30 days, the one removed last first. */
export async function listRemovedStages(db: Database, id: string): Promise<RemovedStage[]> {
  await mustBeThere(db, id);
  const ofRoute = and(eq(documents.bladeId, id), eq(documents.kind, "route"));
  const since = sql`now() - ${KEPT_FOR}::interval`;
  // The last state from before counts too: what it had may have been removed since.
  const states = await db
    .select({ at: documents.createdAt, stages: sql<Stage[]>`${documents.file} -> 'stages'` })
    .from(documents)
    .where(
      and(
        ofRoute,
        or(
          gt(documents.createdAt, since),
          eq(
            documents.number,
            db
              .select({ number: sql`max(${documents.number})` })
              .from(documents)
              .where(and(ofRoute, lte(documents.createdAt, since))),
          ),
        ),
      ),
    )
    .orderBy(documents.number);
  return removedStages(states.map(({ at, stages }) => ({ at, stages: stages.map(withStageId) })));
}

/** Gives a copied blade copies of its documents. */
export async function copyDocuments(stores: Stores, from: string, to: string): Promise<void> {
  const { db } = stores;
  for (const kind of DOCUMENT_KINDS) {
    const { file } = await standing(db, from, kind);
    if (file && (await standing(db, to, kind)).revision === 0) {
      await saveDocument(stores, to, kind, { file, base: 0, saveKey: to });
    }
  }
}
