import { randomUUID } from "node:crypto";
import { ROLES, type Role } from "@true-spine/core/registry/contract.ts";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, inject, test, vi } from "vitest";
import { Doors } from "../src/access/doors.ts";
import { mayAsk } from "../src/access/roles.ts";
import { openDatabase } from "../src/database.ts";
import { REVOKED } from "../src/records/devices.ts";
import { devices, pairingCodes } from "../src/schema/devices.ts";
import { apiOn, named, openApi } from "./api.ts";

let api: Awaited<ReturnType<typeof openApi>>;
let doors: Doors;
let deaf: () => Promise<void>;
let close: () => Promise<void>;
beforeAll(async () => {
  api = await openApi();
  const opened = await openDatabase(inject("databaseUrl"), api.name);
  doors = new Doors(opened.db);
  deaf = opened.hear(
    REVOKED,
    (id) => doors.shut(id),
    () => void doors.lookAgain(),
  );
  close = opened.close;
  api = { ...api, ...apiOn(opened.db, api.judging, { hosts: ["192.168.7.20", "Workshop.local"], doors }) };
});
afterAll(async () => {
  vi.useRealTimers();
  await deaf();
  await close();
  await api.close();
});

/** A request as it comes from an address, over whatever name. */
async function ask(
  path: string,
  from: string,
  headers: Record<string, string> = {},
  request: { method?: string; body?: string } = {},
) {
  const response = await api.app.request(
    path,
    { headers: { host: "192.168.7.20:4571", ...headers }, ...request },
    { incoming: { socket: { remoteAddress: from } } },
  );
  return { status: response.status, headers: response.headers, text: await response.text() };
}

const TABLET = "10.1.1.1";
const newCode = async (role: Role, name = "Grinder tablet") =>
  (await api.send("POST", "/devices/code", { name, role })).body as { code: string; triesLeft: number };
const typeCode = (code: string, more: Record<string, string> = {}) => {
  const body = new URLSearchParams({ code }).toString();
  const headers = {
    "content-type": "application/x-www-form-urlencoded",
    "content-length": String(body.length),
    origin: "https://192.168.7.20:4571",
    ...more,
  };
  return ask("/pair", TABLET, headers, { method: "POST", body });
};
/** A device that was let in: what it sends with every request, and its id. */
async function letIn(role: Role) {
  const { code } = await newCode(role);
  const answer = await typeCode(code);
  expect(answer.status).toBe(303);
  const cookie = answer.headers.get("set-cookie")!.split(";")[0]!;
  const [{ id }] = (await api.send("GET", "/devices")).body;
  return { cookie, id: id as string };
}

describe("names", () => {
  test.each([
    "localhost",
    "LOCALHOST:4570",
    "127.0.0.1:4570",
    "[::1]:4570",
    "192.168.7.20:4570",
    "workshop.local",
  ])("%s is one this server goes by", async (host) =>
    expect((await ask("/api/health", "127.0.0.1", { host })).status).toBe(200),
  );

  test.each([
    "evil.example",
    "127.0.0.1.evil.example",
    "localhost.evil.example:4570",
    "a@localhost",
    "",
    "x/y",
  ])("%j is not, whatever Origin says", async (host) => {
    for (const origin of [undefined, `http://${host}`, "http://localhost"]) {
      const answer = await ask("/api/blades", "127.0.0.1", { host, ...(origin ? { origin } : {}) });
      expect(answer.status).toBe(421);
      expect(answer.headers.get("content-type")).toBe("application/problem+json");
    }
  });
});

describe("another machine", () => {
  test("is let in by a code that the desk shows, once, and by its cookie from then on", async () => {
    const page = await ask("/", TABLET, { accept: "text/html" });
    expect(page.status).toBe(401);
    expect(page.text).toContain("Let this device in");
    expect((await ask("/api/blades", TABLET, { accept: "text/html" })).status).toBe(401);
    const { code, triesLeft } = await newCode("all");
    // Eight signs of 32: 40 bits.
    expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{4}-[0-9A-HJKMNP-TV-Z]{4}$/);
    expect(triesLeft).toBe(5);
    const answer = await typeCode(code.toLowerCase().replace("-", " "));
    expect(answer.status).toBe(303);
    const cookie = answer.headers.get("set-cookie")!;
    for (const part of [/^__Host-true-spine=/, /HttpOnly/, /Secure/, /SameSite=Strict/, /Path=\//])
      expect(cookie).toMatch(part);
    const kept = { cookie: cookie.split(";")[0]! };
    expect((await ask("/api/blades", TABLET, kept)).status).toBe(200);
    expect(JSON.parse((await ask("/api/me", TABLET, kept)).text)).toEqual({
      role: "all",
      name: "Grinder tablet",
    });
    // Of one use.
    expect((await typeCode(code)).status).toBe(401);
    const [device] = (await api.send("GET", "/devices")).body;
    expect(device).toMatchObject({ name: "Grinder tablet", role: "all", revokedAt: null });
    expect(Date.now() - Date.parse(device.lastSeenAt)).toBeLessThan(60_000);
  });

  test("what it proves itself by is not in the database, nor is the code", async () => {
    const { code } = await newCode("look");
    const token = decodeURIComponent((await typeCode(code)).headers.get("set-cookie")!.split(/[=;]/)[1]!);
    const rows = JSON.stringify([
      await api.db.select().from(devices),
      await api.db.select().from(pairingCodes),
    ]);
    expect(token.length).toBeGreaterThan(40);
    expect(rows).not.toContain(token);
    expect(rows).not.toContain(code);
    expect(rows).not.toContain(code.replace("-", ""));
  });

  test("five wrong codes make the right one void; so does time, and a newer one", async () => {
    const { code } = await newCode("all");
    for (let i = 0; i < 5; i++) expect((await typeCode("0000-0000")).status).toBe(401);
    expect((await api.send("GET", "/devices/code")).body).toMatchObject({ triesLeft: 0, isUsed: false });
    expect((await typeCode(code)).status).toBe(401);
    const late = await newCode("all");
    await api.db.execute(sql`update pairing_codes set expires_at = now() - interval '1 second'`);
    expect((await typeCode(late.code)).status).toBe(401);
    const older = await newCode("all");
    const newer = await newCode("all");
    expect((await typeCode(older.code)).status).toBe(401);
    expect((await typeCode(newer.code)).status).toBe(303);
  });

  test("two that type the same code at once: one of them is let in", async () => {
    const { code } = await newCode("all");
    const answers = await Promise.all(Array.from({ length: 6 }, () => typeCode(code)));
    expect(answers.filter(({ status }) => status === 303)).toHaveLength(1);
  });

  test("a foreign page cannot type a code, nor can a form that is none", async () => {
    const { code } = await newCode("all");
    expect((await typeCode(code, { origin: "https://evil.example" })).status).toBe(403);
    expect((await typeCode("x".repeat(2000))).status).toBe(413);
    expect((await typeCode(code)).status).toBe(303);
  });

  test("this machine needs no code; behind something that passes requests on it does too", async () => {
    for (const from of ["127.0.0.1", "::1", "::ffff:127.0.0.1"])
      expect((await ask("/api/blades", from)).status).toBe(200);
    expect((await ask("/api/blades", "::ffff:10.1.1.1")).status).toBe(401);
    const byTls = await api.app.request(
      "/api/blades",
      { headers: { host: "localhost" } },
      { incoming: { socket: { remoteAddress: "127.0.0.1", encrypted: true } } },
    );
    expect(byTls.status).toBe(401);
    const shut = apiOn(api.db, api.judging, { isDeskShut: true });
    expect((await shut.send("GET", "/blades")).status).toBe(401);
  });
});

describe("a device that is shut out", () => {
  test("is refused with its next request, and what it listens to ends", async () => {
    const { cookie, id } = await letIn("card");
    const stream = await api.app.request(
      "/api/instruments/stream",
      { headers: { host: "192.168.7.20", cookie } },
      { incoming: { socket: { remoteAddress: TABLET } } },
    );
    expect(stream.status).toBe(200);
    const reader = stream.body!.getReader();
    await reader.read();
    expect((await api.send("DELETE", `/devices/${id}`)).status).toBe(204);
    expect((await ask("/api/blades", TABLET, { cookie })).status).toBe(401);
    for (let part = await reader.read(); !part.done; part = await reader.read());
    const [device] = (await api.send("GET", "/devices")).body;
    expect(device).toMatchObject({ id, revokedAt: expect.any(String) });
    expect((await api.send("DELETE", `/devices/${randomUUID()}`)).status).toBe(404);
  });

  test("ends too where that was not told: whoever comes back looks after it", async () => {
    const ended = vi.fn();
    const { id } = await letIn("look");
    const forget = doors.holds({ id, name: "x", role: "look" }, ended);
    await doors.lookAgain();
    expect(ended).not.toHaveBeenCalled();
    await api.db.execute(sql`update devices set revoked_at = now() where id = ${id}`);
    await doors.lookAgain();
    expect(ended).toHaveBeenCalledOnce();
    forget();
  });
});

/** Every route that the program has, with ids put in. */
const routes = () => {
  const all = api.app.routes.flatMap(({ method, path }) =>
    path.startsWith("/api/") && !path.includes("*") && method !== "ALL"
      ? [
          `${method} ${path
            .replace(/:kind/, "route")
            .replace(/:number/, "1")
            .replace(/:[a-z]+/g, randomUUID())}`,
        ]
      : [],
  );
  return [...new Set(all)].map((one) => one.split(" ") as [string, string]);
};

describe("what each may ask for", () => {
  test("a stranger: nothing at all", async () => {
    const all = [
      ...routes(),
      ...["/", "/shop", "/assets/index.js", "/mark.svg", "/card-worker.js"].map(
        (path) => ["GET", path] as const,
      ),
    ];
    expect(all.length).toBeGreaterThan(40);
    for (const [method, path] of all) {
      for (const cookie of ["", "__Host-true-spine=AAAA", "true-spine-key=AAAA"]) {
        const { status } = await ask(path, TABLET, { cookie }, { method });
        expect(`${method} ${path} ${status}`).toBe(`${method} ${path} 401`);
      }
    }
  });

  test("with the cards only: what a card shows and sends, and nothing else", async () => {
    const { cookie } = await letIn("card");
    const allowed = [];
    for (const [method, path] of routes()) {
      // A stream would not end.
      if (path.endsWith("/stream")) continue;
      const { status } = await ask(path, TABLET, { cookie }, { method });
      if (status !== 403)
        allowed.push(`${method} ${path.replace(/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/, ":id")}`);
    }
    expect(allowed.sort()).toEqual(
      [
        "GET /api/blades",
        "GET /api/blades/:id",
        "GET /api/blades/:id/documents",
        "GET /api/blades/:id/documents/route",
        "GET /api/blades/:id/readings",
        "GET /api/blades/:id/removed-stages",
        "GET /api/blades/:id/work",
        "GET /api/health",
        "GET /api/instruments",
        "GET /api/me",
        "GET /api/shop",
        "POST /api/blades/:id/readings",
        "POST /api/blades/:id/readings/strike",
        "POST /api/blades/:id/work",
        "POST /api/blades/:id/work/strike",
        "POST /api/instruments/:id/press",
      ].sort(),
    );
    expect((await ask("/", TABLET, { cookie }, { method: "POST" })).status).toBe(403);
  });

  test("to look: everything that is only read; nobody but the desk lets devices in", async () => {
    const id = randomUUID();
    await api.send("POST", "/blades", { id, file: named("Looked at") });
    const { cookie } = await letIn("look");
    for (const [method, path] of routes()) {
      if (method === "GET") continue;
      const { status } = await ask(path, TABLET, { cookie }, { method });
      expect(`${method} ${path} ${status}`).toBe(`${method} ${path} 403`);
    }
    expect((await ask(`/api/blades/${id}`, TABLET, { cookie })).status).toBe(200);
    for (const role of ROLES) {
      expect(mayAsk(role, "GET", "/api/devices")).toBe(false);
      expect(mayAsk(role, "POST", "/api/devices/code")).toBe(false);
    }
    expect(mayAsk("all", "PUT", `/api/blades/${id}`)).toBe(true);
  });
});
