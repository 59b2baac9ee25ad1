import type { TakenReadings } from "@true-spine/core/contract.ts";
import type { Reading } from "@true-spine/core/inspect/schema.ts";
import { spotKey } from "@true-spine/core/inspect/schema.ts";
import { and, asc, eq, inArray, isNotNull, isNull } from "drizzle-orm";
import type { Database } from "../database.ts";
import { Problem } from "../problem.ts";
import { readings } from "../schema/readings.ts";
import { mustBeThere } from "./documents.ts";

/** All readings of a blade in the order they were taken; those struck out are named apart. */
export async function readReadings(db: Database, bladeId: string): Promise<TakenReadings> {
  await mustBeThere(db, bladeId);
  const rows = await db
    .select({ reading: readings.reading, struckAt: readings.struckAt })
    .from(readings)
    .where(eq(readings.bladeId, bladeId))
    .orderBy(asc(readings.takenAt), asc(readings.id));
  const taken = rows.map(({ reading }) => reading);
  const struck = rows.flatMap(({ reading, struckAt }) => (struckAt ? [reading.id] : []));
  return { taken, struck };
}

/** Keeps readings, each once however often it is sent: all of them or none. Answers how many were new. */
export async function keepReadings(
  db: Database,
  bladeId: string,
  taken: readonly Reading[],
): Promise<{ kept: number }> {
  await mustBeThere(db, bladeId);
  if (taken.length === 0) return { kept: 0 };
  return db.transaction(async (tx) => {
    const rows = await tx
      .insert(readings)
      .values(
        taken.map((reading) => ({
          id: reading.id,
          bladeId,
          takenAt: reading.when,
          stage: reading.stage,
          spot: spotKey(reading),
          reading,
        })),
      )
      .onConflictDoNothing()
      .returning({ id: readings.id });
    if (rows.length < taken.length) {
      const ids = taken.map(({ id }) => id);
      const owners = await tx
        .select({ of: readings.bladeId })
        .from(readings)
        .where(inArray(readings.id, ids));
      if (owners.some(({ of }) => of !== bladeId)) {
        throw new Problem(409, "One of these readings is known as another blade's.");
      }
    }
    return { kept: rows.length };
  });
}

/** Strikes readings out, or puts them back; none is ever thrown away. */
export async function strikeReadings(
  db: Database,
  bladeId: string,
  ids: readonly string[],
  isStruck: boolean,
): Promise<void> {
  await mustBeThere(db, bladeId);
  await db
    .update(readings)
    .set({ struckAt: isStruck ? new Date().toISOString() : null })
    .where(
      and(
        eq(readings.bladeId, bladeId),
        inArray(readings.id, [...ids]),
        isStruck ? isNull(readings.struckAt) : isNotNull(readings.struckAt),
      ),
    );
}

/** Standing readings of several blades at some places: what a run charts. */
export async function readingsOf(
  db: Database,
  bladeIds: readonly string[],
  places: readonly { stage: string; spot: string }[],
): Promise<{ bladeId: string; reading: Reading }[]> {
  if (bladeIds.length === 0 || places.length === 0) return [];
  return db
    .select({ bladeId: readings.bladeId, reading: readings.reading })
    .from(readings)
    .where(
      and(
        inArray(readings.bladeId, [...bladeIds]),
        inArray(
          readings.spot,
          places.map(({ spot }) => spot),
        ),
        inArray(
          readings.stage,
          places.map(({ stage }) => stage),
        ),
        isNull(readings.struckAt),
      ),
    )
    .orderBy(asc(readings.takenAt));
}
