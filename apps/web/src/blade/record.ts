import { parseBlade } from "@true-spine/core/blade/parse.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { BladeWithFile } from "@true-spine/core/contract.ts";
import { type DocumentKind, type Documents, parseDocument } from "@true-spine/core/document/documents.ts";
import { NO_LIMITS } from "@true-spine/core/findings/limits.ts";
import { NO_HANDLE } from "@true-spine/core/handle/schema.ts";
import { readBlade, readDocument, saveBlade, saveDocument } from "../api/blades.ts";
import { takeDraftPlace } from "./drafts.ts";
import { type Save, type Saving, startSaving } from "./saving.ts";
import { type BladeState, type OpenBlade, openBlade } from "./store.ts";

/** Everything of a blade that saves itself, each under its own revisions. */
export interface Savings {
  readonly blade: Saving<Blade>;
  readonly limits: Saving<Documents["limits"]>;
  readonly handle: Saving<Documents["handle"]>;
}

export interface Record {
  readonly row: BladeWithFile;
  readonly open: OpenBlade;
  readonly savings: Savings;
  /** Whether something was brought back that a tab that is gone had not saved. */
  readonly isBroughtBack: boolean;
  stop(): void;
}

/**
 * Opens a blade and its documents from the server, or from what this browser still owes it, and keeps saving
 * them; tabs of one browser follow each other. Throws Refused or Unreachable.
 */
export async function openRecord(id: string, onSaved: () => void): Promise<Record> {
  const [row, limits, handle] = await Promise.all([
    readBlade(id),
    readDocument(id, "limits"),
    readDocument(id, "handle"),
  ]);
  const draft = {
    blade: await takeDraftPlace(id, isBlade),
    limits: await takeDraftPlace(`${id}:limits`, isSound("limits")),
    handle: await takeDraftPlace(`${id}:handle`, isSound("handle")),
  };
  const open = openBlade(draft.blade.left?.latest ?? row.file, {
    limits: draft.limits.left?.latest ?? limits.file ?? NO_LIMITS,
    handle: draft.handle.left?.latest ?? handle.file ?? NO_HANDLE,
  });
  const channel = new BroadcastChannel(`true-spine:${id}`);
  const start = <T>(
    what: keyof Savings,
    revision: number,
    { place, left }: Awaited<ReturnType<typeof takeDraftPlace<T>>>,
    send: (save: Save<T>) => Promise<{ revision: number }>,
  ) =>
    startSaving<T>({
      send,
      revision,
      place,
      left,
      onSaved: () => {
        channel.postMessage(what);
        onSaved();
      },
    });
  const savings: Savings = {
    blade: start("blade", row.revision, draft.blade, (save) => saveBlade(id, save)),
    limits: start("limits", limits.revision, draft.limits, (save) => saveDocument(id, "limits", save)),
    handle: start("handle", handle.revision, draft.handle, (save) => saveDocument(id, "handle", save)),
  };

  let isFollowing = false;
  const unsubscribe = open.store.subscribe((state, before) => {
    if (isFollowing) return;
    if (state.file !== before.file) savings.blade.changed(state.file);
    if (state.limits !== before.limits) savings.limits.changed(state.limits);
    if (state.handle !== before.handle) savings.handle.changed(state.handle);
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
  return {
    row,
    open,
    savings,
    isBroughtBack: Object.values(draft).some(({ left }) => left !== null),
    stop() {
      unsubscribe();
      channel.close();
      for (const saving of Object.values(savings)) saving.stop();
    },
  };
}

function isBlade(value: unknown): value is Blade {
  return parseBlade(value).ok;
}

function isSound<K extends DocumentKind>(kind: K): (value: unknown) => value is Documents[K] {
  return (value): value is Documents[K] => parseDocument(kind, value).ok;
}
