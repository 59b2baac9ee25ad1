import { randomUUID } from "node:crypto";
import type { BenchEvent, InstrumentState, ToInstrument } from "@true-spine/core/inspect/wire.ts";
import { type BenchWords, benchWords, parseBenchWords } from "./bench-words.ts";
import { type Hearing, Hearings } from "./hearing.ts";

/** Channel on which servers of one database tell one another what their instruments do. */
export const BENCHES = "true_spine_benches";
/** A server says so often who is at it, and is forgotten when it was not heard for three times as long. */
const SAY_EVERY_MS = 15_000;
const FORGOTTEN_AFTER_MS = 3 * SAY_EVERY_MS;
const MOST_SERVERS = 64;
const MOST_WAITING = 1000;

/** The instruments at one server. */
export interface Bench {
  readonly port: number;
  list(): InstrumentState[];
  listen(most: number): Hearing;
  tell(id: string, message: ToInstrument): boolean;
}

interface Elsewhere {
  readonly instruments: readonly InstrumentState[];
  readonly at: number;
}

/**
 * The instruments at this server and at every other one of its database, as if all were here: whichever a page is connected to, it hears them,
 * and a press reaches the one that is pressed. What is told goes through `post` and comes in by `hear`; no server needs another's address.
 */
export class Benches implements Bench {
  private readonly me = randomUUID();
  private readonly elsewhere = new Map<string, Elsewhere>();
  private readonly hearings = new Hearings();
  private ears: Hearing;
  private isStopped = false;
  private readonly saying: ReturnType<typeof setInterval>;

  constructor(
    private readonly own: Bench,
    private readonly post: (words: string) => void,
  ) {
    this.ears = own.listen(MOST_WAITING);
    void this.passOn();
    this.saying = setInterval(() => {
      if (this.own.list().length > 0 || this.elsewhere.size > 0) this.sayWhoIsHere();
    }, SAY_EVERY_MS);
    this.saying.unref();
  }

  get port(): number {
    return this.own.port;
  }

  list(): InstrumentState[] {
    this.forgetSilent();
    const all = new Map<string, InstrumentState>();
    for (const { instruments } of this.elsewhere.values())
      for (const one of instruments) all.set(one.id, one);
    // One that is here is better known here.
    for (const one of this.own.list()) if (one.state !== "away" || !all.has(one.id)) all.set(one.id, one);
    return [...all.values()].sort((a, b) => a.id.localeCompare(b.id));
  }

  listen(most: number): Hearing {
    return this.hearings.open(most, this.now());
  }

  tell(id: string, message: ToInstrument): boolean {
    if (this.own.tell(id, message)) return true;
    const isElsewhere = [...this.elsewhere.values()].some(({ instruments }) =>
      instruments.some((one) => one.id === id && one.state !== "away"),
    );
    if (isElsewhere) this.say({ say: "tell", id, message });
    return isElsewhere;
  }

  /** What another server told; what does not read as that is passed over, and so is what this one said itself. */
  hear(words: string): void {
    const told = parseBenchWords(words);
    if (!told || told.from === this.me) return;
    if (told.say === "tell") {
      this.own.tell(told.id, told.message);
      return;
    }
    if (told.event.event === "reading") {
      this.hearings.tell(told.event);
      return;
    }
    const isNew = !this.elsewhere.has(told.from);
    if (isNew && this.elsewhere.size >= MOST_SERVERS) return;
    this.elsewhere.set(told.from, { instruments: told.event.instruments, at: Date.now() });
    this.hearings.tell(this.now());
    // One that has just come has not heard who is here.
    if (isNew) this.sayWhoIsHere();
  }

  /** Says who is here: words may have been missed, here and elsewhere. */
  sayWhoIsHere(): void {
    this.say({
      say: "event",
      event: { event: "instruments", instruments: this.own.list(), port: this.own.port },
    });
  }

  stop(): void {
    this.isStopped = true;
    clearInterval(this.saying);
    this.ears.stop();
    this.hearings.stop();
    this.say({ say: "event", event: { event: "instruments", instruments: [], port: 0 } });
  }

  private async passOn(): Promise<void> {
    for (;;) {
      const event = await this.ears.next(SAY_EVERY_MS);
      if (event === "over") {
        if (this.isStopped) return;
        // It fell behind: from who is here now on.
        this.ears = this.own.listen(MOST_WAITING);
        continue;
      }
      if (event === "nothing") continue;
      this.say({ say: "event", event });
      this.hearings.tell(event.event === "instruments" ? this.now() : event);
    }
  }

  private now(): BenchEvent {
    return { event: "instruments", instruments: this.list(), port: this.port };
  }

  private say(
    words: BenchWords extends infer W ? (W extends BenchWords ? Omit<W, "from"> : never) : never,
  ): void {
    const text = benchWords({ from: this.me, ...words } as BenchWords);
    if (text) this.post(text);
  }

  private forgetSilent(): void {
    for (const [server, { at }] of this.elsewhere)
      if (Date.now() - at > FORGOTTEN_AFTER_MS) this.elsewhere.delete(server);
  }
}
