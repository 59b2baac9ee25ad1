import { browserStore, draftKey, forgetJottedDraft, jotDraft, type KeptDraft } from "./browser-store.ts";
import { newId } from "./id.ts";
import { livingTabs, thisTab } from "./tab.ts";

/** What this browser still owes the server for one thing: a blade's file, a document of it, the shop, a run. */
export interface Draft<T> {
  /** What stands on the screen. */
  readonly latest: T;
  /** The revision it grew from. */
  readonly base: number;
  /** A save that was sent and not answered: it may have landed, so it is sent again as it was. */
  readonly sent: { readonly file: T; readonly base: number; readonly saveKey: string } | null;
  /** When it was last changed, ms since 1970; 0 where that is not known. */
  readonly at: number;
}

/** One tab's own place for a draft of one thing. */
export interface DraftPlace<T> {
  /** Resolves to whether it is kept: a browser may be out of room. */
  keep(draft: Draft<T>): Promise<boolean>;
  /** In the page's last moment: both ways at once, and no waiting. */
  keepAtOnce(draft: Draft<T>): void;
  clear(): void;
}

/** What one tab that is gone has left behind. */
export interface LeftWork {
  readonly tab: string;
  /** When it was last changed, ms since 1970; 0 where that is not known. */
  readonly at: number;
  readonly drafts: readonly KeptDraft[];
}

export async function draftPlace<T>(what: string): Promise<DraftPlace<T>> {
  const tab = await thisTab();
  const key = draftKey(what, tab);
  return {
    async keep(draft) {
      try {
        await (await browserStore()).put("drafts", { key, what, tab, at: draft.at, draft });
        forgetJottedDraft(what, tab);
        return true;
      } catch {
        return false;
      }
    },
    keepAtOnce(draft) {
      jotDraft({ what, tab, at: draft.at, draft });
    },
    clear() {
      forgetJottedDraft(what, tab);
      void browserStore().then(
        (store) => store.delete("drafts", key),
        () => {},
      );
    },
  };
}

/**
 * What lies here of some things: this tab's own from before it was loaded again, and what tabs that are gone have left, newest
 * first. Nothing is taken away. Living tabs' drafts are theirs.
 */
export async function findDrafts(
  whats: readonly string[],
): Promise<{ own: readonly KeptDraft[]; left: readonly LeftWork[] }> {
  let drafts: KeptDraft[];
  try {
    const store = await browserStore();
    drafts = (await Promise.all(whats.map((what) => store.getAllFromIndex("drafts", "what", what)))).flat();
  } catch {
    return { own: [], left: [] };
  }
  if (drafts.length === 0) return { own: [], left: [] };
  const [mine, living] = [await thisTab(), await livingTabs()];
  const tabs = new Map<string, KeptDraft[]>();
  for (const draft of drafts) {
    if (draft.tab !== mine && living.has(draft.tab)) continue;
    tabs.set(draft.tab, [...(tabs.get(draft.tab) ?? []), draft]);
  }
  const own = tabs.get(mine) ?? [];
  tabs.delete(mine);
  const left = [...tabs].map(([tab, of]) => workOf(tab, of));
  return { own, left: left.sort((a, b) => b.at - a.at) };
}

const workOf = (tab: string, drafts: readonly KeptDraft[]): LeftWork => ({
  tab,
  at: Math.max(...drafts.map(({ at }) => at)),
  drafts,
});

/**
 * Of what was found, what is taken up by itself: this tab's own from before it was loaded again, or the work of the one tab that
 * is gone. Of several, or where a part is not sound any more, the maker decides. What is taken up is this tab's from now on.
 */
export async function takeUpDrafts(
  { own, left }: Awaited<ReturnType<typeof findDrafts>>,
  isSound: (kept: KeptDraft) => boolean,
): Promise<{ resumed: LeftWork | null; left: readonly LeftWork[] }> {
  const [only] = left;
  if (own.length > 0) {
    const mine = workOf(own[0]!.tab, own);
    if (own.every(isSound)) return { resumed: mine, left };
    return { resumed: null, left: [workOf(mine.tab, await setAside(own).catch(() => own)), ...left] };
  }
  if (!only || left.length > 1 || !only.drafts.every(isSound)) return { resumed: null, left };
  await claimDrafts(only.drafts).catch(() => {});
  return { resumed: only, left: [] };
}

/** Makes what another tab left this tab's own, all of it or nothing. */
export async function claimDrafts(drafts: readonly KeptDraft[]): Promise<void> {
  await moveTo(await thisTab(), drafts);
}

/** Puts this tab's own drafts out of the way of new ones, as those of a tab that is gone. */
export async function setAside(drafts: readonly KeptDraft[]): Promise<readonly KeptDraft[]> {
  return moveTo(newId(), drafts);
}

async function moveTo(tab: string, drafts: readonly KeptDraft[]): Promise<readonly KeptDraft[]> {
  const store = await browserStore();
  const tx = store.transaction("drafts", "readwrite");
  const moved = drafts.map((kept) => ({ ...kept, tab, key: draftKey(kept.what, tab) }));
  await Promise.all([
    ...drafts.map(({ key }) => tx.store.delete(key)),
    ...moved.map((kept) => tx.store.put(kept)),
    tx.done,
  ]);
  return moved;
}

/** Takes drafts out of this browser: the maker does not want them. */
export async function forgetDrafts(drafts: readonly KeptDraft[]): Promise<void> {
  const store = await browserStore();
  const tx = store.transaction("drafts", "readwrite");
  await Promise.all([...drafts.map(({ key }) => tx.store.delete(key)), tx.done]);
}

/** A draft as this version understands it; null where it is not sound any more. */
export function readDraft<T>(
  { draft, at }: KeptDraft,
  isSound: (value: unknown) => boolean,
): Draft<T> | null {
  if (typeof draft !== "object" || draft === null) return null;
  const { latest, base, sent } = draft as Partial<Draft<unknown>>;
  if (!isSound(latest) || !Number.isInteger(base)) return null;
  const isWhole =
    sent && isSound(sent.file) && Number.isInteger(sent.base) && typeof sent.saveKey === "string";
  return { latest: latest as T, base: base!, sent: isWhole ? (sent as Draft<T>["sent"]) : null, at };
}
