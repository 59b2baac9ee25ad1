import { afterAll, beforeAll, describe, expect, test, vi } from "vitest";
import { openApi } from "./api.ts";

const KEY = "k".repeat(22);
let api: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  api = await openApi(undefined, { hosts: ["192.168.7.20", "Workshop.local"], key: KEY });
});
afterAll(async () => {
  vi.useRealTimers();
  await api.close();
});

/** A request as it comes from an address, over whatever name. */
async function ask(path: string, from: string, headers: Record<string, string> = {}) {
  const response = await api.app.request(
    path,
    { headers: { host: "192.168.7.20:4570", ...headers } },
    { incoming: { socket: { remoteAddress: from } } },
  );
  return { status: response.status, headers: response.headers, text: await response.text() };
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
  test("gets in with the key in the address once, and with its cookie from then on", async () => {
    expect((await ask("/api/blades", "10.1.1.1")).status).toBe(401);
    const first = await ask(`/?key=${KEY}&x=1`, "10.1.1.1");
    expect(first.status).toBe(303);
    expect(first.headers.get("location")).toBe("/?x=1");
    const cookie = first.headers.get("set-cookie")!;
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Strict/);
    expect(cookie).not.toContain(KEY);
    const kept = { cookie: cookie.split(";")[0]! };
    expect((await ask("/api/blades", "10.1.1.1", kept)).status).toBe(200);
    expect((await ask("/api/instruments", "10.1.1.1", { cookie: "true-spine-key=AAAA" })).status).toBe(401);
  });

  test("this machine needs none", async () => {
    for (const from of ["127.0.0.1", "::1", "::ffff:127.0.0.1"])
      expect((await ask("/api/blades", from)).status).toBe(200);
    expect((await ask("/api/blades", "::ffff:10.1.1.1")).status).toBe(401);
  });

  test("wrong keys are answered slower and slower, to that address alone", async () => {
    vi.useFakeTimers({ toFake: ["Date"] });
    const wrong = () => ask("/?key=wrong", "10.1.1.2");
    expect((await wrong()).status).toBe(401);
    const second = await wrong();
    expect(second.status).toBe(429);
    expect(second.headers.get("retry-after")).toBe("1");
    // The right one has to wait too.
    expect((await ask(`/?key=${KEY}`, "10.1.1.2")).status).toBe(429);
    expect((await ask(`/?key=${KEY}`, "10.1.1.3")).status).toBe(303);
    vi.setSystemTime(Date.now() + 1001);
    expect((await wrong()).status).toBe(401);
    vi.setSystemTime(Date.now() + 1001);
    expect((await wrong()).headers.get("retry-after")).toBe("1");
    vi.setSystemTime(Date.now() + 1001);
    expect((await ask(`/?key=${KEY}`, "10.1.1.2")).status).toBe(303);
    vi.useRealTimers();
  });

  test("without a key nobody from elsewhere gets in at all", async () => {
    const shut = await openApi();
    const response = await shut.app.request(
      `/api/blades?key=${KEY}`,
      { headers: { host: "localhost" } },
      { incoming: { socket: { remoteAddress: "10.1.1.1" } } },
    );
    expect(response.status).toBe(403);
    await shut.close();
  });
});
