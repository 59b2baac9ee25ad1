import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, relative } from "node:path";
import { afterAll, beforeAll, expect, test } from "vitest";
import { apiOn, openApi } from "./api.ts";

/** The built pages as they are served, out of a folder with something beside them that is nobody's business. */
const outer = mkdtempSync(join(tmpdir(), "true-spine-pages-"));
const folder = join(outer, "dist");
let api: Awaited<ReturnType<typeof openApi>>;
let pages: ReturnType<typeof apiOn>;
beforeAll(async () => {
  mkdirSync(join(folder, "assets"), { recursive: true });
  writeFileSync(join(folder, "index.html"), "<title>here</title>");
  writeFileSync(join(folder, "assets/a-1.js"), "export {};".repeat(500));
  writeFileSync(join(folder, ".built-from"), "a secret");
  writeFileSync(join(outer, "beside.txt"), "a secret");
  api = await openApi();
  pages = apiOn(api.db, api.judging, { webDist: relative(process.cwd(), folder) });
});
afterAll(async () => {
  await api.close();
  rmSync(outer, { recursive: true });
});

const get = async (path: string, method = "GET") => {
  const answer = await pages.app.request(`http://localhost${path}`, {
    method,
    headers: { host: "localhost" },
  });
  return { status: answer.status, kept: answer.headers.get("cache-control"), text: await answer.text() };
};

test("an address of a page is the page; built files may be kept for ever, the page may not", async () => {
  for (const path of ["/", "/shop", "/blades/x/grind"])
    expect(await get(path)).toMatchObject({ status: 200, kept: "no-cache", text: "<title>here</title>" });
  expect(await get("/assets/a-1.js")).toMatchObject({
    status: 200,
    kept: "public, max-age=31536000, immutable",
  });
});

test.each([
  "/.built-from",
  "/%2ebuilt-from",
  "/%2Ebuilt-from",
  "/assets/../.built-from",
  "/assets/%2e%2e/.built-from",
  "/..%2fbeside.txt",
  "/%2e%2e/beside.txt",
  "/assets/..%2f..%2fbeside.txt",
  "/%E0%A4%A",
  "/assets/not-there.js",
  "/not-there.txt",
])("%s is nobody's business, or not there", async (path) => {
  const { status, text } = await get(path);
  expect(status).toBe(404);
  expect(text).not.toContain("secret");
});

test("pages are read, and nothing else", async () => {
  for (const method of ["POST", "PUT", "DELETE"]) expect((await get("/", method)).status).toBe(404);
});
