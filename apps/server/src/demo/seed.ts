import { firstHandle } from "@true-spine/core/design/first-handle.ts";
import { NO_CHECK } from "@true-spine/core/inspect/schema.ts";
import type { BladeState } from "@true-spine/core/registry/contract.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import type { Stage } from "@true-spine/core/route/schema.ts";
import { sql } from "drizzle-orm";
import { type Database, inTransaction, type Transaction } from "../database.ts";
import { createBlade, markBlade, saveBlade } from "../records/blades.ts";
import { saveDocument } from "../records/documents.ts";
import { keepReadings } from "../records/readings.ts";
import { saveRun } from "../records/runs.ts";
import type { Stores } from "../records/stores.ts";
import { blades } from "../schema/blades.ts";
import { runs } from "../schema/readings.ts";
import { shops } from "../schema/shop.ts";
import { DEMO_BLADES } from "./blades.ts";
import { demoRun, soundReadings } from "./readings.ts";

/**
 * Puts the demo workshop's blades into an empty database; leaves any other alone. One that was stopped half-way is done again from the
 * start: nobody has seen it yet.
 */
export async function seedDemo(stores: Stores): Promise<void> {
  const { db } = stores;
  const [{ count }] = (await db.select({ count: sql<number>`count(*)::int` }).from(blades)) as [
    { count: number },
  ];
  if ((await noted(db)) === BEGUN) await clearAll(db);
  else if (count > 0) return;
  else await note(db, BEGUN);
  for (const { id, state, history, file } of DEMO_BLADES) {
    const [first, ...later] = [...history, { label: undefined, saveKey: id, file }];
    await createBlade(stores, id, first!.file, state);
    for (const [i, { label, saveKey, file: next }] of later.entries()) {
      await saveBlade(stores, id, { file: next, base: i + 1, saveKey, label });
    }
    const route = { ...firstRoute(file), stages: stagesDone(firstRoute(file).stages, state) };
    await saveDocument(stores, id, "route", { file: route, base: 0, saveKey: id });
    const check = { ...NO_CHECK, hardness: 60 };
    await saveDocument(stores, id, "check", { file: check, base: 0, saveKey: id });
    if (state === "finished") {
      await saveDocument(stores, id, "handle", { file: firstHandle(file, "full"), base: 0, saveKey: id });
      await keepReadings(db, id, soundReadings(file, route, "hand", check, 31, "2026-11-14T10:00:00Z"));
      await keepReadings(db, id, soundReadings(file, route, "sharpen", check, 32, "2026-11-17T16:20:00Z"));
    }
  }
  await seedRun(stores);
  await note(db, "the demo data is in");
}

/** Deletes everything there is: blades with their documents and readings, runs, the shop's stores. The demo is then to be put in. */
export async function clearAll(db: Database): Promise<void> {
  await inTransaction(db, async (tx) => {
    await note(tx, BEGUN);
    await tx.delete(blades);
    await tx.delete(runs);
    await tx.delete(shops);
  });
}

const BEGUN = "the demo data is being put in";

/** What stands beside the database's name: how far the demo data is. */
async function noted(db: Database): Promise<string | null> {
  const { rows } = await db.execute<{ words: string | null }>(
    sql`select shobj_description(oid, 'pg_database') as words from pg_database where datname = current_database()`,
  );
  return rows[0]?.words ?? null;
}

async function note(db: Database | Transaction, words: string): Promise<void> {
  const { rows } = await db.execute<{ name: string }>(sql`select current_database() as name`);
  await db.execute(sql`comment on database ${sql.identifier(rows[0]!.name)} is ${sql.raw(`'${words}'`)}`);
}

/** An order of blades alike, off the rack in the archive, with what was read on each. */
async function seedRun(stores: Stores): Promise<void> {
  const { db } = stores;
  const model = DEMO_BLADES.find(({ state }) => state === "in work")!.file;
  const route = firstRoute(model);
  const run = demoRun(model, route);
  for (const { id, file, readings } of run.blades) {
    await createBlade(stores, id, file, "finished");
    await markBlade(db, id, { archived: true });
    await saveDocument(stores, id, "route", { file: route, base: 0, saveKey: id });
    await keepReadings(db, id, readings);
  }
  await saveRun(db, run.id, { file: run.file, base: 0, saveKey: run.id });
}

/** How far each of the demo blades has come: the finished one all the way, the one in work to its true flats after the oven. */
function stagesDone(stages: readonly Stage[], state: BladeState): Stage[] {
  const count = {
    design: 0,
    "in work": stages.findIndex(({ kind }) => kind === "finish"),
    finished: stages.length,
  }[state];
  return stages.map((stage, i) =>
    i < count ? { ...stage, done: `2026-11-${String(3 + i).padStart(2, "0")}T16:00:00Z` } : stage,
  );
}
