/** What this browser still owes the server for a blade's file, or for another document of it. */
export interface Draft<T> {
  /** What stands on the screen. */
  readonly latest: T;
  /** The revision it grew from. */
  readonly base: number;
  /** A save that was sent and not answered: it may have landed, so it is sent again as it was. */
  readonly sent: { readonly file: T; readonly base: number; readonly saveKey: string } | null;
}

const prefix = (what: string) => `true-spine-draft:${what}:`;

/** One tab's own place for a draft, so that two tabs on one blade never write over each other's. */
export interface DraftPlace<T> {
  keep(draft: Draft<T>): void;
  clear(): void;
}

/**
 * Takes a place for this tab's draft of one thing, and brings back what a tab that is gone has left there, if it
 * is still sound. A tab shows that it lives by holding a lock named after its place.
 */
export async function takeDraftPlace<T>(
  what: string,
  isSound: (value: unknown) => value is T,
): Promise<{ place: DraftPlace<T>; left: Draft<T> | null }> {
  const key = prefix(what) + crypto.randomUUID();
  hold(key);
  let left: Draft<T> | null = null;
  for (const other of keysOf(what)) {
    if (other === key || (await isHeld(other))) continue;
    left ??= read(other, isSound);
    localStorage.removeItem(other);
  }
  const place: DraftPlace<T> = {
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

function keysOf(what: string): string[] {
  return Object.keys(localStorage).filter((key) => key.startsWith(prefix(what)));
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

function read<T>(key: string, isSound: (value: unknown) => value is T): Draft<T> | null {
  try {
    const draft = JSON.parse(localStorage.getItem(key) ?? "null") as Draft<T> | null;
    if (!draft || !Number.isInteger(draft.base) || !isSound(draft.latest)) return null;
    return draft;
  } catch {
    return null;
  }
}
