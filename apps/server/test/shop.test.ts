import { randomUUID } from "node:crypto";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { openApi } from "./api.ts";

let api: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  api = await openApi();
});
afterAll(() => api.close());

const put = (base: number, file: unknown, saveKey = randomUUID()) =>
  api.send("PUT", "/shop", { base, saveKey, file });

describe("the shop", () => {
  test("says nothing at first; saved, it stands; a save sent twice is one; a stale one is refused with what stands", async () => {
    expect((await api.send("GET", "/shop")).body).toEqual({ revision: 0, file: null });
    const saveKey = randomUUID();
    expect((await put(0, USUAL_SHOP, saveKey)).body).toEqual({ revision: 1 });
    expect((await put(0, USUAL_SHOP, saveKey)).body).toEqual({ revision: 1 });
    const next = { ...USUAL_SHOP, hourly: 55 };
    expect(await put(0, next)).toMatchObject({ status: 409, body: { revision: 1, file: USUAL_SHOP } });
    expect((await put(1, next)).body).toEqual({ revision: 2 });
    expect((await api.send("GET", "/shop")).body).toEqual({ revision: 2, file: next });
  });

  test("two first saves at once: one stands, the other is told", async () => {
    const { revision } = (await api.send("GET", "/shop")).body;
    const answers = await Promise.all([put(revision, USUAL_SHOP), put(revision, USUAL_SHOP)]);
    expect(answers.map(({ status }) => status).toSorted()).toEqual([200, 409]);
  });

  test("a grade that its scale does not have, and one abrasive twice, are refused with their paths", async () => {
    const [first, ...rest] = USUAL_SHOP.abrasives;
    const { body, status } = await put(9, {
      ...USUAL_SHOP,
      abrasives: [{ ...first!, grade: "P37" }, { ...first! }, ...rest],
    });
    expect(status).toBe(422);
    const told = JSON.stringify(body);
    expect(told).toContain("the P scale has no grade “P37”");
    expect(told).toContain("stands in the list already");
  });
});
