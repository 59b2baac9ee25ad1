import { expect, type Page, test } from "@playwright/test";
import { choose, press, type } from "./maker.ts";

/** Knives that were measured, and edges that were tried, from empty pages, by keys; what was put into the shop is taken out again. */

const MEASURED = [
  { long: "120", e: "0.5", d: "0.77", t5: "0.95" },
  { long: "90", e: "0.35", d: "0.5", t5: "0.8" },
  { long: "160", e: "0.6", d: "0.9", t5: "1.3" },
  { long: "210", e: "0.3", d: "0.55", t5: "0.7" },
  { long: "70", e: "0.2", d: "0.4", t5: "0.9" },
] as const;
/** Straight from the shoulder to 5 up. */
const oneUp = ({ e, d, t5 }: (typeof MEASURED)[number]) =>
  Number(e) + ((Number(t5) - Number(e)) * (1 - Number(d))) / (5 - Number(d));

const table = (page: Page) => page.getByRole("table", { name: "Knives, measured and drawn" });

test("five measured knives on the chart, as thick as one another 1 mm up; one made a blade, as thick and as steep", async ({
  page,
}) => {
  await page.goto("/knives");
  await expect(page.getByRole("heading", { name: "Knives" })).toBeVisible();
  for (const [i, { long, e, d, t5 }] of MEASURED.entries()) {
    await press(page, "Add a knife");
    await expect(page.getByRole("region", { name: `Knife ${i + 1}` })).toBeVisible();
    await type(page, "Blade, long", long);
    await type(page, "Behind the edge, middle", e);
    await type(page, "Edge bevel, high, middle", d);
    await type(page, "5 mm up, thick (0: not read)", t5);
  }
  await choose(page, /^Beside/, "Knife 1");
  await expect(page.getByRole("img", { name: "Length against thickness 1.00 mm up" })).toBeVisible();
  for (const [i, knife] of MEASURED.entries()) {
    const cells = table(page)
      .getByRole("row", { name: new RegExp(`^Knife ${i + 1} `) })
      .getByRole("cell");
    expect(Number(await cells.nth(4).innerText())).toBeCloseTo(oneUp(knife), 2);
    const ratio = Number.parseFloat(await cells.nth(5).innerText());
    expect(ratio).toBeCloseTo(oneUp(knife) / oneUp(MEASURED[0]), 1);
  }
  // Five dots of the measured series are drawn.
  await expect(page.locator(".apexcharts-series[seriesName='measured'] .apexcharts-marker")).toHaveCount(5);
  await press(page, "Knife 2");
  await press(page, "Make it a blade");
  await expect(page.getByRole("heading", { name: "Start a blade" })).toBeVisible();
  await expect(page.getByText("0.35 mm behind the edge")).toBeVisible();
  await expect(page.getByText("19.3° a side at the edge")).toBeVisible();
  await takeOut(page, ["knives"]);
});

test("two people at the shop: what each adds after a save of their own stands, and nobody is asked", async ({
  page,
  browser,
}) => {
  const other = await (await browser.newContext()).newPage();
  const add = async (hand: Page, name: string) => {
    await press(hand, "Add a knife");
    await type(hand, "Name of the knife", name);
    await expect(hand.getByText("saved", { exact: true })).toBeVisible();
  };
  const knives = async () =>
    ((await (await page.request.get("/api/shop")).json()).file.knives ?? []).map(
      ({ name }: { name: string }) => name,
    );
  for (const hand of [page, other]) {
    await hand.goto("/knives");
    await expect(hand.getByRole("heading", { name: "Knives" })).toBeVisible();
  }
  await add(page, "Mine");
  await add(other, "Theirs");
  await add(page, "Mine again");
  await add(other, "Theirs again");
  await expect(other.getByRole("dialog")).toHaveCount(0);
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect
    .poll(async () => (await knives()).sort())
    .toEqual(["Mine", "Mine again", "Theirs", "Theirs again"]);
  await other.close();
  await takeOut(page, ["knives"]);
});

const next = (page: Page) => page.getByRole("region", { name: "What comes next" }).getByRole("status");

test("a thinning trial of four steps at 10°: sound to nothing behind it; the limit moved by a yes, told, and taken back", async ({
  page,
}) => {
  await page.goto("/trials");
  await expect(page.getByRole("heading", { name: "Trials" })).toBeVisible();
  await expect(next(page)).toContainText("Begin with the lightest material");
  const stages = ["0.13 mm to 0.25 mm", "0.08 mm to 0.15 mm", "nothing behind it"];
  for (const stage of stages) {
    await press(page, "Write it down");
    await expect(next(page)).toContainText(`Next: a stage thinner, ${stage} at 10°`);
    await press(page, "Set it up for the next");
  }
  await press(page, "Write it down");
  await expect(next(page)).toContainText("Stop. Sound with nothing behind its edge");
  await expect(page.getByRole("table", { name: "Batches" }).getByRole("row")).toHaveCount(5);
  const allow = page.getByRole("region", { name: "What they allow" });
  // None of four: 1 − 0.05^(1/4) = 0.527.
  await expect(allow).toContainText("10.0° a side would do, by 4 edges ground anew of which 0 failed");
  await expect(allow).toContainText("may still fail 53 in 100");
  await press(page, "Yes, move the limit of a field knife");
  await expect(allow.getByRole("status")).toContainText("Moved by trials: 10.0° a side, 4 batches");
  await press(page, "Take it back");
  await expect(allow.getByRole("status")).toHaveCount(0);
  // A limit goes with its evidence too.
  await press(page, "Yes, move the limit of a field knife");
  await expect(allow.getByRole("status")).toBeVisible();
  await press(page, "Strike out pine, 10°");
  await expect(allow.getByRole("status")).toHaveCount(0);
  await takeOut(page, ["trials", "limits"]);
});

test("an apex that went in a food can: 2.5° steeper is next, and it is told with its depth", async ({
  page,
}) => {
  await page.goto("/trials");
  await choose(page, /^In /, "food can");
  await choose(page, /^What went/, "the apex only");
  await type(page, "How deep", "0.05");
  await press(page, "Write it down");
  await expect(next(page)).toContainText("Next: 12.5° a side, as thick as it is");
  await expect(page.getByRole("table", { name: "Batches" })).toContainText("the apex only, 0.05 mm");
  await takeOut(page, ["trials", "limits"]);
});

/** The shop as other tests have it: once what stands here was saved. */
async function takeOut(page: Page, keys: readonly string[]): Promise<void> {
  await page.goto("/stores");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.goto("/");
  // Another test may have saved the shop between the two.
  await expect(async () => {
    const { revision, file } = await (await page.request.get("/api/shop")).json();
    for (const key of keys) delete file[key];
    const data = { file, base: revision, saveKey: crypto.randomUUID() };
    expect((await page.request.put("/api/shop", { data })).ok()).toBe(true);
  }).toPass();
}
