import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { isWithinBounds } from "../src/judging/bounds.ts";
import { fieldKnife, named, openApi } from "./api.ts";

let api: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  api = await openApi();
});
afterAll(() => api.close());

const MB = 1024 * 1024;

/** Bodies of nearly 2 MB that are as much work as their text allows. */
const HOSTILE: Record<string, () => string> = {
  "two hundred thousand faults": () => {
    const nodes = `[${new Array(140_000).fill('{"at":[]}').join(",")}]`;
    return JSON.stringify({ id: randomUUID(), file: { ...fieldKnife(), outline: 0 } }).replace(
      '"outline":0',
      `"outline":{"spine":${nodes},"edge":[],"tang":[]}`,
    );
  },
  "brackets within brackets": () => `{"id":"x","file":${"[".repeat(MB)}`,
  "a million values": () => `{"id":"x","file":[${new Array(900_000).fill("1").join(",")}]}`,
  "two million characters of nothing": () => `{"id":"${"a".repeat(1.9 * MB)}"}`,
  "keys that nobody knows": () =>
    `{"id":"x","file":{${Array.from({ length: 120_000 }, (_, i) => `"k${i}":1`).join(",")}}}`,
};

describe("a body that is meant to hurt", () => {
  test.each(Object.keys(HOSTILE))(
    "%s: refused, and a small request sent after it answers before it",
    async (name) => {
      const body = HOSTILE[name]!();
      expect(body.length).toBeLessThan(2 * MB);
      // Threads that are just starting would answer late whatever is sent.
      await api.send("POST", "/blades", { id: randomUUID(), file: named("Warm") });
      const order: string[] = [];
      const hostile = api.send("POST", "/blades", body).then((answer) => {
        order.push("hostile");
        return answer;
      });
      const small = api.send("GET", "/shop").then(() => order.push("small"));
      const save = api
        .send("POST", "/blades", { id: randomUUID(), file: named("Small") })
        .then((answer) => answer.status);
      await Promise.all([hostile, small, save]);
      expect([400, 413, 422]).toContain((await hostile).status);
      expect(await save).toBe(201);
      // One that is refused before it is looked through may be as quick as any other.
      if (name === "two hundred thousand faults" || name === "keys that nobody knows")
        expect(order[0]).toBe("small");
    },
  );

  test("many at once keep nobody waiting for good, and the server is as well as before", async () => {
    const body = HOSTILE["two hundred thousand faults"]!();
    const answers = await Promise.all(Array.from({ length: 6 }, () => api.send("POST", "/blades", body)));
    for (const { status } of answers) expect([413, 422]).toContain(status);
    expect((await api.send("POST", "/blades", { id: randomUUID(), file: named("After") })).status).toBe(201);
  });
});

describe("bounds", () => {
  test("what stands in quotes does not count, escaped quotes neither", () => {
    expect(isWithinBounds(`"${"[,".repeat(400_000)}"`)).toBe(true);
    expect(isWithinBounds(`"\\"${"[".repeat(1000)}\\\\"`)).toBe(true);
    expect(isWithinBounds(`["\\\\",${"[".repeat(40)}]`)).toBe(false);
  });

  test("the deepest and the largest that are allowed pass, one more does not", () => {
    expect(isWithinBounds("[".repeat(32))).toBe(true);
    expect(isWithinBounds("[".repeat(33))).toBe(false);
    expect(isWithinBounds(`[${"1,".repeat(299_998)}1]`)).toBe(true);
    expect(isWithinBounds(`[${"1,".repeat(299_999)}1]`)).toBe(false);
  });

  test("a text that ends in a quote or an escape ends", () => {
    for (const text of ['"', '"\\', "", "]]]]"]) expect(isWithinBounds(text)).toBe(true);
  });
});
