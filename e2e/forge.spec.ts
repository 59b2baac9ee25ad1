import { expect, type Page, test } from "@playwright/test";
import { saved } from "./blade.ts";
import { tabTo } from "./keys.ts";
import { goTo, press, startBlade, type } from "./maker.ts";

/** From an empty page to the blank, by keys; figures are read from the screen and held to sums of volumes. */
/** A new blade for a purpose, so high at its heel, with a route that is forged. */
async function begin(page: Page, name: string, purpose: RegExp, bar: string, high: string): Promise<void> {
  await startBlade(page, name, { purpose, bar });
  await page.keyboard.press("Alt+1");
  await type(page, "Height at the heel", high);
  await saved(page);
  await page.keyboard.press("Alt+3");
  await press(page, /^most of it soft/i);
  await tabTo(page, /^Add a stage/);
  await page.keyboard.type("Forge");
  await expect(page.getByRole("link", { name: /Forge$/ })).toBeVisible();
  await saved(page);
  await goTo(page, 3);
  await expect(
    page.getByRole("group", { name: "Bar" }).or(page.getByRole("region", { name: "Bar", exact: true })),
  ).toBeVisible();
}

const brief = (page: Page) => page.getByRole("note", { name: "In short" });
const forms = (page: Page) => page.getByRole("table", { name: "Forms" });
/** A form's row as numbers: its length first, then width and thickness at each place. */
async function rowOf(page: Page, name: string) {
  const cells = await forms(page)
    .getByRole("row")
    .filter({ hasText: name })
    .getByRole("cell")
    .allInnerTexts();
  const [long, ...rest] = cells;
  return {
    long: Number.parseFloat(long!),
    at: rest
      .slice(0, 6)
      .map((text) => /([\d.]+) × ([\d.]+)(?:\s+edge ([\d.]+))?/.exec(text)!.slice(1, 4).map(Number)),
    turn: Number.parseFloat(rest[6]!),
  };
}
async function figures(page: Page) {
  const text = await brief(page).innerText();
  const number = (pattern: RegExp) => Number.parseFloat(pattern.exec(text)![1]!);
  return {
    total: number(/Cut ([\d.]+) mm/),
    needed: number(/: ([\d.]+) mm for the blank/),
    spare: number(/blank, ([\d.]+) mm spare/),
    blank: number(/Blank ([\d.]+) g/),
    scale: number(/about ([\d.]+) g of scale/),
    heats: number(/About ([\d.]+) heats/),
  };
}

test("a full tang from 25.4 × 6.35: how much to cut, the forms, both tapers, and what of its sweep is bent beforehand", async ({
  page,
}) => {
  await begin(page, "Tang job", /^field knife$/, "4", "20");
  await type(page, "Bar, wide", "25.4");
  await type(page, "Bar, thick", "6.35");
  await expect(brief(page)).toContainText("25.40 × 6.35");
  await saved(page);
  const { total, needed, spare, blank, scale } = await figures(page);
  // The bar's own weight is the blank and its scale: 25.4 × 6.35 × 7.85 mg for each millimetre.
  expect(needed * 25.4 * 6.35 * 0.00785).toBeCloseTo(blank + scale, -0.5);
  expect(spare).toBeCloseTo(0.12 * needed, 0);
  expect(total).toBeCloseTo(needed + spare + 2, 0);
  const [bar, tapered, bevelled] = [
    await rowOf(page, "1. the bar"),
    await rowOf(page, "3. tapered"),
    await rowOf(page, "4. bevelled"),
  ];
  expect(bar.at.map(([w, t]) => [w, t])).toEqual(Array.from({ length: 6 }, () => [25.4, 6.4]));
  expect(bar.long * 25.4 * 6.35 * 0.00785).toBeCloseTo(blank, -0.5);
  // Thinner to the butt and to the tip than at the junction.
  const [tang, junction, , , , tip] = tapered.at;
  expect(tang![1]!).toBeLessThan(junction![1]! + 0.05);
  expect(tip![1]!).toBeLessThan(junction![1]!);
  expect(bevelled.at[3]![2]).toBe(2);
  expect(bevelled.turn).toBeGreaterThan(2);
  // Nothing is bent beforehand until a piece has said how steel moves here.
  await expect(page.getByText("90.0 ± 10.0 %")).toBeVisible();
  await expect(page.getByText("0 % of the turn is sure enough")).toBeVisible();
  for (const turn of [bevelled.turn, 0.9 * bevelled.turn]) {
    await type(page, "It turned, when bevelled", turn.toFixed(1));
    await press(page, "Learn from this piece");
  }
  await expect(page.getByText(/by 2 pieces of this shop/)).toBeVisible();
  await expect(page.getByText(/[1-9]\d? % of the turn is sure enough/)).toBeVisible();
  await press(page, /^taper, then bevels; bent beforehand/);
  await expect.poll(async () => (await rowOf(page, "3. tapered")).turn).toBeLessThan(-0.2);
  await expect.poll(async () => (await rowOf(page, "4. bevelled")).turn).toBeLessThan(bevelled.turn);
});

test("a blank read after Forge: its ripple is named, and its crests dressed on paper before anything is in steel", async ({
  page,
}) => {
  await begin(page, "Rippled job", /^field knife$/, "4", "26");
  await type(page, "Bar, wide", "32");
  await expect(brief(page)).toBeVisible();
  await saved(page);
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press("Alt+6");
  const after = page.getByLabel(/^After/);
  await tabTo(page, /^After/);
  for (let i = 0; i < 12 && (await after.inputValue()) !== "forge"; i++) await page.keyboard.press("ArrowUp");
  await expect(after).toHaveValue("forge");
  const next = page.getByRole("region", { name: "Next reading" });
  await expect(next).toContainText("should show");
  await tabTo(page, /^What it reads/);
  for (let n = 1; ; n++) {
    const text = await next.innerText();
    if (/(\d+) of \1 read/.test(text)) break;
    const shows = Number.parseFloat(/should show\s+(-?[\d.]+)/.exec(text)![1]!);
    const x = /at (-?\d+) mm from the junction/.exec(text);
    // A third of a millimetre up and down, 22 from crest to crest, as a hammer leaves it.
    const off = /very edge/i.test(text) ? 0.35 * Math.sin((2 * Math.PI * Number(x![1])) / 22) : 0;
    await page.keyboard.type((shows + off).toFixed(2));
    await page.keyboard.press("Enter");
    await expect(next.getByRole("status")).toContainText(`${n} of`);
  }
  await expect(page.getByText(/rippled edge/).first()).toBeVisible();
  await expect(page.getByText(/from crest to crest: crests at/).first()).toBeVisible();
  await expect(page.getByText(/Dress the crests only, up to 0\.[5-9]/).first()).toBeVisible();
});

test("a kitchen blade with an integral bolster from 25 round: drawn flat beside it, the bolster left as the bar is", async ({
  page,
}) => {
  await begin(page, "Kitchen job", /^kitchen knife$/, "3", "34");
  await tabTo(page, /^Its shape/);
  await page.keyboard.press("r");
  await expect(page.getByLabel("Round, across")).toHaveValue("25");
  await press(page, "Leave an integral bolster");
  await expect(brief(page)).toContainText("25.00 round");
  await saved(page);
  const { needed, blank, scale } = await figures(page);
  // 490.874 mm² of bar.
  expect((needed * 490.874 * 7.85) / 1e6).toBeCloseTo((blank + scale) / 1000, 2);
  const flat = await rowOf(page, "1. drawn flat");
  expect(flat.at[3]![0]!).toBeGreaterThan(34);
  await expect(page.getByText("bolster, front")).toBeVisible();
  await expect(page.getByText("bolster, back")).toBeVisible();
});

test("a chopper from 50.8 × 6.35 whose bevels widen it: the bar is narrower than the blade, the edge outgrows the spine", async ({
  page,
}) => {
  await begin(page, "Chopper job", /^chopper/, "6", "46");
  await type(page, "Bar, wide", "50.8");
  await type(page, "Bar, thick", "8");
  await expect(brief(page)).toContainText("50.80 × 8.00");
  const [before, after] = [await rowOf(page, "3. tapered"), await rowOf(page, "4. bevelled")];
  expect(after.at[3]![0]!).toBeGreaterThan(before.at[3]![0]! * 1.1);
  expect(after.long).toBeGreaterThan(before.long);
  // Said that all of it goes to width, nothing turns.
  await type(page, "Or say it: goes to width", "100");
  await expect.poll(async () => Math.abs((await rowOf(page, "4. bevelled")).turn)).toBeLessThan(0.1);
  // Counted at the fire, a heat is a row, and the card counts on.
  await press(page, "One more heat: bevelled");
  await expect(forms(page).getByRole("row").filter({ hasText: "4. bevelled" })).toContainText("1");
  await saved(page);
  await page.goto(page.url().replace("/blades/", "/card/").replace("/forge", ""));
  await expect(
    page
      .getByText("1 of 14")
      .or(page.getByText(/1 of 1\d/))
      .first(),
  ).toBeVisible();
  await page.keyboard.press("Space");
  await expect(page.getByText("1 of 5: the bar")).toBeVisible();
  for (let i = 0; i < 3; i++) await page.keyboard.press("Space");
  await expect(page.getByText("4 of 5: bevelled")).toBeVisible();
  await expect(page.getByText(/heats 1 of about/)).toBeVisible();
  await page.keyboard.press("Backspace");
  await expect(page.getByText(/3 of 5: tapered/)).toBeVisible();
});
