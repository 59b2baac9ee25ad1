import type { StoreApi } from "zustand";
import type { Trouble } from "./trouble.ts";

/** Something open in this tab that saves itself. */
export interface Kept {
  readonly trouble: StoreApi<Trouble>;
  /** Sends what is waiting now. */
  tryNow(): void;
  stop(): void;
}

interface Held<T> {
  readonly opening: Promise<T>;
  holders: number;
}

/** Sends what is waiting, and waits for how it ends: true once all is saved, false where it is not to be saved now. */
export function savedNow({ trouble, tryNow }: Kept): Promise<boolean> {
  return new Promise((resolve) => {
    const look = () => {
      const { status } = trouble.getState();
      if (status === "unsaved" || status === "saving") return;
      unsubscribe();
      resolve(status === "saved");
    };
    const unsubscribe = trouble.subscribe(look);
    tryNow();
    look();
  });
}

/**
 * Opens each thing once in this tab, for whoever holds it. What is left with work unsaved goes on saving behind the scenes, and is
 * the same one when it is opened again; it ends when nobody holds it and all is saved.
 */
export function heldOnce<T extends Kept>(open: (id: string) => Promise<T>) {
  const living = new Map<string, Held<T>>();

  function endWhenSaved(id: string, held: Held<T>, kept: T): void {
    const end = () => {
      if (held.holders > 0 || kept.trouble.getState().status !== "saved") return;
      unsubscribe();
      if (living.get(id) !== held) return;
      living.delete(id);
      kept.stop();
    };
    const unsubscribe = kept.trouble.subscribe(end);
    // After the page that holds it next, where one page only gives place to another.
    setTimeout(end, 0);
  }

  /** Opens it, or finds it open. Call `release` once. Throws what opening throws. */
  return async function hold(id: string): Promise<{ kept: T; release(): void }> {
    let held = living.get(id);
    if (!held) {
      held = { opening: open(id), holders: 0 };
      living.set(id, held);
      held.opening.catch(() => living.delete(id));
    }
    const mine = held;
    mine.holders++;
    const kept = await mine.opening;
    let isReleased = false;
    return {
      kept,
      release() {
        if (isReleased) return;
        isReleased = true;
        mine.holders--;
        if (mine.holders > 0) return;
        // Nobody waits for the pause after a keystroke any more.
        if (kept.trouble.getState().status === "unsaved") kept.tryNow();
        endWhenSaved(id, mine, kept);
      },
    };
  };
}
