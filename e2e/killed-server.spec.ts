import { expect, type Page, test } from "@playwright/test";
import { openThrowawayCluster } from "../scripts/database.mjs";
import { freePort } from "../scripts/processes.mjs";
import { DIST, startServer } from "../scripts/server.mjs";
import { fieldKnife } from "./blade.ts";

/** A few among the tests; the soak has more. */
const MOMENTS = Number(process.env.KILLS ?? 4);
const LATEST_MS = 900;

/** A small seeded generator (mulberry32, from memory), so that every run dies at the same moments. */
function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

test(`a server killed at ${MOMENTS} moments between keystroke and answer loses nothing`, async ({
  browser,
}) => {
  const cluster = await openThrowawayCluster();
  const port = await freePort();
  const start = () =>
    startServer({ databaseUrl: cluster.url("postgres"), port, dist: DIST, env: { LOG_LEVEL: "silent" } });
  let server = await start();
  try {
    const page = await browser.newPage({ baseURL: server.url });
    const id = crypto.randomUUID();
    await page.request.post("/api/blades", { data: { id, file: fieldKnife("Survivor") } });
    await page.goto(`/blades/${id}/grind`);
    const box = page.getByLabel("Radius it leaves");
    await expect(box).toBeVisible();
    const random = seeded(20_261);
    const acknowledged: { revision: number; radius: number }[] = [];
    page.on("response", async (response) => {
      if (response.request().method() !== "PUT" || response.status() !== 200) return;
      const sent = response.request().postDataJSON();
      const answer = await response.json().catch(() => null);
      if (answer)
        acknowledged.push({ revision: answer.revision, radius: sent.file.bevels.right.plunge.radius });
    });
    for (let i = 0; i < MOMENTS; i++) {
      const typed = ((i * 37) % 90) / 10 + 0.5;
      await box.fill(String(typed));
      await page.waitForTimeout(random() * LATEST_MS);
      process.kill(server.pid!, "SIGKILL");
      await server.gone;
      // Every fifth time the page is thrown away too, while the server is down: the draft has to bring it back.
      const isReloaded = i % 5 === 4;
      server = await start();
      if (isReloaded) await page.reload();
      // Told that the network is back, as a browser tells it, the page asks at once instead of at its next turn.
      else await page.evaluate(() => window.dispatchEvent(new Event("online")));
      await expect(box).toHaveValue(String(typed));
      await isSaved(page);
      const { file } = await (await page.request.get(`/api/blades/${id}`)).json();
      expect(file.bevels.right.plunge.radius).toBe(typed);
    }
    expect(acknowledged.length).toBeGreaterThan(MOMENTS / 2);
    for (const { revision, radius } of acknowledged) {
      const kept = await (await page.request.get(`/api/blades/${id}/revisions/${revision}`)).json();
      expect(kept.file.bevels.right.plunge.radius).toBe(radius);
    }
    await page.close();
  } finally {
    await server.stop();
    await cluster.stop();
  }
});

async function isSaved(page: Page): Promise<void> {
  await expect(page.getByRole("status").filter({ hasText: /^saved$/ })).toBeVisible();
}
