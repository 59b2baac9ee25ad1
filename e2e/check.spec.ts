import { randomUUID } from "node:crypto";
import { expect, type Page, test } from "@playwright/test";
import { fieldKnife, makeBlade } from "./blade.ts";
import { tabTo } from "./keys.ts";

/** Stages done up to the true flats after the oven: the bevels are roughed, and nothing of them is finished. */
const DONE = ["stock", "profile", "drill", "flats", "layout", "rough", "harden", "true"];

/** A blade halfway along its route, its bench opened by keys. */
async function halfway(page: Page, name: string, known?: string): Promise<string> {
  const id = known ?? (await makeBlade(page.request, name));
  if (known) {
    const made = await page.request.post("/api/blades", {
      data: { id, file: { ...fieldKnife(name), use: "field" } },
    });
    expect(made.status(), await made.text()).toBe(201);
  }
  const kinds = [...DONE, "finish", "grits", "hand", "handle", "etch", "sharpen"];
  const route = {
    format: "true-spine/route",
    version: 1,
    stock: 4.8,
    oven: 0.25,
    skin: 0.1,
    coarse: 125,
    finish: { bevels: 35, flats: 35, edge: 16 },
    gap: 0.5,
    stages: kinds.map((kind) => (DONE.includes(kind) ? { kind, done: "2026-11-10T10:00:00Z" } : { kind })),
  };
  const save = { file: route, base: 0, saveKey: randomUUID() };
  const answer = await page.request.put(`/api/blades/${id}/documents/route`, { data: save });
  expect(answer.status(), await answer.text()).toBe(200);
  return id;
}

async function toBench(page: Page, id: string): Promise<void> {
  await page.goto(`/blades/${id}/grind`);
  await expect(page.getByRole("region", { name: "Numbers at the scribe" })).toBeVisible();
  await page.keyboard.press("5");
  await expect(page.getByLabel(/^What it reads/)).toBeFocused();
}

const count = (page: Page) => page.getByRole("status").filter({ hasText: /of \d+ read/ });
const taken = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/blades/${id}/readings`)).json()).taken as {
    value: number;
    by: string;
  }[];

/** Looks without anything new before a place is read once more. */
const STALLED = 40;

/** Presses the instrument for place after place until the round is read, and whatever it asked for beside it. */
async function readRound(page: Page): Promise<void> {
  let last = "";
  let quiet = 0;
  let same = 0;
  // All read, and nothing more is asked for once that was looked through.
  while (quiet < 12) {
    const now = await count(page).innerText();
    const isDone = /^(\d+) of \1 /.test(now);
    const isBusy = (await page.locator("[aria-busy=true]").count()) > 0;
    quiet = isDone && !isBusy ? quiet + 1 : 0;
    same = now === last ? same + 1 : 0;
    // One that is doubted is asked for again, and read again.
    if (!isDone && same % STALLED === 0) await page.keyboard.press("Enter");
    last = now;
    await page.waitForTimeout(80);
  }
  expect(last).toMatch(/^(\d+) of \1 read/);
}

test("a half-finished blade with hidden faults is read, judged, explained, corrected and read again, by keys alone", async ({
  page,
}) => {
  // The hidden piece's own wander comes from the blade's id: a known one is the same piece in every run.
  const id = await halfway(page, "Hidden faults", "0b8f6c52-6f3e-4a51-9c1d-7d2f30a4f001");
  await toBench(page, id);
  await tabTo(page, /Connect simulated instruments/);
  await page.keyboard.press("Enter");
  await expect(page.getByText("simulated hardness tester")).toBeVisible();
  await expect(page.getByText("simulated caliper")).toBeVisible();
  await expect(page.getByText("simulated height gauge")).toBeVisible();
  await expect(page.getByText("simulated angle finder")).toBeVisible();
  await expect(page.getByLabel(/^What it reads/)).toBeFocused();
  await expect(page.getByRole("button", { name: "Press its button (Enter)" })).toBeVisible();
  await readRound(page);

  // Judged: off centre where it was cut, and the edge round the belly too thick.
  const findings = page.getByRole("region", { name: "Is the work true" });
  await expect(findings).toContainText(/Edge is 0\.\d+ mm left of centre/);
  // Explained: both faults by name, the larger first, with its size near what it was cut with.
  const looks = page.getByRole("region", { name: "What it looks like" });
  await expect(looks).toContainText(/Edge off centre: 0\.2\d mm/i);
  await expect(looks).toContainText(/edge thickens round the belly: 0\.\d+ mm/i);
  // Corrected: on the route, then done, as steps of its own.
  const right = page.getByRole("region", { name: "Corrections" });
  await expect(right).toContainText(/left face/i);
  await expect(right).toContainText(/passes with/);
  await expect(right).toContainText("Eyes, ears and a respirator");
  await tabTo(page, /on the route$/);
  await page.keyboard.press("Enter");
  await expect(right).toContainText(/Left face from \d+ to \d+ mm/);
  await tabTo(page, /All done: read again/);
  await page.keyboard.press("Enter");
  await expect(page.getByText("Remove from the route")).toHaveCount(0);

  // Read again: what was ground is asked for anew, and nothing is left to put right beyond a light touch.
  await expect(count(page)).not.toHaveText(/^(\d+) of \1 read/);
  await tabTo(page, /^What it reads/);
  await readRound(page);
  // Within its band of 0.10 mm: where the fault ends a ridge may stay, and is told as one to watch.
  await expect(findings).not.toContainText(/Edge is 0\.(1[1-9]|[2-9]\d) mm left of centre/);
  await expect(looks).not.toContainText(/thickens round the belly/);
  const still = page.getByRole("region", { name: "Still in the steel" });
  await expect(still).toContainText(/The blade as drawn (is|may be)/);
  const readings = await taken(page, id);
  expect(readings.length).toBeGreaterThan(60);
  expect(readings.every(({ by }) => by === "instrument")).toBe(true);
  // All of it stands in the log.
  await page.keyboard.press("Escape");
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press("7");
  await expect(page.getByRole("list", { name: "Log" })).toContainText("Correction done: Left face");
  await page.request.delete("/api/instruments/bench");
});

test("a reading typed ten times too large is doubted before anything leans on it, and mended by one key", async ({
  page,
}) => {
  const id = await halfway(page, "A slip");
  await toBench(page, id);
  const shown = page.getByText("should show").locator("xpath=following-sibling::span[1]");
  for (let i = 0; i < 8; i++) {
    const should = await shown.innerText();
    await page.keyboard.type(i === 1 ? String(Number((Number(should) * 10).toFixed(1))) : should);
    await page.keyboard.press("Enter");
    await expect(count(page)).toHaveText(new RegExp(`^${i + 1} of`));
  }
  const doubts = page.getByRole("list", { name: "Doubted readings" });
  await expect(doubts.getByRole("listitem")).toHaveCount(1);
  await expect(doubts).toContainText(/typed ten times too large\?/);
  await expect(count(page)).toHaveText(/1 doubted/);
  await expect(page.getByRole("region", { name: "Corrections" })).toHaveCount(0);
  await page.keyboard.press("w");
  await expect(doubts).toHaveCount(0);
  await expect(count(page)).toHaveText(/^8 of \d+ read$/);
  // What was written down stays among what was struck out.
  await expect(page.getByText("1 struck out")).toBeVisible();
  await expect.poll(async () => (await taken(page, id)).length).toBe(9);
});

test("readings are typed by keys: what is nonsense stays and says why, a repeat is a repeat, struck out it is gone", async ({
  page,
}) => {
  const id = await halfway(page, "Typed");
  await toBench(page, id);
  const box = page.getByLabel(/^What it reads/);
  // What cannot be part of a length is not taken: it is the page's.
  await page.keyboard.type("q3b/x/16");
  await expect(box).toHaveValue("3//16");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("3//16");
  await expect(box).toHaveValue("3//16");
  await box.fill("");
  // An inch fraction is a length as good as any.
  await page.keyboard.type("5/32");
  await page.keyboard.press("Enter");
  await expect(count(page)).toHaveText(/^1 of \d+ read/);
  await page.keyboard.press("ArrowUp");
  await page.keyboard.type("3.98 mm");
  await page.keyboard.press("Enter");
  const table = page.getByRole("table", { name: "Readings" });
  const row = table.getByRole("row").filter({ has: page.getByRole("button", { name: /^Strike out/ }) });
  await expect(row).toHaveCount(1);
  await expect(row.getByRole("cell").nth(7)).toHaveText("2");
  await row.getByRole("button", { name: /Strike out/ }).click();
  await expect(row.getByRole("cell").nth(7)).toHaveText("1");
  await expect.poll(async () => (await taken(page, id)).map(({ value }) => value)).toEqual([3.9688, 3.98]);
  // Struck out it is kept, and comes back.
  await page.getByText("1 struck out").click();
  await page.getByRole("button", { name: /^Restore/ }).click();
  await expect(row.getByRole("cell").nth(7)).toHaveText("2");
});

test("a reading taken with the network gone is kept here and arrives once", async ({ page, context }) => {
  const id = await halfway(page, "Out of reach");
  await toBench(page, id);
  await context.setOffline(true);
  for (const value of ["4.01", "3.2", "2.2"]) {
    await page.keyboard.type(value);
    await page.keyboard.press("Enter");
  }
  await expect(count(page)).toHaveText(/^3 of/);
  await expect(page.getByText("server away: kept here, trying again")).toBeVisible();
  expect(await taken(page, id)).toEqual([]);
  await context.setOffline(false);
  await expect.poll(async () => (await taken(page, id)).length).toBe(3);
  await page.reload();
  await expect(count(page)).toHaveText(/^3 of/);
  expect((await taken(page, id)).map(({ value }) => value)).toEqual([4.01, 3.2, 2.2]);
});

test("what is found may be accepted with a reason, and the spec says so; a place of one's own joins the round", async ({
  page,
}) => {
  const id = await halfway(page, "Let stand");
  await toBench(page, id);
  // The edge at the heel far too thick.
  await page.keyboard.type("4.6");
  await page.keyboard.press("Enter");
  const findings = page.getByRole("region", { name: "Is the work true" });
  await expect(findings).toContainText(/the very edge.*reads 4\.\d+ mm/i);
  await findings
    .getByRole("button", { name: /^Accept as it is/ })
    .first()
    .click();
  await page.keyboard.type("the bolster hides it");
  await page.keyboard.press("Enter");
  await expect(findings).toContainText("the bolster hides it");

  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press("p");
  const dialog = page.getByRole("dialog", { name: "What to read there?" });
  await dialog.getByRole("button", { name: /thickness above the edge/ }).click();
  await expect(page.getByText("Thickness above the edge", { exact: false }).first()).toBeVisible();
  await expect(page.getByRole("button", { name: "Remove this place" })).toBeVisible();

  await page.getByRole("button", { name: /^Export:/ }).click();
  const [json] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Export spec as JSON" }).click(),
  ]);
  const { readFileSync } = await import("node:fs");
  const spec = JSON.parse(readFileSync(await json.path(), "utf8"));
  expect(spec).toMatchObject({
    format: "true-spine/spec",
    name: "Let stand",
    deviations: [{ reason: "the bolster hides it", stage: "true" }],
  });
});

test("an instrument that spews garbage disturbs nothing; stuck, it is asked about; gone, it comes back", async ({
  page,
}) => {
  const id = await halfway(page, "Broken cable");
  await toBench(page, id);
  await page.request.post("/api/instruments/bench");
  await expect(page.getByText("simulated caliper")).toBeVisible();
  const how = page.getByLabel("How the caliper behaves");
  await how.selectOption("garbage");
  await expect(page.getByText("sends nonsense, which is dropped").first()).toBeVisible();
  await page.getByLabel(/^What it reads/).fill("4.01");
  await page.keyboard.press("Enter");
  await expect(count(page)).toHaveText(/^1 of/);
  await expect.poll(async () => (await taken(page, id)).map(({ value }) => value)).toEqual([4.01]);

  await how.selectOption("stuck");
  for (let i = 2; i <= 6; i++) {
    await page.getByLabel(/^What it reads/).focus();
    await page.keyboard.press("Enter");
    await expect(count(page)).toHaveText(new RegExp(`^${i} of`));
  }
  await expect(page.getByText(/has read .* 4 times running: is it stuck\?/)).toBeVisible();

  await how.selectOption("away");
  await expect(page.getByText("gone; it connects again by itself").first()).toBeVisible();
  await expect(how).toBeVisible();
  await page.request.delete("/api/instruments/bench");
});

test("a sheet of another hand is read only when it is said what it means; struck out stays struck out", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "From a sheet");
  await page.goto(`/blades/${id}/check`);
  const csv =
    "sep=;\r\nkind;reading (in);position (mm);date;struck\r\nedge;0,05;65;03/04/2026;\r\nedge;0,1;65;03/04/2026;yes\r\n";
  // As a spreadsheet saves it: UTF-16 with its mark.
  await page.getByLabel("File of readings").setInputFiles({
    name: "sheet.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(`\uFEFF${csv}`, "utf16le"),
  });
  const dialog = page.getByRole("dialog", { name: "What sheet.csv means" });
  await expect(dialog).toContainText("“reading (in)” is read as value");
  await expect(dialog).toContainText("“03/04/2026”: which day is that?");
  expect(await taken(page, id)).toHaveLength(0);
  await dialog.getByRole("button", { name: "3 April 2026 (day first)" }).press("Enter");
  await expect(page.getByText("2 imported, 1 of them struck out.")).toBeVisible();
  await expect(page.getByText("1 struck out", { exact: true })).toBeVisible();
  // Of the same moment: in the order of their ids.
  expect((await taken(page, id)).map(({ value }) => value).sort()).toEqual([1.27, 2.54]);
});

test("ten thousand readings from a file come in with progress, and every row that is refused is listed", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "From a file");
  await page.goto(`/blades/${id}/check`);
  const rows = Array.from(
    { length: 10_000 },
    (_, i) => `edge,${20 + (i % 90)},${(0.5 + (i % 7) / 100).toFixed(2)}`,
  );
  rows[4999] = "edge,50,thick";
  rows[7000] = "edge,5000,0.5";
  const csv = ["what,x,value", ...rows].join("\n");
  await page.getByLabel("File of readings").setInputFiles({
    name: "readings.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(csv),
  });
  await expect(page.getByRole("progressbar", { name: "Importing readings" })).toBeVisible();
  const group = page.getByRole("region", { name: "Readings in and out" });
  await expect(group.getByText(/9998 imported, 2 rows refused/)).toBeVisible({ timeout: 500_000 });
  const refused = group.getByRole("list", { name: "Rows refused" });
  await expect(refused).toContainText("line 5001: “thick” is no number for value");
  await expect(refused).toContainText("line 7002: the edge does not reach x 5000");
  // The same file again is the same readings.
  await page.getByLabel("File of readings").setInputFiles({
    name: "readings.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(csv),
  });
  await expect(group.getByText(/0 imported, 9998 were known already/)).toBeVisible({ timeout: 500_000 });
  expect(await taken(page, id)).toHaveLength(9998);
});

test("a run of thirty blades is charted place by place without a stutter, drift and capability told", async ({
  page,
}) => {
  const blades: string[] = [];
  const spot = { what: "behind", u: 0.5 };
  for (let i = 0; i < 30; i++) {
    const id = randomUUID();
    await page.request.post("/api/blades", { data: { id, file: fieldKnife(`Thirty ${i + 1}`) } });
    blades.push(id);
    const readings = [0, 1].map((k) => ({
      id: randomUUID(),
      when: `2026-11-${String(1 + (i % 28)).padStart(2, "0")}T1${k}:00:00Z`,
      stage: "sharpen",
      ...(k === 0 ? spot : { what: "plunge", side: "left" }),
      value: k === 0 ? 0.62 + ((i * 7) % 5) * 0.01 : 12 + i * 0.03 + ((i * 3) % 4) * 0.01,
      by: "hand",
    }));
    await page.request.post(`/api/blades/${id}/readings`, { data: { readings } });
  }
  await page.goto("/runs");
  await page.getByRole("button", { name: "New run" }).click();
  const name = page.getByLabel("Name of the run");
  await name.fill("Thirty alike");
  await name.press("Tab");
  await page.getByRole("button", { name: "Blades", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: "Blades of the run" });
  await dialog.getByLabel("Search by name").fill("Thirty");
  await dialog.getByRole("button", { name: "add all 30 shown" }).click();
  await dialog.getByRole("button", { name: "Keep these 30" }).click();
  await expect(page.getByRole("status").first()).toContainText("30 blades");
  for (const place of [/the plunge's foot, left · read/, /behind the edge at \d+ mm · read/]) {
    await page.getByRole("button", { name: "Add a place" }).click();
    await page.getByRole("dialog").getByRole("button", { name: place }).first().click();
    await expect(page.getByRole("dialog")).toBeHidden();
  }
  const places = page.getByRole("list", { name: "Places" });
  await expect(places.getByRole("button", { name: /plunge/ }).first()).toContainText("30 of 30 read");
  await expect(page.getByText(/the plunge's foot, left drifts by \+0\.0\d+ mm a blade/)).toBeVisible();
  await expect(
    page
      .getByRole("img", { name: /^Individuals chart of/ })
      .locator("svg")
      .first(),
  ).toBeVisible();
  await expect(
    page
      .getByRole("img", { name: /^Moving ranges of/ })
      .locator("svg")
      .first(),
  ).toBeVisible();
  await expect(page.getByText("Cpk, 95 of 100")).toBeVisible();
  const figures = page.getByRole("table", { name: /^Figures of/ });
  await expect(figures.getByRole("row")).toHaveCount(31);
  await expect(page.getByText("first-off, last-off")).toBeVisible();
  const [sheet] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Batch sheet" }).click(),
  ]);
  const { readFileSync } = await import("node:fs");
  const lines = readFileSync(await sheet.path(), "utf8")
    .trim()
    .split("\n");
  expect(lines).toHaveLength(1 + 30 + 6);
  expect(lines[0]).toContain("the plunge's foot, left");
});
