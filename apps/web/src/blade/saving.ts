import { createStore, type StoreApi } from "zustand";
import { Refused, Unreachable } from "../api/client.ts";
import type { Draft, DraftPlace } from "./drafts.ts";

export type SaveStatus = "saved" | "unsaved" | "saving" | "away" | "conflict" | "refused";

export interface SavingState<T> {
  readonly status: SaveStatus;
  readonly revision: number;
  /** The version that someone else saved in the meantime. */
  readonly theirs: { readonly revision: number; readonly file: T } | null;
  readonly why: string | null;
}

/** One save as it goes to the server: sent again under the same key it is still one save. */
export type Save<T> = NonNullable<Draft<T>["sent"]>;

/**
 * Saves a blade, or a document of it, by itself, losing nothing. Every change is first kept in this browser, then sent. A save with
 * no answer is sent again under the same key until it is answered, because it may have landed; only then does
 * what was typed since follow. A stale save stops and waits for the maker's choice.
 */
export interface Saving<T> {
  readonly state: StoreApi<SavingState<T>>;
  changed(file: T): void;
  /** Keeps what is on this screen, as the revision after theirs. */
  keepMine(): void;
  /** Forgets what was not saved here; the caller shows their version instead. */
  takeTheirs(): void;
  /** Another tab has saved, and this one shows it now. */
  follow(revision: number): void;
  stop(): void;
}

const PAUSE_MS = 500;
const KEEP_WITHIN_MS = 80;
const FIRST_RETRY_MS = 500;
const LONGEST_RETRY_MS = 5000;

export function startSaving<T>({
  send: put,
  revision,
  place,
  left,
  onSaved,
}: {
  send: (save: Save<T>) => Promise<{ revision: number }>;
  /** The one that stands. */
  revision: number;
  place: DraftPlace<T>;
  left: Draft<T> | null;
  onSaved: (revision: number) => void;
}): Saving<T> {
  const state = createStore<SavingState<T>>()(() => ({ status: "saved", revision, theirs: null, why: null }));
  let latest: T | null = left?.latest ?? null;
  let base = left?.base ?? revision;
  let sent: Draft<T>["sent"] = left?.sent ?? null;
  let isSending = false;
  let isStopped = false;
  let retryAfter = FIRST_RETRY_MS;
  let timer: ReturnType<typeof setTimeout> | undefined;

  let keeping: ReturnType<typeof setTimeout> | undefined;
  const keep = () => {
    clearTimeout(keeping);
    keeping = undefined;
    if (latest !== null) place.keep({ latest, base, sent });
    else place.clear();
  };
  // While a hand is dragging, writing the draft waits a moment; leaving the page does not.
  const keepSoon = () => {
    keeping ??= setTimeout(keep, KEEP_WITHIN_MS);
  };
  const keepNow = () => {
    if (keeping) keep();
  };
  const later = (ms: number) => {
    clearTimeout(timer);
    timer = setTimeout(send, ms);
  };

  async function send(): Promise<void> {
    clearTimeout(timer);
    if (isSending || isStopped || !latest || state.getState().status === "conflict") return;
    sent ??= { file: latest, base, saveKey: crypto.randomUUID() };
    keep();
    isSending = true;
    if (state.getState().status !== "away") state.setState({ status: "saving", why: null });
    try {
      const answer = await put(sent);
      const isAll = sent.file === latest || JSON.stringify(sent.file) === JSON.stringify(latest);
      base = answer.revision;
      sent = null;
      retryAfter = FIRST_RETRY_MS;
      if (isAll) latest = null;
      keep();
      state.setState({ status: isAll ? "saved" : "unsaved", revision: base });
      onSaved(base);
      if (!isAll) later(PAUSE_MS);
    } catch (error) {
      failed(error);
    } finally {
      isSending = false;
    }
  }

  function failed(error: unknown): void {
    if (error instanceof Unreachable) {
      state.setState({ status: "away" });
      later(retryAfter);
      retryAfter = Math.min(LONGEST_RETRY_MS, retryAfter * 1.6);
      return;
    }
    sent = null;
    keep();
    if (error instanceof Refused && error.status === 409) {
      const { revision: number = 0, file } = error.details;
      state.setState({ status: "conflict", theirs: { revision: number, file: file as T } });
    } else {
      state.setState({
        status: "refused",
        why: error instanceof Error ? error.message : "The save was refused.",
      });
    }
  }

  const online = () => later(0);
  window.addEventListener("online", online);
  window.addEventListener("pagehide", keepNow);
  if (latest) {
    state.setState({ status: "unsaved" });
    later(0);
  }

  return {
    state,
    changed(file) {
      latest = file;
      keepSoon();
      const { status } = state.getState();
      if (status === "conflict") return;
      if (status !== "away") state.setState({ status: isSending ? "saving" : "unsaved" });
      if (status !== "away" || !sent) later(PAUSE_MS);
    },
    keepMine() {
      const { theirs } = state.getState();
      if (!theirs) return;
      base = theirs.revision;
      state.setState({ status: "unsaved", theirs: null });
      keep();
      later(0);
    },
    takeTheirs() {
      const { theirs } = state.getState();
      if (!theirs) return;
      base = theirs.revision;
      latest = null;
      keep();
      state.setState({ status: "saved", revision: base, theirs: null });
    },
    follow(revision) {
      base = revision;
      state.setState({ revision });
    },
    stop() {
      isStopped = true;
      keepNow();
      clearTimeout(timer);
      window.removeEventListener("online", online);
      window.removeEventListener("pagehide", keepNow);
    },
  };
}
