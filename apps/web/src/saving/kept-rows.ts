import { createStore, type StoreApi } from "zustand";
import { Refused, send, Unreachable } from "../api/client.ts";
import { newId } from "./id.ts";
import { type Owed, owedRows } from "./rows.ts";
import type { Trouble } from "./trouble.ts";

/** Something recorded at the work: one row under an id of its own. */
interface Row {
  readonly id: string;
  readonly when: string;
}

/** What the server has of them: in the order they were taken, and which were struck out since. */
export interface Taken<R extends Row> {
  readonly taken: readonly R[];
  readonly struck: readonly string[];
}

/** Where rows of a kind live on the server, and which are sound. */
export interface RowKind<R extends Row> {
  /** Of the address, and of what is sent: `/blades/ID/readings`, `{ readings }`. */
  readonly name: string;
  /** Under which what is owed is kept in this browser. */
  of(bladeId: string): string;
  readonly fetch: (bladeId: string) => Promise<Taken<R>>;
  isSound(value: unknown): value is R;
}

export interface RowsState<R extends Row> extends Trouble {
  /** In the order they were taken, those struck out among them. */
  readonly taken: readonly R[];
  readonly struck: ReadonlySet<string>;
}

/** Rows were readings alone once: what is owed still names them so. */
type Entry<R extends Row> =
  | { readonly say: "take"; readonly reading: R }
  | { readonly say: "strike"; readonly id: string; readonly struck: boolean };

/**
 * A blade's rows of one kind in this browser. One is sent under its own id until the server has it, and kept here until then: sent twice
 * it is still one. Nothing is thrown away; what was wrong is struck out.
 */
export interface KeptRows<R extends Row> {
  readonly state: StoreApi<RowsState<R>>;
  take(row: R): void;
  strike(id: string, isStruck: boolean): void;
  /** Sends many, a few hundred at a time, and strikes out those of them that are; answers how many were new; throws Refused or Unreachable, or stops where the signal says so. */
  bring(
    rows: readonly R[],
    struck: readonly string[],
    onProgress: (done: number) => void,
    signal: AbortSignal,
  ): Promise<number>;
  /** Sends what is waiting now, what was refused too. */
  tryNow(): void;
  stop(): void;
}

const FIRST_RETRY_MS = 500;
const LONGEST_RETRY_MS = 5000;
const AT_ONCE = 200;
const BROUGHT_AT_ONCE = 500;

/** Opens a blade's rows: what the server has, and what is still owed to it. */
export async function keepRows<R extends Row>(
  kind: RowKind<R>,
  bladeId: string,
  { taken, struck }: Taken<R>,
): Promise<KeptRows<R>> {
  const { name } = kind;
  const rows = owedRows<Entry<R>>(kind.of(bladeId), (entry) => isEntry(entry, kind));
  const owed = await rows.all();
  const state = createStore<RowsState<R>>()(() => ({
    ...withOwed(taken, struck, owed),
    status: owed.length > 0 ? "unsaved" : "saved",
    why: null,
    isKept: true,
  }));
  const channel = new BroadcastChannel(`true-spine-${name}:${bladeId}`);
  /** What the server will not have, as it stands. */
  const refused = new Set<string>();
  let isSending = false;
  let isStopped = false;
  let retry = FIRST_RETRY_MS;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const later = (ms: number) => {
    clearTimeout(timer);
    if (!isStopped) timer = setTimeout(flush, ms);
  };
  const follow = async () => {
    try {
      const [fresh, still] = await Promise.all([kind.fetch(bladeId), rows.all()]);
      if (!isStopped) state.setState(withOwed(fresh.taken, fresh.struck, still));
    } catch {
      // The server is away: what is here stands.
    }
  };
  channel.onmessage = () => void follow();

  function owe(entry: Entry<R>): void {
    const row = { key: newId(), at: 0, entry };
    rows.owe(row.key, entry);
    state.setState({
      ...withOwed(state.getState().taken, [...state.getState().struck], [row]),
      status: "unsaved",
    });
    later(0);
  }

  async function flush(): Promise<void> {
    if (isSending || isStopped) return;
    isSending = true;
    try {
      const waiting = (await rows.all()).filter(({ key }) => !refused.has(key));
      const [first] = waiting;
      state.setState({ isKept: rows.isKept() });
      if (!first) {
        if (refused.size === 0) state.setState({ status: "saved", why: null });
        else state.setState({ status: "refused" });
        return;
      }
      // A run of the same thing goes in one request; the order between takings and strikings is kept.
      const cut = waiting.findIndex(({ entry }) => entry.say !== first.entry.say);
      const batch = waiting.slice(0, cut < 0 ? AT_ONCE : Math.min(cut, AT_ONCE));
      if (state.getState().status !== "away") state.setState({ status: "saving" });
      await sendBatch(batch);
      // A card that is kept for when the network goes keeps what the server now has.
      if (navigator.serviceWorker?.controller) await kind.fetch(bladeId).catch(() => {});
      retry = FIRST_RETRY_MS;
      state.setState({ status: "saving" });
      later(0);
    } catch {
      state.setState({ status: "away" });
      later(retry);
      retry = Math.min(LONGEST_RETRY_MS, retry * 1.6);
    } finally {
      isSending = false;
    }
  }

  /** Sends a batch; what is refused of it is found one by one and put aside. Throws Unreachable. */
  async function sendBatch(batch: readonly Owed<Entry<R>>[]): Promise<void> {
    try {
      await post(batch.map(({ entry }) => entry));
      rows.paid(batch.map(({ key }) => key));
      channel.postMessage("kept");
    } catch (error) {
      if (error instanceof Unreachable) throw error;
      const isOfOne = error instanceof Refused && (error.status === 422 || error.status === 409);
      if (isOfOne && batch.length > 1) {
        for (const one of batch) await sendBatch([one]);
        return;
      }
      for (const { key } of batch) refused.add(key);
      state.setState({ why: error instanceof Refused ? error.message : "A row was refused." });
    }
  }

  async function post(batch: readonly Entry<R>[]): Promise<void> {
    const news = batch.flatMap((one) => (one.say === "take" ? [one.reading] : []));
    if (news.length > 0) await send("POST", `/blades/${bladeId}/${name}`, { [name]: news });
    for (const one of batch) {
      if (one.say !== "strike") continue;
      await send("POST", `/blades/${bladeId}/${name}/strike`, { ids: [one.id], struck: one.struck });
    }
  }

  const tryNow = () => {
    refused.clear();
    later(0);
  };
  const online = () => later(0);
  window.addEventListener("online", online);
  if (owed.length > 0) later(0);
  return {
    state,
    take: (reading) => owe({ say: "take", reading }),
    strike: (id, isStruck) => owe({ say: "strike", id, struck: isStruck }),
    tryNow,
    async bring(brought, struck, onProgress, signal) {
      const out = new Set(struck);
      let kept = 0;
      for (let i = 0; i < brought.length && !signal.aborted; i += BROUGHT_AT_ONCE) {
        const some = brought.slice(i, i + BROUGHT_AT_ONCE);
        const answer = await send<{ kept: number }>("POST", `/blades/${bladeId}/${name}`, { [name]: some });
        kept += answer.kept;
        const ids = some.flatMap(({ id }) => (out.has(id) ? [id] : []));
        if (ids.length > 0) await send("POST", `/blades/${bladeId}/${name}/strike`, { ids, struck: true });
        onProgress(Math.min(brought.length, i + some.length));
      }
      channel.postMessage("kept");
      await follow();
      return kept;
    },
    stop() {
      isStopped = true;
      clearTimeout(timer);
      channel.close();
      rows.stop();
      window.removeEventListener("online", online);
    },
  };
}

function withOwed<R extends Row>(
  taken: readonly R[],
  struck: readonly string[],
  owed: readonly Owed<Entry<R>>[],
): Pick<RowsState<R>, "taken" | "struck"> {
  const known = new Set(taken.map(({ id }) => id));
  const more = owed.flatMap(({ entry: one }) =>
    one.say === "take" && !known.has(one.reading.id) ? [one.reading] : [],
  );
  const out = new Set(struck);
  for (const { entry: one } of owed) {
    if (one.say !== "strike") continue;
    if (one.struck) out.add(one.id);
    else out.delete(one.id);
  }
  const all =
    more.length > 0 ? [...taken, ...more].sort((a, b) => Date.parse(a.when) - Date.parse(b.when)) : taken;
  return { taken: all, struck: out };
}

function isEntry<R extends Row>(entry: unknown, kind: RowKind<R>): entry is Entry<R> {
  if (typeof entry !== "object" || entry === null) return false;
  const { say, reading, id, struck } = entry as Record<string, unknown>;
  if (say === "take") return kind.isSound(reading);
  return say === "strike" && typeof id === "string" && typeof struck === "boolean";
}
