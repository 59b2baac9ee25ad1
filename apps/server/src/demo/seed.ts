import type { BladeState } from "@true-spine/core/contract.ts";
import { firstHandle } from "@true-spine/core/handle/first.ts";
import { NO_CHECK } from "@true-spine/core/inspect/schema.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import type { Stage } from "@true-spine/core/route/schema.ts";
import { sql } from "drizzle-orm";
import type { Database } from "../database.ts";
import { createBlade, markBlade, saveBlade } from "../records/blades.ts";
import { saveDocument } from "../records/documents.ts";
import { keepReadings } from "../records/readings.ts";
import { saveRun } from "../records/runs.ts";
import { blades } from "../schema/blades.ts";
import { DEMO_BLADES } from "./blades.ts";
import { demoRun, soundReadings } from "./readings.ts";

/** Puts the demo workshop's blades into an empty database; leaves any other alone. */
export async function seedDemo(db: Database): Promise<void> {
  const [{ count }] = (await db.select({ count: sql<number>`count(*)::int` }).from(blades)) as [
    { count: number },
  ];
  if (count > 0) return;
  for (const { id, state, history, file } of DEMO_BLADES) {
    const [first, ...later] = [...history, { label: undefined, saveKey: id, file }];
    await createBlade(db, id, first!.file, state);
    for (const [i, { label, saveKey, file: next }] of later.entries()) {
      await saveBlade(db, id, { file: next, base: i + 1, saveKey, label });
    }
    const route = { ...firstRoute(file), stages: stagesDone(firstRoute(file).stages, state) };
    await saveDocument(db, id, "route", { file: route, base: 0, saveKey: id });
    const check = { ...NO_CHECK, hardness: 60 };
    await saveDocument(db, id, "check", { file: check, base: 0, saveKey: id });
    if (state === "finished") {
      await saveDocument(db, id, "handle", { file: firstHandle(file, "full"), base: 0, saveKey: id });
      await keepReadings(db, id, soundReadings(file, route, "hand", check, 31, "2026-11-14T10:00:00Z"));
      await keepReadings(db, id, soundReadings(file, route, "sharpen", check, 32, "2026-11-17T16:20:00Z"));
    }
  }
  await seedRun(db);
}

/** An order of blades alike, off the rack in the archive, with what was read on each. */
async function seedRun(db: Database): Promise<void> {
  const model = DEMO_BLADES.find(({ state }) => state === "in work")!.file;
  const route = firstRoute(model);
  const run = demoRun(model, route);
  for (const { id, file, readings } of run.blades) {
    await createBlade(db, id, file, "finished");
    await markBlade(db, id, { archived: true });
    await saveDocument(db, id, "route", { file: route, base: 0, saveKey: id });
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
