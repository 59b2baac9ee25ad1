import { expect, type Page, test } from "@playwright/test";
import { saved } from "./blade.ts";
import { tabTo } from "./keys.ts";
import { goTo, press, startBlade, type } from "./maker.ts";

/** Makers' jobs from an empty page to the belts, by keys; figures are read from the screen and held to the trade's own sums. */
/** A new blade for a purpose, on a bar that is ground and not tapered. */
const begin = (page: Page, name: string, purpose: RegExp, bar: string) =>
  startBlade(page, name, { purpose, bar, isFlat: true });

/** To the route by a way of working; every figure of it is on the screen. */
async function routeBy(page: Page, school: RegExp): Promise<void> {
  await goTo(page, 3);
  await expect(page.getByRole("button", { name: school })).toBeVisible();
  await press(page, school);
  await expect(row(page, "Sharpen")).toContainText("°");
}

const row = (page: Page, stage: string) =>
  page.getByRole("table", { name: "Stages" }).getByRole("row").filter({ hasText: stage });
const layout = (page: Page) => page.getByRole("region", { name: "Layout sheet" });
const belts = (page: Page, stage: string) => page.getByRole("region", { name: stage }).getByRole("table");

async function grindAt(page: Page, degrees: string): Promise<void> {
  await goTo(page, 2);
  await expect(page.getByLabel("Angle a side").first()).toBeVisible();
  await type(page, "Angle a side", degrees);
  await saved(page);
}

test("a zero bevel of 14.1° on a bar of 3.175, with P60 gone: what is left for the oven, where the line goes, which belts", async ({
  page,
}) => {
  await begin(page, "Zero job", /^carving knife$/, "3.175");
  await grindAt(page, "14.1");
  await page.goto("/stores");
  await expect(page.getByLabel(/^On hand of ceramic P60/)).toBeVisible();
  await type(page, /^On hand of ceramic P60/, "0");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole("heading", { name: "Zero job" })).toBeVisible();
  await routeBy(page, /^nearly to the apex/i);
  await type(page, "Edge to leave for the oven", "1.27");
  // 3.175 at 14.1°: 3.792 high with 1.27 left, 6.320 at nothing: 2.528 to climb.
  await expect(row(page, "Rough bevels")).toContainText("1.27");
  await expect(row(page, "Rough bevels")).toContainText("3.79");
  await expect(row(page, "Rough bevels")).toContainText("14.1°");
  await expect(row(page, "Sharpen")).toContainText("14.1°");
  await expect(layout(page).getByRole("row", { name: /^it climbs by/ })).toContainText("2.53");
  // Half of 3.175: the bar is what it is.
  await expect(layout(page).getByRole("row", { name: /^one line at/ })).toContainText("1.59");
  await press(page, "Rough bevels");
  await expect(belts(page, "Rough bevels")).toContainText("ceramic P80");
  await expect(belts(page, "Rough bevels")).not.toContainText("P60");

  // Put back, as other tests have it.
  const { revision, file } = await (await page.request.get("/api/shop")).json();
  const abrasives = file.abrasives.map((one: { grade: string }) =>
    one.grade === "P60" ? { ...one, onHand: 10 } : one,
  );
  await page.request.put("/api/shop", {
    data: { base: revision, saveKey: crypto.randomUUID(), file: { ...file, abrasives } },
  });
});

test("4.48 stock scribed at 2.00 with 1.27 left: 0.395 outside lines 0.48 apart", async ({ page }) => {
  await begin(page, "Scribed job", /^carving knife$/, "4.48");
  await grindAt(page, "11.858");
  await routeBy(page, /^most of it soft/i);
  await type(page, "Gap of the centre lines", "0.48");
  await type(page, "Edge to leave for the oven", "1.27");
  await expect(layout(page)).toContainText("Height gauge at 2.00 mm, from both faces.");
  await expect(layout(page).getByRole("row", { name: /^stop at the lines/ })).toContainText("0.395 outside");
  // Stopped at 1.27 on 4.48 at 11.858°: (4.48 − 1.27)/2 ÷ tan 11.858° = 7.644.
  await expect(row(page, "Rough bevels")).toContainText("7.64");
  // An edge of nothing is sharpened at its bevel's own angle; nothing is held at an angle in the fire.
  await expect(row(page, "Sharpen")).toContainText("11.9°");
  await expect(row(page, "Harden and temper")).not.toContainText("°");
});

test("a guarded knife: 1.75 left for the oven, the false edge after the hand finish, the edge held at its own angle", async ({
  page,
}) => {
  await begin(page, "Guarded job", /^long knife with a guard$/, "4.8");
  await page
    .getByRole("region", { name: "False edge" })
    .getByRole("button", { name: "Add one" })
    .press("Enter");
  await saved(page);
  await routeBy(page, /^most of it soft/i);
  await type(page, "Edge to leave for the oven", "1.75");
  await expect(row(page, "Rough bevels")).toContainText("1.75");
  const names = await page.getByRole("table", { name: "Stages" }).getByRole("rowheader").allInnerTexts();
  expect(names.slice(-5)).toEqual(["Hand finish", "False edge", "Etch and mark", "Handle", "Sharpen"]);
  // 17 to 22 a side: the middle; the primary's own is flatter.
  await expect(row(page, "Sharpen")).toContainText("20.0°");
  // 0.44 behind it at 20°: 0.60 high.
  await expect(row(page, "Sharpen")).toContainText("0.60");
  // Hardened it stays at that; the finish goes down to what the finer belts and the hand still need.
  await expect(row(page, "Harden and temper")).not.toContainText("1.75");
  const stops = (stage: string) =>
    row(page, stage)
      .getByRole("cell")
      .filter({ hasText: /\d\.\d\d · / })
      .first()
      .innerText();
  const [finish] = (await stops("Finish bevels")).split(" · ").map(Number);
  const [finer] = (await stops("Finer belts")).split(" · ").map(Number);
  expect(finish).toBeLessThan(0.5);
  expect(finish).toBeGreaterThan(finer!);
  // At 4.2° the bevel runs out 2 × 0.60 × tan 4.2° = 0.088 thinner at the apex than the 0.44 behind it; the hand's share stands on that.
  expect(finer).toBeGreaterThan(0.44 - 0.088 - 0.005);
  expect(finer).toBeLessThan(0.44);
  await press(page, "Sharpen");
  await expect(page.getByRole("region", { name: "Set-up" })).toContainText("Set it to 70.0°");
  await expect(page.getByRole("region", { name: "Set-up" })).toContainText("or 20.0° from square");
});

test("a chisel slicer: one line from the flat face, one bevel at 8°, its edge held on that side alone", async ({
  page,
}) => {
  await begin(page, "Chisel job", /^single-bevel slicer$/, "3.5");
  await page.keyboard.press("Alt+2");
  await expect(page.getByRole("region", { name: "Bevel, right" })).toBeVisible();
  await tabTo(page, /^How the bevel.*grind line$/);
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("radio", { name: "angle", exact: true })).toBeChecked();
  await type(page, "Angle a side", "8");
  await type(page, "Behind the edge, row 1, thick behind it", "0.18");
  await type(page, "Edge angle, right", "32");
  await saved(page);
  await routeBy(page, /^most of it soft/i);
  await type(page, "Edge to leave for the oven", "0.5");
  await expect(layout(page)).toContainText("One line, from the left face, at the edge to leave: 0.50");
  await expect(layout(page)).not.toContainText("Height gauge");
  // (3.5 − 0.5)/tan 8° = 21.35 now; 0.18/tan 32° + (3.5 − 0.18)/tan 8° = 23.91 at last.
  await expect(row(page, "Rough bevels")).toContainText("21.35");
  await expect(layout(page).getByRole("row", { name: /^it climbs by/ })).toContainText("2.56");
  await expect(row(page, "Rough bevels")).toContainText("8.0°");
  // 0.18/tan 32°: 0.29 high, on the right alone.
  await expect(row(page, "Sharpen")).toContainText("0.29");
  await expect(row(page, "Sharpen")).toContainText("32.0°");
  await press(page, "Rough bevels");
  await expect(belts(page, "Rough bevels")).toContainText("ceramic");
});

const numbers = (page: Page) => page.getByRole("region", { name: "Numbers at the scribe" });
/** A figure at the scribe, by its name and side. */
async function atScribe(page: Page, name: string, side: "left" | "right" | "both"): Promise<number> {
  const cell = { left: 0, right: 1, both: 2 }[side];
  const row = numbers(page)
    .getByRole("row")
    .filter({ has: page.getByText(name, { exact: true }) });
  return Number.parseFloat(await row.getByRole("cell").nth(cell).innerText());
}

test("a laminated blade at 3° with a core of 1.0: its line stands 5.540 from the edge, by the scribe's own numbers", async ({
  page,
}) => {
  await begin(page, "Laminated job", /^carving knife$/, "4");
  await grindAt(page, "3");
  await type(page, "Behind the edge, row 1, thick behind it", "0.5");
  await type(page, "Edge angle a side", "18");
  await press(page, "It is laminated");
  await type(page, "Core, thick", "1");
  await saved(page);
  // 0.25/tan 18° + (0.5 − 0.25)/tan 3°.
  await expect.poll(() => atScribe(page, "Core's line", "right")).toBeCloseTo(5.54, 1);
  expect(await atScribe(page, "Edge bevel", "right")).toBeCloseTo(0.77, 2);
  await expect(numbers(page).getByText("Core's line")).toBeVisible();
});

/** Both edges 0.65 behind at 25°, sharpened at 30°. */
async function grindTwoEdges(page: Page): Promise<void> {
  await grindAt(page, "25");
  await type(page, "Behind the edge, row 1, thick behind it", "0.65");
  await type(page, "Edge angle a side", "30");
  await press(page, "Grind a second edge");
  await type(page, "Begins, from the junction", "10");
  await type(page, "Behind the second edge, row 1, thick behind it", "0.65");
  await type(page, "Second edge, angle a side", "30");
  await tabTo(page, /^How the second bevel is set/);
  await page.keyboard.press("ArrowRight");
  await type(page, "Second bevel, angle a side", "25");
  await saved(page);
}

test("a double edge 28 high, 4.00 thick, 0.65 behind at 25°, edges at 30°: each line 4.155 from its edge", async ({
  page,
}) => {
  await begin(page, "Dagger job", /^carving knife$/, "4");
  await grindTwoEdges(page);
  // Its start is nudged by keys where it is drawn.
  await tabTo(page, /^Second edge begins 10\.00 mm/);
  await page.keyboard.press("Shift+ArrowRight");
  await expect(page.getByLabel("Begins, from the junction")).toHaveValue("11");
  // 0.325/tan 30° + (4 − 0.65)/2 ÷ tan 25°, from either edge.
  await expect.poll(() => atScribe(page, "Second, line", "right")).toBeCloseTo(4.155, 1);
  expect(await atScribe(page, "Grind line", "right")).toBeCloseTo(4.155, 1);
  expect(await atScribe(page, "Second, behind", "both")).toBeCloseTo(0.65, 2);
  expect(await atScribe(page, "Second, bevel", "right")).toBeCloseTo(25, 1);
  await expect(page.getByText(/matters of local law/).first()).toBeVisible();
});

test("a double edge from New, hollow on a 254 wheel on both edges, routed until both are sharpened", async ({
  page,
}) => {
  await begin(page, "Both edges", /^double edge for display$/, "4.2");
  await page.keyboard.press("Alt+2");
  await expect(page.getByRole("region", { name: "Second edge" })).toBeVisible();
  await tabTo(page, /^Kind of bevel/);
  await page.keyboard.press("ArrowRight");
  await type(page, "Wheel, across", "254");
  await tabTo(page, /^Kind of second bevel/);
  await page.keyboard.press("ArrowRight");
  await type(page, "Second wheel, across", "254");
  await saved(page);
  await routeBy(page, /^most of it soft/i);
  const second = page
    .getByRole("table", { name: "Stages" })
    .getByRole("row")
    .filter({ hasText: "its second edge" });
  // Rough, finish, finer belts and the sharpening touch it; nothing else does.
  await expect(second).toHaveCount(4);
  const [rough, , , sharpened] = await second.allInnerTexts();
  const edge = (text: string) => Number.parseFloat(/\d+\.\d+/.exec(text)![0]);
  expect(edge(rough!)).toBeGreaterThan(edge(sharpened!));
  await expect(row(page, "Sharpen")).toContainText("25.0°");
  await expect(second.last()).toContainText("25.0°");
});

test("3.962 thick and 27.94 high, 0.65 behind, both edges at 25° and 30°: lines at 4.114, 19.71 of flat between", async ({
  page,
}) => {
  await begin(page, "Display job", /^carving knife$/, "3.962");
  await page.keyboard.press("Alt+1");
  await type(page, "Height at the heel", "27.94");
  await saved(page);
  await grindTwoEdges(page);
  // 0.325/tan 30° + (3.962 − 0.65)/2 ÷ tan 25° = 4.114 from either edge; 27.94 − 2 × 4.114 = 19.71.
  await expect.poll(() => atScribe(page, "Second, line", "right")).toBeCloseTo(4.114, 1);
  expect(await atScribe(page, "Grind line", "right")).toBeCloseTo(4.114, 1);
  expect(await atScribe(page, "Height", "both")).toBeCloseTo(27.94, 1);
  expect(await atScribe(page, "Flat between", "right")).toBeCloseTo(19.71, 1);
});

/** Puts the cursor in the box of the next reading at a place of the list, by its words. */
async function readAt(page: Page, place: string, value: string): Promise<void> {
  const table = page.getByRole("table", { name: "Readings" });
  await table.getByRole("row").filter({ hasText: place }).getByRole("button").first().press("Enter");
  const box = page.getByLabel(/^What it reads/);
  await expect(box).toBeFocused();
  await page.keyboard.type(value);
  await page.keyboard.press("Enter");
}

test("the second edge has a stage, a place and a reading of its own", async ({ page }) => {
  await begin(page, "Own stages", /^double edge for display$/, "4.2");
  await routeBy(page, /^most of it soft/i);
  // One sharpening for each edge.
  await press(page, "Sharpen");
  await tabTo(page, /^Edge/);
  await page.keyboard.press("t");
  await expect(row(page, "Sharpen, first edge")).toContainText("25.0°");
  await expect(layoutSecond(page)).toContainText("grind line now");
  await saved(page);
  await page.keyboard.press("Alt+5");
  await tabTo(page, /^After/);
  await page.keyboard.press("r");
  const readings = page.getByRole("table", { name: "Readings" });
  await expect(readings).toContainText("second edge");
  const wanted = readings.getByRole("row").filter({ hasText: "the very edge, second edge" }).first();
  await expect(wanted).toBeVisible();
  const figure = Number.parseFloat(await wanted.getByRole("cell").nth(3).innerText());
  expect(figure).toBeGreaterThan(0.5);
  await readAt(page, "the very edge, second edge", String(figure + 0.9));
  await expect(page.getByText(/^1 of \d+ read/)).toBeVisible();
  // Its jaws touch more on this slope, which is taken off what they read: beyond its band it stays, and is said of that edge.
  const read = readings.getByRole("row").filter({ hasText: "the very edge, second edge" }).first();
  await expect(read).toContainText("out");
  await expect(page.getByText(/^Second edge: /).first()).toBeVisible();
});
const layoutSecond = (page: Page) => page.getByRole("table", { name: "Lines for the second edge" });

test("a face ground at 10° to a step and at 5° above it, where 5° was meant all the way, is read and named", async ({
  page,
}) => {
  await begin(page, "Two slopes", /^carving knife$/, "3");
  await grindAt(page, "5");
  await type(page, "Behind the edge, row 1, thick behind it", "0.5");
  await type(page, "Edge angle a side", "18");
  await saved(page);
  await routeBy(page, /^most of it soft/i);
  await page.keyboard.press("Alt+5");
  await tabTo(page, /^After/);
  const after = page.getByLabel(/^After/);
  for (let i = 0; i < 12 && (await after.inputValue()) !== "finish"; i++)
    await page.keyboard.press("ArrowDown");
  await expect(after).toHaveValue("finish");
  const next = page.getByRole("region", { name: "Next reading" });
  // Two planes from the shoulder, 0.769 up: what the right face stands proud by at a height, and how far its line falls.
  const rises = (up: number) => Math.max(0, Math.min(up, 2.6) - 0.769) * 0.08884;
  const falls = rises(2.6) / 0.08749;
  await expect(next).toContainText("should show");
  await tabTo(page, /^What it reads/);
  for (let n = 1; ; n++) {
    const text = await next.innerText();
    if (/(\d+) of \1 read/.test(text)) break;
    const shows = Number.parseFloat(/should show\s+(-?[\d.]+)/.exec(text)![1]!);
    const up = /, (\d+(?:\.\d+)?) mm up/.exec(text);
    const off = /grind line, right/i.test(text) ? -falls : up ? rises(Number(up[1])) : 0;
    await page.keyboard.type((shows + off).toFixed(3));
    await page.keyboard.press("Enter");
    await expect(next.getByRole("status")).toContainText(`${n} of`);
  }
  await expect(page.getByText(/two slopes on the right side/).first()).toBeVisible();
  // (2.6 − 0.769)(tan 10° − tan 5°) = 0.163 proud.
  await expect(page.getByText(/stands 0\.1[5-8] mm proud/).first()).toBeVisible();
});

test("a convex edge off a slack belt: behind it and above it as before, steeper at its apex, flatter at its shoulder", async ({
  page,
}) => {
  await begin(page, "Slack job", /^field knife$/, "4");
  await page.keyboard.press("Alt+2");
  await expect(page.getByLabel("Edge angle a side")).toBeVisible();
  await type(page, "Edge angle a side", "20");
  await type(page, "Behind the edge, row 1, thick behind it", "0.5");
  await tabTo(page, /^Edge bevel/);
  await page.keyboard.press("c");
  await type(page, "Edge, out of its chord", "0.02");
  await saved(page);
  // c = 0.25/sin 20° = 0.731; R = c²/8q + q/2 = 3.350; asin(c/2R) = 6.26°.
  await expect.poll(() => atScribe(page, "Edge, at apex", "right")).toBeCloseTo(26.3, 1);
  expect(await atScribe(page, "Edge, at shoulder", "right")).toBeCloseTo(13.7, 1);
  expect(await atScribe(page, "Behind the edge", "both")).toBeCloseTo(0.5, 2);
  expect(await atScribe(page, "Edge bevel", "right")).toBeCloseTo(0.69, 2);
  // Its arcs stand 0.033, 0.043 and 0.031 outside their chords' 0.125, 0.250 and 0.375.
  expect(await atScribe(page, "Edge, a quarter up", "both")).toBeCloseTo(0.158, 2);
  expect(await atScribe(page, "Edge, half up", "both")).toBeCloseTo(0.293, 2);
  expect(await atScribe(page, "Edge, three quarters up", "both")).toBeCloseTo(0.406, 2);
});

test("a blade that is hardened already: the route begins there, and its readings say what is left", async ({
  page,
}) => {
  await begin(page, "Half job", /^field knife$/, "4");
  await goTo(page, 3);
  await expect(page.getByLabel("In hand is")).toBeVisible();
  await tabTo(page, /^In hand is/);
  for (let i = 0; i < 3; i++) await page.keyboard.press("ArrowDown");
  await press(page, /^most of it soft/i);
  // Stock, profile, holes, flats, layout, rough bevels and the oven lie behind it.
  await expect(page.getByText("7 of 14 done.")).toBeVisible();
  await expect(page.getByRole("checkbox", { name: "Harden and temper is done" })).toBeChecked();
  await expect(page.getByRole("checkbox", { name: "Flats again is done" })).not.toBeChecked();
});
