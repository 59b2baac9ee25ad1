import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium, type Page } from "@playwright/test";
import { openThrowawayCluster } from "../scripts/database.mjs";
import { shopDoor } from "../scripts/door.mjs";
import { freePort } from "../scripts/processes.mjs";
import { startServer } from "../scripts/server.mjs";
import { setUp } from "../scripts/setup.mjs";
import { CHROMIUM } from "./browser.ts";

/** Takes the pictures of docs/screenshots: a server of its own with the demo workshop, at 1280 × 800. */
const folder = new URL("../docs/screenshots/", import.meta.url).pathname;
const [LARDER, FEN_HOOK, BRACKEN] = ["c001", "c002", "c003"].map(
  (end) => `/blades/0b8f6c52-6f3e-4a51-9c1d-7d2f30a4${end}`,
);

/** A knife as somebody's drawing program may give it, in inches. */
const DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="10in" height="2in" viewBox="0 0 10 2">
  <path d="M0.5 0.4H6.5C8 0.4 9 0.7 9.4 1C8.6 1.5 7.6 1.6 6.6 1.6H5L4.8 1.35H0.5Z"/>
  <circle cx="1.5" cy="0.85" r="0.125"/></svg>`;

/** Knives that were measured, made up: name, long, behind the edge, its bevel high, 5 mm up. */
const MEASURED = [
  ["Old camp knife", "120", "0.5", "0.77", "0.95"],
  ["Neighbour's pocket knife", "90", "0.35", "0.5", "0.8"],
  ["Long-handled splitter", "160", "0.6", "0.9", "1.3"],
  ["Kitchen slicer", "210", "0.3", "0.55", "0.7"],
  ["Whittler", "70", "0.2", "0.4", "0.9"],
] as const;

async function typeInto(page: Page, label: string, text: string): Promise<void> {
  await page.getByLabel(label, { exact: true }).fill(text);
  await page.keyboard.press("Tab");
}

const dist = await setUp({ chromium: true, built: true });
const cluster = await openThrowawayCluster();
const certificates = mkdtempSync(join(tmpdir(), "true-spine-pictures-"));
const server = await startServer({
  databaseUrl: cluster.url("postgres"),
  port: await freePort(),
  dist,
  env: (await shopDoor(certificates)).env,
});
const browser = await chromium.launch(CHROMIUM);
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: server.url });
  /** Named after the command, only those. */
  const only = process.argv.slice(2);
  const take = async (name: string, path: string, act: () => Promise<void> = async () => {}) => {
    if (only.length > 0 && !only.includes(name)) return;
    await page.goto(path, { waitUntil: "networkidle" });
    await page.waitForTimeout(2500);
    await act();
    await page.waitForTimeout(500);
    await page.screenshot({ path: `${folder}${name}.png` });
  };
  // What a newcomer is told once has been put away.
  await page.addInitScript(() => {
    const kept = JSON.parse(localStorage.getItem("true-spine-settings") ?? '{"state":{},"version":0}');
    kept.state.seen = ["shape", "grind"];
    localStorage.setItem("true-spine-settings", JSON.stringify(kept));
  });
  await take("rack", "/");
  await take("new", "/new", () => page.getByText("Within all that this purpose asks.").waitFor());
  await take("lay-out", "/", async () => {
    const drawing = { name: "liked knife.svg", mimeType: "image/svg+xml", buffer: Buffer.from(DRAWING) };
    await page.getByLabel("Blade file, bundle or drawing").setInputFiles(drawing);
    await page.getByRole("dialog").waitFor();
  });
  await take("grind", `${FEN_HOOK}/grind`);
  await take("shape", `${LARDER}/shape`);
  await take("route", `${FEN_HOOK}/route`, async () => {
    await page.getByRole("region", { name: "Layout sheet" }).waitFor();
  });
  await take("forge", `${BRACKEN}/route`, async () => {
    if (await page.getByRole("button", { name: /^most of it soft/i }).isVisible())
      await page.getByRole("button", { name: /^most of it soft/i }).click();
    await page.getByLabel("Add a stage").selectOption("forge");
    await page.getByRole("link", { name: /Forge$/ }).click();
    await page.getByLabel("Bar, wide").fill("50.8");
    await page.keyboard.press("Tab");
    await page.getByLabel("Bar, thick").fill("8");
    await page.keyboard.press("Tab");
    await page.getByRole("table", { name: "Forms" }).waitFor();
    await page.getByRole("button", { name: "4. bevelled" }).click();
    await page.waitForTimeout(6000);
  });
  await take("heat", `${FEN_HOOK}/heat`, async () => {
    await page.getByRole("button", { name: /^Normalize three times/ }).click();
    await page.getByRole("button", { name: "Temper 2" }).waitFor();
    // The pages after it show this blade as it was.
    await page.waitForTimeout(6000);
  });
  await page.keyboard.press("Control+z");
  await page.waitForTimeout(2000);
  await take("stores", "/stores");
  await take("sums", "/sums/hollow", async () => {
    await page.getByLabel("Thick at the top").fill("4.572");
    await page.getByLabel("Behind the edge").fill("0.254");
    await page.getByLabel("Wheel, across").fill("8 in");
    await page.getByLabel("Hollow, high above the edge bevel").fill("20");
    await page.getByRole("img", { name: /^Drawing/ }).waitFor();
  });
  await take("check", `${FEN_HOOK}/check`, async () => {
    await page.getByRole("button", { name: "Connect simulated instruments" }).click();
    await page.getByText("simulated hardness tester").waitFor();
    await page.getByRole("button", { name: "Press its button (Enter)" }).waitFor();
    // A slip of the hand among them: ten times too much.
    await page.getByLabel(/^What it reads/).fill("39.8 mm");
    await page.keyboard.press("Enter");
    const count = page.getByRole("status").filter({ hasText: /of \d+ read/ });
    for (let i = 0, quiet = 0; i < 400 && quiet < 5; i++) {
      quiet = /^(\d+) of \1 read/.test(await count.innerText()) ? quiet + 1 : 0;
      if (quiet === 0) await page.keyboard.press("Enter");
      await page.waitForTimeout(250);
    }
    await page.request.delete("/api/instruments/bench");
    await page.getByRole("button", { name: /^Edge is/ }).click();
  });
  await take("straight", `${FEN_HOOK}/straight`, async () => {
    await page.getByLabel("After").selectOption({ label: "Flats again" });
    await page.getByLabel("Bent at, from the junction").fill("60");
    await page.keyboard.press("Tab");
    await page.getByRole("button", { name: "Lay it on the anvil" }).click();
    await page.getByLabel("A place every").selectOption({ index: 0 });
    await page.getByRole("button", { name: "Read it off the anvil" }).click();
    await page.waitForTimeout(1500);
    await page.getByRole("button", { name: "Keep these readings" }).click();
    await page
      .getByText(/^Bent /)
      .first()
      .waitFor();
    await page.waitForTimeout(1000);
  });
  await take("edge", `${FEN_HOOK}/edge`, async () => {
    await page.getByLabel("Sharpened a year, times").fill("6");
    await page.keyboard.press("Tab");
    await page
      .getByText(/years at 6 a year/)
      .first()
      .waitFor();
    await page.waitForTimeout(1500);
  });
  await take("knives", "/knives", async () => {
    for (const [name, long, e, d, t5] of MEASURED) {
      await page.getByRole("button", { name: "Add a knife" }).click();
      await typeInto(page, "Name of the knife", name);
      await typeInto(page, "Blade, long", long);
      await typeInto(page, "Behind the edge, middle", e);
      await typeInto(page, "Edge bevel, high, middle", d);
      await typeInto(page, "5 mm up, thick (0: not read)", t5);
    }
    await page.getByLabel("Beside").selectOption({ index: 1 });
    await page.waitForTimeout(1500);
  });
  await take("trials", "/trials", async () => {
    for (let stage = 0; stage < 3; stage++) {
      await page.getByRole("button", { name: "Write it down" }).click();
      await page.getByRole("button", { name: "Set it up for the next" }).click();
    }
    await page.getByLabel(/^In ?foam/).selectOption("food can");
    await page.getByLabel(/^What went/).selectOption({ label: "the apex only" });
    await typeInto(page, "How deep", "0.05");
    await page.getByRole("button", { name: "Write it down" }).click();
  });
  await take("run", "/runs", async () => {
    await page.getByRole("link", { name: /^Fen hooks/ }).click();
    await page
      .getByRole("button", { name: /plunge/ })
      .first()
      .click();
    await page.getByRole("img", { name: /^Individuals chart/ }).waitFor();
  });
  await take("card", `${FEN_HOOK}`.replace("blades", "card"), async () => {
    await page.getByText("No single angle").waitFor();
  });
  await take("shop", "/shop", async () => {
    await page.getByLabel("Name of the device").fill("Grinder tablet");
    await page.getByRole("button", { name: "Make a code" }).click();
    await page.getByRole("status", { name: "Code" }).waitFor();
  });
  await take("solid", `${FEN_HOOK}/grind`, async () => {
    await page.getByRole("button", { name: "3D" }).click();
    await page.getByRole("application").waitFor();
    await page.waitForTimeout(1500);
  });
} finally {
  await browser.close();
  rmSync(certificates, { recursive: true, force: true });
  await server.stop();
  await cluster.stop();
}
