import type { StandingShop } from "@true-spine/core/registry/contract.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import { desc, eq, sql } from "drizzle-orm";
import { type Database, inTransaction, type Transaction } from "../database.ts";
import { Problem } from "../problem.ts";
import { shops } from "../schema/shop.ts";

/** The shop as it stands. */
export async function readShop(db: Database | Transaction): Promise<StandingShop> {
  const [row] = await db
    .select({ revision: shops.number, file: shops.file })
    .from(shops)
    .orderBy(desc(shops.number))
    .limit(1);
  return row ?? { revision: 0, file: null };
}

/** Saves the shop as the next state, if `base` is the one that stands; the same save sent again answers as the first did. */
export async function saveShop(
  db: Database,
  save: { file: Shop; base: number; saveKey: string },
): Promise<{ revision: number }> {
  return inTransaction(db, async (tx) => {
    // One shop, and no row to lock while there is none: the lock is on the table's own name.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtext('shops'))`);
    const [already] = await tx
      .select({ number: shops.number })
      .from(shops)
      .where(eq(shops.saveKey, save.saveKey));
    if (already) return { revision: already.number };
    const stands = await readShop(tx);
    if (stands.revision !== save.base) {
      throw new Problem(409, "Someone else has saved the shop in the meantime.", { ...stands });
    }
    const number = stands.revision + 1;
    await tx.insert(shops).values({ number, file: save.file, saveKey: save.saveKey });
    return { revision: number };
  });
}
