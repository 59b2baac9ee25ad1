import type { TroubleRow } from "@true-spine/core/registry/contract.ts";
import { desc, lte, sql } from "drizzle-orm";
import type { Database } from "../database.ts";
import { troubles } from "../schema/troubles.ts";

const KEPT = 500;
const SHOWN = 50;
const LONGEST = 500;

/** Notes what went wrong. Never throws: it is called where something has gone wrong already. */
export async function noteTrouble(db: Database, what: string, where: string | null): Promise<void> {
  try {
    const [made] = await db
      .insert(troubles)
      .values({ what: what.slice(0, LONGEST), where: where?.slice(0, LONGEST) ?? null })
      .returning({ id: troubles.id });
    await db.delete(troubles).where(lte(troubles.id, made!.id - KEPT));
  } catch {
    // The log has it too.
  }
}

/** What went wrong lately, the newest first. */
export function listTroubles(db: Database): Promise<TroubleRow[]> {
  return db
    .select({ at: troubles.at, what: troubles.what, where: troubles.where })
    .from(troubles)
    .where(sql`${troubles.at} > now() - interval '30 days'`)
    .orderBy(desc(troubles.id))
    .limit(SHOWN);
}
