import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { makeBlade, openBlade, saved } from "./blade.ts";

const row = (page: Page, stage: string) =>
  page.getByRole("table", { name: "Stages" }).getByRole("row").filter({ hasText: stage });
const middleOf = (cell: string) => Number(cell.split(" · ")[1] ?? cell);

async function routed(page: Page, name: string): Promise<string> {
  const id = await makeBlade(page.request, name);
  await openBlade(page, id);
  await page.keyboard.press("3");
  await page.getByRole("button", { name: /^most of it soft/i }).click();
  await expect(row(page, "Rough bevels").getByRole("cell").nth(2)).not.toBeEmpty();
  return id;
}

test("a finer finish moves the rough edge, the scribed line and the minutes", async ({ page }) => {
  await routed(page, "Finer");
  await page.getByLabel("Bevels finished at").selectOption("P120");
  const edge = async () => middleOf(await row(page, "Rough bevels").getByRole("cell").nth(3).innerText());
  const line = async () => middleOf(await row(page, "Rough bevels").getByRole("cell").nth(4).innerText());
  const minutes = async () =>
    Number(/About (\d+) minutes/.exec(await page.getByText(/minutes at the belts/).innerText())![1]);
  await expect(page.locator("[aria-busy=false]").getByRole("table", { name: "Stages" })).toBeVisible();
  const before = { edge: await edge(), line: await line(), minutes: await minutes() };
  await page.getByLabel("Bevels finished at").selectOption("P400");
  await expect.poll(edge).toBeGreaterThan(before.edge + 0.02);
  expect(await line()).toBeLessThan(before.line);
  await expect.poll(minutes).toBeGreaterThan(before.minutes);
});

test("stages are ticked, dragged by keys, warned of, taken out, undone; notes and days stay", async ({
  page,
}) => {
  const id = await routed(page, "Ordered");
  await row(page, "Stock").getByRole("checkbox").check();
  await expect(page.getByText("1 of 15 done.")).toBeVisible();
  await row(page, "Harden and temper").getByRole("checkbox").check();
  await expect(page.getByRole("table", { name: "Stages" })).toContainText("only while the steel is soft");
  // What was done is no choice: it is taken back where it was said, not by the undo of the desk.
  await page
    .getByText("Harden and temper is ticked as done.")
    .locator("..")
    .getByRole("button", { name: "Undo" })
    .click();
  await expect(page.getByRole("table", { name: "Stages" })).not.toContainText("only while the steel is soft");

  // The layout before the profile: moved by keys alone.
  await page.getByRole("button", { name: "Move Layout in the order" }).focus();
  await page.keyboard.press("Space");
  const told = page.getByRole("status").filter({ hasText: /draggable item/i });
  await expect(told).toContainText(/Picked up|moved over/);
  for (let i = 0; i < 3; i++) {
    const before = await told.innerText();
    await page.keyboard.press("ArrowUp");
    await expect(told).not.toHaveText(before);
  }
  await page.keyboard.press("Space");
  await expect(page.getByRole("list", { name: "Is the plan sound" })).toContainText("stands after layout");
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("list", { name: "Is the plan sound" })).not.toContainText(
    "stands after layout",
  );

  await page.getByRole("button", { name: "Remove Etch and mark from the route" }).click();
  await expect(row(page, "Etch and mark")).toHaveCount(0);
  await page.getByRole("button", { name: "Rough bevels", exact: true }).click();
  await page.getByLabel("Note for whoever goes on").fill("left at 1.3, the guide is in the top drawer");
  await page.getByLabel("Planned for").fill("2026-12-04");
  await page.getByLabel("Held by").selectOption({ label: "screw jig" });
  await expect(page.getByRole("region", { name: "Set-up" })).toContainText(
    "150 mm from the pivot, by tangent",
  );
  await saved(page);
  await openBlade(page, id);
  await page.keyboard.press("3");
  await page.getByRole("button", { name: "Rough bevels", exact: true }).click();
  await expect(page.getByLabel("Note for whoever goes on")).toHaveValue(
    "left at 1.3, the guide is in the top drawer",
  );

  await page.getByRole("button", { name: /^Export:/ }).click();
  for (const [name, ending, holds] of [
    ["route sheet", "-route-A4.pdf", "%PDF"],
    ["route as CSV", "-route.csv", "Rough bevels"],
    ["calendar", "-route.ics", "DTSTART;VALUE=DATE:20261204"],
  ] as const) {
    const [taken] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: `Export ${name}`, exact: true }).click(),
    ]);
    expect(taken.suggestedFilename()).toContain(ending);
    expect(readFileSync(await taken.path(), "latin1")).toContain(holds);
  }
});

test("a belt that is gone is planned round, in the stores and on the route", async ({ page }) => {
  const id = await routed(page, "Missing belt");
  await page.getByRole("button", { name: "Finer belts", exact: true }).click();
  const stage = page.getByRole("region", { name: "Finer belts" });
  await expect(stage).toContainText("alumina P220");
  await page.goto("/stores");
  await page.getByLabel("On hand of alumina P220").fill("0");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.getByLabel("On hand of alumina P180").fill("some");
  await expect(page.getByText("Write a whole number from 0 to 10000.")).toBeVisible();
  await page.getByLabel("On hand of alumina P180").fill("4");

  await page.getByLabel(/^Belt/).selectOption({ label: "ceramic P36" });
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await expect(page.getByText(/1 recorded: 127 mm³ a minute/)).toBeVisible();
  await page.getByRole("button", { name: "Use this rate" }).click();
  await expect(page.getByRole("row").filter({ hasText: "538" })).toContainText("127 mm³/min");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();

  await openBlade(page, id);
  await page.keyboard.press("3");
  await page.getByRole("button", { name: "Finer belts", exact: true }).click();
  const belts = stage.getByRole("table");
  await expect(belts).toContainText("alumina P400");
  await expect(belts).not.toContainText("alumina P220");

  // Put back, as other tests have it.
  const { revision, file } = await (await page.request.get("/api/shop")).json();
  const abrasives = file.abrasives.map((one: { id: string; rate?: number }) =>
    one.id === "alumina-p-p220" ? { ...one, onHand: 6 } : { ...one, rate: undefined },
  );
  await page.request.put("/api/shop", {
    data: { base: revision, saveKey: crypto.randomUUID(), file: { ...file, abrasives, log: [] } },
  });
});
