import { openDatabase } from "./database.ts";
import { seedDemo } from "./demo/seed.ts";
import { blades } from "./schema/blades.ts";

/** Throws every blade away and brings the demo data back. */
const { db, close } = await openDatabase(process.env.DATABASE_URL ?? "");
await db.delete(blades);
await seedDemo(db);
await close();
