import type { Thinning } from "@true-spine/core/registry/contract.ts";
import { sql } from "drizzle-orm";
import { type Database, inTransaction, type Transaction } from "../database.ts";
import { Problem } from "../problem.ts";
import { readCopies } from "./copies.ts";

/** How long every state stays. */
const WHOLE_FOR = "90 days";

/**
 * The rule: every revision of the last 90 days stays, one with a name for ever, the first, the one that stands, whatever a trial or a way
 * back names, and of each day before that the last. The same for documents, which have no names.
 */
const REVISIONS = sql`
  from revisions r using blades b
  where b.id = r.blade_id and r.created_at < now() - ${WHOLE_FOR}::interval
    and r.label is null and r.number <> 1 and r.number <> b.revision
    and exists (select 1 from revisions l where l.blade_id = r.blade_id and l.number > r.number
      and date_trunc('day', l.created_at at time zone 'UTC') = date_trunc('day', r.created_at at time zone 'UTC'))
    and not exists (select 1 from revisions n where n.blade_id = r.blade_id and n.label = 'back to revision ' || r.number)
    and not exists (select 1 from jsonb_array_elements(
        (select coalesce(s.file -> 'trials', '[]'::jsonb) from shops s order by s.number desc limit 1)) t
      where t ->> 'blade' = r.blade_id::text and t ->> 'revision' = r.number::text)`;
const DOCUMENTS = sql`
  from documents d
  where d.created_at < now() - ${WHOLE_FOR}::interval
    and exists (select 1 from documents l where l.blade_id = d.blade_id and l.kind = d.kind and l.number > d.number
      and date_trunc('day', l.created_at at time zone 'UTC') = date_trunc('day', d.created_at at time zone 'UTC'))`;

/** How much of the history would go by the rule. */
export async function thinnable(db: Database): Promise<Thinning> {
  // Tried, and undone.
  let would: Thinning = { revisions: 0, documents: 0 };
  await inTransaction(db, async (tx) => {
    would = await thin(tx);
    throw new Undone();
  }).catch((error: unknown) => {
    if (!(error instanceof Undone)) throw error;
  });
  return would;
}

class Undone extends Error {}

/** Thins the history by the rule. Throws a 409 without a good copy of the last days: what goes is in one. */
export async function thinHistory(db: Database): Promise<Thinning> {
  if ((await readCopies(db)).isLate)
    throw new Problem(
      409,
      "There is no good copy of the last seven days. Make one first: what is thinned out is in it.",
    );
  return inTransaction(db, thin);
}

async function thin(tx: Transaction): Promise<Thinning> {
  const revisions = await tx.execute(sql`delete ${REVISIONS}`);
  const documents = await tx.execute(sql`delete ${DOCUMENTS}`);
  return { revisions: revisions.rowCount ?? 0, documents: documents.rowCount ?? 0 };
}
