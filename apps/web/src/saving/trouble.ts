import { createStore, type StoreApi } from "zustand";
import type { SaveStatus } from "./saving.ts";

export interface Trouble {
  readonly status: SaveStatus;
  readonly why: string | null;
  readonly isKept: boolean;
}

const TROUBLE: Record<SaveStatus, number> = {
  saved: 0,
  unsaved: 1,
  saving: 2,
  away: 3,
  refused: 4,
  conflict: 5,
};

/** One word for all that saves itself on a screen: the most troubled of them, and why. */
export function worstOf(
  states: readonly Pick<StoreApi<Trouble>, "getState" | "subscribe">[],
): StoreApi<Trouble> {
  const worst = (): Trouble => {
    const [first] = states.map((one) => one.getState()).sort((a, b) => TROUBLE[b.status] - TROUBLE[a.status]);
    const isKept = states.every((one) => one.getState().isKept);
    return { status: first?.status ?? "saved", why: first?.why ?? null, isKept };
  };
  const store = createStore<Trouble>()(worst);
  for (const one of states) one.subscribe(() => store.setState(worst()));
  return store;
}

const SAVED_WITHIN_MS = 10_000;

/** Whether all is saved, now or once what is on its way has come. */
export function isSavedSoon(trouble: StoreApi<Trouble>): Promise<boolean> {
  const isSaved = () => trouble.getState().status === "saved";
  return new Promise((resolve) => {
    const say = () => {
      clearTimeout(timer);
      forget();
      resolve(isSaved());
    };
    const timer = setTimeout(say, SAVED_WITHIN_MS);
    const forget = trouble.subscribe(() => isSaved() && say());
    if (isSaved()) say();
  });
}
