import { connect, type Socket } from "node:net";
import type { BenchEvent } from "@true-spine/core/inspect/wire.ts";
import pino from "pino";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { Gateway } from "../src/instruments/gateway.ts";
import { openApi } from "./api.ts";

let api: Awaited<ReturnType<typeof openApi>>;
const sockets: Socket[] = [];
beforeAll(async () => {
  api = await openApi();
  await api.gateway.open(0);
});
afterAll(async () => {
  for (const socket of sockets) socket.destroy();
  api.gateway.close();
  await api.close();
});

/** A program at the bench: what it heard so far, and a way to say a line. */
async function plug(hello?: string) {
  const heard: string[] = [];
  const socket = connect({ port: api.gateway.port, host: "127.0.0.1" });
  sockets.push(socket);
  let isClosed = false;
  socket.on("error", () => {});
  socket.on("close", () => {
    isClosed = true;
  });
  socket.setEncoding("utf8");
  socket.on("data", (chunk: string) => heard.push(...chunk.trim().split("\n")));
  await new Promise((resolve) => socket.once("connect", resolve));
  if (hello) socket.write(`${hello}\n`);
  return { heard, socket, say: (line: string) => socket.write(`${line}\n`), isClosed: () => isClosed };
}

const events: BenchEvent[] = [];
const until = async (isSo: () => boolean) => {
  for (let i = 0; i < 6000 && !isSo(); i++) await new Promise((resolve) => setTimeout(resolve, 20));
  expect(isSo()).toBe(true);
};
const stateOf = (id: string) => api.gateway.list().find((one) => one.id === id);
const readings = (id: string) =>
  events.flatMap((one) => (one.event === "reading" && one.id === id ? [one.value] : []));

describe("instruments over their socket", () => {
  let hearing: ReturnType<typeof api.gateway.listen>;
  beforeAll(() => {
    hearing = api.gateway.listen(10_000);
    const hear = async () => {
      for (let event = await hearing.next(1000); event !== "over"; event = await hearing.next(1000)) {
        if (event !== "nothing") events.push(event);
      }
    };
    void hear();
  });
  afterAll(() => hearing.stop());

  test("one says who it is, is welcomed, and its readings are heard; gone, it is told as gone; back, as back", async () => {
    const caliper = await plug("HELLO caliper bench-1");
    await until(() => caliper.heard.includes("WELCOME"));
    caliper.say("READ 0.52 mm");
    await until(() => readings("bench-1").length === 1);
    expect(stateOf("bench-1")).toMatchObject({ state: "here", last: { value: 0.52, unit: "mm" } });
    caliper.socket.destroy();
    await until(() => stateOf("bench-1")?.state === "away");
    await plug("HELLO caliper bench-1");
    await until(() => stateOf("bench-1")?.state === "here");
  });

  test("a line that comes in pieces is one line", async () => {
    const gauge = await plug("HELLO height-gauge bench-2");
    await until(() => gauge.heard.includes("WELCOME"));
    gauge.socket.write("REA");
    gauge.socket.write("D 1.9");
    gauge.socket.write("05 mm\nREAD 1.91 mm\n");
    await until(() => readings("bench-2").length === 2);
    expect(readings("bench-2")).toEqual([1.905, 1.91]);
  });

  test("one that sends garbage is told as such and disturbs nobody", async () => {
    const [good, bad] = [await plug("HELLO caliper good"), await plug("HELLO caliper bad")];
    await until(() => stateOf("bad")?.state === "here" && stateOf("good")?.state === "here");
    for (let i = 0; i < 30; i++) bad.socket.write(Buffer.from([0, 255, 10, 200, 13, 10, 60, 98, 62, 10]));
    bad.say("READ 1e999 mm");
    bad.say("READ <script> mm");
    await until(() => stateOf("bad")?.state === "nonsense");
    good.say("READ 0.5 mm");
    await until(() => readings("good").length === 1);
    expect(readings("bad")).toEqual([]);
    // It comes to its senses.
    bad.say("READ 0.7 mm");
    await until(() => stateOf("bad")?.state === "here");
    expect(readings("bad")).toEqual([0.7]);
  });

  test("one that floods waits alone, and a line without an end is not kept growing", async () => {
    const flood = await plug("HELLO caliper flood");
    const good = await plug("HELLO caliper steady");
    await until(() => stateOf("flood")?.state === "here" && stateOf("steady")?.state === "here");
    for (let i = 0; i < 40; i++) flood.socket.write("x".repeat(4096));
    await until(() => stateOf("flood")?.state === "nonsense");
    // Others come in and are heard meanwhile.
    good.say("READ 0.5 mm");
    await plug("HELLO caliper later");
    await until(() => stateOf("later")?.state === "here" && readings("steady").length === 1);
    // It comes to its senses, and is heard again.
    flood.socket.write("\nREAD 0.7 mm\n");
    await until(() => readings("flood").length === 1);
  });

  test("what begins otherwise than an instrument is let go of at its first line: a page cannot feed the socket by POST", async () => {
    const before = api.gateway.list().length;
    const page = await plug();
    page.socket.write(
      "POST / HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: text/plain\r\n\r\nHELLO caliper sneaky\nREAD 9 mm\n",
    );
    await until(() => page.isClosed());
    const endless = await plug();
    endless.socket.write("H".repeat(5000));
    await until(() => endless.isClosed());
    expect(stateOf("sneaky")).toBeUndefined();
    expect(api.gateway.list()).toHaveLength(before);
  });

  test("sixteen at most; one that is gone makes room, and a seventeenth is told why not", async () => {
    const own = new Gateway(pino({ level: "silent" }));
    await own.open(0);
    const come = async (id: string) => {
      const socket = connect({ port: own.port, host: "127.0.0.1" });
      sockets.push(socket);
      const heard = await new Promise<string>((resolve) => {
        socket.once("data", (data) => resolve(String(data).trim()));
        socket.write(`HELLO caliper ${id}\n`);
      });
      return { socket, heard };
    };
    const first = await come("c-0");
    for (let i = 1; i < 16; i++) expect((await come(`c-${i}`)).heard).toBe("WELCOME");
    expect((await come("c-16")).heard).toMatch(/^SORRY there are too many/);
    first.socket.destroy();
    await until(() => own.list().some(({ id, state }) => id === "c-0" && state === "away"));
    expect((await come("c-17")).heard).toBe("WELCOME");
    expect(own.list().map(({ id }) => id)).not.toContain("c-0");
    expect(own.list()).toHaveLength(16);
    own.close();
  });

  test("a page that does not read is let go of instead of being waited for", async () => {
    const hearing = api.gateway.listen(20);
    const tool = await plug("HELLO caliper quick");
    await until(() => stateOf("quick")?.state === "here");
    // Only so many are heard in a second.
    await until(() => {
      tool.say("READ 0.5 mm");
      return readings("quick").length > 20;
    });
    expect(await hearing.next(10)).toBe("over");
  });

  test("a reading before any name is no reading", async () => {
    const nobody = await plug();
    nobody.say("READ 0.123 mm");
    await until(() => nobody.isClosed());
    // What is read afterwards is heard afterwards.
    const somebody = await plug("HELLO caliper somebody");
    await until(() => somebody.heard.includes("WELCOME"));
    somebody.say("READ 0.456 mm");
    await until(() => readings("somebody").length === 1);
    const values = events.flatMap((one) => (one.event === "reading" ? [one.value] : []));
    expect(values).toContain(0.456);
    expect(values).not.toContain(0.123);
  });
});

describe("the bench over the API", () => {
  const blade = "00000000-0000-4000-8000-000000000001";

  test("pressing a simulated instrument tells it where it is held, then presses it", async () => {
    const tool = await plug("HELLO caliper held simulated");
    await until(() => stateOf("held")?.isSimulated === true);
    const spot = { what: "line", u: 0.37, side: "left" };
    expect((await api.send("POST", "/instruments/held/press", { blade, stage: "true", spot })).status).toBe(
      202,
    );
    await until(() => tool.heard.includes("PRESS"));
    expect(tool.heard).toContain(`PLACE ${blade} true line u=0.37 side=left`);
    expect((await api.send("POST", "/instruments/held/behave", { how: "noisy" })).status).toBe(202);
    await until(() => tool.heard.includes("BEHAVE noisy"));
  });

  test("a numbered press is answered by its number, however late, on whichever edge and stage it was asked", async () => {
    const tool = await plug("HELLO caliper numbered simulated");
    await until(() => stateOf("numbered")?.isSimulated === true);
    const spot = { what: "line", u: 0.5, side: "left", edge: "second" };
    const body = { blade, stage: "sharpen-2", spot, press: 77 };
    expect((await api.send("POST", "/instruments/numbered/press", body)).status).toBe(202);
    await until(() => tool.heard.includes("PRESS 77"));
    expect(tool.heard).toContain(`PLACE ${blade} sharpen-2 line u=0.5 side=left edge=second`);
    const hearing = api.gateway.listen(50);
    tool.say("READ 4.11 mm 77");
    let event = await hearing.next(5000);
    while (typeof event !== "string" && event.event !== "reading") event = await hearing.next(5000);
    hearing.stop();
    expect(event).toMatchObject({ id: "numbered", value: 4.11, press: 77 });
    const none = await api.send("POST", "/instruments/numbered/press", { ...body, press: -1 });
    expect(none.status).toBe(422);
  });

  test("one that is not there is a 404; nonsense is a 422 with its path", async () => {
    const spot = { what: "edge", u: 0.5 };
    const gone = await api.send("POST", "/instruments/nowhere/press", { blade, stage: "true", spot });
    expect(gone.status).toBe(404);
    const wrong = await api.send("POST", "/instruments/held/press", { blade, stage: "At dusk", spot });
    expect(wrong.status).toBe(422);
    expect((await api.send("POST", "/instruments/held/behave", { how: "badly" })).status).toBe(422);
  });

  test("a page that listens hears who is here at once, and what is read from then on", async () => {
    const response = await api.app.request("/api/instruments/stream", { headers: { host: "localhost" } });
    const reader = response.body!.getReader();
    const text = async () => new TextDecoder().decode((await reader.read()).value);
    expect(response.headers.get("content-type")).toContain("text/event-stream");
    expect(await text()).toContain('"event":"instruments"');
    const tool = await plug("HELLO hardness-tester hrc");
    await until(() => stateOf("hrc")?.state === "here");
    tool.say("READ 60.5 hrc");
    let heard = "";
    for (let i = 0; i < 20 && !heard.includes('"value":60.5'); i++) heard += await text();
    expect(heard).toContain('"event":"reading"');
    await reader.cancel();
  });

  test("simulated instruments are programs of their own: put on the bench they connect, taken off they go", async () => {
    api.bench.start("http://127.0.0.1:9", api.gateway.port);
    const names = ["caliper", "height-gauge", "angle-finder", "hardness-tester"].map(
      (kind) => `simulated-${kind}`,
    );
    await until(() => names.every((id) => stateOf(id)?.state === "here"));
    expect(api.bench.isRunning).toBe(true);
    api.bench.stop();
    await until(() => names.every((id) => stateOf(id)?.state === "away"));
  });
});
