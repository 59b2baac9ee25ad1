import { randomUUID } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { chromium } from "@playwright/test";
// @ts-expect-error plain JavaScript, shared with the start command
import { openThrowawayCluster } from "../scripts/database.mjs";
// @ts-expect-error plain JavaScript, shared with the start command
import { freePort } from "../scripts/processes.mjs";
// @ts-expect-error plain JavaScript, shared with the start command
import { DIST, startServer } from "../scripts/server.mjs";
import { CHROMIUM } from "./browser.ts";

/** Takes the pictures of docs/screenshots: a server of its own with the demo workshop, at 1280 × 800. */
const folder = new URL("../docs/screenshots/", import.meta.url).pathname;
const kinds = new URL("../packages/core/examples/kinds/", import.meta.url);
const [LARDER, FEN_HOOK, BRACKEN] = ["c001", "c002", "c003"].map(
  (end) => `/blades/0b8f6c52-6f3e-4a51-9c1d-7d2f30a4${end}`,
);

/** A knife as somebody's drawing program may give it, in inches. */
const DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="10in" height="2in" viewBox="0 0 10 2">
  <path d="M0.5 0.4H6.5C8 0.4 9 0.7 9.4 1C8.6 1.5 7.6 1.6 6.6 1.6H5L4.8 1.35H0.5Z"/>
  <circle cx="1.5" cy="0.85" r="0.125"/></svg>`;

const cluster = await openThrowawayCluster();
const server = await startServer({
  databaseUrl: cluster.url("postgres"),
  port: await freePort(),
  dist: DIST,
});
const browser = await chromium.launch(CHROMIUM);
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: server.url });
  const take = async (name: string, path: string, act: () => Promise<void> = async () => {}) => {
    await page.goto(path, { waitUntil: "networkidle" });
    await page.waitForTimeout(2500);
    await act();
    await page.waitForTimeout(500);
    await page.screenshot({ path: `${folder}${name}.png` });
  };
  await take("rack", "/");
  await take("new", "/new", () => page.getByText("Within all that this purpose asks.").waitFor());
  await take("lay-out", "/", async () => {
    const drawing = { name: "liked knife.svg", mimeType: "image/svg+xml", buffer: Buffer.from(DRAWING) };
    await page.getByLabel("Blade file or drawing").setInputFiles(drawing);
    await page.getByRole("dialog").waitFor();
  });
  await take("take-out", `${FEN_HOOK}/shape`, () =>
    page.getByRole("button", { name: /^Take it out/ }).click(),
  );
  await take("revisions", `${FEN_HOOK}/grind`, async () => {
    await page.getByLabel("Blade of the rack").selectOption({ label: "Bracken chopper" });
    await page.getByRole("button", { name: "Revisions" }).click();
    await page.getByRole("button", { name: "What changed" }).last().click();
    await page.getByRole("table").last().waitFor();
  });
  await take("grind", `${FEN_HOOK}/grind`);
  await take("shape", `${LARDER}/shape`);
  await take("findings", `${BRACKEN}/grind`, () => page.keyboard.press("f"));
  await take("solid", `${FEN_HOOK}/grind`, async () => {
    await page.getByRole("button", { name: "3D" }).click();
    await page.getByRole("application").waitFor();
    await page.waitForTimeout(1500);
  });
  await page.goto("/");
  await page.getByRole("button", { name: "Dark shop" }).click();
  await take("dark", `${BRACKEN}/grind`);
  await page.getByRole("button", { name: "Light paper" }).click();
  for (const name of readdirSync(kinds)) {
    const file = JSON.parse(readFileSync(new URL(name, kinds), "utf8"));
    await page.request.post("/api/blades", { data: { id: randomUUID(), file } });
  }
  await page.setViewportSize({ width: 1280, height: 2040 });
  await take("kinds", "/");
} finally {
  await browser.close();
  await server.stop();
  await cluster.stop();
}
