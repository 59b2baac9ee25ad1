import { parseBlade } from "@true-spine/core/blade/parse.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";

/** What this browser still owes the server for a blade. */
export interface Draft {
  /** What stands on the screen. */
  readonly latest: Blade;
  /** The revision it grew from. */
  readonly base: number;
  /** A save that was sent and not answered: it may have landed, so it is sent again as it was. */
  readonly sent: { readonly file: Blade; readonly base: number; readonly saveKey: string } | null;
}

const prefix = (id: string) => `true-spine-draft:${id}:`;

/** One tab's own place for a draft, so that two tabs on one blade never write over each other's. */
export interface DraftPlace {
  keep(draft: Draft): void;
  clear(): void;
}

/**
 * Takes a place for this tab's draft of a blade, and brings back what a tab that is gone has left there.
 * A tab shows that it lives by holding a lock named after its place.
 */
export async function takeDraftPlace(id: string): Promise<{ place: DraftPlace; left: Draft | null }> {
  const key = prefix(id) + crypto.randomUUID();
  hold(key);
  let left: Draft | null = null;
  for (const other of keysOf(id)) {
    if (other === key || (await isHeld(other))) continue;
    left ??= read(other);
    localStorage.removeItem(other);
  }
  const place: DraftPlace = {
    keep(draft) {
      localStorage.setItem(key, JSON.stringify(draft));
    },
    clear() {
      localStorage.removeItem(key);
    },
  };
  if (left) place.keep(left);
  return { place, left };
}

function keysOf(id: string): string[] {
  return Object.keys(localStorage).filter((key) => key.startsWith(prefix(id)));
}

function hold(name: string): void {
  // Held until the page goes: the promise never settles on purpose.
  navigator.locks?.request(name, () => new Promise<never>(() => {}));
}

async function isHeld(name: string): Promise<boolean> {
  if (!navigator.locks) return false;
  const { held = [] } = await navigator.locks.query();
  return held.some((lock) => lock.name === name);
}

function read(key: string): Draft | null {
  try {
    const draft = JSON.parse(localStorage.getItem(key) ?? "null") as Draft | null;
    if (!draft || !Number.isInteger(draft.base) || !parseBlade(draft.latest).ok) return null;
    return draft;
  } catch {
    return null;
  }
}
