import type { Reading } from "@true-spine/core/inspect/schema.ts";
import { spotKey } from "@true-spine/core/inspect/schema.ts";
import type { TakenReadings } from "@true-spine/core/registry/contract.ts";
import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { type Database, inTransaction } from "../database.ts";
import { notFound, Problem } from "../problem.ts";
import { blades } from "../schema/blades.ts";
import { readings } from "../schema/readings.ts";
import { type JsonOf, prepared } from "./answers.ts";
import { mustBeThere } from "./documents.ts";

const readingsOfBlade = prepared((db) =>
  db
    .select({
      json: sql<string>`json_build_object(
        'taken', coalesce(json_agg(${readings.reading} order by ${readings.takenAt}, ${readings.id})
          filter (where ${readings.id} is not null), '[]'),
        'struck', coalesce(json_agg(${readings.id} order by ${readings.takenAt}, ${readings.id})
          filter (where ${readings.struckAt} is not null), '[]'))::text`,
    })
    .from(blades)
    .leftJoin(readings, eq(readings.bladeId, blades.id))
    .where(and(eq(blades.id, sql.placeholder("id")), isNull(blades.deletedAt)))
    .groupBy(blades.id)
    .prepare("readings"),
);

/** All readings of a blade in the order they were taken; those struck out are named apart. Throws a 404 without the blade. */
export async function readReadings(db: Database, bladeId: string): Promise<JsonOf<TakenReadings>> {
  const [found] = await readingsOfBlade(db).execute({ id: bladeId });
  if (!found) throw notFound("blade");
  return found.json;
}

/**
 * Keeps readings, each once however often it is sent: all of them or none. Answers how many were new. Throws a 409 where one of them is
 * known as another blade's, or with another value.
 */
export async function keepReadings(
  db: Database,
  bladeId: string,
  taken: readonly Reading[],
): Promise<{ kept: number }> {
  await mustBeThere(db, bladeId);
  if (taken.length === 0) return { kept: 0 };
  // In the order of their ids: the same rows sent twice at once never wait for each other crosswise.
  const inOrder = [...new Map(taken.map((reading) => [reading.id, reading])).values()].sort(byId);
  if (inOrder.length < taken.length && !taken.every((one) => isSame(one, inOrder)))
    throw another("this request's");
  return inTransaction(db, async (tx) => {
    const rows = await tx
      .insert(readings)
      .values(
        inOrder.map((reading) => ({
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
    if (rows.length < inOrder.length) {
      const fresh = new Set(rows.map(({ id }) => id));
      const known = await tx
        .select({ of: readings.bladeId, reading: readings.reading })
        .from(readings)
        .where(
          inArray(
            readings.id,
            inOrder.flatMap(({ id }) => (fresh.has(id) ? [] : [id])),
          ),
        );
      for (const { of, reading } of known) {
        if (of !== bladeId) throw new Problem(409, "One of these readings is known as another blade's.");
        if (!isSame(reading, inOrder)) throw another("an earlier one's");
      }
    }
    return { kept: rows.length };
  });
}

const byId = (a: Reading, b: Reading) => (a.id < b.id ? -1 : 1);
/** Whether a reading says what the one of its id says: at which stage, what, where, how much. A file without times has a new one each time. */
const isSame = (reading: Reading, among: readonly Reading[]) => {
  const other = among.find(({ id }) => id === reading.id);
  return other !== undefined && saysOf(other) === saysOf(reading);
};
const saysOf = (reading: Reading) => `${reading.stage} ${spotKey(reading)} ${reading.value + 0}`;
const another = (whose: string) =>
  new Problem(409, `One of these readings has ${whose} id and says something else.`);

/** Standing readings of several blades at some places, in the order they were taken: what a run charts. */
export async function readingsOf(
  db: Database,
  bladeIds: readonly string[],
  places: readonly { stage: string; spot: string }[],
): Promise<JsonOf<{ bladeId: string; reading: Reading }[]>> {
  if (bladeIds.length === 0 || places.length === 0) return "[]";
  const one = sql`json_build_object('bladeId', ${readings.bladeId}, 'reading', ${readings.reading})`;
  const [all] = await db
    .select({ json: sql<string>`coalesce(json_agg(${one} order by ${readings.takenAt}), '[]')::text` })
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
    );
  return all!.json;
}
