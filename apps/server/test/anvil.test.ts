import { randomUUID } from "node:crypto";
import { firstRoute } from "@true-spine/core/route/first.ts";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { fieldKnife, openApi } from "./api.ts";

let api: Awaited<ReturnType<typeof openApi>>;
const blade = randomUUID();
const PIECE = { height: 0.5, at: 60, twist: 0, isClad: false, rule: 0 };
const places = Array.from({ length: 10 }, (_, i) => ({ x: 12 * i, y: -4 }));
const read = { stage: "true", kind: "gap", face: "left", places };

beforeAll(async () => {
  api = await openApi();
  const file = fieldKnife();
  await api.send("POST", "/blades", { id: blade, file });
  const route = { ...firstRoute(file), stages: firstRoute(file).stages };
  await api.send("PUT", `/blades/${blade}/documents/route`, { file: route, base: 0, saveKey: randomUUID() });
});
afterAll(() => api.close());

describe("the simulated anvil", () => {
  test("nothing lies there until something is laid; then it reads as bent as it is, hollow on its left", async () => {
    expect((await api.send("GET", `/anvil/${blade}`)).body).toEqual({ laid: null });
    expect((await api.send("POST", `/anvil/${blade}/read`, read)).status).toBe(404);
    expect((await api.send("PUT", `/anvil/${blade}`, PIECE)).status).toBe(204);
    expect((await api.send("GET", `/anvil/${blade}`)).body).toEqual({ laid: PIECE });
    const { rows } = (await api.send("POST", `/anvil/${blade}/read`, read)).body;
    expect(rows).toHaveLength(10);
    const most = Math.max(...rows.map(({ v }: { v: number }) => v));
    expect(most).toBeGreaterThan(0.35);
    expect(most).toBeLessThan(0.65);
    const on = (await api.send("POST", `/anvil/${blade}/read`, { ...read, face: "right" })).body.rows;
    expect(on[5].v).toBeLessThan(on[0].v);
  });

  test("a blow in its furrow straightens it; what is no piece and no reading is refused in words", async () => {
    const row = {
      id: randomUUID(),
      when: "2026-11-20T10:00:00Z",
      stage: "true",
      what: "blow",
      state: "hard",
      face: "left",
      from: [60, -5],
      to: [60, -22],
      tool: "bit",
      count: 20,
    };
    expect((await api.send("POST", `/blades/${blade}/work`, { work: [row] })).status).toBeLessThan(300);
    const { rows } = (await api.send("POST", `/anvil/${blade}/read`, read)).body;
    expect(Math.max(...rows.map(({ v }: { v: number }) => v))).toBeLessThan(0.3);
    expect((await api.send("PUT", `/anvil/${blade}`, { ...PIECE, height: 99 })).status).toBe(422);
    expect((await api.send("POST", `/anvil/${blade}/read`, { ...read, kind: "guess" })).status).toBe(422);
    expect((await api.send("GET", "/anvil/none")).status).toBe(404);
    expect((await api.send("POST", `/blades/${blade}/work`, { work: [{ ...row, count: 0 }] })).status).toBe(
      422,
    );
  });
});
