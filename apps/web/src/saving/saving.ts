import { createStore, type StoreApi } from "zustand";
import { Refused, Unreachable } from "../api/client.ts";
import type { Draft, DraftPlace } from "./drafts.ts";
import { newId } from "./id.ts";

export type SaveStatus = "saved" | "unsaved" | "saving" | "away" | "conflict" | "refused";

export interface SavingState<T> {
  readonly status: SaveStatus;
  readonly revision: number;
  /** The version that someone else saved in the meantime. */
  readonly theirs: { readonly revision: number; readonly file: T } | null;
  /** Why the server will not have it, in its words. */
  readonly why: string | null;
  /** Whether this browser holds what the server has not: it may be out of room. */
  readonly isKept: boolean;
}

/** One save as it goes to the server: sent again under the same key it is still one save. */
export type Save<T> = NonNullable<Draft<T>["sent"]>;

/**
 * Saves one thing by itself, losing nothing. Every change is kept in this browser and sent; sending never waits on keeping. A save
 * with no answer is sent again under the same key until it is answered, because it may have landed; only then does what was
 * typed since follow. A stale save is put together with theirs where that can be done, else it waits for the maker's choice; a refused one waits for a change, or to be tried again.
 */
export interface Saving<T> {
  readonly state: StoreApi<SavingState<T>>;
  changed(file: T): void;
  /** Keeps what is on this screen, as the revision after theirs. */
  keepMine(): void;
  /** Shows their version instead; what was not saved here is forgotten. Nothing new is saved. */
  takeTheirs(): void;
  /** Another tab has saved, and this one shows it now. */
  follow(revision: number, file: T): void;
  /** Takes up what another tab left, as if it had been typed here. */
  adopt(draft: Draft<T>): void;
  /** Sends what is waiting now, whatever it is waiting for. */
  tryNow(): void;
  stop(): void;
}

const PAUSE_MS = 500;
const KEEP_WITHIN_MS = 80;
const FIRST_RETRY_MS = 500;
const LONGEST_RETRY_MS = 5000;

export function startSaving<T>({
  send: put,
  revision,
  standing,
  together,
  place,
  left,
  show,
  onSaved,
}: {
  send: (save: Save<T>) => Promise<{ revision: number }>;
  /** The one that stands. */
  revision: number;
  /** What it holds; null: not known. */
  standing?: T | null | undefined;
  /** Puts this hand's changes and another's together; null: they touched the same, and the maker chooses. */
  together?: ((base: T, mine: T, theirs: T) => T | null) | undefined;
  place: DraftPlace<T>;
  left: Draft<T> | null;
  /** Puts a version on the screen that is saved already. */
  show: (file: T) => void;
  onSaved: (revision: number) => void;
}): Saving<T> {
  const state = createStore<SavingState<T>>()(() => ({
    status: "saved",
    revision,
    theirs: null,
    why: null,
    isKept: true,
  }));
  let latest: T | null = left?.latest ?? null;
  let base = left?.base ?? revision;
  let under: T | null = base === revision ? (standing ?? null) : null;
  let sent: Draft<T>["sent"] = left?.sent ?? null;
  let at = left?.at ?? 0;
  let isSending = false;
  let isStopped = false;
  let retryAfter = FIRST_RETRY_MS;
  let timer: ReturnType<typeof setTimeout> | undefined;

  let keeping: ReturnType<typeof setTimeout> | undefined;
  let unkept = 0;
  const keep = () => {
    clearTimeout(keeping);
    keeping = undefined;
    const turn = ++unkept;
    if (latest === null) {
      unkept = 0;
      place.clear();
      state.setState({ isKept: true });
      return;
    }
    void place.keep({ latest, base, sent, at }).then((isKept) => {
      if (turn !== unkept) return;
      if (isKept) unkept = 0;
      state.setState({ isKept });
    });
  };
  // While a hand is dragging, writing the draft waits a moment; leaving the page does not.
  const keepSoon = () => {
    keeping ??= setTimeout(keep, KEEP_WITHIN_MS);
  };
  const leaving = () => {
    if (latest !== null && (keeping || unkept > 0)) place.keepAtOnce({ latest, base, sent, at });
  };
  const warning = (event: BeforeUnloadEvent) => {
    const { status, isKept } = state.getState();
    if (status !== "saved" && !isKept) event.preventDefault();
  };
  const later = (ms: number) => {
    clearTimeout(timer);
    timer = setTimeout(send, ms);
  };

  async function send(): Promise<void> {
    clearTimeout(timer);
    if (isSending || isStopped || latest === null || state.getState().status === "conflict") return;
    sent ??= { file: latest, base, saveKey: newId() };
    keep();
    isSending = true;
    if (state.getState().status !== "away") state.setState({ status: "saving", why: null });
    try {
      const answer = await put(sent);
      const isAll = sent.file === latest || JSON.stringify(sent.file) === JSON.stringify(latest);
      base = answer.revision;
      under = sent.file;
      sent = null;
      retryAfter = FIRST_RETRY_MS;
      if (isAll) latest = null;
      keep();
      state.setState({ status: isAll ? "saved" : "unsaved", revision: base, why: null });
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
    const isAll = sent?.file === latest;
    sent = null;
    keep();
    if (error instanceof Refused && error.status === 409) {
      const { revision: number = 0, file } = error.details;
      const both = together && under && latest && together(under, latest, file as T);
      if (both) {
        base = number;
        under = file as T;
        latest = both;
        show(both);
        goOn();
        return;
      }
      state.setState({ status: "conflict", theirs: { revision: number, file: file as T } });
    } else if (isAll) {
      state.setState({
        status: "refused",
        why: error instanceof Error ? error.message : "The save was refused.",
      });
    } else {
      // What was typed since may be what it wants.
      state.setState({ status: "unsaved" });
      later(PAUSE_MS);
    }
  }

  const goOn = () => {
    state.setState({ status: "unsaved", theirs: null, why: null });
    keep();
    later(0);
  };
  const online = () => later(0);
  window.addEventListener("online", online);
  window.addEventListener("pagehide", leaving);
  window.addEventListener("beforeunload", warning);
  if (latest !== null) goOn();

  return {
    state,
    changed(file) {
      latest = file;
      at = Date.now();
      keepSoon();
      const { status } = state.getState();
      if (status === "conflict") return;
      if (status !== "away") state.setState({ status: isSending ? "saving" : "unsaved", why: null });
      if (status !== "away" || !sent) later(PAUSE_MS);
    },
    keepMine() {
      const { theirs } = state.getState();
      if (!theirs) return;
      base = theirs.revision;
      under = theirs.file;
      goOn();
    },
    takeTheirs() {
      const { theirs } = state.getState();
      if (!theirs) return;
      base = theirs.revision;
      under = theirs.file;
      latest = null;
      keep();
      state.setState({ status: "saved", revision: base, theirs: null });
      show(theirs.file);
    },
    follow(revision, file) {
      base = revision;
      under = file;
      state.setState({ revision });
    },
    adopt(draft) {
      latest = draft.latest;
      if (draft.base !== base) under = null;
      base = draft.base;
      sent = draft.sent;
      at = draft.at;
      show(latest);
      goOn();
    },
    tryNow: () => later(0),
    stop() {
      isStopped = true;
      if (keeping) keep();
      clearTimeout(timer);
      window.removeEventListener("online", online);
      window.removeEventListener("pagehide", leaving);
      window.removeEventListener("beforeunload", warning);
    },
  };
}
