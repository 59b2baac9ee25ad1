import { type AddressInfo, createServer, type Server, type Socket } from "node:net";
import {
  type BenchEvent,
  fromInstrument,
  type InstrumentState,
  LONGEST_LINE,
  type ToInstrument,
  toInstrument,
  type WireUnit,
} from "@true-spine/core/inspect/wire.ts";
import type { InstrumentKind } from "@true-spine/core/shop/instrument.ts";
import type { Logger } from "pino";
import { type Hearing, Hearings } from "./hearing.ts";

/** Lines of nonsense after which an instrument is said to speak it. */
const NONSENSE = 5;
/** A connection that sends more than this in a second is not read until the second is over: it alone waits. */
const BYTES_A_SECOND = 64 * 1024;
const READS_A_SECOND = 20;
const MOST_INSTRUMENTS = 16;
const MOST_CONNECTIONS = 32;
const HELLO_WITHIN_MS = 5000;
const MOST_UNHEARD = 64 * 1024;
/** One that is gone is shown as gone for so long, and then forgotten. */
const FORGOTTEN_AFTER_MS = 30_000;

interface Known {
  state: InstrumentState;
  socket: Socket | null;
  forgetting?: ReturnType<typeof setTimeout>;
}

/**
 * Where instruments come in: a socket on loopback that speaks lines. Whatever does not begin as an instrument does is let go of at
 * once; what else comes over it is counted and dropped; no line of any instrument can end the server or reach a page before it
 * reads as one.
 */
export class Gateway {
  private readonly known = new Map<string, Known>();
  private readonly hearings = new Hearings();
  private server: Server | null = null;

  constructor(private readonly log: Logger) {}

  get port(): number {
    return (this.server?.address() as AddressInfo | null)?.port ?? 0;
  }

  /** Listens on the port, or on a free one where that is taken. */
  async open(port: number): Promise<void> {
    this.server = createServer((socket) => this.take(socket));
    this.server.maxConnections = MOST_CONNECTIONS;
    const listen = (at: number) =>
      new Promise<void>((resolve, reject) => {
        this.server!.once("error", reject);
        this.server!.listen(at, "127.0.0.1", () => {
          this.server!.off("error", reject);
          resolve();
        });
      });
    try {
      await listen(port);
    } catch {
      await listen(0);
    }
    this.server.on("error", (error) => this.log.warn({ err: error }, "instrument socket"));
  }

  close(): void {
    for (const { socket, forgetting } of this.known.values()) {
      clearTimeout(forgetting);
      socket?.destroy();
    }
    this.server?.close();
    this.hearings.stop();
  }

  list(): InstrumentState[] {
    return [...this.known.values()].map(({ state }) => state).sort((a, b) => a.id.localeCompare(b.id));
  }

  /** Hears who is here, and everything from now on; at most so many events wait to be taken. */
  listen(most: number): Hearing {
    return this.hearings.open(most, this.now());
  }

  /** Says something to an instrument that is here; false where it is not. */
  tell(id: string, message: ToInstrument): boolean {
    const socket = this.known.get(id)?.socket;
    if (!socket) return false;
    socket.write(`${toInstrument(message)}\n`);
    // One that does not hear what it is told is not there.
    if (socket.writableLength > MOST_UNHEARD) socket.destroy();
    return true;
  }

  private now(): BenchEvent {
    return { event: "instruments", instruments: this.list(), port: this.port };
  }

  private emit(event: BenchEvent): void {
    this.hearings.tell(event);
  }

  private change(id: string, part: Partial<InstrumentState>): void {
    const one = this.known.get(id);
    if (!one) return;
    one.state = { ...one.state, ...part };
    this.emit(this.now());
  }

  private forget(id: string): void {
    clearTimeout(this.known.get(id)?.forgetting);
    if (this.known.delete(id)) this.emit(this.now());
  }

  private take(socket: Socket): void {
    let rest = "";
    let id: string | null = null;
    let nonsense = 0;
    const flow = { from: Date.now(), bytes: 0, reads: 0 };
    const hello = setTimeout(() => socket.destroy(), HELLO_WITHIN_MS);
    let resuming: ReturnType<typeof setTimeout> | undefined;
    const isStill = () => id !== null && this.known.get(id)?.socket === socket;
    socket.setEncoding("latin1");
    socket.on("error", () => {});
    socket.on("close", () => {
      clearTimeout(hello);
      clearTimeout(resuming);
      if (!isStill()) return;
      const one = this.known.get(id!)!;
      one.socket = null;
      one.forgetting = setTimeout(() => this.forget(id!), FORGOTTEN_AFTER_MS);
      one.forgetting.unref();
      this.change(id!, { state: "away" });
    });
    socket.on("data", (chunk: string) => {
      const now = Date.now();
      if (now - flow.from > 1000) Object.assign(flow, { from: now, bytes: 0, reads: 0 });
      flow.bytes += chunk.length;
      if (flow.bytes > BYTES_A_SECOND) {
        if (isStill()) this.change(id!, { state: "nonsense" });
        socket.pause();
        resuming = setTimeout(() => socket.resume(), Math.max(0, flow.from + 1001 - now));
      }
      const lines = (rest + chunk).split("\n");
      rest = lines.pop()!.slice(0, LONGEST_LINE + 1);
      for (const line of lines) {
        const message = fromInstrument(line);
        if (id === null) {
          // The first line says what speaks: a page that was made to send something here says something else.
          id = message?.say === "hello" ? this.greet(socket, message) : null;
          clearTimeout(hello);
          if (id === null) {
            socket.destroySoon();
            return;
          }
        } else if (message?.say === "read" && isStill()) {
          nonsense = 0;
          flow.reads++;
          if (flow.reads <= READS_A_SECOND) this.hear(id, message);
        } else if (message?.say === "bye") socket.end();
        else if (++nonsense === NONSENSE && isStill()) this.change(id, { state: "nonsense" });
      }
      if (id === null && rest.length > LONGEST_LINE) socket.destroy();
    });
  }

  /** Takes an instrument in; null where there is no room for another. */
  private greet(
    socket: Socket,
    { kind, id, isSimulated }: { kind: InstrumentKind; id: string; isSimulated: boolean },
  ): string | null {
    if (!this.known.has(id) && !this.makeRoom()) {
      socket.write(`${toInstrument({ say: "sorry", why: "there are too many instruments already" })}\n`);
      return null;
    }
    // The same instrument again: the newer connection is the one that lives.
    const before = this.known.get(id);
    clearTimeout(before?.forgetting);
    this.known.set(id, { socket, state: { id, kind, isSimulated, state: "here", last: null } });
    before?.socket?.destroy();
    socket.write(`${toInstrument({ say: "welcome" })}\n`);
    this.emit(this.now());
    return id;
  }

  /** Whether there is room for one more; one that is gone makes it. */
  private makeRoom(): boolean {
    if (this.known.size < MOST_INSTRUMENTS) return true;
    const gone = [...this.known.keys()].find((id) => this.known.get(id)?.socket === null);
    if (gone) this.forget(gone);
    return gone !== undefined;
  }

  private hear(id: string, { value, unit, press }: { value: number; unit: WireUnit; press?: number }): void {
    const { state } = this.known.get(id)!;
    this.emit({
      event: "reading",
      id,
      kind: state.kind,
      value,
      unit,
      ...(press === undefined ? {} : { press }),
    });
    this.change(id, { state: "here", last: { value, unit, at: Date.now() } });
  }
}
