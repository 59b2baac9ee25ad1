import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { makeBlade, openBlade } from "./blade.ts";

test("the blade in three dimensions: meshed, drawn, turned by keys, closed", async ({ page }) => {
  const id = await makeBlade(page.request, "In the round");
  await openBlade(page, id);
  await page.getByRole("button", { name: "3D" }).click();
  const scene = page.getByRole("application", { name: /three dimensions/ });
  await expect(scene).toBeVisible();
  await expect(page.getByRole("img", { name: "Thickness from nothing to 4.00 mm" })).toBeVisible();
  // Until it stands still.
  let before = await scene.screenshot();
  await expect
    .poll(async () => {
      const last = before;
      before = await scene.screenshot();
      return before.equals(last);
    })
    .toBe(true);
  await scene.focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press("ArrowRight");
  await expect.poll(async () => (await scene.screenshot()).equals(before)).toBe(false);
  const { violations } = await new AxeBuilder({ page }).setLegacyMode(true).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
  await page.getByRole("button", { name: "Close" }).click();
  await expect(scene).toHaveCount(0);
});

test("without WebGL it says why and the rest goes on", async ({ page }) => {
  await page.addInitScript(() => {
    HTMLCanvasElement.prototype.getContext = () => null;
  });
  const id = await makeBlade(page.request, "Flat");
  await openBlade(page, id);
  await page.getByRole("button", { name: "3D" }).click();
  await expect(page.getByRole("alert")).toContainText("no WebGL");
});

test("controls for every kind of bevel change the field", async ({ page }) => {
  const id = await makeBlade(page.request, "Kinds");
  await openBlade(page, id);
  const kind = (name: string) =>
    page.getByRole("radiogroup", { name: "Kind of bevel" }).getByRole("radio", { name });
  await kind("hollow").click();
  const wheel = page.getByLabel("Wheel, across");
  await wheel.fill("600");
  await expect(page.getByRole("region", { name: "Bevel", exact: true })).toBeVisible();
  await wheel.fill("60");
  await expect(wheel).toHaveAccessibleDescription(/hollow is thinner/);
  await wheel.fill("700");
  await kind("convex").click();
  await page.getByLabel("Bulge outside the chord").fill("0.15");
  await kind("flat").click();
  await page.getByRole("radio", { name: "straight" }).click();
  await page.getByLabel("Rest climbs to tip").fill("1");
  await page.getByRole("combobox", { name: "The apex lies" }).selectOption("left-face");
  // A straight pull needs its apex by number: refused, and the choice goes back.
  await expect(page.getByRole("combobox", { name: "The apex lies" })).toHaveValue("centre");
  await page.getByRole("radio", { name: "grind line" }).click();
  await page.getByRole("combobox", { name: "The apex lies" }).selectOption("left-face");
  await expect(page.getByRole("combobox", { name: "The apex lies" })).toHaveValue("left-face");
  await expect
    .poll(async () => (await (await page.request.get(`/api/blades/${id}`)).json()).file.edge.offset)
    .toBe("left-face");
});
