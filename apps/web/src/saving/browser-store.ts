import { type DBSchema, type IDBPDatabase, openDB } from "idb";

/** A draft as it lies in this browser: what it is of, whose it is, since when, and what no server has yet. */
export interface KeptDraft {
  /** `what` and `tab`, so that two tabs on one thing never write over each other's. */
  readonly key: string;
  readonly what: string;
  readonly tab: string;
  /** When it was last changed, ms since 1970; 0 where an earlier version did not say. */
  readonly at: number;
  /** Of any version of this program: not sound before it was parsed. */
  readonly draft: unknown;
}

/** Something recorded at the work that no server has yet. */
export interface KeptRow {
  readonly key: string;
  /** What it belongs to: a kind of rows and a blade. */
  readonly of: string;
  readonly at: number;
  readonly entry: unknown;
}

interface BrowserStore extends DBSchema {
  drafts: { key: string; value: KeptDraft; indexes: { what: string } };
  rows: { key: string; value: KeptRow; indexes: { of: string } };
}

const NAME = "true-spine";
const DRAFT = "true-spine-draft:";
const ROW = "true-spine-reading:";

export const draftKey = (what: string, tab: string) => `${what}:${tab}`;
/** Rows of readings of a blade, as they are named here. */
export const readingsOf = (bladeId: string) => `readings:${bladeId}`;

let opened: Promise<IDBPDatabase<BrowserStore>> | null = null;

/**
 * What this browser keeps until a server has it, in IndexedDB. Rejects where the browser has none or its storage is full;
 * nobody may wait for it before sending.
 */
export function browserStore(): Promise<IDBPDatabase<BrowserStore>> {
  opened ??= open().catch((error: unknown) => {
    opened = null;
    throw error;
  });
  return opened;
}

async function open(): Promise<IDBPDatabase<BrowserStore>> {
  const store = await openDB<BrowserStore>(NAME, 1, {
    upgrade(made) {
      made.createObjectStore("drafts", { keyPath: "key" }).createIndex("what", "what");
      made.createObjectStore("rows", { keyPath: "key" }).createIndex("of", "of");
    },
    terminated() {
      opened = null;
    },
  });
  await takeOver(store);
  return store;
}

/**
 * Moves what lies in local storage into the store: what earlier versions kept there, and what a page wrote down in its last
 * moment. The newer of two drafts of one tab counts. Each is removed there only once it is here.
 */
async function takeOver(store: IDBPDatabase<BrowserStore>): Promise<void> {
  for (const { key, value } of lyingAbout()) {
    if (key.startsWith(DRAFT)) {
      const draft = draftFrom(key, value);
      const tx = store.transaction("drafts", "readwrite");
      const known = await tx.store.get(draft.key);
      if (!known || known.at < draft.at) await tx.store.put(draft);
      await tx.done;
    } else {
      await store.put("rows", rowFrom(key, value));
    }
    localStorage.removeItem(key);
  }
}

function lyingAbout(): { key: string; value: unknown }[] {
  try {
    return Object.keys(localStorage)
      .filter((key) => key.startsWith(DRAFT) || key.startsWith(ROW))
      .map((key) => ({ key, value: parsed(localStorage.getItem(key)) }));
  } catch {
    return [];
  }
}

/** What it says, or its bare text where it is no JSON: it is kept all the same. */
function parsed(text: string | null): unknown {
  try {
    return JSON.parse(text ?? "null");
  } catch {
    return text;
  }
}

const figure = (value: unknown, key: string) => {
  const found = value && typeof value === "object" ? (value as Record<string, unknown>)[key] : undefined;
  return typeof found === "number" ? found : 0;
};

function draftFrom(key: string, value: unknown): KeptDraft {
  const name = key.slice(DRAFT.length);
  const cut = name.lastIndexOf(":");
  const [what, tab] = [name.slice(0, cut), name.slice(cut + 1)];
  return { key: draftKey(what, tab), what, tab, at: figure(value, "at"), draft: value };
}

function rowFrom(key: string, value: unknown): KeptRow {
  const name = key.slice(ROW.length);
  const cut = name.lastIndexOf(":");
  return {
    key: name.slice(cut + 1),
    of: readingsOf(name.slice(0, cut)),
    at: figure(value, "at"),
    entry: value,
  };
}

/**
 * Writes a draft down at once, where IndexedDB may no longer come to it: the page is going. Taken over when the store is next
 * opened. False where it would not go in.
 */
export function jotDraft({ what, tab, at, draft }: Omit<KeptDraft, "key">): boolean {
  return jot(DRAFT + draftKey(what, tab), { ...(draft as object), at });
}

export function forgetJottedDraft(what: string, tab: string): void {
  forget(DRAFT + draftKey(what, tab));
}

/** The same for a row. */
export function jotRow(bladeId: string, key: string, entry: object): boolean {
  return jot(`${ROW}${bladeId}:${key}`, entry);
}

export function forgetJottedRow(bladeId: string, key: string): void {
  forget(`${ROW}${bladeId}:${key}`);
}

function jot(key: string, value: object): boolean {
  try {
    localStorage.setItem(key, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

function forget(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // Nothing was written there either.
  }
}
