import { expect, type Page, test } from "@playwright/test";
import { makeBlade, openBlade, saved } from "./blade.ts";

const box = (page: Page, label: string) => page.getByRole("textbox", { name: label, exact: true });
const outline = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/blades/${id}`)).json()).file.outline;

test("driving dimensions change one measure and keep the others; each is one step of undo", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "Driven");
  await openBlade(page, id, "shape");
  await box(page, "Blade, junction to tip").fill("140");
  await expect(box(page, "Height at the heel")).toHaveValue("30");
  await box(page, "Height at the heel").fill("34");
  await expect(box(page, "Blade, junction to tip")).toHaveValue("140");
  await box(page, "Handle").fill("4 1/4 in");
  await box(page, "Handle").press("Enter");
  await saved(page);
  const { spine, edge, tang } = await outline(page, id);
  expect(spine[2].at[0]).toBe(140);
  expect(edge[0].at[1]).toBe(-34);
  expect(Math.min(...tang.map((node: { at: number[] }) => node.at[0]))).toBeCloseTo(-107.95, 2);
  await box(page, "Blade, junction to tip").fill("5");
  await expect(box(page, "Blade, junction to tip")).toHaveAccessibleDescription(/.+/);
  await box(page, "Blade, junction to tip").press("Escape");
  for (let i = 0; i < 3; i++) await page.keyboard.press("Control+z");
  await expect(box(page, "Blade, junction to tip")).toHaveValue("125");
});

test("nodes are added, smoothed, made corners and taken out, by buttons and by keys", async ({ page }) => {
  const id = await makeBlade(page.request, "Noded");
  await openBlade(page, id, "shape");
  await page.getByRole("button", { name: "Choose edge node 2" }).click();
  const tools = page.getByRole("group", { name: "edge node 2" });
  await tools.getByRole("button", { name: "add after" }).click();
  await expect(page.getByRole("button", { name: "Choose edge node 4" })).toBeVisible();
  await expect(page.getByRole("group", { name: "edge node 3" })).toBeVisible();
  await page.getByRole("group", { name: "edge node 3" }).getByRole("button", { name: "even" }).click();
  await saved(page);
  const [, , added] = (await outline(page, id)).edge;
  expect(Math.hypot(...(added.back as [number, number]))).toBeCloseTo(
    Math.hypot(...(added.ahead as [number, number])),
    2,
  );
  await page.getByRole("button", { name: /^edge node 3\./ }).focus();
  await page.keyboard.press("Delete");
  await expect(page.getByRole("button", { name: "Choose edge node 4" })).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("button", { name: "Choose edge node 4" })).toBeVisible();
});

test("a node drawn near the datum lies on it; a key moves it as far as it says", async ({ page }) => {
  const id = await makeBlade(page.request, "Snapped");
  await openBlade(page, id, "shape");
  await page.getByRole("button", { name: "spine", exact: true }).click();
  const up = page.getByLabel("spine node 2, up from the datum");
  await expect(up).toHaveValue("1");
  const grip = (await page.getByRole("button", { name: /^spine node 2\./ }).boundingBox())!;
  await page.mouse.move(grip.x + 5, grip.y + 5);
  await page.mouse.down();
  await page.mouse.move(grip.x + 9, grip.y + 10, { steps: 4 });
  await page.mouse.up();
  await expect(up).toHaveValue("0");
  await page.getByRole("button", { name: /^spine node 2\./ }).focus();
  await page.keyboard.press("ArrowUp");
  await expect(up).toHaveValue("0.1");
});

test("holes are laid out evenly along the tang", async ({ page }) => {
  const id = await makeBlade(page.request, "Holed");
  await openBlade(page, id, "shape");
  await page.getByRole("button", { name: "Two along the tang" }).click();
  await saved(page);
  const { holes } = (await (await page.request.get(`/api/blades/${id}`)).json()).file;
  expect(holes).toHaveLength(2);
  expect(holes[0].y).toBeCloseTo(-12, 1);
});

test("a liked blade of the rack is laid under this one, and says what this one is as thick as", async ({
  page,
}) => {
  await makeBlade(page.request, "Liked one", (file) => (file.edge.behind = [{ u: 0, t: 0.2 }]));
  const id = await makeBlade(page.request, "Held against it");
  await openBlade(page, id);
  const numbers = page.getByRole("region", { name: "Numbers at the scribe" });
  await expect(numbers.getByRole("row", { name: /^As thick as/ })).toHaveCount(0);
  await page.getByLabel("Blade of the rack").selectOption({ label: "Liked one" });
  const row = numbers.getByRole("row", { name: /^As thick as/ });
  await expect(row).toContainText("beside 0.20");
  await row.getByRole("button").focus();
  await expect(page.getByRole("tooltip")).toHaveText(/edge bevel of Liked one ends at 0\.20: \d\.\d\d times/);
  await page.getByLabel("Blade of the rack").selectOption({ label: "none" });
  await expect(row).toHaveCount(0);
});

test("values on the drawings are typed over where they stand", async ({ page }) => {
  const id = await makeBlade(page.request, "Typed over");
  await openBlade(page, id);
  const value = (name: string) => page.getByRole("button", { name: new RegExp(`^${name}, `) });
  const over = (name: string) => page.getByRole("textbox", { name, exact: true });
  await value("Grind line at the scribe").click();
  await over("Grind line at the scribe").fill("18");
  await over("Grind line at the scribe").press("Enter");
  await expect(page.getByLabel("Grind line, row 1, up from the edge")).toHaveValue("18");
  await value("Blade length").focus();
  await page.keyboard.press("Enter");
  await over("Blade length").fill("5 1/8 in");
  await over("Blade length").press("Enter");
  await expect(value("Blade length")).toHaveAccessibleName(/^Blade length, 130\.2 mm/);
  // The taper's points ahead of the heel have gone along with the longer blade.
  await value("Thickness at 10\\.\\d+").click();
  const thick = page.getByRole("textbox", { name: /^Thickness at 10\.\d+/ });
  await thick.fill("thick");
  await thick.press("Enter");
  await expect(page.getByRole("alert")).toContainText("thick");
  await expect(thick).toHaveValue("thick");
  await thick.press("Escape");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(value("Blade length")).toHaveAccessibleName(/^Blade length, 125\.0 mm/);
  await expect(page.getByLabel("Grind line, row 1, up from the edge")).toHaveValue("22");
});

test("while a node is dragged it moves and the rest stands still; let go, the drawing fits again", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "Still");
  await openBlade(page, id, "shape");
  const node = page.getByRole("button", { name: /^edge node 2\./ });
  const other = page.getByRole("button", { name: /^spine node 2\./ });
  const [grip, stood] = [(await node.boundingBox())!, (await other.boundingBox())!];
  await page.mouse.move(grip.x + 5, grip.y + 5);
  await page.mouse.down();
  await page.mouse.move(grip.x + 5, grip.y + 35, { steps: 6 });
  expect((await node.boundingBox())!.y).toBeCloseTo(grip.y + 30, 0);
  expect(await other.boundingBox()).toEqual(stood);
  await page.mouse.up();
  await expect.poll(async () => (await other.boundingBox())!.y).toBeLessThan(stood.y - 5);
});

test("with its findings open over half of the page the blade is still in sight from spine to edge", async ({
  page,
}) => {
  await openBlade(page, await makeBlade(page.request, "In sight"));
  const strip = page.getByRole("region", { name: "Side strip" });
  const outline = strip.locator("svg > path").last();
  const isInSight = async () => {
    const [around, blade] = [await strip.boundingBox(), await outline.boundingBox()];
    return blade!.y >= around!.y && blade!.y + blade!.height <= around!.y + around!.height;
  };
  const before = (await strip.boundingBox())!.height;
  expect(await isInSight()).toBe(true);
  await page.keyboard.press("f");
  await expect.poll(async () => (await strip.boundingBox())!.height).toBeLessThan(before * 0.75);
  await expect.poll(isInSight).toBe(true);
  await page.keyboard.press("f");
  await expect.poll(async () => (await strip.boundingBox())!.height).toBe(before);
  expect(await isInSight()).toBe(true);
});
