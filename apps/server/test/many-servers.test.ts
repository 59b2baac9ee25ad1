import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, expect, inject, test, vi } from "vitest";
import { Doors } from "../src/access/doors.ts";
import { openDatabase } from "../src/database.ts";
import { Judging } from "../src/judging/judging.ts";
import { REVOKED } from "../src/records/devices.ts";
import { noteTrouble } from "../src/records/troubles.ts";
import { apiOn, named } from "./api.ts";

/** Two servers on one database, as behind a balancer: whichever is asked, the answer is the same. */
async function server(name: string) {
  const opened = await openDatabase(inject("databaseUrl"), name);
  const judging = new Judging();
  const doors = new Doors(opened.db);
  const deaf = opened.hear(
    REVOKED,
    (id) => doors.shut(id),
    () => void doors.lookAgain(),
  );
  const close = async () => {
    await deaf();
    await judging.close();
    await opened.close();
  };
  return { ...apiOn(opened.db, judging, { doors, isDeskShut: false }), close, doors };
}

let one: Awaited<ReturnType<typeof server>>;
let other: Awaited<ReturnType<typeof server>>;
beforeAll(async () => {
  const name = `many_${randomUUID().replaceAll("-", "")}`;
  [one, other] = await Promise.all([server(name), server(name)]);
});
afterAll(() => Promise.all([one.close(), other.close()]));

test("what is saved at one stands at the other, and only one of two stale saves lands", async () => {
  const id = randomUUID();
  await one.send("POST", "/blades", { id, file: named("Of two servers") });
  expect((await other.send("GET", `/blades/${id}`)).body).toMatchObject({ revision: 1 });
  const save = (api: typeof one, name: string) =>
    api.send("PUT", `/blades/${id}`, { file: named(name), base: 1, saveKey: randomUUID() });
  const answers = await Promise.all([save(one, "By one"), save(other, "By the other")]);
  expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
  const stands = answers[0]!.status === 200 ? "By one" : "By the other";
  expect((await one.send("GET", `/blades/${id}`)).body.name).toBe(stands);
  expect((await other.send("GET", `/blades/${id}`)).body.name).toBe(stands);
});

test("a code made at one lets in at the other; shut out at one, what the other streams to it ends", async () => {
  const { code } = (await one.send("POST", "/devices/code", { name: "Between", role: "look" })).body;
  const body = new URLSearchParams({ code }).toString();
  const from = { incoming: { socket: { remoteAddress: "10.1.1.7" } } };
  const paired = await other.app.request(
    "/pair",
    {
      method: "POST",
      body,
      headers: {
        host: "localhost",
        "content-type": "application/x-www-form-urlencoded",
        "content-length": String(body.length),
      },
    },
    from,
  );
  expect(paired.status).toBe(303);
  const cookie = paired.headers.get("set-cookie")!.split(";")[0]!;
  const stream = await other.app.request(
    "/api/instruments/stream",
    { headers: { host: "localhost", cookie } },
    from,
  );
  const reader = stream.body!.getReader();
  await reader.read();
  const [{ id }] = (await one.send("GET", "/devices")).body;
  await one.send("DELETE", `/devices/${id}`);
  for (let part = await reader.read(); !part.done; part = await reader.read());
  expect(
    (await other.app.request("/api/blades", { headers: { host: "localhost", cookie } }, from)).status,
  ).toBe(401);
});

test("what one did wrong is told by both, the newest first and no more than are kept", async () => {
  for (let i = 0; i < 3; i++) await noteTrouble(one.db, `Trouble ${i}`, `GET /api/${i}`);
  const told = async (api: typeof one) =>
    (await api.send("GET", "/troubles")).body.map(({ what }: { what: string }) => what);
  expect(await told(one)).toEqual(["Trouble 2", "Trouble 1", "Trouble 0"]);
  expect(await told(other)).toEqual(await told(one));
});

test("a defect is told there, and not to whoever asked", async () => {
  const judging = { summarize: () => Promise.reject(new Error("a secret of the machine")) };
  const broken = apiOn(one.db, {
    ...judging,
    read: async (_: string, text: string) => JSON.parse(text),
  } as never);
  const answer = await broken.send("POST", "/blades", { id: randomUUID(), file: named("Broken") });
  expect(answer.status).toBe(500);
  expect(JSON.stringify(answer.body)).not.toContain("secret");
  await vi.waitFor(async () =>
    expect((await one.send("GET", "/troubles")).body[0]).toMatchObject({
      what: "a secret of the machine",
      where: "POST /api/blades",
    }),
  );
});
