import { expect, type Page, test } from "@playwright/test";
import { saved } from "./blade.ts";
import { choose, goTo, press, startBlade, type } from "./maker.ts";

/** An edge sharpened, from an empty page, by keys; figures are read from the screen. */

const EDGE = 5;
const rad = (degrees: number) => (degrees * Math.PI) / 180;

/** A flat bar of 4, ground flat at an angle. */
async function begin(page: Page, name: string, degrees: string): Promise<void> {
  await startBlade(page, name, { purpose: /^carving knife$/, bar: "4", isFlat: true });
  await saved(page);
  await goTo(page, 2);
  await expect(page.getByLabel("Angle a side").first()).toBeVisible();
  await type(page, "Angle a side", degrees);
  await saved(page);
}

/** The same at 3°, 0.5 behind an edge of 18°. */
async function beginPlain(page: Page, name: string): Promise<void> {
  await begin(page, name, "3");
  await type(page, "Behind the edge, row 1, thick behind it", "0.5");
  await type(page, "Edge angle a side", "18");
  await saved(page);
  await goTo(page, EDGE);
}

const steps = (page: Page) => page.getByRole("table", { name: "Sharpening, step by step" });
const settings = (page: Page) => page.getByRole("table", { name: "Settings" });
async function figures(page: Page, row: RegExp): Promise<number[]> {
  const cells = await settings(page).getByRole("row", { name: row }).getByRole("cell").allInnerTexts();
  return cells.map((text) => Number.parseFloat(text));
}

test("a stone: lift at heel, middle and tip, what one lift gives, and stones no coarser than the bevel's last", async ({
  page,
}) => {
  await beginPlain(page, "Stone edge");
  await expect(settings(page)).toContainText("18.00°");
  const lifts = await figures(page, /^lift of the spine/);
  const gaps = await figures(page, /^gap under the spine/);
  const backs = await figures(page, /^one setting gives/);
  expect(lifts).toHaveLength(3);
  for (let i = 0; i < 3; i++) {
    const high = lifts[i]! / Math.sin(rad(18));
    // At 3° its bevel runs up to the spine, or to half of the bar's 4.
    const half = Math.min(2, 0.25 + (high - 0.25 / Math.tan(rad(18))) * Math.tan(rad(3)));
    // At the heel the spine end still lies in the run of the plunge.
    if (i > 0) expect(Math.abs(lifts[i]! - gaps[i]! - half * Math.cos(rad(18)))).toBeLessThan(0.03);
    expect(backs[i]).toBeCloseTo((Math.asin(lifts[1]! / high) * 180) / Math.PI, 0);
  }
  expect(backs[1]).toBe(18);
  // 35 µm is the last on its bevel as a route begins.
  await expect(page.getByText(/^As usual.*Begins no coarser than 35 µm/)).toBeVisible();
  await expect(steps(page).getByRole("row", { name: /^Finish bevel/ })).toContainText("30 → 12 µm");
  await press(page, "At the stone, large");
  await expect(page.getByRole("heading", { name: "Stone edge: edge" })).toBeVisible();
  const setTo = page.getByRole("region", { name: "Set it to" });
  await expect(setTo).toContainText(`${lifts[0]!.toFixed(2)} mm`);
  await expect(setTo).toContainText(`${lifts[2]!.toFixed(2)} mm`);
  await press(page, "one side, heel", "Space");
  await expect(page.getByLabel("one side, heel")).toBeChecked();
  await press(page, "Next");
  await expect(page.getByLabel("one side, heel")).not.toBeChecked();
  await press(page, "Next");
  await press(page, "Sharpened");
  await expect(page.getByRole("status").first()).toContainText("sharpened, written down");
  await press(page, "Back to the page");
  await expect(page.getByText(/^1 so far/)).toBeVisible();
});

test("fifty sharpenings until half as thick again; at six a year 8.3 years; 0.625 behind it after 25 of 0.04", async ({
  page,
}) => {
  await beginPlain(page, "Fifty");
  const life = page.getByRole("region", { name: "Its life" });
  await expect(life.getByRole("status")).toContainText("It wants thinning after 50 sharpenings");
  await type(page, "Sharpened a year, times", "6");
  await expect(life.getByRole("status")).toContainText("8.3 years at 6 a year");
  // Four of 0.25 are 1 mm of height: 0.5 at 3° is 0.625 thick behind then.
  await type(page, "A sharpening takes", "0.25");
  await expect(life.getByRole("status")).toContainText("after 8 sharpenings");
  const table = page.getByRole("table", { name: "After so many sharpenings" });
  await expect(table.getByRole("row", { name: /^4 1\.00/ })).toContainText("0.62 mm");
  await page.reload();
  await expect(life.getByRole("status")).toContainText("after 8 sharpenings");
});

test("on a route the first sharpening is its stage done, the next one takes off what is drawn", async ({
  page,
}) => {
  await beginPlain(page, "Made edge");
  await goTo(page, 3);
  await press(page, /^most of it soft/i);
  await saved(page);
  // Hardened, its page stands before those of the bench.
  await goTo(page, EDGE + 1);
  const sharpen = async () => {
    await press(page, "At the stone, large");
    await expect(page.getByRole("region", { name: "Set it to" })).toBeVisible();
    for (let n = 0; n < 6 && (await page.getByRole("button", { name: "Next" }).count()) > 0; n++)
      await press(page, "Next");
    await press(page, "Sharpened");
    await expect(page.getByRole("status").first()).toContainText("sharpened, written down");
    await press(page, "Back to the page");
    await expect(steps(page)).toContainText("Finish bevel");
  };
  await sharpen();
  await expect(page.getByText(/so far/)).toHaveCount(0);
  await sharpen();
  await expect(page.getByText(/^1 so far, 0\.04 mm of height gone/)).toBeVisible();
});

test("a rod through a ball from the stores: its height, and what it gives back along the edge", async ({
  page,
}) => {
  await beginPlain(page, "Rod edge");
  await expect(settings(page)).toContainText("18.00°");
  const [, lift] = await figures(page, /^lift of the spine/);
  await page.goto("/stores");
  await expect(page.getByRole("region", { name: "Set-ups" })).toBeVisible();
  await press(page, "Add a set-up");
  const kinds = page.getByLabel(/^Kind of set-up/);
  const name = await kinds.last().getAttribute("aria-label");
  await choose(page, name!, "edge: rod through a ball");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole("heading", { name: "Rod edge" })).toBeVisible();
  await goTo(page, EDGE);
  await choose(page, /^Held by/, name!.replace("Kind of ", ""));
  await expect(settings(page)).toContainText("ball over the middle plane");
  await expect(settings(page)).toContainText("18.00°");
  const [, ball] = await figures(page, /^ball over the middle plane/);
  const backs = await figures(page, /^one setting gives/);
  expect(backs[1]).toBe(18);
  // The ball stands 120 over the datum, the stone's face 6 inside its rod: D·tan 18° + 6/cos 18°, D nearly 120 and the blade's height.
  const high = lift! / Math.sin(rad(18));
  const wanted = (120 + high) * Math.tan(rad(18)) + 6 / Math.cos(rad(18));
  expect(Math.abs(ball! - wanted)).toBeLessThan(0.6);
  await press(page, "Take Finish bevel out");
  await page.keyboard.press("ControlOrMeta+z");
  await expect(steps(page)).toContainText("Finish bevel");
  await page.request.get("/api/shop").then(async (answer) => {
    const { revision, file } = await answer.json();
    // Put back, as other tests have it.
    const setups = file.setups.filter((one: { setup: { kind: string } }) => one.setup.kind !== "rod");
    const save = { base: revision, saveKey: crypto.randomUUID(), file: { ...file, setups } };
    await page.request.put("/api/shop", { data: save });
  });
});

test("a micro-bevel of 0.1 at 17° on a zero bevel of 14.1°: 0.022 of height, 0.061 behind it; it becomes its edge", async ({
  page,
}) => {
  await begin(page, "Zero edge", "14.1");
  await goTo(page, EDGE);
  await expect(page.getByRole("region", { name: "Its life" })).toContainText("A bevel to the apex");
  await press(page, "Add a micro-bevel");
  await press(page, "Micro-bevel");
  await type(page, "Angle a side", "17");
  await type(page, "Micro-bevel, high", "0.1");
  const group = page.getByRole("region", { name: "2. Micro-bevel" });
  await expect(group).toContainText("Takes 0.022 mm off the blade's height; behind it 0.061 mm");
  await press(page, "Make it the blade's edge bevel");
  await expect(page.getByRole("button", { name: "Make it the blade's edge bevel" })).toHaveCount(0);
  await saved(page);
  await goTo(page, 2);
  await expect(page.getByLabel("Edge angle a side")).toHaveValue("17");
  await expect(page.getByLabel("Behind the edge, row 1, thick behind it")).toHaveValue(/^0\.061/);
});
