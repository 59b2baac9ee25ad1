import { chromium, type Page } from "@playwright/test";
import { CHROMIUM } from "./browser.ts";

/**
 * Times edits on the page in a real browser, as the page itself measures them: from the edit's start to the
 * drawing laid out, and from the pointer's event to the frame after it. Prints, asserts nothing.
 * Run against a started program: BASE=http://127.0.0.1:4570 node --import tsx e2e/time-page.ts
 */
const base = process.env.BASE ?? "http://127.0.0.1:4570";
const MOVES = 120;

const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const blades = (await (await page.request.get(`${base}/api/blades`)).json()) as {
  id: string;
  name: string;
}[];
for (const { id, name } of blades) {
  for (const [where, label] of [
    ["grind", /Plunge foot/],
    ["shape", /edge node 2\./],
  ] as const) {
    await page.goto(`${base}/blades/${id}/${where}`, { waitUntil: "networkidle" });
    await page.waitForTimeout(1500);
    const handle = page.getByRole("button", { name: label }).first();
    const box = await handle.boundingBox();
    if (!box) continue;
    await watch(page);
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let i = 1; i <= MOVES; i++) {
      await page.mouse.move(x + 8 * Math.sin(i / 9), y + (where === "shape" ? 5 * Math.sin(i / 7) : 0));
    }
    await page.mouse.move(x, y);
    await page.mouse.up();
    console.log(name, where, report(await page.evaluate("({ drawn: window.drawn, long: window.long })")));
    await page.keyboard.press("Control+z");
  }
}
await browser.close();

/** Starts collecting the page's own measures and the browser's long tasks. A string: it runs in the page as it is. */
async function watch(target: Page): Promise<void> {
  await target.evaluate(`
    window.drawn = [];
    window.long = [];
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) if (e.name === "true-spine-edit-drawn") window.drawn.push(e.duration);
    }).observe({ type: "measure" });
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) window.long.push(e.duration);
    }).observe({ type: "longtask" });
  `);
}

function report({ drawn, long }: { drawn: number[]; long: number[] }): string {
  const sorted = [...drawn].sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.floor(share * (sorted.length - 1))]?.toFixed(1);
  const tasks = long.length === 0 ? "none" : long.map((ms) => ms.toFixed(0)).join(", ");
  return `${drawn.length} edits, drawn after ${at(0.5)} ms (median), ${at(0.95)} (95 %), ${at(1)} (worst); long tasks: ${tasks}`;
}
