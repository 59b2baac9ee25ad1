import { createContext, type ReactNode, useContext, useEffect, useState } from "react";
import { createStore, type StoreApi, useStore } from "zustand";

type Refusals = StoreApi<{ readonly labels: ReadonlyMap<string, string> }>;

const Context = createContext<Refusals | null>(null);
const NONE: Refusals = createStore(() => ({ labels: new Map<string, string>() }));

/** Boxes within it tell it what they cannot take, so that nobody passes over a refused entry. */
export function WithRefusals({ children }: { children: ReactNode }) {
  const [store] = useState<Refusals>(() => createStore(() => ({ labels: new Map<string, string>() })));
  return <Context.Provider value={store}>{children}</Context.Provider>;
}

/** Tells whoever asks that a box holds something that cannot be taken. */
export function useRefusal(id: string, label: string, why: string | null): void {
  const store = useContext(Context);
  useEffect(() => {
    if (!store || why === null) return;
    store.setState(({ labels }) => ({ labels: new Map(labels).set(id, label) }));
    return () =>
      store.setState(({ labels }) => {
        const rest = new Map(labels);
        rest.delete(id);
        return { labels: rest };
      });
  }, [store, id, label, why]);
}

/** The names of the boxes that hold something that cannot be taken. */
export function useRefused(): readonly string[] {
  const labels = useStore(useContext(Context) ?? NONE, (state) => state.labels);
  return [...labels.values()];
}

/** Why a form cannot be gone on with: null where it can. */
export function refusedWords(labels: readonly string[]): string | null {
  return labels.length === 0 ? null : `Mend first: ${labels.join(", ")}.`;
}
