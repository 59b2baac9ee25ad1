import { chromium, type Page } from "@playwright/test";
import { CHROMIUM } from "./browser.ts";

/**
 * Times the page in a real browser. How long after the click a blade's page is drawn, beside an empty page; then edits:
 * from the edit's start to the drawing laid out, as the page itself measures it, and every task of the page above
 * 50 ms, by the clock and by the processor time it had. Where the two differ, other programs had the processor.
 * Prints, asserts nothing.
 * Run against a started program: BASE=http://127.0.0.1:4570 node --import tsx e2e/time-page.ts
 */
const base = process.env.BASE ?? "http://127.0.0.1:4570";
const MOVES = 60;
const OPENINGS = 3;
/** From the click on a link to what it leads to being drawn, ms. A string: it runs in the page as it is. */
const OPEN = `(name, selector) => new Promise((done) => {
  const link = [...document.querySelectorAll("a")].find((one) => one.textContent.includes(name));
  const from = performance.now();
  const look = () =>
    requestAnimationFrame(() =>
      document.querySelector(selector) ? setTimeout(() => done(performance.now() - from)) : look(),
    );
  link.click();
  look();
})`;

const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const blades = (await (await page.request.get(`${base}/api/blades`)).json()) as {
  id: string;
  name: string;
}[];
for (const [name, selector] of [
  ["Runs", "h1"],
  ...blades.map((blade) => [blade.name, "[aria-label^='Side view']"]),
]) {
  const times: number[] = [];
  for (let i = 0; i < OPENINGS; i++) {
    await page.goto(base, { waitUntil: "networkidle" });
    await page.waitForTimeout(1000);
    times.push(
      await page.evaluate<number>(`(${OPEN})(${JSON.stringify(name)}, ${JSON.stringify(selector)})`),
    );
  }
  console.log(`${name}: drawn ${times.map((ms) => ms.toFixed(0)).join(", ")} ms after the click`);
}
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
    console.log(name, where, report(await page.evaluate("window.drawn"), tasksOf(trace)));
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

/** Tasks of the page's main thread, each by the clock and with its processor time, ms. */
function tasksOf(trace: Buffer): { clock: number; processor: number }[] {
  const { traceEvents } = JSON.parse(trace.toString()) as { traceEvents: TraceEvent[] };
  const thread = ({ pid, tid }: TraceEvent) => `${pid} ${tid}`;
  const mains = new Set(
    traceEvents
      .filter((event) => event.name === "thread_name" && event.args?.name === "CrRendererMain")
      .map(thread),
  );
  return traceEvents
    .filter((event) => event.name === "RunTask" && mains.has(thread(event)))
    .map(({ dur = 0, tdur = 0 }) => ({ clock: dur / 1000, processor: tdur / 1000 }));
}

function report(drawn: number[], all: { clock: number; processor: number }[]): string {
  const spread = (values: readonly number[]) => {
    const sorted = [...values].sort((a, b) => a - b);
    return [0.5, 0.95, 1]
      .map((share) => sorted[Math.floor(share * (sorted.length - 1))]?.toFixed(1))
      .join(" / ");
  };
  // An edit is one task that works it out and draws it: the heaviest, as many as there were edits.
  const edits = all
    .map(({ processor }) => processor)
    .sort((a, b) => b - a)
    .slice(0, drawn.length);
  const long = all
    .filter(({ clock }) => clock > 50)
    .map(({ clock, processor }) => `${clock.toFixed(0)} (${processor.toFixed(0)})`)
    .join(", ");
  return `${drawn.length} edits, ms (median / 95 % / worst): drawn after ${spread(drawn)}; processor time ${spread(edits)}; tasks over 50 ms, clock (processor): ${long || "none"}`;
}
