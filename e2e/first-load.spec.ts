import { readFileSync } from "node:fs";
import { gzipSync } from "node:zlib";
import { expect, test } from "@playwright/test";

/** What the rack took to stand when it was last looked at, and the most it may take; bytes of scripts and styles. */
const KNOWN = JSON.parse(readFileSync(new URL("./first-load.json", import.meta.url), "utf8")) as {
  bytes: number;
  gzipped: number;
};
const MOST = { bytes: 450_000, gzipped: 140_000 };

test("the rack stands on a small first load, which does not grow by a tenth unseen", async ({ page }) => {
  const html = await (await page.request.get("/")).text();
  const first = [...html.matchAll(/(?:src|href)="(\/[^"]+\.(?:js|css))"/g)].map(([, path]) => path!);
  expect(first.length).toBeGreaterThan(1);
  const bodies = await Promise.all(first.map(async (path) => await (await page.request.get(path)).body()));
  const bytes = bodies.reduce((sum, body) => sum + body.length, 0);
  const gzipped = bodies.reduce((sum, body) => sum + gzipSync(body).length, 0);
  // Everything else never comes: the rack stands all the same.
  await page.route(/\.js$/, (route) =>
    first.includes(new URL(route.request().url()).pathname) ? route.continue() : undefined,
  );
  await page.goto("/");
  await page.getByRole("searchbox").fill("Larder 180");
  await expect(page.getByRole("link", { name: /Larder 180/ }).first()).toBeVisible();
  test.info().annotations.push({ type: "first load", description: `${bytes} bytes, ${gzipped} gzipped` });
  expect(bytes).toBeLessThan(Math.min(MOST.bytes, KNOWN.bytes * 1.1));
  expect(gzipped).toBeLessThan(Math.min(MOST.gzipped, KNOWN.gzipped * 1.1));
  // A number that no longer tells what it is of is no bound.
  expect(bytes).toBeGreaterThan(KNOWN.bytes * 0.8);
});
