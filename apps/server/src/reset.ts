import { openDatabase } from "./database.ts";
import { clearAll, seedDemo } from "./demo/seed.ts";
import { Judging } from "./judging/judging.ts";

/** Deletes everything there is and brings the demo data back; stopped half-way, the next start finishes it. */
const { db, close } = await openDatabase(process.env.DATABASE_URL ?? "");
const judging = new Judging();
await clearAll(db);
await seedDemo({ db, judging });
await judging.close();
await close();
