import { chromium } from "@playwright/test";
import { CHROMIUM } from "./browser.ts";

/** Takes the pictures of docs/screenshots from a running program with the demo data, at 1280 × 800. */
const base = process.env.BASE ?? "http://127.0.0.1:4570";
const folder = new URL("../docs/screenshots/", import.meta.url).pathname;
const [LARDER, FEN_HOOK, BRACKEN] = ["c001", "c002", "c003"].map(
  (end) => `/blades/0b8f6c52-6f3e-4a51-9c1d-7d2f30a4${end}`,
);

const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const take = async (name: string, path: string, keys: string[] = []) => {
  await page.goto(base + path, { waitUntil: "networkidle" });
  await page.waitForTimeout(2500);
  for (const key of keys) await page.keyboard.press(key);
  await page.waitForTimeout(400);
  await page.screenshot({ path: `${folder}${name}.png` });
};
await take("rack", "/");
await take("grind", `${FEN_HOOK}/grind`);
await take("shape", `${LARDER}/shape`);
await take("findings", `${BRACKEN}/grind`, ["f"]);
await page.getByRole("button", { name: "Dark shop" }).click();
await take("dark", `${BRACKEN}/grind`);
await browser.close();
