import { type Draft, draftPlace } from "./drafts.ts";
import { type Save, type Saving, startSaving } from "./saving.ts";

/**
 * Starts saving one thing that the server keeps by revisions, under a name of its own in this browser; tabs of one browser
 * follow each other. `left` is a draft to go on from.
 */
export async function keepSaved<T>({
  what,
  revision,
  standing,
  together,
  left,
  read,
  write,
  show,
}: {
  what: string;
  revision: number;
  standing?: T | null | undefined;
  together?: ((base: T, mine: T, theirs: T) => T | null) | undefined;
  left: Draft<T> | null;
  read: () => Promise<{ revision: number; file: T | null }>;
  write: (save: Save<T>) => Promise<{ revision: number }>;
  /** Puts a version on the screen that is saved already. */
  show: (file: T) => void;
}): Promise<Saving<T>> {
  const place = await draftPlace<T>(what);
  const channel = new BroadcastChannel(`true-spine:${what}`);
  const saving = startSaving<T>({
    send: write,
    revision,
    standing,
    together,
    place,
    left,
    show,
    onSaved: () => channel.postMessage("saved"),
  });
  const isSaved = () => saving.state.getState().status === "saved";
  // Another tab has saved: with nothing unsaved here, follow it; otherwise the next save will say so.
  channel.onmessage = async () => {
    if (!isSaved()) return;
    const fresh = await read().catch(() => null);
    if (!fresh?.file || !isSaved()) return;
    show(fresh.file);
    saving.follow(fresh.revision, fresh.file);
  };
  return {
    ...saving,
    stop() {
      channel.close();
      saving.stop();
    },
  };
}
