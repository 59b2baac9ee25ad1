import { sql } from "drizzle-orm";
import { expect, inject, test } from "vitest";
import { openDatabase } from "../src/database.ts";

test("six servers that start at once on a database that is not there make it once, and all open it", async () => {
  for (let round = 0; round < 3; round++) {
    const name = `opened_at_once_${round}_${Date.now()}`;
    const opened = await Promise.all(
      Array.from({ length: 6 }, () => openDatabase(inject("databaseUrl"), name)),
    );
    for (const { db } of opened) {
      const { rows } = await db.execute(sql`select count(*)::int as blades from blades`);
      expect(rows).toEqual([{ blades: 0 }]);
    }
    await Promise.all(opened.map(({ close }) => close()));
  }
});
