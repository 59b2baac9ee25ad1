import { expect, test } from "@playwright/test";
import { makeBlade } from "./blade.ts";
import { tabTo } from "./keys.ts";

test("a rack of hundreds: pages are fetched as they come in sight, a few rows are drawn, and keys go on from row to row", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "The first of many");
  const [row] = await (await page.request.get("/api/blades?search=The first of many")).json();
  const asked: number[] = [];
  await page.route(/\/api\/blades\?/, async (route) => {
    const query = new URL(route.request().url()).searchParams;
    const from = Number(query.get("after") ?? 0);
    asked.push(from);
    const rows = Array.from({ length: 60 }, (_, i) => ({
      ...row,
      id: i + from === 0 ? id : `00000000-0000-4000-8000-${String(from + i).padStart(12, "0")}`,
      name: `Blade ${from + i}`,
    }));
    query.set("after", String(from + 60));
    const headers: Record<string, string> = from === 0 ? { "x-total": "300" } : {};
    if (from + 60 < 300) headers.link = `</api/blades?${query}>; rel="next"`;
    await route.fulfill({ json: rows, headers });
  });
  await page.goto("/");
  await expect(page.getByText("300 blades")).toBeVisible();
  const rows = page.getByRole("listitem");
  await expect(rows.first()).toHaveAttribute("aria-setsize", "300");
  expect(await rows.count()).toBeLessThan(30);
  expect(asked).toEqual([0]);

  // By keys: each row's link, then its menu, whatever is drawn yet.
  await expect(rows.first().getByRole("button")).toBeVisible();
  await tabTo(page, /Blade 0 /);
  for (let i = 1; i <= 20; i++) {
    await page.keyboard.press("Tab");
    await page.keyboard.press("Tab");
    await expect(page.locator(":focus")).toContainText(`Blade ${i}`);
  }
  expect(await rows.count()).toBeLessThan(40);
  // Faster than the page scrolls: the keys find a row all the same, and stay with it when it is out of sight.
  await Promise.all(Array.from({ length: 40 }, () => page.keyboard.press("Tab")));
  await expect(page.locator(":focus")).toContainText("Blade 40");
  expect(await rows.count()).toBeLessThan(60);

  const scroller = rows.first().locator("xpath=../..");
  await expect(async () => {
    await scroller.evaluate((box) => box.scrollTo(0, box.scrollHeight));
    await expect(page.getByText("Blade 299", { exact: true })).toBeVisible({ timeout: 500 });
  }).toPass();
  expect(asked).toEqual([0, 60, 120, 180, 240]);
  expect(await rows.count()).toBeLessThan(40);
  await expect(page.getByText("Blade 299", { exact: true })).toBeInViewport();
  await expect(page.locator(":focus")).toContainText("Blade 40");
});
