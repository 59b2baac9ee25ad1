import type { TakenReadings } from "@true-spine/core/contract.ts";
import { parseReading } from "@true-spine/core/inspect/parse.ts";
import type { Reading } from "@true-spine/core/inspect/schema.ts";
import { createStore, type StoreApi } from "zustand";
import { Refused, send, Unreachable } from "../api/client.ts";
import type { SaveStatus } from "../blade/saving.ts";

export interface ReadingsState {
  /** In the order they were taken, those struck out among them. */
  readonly taken: readonly Reading[];
  readonly struck: ReadonlySet<string>;
  readonly status: SaveStatus;
  readonly why: string | null;
}

/** What this browser still owes the server: each entry under a key of its own, so that tabs never write over each other's. */
type Owed =
  | { readonly say: "take"; readonly reading: Reading; readonly at: number }
  | { readonly say: "strike"; readonly id: string; readonly struck: boolean; readonly at: number };

/**
 * A blade's readings in this browser. One is kept here first, then sent under its own id until the server has it: sent twice it
 * is still one. Nothing is thrown away; what was wrong is struck out.
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
  stop(): void;
}

const FIRST_RETRY_MS = 500;
const LONGEST_RETRY_MS = 5000;
const AT_ONCE = 200;
const BROUGHT_AT_ONCE = 500;

export const fetchReadings = (id: string) => send<TakenReadings>("GET", `/blades/${id}/readings`);

/** Opens a blade's readings: what the server has, and what is still owed to it. */
export function keepReadings(bladeId: string, { taken, struck }: TakenReadings): KeptReadings {
  const prefix = `true-spine-reading:${bladeId}:`;
  const owed = readOwed(prefix);
  const state = createStore<ReadingsState>()(() => ({
    ...withOwed(
      taken,
      struck,
      owed.map(([, one]) => one),
    ),
    status: owed.length > 0 ? "unsaved" : "saved",
    why: null,
  }));
  const channel = new BroadcastChannel(`true-spine-readings:${bladeId}`);
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
      const fresh = await fetchReadings(bladeId);
      if (!isStopped)
        state.setState(
          withOwed(
            fresh.taken,
            fresh.struck,
            readOwed(prefix).map(([, one]) => one),
          ),
        );
    } catch {
      // The server is away: what is here stands.
    }
  };
  channel.onmessage = () => void follow();

  function owe(entry: Owed): void {
    localStorage.setItem(prefix + crypto.randomUUID(), JSON.stringify(entry));
    state.setState({
      ...withOwed(state.getState().taken, [...state.getState().struck], [entry]),
      status: "unsaved",
    });
    later(0);
  }

  async function flush(): Promise<void> {
    if (isSending || isStopped) return;
    const waiting = readOwed(prefix);
    const [first] = waiting;
    if (!first) {
      state.setState({ status: "saved", why: null });
      return;
    }
    const kind = first[1].say;
    // A run of the same thing goes in one request; the order between takings and strikings is kept.
    const cut = waiting.findIndex(([, one]) => one.say !== kind);
    const batch = waiting.slice(0, cut < 0 ? AT_ONCE : Math.min(cut, AT_ONCE));
    isSending = true;
    if (state.getState().status !== "away") state.setState({ status: "saving" });
    try {
      await sendBatch(batch.map(([, one]) => one));
      for (const [key] of batch) localStorage.removeItem(key);
      retry = FIRST_RETRY_MS;
      channel.postMessage("kept");
      state.setState({ status: "saving" });
      later(0);
    } catch (error) {
      if (error instanceof Unreachable) {
        state.setState({ status: "away" });
        later(retry);
        retry = Math.min(LONGEST_RETRY_MS, retry * 1.6);
      } else {
        state.setState({
          status: "refused",
          why: error instanceof Refused ? error.message : "A reading was refused.",
        });
      }
    } finally {
      isSending = false;
    }
  }

  async function sendBatch(batch: readonly Owed[]): Promise<void> {
    const readings = batch.flatMap((one) => (one.say === "take" ? [one.reading] : []));
    if (readings.length > 0) await send("POST", `/blades/${bladeId}/readings`, { readings });
    for (const one of batch) {
      if (one.say !== "strike") continue;
      await send("POST", `/blades/${bladeId}/readings/strike`, { ids: [one.id], struck: one.struck });
    }
  }

  const online = () => later(0);
  window.addEventListener("online", online);
  if (owed.length > 0) later(0);
  return {
    state,
    take: (reading) => owe({ say: "take", reading, at: Date.now() }),
    strike: (id, isStruck) => owe({ say: "strike", id, struck: isStruck, at: Date.now() }),
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
      window.removeEventListener("online", online);
    },
  };
}

function withOwed(
  taken: readonly Reading[],
  struck: readonly string[],
  owed: readonly Owed[],
): Pick<ReadingsState, "taken" | "struck"> {
  const known = new Set(taken.map(({ id }) => id));
  const more = owed.flatMap((one) => (one.say === "take" && !known.has(one.reading.id) ? [one.reading] : []));
  const out = new Set(struck);
  for (const one of owed) {
    if (one.say !== "strike") continue;
    if (one.struck) out.add(one.id);
    else out.delete(one.id);
  }
  const all = more.length > 0 ? [...taken, ...more].sort((a, b) => a.when.localeCompare(b.when)) : taken;
  return { taken: all, struck: out };
}

/** What is owed, oldest first. What cannot be read is left out: it was written by nobody. */
function readOwed(prefix: string): [string, Owed][] {
  return Object.keys(localStorage)
    .filter((key) => key.startsWith(prefix))
    .flatMap((key): [string, Owed][] => {
      try {
        const entry = JSON.parse(localStorage.getItem(key) ?? "null") as Owed | null;
        if (entry?.say === "take" && parseReading(entry.reading).ok) return [[key, entry]];
        return entry?.say === "strike" ? [[key, entry]] : [];
      } catch {
        return [];
      }
    })
    .sort(([, a], [, b]) => a.at - b.at);
}
