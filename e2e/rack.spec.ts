import { expect, test } from "@playwright/test";
import { makeBlade, openBlade, saved } from "./blade.ts";

test("a blade is started from its purpose and size, within its limits", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("link", { name: "New blade" }).click();
  await page.getByRole("radio", { name: "kitchen knife" }).check({ force: true });
  await page.getByLabel("Name", { exact: true }).fill("Started here");
  const length = page.getByRole("textbox", { name: "Blade, junction to tip" });
  await length.fill("9999");
  await expect(length).toHaveAccessibleDescription(/120\.00 mm to 280\.00 mm/);
  await length.fill("8 1/4 in");
  await expect(page.getByText("Within all that this purpose asks.")).toBeVisible();
  await page.getByRole("button", { name: "Start with this blade" }).click();
  await expect(page.getByRole("heading", { name: "Started here" })).toBeVisible();
  await expect(page).toHaveURL(/\/shape$/);
  await expect(page.getByRole("region", { name: "Findings" })).toContainText("All well.");
});

test("rename, copy, mark, archive, delete; everything can be taken back", async ({ page }) => {
  await makeBlade(page.request, "Handled one");
  await page.goto("/");
  await page.getByRole("searchbox").fill("Handled");
  const row = (name: string) => page.getByRole("listitem").filter({ hasText: name });
  const choose = async (name: string, item: string) => {
    await page.getByRole("button", { name: `More for ${name}`, exact: true }).click();
    await page.getByRole("menuitem", { name: item }).click();
  };
  await choose("Handled one", "Rename");
  await page.getByLabel("New name").fill("Handled well");
  await page.getByRole("button", { name: "Rename" }).click();
  await expect(row("Handled well")).toBeVisible();
  await choose("Handled well", "Copy");
  await expect(row("Handled well (copy)")).toBeVisible();
  await choose("Handled well (copy)", "Mark as finished");
  await expect(row("Handled well (copy)")).toContainText("finished");
  await choose("Handled well (copy)", "Archive");
  await expect(row("Handled well (copy)")).toHaveCount(0);
  await page.getByRole("radio", { name: "archive" }).click();
  await expect(row("Handled well (copy)")).toBeVisible();
  await page.getByRole("radio", { name: "rack" }).click();
  await choose("Handled well", "Delete");
  await expect(row("Handled well")).toHaveCount(0);
  await page
    .getByRole("status")
    .locator("div")
    .filter({ hasText: "Deleted Handled well." })
    .getByRole("button", { name: "Undo" })
    .click();
  await expect(row("Handled well")).toBeVisible();
  await page.getByRole("searchbox").fill("no such knife");
  await expect(page.getByText("Nothing on the rack matches")).toBeVisible();
});

test("an earlier revision comes back, and that can be undone", async ({ page }) => {
  const id = await makeBlade(page.request, "With a past");
  await openBlade(page, id);
  const radius = page.getByLabel("Radius it leaves");
  await radius.fill("7");
  await saved(page);
  await page.getByRole("button", { name: "Revisions" }).click();
  const dialog = page.getByRole("dialog", { name: "Revisions" });
  await dialog.getByRole("button", { name: "Name revision 1" }).click();
  await dialog.getByLabel("Name of revision 1").fill("as it came off the belt");
  await dialog.getByLabel("Name of revision 1").press("Enter");
  await expect(dialog.getByRole("listitem").last()).toContainText("as it came off the belt");
  await dialog.getByRole("listitem").last().getByRole("button", { name: "What changed" }).click();
  const beside = dialog.getByRole("region", { name: "revision 1 beside what stands" });
  await expect(beside.getByRole("row", { name: /^plunge/ })).toContainText("radius 4.00");
  await expect(beside.getByRole("row", { name: /^plunge/ })).toContainText("radius 7.00");
  await expect(beside.getByRole("row", { name: /^Height/ })).toHaveCount(0);
  await dialog.getByRole("listitem").last().getByRole("button", { name: "Restore" }).click();
  await expect(radius).toHaveValue("4");
  await saved(page);
  await page.keyboard.press("Control+z");
  await expect(radius).toHaveValue("7");
  await saved(page);
});

test("an address that leads nowhere says so", async ({ page }) => {
  await page.goto("/nowhere");
  await expect(page.getByRole("heading", { name: "There is no such page" })).toBeVisible();
  await page.goto("/blades/00000000-0000-0000-0000-000000000000/grind");
  await expect(page.getByRole("alert")).toContainText("no such blade");
});
