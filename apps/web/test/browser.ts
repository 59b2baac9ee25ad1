import "fake-indexeddb/auto";
import { IDBFactory } from "fake-indexeddb";
import { vi } from "vitest";

/** Locks as a browser has them, as far as tabs use them: exclusive, held until the tab that asked for one is closed. */
class Locks {
  readonly held = new Map<string, number>();
  private waiting: (() => void)[] = [];

  of(tab: number) {
    return {
      request: (name: string, { signal }: { signal?: AbortSignal }, work: () => Promise<unknown>) =>
        new Promise<void>((_, reject) => {
          const take = () => {
            if (this.held.has(name)) this.waiting.push(take);
            else {
              this.held.set(name, tab);
              void work();
            }
          };
          signal?.addEventListener("abort", () => {
            this.waiting = this.waiting.filter((one) => one !== take);
            reject(new Error("not in time"));
          });
          take();
        }),
      query: async () => ({ held: [...this.held.keys()].map((name) => ({ name })) }),
    };
  }

  release(tab: number): void {
    for (const [name, of] of this.held) if (of === tab) this.held.delete(name);
    for (const take of this.waiting.splice(0)) take();
  }
}

/**
 * A browser with one store for all its tabs. A tab is a loading of the program's modules of its own: what it keeps in memory dies with
 * it, what it keeps in the browser stays.
 */
export function pretendBrowser() {
  const locks = new Locks();
  let tabs = 0;
  let current = 0;
  localStorage.clear();
  sessionStorage.clear();
  vi.stubGlobal("indexedDB", new IDBFactory());

  return {
    /** Goes to a new tab; the one before lives on unless it was closed. */
    openTab() {
      sessionStorage.clear();
      return this.reload(false);
    },
    /** Loads the page of this tab again. */
    reload(isSame = true) {
      if (isSame) locks.release(current);
      current = ++tabs;
      Object.defineProperty(navigator, "locks", { value: locks.of(current), configurable: true });
      vi.resetModules();
      return current;
    },
    closeTab(tab: number) {
      locks.release(tab);
    },
    /** Nothing more goes into it. */
    fillUp() {
      const full = () => {
        throw new DOMException("no room", "QuotaExceededError");
      };
      vi.spyOn(Storage.prototype, "setItem").mockImplementation(full);
      vi.spyOn(IDBFactory.prototype, "open").mockImplementation(full);
    },
  };
}

/** Lets what is stored in the background be stored. */
export async function settled(): Promise<void> {
  for (let i = 0; i < 40; i++) await new Promise((resolve) => setImmediate(resolve));
}
