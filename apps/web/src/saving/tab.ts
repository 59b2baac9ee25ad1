import { newId } from "./id.ts";

const KEY = "true-spine-tab";
const lockOf = (tab: string) => `true-spine-tab:${tab}`;
/** A page that is being left lets go of its lock a moment after the next one begins. */
const HANDED_OVER_WITHIN_MS = 1500;
/** Without locks the tabs are asked by name; one that does not answer in this time is gone. */
const ANSWER_WITHIN_MS = 400;

type Call = { readonly say: "who is there" } | { readonly say: "here"; readonly tab: string };

let own: Promise<string> | null = null;

/** The id of this tab: the same after a reload, another one in a copy of the tab. */
export function thisTab(): Promise<string> {
  own ??= navigator.locks ? takeByLock() : takeByRollCall();
  return own;
}

/** Which tabs of this browser live now; this one among them. */
export async function livingTabs(): Promise<{ has(tab: string): boolean }> {
  const mine = await thisTab();
  if (!navigator.locks) return (await rollCall()).add(mine);
  const { held = [] } = await navigator.locks.query();
  const names = new Set(held.map(({ name }) => name));
  return { has: (tab) => tab === mine || names.has(lockOf(tab)) };
}

/** A tab shows that it lives by holding the lock of its id until the page goes. */
async function takeByLock(): Promise<string> {
  const before = remembered();
  if (before && (await hold(before, HANDED_OVER_WITHIN_MS))) return before;
  const fresh = newId();
  remember(fresh);
  await hold(fresh, HANDED_OVER_WITHIN_MS);
  return fresh;
}

function hold(tab: string, withinMs: number): Promise<boolean> {
  return new Promise((resolve) => {
    navigator.locks
      .request(lockOf(tab), { signal: AbortSignal.timeout(withinMs) }, () => {
        resolve(true);
        return new Promise<never>(() => {});
      })
      .catch(() => resolve(false));
  });
}

async function takeByRollCall(): Promise<string> {
  const before = remembered();
  const others = before ? await rollCall() : new Set<string>();
  const tab = before && !others.has(before) ? before : newId();
  remember(tab);
  const channel = new BroadcastChannel(KEY);
  channel.onmessage = ({ data }: MessageEvent<Call>) => {
    if (data.say === "who is there") channel.postMessage({ say: "here", tab } satisfies Call);
  };
  return tab;
}

function rollCall(): Promise<Set<string>> {
  const channel = new BroadcastChannel(KEY);
  const heard = new Set<string>();
  channel.onmessage = ({ data }: MessageEvent<Call>) => {
    if (data.say === "here") heard.add(data.tab);
  };
  channel.postMessage({ say: "who is there" } satisfies Call);
  return new Promise((resolve) =>
    setTimeout(() => {
      channel.close();
      resolve(heard);
    }, ANSWER_WITHIN_MS),
  );
}

function remembered(): string | null {
  try {
    return sessionStorage.getItem(KEY);
  } catch {
    return null;
  }
}

function remember(tab: string): void {
  try {
    sessionStorage.setItem(KEY, tab);
  } catch {
    // A reload is then another tab: what it left is offered instead of taken up by itself.
  }
}
