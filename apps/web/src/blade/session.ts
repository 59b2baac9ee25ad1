import { parseBlade } from "@true-spine/core/blade/parse.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { BladeWithFile } from "@true-spine/core/registry/contract.ts";
import {
  DOCUMENT_KINDS,
  type DocumentKind,
  type Documents,
  parseDocument,
} from "@true-spine/core/registry/documents.ts";
import { createStore, type StoreApi } from "zustand";
import { readBlade, readDocument, saveBlade, saveDocument } from "../api/blades.ts";
import { fetchReadings, type KeptReadings, keepReadings } from "../readings/kept.ts";
import type { KeptDraft } from "../saving/browser-store.ts";
import {
  claimDrafts,
  type Draft,
  findDrafts,
  type LeftWork,
  readDraft,
  takeUpDrafts,
} from "../saving/drafts.ts";
import { heldOnce, type Kept } from "../saving/held.ts";
import { keepSaved } from "../saving/kept.ts";
import type { Saving } from "../saving/saving.ts";
import { worstOf } from "../saving/trouble.ts";
import { fetchWork, type KeptWork, keepWork } from "../work/kept.ts";
import { type BladeState, type OpenBlade, openBlade } from "./store.ts";

/** Everything of a blade that saves itself, each under its own revisions. */
export type Savings = { readonly blade: Saving<Blade> } & {
  readonly [K in DocumentKind]: Saving<Documents[K]>;
};
type Part = keyof Savings;

/** An open blade in this tab: what is on the screen, what saves it, and what was found of earlier work on it. */
export interface BladeSession extends Kept {
  readonly row: BladeWithFile;
  readonly open: OpenBlade;
  readonly savings: Savings;
  readonly readings: KeptReadings;
  /** What was recorded at the work beside readings: stages done, passes, notes, corrections carried out. */
  readonly work: KeptWork;
  /** When the work was last changed that was brought back by itself, ms since 1970; null where there was none. */
  readonly broughtBack: number | null;
  /** What other tabs left, for the maker to decide. */
  readonly left: StoreApi<LeftHere>;
  isSound(kept: KeptDraft): boolean;
  partOf(what: string): Part;
  /** Takes up what a tab left, every part of it sound, in place of what stands here. */
  takeUp(work: LeftWork): Promise<void>;
}

export interface LeftHere {
  readonly works: readonly LeftWork[];
}

/**
 * Opens a blade and its documents from the server, or from what this browser still owes it, and keeps saving them. Throws Refused
 * or Unreachable.
 */
export const holdSession = heldOnce(openSession);

async function openSession(id: string): Promise<BladeSession> {
  const parts: readonly Part[] = ["blade", ...DOCUMENT_KINDS];
  const [row, taken, worked, found, ...standing] = await Promise.all([
    readBlade(id),
    fetchReadings(id),
    fetchWork(id),
    findDrafts(parts.map((part) => whatOf(id, part))),
    ...DOCUMENT_KINDS.map(async (kind) => ({ kind, ...(await readDocument(id, kind)) })),
  ]);
  const isSound = (kept: KeptDraft) => readPart(partOf(id, kept.what), kept) !== null;
  const { resumed, left } = await takeUpDrafts(found, isSound);
  const draftOf = <T>(part: Part) => {
    const kept = resumed?.drafts.find(({ what }) => what === whatOf(id, part));
    return kept ? readPart<T>(part, kept) : null;
  };
  const documents = Object.fromEntries(
    standing.flatMap(({ kind, file }) => {
      const shown = draftOf(kind)?.latest ?? file;
      return shown ? [[kind, shown]] : [];
    }),
  );
  const open = openBlade(draftOf<Blade>("blade")?.latest ?? row.file, documents);
  let isFollowing = false;
  const show = (state: Partial<BladeState>) => {
    isFollowing = true;
    open.end();
    open.store.setState(state);
    isFollowing = false;
  };
  const blade = await keepSaved<Blade>({
    what: whatOf(id, "blade"),
    revision: row.revision,
    left: draftOf("blade"),
    read: () => readBlade(id),
    write: (save) => saveBlade(id, save),
    show: (file) => show({ file }),
  });
  const others = await Promise.all(
    standing.map(async ({ kind, revision }) => [
      kind,
      await keepSaved<Documents[DocumentKind]>({
        what: whatOf(id, kind),
        revision,
        left: draftOf(kind),
        read: () => readDocument(id, kind),
        write: (save) => saveDocument(id, kind, save),
        show: (file) => show({ [kind]: file }),
      }),
    ]),
  );
  const savings = { blade, ...Object.fromEntries(others) } as Savings;
  const unsubscribe = open.store.subscribe((state, before) => {
    if (isFollowing) return;
    if (state.file !== before.file) savings.blade.changed(state.file);
    for (const kind of DOCUMENT_KINDS) {
      if (state[kind] !== before[kind]) (savings[kind] as Saving<unknown>).changed(state[kind]);
    }
  });
  const [readings, work] = await Promise.all([keepReadings(id, taken), keepWork(id, worked)]);
  return {
    row,
    open,
    savings,
    readings,
    work,
    trouble: worstOf([...Object.values(savings).map(({ state }) => state), readings.state, work.state]),
    broughtBack: resumed?.at ?? null,
    left: createStore<LeftHere>()(() => ({ works: left })),
    isSound,
    partOf: (what) => partOf(id, what),
    async takeUp(work) {
      await claimDrafts(work.drafts).catch(() => {});
      for (const kept of work.drafts) {
        const part = partOf(id, kept.what);
        (savings[part] as Saving<unknown>).adopt(readPart(part, kept)!);
      }
    },
    tryNow() {
      for (const saving of Object.values(savings)) saving.tryNow();
      readings.tryNow();
      work.tryNow();
    },
    stop() {
      unsubscribe();
      readings.stop();
      work.stop();
      for (const saving of Object.values(savings)) saving.stop();
    },
  };
}

const whatOf = (id: string, part: Part) => (part === "blade" ? id : `${id}:${part}`);
const partOf = (id: string, what: string) => (what === id ? "blade" : what.slice(id.length + 1)) as Part;

/** A draft of a part of a blade; null where it is not sound any more. */
function readPart<T>(part: Part, kept: KeptDraft): Draft<T> | null {
  const isSound = (value: unknown) =>
    part === "blade" ? parseBlade(value).ok : parseDocument(part, value).ok;
  return readDraft(kept, isSound);
}
