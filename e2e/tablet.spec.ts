import { expect, type Locator, type Page, test } from "@playwright/test";
import { makeBlade, openBlade } from "./blade.ts";

test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });

const boxOf = async (one: Locator) => (await one.boundingBox())!;
type Box = Awaited<ReturnType<typeof boxOf>>;

function lieApart(a: Box, b: Box): boolean {
  return a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;
}

/** Nothing reaches past the glass: no page is dragged sideways to be read. */
async function fitsAcross(page: Page): Promise<void> {
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(820);
}

test("upright, every page of a blade fits across, and the last of its findings is not covered", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "Upright");
  await openBlade(page, id);
  for (const where of ["Shape", "Grind", "Route", "Check", "Edge", "Log"]) {
    await page.getByRole("link", { name: new RegExp(`${where}$`) }).tap();
    await expect(page.getByRole("link", { name: new RegExp(`${where}$`) })).toHaveAttribute(
      "aria-current",
      "page",
    );
    await fitsAcross(page);
  }
  for (const where of ["/", "/new", "/knives", "/trials", "/stores", "/runs", "/sums"]) {
    await page.goto(where);
    await expect(page.getByRole("main").getByRole("heading").first()).toBeVisible();
    await fitsAcross(page);
  }
});

test("upright, all pages that a forged and hardened blade has stand beside the unit on show", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "All pages");
  await page.goto(`/blades/${id}/route`);
  await page.getByRole("button", { name: /^most of it soft/i }).tap();
  await page.getByLabel("Add a stage").selectOption("forge");
  const links = page.getByRole("navigation", { name: "Pages of this blade" }).getByRole("link");
  await expect(links).toHaveCount(8);
  const unit = await boxOf(page.getByLabel("Unit"));
  expect(unit.x + unit.width).toBeLessThanOrEqual(820);
  const last = await boxOf(links.last());
  expect(last.x + last.width).toBeLessThanOrEqual(unit.x);
  await page.getByRole("link", { name: /Heat$/ }).tap();
  await expect(page.getByRole("table", { name: "Heats" })).toBeVisible();
  await fitsAcross(page);
});

test("upright, the ladder's names are beside the blade and at least seven stages are in view", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "Upright plan");
  await openBlade(page, id);
  await page.keyboard.press("3");
  await page.getByRole("button", { name: /^most of it soft/i }).tap();
  const table = page.locator("[aria-busy=false]").getByRole("table", { name: "Stages" });
  await expect(table).toBeVisible();

  const drawing = page.getByRole("img", { name: "Grind lines of every stage on the side view" });
  const blade = await boxOf(drawing.locator("path").first());
  const legend = page.getByText("rough bevels", { exact: true }).first();
  expect(lieApart(await boxOf(legend), blade)).toBe(true);

  const tray = await boxOf(page.getByRole("region", { name: "Findings", exact: true }));
  const rows = await table.getByRole("row").all();
  const boxes = (await Promise.all(rows.slice(1).map((row) => row.boundingBox()))).filter(
    (box) => box !== null,
  );
  const seen = boxes.filter(({ y, height }) => y >= 0 && y + height <= tray.y);
  expect(seen.length).toBeGreaterThanOrEqual(7);

  // The last row can be brought above the tray.
  await rows.at(-1)!.scrollIntoViewIfNeeded();
  const last = await boxOf(rows.at(-1)!);
  expect(last.y + last.height).toBeLessThanOrEqual(tray.y + 1);
});

test("upright, names on a chart do not lie on one another", async ({ page }) => {
  const id = await makeBlade(page.request, "Upright charts");
  await openBlade(page, id);
  await page.keyboard.press("3");
  await page.getByRole("button", { name: /^most of it soft/i }).tap();
  await expect(page.locator("[aria-busy=false]").getByRole("table", { name: "Stages" })).toBeVisible();
  const texts = page.getByRole("img", { name: /^Thickness of the very edge/ }).locator("text");
  await expect(texts.first()).toBeVisible();
  const boxes = await texts.evaluateAll((all) =>
    all
      .filter(({ textContent }) => textContent !== "")
      .map((one) => {
        const { x, y, width, height } = one.getBoundingClientRect();
        // A text's box has room above and below the letters.
        return { words: one.textContent, x, y: y + height / 4, width, height: height / 2 };
      }),
  );
  for (const [i, a] of boxes.entries())
    for (const b of boxes.slice(i + 1)) expect(lieApart(a, b), `${a.words} and ${b.words}`).toBe(true);
});
