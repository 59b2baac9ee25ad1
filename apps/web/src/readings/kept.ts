import type { TakenReadings } from "@true-spine/core/contract.ts";
import { parseReading } from "@true-spine/core/inspect/parse.ts";
import type { Reading } from "@true-spine/core/inspect/schema.ts";
import { createStore, type StoreApi } from "zustand";
import { Refused, send, Unreachable } from "../api/client.ts";
import { newId } from "../saving/id.ts";
import { type Owed, owedRows } from "../saving/rows.ts";
import type { Trouble } from "../saving/trouble.ts";

export interface ReadingsState extends Trouble {
  /** In the order they were taken, those struck out among them. */
  readonly taken: readonly Reading[];
  readonly struck: ReadonlySet<string>;
}

type Entry =
  | { readonly say: "take"; readonly reading: Reading }
  | { readonly say: "strike"; readonly id: string; readonly struck: boolean };

/**
 * A blade's readings in this browser. One is sent under its own id until the server has it, and kept here until then: sent twice
 * it is still one. Nothing is thrown away; what was wrong is struck out.
 */
export interface KeptReadings {
  readonly state: StoreApi<ReadingsState>;
  take(reading: Reading): void;
  strike(id: string, isStruck: boolean): void;
  /** Sends many, a few hundred at a time; throws Refused or Unreachable, or stops where the signal says so. */
  bring(
    readings: readonly Reading[],
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

export const fetchReadings = (id: string) => send<TakenReadings>("GET", `/blades/${id}/readings`);

/** Opens a blade's readings: what the server has, and what is still owed to it. */
export async function keepReadings(bladeId: string, { taken, struck }: TakenReadings): Promise<KeptReadings> {
  const rows = owedRows<Entry>(bladeId, isEntry);
  const owed = await rows.all();
  const state = createStore<ReadingsState>()(() => ({
    ...withOwed(taken, struck, owed),
    status: owed.length > 0 ? "unsaved" : "saved",
    why: null,
    isKept: true,
  }));
  const channel = new BroadcastChannel(`true-spine-readings:${bladeId}`);
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
      const [fresh, still] = await Promise.all([fetchReadings(bladeId), rows.all()]);
      if (!isStopped) state.setState(withOwed(fresh.taken, fresh.struck, still));
    } catch {
      // The server is away: what is here stands.
    }
  };
  channel.onmessage = () => void follow();

  function owe(entry: Entry): void {
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
  async function sendBatch(batch: readonly Owed<Entry>[]): Promise<void> {
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
      state.setState({ why: error instanceof Refused ? error.message : "A reading was refused." });
    }
  }

  async function post(batch: readonly Entry[]): Promise<void> {
    const readings = batch.flatMap((one) => (one.say === "take" ? [one.reading] : []));
    if (readings.length > 0) await send("POST", `/blades/${bladeId}/readings`, { readings });
    for (const one of batch) {
      if (one.say !== "strike") continue;
      await send("POST", `/blades/${bladeId}/readings/strike`, { ids: [one.id], struck: one.struck });
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
    async bring(readings, onProgress, signal) {
      let kept = 0;
      for (let i = 0; i < readings.length && !signal.aborted; i += BROUGHT_AT_ONCE) {
        const some = readings.slice(i, i + BROUGHT_AT_ONCE);
        const answer = await send<{ kept: number }>("POST", `/blades/${bladeId}/readings`, {
          readings: some,
        });
        kept += answer.kept;
        onProgress(Math.min(readings.length, i + some.length));
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

function withOwed(
  taken: readonly Reading[],
  struck: readonly string[],
  owed: readonly Owed<Entry>[],
): Pick<ReadingsState, "taken" | "struck"> {
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
  const all = more.length > 0 ? [...taken, ...more].sort((a, b) => a.when.localeCompare(b.when)) : taken;
  return { taken: all, struck: out };
}

function isEntry(entry: unknown): entry is Entry {
  if (typeof entry !== "object" || entry === null) return false;
  const { say, reading, id, struck } = entry as Record<string, unknown>;
  if (say === "take") return parseReading(reading).ok;
  return say === "strike" && typeof id === "string" && typeof struck === "boolean";
}
