import { expect, type Page, test } from "@playwright/test";
import { saved } from "./blade.ts";
import { tabTo } from "./keys.ts";
import { choose, goTo, press, startBlade, type } from "./maker.ts";

/** A blade's heats from an empty page, by keys; figures are read from the screen and held to sums made apart. */
/** A field knife of a steel, begun by New, with a route. */
async function begin(page: Page, name: string, steel: string): Promise<void> {
  await startBlade(page, name);
  await page.keyboard.press("Alt+1");
  await choose(page, /^Steel/, steel);
  await saved(page);
  await goTo(page, 3);
  await press(page, /^most of it soft/i);
  await expect(page.getByRole("link", { name: /Heat$/ })).toBeVisible();
  await saved(page);
  await goTo(page, 4);
  await expect(heats(page)).toBeVisible();
}

const heats = (page: Page) => page.getByRole("table", { name: "Heats" });
const findings = (page: Page) => page.getByRole("list", { name: "Do these heats do it" });
const rowOf = async (page: Page, name: string) =>
  (await heats(page).getByRole("row").filter({ hasText: name }).getByRole("cell").allInnerTexts()).map(
    (text) => text.trim(),
  );
const figure = async (page: Page, name: string) => {
  const text = await page.getByRole("term").filter({ hasText: name }).locator("..").innerText();
  return [...text.slice(name.length).matchAll(/[\d.]+/g)].map(Number);
};

test("a 1084 blade normalized, hardened, proved by a file and tempered twice; its clock stands through a reload", async ({
  page,
}) => {
  await begin(page, "Heat job", "1084");
  expect(await rowOf(page, "Harden")).toContain("802 °C, 1476 °F");
  await press(page, /^Normalize three times/);
  await expect(heats(page).getByRole("row")).toHaveCount(8);
  expect((await rowOf(page, "Normalize 1"))[0]).toBe("870 °C, 1598 °F");
  expect((await rowOf(page, "Normalize 3"))[0]).toBe("790 °C, 1454 °F");
  expect((await rowOf(page, "Temper 2"))[0]).toBe("204 °C, 399 °F");
  // Ac1, all austenite and the ideal diameter of this grade; the skin after 870, 830, 790 and 802.
  expect((await figure(page, "hardens from"))[0]).toBe(757);
  expect((await figure(page, "hardens deep, in the round"))[0]).toBe(32.9);
  expect((await figure(page, "hardens deep, in the round")).slice(1)).toEqual([25.5, 40.6]);
  expect(await rowOf(page, "Harden")).toContain("0.18");
  await expect(findings(page)).toContainText("like 2 × 1 h, 7 to 9 °C hotter");
  await press(page, "Leave 0.28 mm for the skin");
  await expect(findings(page)).not.toContainText("skin without carbon");
  // Too cool in Fahrenheit, and put right at one press.
  await type(page, "How hot", "1360 F");
  await expect.poll(() => rowOf(page, "Harden")).toContain("738 °C, 1360 °F");
  await expect(findings(page)).toContainText("its carbon stays undissolved");
  await press(page, /^Harden at 80\d °C/);
  await expect(findings(page)).not.toContainText("its carbon stays undissolved");
  await type(page, "How hot", "802 C");
  await expect.poll(() => rowOf(page, "Harden")).toContain("802 °C, 1476 °F");
  // Into the oven: the end is a time of day, and stands when the page comes back.
  await press(page, "Into the heat now");
  const timer = page.getByRole("timer");
  await expect(timer).toContainText("min left");
  const until = /until\s+(\d\d:\d\d)/.exec(await timer.innerText())![1]!;
  await saved(page);
  await page.reload();
  await expect(page.getByRole("timer")).toContainText(until);
  await press(page, "It is warm through now");
  await expect(page.getByRole("timer")).toContainText("10 min left");
  await press(page, "Out now");
  await press(page, "Tick it as done");
  await expect(findings(page)).toContainText("no file has been tried");
  // Taken out at once, it was not held.
  await expect(findings(page)).toContainText("held 0 of 10 minutes");
  await press(page, "It skates");
  await expect(page.getByText("edge skates.")).toBeVisible();
  await expect(findings(page)).not.toContainText("no file has been tried");
  for (const one of ["Temper 1", "Temper 2"]) {
    await press(page, one);
    await type(page, "How hot", "400");
    await expect(page.getByText("Which is it? Write 400 C or 400 F.")).toBeVisible();
    await type(page, "How hot", "400 F");
    await expect.poll(() => rowOf(page, one)).toContain("204 °C, 400 °F");
    await tabTo(page, /the oil is wiped off/);
    await page.keyboard.press("Space");
    await press(page, "Into the heat now");
    await press(page, "Out now");
    await press(page, "Tick it as done");
    await expect.poll(() => rowOf(page, one)).toContain("done");
  }
});

test("a blade found soft: what to take off is said, and filed again it is well; scrap is unproved until then", async ({
  page,
}) => {
  await begin(page, "Soft job", "1084");
  await choose(page, /^Known by/, "scrap");
  await expect(findings(page)).toContainText("nobody knows yet that it hardens");
  await press(page, "Tick it as done");
  await press(page, "It bites");
  // The skin of 802 °C for 10 minutes, 0.0739, twice.
  await expect(findings(page)).toContainText("Take 0.15 mm off a side");
  await press(page, "It skates");
  await expect(findings(page)).not.toContainText("A file bites at the edge");
  await expect(findings(page)).not.toContainText("nobody knows yet that it hardens");
});

test("scrap that no file skates on stays as soft as it is: told so, its edge judged as soft steel's; undone, it is hardened again", async ({
  page,
}) => {
  await begin(page, "Scrap job", "1084");
  await choose(page, /^Known by/, "scrap");
  await press(page, "Tick it as done");
  await press(page, "It bites");
  await expect(findings(page)).toContainText("It may be no steel that hardens");
  await press(page, "It stays as soft as it is");
  await expect(page.getByRole("link", { name: /Heat$/ })).toHaveCount(0);
  await saved(page);
  await goTo(page, 2);
  const judged = page.getByRole("region", { name: "Findings" });
  await expect(judged).toContainText("Nothing on its route hardens it");
  // 350 of 2000 N/mm²: 18 of a hundred, of what a field knife's edge is held to.
  await expect(judged).toContainText("yields at about 18 %");
  await expect(judged).toContainText(
    /the steel above the edge yields at 1\d % of what the thinnest field edge/,
  );
  await page.keyboard.press("ControlOrMeta+z");
  await expect(judged).not.toContainText("Nothing on its route hardens it");
  await expect(page.getByRole("link", { name: /Heat$/ })).toBeVisible();
});

test("1095 with a clay line: weak by its standard, clear on a certificate of 0.22 manganese", async ({
  page,
}) => {
  await begin(page, "Clay job", "1095");
  await goTo(page, 3);
  await tabTo(page, /^Add a stage/);
  await page.keyboard.type("C");
  await saved(page);
  await goTo(page, 4);
  await expect(findings(page)).toContainText("A clay line comes weak");
  await choose(page, /^Known by/, "a certificate");
  await type(page, "Carbon", "0.98");
  await type(page, "Manganese", "0.22");
  await expect(page.getByText("By its certificate.")).toBeVisible();
  await expect.poll(async () => (await figure(page, "hardens deep, in the round"))[0]).toBeLessThan(18);
  await expect(findings(page)).not.toContainText("A clay line comes");
});

test("the card at Harden: how hot, until when, what the file says; and the page has it all", async ({
  page,
}) => {
  await begin(page, "Card job", "1084");
  await page.goto(page.url().replace("/blades/", "/card/").replace("/heat", ""));
  const numbers = page.getByRole("region", { name: "Numbers" });
  // Stock, profile, holes, flats, layout and rough bevels are done; then comes the heat.
  await expect(numbers).toBeVisible();
  for (let at = 1; at <= 6; at++) {
    await expect(page.getByText(`${at} of `, { exact: false }).first()).toBeVisible();
    await page.keyboard.press("Space");
  }
  await expect(numbers).toContainText("1476 °F; cherry");
  await expect(numbers).toContainText("held 10 min");
  await press(page, "Into the heat");
  await expect(numbers).toContainText("min left");
  const until = /Held until\s+(\d\d:\d\d)/.exec(await numbers.innerText())![1]!;
  await saved(page);
  await page.reload();
  await expect(numbers).toContainText(until);
  await press(page, "Warm through");
  await expect(numbers).toContainText("10 min left");
  await press(page, "Out");
  await press(page, "What the file says");
  await press(page, "edge: skates");
  await press(page, "tang: bites");
  await press(page, "Back to the card");
  await saved(page);
  await page.goto(`${page.url().replace("/card/", "/blades/")}/heat`);
  await expect(page.getByText("edge skates, tang bites.")).toBeVisible();
  await expect(page.getByText(/Run 1 time\./)).toBeVisible();
});
