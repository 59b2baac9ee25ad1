import { browserStore, forgetJottedRow, jotRow, readingsOf } from "./browser-store.ts";

/** Something recorded at the work, on its way to the server. */
export interface Owed<E extends object> {
  readonly key: string;
  readonly at: number;
  readonly entry: E;
}

/**
 * Rows of one blade that this browser still owes the server, each under a key of its own, so that tabs never write over each
 * other's. A row counts as soon as it is owed; that it is also kept in this browser comes a moment later, and may fail.
 */
export interface OwedRows<E extends object> {
  owe(key: string, entry: E): void;
  /** Oldest first: what this tab owes, and what other tabs have left. */
  all(): Promise<readonly Owed<E>[]>;
  paid(keys: readonly string[]): void;
  /** Whether what this tab owes is kept in this browser too. */
  isKept(): boolean;
  stop(): void;
}

export function owedRows<E extends object>(
  bladeId: string,
  isSound: (entry: unknown) => entry is E,
): OwedRows<E> {
  const of = readingsOf(bladeId);
  /** What is not known to be in the store. */
  const unkept = new Map<string, Owed<E>>();
  const paidHere = new Set<string>();
  let last = 0;
  /** Later than any before it: what is done one after another stays so. */
  const now = () => {
    last = Math.max(Date.now(), last + 0.001);
    return last;
  };
  const leaving = () => {
    for (const { key, at, entry } of unkept.values()) jotRow(bladeId, key, { ...entry, at });
  };
  window.addEventListener("pagehide", leaving);
  return {
    owe(key, entry) {
      const row = { key, at: now(), entry };
      unkept.set(key, row);
      browserStore()
        .then((store) => store.put("rows", { ...row, of }))
        .then(
          () => unkept.delete(key),
          () => {},
        );
    },
    async all() {
      const kept = await browserStore()
        .then((store) => store.getAllFromIndex("rows", "of", of))
        .catch(() => []);
      const rows = new Map<string, Owed<E>>();
      // What cannot be read stays where it is: a later version may know it.
      for (const { key, at, entry } of kept) if (isSound(entry)) rows.set(key, { key, at, entry });
      for (const [key, row] of unkept) rows.set(key, row);
      for (const key of paidHere) rows.delete(key);
      return [...rows.values()].sort((a, b) => a.at - b.at);
    },
    paid(keys) {
      for (const key of keys) {
        unkept.delete(key);
        paidHere.add(key);
        forgetJottedRow(bladeId, key);
      }
      browserStore()
        .then(async (store) => {
          const tx = store.transaction("rows", "readwrite");
          await Promise.all([...keys.map((key) => tx.store.delete(key)), tx.done]);
          for (const key of keys) paidHere.delete(key);
        })
        .catch(() => {});
    },
    isKept: () => unkept.size === 0,
    stop() {
      window.removeEventListener("pagehide", leaving);
    },
  };
}
