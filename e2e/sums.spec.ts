import { expect, type Page, test } from "@playwright/test";
import { makeBlade, saved } from "./blade.ts";
import { focused, tabTo } from "./keys.ts";

/** Questions by keys from an empty page, figures read from the screen and held to the trade's own worked values. */
const answer = (page: Page) => page.getByRole("region", { name: "Answer" });
/** A main figure of the answer as a number, by its name. */
async function figure(page: Page, name: string): Promise<number> {
  const shown = answer(page)
    .locator("dl > div, tr")
    .filter({ has: page.getByText(name, { exact: true }) })
    .locator("dd, td")
    .first();
  return Number.parseFloat(await shown.innerText());
}

/** Finds a sum by what a maker would type, from the page before by K. */
async function ask(page: Page, words: string, name: string): Promise<void> {
  await tabTo(page, "Find a sum");
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type(words);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name, exact: true })).toBeVisible();
}

async function type(page: Page, label: string, text: string): Promise<void> {
  await tabTo(page, label);
  await page.keyboard.type(text);
}

async function toSums(page: Page): Promise<void> {
  await page.goto("/");
  await expect(page.getByRole("link", { name: "Rack", exact: true })).toBeVisible();
  await page.keyboard.press("k");
  await expect(page.getByRole("heading", { name: "Sums", level: 1 })).toBeVisible();
}

test("a quarter inch on an eighth: 14.036°, 14.478° along the face; the first box has the focus, two answer it", async ({
  page,
}) => {
  await toSums(page);
  await expect.poll(() => focused(page)).toBe("Thick at the top");
  await page.keyboard.type("3.175");
  await type(page, "Bevel, high", "1/4 in");
  await expect.poll(() => figure(page, "angle a side")).toBeCloseTo(14.036, 1);
  await expect(answer(page)).toContainText("14.036°");
  await expect(answer(page)).toContainText("14.478°");
  // At 15° it is nothing before that: 3.175/2 ÷ tan 15° = 5.92.
  await type(page, "Angle a side", "15");
  await expect(answer(page)).toContainText(/Impossible because .*At 15.000° it is nothing 5.925 mm up/);
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.press("Delete");
  await expect(answer(page)).toContainText("14.04°");
});

test("41 thou with 77 and 56 high: 14.91° and 20.11°, compared at 56: 29.8 beside 41 thou", async ({
  page,
}) => {
  await toSums(page);
  await page.getByLabel("Unit").selectOption("thou");
  await ask(page, "compare", "Two edges, compared fairly");
  await type(page, "First, behind the edge", "41");
  await type(page, "First, edge bevel high", "77");
  await type(page, "Second, edge bevel high", "56");
  await expect.poll(() => figure(page, "first, a side")).toBeCloseTo(14.91, 2);
  expect(await figure(page, "second, a side")).toBeCloseTo(20.11, 2);
  expect(await figure(page, "first, were its height along the face")).toBeCloseTo(15.44, 2);
  expect(await figure(page, "second, were its height along the face")).toBeCloseTo(21.47, 2);
  expect(await figure(page, "first, 56.0 thou up")).toBeCloseTo(29.8, 1);
  expect(await figure(page, "second, 56.0 thou up")).toBeCloseTo(41, 1);
});

test("the tallest hollow of a 203.2 wheel is 20.83; higher is impossible, and the nearest is one press away", async ({
  page,
}) => {
  await toSums(page);
  await ask(page, "tallest hollow", "Hollow by a wheel");
  await type(page, "Thick at the top", "4.572");
  await type(page, "Behind the edge", "0.254");
  await type(page, "Wheel, across", "8 in");
  await expect.poll(() => figure(page, "tallest before it necks")).toBeCloseTo(20.83, 2);
  await type(page, "Hollow, high above the edge bevel", "25");
  await expect(answer(page)).toContainText(/Impossible because so high the hollow is thinner/);
  await tabTo(page, "Take that");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Hollow, high above the edge bevel")).toHaveValue("20.83");
  await expect.poll(() => figure(page, "tangent at the edge")).toBeCloseTo(0, 1);
});

test("gauge 2.00 on 4.48: 0.48 apart, the lines meet at 4.00; 14.1° on a 150 screw: 36.54 or 37.68", async ({
  page,
}) => {
  await toSums(page);
  await ask(page, "scribe gauge", "Height gauge and gap");
  await type(page, "Thick", "4.48");
  await type(page, "Gauge set at", "2");
  await expect.poll(() => figure(page, "gap of the lines")).toBeCloseTo(0.48, 6);
  expect(await figure(page, "the lines meet where it is thick")).toBe(4);

  await ask(page, "screw jig", "Jig, rest, screw, arm, stone");
  await type(page, "Angle a side", "14.1");
  await type(page, "Pivot away", "150");
  await expect.poll(() => figure(page, "by tangent")).toBeCloseTo(37.68, 2);
  expect(await figure(page, "by sine")).toBeCloseTo(36.54, 2);
});

test("what was asked is kept on this device, and taken up again; with the network gone it answers as before", async ({
  page,
  context,
}) => {
  await toSums(page);
  await ask(page, "temperature", "Temperatures");
  await context.setOffline(true);
  await type(page, "°C", "200");
  await expect.poll(() => figure(page, "Fahrenheit")).toBe(392);
  const lately = page.getByRole("region", { name: "Asked lately" });
  await expect(lately).toContainText("Fahrenheit 392 °F");
  await context.setOffline(false);
  await ask(page, "edge", "Edge bevel");
  await page.reload();
  await lately.getByRole("button").first().click();
  await expect(page.getByLabel("°C", { exact: true })).toHaveValue("200");
  await expect.poll(() => figure(page, "Fahrenheit")).toBe(392);
});

test("how sure an answer is, by what it was read with; as a slip of paper it is all that is printed", async ({
  page,
}) => {
  await toSums(page);
  await ask(page, "edge bevel", "Edge bevel");
  await type(page, "Behind the edge", "1.0414");
  await type(page, "Edge bevel, high", "1.9558");
  await expect(answer(page)).not.toContainText("±");
  await page.getByLabel("Heights read with").selectOption({ label: "steel rule" });
  await expect(answer(page)).toContainText(/±\s*\d+\.\d+°/);
  await page.emulateMedia({ media: "print" });
  const slip = page.locator("article.slip");
  await expect(slip).toBeVisible();
  await expect(slip).toContainText("edge angle a side");
  await expect(slip).toContainText("±");
  await expect(page.getByRole("heading", { name: "Sums" })).toBeHidden();
  await page.emulateMedia({ media: "screen" });
  await expect(slip).toBeHidden();
});

test("an answer becomes a blade, or is put into one, where one key takes it back", async ({ page }) => {
  const id = await makeBlade(page.request, "Takes a sum");
  const bevel = async () => (await (await page.request.get(`/api/blades/${id}`)).json()).file.bevels.right;
  const before = await bevel();
  await toSums(page);
  await page.keyboard.type("3.5");
  await type(page, "Thick at the edge", "0.4");
  await type(page, "Angle a side", "4");
  await expect(answer(page)).toContainText("22.1");
  await page.getByLabel("Put it into a blade").selectOption({ label: "Takes a sum" });
  await expect(page.getByText("Flat bevel is put in. Ctrl+Z takes it back.")).toBeVisible();
  await saved(page);
  await expect.poll(bevel).toMatchObject({ kind: "flat", set: "angle", angle: 4 });
  await page.keyboard.press("Control+z");
  await saved(page);
  await expect.poll(bevel).toEqual(before);

  await page.keyboard.press("k");
  await tabTo(page, "Make it a blade");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Flat bevel, from a sum" })).toBeVisible();
  await expect(page.getByLabel("Angle a side").first()).toHaveValue("4");
});
