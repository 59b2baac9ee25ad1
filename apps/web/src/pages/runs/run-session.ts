import { parseRun, type Run } from "@true-spine/core/inspect/run-schema.ts";
import { createStore, type StoreApi } from "zustand";
import { readRun, saveRun } from "../../api/runs.ts";
import type { KeptDraft } from "../../saving/browser-store.ts";
import { claimDrafts, findDrafts, type LeftWork, readDraft, takeUpDrafts } from "../../saving/drafts.ts";
import { heldOnce, type Kept } from "../../saving/held.ts";
import { keepSaved } from "../../saving/kept.ts";
import type { Saving } from "../../saving/saving.ts";

/** An open run in this tab: what stands on the screen, and what saves it. */
export interface RunSession extends Kept {
  readonly state: StoreApi<{ readonly file: Run; readonly left: readonly LeftWork[] }>;
  readonly saving: Saving<Run>;
  /** Changes what stands here, and saves it. */
  put(file: Run): void;
  isSound(kept: KeptDraft): boolean;
  takeUp(work: LeftWork): Promise<void>;
}

/** Opens a run from the server, or from what this browser still owes it. Throws Refused or Unreachable. */
export const holdRun = heldOnce(openRun);

const isRun = (value: unknown) => parseRun(value).ok;
const draftOf = (kept: KeptDraft) => readDraft<Run>(kept, isRun);
const isSound = (kept: KeptDraft) => draftOf(kept) !== null;

async function openRun(id: string): Promise<RunSession> {
  const what = `run:${id}`;
  const [row, found] = await Promise.all([readRun(id), findDrafts([what])]);
  const { resumed, left } = await takeUpDrafts(found, isSound);
  const draft = resumed && draftOf(resumed.drafts[0]!);
  const state = createStore<{ file: Run; left: readonly LeftWork[] }>()(() => ({
    file: draft?.latest ?? row.file,
    left,
  }));
  const saving = await keepSaved<Run>({
    what,
    revision: row.revision,
    left: draft,
    read: () => readRun(id),
    write: (save) => saveRun(id, save),
    show: (file) => state.setState({ file }),
  });
  return {
    state,
    saving,
    trouble: saving.state,
    isSound,
    put(file) {
      state.setState({ file });
      saving.changed(file);
    },
    async takeUp(work) {
      await claimDrafts(work.drafts).catch(() => {});
      saving.adopt(draftOf(work.drafts[0]!)!);
    },
    tryNow: saving.tryNow,
    stop: saving.stop,
  };
}
