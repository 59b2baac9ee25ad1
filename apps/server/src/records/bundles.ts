import { randomUUID } from "node:crypto";
import { isSameJson } from "@true-spine/core/document/same.ts";
import { spotKey } from "@true-spine/core/inspect/schema.ts";
import { addedInWords, type Bundle, type TakenIn } from "@true-spine/core/registry/bundle.ts";
import { inParts } from "@true-spine/formats/bundle.ts";
import { and, asc, desc, eq, inArray, isNull, sql } from "drizzle-orm";
import { type Database, inTransaction, type Transaction } from "../database.ts";
import { Problem } from "../problem.ts";
import { blades, documents, revisions } from "../schema/blades.ts";
import { readings, runs } from "../schema/readings.ts";
import { workRows } from "../schema/work.ts";
import { readBlade } from "./blades.ts";
import { judgeAgain } from "./documents.ts";
import { listRuns } from "./runs.ts";
import type { Stores } from "./stores.ts";

/** What to do where the blade's id stands here already: ask, put what is new onto that blade, or make another blade of it. */
export const BUNDLE_WAYS = ["ask", "onto", "beside"] as const;
export type BundleWay = (typeof BUNDLE_WAYS)[number];

/** Rows in one statement: its parameters are counted. */
const ROWS_AT_ONCE = 2000;

/** A blade whole, with its history or as it stands. Throws a 404 without it. */
export async function packBlade(db: Database, id: string, withHistory: boolean): Promise<Bundle> {
  const { name, state, revision } = await readBlade(db, id);
  const states = await db
    .select({
      number: revisions.number,
      saveKey: revisions.saveKey,
      at: revisions.createdAt,
      label: revisions.label,
      file: revisions.file,
    })
    .from(revisions)
    .where(and(eq(revisions.bladeId, id), withHistory ? undefined : eq(revisions.number, revision)))
    .orderBy(asc(revisions.number));
  const kept = await db
    .select({
      kind: documents.kind,
      number: documents.number,
      saveKey: documents.saveKey,
      at: documents.createdAt,
      file: documents.file,
    })
    .from(documents)
    .where(
      and(
        eq(documents.bladeId, id),
        withHistory
          ? undefined
          : sql`${documents.number} = (select max(d.number) from documents d where d.blade_id = ${id} and d.kind = ${documents.kind})`,
      ),
    )
    .orderBy(asc(documents.kind), asc(documents.number));
  const taken = await db
    .select({ row: readings.reading, struckAt: readings.struckAt })
    .from(readings)
    .where(eq(readings.bladeId, id))
    .orderBy(asc(readings.takenAt), asc(readings.id));
  const work = await db
    .select({ row: workRows.row, struckAt: workRows.struckAt })
    .from(workRows)
    .where(eq(workRows.bladeId, id))
    .orderBy(asc(workRows.recordedAt), asc(workRows.id));
  const all = (await listRuns(db)).filter(({ file }) => file.blades.includes(id));
  const isoOf = <T extends { at: string }>(one: T): T => ({ ...one, at: inIso(one.at) });
  return {
    id,
    name,
    state,
    states: states.map(({ label, ...one }) => isoOf({ ...one, ...(label ? { label } : {}) })),
    documents: kept.map(isoOf),
    readings: taken.map(({ row }) => row),
    work: work.map(({ row }) => row),
    struck: [...taken, ...work].flatMap(({ row, struckAt }) => (struckAt ? [row.id] : [])),
    runs: all.map(({ id: run, file }) => ({ id: run, file })),
  };
}

/** A moment as PostgreSQL writes it, as the files have it: in UTC, to the millisecond. */
const inIso = (at: string) => new Date(at).toISOString();

/**
 * Takes a blade in, all of it or nothing. What is known here is not taken twice. Where its id stands already and something would be
 * added, `ask` throws a 409 that says what; a 409 too where a reading is known as another blade's.
 */
export async function takeInBundle(stores: Stores, sent: Bundle, how: BundleWay): Promise<TakenIn> {
  const { db, judging } = stores;
  const bundle = how === "beside" ? underOtherIds(sent) : sent;
  const standing = bundle.states.at(-1)!;
  const summary = await judging.summarize(standing.file);
  const answer = await inTransaction(db, async (tx): Promise<TakenIn> => {
    const { id } = bundle;
    const { name, use, steel } = standing.file;
    const made = await tx
      .insert(blades)
      .values({
        id,
        name,
        use: use ?? null,
        steel: steel ?? null,
        state: bundle.state,
        revision: standing.number,
        summary,
      })
      .onConflictDoNothing()
      .returning({ id: blades.id });
    const isNew = made.length > 0;
    const [here] = await tx.select().from(blades).where(eq(blades.id, id)).for("update");
    const fresh = await whatIsNew(tx, bundle, here!.revision, isNew);
    const notes = [...fresh.notes];
    const words = addedInWords(fresh.added);
    const isGone = here!.deletedAt !== null;
    if (!isNew && how === "ask" && (words !== "" || isGone)) {
      const what = words === "" ? "Nothing in this bundle is new." : `New in this bundle: ${words}.`;
      const gone = isGone ? " It was deleted here, and would be taken back." : "";
      throw new Problem(409, `“${here!.name}” stands here under the same id. ${what}${gone}`, {
        standing: { id, name: here!.name },
      });
    }
    if (!isNew && words === "" && !isGone) return { id, name: here!.name, added: fresh.added, notes };
    await put(tx, fresh, id);
    if (!isNew) {
      const last = fresh.states.at(-1);
      await tx
        .update(blades)
        .set({
          ...(last ? { name, use: use ?? null, steel: steel ?? null, revision: last.number } : {}),
          updatedAt: new Date().toISOString(),
          deletedAt: null,
        })
        .where(eq(blades.id, id));
    }
    return { id, name: fresh.states.length > 0 ? name : here!.name, added: fresh.added, notes };
  });
  await judgeAgain(stores, answer.id);
  return answer;
}

type Fresh = Awaited<ReturnType<typeof whatIsNew>>;

/** What a bundle holds that this database does not: states under the numbers that they get here. */
async function whatIsNew(tx: Transaction, bundle: Bundle, revision: number, isNew: boolean) {
  const { id } = bundle;
  const known = await tx
    .select({ saveKey: revisions.saveKey, file: revisions.file })
    .from(revisions)
    .where(eq(revisions.bladeId, id));
  const states = follow(bundle.states, known, isNew ? 0 : revision);
  const kept = await tx
    .select({
      kind: documents.kind,
      number: documents.number,
      saveKey: documents.saveKey,
      file: documents.file,
    })
    .from(documents)
    .where(eq(documents.bladeId, id));
  const kinds = [...new Set(bundle.documents.map(({ kind }) => kind))];
  const later = kinds.flatMap((kind) => {
    const here = kept.filter((one) => one.kind === kind);
    const last = Math.max(0, ...here.map(({ number }) => number));
    return follow(
      bundle.documents.filter((one) => one.kind === kind),
      here,
      last,
    );
  });
  const taken = await unknownOf(tx, readings, bundle.readings, id);
  const work = await unknownOf(tx, workRows, bundle.work, id);
  const struck = await strikable(tx, bundle, id, [...taken, ...work]);
  const { joined, notes } = await runsWith(tx, bundle);
  return {
    states,
    documents: later,
    readings: taken,
    work,
    struck,
    runs: joined,
    notes,
    added: {
      revisions: states.length,
      documents: later.length,
      readings: taken.length,
      work: work.length,
      struck: struck.length,
      runs: joined.length,
    },
  };
}

/** The states from the last known one on, numbered after the one that stands here; none where the newest is known. */
function follow<T extends { number: number; saveKey: string; file: unknown }>(
  states: readonly T[],
  known: readonly { saveKey: string; file: unknown }[],
  standing: number,
): T[] {
  const keys = new Set(known.map(({ saveKey }) => saveKey));
  const isKnown = ({ saveKey, file }: T) =>
    keys.has(saveKey) || known.some((one) => isSameJson(one.file, file));
  const lastKnown = states.findLastIndex(isKnown);
  const fresh = states.slice(lastKnown + 1);
  // Into an empty place they come under their own numbers.
  return standing === 0 ? [...fresh] : fresh.map((state, i) => ({ ...state, number: standing + 1 + i }));
}

/** Rows that are not known here. Throws a 409 where one of them is another blade's, or says something else. */
async function unknownOf<R extends { id: string }>(
  tx: Transaction,
  table: typeof readings | typeof workRows,
  rows: readonly R[],
  bladeId: string,
): Promise<R[]> {
  const known = new Map<string, { of: string; row: unknown }>();
  for (const part of inParts(rows, ROWS_AT_ONCE)) {
    const ids = part.map(({ id }) => id);
    const row = table === readings ? readings.reading : workRows.row;
    const found = await tx
      .select({ id: table.id, of: table.bladeId, row })
      .from(table)
      .where(inArray(table.id, ids));
    for (const { id, ...one } of found) known.set(id, one);
  }
  return rows.filter((row) => {
    const here = known.get(row.id);
    if (!here) return true;
    if (here.of !== bladeId)
      throw new Problem(
        409,
        "A reading of this bundle is known here as another blade's. Take it in as another blade.",
      );
    if (!isSameJson(here.row, row))
      throw new Problem(
        409,
        "A reading of this bundle is known here and says something else. Take it in as another blade.",
      );
    return false;
  });
}

/** What the bundle says is struck out and is not here: of what is known, and of what comes in with it. */
async function strikable(tx: Transaction, bundle: Bundle, id: string, fresh: readonly { id: string }[]) {
  const coming = new Set(fresh.map((row) => row.id));
  const old = bundle.struck.filter((one) => !coming.has(one));
  const here: string[] = [];
  for (const table of [readings, workRows] as const) {
    for (const part of inParts(old, ROWS_AT_ONCE)) {
      const rows = await tx
        .select({ id: table.id })
        .from(table)
        .where(and(eq(table.bladeId, id), inArray(table.id, part), isNull(table.struckAt)));
      here.push(...rows.map((row) => row.id));
    }
  }
  return [...here, ...bundle.struck.filter((one) => coming.has(one))];
}

/** Runs as they are to stand: those that are not here as they came, those that are with this blade in them. */
async function runsWith(tx: Transaction, bundle: Bundle) {
  const joined: { id: string; number: number; file: (typeof bundle.runs)[number]["file"] }[] = [];
  const notes: string[] = [];
  for (const { id, file } of bundle.runs) {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`run ${id}`}, 0))`);
    const [here] = await tx.select().from(runs).where(eq(runs.id, id)).orderBy(desc(runs.number)).limit(1);
    if (!here) joined.push({ id, number: 1, file });
    else if (!here.file) notes.push(`The run “${file.name}” was deleted here and stays so.`);
    else if (!here.file.blades.includes(bundle.id)) {
      const blades = [...here.file.blades, bundle.id];
      joined.push({ id, number: here.number + 1, file: { ...here.file, blades } });
    } else if (!isSameJson(here.file, file)) notes.push(`The run “${here.file.name}” stands as it is here.`);
  }
  return { joined, notes };
}

async function put(tx: Transaction, fresh: Fresh, bladeId: string): Promise<void> {
  for (const part of inParts(fresh.states, 200)) {
    await tx
      .insert(revisions)
      .values(
        part.map(({ at, label, ...state }) => ({ ...state, bladeId, label: label ?? null, createdAt: at })),
      );
  }
  for (const part of inParts(fresh.documents, 200)) {
    await tx.insert(documents).values(part.map(({ at, ...state }) => ({ ...state, bladeId, createdAt: at })));
  }
  for (const part of inParts(fresh.readings, ROWS_AT_ONCE)) {
    await tx.insert(readings).values(
      part.map((reading) => ({
        id: reading.id,
        bladeId,
        takenAt: reading.when,
        stage: reading.stage,
        spot: spotKey(reading),
        reading,
      })),
    );
  }
  for (const part of inParts(fresh.work, ROWS_AT_ONCE)) {
    await tx.insert(workRows).values(
      part.map((row) => ({
        id: row.id,
        bladeId,
        recordedAt: row.when,
        stage: row.stage,
        what: row.what,
        row,
      })),
    );
  }
  for (const table of [readings, workRows] as const) {
    for (const part of inParts(fresh.struck, ROWS_AT_ONCE)) {
      await tx
        .update(table)
        .set({ struckAt: new Date().toISOString() })
        .where(and(eq(table.bladeId, bladeId), inArray(table.id, part)));
    }
  }
  for (const run of fresh.runs) await tx.insert(runs).values({ ...run, saveKey: randomUUID() });
}

/** The same blade under ids that nothing here has, wherever one of them is named. */
function underOtherIds(bundle: Bundle): Bundle {
  const old = [bundle.id, ...bundle.readings.map(({ id }) => id), ...bundle.work.map(({ id }) => id)];
  const fresh = new Map(old.map((id) => [id, randomUUID() as string]));
  const text = JSON.stringify(bundle, (_, value) =>
    typeof value === "string" ? (fresh.get(value) ?? value) : value,
  );
  return JSON.parse(text) as Bundle;
}
