import { type BrowserContext, expect, type Page, test } from "@playwright/test";
import { makeBlade, openBlade, saved } from "./blade.ts";

const radius = (page: Page) => page.getByLabel("Radius it leaves");
const radiusOn = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/blades/${id}`)).json()).file.bevels.right.plunge.radius;
const revisionOn = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/blades/${id}`)).json()).revision;

/** What is sent does not arrive, as when the server is away; pages still load. */
async function cut(context: BrowserContext) {
  await context.route("**/api/**", (route) =>
    route.request().method() === "GET" ? route.continue() : route.abort("connectionfailed"),
  );
  return () => context.unroute("**/api/**");
}

test("changed with the network gone, left for Stores, and gone back to: what was typed stands, and is saved once it can be", async ({
  page,
  context,
}) => {
  const id = await makeBlade(page.request, "Gone back to");
  await openBlade(page, id);
  await context.setOffline(true);
  await radius(page).fill("7.5");
  await page.getByRole("link", { name: "Stores" }).click();
  await expect(
    page
      .getByText("The server does not answer.")
      .or(page.getByRole("heading", { name: "Stores" }))
      .or(page.getByText("This part of the program could not be fetched."))
      .first(),
  ).toBeVisible();
  await page.goBack();
  await expect(radius(page)).toHaveValue("7.5");
  await expect(page.getByText("server away: kept here, trying again")).toBeVisible();
  await context.setOffline(false);
  await saved(page);
  expect(await radiusOn(page, id)).toBe(7.5);
  expect(await revisionOn(page, id)).toBe(2);
});

test("left within a moment of a keystroke, it is sent all the same", async ({ page }) => {
  const id = await makeBlade(page.request, "Left at once");
  await openBlade(page, id);
  await radius(page).fill("8.5");
  await page.getByRole("link", { name: "Stores" }).click();
  await expect.poll(() => radiusOn(page, id)).toBe(8.5);
});

test("loaded again within a moment of a keystroke, it comes back and is saved", async ({ page, context }) => {
  const id = await makeBlade(page.request, "Loaded again");
  await openBlade(page, id);
  const mend = await cut(context);
  await radius(page).fill("6.5");
  await page.reload();
  await expect(radius(page)).toHaveValue("6.5");
  await expect(page.getByText(/Brought back what was not saved .*, from \d\d:\d\d/)).toBeVisible();
  expect(await radiusOn(page, id)).toBe(4);
  await mend();
  await saved(page);
  expect(await radiusOn(page, id)).toBe(6.5);
});

test("two tabs closed with work unsaved: both are offered with their times; one is opened, the other becomes a blade of its own", async ({
  page,
  context,
}) => {
  const id = await makeBlade(page.request, "Two left behind");
  const mend = await cut(context);
  const tabs = [await context.newPage(), await context.newPage()];
  for (const tab of tabs) await openBlade(tab, id);
  for (const [i, value] of ["5.5", "9.5"].entries()) {
    await radius(tabs[i]!).fill(value);
    await expect(tabs[i]!.getByText("server away: kept here, trying again")).toBeVisible();
  }
  for (const tab of tabs) await tab.close();
  await mend();
  await page.goto(`/blades/${id}/grind`);
  const dialog = page.getByRole("dialog", { name: "Unsaved work from before" });
  const offered = dialog.getByRole("listitem");
  await expect(offered).toHaveCount(2);
  for (const one of await offered.all())
    await expect(one).toContainText(/From \d\d:\d\d( [AP]M)?: the blade/);
  // Put off, it is offered again.
  await dialog.getByRole("button", { name: "Decide later" }).click();
  await expect(radius(page)).toHaveValue("4");
  await page.reload();
  await expect(offered).toHaveCount(2);
  await offered.first().getByRole("button", { name: "Open it here" }).click();
  await expect(offered).toHaveCount(1);
  await offered.first().getByRole("button", { name: "Keep as a blade of its own" }).click();
  await expect(dialog).toHaveCount(0);
  // The newest stood first.
  await expect(radius(page)).toHaveValue("9.5");
  await saved(page);
  expect(await radiusOn(page, id)).toBe(9.5);
  const rows = await (await page.request.get("/api/blades?search=Two left behind (unsaved")).json();
  expect(rows).toHaveLength(1);
  expect(await radiusOn(page, rows[0].id)).toBe(5.5);
  await page.reload();
  await expect(radius(page)).toHaveValue("9.5");
  await expect(dialog).toHaveCount(0);
});

test("what the server will not have is shown as that, stands as it was typed, and can be tried again", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "Not to be had");
  await openBlade(page, id);
  await page.route(`**/api/blades/${id}`, (route) =>
    route.request().method() === "PUT"
      ? route.fulfill({
          status: 422,
          contentType: "application/problem+json",
          body: JSON.stringify({ title: "The document has faults and was not saved.", status: 422 }),
        })
      : route.continue(),
  );
  await radius(page).fill("7");
  const alert = page.getByRole("alert").filter({ hasText: "Not saved." });
  await expect(alert).toContainText(
    "The document has faults and was not saved. What you typed still stands here",
  );
  await expect(radius(page)).toHaveValue("7");
  await page.unroute(`**/api/blades/${id}`);
  await alert.getByRole("button", { name: "Try again" }).click();
  await saved(page);
  await expect(alert).toHaveCount(0);
  expect(await radiusOn(page, id)).toBe(7);
});

test("what was deleted is taken back from its list: a blade, a run, a stage", async ({ page }) => {
  const id = await makeBlade(page.request, "Deleted and back");
  await page.goto("/");
  await page.getByRole("button", { name: "More for Deleted and back" }).click();
  await page.getByRole("menuitem", { name: "Delete" }).click();
  await expect(page.getByText("Deleted Deleted and back. It can be taken back for 30 days.")).toBeVisible();
  await page.goto(`/blades/${id}/grind`);
  await expect(page.getByText(/deleted blades can be taken back/)).toBeVisible();
  await page.getByRole("link", { name: "To the rack", exact: true }).click();
  await page.getByRole("radio", { name: "deleted" }).click();
  const row = page
    .getByRole("list", { name: "Deleted" })
    .getByRole("listitem")
    .filter({ hasText: "Deleted and back" });
  await row.getByRole("button", { name: "Take back" }).click();
  await expect(row).toHaveCount(0);
  await openBlade(page, id);

  await page.keyboard.press("3");
  await page.getByRole("button", { name: /^most of it soft/i }).click();
  const stages = page.getByRole("table", { name: "Stages" });
  await expect(stages).toContainText("Hand finish");
  await saved(page);
  await page.getByRole("button", { name: "Remove Hand finish from the route" }).click();
  await saved(page);
  const back = page.getByRole("button", { name: "Put Hand finish back" });
  await page.reload();
  await back.click();
  await expect(back).toHaveCount(0);
  const names = await stages.getByRole("rowheader").allInnerTexts();
  expect(names.indexOf("Hand finish")).toBe(names.indexOf("False edge") - 1);

  await page.goto("/runs");
  await page.getByRole("button", { name: "New run" }).click();
  await page.getByLabel("Name of the run").fill("Order to keep");
  await page.keyboard.press("Tab");
  await expect(page.getByText(/saved/).first()).toBeVisible();
  await page.getByRole("button", { name: "Delete" }).click();
  const deleted = page.getByRole("region", { name: "Deleted runs" });
  await deleted
    .getByRole("listitem")
    .filter({ hasText: "Order to keep" })
    .getByRole("button", { name: "Take back" })
    .click();
  await page.getByRole("link", { name: /Order to keep/ }).click();
  await expect(page.getByLabel("Name of the run")).toHaveValue("Order to keep");
});

test("a run's name typed with the server away is kept, and saved once it is back", async ({
  page,
  context,
}) => {
  await page.goto("/runs");
  await page.getByRole("button", { name: "New run" }).click();
  const name = page.getByLabel("Name of the run");
  await expect(name).toBeVisible();
  const mend = await cut(context);
  await name.fill("Typed while away");
  await page.keyboard.press("Tab");
  await expect(page.getByText(/server away/)).toBeVisible();
  await page.reload();
  await expect(name).toHaveValue("Typed while away");
  await mend();
  await expect(page.getByText(/· saved/)).toBeVisible();
  await page.goto("/runs");
  await expect(page.getByRole("link", { name: /Typed while away/ })).toBeVisible();
});
