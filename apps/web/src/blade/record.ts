import { parseBlade } from "@true-spine/core/blade/parse.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { BladeWithFile } from "@true-spine/core/contract.ts";
import {
  DOCUMENT_KINDS,
  type DocumentKind,
  type Documents,
  parseDocument,
} from "@true-spine/core/document/documents.ts";
import { readBlade, readDocument, saveBlade, saveDocument } from "../api/blades.ts";
import { fetchReadings, type KeptReadings, keepReadings } from "../bench/readings.ts";
import { takeDraftPlace } from "./drafts.ts";
import { type Save, type Saving, startSaving } from "./saving.ts";
import { type BladeState, type OpenBlade, openBlade } from "./store.ts";

/** Everything of a blade that saves itself, each under its own revisions. */
export type Savings = { readonly blade: Saving<Blade> } & {
  readonly [K in DocumentKind]: Saving<Documents[K]>;
};

export interface Record {
  readonly row: BladeWithFile;
  readonly open: OpenBlade;
  readonly savings: Savings;
  readonly readings: KeptReadings;
  /** Whether something was brought back that a tab that is gone had not saved. */
  readonly isBroughtBack: boolean;
  stop(): void;
}

/**
 * Opens a blade and its documents from the server, or from what this browser still owes it, and keeps saving
 * them; tabs of one browser follow each other. Throws Refused or Unreachable.
 */
export async function openRecord(id: string, onSaved: () => void): Promise<Record> {
  const [row, taken, ...standing] = await Promise.all([
    readBlade(id),
    fetchReadings(id),
    ...DOCUMENT_KINDS.map((kind) => openDocument(id, kind)),
  ]);
  const draft = await takeDraftPlace(id, isBlade);
  const documents = Object.fromEntries(standing.flatMap(({ kind, file }) => (file ? [[kind, file]] : [])));
  const open = openBlade(draft.left?.latest ?? row.file, documents);
  const channel = new BroadcastChannel(`true-spine:${id}`);
  const start = <T>(what: keyof Savings, options: Omit<Parameters<typeof startSaving<T>>[0], "onSaved">) =>
    startSaving<T>({
      ...options,
      onSaved: () => {
        channel.postMessage(what);
        onSaved();
      },
    });
  const savings = {
    blade: start<Blade>("blade", { ...draft, revision: row.revision, send: (save) => saveBlade(id, save) }),
    ...Object.fromEntries(standing.map((one) => [one.kind, start(one.kind, one)])),
  } as Savings;

  let isFollowing = false;
  const unsubscribe = open.store.subscribe((state, before) => {
    if (isFollowing) return;
    if (state.file !== before.file) savings.blade.changed(state.file);
    for (const kind of DOCUMENT_KINDS) {
      if (state[kind] !== before[kind]) (savings[kind] as Saving<unknown>).changed(state[kind]);
    }
  });
  const follow = (state: Partial<BladeState>) => {
    isFollowing = true;
    open.store.setState(state);
    isFollowing = false;
  };
  // Another tab has saved: with nothing unsaved here, follow it; otherwise the next save will say so.
  channel.onmessage = async ({ data: what }: MessageEvent<keyof Savings>) => {
    const isSaved = () => savings[what].state.getState().status === "saved";
    if (!isSaved()) return;
    try {
      const fresh = what === "blade" ? await readBlade(id) : await readDocument(id, what);
      if (!isSaved() || !fresh.file) return;
      follow({ [what === "blade" ? "file" : what]: fresh.file });
      savings[what].follow(fresh.revision);
    } catch {
      // The server is away: the next save finds out.
    }
  };
  const readings = keepReadings(id, taken);
  return {
    row,
    open,
    savings,
    readings,
    isBroughtBack: [draft, ...standing].some(({ left }) => left !== null),
    stop() {
      unsubscribe();
      channel.close();
      readings.stop();
      for (const saving of Object.values(savings)) saving.stop();
    },
  };
}

/** A document as it stands here, with what saving it takes. */
async function openDocument<K extends DocumentKind>(id: string, kind: K) {
  const { revision, file } = await readDocument(id, kind);
  const isSound = (value: unknown): value is Documents[K] => parseDocument(kind, value).ok;
  const { place, left } = await takeDraftPlace(`${id}:${kind}`, isSound);
  const send = (save: Save<Documents[K]>) => saveDocument(id, kind, save);
  return { kind, revision, file: left?.latest ?? file, place, left, send };
}

function isBlade(value: unknown): value is Blade {
  return parseBlade(value).ok;
}
