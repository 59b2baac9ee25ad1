import { expect, type Page, test } from "@playwright/test";
import { saved } from "./blade.ts";
import { tabTo } from "./keys.ts";
import { choose, goTo, press, startBlade, type } from "./maker.ts";

/** How straight a blade is, from an empty page, by keys, on the simulated anvil; figures are read from the screen. */

/** A new blade with a route, hard, its flats ground again; a made-up piece on the anvil, bent as it is said. */
async function begin(
  page: Page,
  name: string,
  { isClad = false, takes, piece }: { isClad?: boolean; takes?: string; piece: () => Promise<void> },
): Promise<void> {
  await startBlade(page, name, { purpose: /^field knife$/, bar: "4" });
  await saved(page);
  if (isClad) {
    await goTo(page, 2);
    await press(page, "It is laminated");
    await type(page, "Core, thick", "1");
    await saved(page);
  }
  await goTo(page, 3);
  await press(page, /^most of it soft/i);
  await saved(page);
  if (takes) {
    await press(page, "Flats again");
    await type(page, "Takes off each face, 0 as needed", takes);
    // Which bar is offered hangs on the figure whole.
    await expect(page.locator("[aria-busy=true]")).toHaveCount(0);
    await press(page, /^Take a [\d.]+ mm bar/);
    await saved(page);
  }
  await press(page, "How straight it is");
  await choose(page, /^After/, takes ? "Harden and temper" : "Flats again");
  await piece();
  await press(page, "Lay it on the anvil");
  await expect(page.getByText("A simulated piece lies on it.")).toBeVisible();
}

const found = (page: Page) => page.getByRole("list", { name: "Is it straight" });
const held = (page: Page) => page.getByRole("img", { name: /^As it is held/ });
const log = (page: Page) => page.getByRole("table", { name: "Readings and blows" });

/** Reads the piece along a face, and keeps that. */
async function read(page: Page, every = "12.50 mm"): Promise<void> {
  await choose(page, /^A place every/, every);
  const before = await log(page).getByRole("row").count();
  await press(page, "Read it off the anvil");
  await expect(page.getByLabel("at 0", { exact: true })).not.toHaveValue("");
  await press(page, "Keep these readings");
  await expect.poll(() => log(page).getByRole("row").count()).toBe(Math.max(2, before + 1));
  await expect(page.locator("[aria-busy=true]")).toHaveCount(0);
}

/** Blow by blow until it may be left: the words of the work say so. */
async function straighten(page: Page, most: number): Promise<number> {
  for (let round = 0; round < most; round++) {
    const done = page.getByText(
      /Straight, as far as these readings tell|Within what is let stand: stop here/,
    );
    if ((await done.count()) > 0) return round;
    await type(page, "Blows", "4");
    await press(page, "Struck");
    await expect(page.getByText(/blows so far: read it again/)).toBeVisible();
    await read(page);
  }
  throw new Error(`Not straight after ${most} rounds`);
}

test("hard, one steel, bent 0.5 high at 60, left flat hollow: peened in the furrow on the left, in a few rounds straight", async ({
  page,
}) => {
  await begin(page, "Bent job", {
    piece: async () => {
      await type(page, "Bent high, its middle to the right", "0.5");
      await type(page, "Bent at, from the junction", "60");
    },
  });
  await expect(page.getByText("Read it first.")).toBeVisible();
  await read(page);
  // 0.5 high at 60: its place within 5, and the turn that its height gives between the ends.
  const words = await found(page)
    .getByText(/^Bent /)
    .first()
    .innerText();
  const [, turn, at] = /Bent ([\d.]+)° at (\d+)/.exec(words)!;
  expect(Math.abs(Number(at) - 60)).toBeLessThanOrEqual(5);
  expect(Number(turn)).toBeGreaterThan(0.8);
  expect(Number(turn)).toBeLessThan(1.2);
  expect(words).toContain("left flat hollow");
  await expect(found(page)).toContainText("One steel, hard: left face up, square across");
  await expect(found(page)).toContainText("Hollow up on the anvil");
  await expect(held(page)).toHaveAttribute("aria-label", /left face up, edge toward you, tip to the left/);
  expect(await straighten(page, 14)).toBeGreaterThan(0);
  await expect(found(page).getByText(/^Bent /)).toHaveCount(0);
  await expect(log(page)).toContainText("4 × bit");
});

test("a hard core in soft sides is worked on the other face, its crest up, and comes straight", async ({
  page,
}) => {
  await begin(page, "Clad job", {
    isClad: true,
    piece: async () => {
      await type(page, "Bent high, its middle to the right", "0.5");
      await type(page, "Bent at, from the junction", "60");
      await press(page, "a hard core in soft sides", "Space");
    },
  });
  await read(page);
  await expect(found(page)).toContainText("left flat hollow");
  await expect(found(page)).toContainText("Hard core, soft sides, hard: right face up");
  await expect(found(page)).toContainText("Crest up on a soft stump");
  // Nobody knows: one light blow, and the sign tells.
  await press(page, "nobody knows how it is built", "Space");
  await expect(found(page)).toContainText("Build unknown, hard");
  await expect(found(page)).toContainText("One light blow in the furrow, then read");
  await press(page, "nobody knows how it is built", "Space");
  await expect(found(page)).toContainText("Hard core, soft sides, hard: right face up");
  expect(await straighten(page, 14)).toBeGreaterThan(0);
});

test("a twist of 1.5° is read as roll: lines at 45° on both faces, half each", async ({ page }) => {
  await begin(page, "Twist job", {
    piece: async () => {
      await type(page, "Bent high, its middle to the right", "0");
      await type(page, "Turned heel to tip", "1.5");
    },
  });
  await choose(page, /^With/, "roll, an angle finder");
  await read(page, "25.00 mm");
  const words = await found(page)
    .getByText(/^Twisted /)
    .first()
    .innerText();
  expect(Math.abs(Number(/Twisted ([\d.]+)°/.exec(words)![1]) - 1.5)).toBeLessThanOrEqual(0.25);
  expect(words).toContain("the tip's edge is turned to the left");
  await expect(found(page)).toContainText("Lines at 45° on both faces, half each");
});

test("a left hand begins on the right face, tip to the right; what is bent comes out the same", async ({
  page,
}) => {
  await begin(page, "Left job", {
    piece: async () => {
      await type(page, "Bent high, its middle to the right", "0.5");
      await type(page, "Bent at, from the junction", "60");
    },
  });
  await tabTo(page, /^Hand: right-handed/);
  await page.keyboard.press("ArrowRight");
  await expect(held(page)).toHaveAttribute("aria-label", /right face up, edge toward you, tip to the right/);
  await read(page);
  await expect(log(page).getByRole("row").nth(1)).toContainText("right");
  await expect(found(page)).toContainText("left flat hollow");
  await expect(found(page)).toContainText("One steel, hard: left face up");
  // As the browser was found.
  await tabTo(page, /^Hand: left-handed/);
  await page.keyboard.press("ArrowLeft");
});

test("a bent straightedge is found by reading both faces with it, and a bow is left to grinding where that holds it", async ({
  page,
}) => {
  await begin(page, "Rule job", {
    takes: "0.45",
    piece: async () => {
      await type(page, "Bent high, its middle to the right", "0.3");
      await press(page, "evenly along it", "Space");
      await type(page, "Its straightedge is bent by", "0.08");
    },
  });
  await press(page, /^both faces with this straightedge/, "Space");
  await read(page);
  await expect(page.getByRole("radio", { name: "right face up" })).toBeChecked();
  await read(page);
  const told = await page.getByText(/By the last two, turned over/).innerText();
  const bent = Number(/is bent by ([\d.]+) mm/.exec(told)![1]);
  expect(Math.abs(bent - 0.08)).toBeLessThanOrEqual(0.05);
  // 0.3 of bow over 120 of blade, as much of it as was read along; 0.45 comes off each flat, 0.1 of it skin: twice 0.35 is spare.
  const words = await found(page)
    .getByText(/^Bowed evenly/)
    .first()
    .innerText();
  const along = await page
    .getByLabel(/^at \d/)
    .last()
    .evaluate((box: HTMLInputElement) => box.labels![0]!.innerText);
  const bow = 0.3 * (Number(/[\d.]+/.exec(along)![0]) / 120) ** 2;
  expect(Math.abs(Number(/([\d.]+) mm high/.exec(words)![1]) - bow)).toBeLessThanOrEqual(0.06);
  await expect(found(page)).toContainText("What is still to come off holds it");
  await expect(found(page)).toContainText("Leave it to grinding");
});

test("at the anvil, on the card: struck, then read, and the page has it all", async ({ page }) => {
  await begin(page, "Anvil card", {
    piece: async () => {
      await type(page, "Bent high, its middle to the right", "0.6");
      await type(page, "Bent at, from the junction", "60");
    },
  });
  await read(page);
  await press(page, "At the anvil, large");
  await expect(held(page)).toBeVisible();
  await expect(page.getByText(/^One steel, hard: .*Hollow up on the anvil/)).toBeVisible();
  await press(page, "Struck");
  await expect(page.getByText("1 blow", { exact: true })).toBeVisible();
  await expect(page.getByText("Read it first.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Struck" })).toBeDisabled();
  await press(page, "Read");
  const dialog = page.getByRole("dialog");
  await expect(dialog).toBeVisible();
  await press(page, "Read it off the anvil");
  await expect(dialog.getByLabel("at 0", { exact: true })).not.toHaveValue("");
  await press(page, "Keep these readings");
  await expect(dialog).toHaveCount(0);
  await expect(page.getByRole("button", { name: "Struck" })).toBeEnabled();
  await press(page, "Back to the page");
  await expect(log(page)).toContainText("1 × bit");
});
