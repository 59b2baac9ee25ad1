import { readFileSync, writeFileSync } from "node:fs";
import { chromium, type Page } from "@playwright/test";
// @ts-expect-error plain JavaScript, shared with the start command
import { openThrowawayCluster } from "../scripts/database.mjs";
// @ts-expect-error plain JavaScript, shared with the start command
import { freePort } from "../scripts/processes.mjs";
// @ts-expect-error plain JavaScript, shared with the start command
import { DIST, startServer } from "../scripts/server.mjs";
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

/** A made-up knife on a bench, drawn as a camera might have seen it; JPEG as base64. */
function likedKnife(page: Page): Promise<string> {
  return page.evaluate(() => {
    const canvas = document.createElement("canvas");
    Object.assign(canvas, { width: 1200, height: 520 });
    const ink = canvas.getContext("2d")!;
    ink.fillStyle = "#b79b74";
    ink.fillRect(0, 0, 1200, 520);
    for (let y = 6; y < 520; y += 9) {
      ink.fillStyle = y % 2 ? "#a98c66" : "#bfa47d";
      ink.fillRect(0, y, 1200, 2 + ((y * 7) % 3));
    }
    const steel = new Path2D(
      "M560 205L980 200C1060 205 1110 225 1140 252C1090 318 1010 338 930 340L580 336L560 300Z",
    );
    const wood = new Path2D("M575 200H140C80 200 66 230 66 252C66 290 90 312 140 308L380 300L560 306Z");
    const shine = ink.createLinearGradient(0, 200, 0, 340);
    shine.addColorStop(0, "#8b939b");
    shine.addColorStop(1, "#dfe4e8");
    ink.shadowBlur = 22;
    ink.shadowColor = "#3a2c1a";
    ink.fillStyle = shine;
    ink.fill(steel);
    ink.fillStyle = "#4a2d1b";
    ink.fill(wood);
    ink.shadowBlur = 0;
    ink.fillStyle = "#c9a44a";
    for (const x of [180, 320, 470]) {
      ink.beginPath();
      ink.arc(x, 254, 12, 0, 7);
      ink.fill();
    }
    return canvas.toDataURL("image/jpeg", 0.85).split(",")[1]!;
  });
}

/** The spec sheet's page as a picture: taken out of the program, and drawn by a general-purpose PDF reader. */
async function takeSpec(page: Page, path: string): Promise<void> {
  await page.goto(`${LARDER}/check`, { waitUntil: "networkidle" });
  await page.getByRole("button", { name: /^Export:/ }).click();
  const [sheet] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Export spec sheet", exact: true }).click(),
  ]);
  const bytes = readFileSync(await sheet.path()).toString("base64");
  const reader = (name: string) =>
    readFileSync(new URL(`../node_modules/pdfjs-dist/legacy/build/${name}.mjs`, import.meta.url), "utf8");
  const drawing = await page.context().browser()!.newPage();
  await drawing.setContent("<canvas></canvas>");
  const picture = await drawing.evaluate(
    async ([library, worker, data]) => {
      const [pages, work] = [library!, worker!].map((text) =>
        URL.createObjectURL(new Blob([text], { type: "text/javascript" })),
      );
      const pdfjs = await import(/* @vite-ignore */ pages!);
      pdfjs.GlobalWorkerOptions.workerSrc = work!;
      const pdf = await pdfjs.getDocument({
        data: Uint8Array.from(atob(data!), (sign) => sign.charCodeAt(0)),
      }).promise;
      const sheetPage = await pdf.getPage(1);
      const viewport = sheetPage.getViewport({ scale: 1.4 });
      const canvas = document.querySelector("canvas")!;
      Object.assign(canvas, { width: viewport.width, height: viewport.height });
      await sheetPage.render({ canvasContext: canvas.getContext("2d"), viewport }).promise;
      return canvas.toDataURL("image/png").split(",")[1]!;
    },
    [reader("pdf"), reader("pdf.worker"), bytes],
  );
  writeFileSync(path, Buffer.from(picture, "base64"));
  await drawing.close();
}

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
    await page.getByLabel("Blade file or drawing").setInputFiles(drawing);
    await page.getByRole("dialog").waitFor();
  });
  await take("export", `${FEN_HOOK}/shape`, () => page.getByRole("button", { name: /^Export:/ }).click());
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
    await page.getByRole("button", { name: "Temper, 2 of 2" }).waitFor();
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
    await page.getByLabel("A place every, mm").selectOption("12.5");
    await page.getByRole("button", { name: "Read it off the anvil" }).click();
    await page.waitForTimeout(1500);
    await page.getByRole("button", { name: "Keep these readings" }).click();
    await page
      .getByText(/^Bent /)
      .first()
      .waitFor();
    await page.waitForTimeout(1000);
  });
  await take("run", "/runs", async () => {
    await page.getByRole("link", { name: /^Fen hooks/ }).click();
    await page
      .getByRole("button", { name: /plunge/ })
      .first()
      .click();
    await page.getByRole("img", { name: /^Individuals chart/ }).waitFor();
  });
  await takeSpec(page, `${folder}spec.png`);
  await take("card", `${FEN_HOOK}`.replace("blades", "card"), async () => {
    await page.getByText("No single angle").waitFor();
  });
  await take("photo", `${FEN_HOOK}/shape`, async () => {
    const buffer = Buffer.from(await likedKnife(page), "base64");
    await page.getByRole("button", { name: "whole knife" }).click();
    const photo = page.getByLabel("Photo to lay under the outline");
    await photo.setInputFiles({ name: "liked.jpg", mimeType: "image/jpeg", buffer });
    await page.getByRole("region", { name: "Photo under it" }).scrollIntoViewIfNeeded();
  });
  await page.keyboard.press("Control+z");
  await page.setViewportSize({ width: 820, height: 1180 });
  await take("tablet", `${LARDER}/shape`);
  await page.setViewportSize({ width: 1280, height: 800 });
  await take("solid", `${FEN_HOOK}/grind`, async () => {
    await page.getByRole("button", { name: "3D" }).click();
    await page.getByRole("application").waitFor();
    await page.waitForTimeout(1500);
  });
} finally {
  await browser.close();
  await server.stop();
  await cluster.stop();
}
