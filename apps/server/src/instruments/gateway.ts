import { type AddressInfo, createServer, type Server, type Socket } from "node:net";
import type { InstrumentKind } from "@true-spine/core/inspect/instrument.ts";
import {
  type BenchEvent,
  fromInstrument,
  type InstrumentState,
  LONGEST_LINE,
  type ToInstrument,
  toInstrument,
  type WireUnit,
} from "@true-spine/core/inspect/wire.ts";
import type { Logger } from "pino";

/** Lines of nonsense after which an instrument is said to speak it. */
const NONSENSE = 5;
/** A connection that sends more than this in a second is let go of, and not taken again for a while. */
const BYTES_A_SECOND = 64 * 1024;
const READS_A_SECOND = 20;
const SHUT_OUT_MS = 3000;
const MOST_CONNECTIONS = 32;
const HELLO_WITHIN_MS = 5000;

interface Known {
  state: InstrumentState;
  socket: Socket | null;
}

/**
 * Where instruments come in: a socket on loopback that speaks lines. Whatever else comes over it is counted and dropped; no line
 * of any instrument can end the server or reach a page before it reads as one.
 */
export class Gateway {
  private readonly known = new Map<string, Known>();
  private readonly listeners = new Set<(event: BenchEvent) => void>();
  private server: Server | null = null;
  private shutUntil = 0;

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
    for (const { socket } of this.known.values()) socket?.destroy();
    this.server?.close();
    this.listeners.clear();
  }

  list(): InstrumentState[] {
    return [...this.known.values()].map(({ state }) => state).sort((a, b) => a.id.localeCompare(b.id));
  }

  /** Hears everything from now on; call what comes back to stop. */
  listen(listener: (event: BenchEvent) => void): () => void {
    this.listeners.add(listener);
    listener(this.now());
    return () => this.listeners.delete(listener);
  }

  /** Says something to an instrument that is here; false where it is not. */
  tell(id: string, message: ToInstrument): boolean {
    const socket = this.known.get(id)?.socket;
    return socket?.write(`${toInstrument(message)}\n`) ?? false;
  }

  private now(): BenchEvent {
    return { event: "instruments", instruments: this.list(), port: this.port };
  }

  private emit(event: BenchEvent): void {
    for (const listener of this.listeners) listener(event);
  }

  private change(id: string, part: Partial<InstrumentState>): void {
    const one = this.known.get(id);
    if (!one) return;
    one.state = { ...one.state, ...part };
    this.emit(this.now());
  }

  private take(socket: Socket): void {
    if (Date.now() < this.shutUntil) {
      socket.destroy();
      return;
    }
    let rest = "";
    let id: string | null = null;
    let nonsense = 0;
    const flow = { from: Date.now(), bytes: 0, reads: 0 };
    const hello = setTimeout(() => socket.destroy(), HELLO_WITHIN_MS);
    const isStill = () => id !== null && this.known.get(id)?.socket === socket;
    socket.setEncoding("latin1");
    socket.on("error", () => {});
    socket.on("close", () => {
      clearTimeout(hello);
      if (!isStill()) return;
      this.known.get(id!)!.socket = null;
      this.change(id!, { state: "away" });
    });
    socket.on("data", (chunk: string) => {
      if (Date.now() - flow.from > 1000) Object.assign(flow, { from: Date.now(), bytes: 0, reads: 0 });
      flow.bytes += chunk.length;
      if (flow.bytes > BYTES_A_SECOND) {
        this.shutUntil = Date.now() + SHUT_OUT_MS;
        if (isStill()) this.change(id!, { state: "nonsense" });
        socket.destroy();
        return;
      }
      const lines = (rest + chunk).split("\n");
      rest = lines.pop()!.slice(0, LONGEST_LINE + 1);
      for (const line of lines) {
        const message = fromInstrument(line);
        if (message?.say === "hello" && id === null) {
          clearTimeout(hello);
          id = this.greet(socket, message.kind, message.id, message.isSimulated);
        } else if (message?.say === "read" && isStill()) {
          nonsense = 0;
          flow.reads++;
          if (flow.reads <= READS_A_SECOND) this.hear(id!, message);
        } else if (message?.say === "bye") socket.end();
        else if (++nonsense === NONSENSE && isStill()) this.change(id!, { state: "nonsense" });
      }
    });
  }

  private greet(socket: Socket, kind: InstrumentKind, id: string, isSimulated: boolean): string {
    // The same instrument again: the newer connection is the one that lives.
    this.known.get(id)?.socket?.destroy();
    this.known.set(id, { socket, state: { id, kind, isSimulated, state: "here", last: null } });
    socket.write(`${toInstrument({ say: "welcome" })}\n`);
    this.emit(this.now());
    return id;
  }

  private hear(id: string, { value, unit }: { value: number; unit: WireUnit }): void {
    const { state } = this.known.get(id)!;
    this.emit({ event: "reading", id, kind: state.kind, value, unit });
    this.change(id, { state: "here", last: { value, unit, at: Date.now() } });
  }
}
