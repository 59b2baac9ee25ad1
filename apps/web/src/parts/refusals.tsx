import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";
import { createStore, type StoreApi, useStore } from "zustand";

interface Refused {
  readonly label: string;
  /** Moves the focus to the box. */
  readonly focus: () => void;
}

type Refusals = StoreApi<{ readonly boxes: ReadonlyMap<string, Refused> }>;

interface Scope {
  readonly refusals: Refusals;
  readonly outer: Scope | null;
}

const Context = createContext<Scope | null>(null);
const emptyStore = (): Refusals => createStore(() => ({ boxes: new Map<string, Refused>() }));
const NONE = emptyStore();

/** Boxes within register what they refuse, here and in every scope around, so that no form saves past a refused entry. */
export function WithRefusals({ children }: { children: ReactNode }) {
  const outer = useContext(Context);
  const [refusals] = useState(emptyStore);
  const scope = useMemo(() => ({ refusals, outer }), [refusals, outer]);
  return <Context.Provider value={scope}>{children}</Context.Provider>;
}

/** Registers a box that holds a refused entry with the forms around it. */
export function useRefusal(id: string, label: string, why: string | null): void {
  const scope = useContext(Context);
  useEffect(() => {
    if (why === null) return;
    const focus = () => document.getElementById(id)?.focus();
    const set = (change: (boxes: Map<string, Refused>) => void) => {
      for (let at = scope; at; at = at.outer)
        at.refusals.setState(({ boxes }) => {
          const next = new Map(boxes);
          change(next);
          return { boxes: next };
        });
    };
    set((boxes) => boxes.set(id, { label, focus }));
    return () => set((boxes) => boxes.delete(id));
  }, [scope, id, label, why]);
}

/** Boxes of the nearest form that hold a refused entry. */
function useRefusedBoxes(): readonly Refused[] {
  const boxes = useStore(useContext(Context)?.refusals ?? NONE, (state) => state.boxes);
  return useMemo(() => [...boxes.values()], [boxes]);
}

/** Names of the boxes of the nearest form that hold a refused entry. */
export function useRefused(): readonly string[] {
  return useRefusedBoxes().map(({ label }) => label);
}

/** Why a form cannot be saved; null where it can. */
export function refusedWords(labels: readonly string[]): string | null {
  return labels.length === 0 ? null : `Correct first: ${labels.join(", ")}.`;
}

/**
 * Guards the action of a form: with a refused box in the form it is not carried out, the focus goes to the first such box and `why` names
 * all of them.
 */
export function useGuard(): { guard: (act: () => void) => void; why: string | null } {
  const refused = useRefusedBoxes();
  const [isAsked, setIsAsked] = useState(false);
  const guard = (act: () => void) => {
    setIsAsked(refused.length > 0);
    if (refused.length > 0) refused[0]!.focus();
    else act();
  };
  return { guard, why: isAsked ? refusedWords(refused.map(({ label }) => label)) : null };
}
