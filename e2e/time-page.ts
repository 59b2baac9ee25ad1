import { chromium, type Page } from "@playwright/test";
import { CHROMIUM } from "./browser.ts";

/**
 * Times edits on the page in a real browser: from the edit's start to the drawing laid out, as the page itself
 * measures it, and every task of the page above 50 ms, by the clock and by the processor time it had. Where the two
 * differ, other programs had the processor. Prints, asserts nothing.
 * Run against a started program: BASE=http://127.0.0.1:4570 node --import tsx e2e/time-page.ts
 */
const base = process.env.BASE ?? "http://127.0.0.1:4570";
const MOVES = 60;

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
    await browser.startTracing(page, { categories: ["disabled-by-default-devtools.timeline"] });
    for (let i = 1; i <= MOVES; i++) {
      await page.mouse.move(x + 8 * Math.sin(i / 9), y + (where === "shape" ? 5 * Math.sin(i / 7) : 0));
    }
    await page.mouse.move(x, y);
    const trace = await browser.stopTracing();
    await page.mouse.up();
    console.log(name, where, report(await page.evaluate("window.drawn"), longTasks(trace)));
    await page.keyboard.press("Control+z");
  }
}
await browser.close();

/** Starts collecting the page's own measures. A string: it runs in the page as it is. */
async function watch(target: Page): Promise<void> {
  await target.evaluate(`
    window.drawn = [];
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) if (e.name === "true-spine-edit-drawn") window.drawn.push(e.duration);
    }).observe({ type: "measure" });
  `);
}

interface TraceEvent {
  readonly name: string;
  readonly ph: string;
  readonly pid: number;
  readonly tid: number;
  /** Microseconds by the clock, and of processor time. */
  readonly dur?: number;
  readonly tdur?: number;
  readonly args?: { readonly name?: string };
}

/** Tasks of the page's main thread above 50 ms by the clock, each with its processor time, ms. */
function longTasks(trace: Buffer): { clock: number; processor: number }[] {
  const { traceEvents } = JSON.parse(trace.toString()) as { traceEvents: TraceEvent[] };
  const thread = ({ pid, tid }: TraceEvent) => `${pid} ${tid}`;
  const mains = new Set(
    traceEvents
      .filter((event) => event.name === "thread_name" && event.args?.name === "CrRendererMain")
      .map(thread),
  );
  return traceEvents
    .filter((event) => event.name === "RunTask" && (event.dur ?? 0) > 50_000 && mains.has(thread(event)))
    .map(({ dur = 0, tdur = 0 }) => ({ clock: dur / 1000, processor: tdur / 1000 }));
}

function report(drawn: number[], long: { clock: number; processor: number }[]): string {
  const sorted = [...drawn].sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.floor(share * (sorted.length - 1))]?.toFixed(1);
  const tasks = long
    .map(({ clock, processor }) => `${clock.toFixed(0)} (${processor.toFixed(0)})`)
    .join(", ");
  return `${drawn.length} edits, drawn after ${at(0.5)} ms (median), ${at(0.95)} (95 %), ${at(1)} (worst); tasks over 50 ms, clock (processor): ${tasks || "none"}`;
}
