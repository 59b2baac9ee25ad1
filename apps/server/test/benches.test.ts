import { randomUUID } from "node:crypto";
import { once } from "node:events";
import { connect, type Socket } from "node:net";
import { sql } from "drizzle-orm";
import pino from "pino";
import { afterAll, beforeAll, expect, inject, test, vi } from "vitest";
import { openDatabase } from "../src/database.ts";
import { benchWords, parseBenchWords } from "../src/instruments/bench-words.ts";
import { BENCHES, Benches } from "../src/instruments/benches.ts";
import { Gateway } from "../src/instruments/gateway.ts";
import type { Hearing } from "../src/instruments/hearing.ts";

/** A server's instruments, told to the others of its database. */
async function server(name: string) {
  const opened = await openDatabase(inject("databaseUrl"), name);
  const gateway = new Gateway(pino({ level: "silent" }));
  await gateway.open(0);
  const benches = new Benches(
    gateway,
    (words) => void opened.db.execute(sql`select pg_notify(${BENCHES}, ${words})`).catch(() => {}),
  );
  const unheard = opened.hear(
    BENCHES,
    (words) => benches.hear(words),
    () => benches.sayWhoIsHere(),
  );
  const close = async () => {
    benches.stop();
    gateway.close();
    await unheard();
    await opened.close();
  };
  return { gateway, benches, close, db: opened.db };
}

let one: Awaited<ReturnType<typeof server>>;
let other: Awaited<ReturnType<typeof server>>;
let caliper: Socket;
let heard = "";
beforeAll(async () => {
  const name = `benches_${randomUUID().replaceAll("-", "")}`;
  one = await server(name);
  other = await server(name);
  caliper = connect({ port: one.gateway.port, host: "127.0.0.1" });
  caliper.setEncoding("latin1");
  caliper.on("data", (text) => {
    heard += text;
  });
  await once(caliper, "connect");
  caliper.write("HELLO caliper cal-1\n");
});
afterAll(async () => {
  caliper.destroy();
  await Promise.all([one.close(), other.close()]);
});

/** The next event of a kind. */
async function next(hearing: Hearing, kind: "reading" | "instruments") {
  for (;;) {
    const event = await hearing.next(60_000);
    if (event === "over") throw new Error("over");
    if (event !== "nothing" && event.event === kind) return event;
  }
}

test("an instrument at one server is seen, heard and pressed at the other", async () => {
  await vi.waitFor(
    () => expect(other.benches.list()).toMatchObject([{ id: "cal-1", kind: "caliper", state: "here" }]),
    {
      timeout: 60_000,
    },
  );
  const hearing = other.benches.listen(50);
  expect(await next(hearing, "instruments")).toMatchObject({ instruments: [{ id: "cal-1" }] });
  expect(other.benches.tell("cal-1", { say: "press", press: 7 })).toBe(true);
  await vi.waitFor(() => expect(heard).toContain("PRESS 7"), { timeout: 60_000 });
  caliper.write("READ 4.01 mm 7\n");
  expect(await next(hearing, "reading")).toEqual({
    event: "reading",
    id: "cal-1",
    kind: "caliper",
    value: 4.01,
    unit: "mm",
    press: 7,
  });
  hearing.stop();
  expect(other.benches.tell("none", { say: "press" })).toBe(false);
});

test("gone there it is gone here; a server that stops takes its instruments with it", async () => {
  caliper.destroy();
  await vi.waitFor(() => expect(other.benches.list()[0]!.state).toBe("away"), { timeout: 60_000 });
  expect(other.benches.tell("cal-1", { say: "press" })).toBe(false);
  one.benches.stop();
  await vi.waitFor(() => expect(other.benches.list()).toEqual([]), { timeout: 60_000 });
});

test("what another server says is read as its words, or passed over", () => {
  const from = randomUUID();
  const reading = { event: "reading", id: "a", kind: "caliper", value: 1, unit: "mm" } as const;
  expect(parseBenchWords(benchWords({ from, say: "event", event: reading })!)).toEqual({
    from,
    say: "event",
    event: reading,
  });
  const message = { say: "behave", how: "stuck" } as const;
  expect(parseBenchWords(benchWords({ from, say: "tell", id: "a", message })!)).toEqual({
    from,
    say: "tell",
    id: "a",
    message,
  });
  for (const words of [
    "",
    "{",
    "null",
    '{"from":"me","say":"tell"}',
    JSON.stringify({ from, say: "event", event: { ...reading, unit: "furlong" } }),
    JSON.stringify({ from, say: "event", event: { ...reading, value: "1" } }),
    JSON.stringify({ from, say: "tell", id: "a", line: "FORMAT C" }),
    JSON.stringify({
      from,
      say: "event",
      event: { event: "instruments", instruments: [{ id: "a" }], port: 1 },
    }),
  ])
    expect(parseBenchWords(words), words).toBeNull();
  // More than a notice carries is not sent at all.
  const instruments = Array.from({ length: 64 }, (_, i) => ({
    id: `${i}`.padStart(60, "0"),
    kind: "caliper" as const,
    isSimulated: true,
    state: "here" as const,
    last: { value: 1, unit: "mm" as const, at: 1 },
  }));
  expect(
    benchWords({ from, say: "event", event: { event: "instruments", instruments, port: 1 } }),
  ).toBeNull();
});
