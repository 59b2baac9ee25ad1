import { expect, type Page, test } from "@playwright/test";
import { makeBlade, openBlade, saved } from "./blade.ts";

test.use({ hasTouch: true, viewport: { width: 1180, height: 820 } });

/** A blade with a route, made the way a maker does. */
async function routed(page: Page, name: string): Promise<string> {
  const id = await makeBlade(page.request, name);
  await openBlade(page, id);
  await page.keyboard.press("3");
  await page.getByRole("button", { name: /^most of it soft/i }).click();
  await expect(page.getByRole("table", { name: "Stages" })).toContainText("Rough bevels");
  await saved(page);
  return id;
}
const route = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/blades/${id}/documents/route`)).json()).file;
/** Stages that are done by what was recorded at the work and stands. */
async function doneOf(page: Page, id: string): Promise<string[]> {
  const { taken, struck } = await (await page.request.get(`/api/blades/${id}/work`)).json();
  return taken
    .filter((one: { id: string; what: string }) => one.what === "done" && !struck.includes(one.id))
    .map(({ stage }: { stage: string }) => stage);
}
const tap = (page: Page, name: string | RegExp) => page.getByRole("button", { name, exact: true }).tap();

test("the card by touch with the network cut and restored: nothing lost, told what is going on", async ({
  page,
  context,
}) => {
  const id = await routed(page, "At the belt");
  await page.getByRole("link", { name: "To the grinder card" }).tap();
  await expect(page.getByText("works offline")).toBeVisible();
  await expect(page.getByText("1 of 15")).toBeVisible();
  for (let i = 0; i < 5; i++) await tap(page, "Done");
  await expect(page.getByText("Rough bevels")).toBeVisible();
  await expect(page.getByText("6 of 15")).toBeVisible();
  await expect(page.getByText("saved", { exact: true })).toBeVisible();

  // The network goes. A pass, a reading past the line, and on.
  await context.setOffline(true);
  await tap(page, /pass$/);
  await expect(page.getByRole("button", { name: /passes R 1/ })).toBeVisible();
  await tap(page, "I went past the line");
  for (const key of ["0", ".", "9", "5"]) await tap(page, key);
  await tap(page, "Keep it");
  await expect(
    page.getByText(/Last reading, middle: 0\.95\. Past the line: what follows is planned anew\. Still/),
  ).toBeVisible();
  await tap(page, "Done");
  await expect(page.getByText("7 of 15")).toBeVisible();
  await expect(page.getByText("server away: kept here, trying again")).toBeVisible();
  expect(await doneOf(page, id)).not.toContain("rough");
  expect((await (await page.request.get(`/api/blades/${id}/readings`)).json()).taken).toEqual([]);

  // The tablet is dropped: the page is opened again, still without a network, and what was done stands.
  await page.reload();
  await expect(page.getByText("7 of 15")).toBeVisible();
  await tap(page, "Back");
  await expect(page.getByText(/Last reading, middle: 0\.95\./)).toBeVisible();

  await context.setOffline(false);
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  const kept = await route(page, id);
  // The reading taken without a network is there once.
  const { taken } = await (await page.request.get(`/api/blades/${id}/readings`)).json();
  expect(taken).toMatchObject([{ stage: "rough", what: "edge", value: 0.95, by: "card", past: true }]);
  expect(await doneOf(page, id)).toContain("rough");
  // What is chosen stays the desk's: nothing of the work is written into the route.
  expect(kept.stages.every((stage: { done?: string }) => stage.done === undefined)).toBe(true);
  // Planned anew: as much less for the bevels after the oven as the reading was past its line.
  expect(kept.oven).toBeGreaterThan(0.05);
  expect(kept.oven).toBeLessThan(0.2);

  // With a network again a reload shows the same.
  await page.reload();
  await expect(page.getByText("7 of 15")).toBeVisible();
});

test("some keys show the next step and others mark one as done; every mark is undone; targets are large; no single angle where there is none", async ({
  page,
}) => {
  const id = await routed(page, "By foot switch");
  await page.goto(`/card/${id}`);
  await expect(page.getByText("1 of 15")).toBeVisible();
  const at = (stage: number) => expect(page.getByText(`${stage} of 15`)).toBeVisible();
  const done = async () => (await doneOf(page, id)).length;
  for (const key of ["b", "CapsLock", "F2", "Tab", "AudioVolumeUp", "Shift", "5", "Delete"]) {
    await page.keyboard.press(key);
    await at(1);
  }
  await tap(page, /^Start the clock/);
  await expect(page.getByRole("button", { name: /^Pause the clock/ })).toContainText("0 min");
  await tap(page, /^Pause the clock/);
  await expect(page.getByRole("button", { name: /^Start the clock/ })).toBeVisible();
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  const thereAndBack = async (on: string, back: string) => {
    await page.keyboard.press(on);
    await at(2);
    await page.keyboard.press(back);
    await at(1);
  };
  await thereAndBack("PageDown", "ArrowLeft");
  await thereAndBack("ArrowRight", "PageUp");
  await tap(page, /^Next/);
  await at(2);
  await tap(page, /^Back/);
  await at(1);
  expect(await done(), "looking ahead marks nothing").toBe(0);
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await thereAndBack(" ", "Backspace");
  await thereAndBack("Enter", "ArrowLeft");
  await expect.poll(done).toBe(1);
  await page
    .getByRole("button", { name: /^(Undo|Not done)$/ })
    .first()
    .tap();
  await expect.poll(done).toBe(0);
  for (let i = 0; i < 5; i++) await page.keyboard.press("PageDown");
  await at(6);
  await expect(page.getByText("No single angle: heel, middle, tip")).toBeVisible();
  for (const button of await page.getByRole("button").all()) {
    const box = (await button.boundingBox())!;
    expect(box.height, await button.innerText()).toBeGreaterThanOrEqual(64);
  }
  const tip = page.getByRole("img", { name: /^right side, edge up/ });
  await expect(tip).toHaveAccessibleName("right side, edge up, tip to the left");
  await tap(page, "right-handed");
  await expect(tip).toHaveAccessibleName("right side, edge up, tip to the right");
});

test("a blade without a route says so and leads to it", async ({ page }) => {
  const id = await makeBlade(page.request, "No way yet");
  await page.goto(`/card/${id}`);
  await page.getByRole("link", { name: "To its route" }).tap();
  await expect(page.getByText("No route yet")).toBeVisible();
});
