import { randomUUID } from "node:crypto";
import { isDeepStrictEqual } from "node:util";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { isSameJson } from "@true-spine/core/document/same.ts";
import type {
  BladeRow,
  BladeState,
  BladeWithFile,
  DeletedRow,
  RevisionRow,
} from "@true-spine/core/registry/contract.ts";
import { type BladeName, MOST_NAMES } from "@true-spine/core/registry/contract.ts";
import { and, desc, eq, gt, isNotNull, isNull, or, type SQL, sql } from "drizzle-orm";
import { isUuid } from "../bodies.ts";
import { type Database, inTransaction } from "../database.ts";
import { notFound, Problem } from "../problem.ts";
import { blades, revisions } from "../schema/blades.ts";
import { runs } from "../schema/readings.ts";
import { type JsonOf, jsonOf, listOf, prepared, read, shared, type Tagged, tagged } from "./answers.ts";
import { besideOf, judgeAgain } from "./documents.ts";
import { KEPT_FOR } from "./kept-for.ts";
import type { Stores } from "./stores.ts";

const ROW = {
  id: blades.id,
  name: blades.name,
  use: blades.use,
  steel: blades.steel,
  state: blades.state,
  revision: blades.revision,
  summary: blades.summary,
  updatedAt: blades.updatedAt,
  archivedAt: blades.archivedAt,
};

/** Rows of a list that is asked for without saying how many, and at most. */
const USUAL_ROWS = 100;
const MOST_ROWS = 500;

export interface Asked {
  /** Looked for in name, purpose, steel, state and the names of runs. */
  readonly search?: string;
  readonly archived?: boolean;
  readonly limit?: number;
  /** Where the page before ended. */
  readonly after?: string | undefined;
}

/**
 * Blades not deleted, newest change first, a page of them; where the next one begins, and how many there are in all on the first page.
 * A page begins after the row that the last one ended with, whatever was saved in between. Throws a 400 for an end that is none.
 */
export const listBlades = shared(pageOf);

interface Page {
  readonly rows: Tagged<BladeRow[]>;
  readonly next: string | null;
  readonly total: number | null;
}

async function pageOf(
  db: Database,
  { search = "", archived = false, limit = USUAL_ROWS, after }: Asked,
): Promise<Page> {
  const asked = and(onShelf(archived), matching(search));
  const begin = after === undefined ? undefined : afterRow(after);
  const most = Math.min(Math.max(1, limit), MOST_ROWS);
  // Which they are first, by the index alone: rows with their drawings are read for those on the page only.
  const shown = db
    .select({ id: blades.id })
    .from(blades)
    .where(and(asked, begin))
    .orderBy(desc(blades.updatedAt), desc(blades.id))
    .limit(most + 1)
    .as("shown");
  const found = await db
    .select({ id: blades.id, updatedAt: blades.updatedAt, json: jsonOf(ROW) })
    .from(blades)
    .innerJoin(shown, eq(shown.id, blades.id))
    .orderBy(desc(blades.updatedAt), desc(blades.id));
  const page = found.slice(0, most);
  const rows = tagged(listOf<BladeRow>(page));
  const last = page.at(-1);
  const next = found.length > most && last ? endOf(last) : null;
  if (after !== undefined) return { rows, next, total: null };
  const [counted] = next
    ? await db.select({ count: sql<number>`count(*)::int` }).from(blades).where(asked)
    : [{ count: page.length }];
  return { rows, next, total: counted!.count };
}

/** Blades to pick from or to hold beside one another, the newest first: without their drawings. */
export function listNames(db: Database, archived: boolean): Promise<BladeName[]> {
  const of = (key: string) => sql`${key}::text, ${blades.summary} -> ${key}`;
  const keys = [of("length"), of("mass"), of("middle"), of("above")];
  return db
    .select({
      id: blades.id,
      name: blades.name,
      use: blades.use,
      steel: blades.steel,
      state: blades.state,
      revision: blades.revision,
      summary: sql<BladeName["summary"]>`jsonb_strip_nulls(jsonb_build_object(${sql.join(keys, sql`, `)}))`,
    })
    .from(blades)
    .where(onShelf(archived))
    .orderBy(desc(blades.updatedAt), desc(blades.id))
    .limit(MOST_NAMES);
}

const onShelf = (archived: boolean) =>
  and(isNull(blades.deletedAt), archived ? isNotNull(blades.archivedAt) : isNull(blades.archivedAt));

function matching(search: string): SQL | undefined {
  if (!search) return undefined;
  const like = `%${search.replace(/[\\%_]/g, "\\$&")}%`;
  const ofRun = sql`${blades.id}::text in (
    select jsonb_array_elements_text(file -> 'blades') from (
      select distinct on (${runs.id}) ${runs.file} as file from ${runs} order by ${runs.id}, ${runs.number} desc
    ) standing where file ->> 'name' ilike ${like})`;
  return or(sql`${blades.words} like lower(${like})`, ofRun);
}

/** Where a page ends: the moment and the id of its last row, as one word. */
const endOf = ({ updatedAt, id }: Pick<BladeRow, "id" | "updatedAt">) =>
  Buffer.from(`${updatedAt}|${id}`).toString("base64url");

function afterRow(word: string): SQL {
  const [at = "", id = ""] = Buffer.from(word, "base64url").toString("utf8").split("|");
  if (!/^\d{4}-\d{2}-\d{2} [\d:.]+[+-][\d:]+$/.test(at) || !isUuid(id))
    throw new Problem(400, "That is no end of a page.");
  return sql`(${blades.updatedAt}, ${blades.id}) < (${at}::timestamptz, ${id}::uuid)`;
}

const bladeOf = prepared((db) =>
  db
    .select({ json: jsonOf({ ...ROW, file: revisions.file }) })
    .from(blades)
    .innerJoin(revisions, and(eq(revisions.bladeId, blades.id), eq(revisions.number, blades.revision)))
    .where(and(eq(blades.id, sql.placeholder("id")), isNull(blades.deletedAt)))
    .prepare("blade"),
);

/** A blade with the file of its standing revision, in JSON. Throws a 404 where there is none, or it is deleted. */
export async function bladeJson(db: Database, id: string): Promise<JsonOf<BladeWithFile>> {
  const [found] = await bladeOf(db).execute({ id });
  if (!found) throw notFound("blade");
  return found.json;
}

/** The same, read. */
export const readBlade = async (db: Database, id: string): Promise<BladeWithFile> =>
  read(await bladeJson(db, id));

/**
 * Makes a blade under an id the caller made up. Sent twice, it is made once; another blade under the same id is refused with a 409.
 */
export async function createBlade(
  { db, judging }: Stores,
  id: string,
  file: Blade,
  state: BladeState = "design",
): Promise<BladeWithFile> {
  const summary = await judging.summarize(file);
  await inTransaction(db, async (tx) => {
    const made = await tx
      .insert(blades)
      .values({ id, ...columnsOf(file), state, revision: 1, summary })
      .onConflictDoNothing()
      .returning({ id: blades.id });
    if (made.length > 0) {
      await tx.insert(revisions).values({ bladeId: id, number: 1, file, saveKey: randomUUID() });
      return;
    }
    const [first] = await tx
      .select({ file: revisions.file })
      .from(revisions)
      .where(and(eq(revisions.bladeId, id), eq(revisions.number, 1)));
    if (!isSameJson(first?.file, file)) {
      throw new Problem(409, "Another blade is known under this id.");
    }
  });
  return readBlade(db, id);
}

/**
 * Saves a file as the next revision, if `base` is the one that stands. The same save sent again answers as the
 * first did. Otherwise throws a 409 with the standing file, so that both versions can be offered.
 */
export async function saveBlade(
  { db, judging }: Stores,
  id: string,
  save: { file: Blade; base: number; saveKey: string; label?: string },
): Promise<{ revision: number }> {
  // Judged before anything is locked: what it is judged beside may have changed until then, and is looked at again.
  const beside = await besideOf(db, id);
  const summary = await judging.summarize(save.file, beside.documents);
  const saved = await inTransaction(db, async (tx) => {
    const [standing] = await tx.select().from(blades).where(eq(blades.id, id)).for("update");
    if (!standing || standing.deletedAt) throw notFound("blade");
    const [already] = await tx
      .select({ number: revisions.number })
      .from(revisions)
      .where(and(eq(revisions.bladeId, id), eq(revisions.saveKey, save.saveKey)));
    if (already) return { revision: already.number, isStale: false };
    if (standing.revision !== save.base) {
      const [theirs] = await tx
        .select({ file: revisions.file })
        .from(revisions)
        .where(and(eq(revisions.bladeId, id), eq(revisions.number, standing.revision)));
      throw new Problem(409, "Someone else has saved this blade in the meantime.", {
        revision: standing.revision,
        file: theirs?.file,
      });
    }
    const number = standing.revision + 1;
    await tx
      .insert(revisions)
      .values({ bladeId: id, number, file: save.file, saveKey: save.saveKey, label: save.label ?? null });
    await tx
      .update(blades)
      .set({ ...columnsOf(save.file), revision: number, summary, updatedAt: new Date().toISOString() })
      .where(eq(blades.id, id));
    const now = await besideOf(tx, id);
    return { revision: number, isStale: !isDeepStrictEqual(now.numbers, beside.numbers) };
  });
  if (saved.isStale) await judgeAgain({ db, judging }, id);
  return { revision: saved.revision };
}

function columnsOf(file: Blade) {
  return { name: file.name, use: file.use ?? null, steel: file.steel ?? null };
}

/** Sets what is not geometry. Renaming is a save of its own: the name is in the file. */
export async function markBlade(
  db: Database,
  id: string,
  marks: { state?: BladeState; archived?: boolean },
): Promise<BladeWithFile> {
  const { state, archived } = marks;
  const changes = {
    ...(state === undefined ? {} : { state }),
    ...(archived === undefined ? {} : { archivedAt: archived ? new Date().toISOString() : null }),
  };
  if (Object.keys(changes).length > 0) await db.update(blades).set(changes).where(eq(blades.id, id));
  return readBlade(db, id);
}

/** Deletes a blade, or takes it back: it stays in the database with all its history. */
export async function deleteBlade(db: Database, id: string, isDeleted: boolean): Promise<void> {
  const changed = await db
    .update(blades)
    .set({ deletedAt: isDeleted ? sql`coalesce(${blades.deletedAt}, now())` : null })
    .where(eq(blades.id, id))
    .returning({ id: blades.id });
  if (changed.length === 0) throw notFound("blade");
}

/** Blades deleted within the last 30 days, the newest first. */
export function listDeleted(db: Database): Promise<DeletedRow[]> {
  return db
    .select({ id: blades.id, name: blades.name, deletedAt: sql<string>`${blades.deletedAt}` })
    .from(blades)
    .where(gt(blades.deletedAt, sql`now() - ${KEPT_FOR}::interval`))
    .orderBy(desc(blades.deletedAt));
}

const revisionsOf = prepared((db) =>
  db
    .select({
      json: jsonOf({ number: revisions.number, label: revisions.label, createdAt: revisions.createdAt }),
    })
    .from(revisions)
    .innerJoin(blades, eq(blades.id, revisions.bladeId))
    .where(and(eq(revisions.bladeId, sql.placeholder("id")), isNull(blades.deletedAt)))
    .orderBy(desc(revisions.number))
    .prepare("revisions"),
);

/** Every revision of a blade, newest first, without the files. */
export async function listRevisions(db: Database, id: string): Promise<JsonOf<RevisionRow[]>> {
  const found = await revisionsOf(db).execute({ id });
  // A blade always has the revision that stands.
  if (found.length === 0) throw notFound("blade");
  return listOf(found);
}

export async function readRevision(
  db: Database,
  id: string,
  number: number,
): Promise<RevisionRow & { file: Blade }> {
  const [found] = await db
    .select({
      number: revisions.number,
      label: revisions.label,
      createdAt: revisions.createdAt,
      file: revisions.file,
    })
    .from(revisions)
    .where(and(eq(revisions.bladeId, id), eq(revisions.number, number)));
  if (!found) throw notFound("revision");
  return found;
}

/** Gives a revision a name of its own, or takes it away. */
export async function labelRevision(
  db: Database,
  id: string,
  number: number,
  label: string | null,
): Promise<void> {
  const changed = await db
    .update(revisions)
    .set({ label })
    .where(and(eq(revisions.bladeId, id), eq(revisions.number, number)))
    .returning({ number: revisions.number });
  if (changed.length === 0) throw notFound("revision");
}
