import { expect, type Page, test } from "@playwright/test";
import { makeBlade, openBlade, saved } from "./blade.ts";

const radius = (page: Page) => page.getByLabel("Radius it leaves");

async function twoHands(page: Page, name: string) {
  const id = await makeBlade(page.request, name);
  await openBlade(page, id);
  // Another person, not another tab of this browser: nothing but the server connects the two.
  const other = await (await page.context().browser()!.newContext()).newPage();
  await openBlade(other, id);
  await radius(other).fill("9");
  await saved(other);
  await other.close();
  await radius(page).fill("6");
  const dialog = page.getByRole("dialog", { name: /saved elsewhere/ });
  await expect(dialog).toBeVisible();
  await expect(dialog).toContainText("Saved elsewhere, revision 2");
  const read = async () =>
    (await (await page.request.get(`/api/blades/${id}`)).json()).file.bevels.right.plunge.radius;
  expect(await read()).toBe(9);
  return { dialog, read, id };
}

test("a stale save stops and offers both: keep mine", async ({ page }) => {
  const { dialog, read } = await twoHands(page, "Mine stands");
  await dialog.getByRole("button", { name: "Keep mine" }).click();
  await saved(page);
  expect(await read()).toBe(6);
});

test("take theirs", async ({ page }) => {
  const { dialog, read, id } = await twoHands(page, "Theirs stands");
  await dialog.getByRole("button", { name: "Take theirs" }).click();
  await expect(radius(page)).toHaveValue("9");
  await saved(page);
  expect(await read()).toBe(9);
  // Nothing new was saved by it.
  await page.reload();
  await saved(page);
  expect((await (await page.request.get(`/api/blades/${id}`)).json()).revision).toBe(2);
});

test("keep both: mine becomes a blade of its own", async ({ page }) => {
  const { dialog, read } = await twoHands(page, "Both stand");
  await dialog.getByRole("button", { name: "Keep both" }).click();
  await expect(radius(page)).toHaveValue("9");
  expect(await read()).toBe(9);
  const rows = await (await page.request.get("/api/blades?search=Both stand (my version)")).json();
  expect(rows).toHaveLength(1);
});

test("two tabs of one browser follow each other", async ({ page, context }) => {
  const id = await makeBlade(page.request, "Two tabs");
  await openBlade(page, id);
  const second = await context.newPage();
  await openBlade(second, id);
  await radius(page).fill("8");
  await saved(page);
  await expect(radius(second)).toHaveValue("8");
  await radius(second).fill("5");
  await saved(second);
  await expect(radius(page)).toHaveValue("5");
});
