import { connect, type Socket } from "node:net";
import { parseArgs } from "node:util";
import { QUANTITY } from "@true-spine/core/inspect/quantity.ts";
import { spotKey } from "@true-spine/core/inspect/schema.ts";
import { atInstrument, type Behaviour, type Held, type WireUnit } from "@true-spine/core/inspect/wire.ts";
import type { InstrumentKind } from "@true-spine/core/shop/instrument.ts";
import { HiddenBench } from "./bench.ts";
import { randomFrom, seedOf } from "./random.ts";

const UNIT: Readonly<Record<"mm" | "°" | "HRC", WireUnit>> = { mm: "mm", "°": "deg", HRC: "hrc" };
const AGAIN_MS = 1000;
const AWAY_MS = 4000;
const NOISE = 6;
/** What a biased one is off by, in its own unit. */
const BIAS: Readonly<Record<string, number>> = { "angle-finder": 1, "hardness-tester": 4 };

/** A simulated instrument as a program: it speaks lines to the server's socket, and reads the hidden piece when pressed. */
export function run(kind: InstrumentKind): void {
  const { values } = parseArgs({
    options: { port: { type: "string" }, server: { type: "string" }, seed: { type: "string" } },
  });
  const port = Number(values.port);
  if (!port || !values.server) {
    process.stderr.write(`usage: ${kind} --port PORT --server http://127.0.0.1:PORT [--seed WORD]\n`);
    process.exit(2);
  }
  process.on("disconnect", () => process.exit(0));
  const id = `simulated-${kind}`;
  const bench = new HiddenBench(values.server);
  const seed = `${id} ${values.seed ?? ""}`;
  const random = randomFrom(seedOf(seed));
  const presses = new Map<string, number>();
  let how: Behaviour = "well";
  let held: Held | null = null;
  let stuckAt: number | null = null;
  let socket: Socket | null = null;
  let babble: ReturnType<typeof setInterval> | undefined;

  const say = (line: string) => socket?.write(`${line}\n`);

  async function press(number?: number): Promise<void> {
    if (!held) return;
    const isFor = QUANTITY[held.spot.what];
    if (isFor.instrument !== kind) return;
    const place = `${held.blade} ${held.stage} ${spotKey(held.spot)}`;
    const count = (presses.get(place) ?? 0) + 1;
    presses.set(place, count);
    // What a press is off by hangs on the place and how often it was read, not on what else was read before.
    const ofPress = randomFrom(seedOf(`${seed} ${place} ${count}`));
    const more = { noise: how === "noisy" ? NOISE : 1, bias: how === "biased" ? (BIAS[kind] ?? 0.3) : 0 };
    const value = how === "stuck" && stuckAt !== null ? stuckAt : await bench.read(held, kind, ofPress, more);
    if (value === null) return;
    stuckAt = value;
    say(`READ ${value.toFixed(4)} ${UNIT[isFor.unit]}${number === undefined ? "" : ` ${number}`}`);
  }

  function behave(next: Behaviour): void {
    how = next;
    clearInterval(babble);
    if (how === "garbage") {
      babble = setInterval(() => socket?.write(nonsense(random.next)), 100);
    }
    if (how === "away") {
      socket?.destroy();
      setTimeout(() => {
        how = "well";
      }, AWAY_MS);
    }
  }

  function open(): void {
    if (how === "away") {
      setTimeout(open, AGAIN_MS);
      return;
    }
    let rest = "";
    const mine = connect({ port, host: "127.0.0.1" }, () => say(`HELLO ${kind} ${id} simulated`));
    socket = mine;
    mine.setEncoding("utf8");
    mine.on("data", (chunk: string) => {
      const lines = (rest + chunk).split("\n");
      rest = lines.pop()!;
      for (const line of lines) {
        const message = atInstrument(line);
        if (message?.say === "place") held = message.held;
        if (message?.say === "press") press(message.press).catch(() => {});
        if (message?.say === "behave") behave(message.how);
      }
    });
    mine.on("error", () => {});
    mine.on("close", () => setTimeout(open, AGAIN_MS));
  }
  open();
}

/** Bytes as a broken cable makes them: no line of it reads as one. */
function nonsense(next: () => number): Buffer {
  const bytes = Buffer.alloc(60);
  for (let i = 0; i < bytes.length; i++) bytes[i] = Math.floor(next() * 256);
  return Buffer.concat([bytes, Buffer.from("READ 1e999 mm\nREAD <b>0.5</b> mm\nREAD NaN mm\n\n")]);
}
