import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { compileRing, ringPoints } from "@true-spine/core/blade/outline.ts";
import { readPdf } from "../packages/formats/test/read-pdf.ts";
import { makeBlade, saved } from "./blade.ts";

async function drag(page: Page, name: RegExp, dx: number, dy: number) {
  const box = (await page.getByRole("button", { name }).first().boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + dx, y + dy, { steps: 6 });
  await page.mouse.up();
}

test("a newcomer's path: questions, blade, tip, taper, bevel, a finding and its cure, the template", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByRole("link", { name: "New blade" }).click();
  await page.getByRole("radio", { name: "field knife" }).check({ force: true });
  await page.getByRole("radio", { name: "clip point" }).check({ force: true });
  await page.getByRole("textbox", { name: "Blade, junction to tip" }).fill("118");
  await page.getByRole("textbox", { name: "Your hand, across four fingers" }).fill("3 1/2 in");
  await page.getByRole("radio", { name: "saber" }).click();
  await page.getByLabel("Name", { exact: true }).fill("First of all");
  await expect(page.getByText("Within all that this purpose asks.")).toBeVisible();
  await page.getByRole("button", { name: "Start with this blade" }).click();
  await expect(page.getByRole("heading", { name: "First of all" })).toBeVisible();
  const tray = page.getByRole("region", { name: "Findings" });
  await expect(tray).toContainText("All well.");

  // The tip, by hand.
  const tip = () => page.getByRole("textbox", { name: "Blade, junction to tip" }).inputValue();
  expect(await tip()).toBe("118");
  await drag(page, /^spine node 3\./, 12, 8);
  expect(Number(await tip())).toBeGreaterThan(118.5);

  // The taper, too far: a finding says so, and what mends it is one press away.
  await page.getByLabel("Thickness, row 4, thick").fill("0.7");
  await page.getByLabel("Thickness, row 4, thick").press("Tab");
  await expect(tray).toContainText(/behind the tip it is 0\.\d+ mm over the flats|the point goes/);
  await page.keyboard.press("f");
  const cure = tray.getByRole("button", { name: /^End the taper/ }).first();
  await cure.click();
  await expect(tray).not.toContainText("over the flats; a field knife wants");
  await page.keyboard.press("f");

  // The bevel.
  await page.keyboard.press("2");
  await page.getByLabel("Lean to the tip").fill("12");
  await page.getByLabel("Lean to the tip").press("Enter");
  await saved(page);

  // The template, measured.
  await page.getByRole("button", { name: /^Export:/ }).click();
  const [taken] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Export template" }).click(),
  ]);
  expect(taken.suggestedFilename()).toBe("first-of-all-template-A4.pdf");
  const [sheet] = await readPdf(new Uint8Array(readFileSync(await taken.path())));
  const [row] = await (await page.request.get("/api/blades?search=First of all")).json();
  const { file } = await (await page.request.get(`/api/blades/${row.id}`)).json();
  const model = ringPoints(compileRing(file.outline));
  const width = (points: readonly (readonly [number, number])[]) => {
    const xs = points.map((point) => point[0]);
    return Math.max(...xs) - Math.min(...xs);
  };
  const outline = sheet!.paths.filter((path) => path.length > 60).sort((a, b) => width(b) - width(a))[0]!;
  expect(Math.abs(width(outline) - width(model))).toBeLessThan(0.1);
  const bar = sheet!.paths.filter((path) => path.length === 2 && Math.abs(width(path) - 100) < 0.05);
  expect(bar).toHaveLength(1);
  expect(sheet!.text).toContain("First of all");
});

test("each of the other files is handed over, and a solid being written can be stopped", async ({ page }) => {
  const rows = await (await page.request.get("/api/blades")).json();
  await page.goto(`/blades/${rows[0].id}/shape`);
  await page.getByRole("button", { name: /^Export:/ }).click();
  for (const [name, ending, holds] of [
    ["DXF", ".dxf", "OUTLINE"],
    ["DXF to cut", "-cut.dxf", "LWPOLYLINE"],
    ["SVG", ".svg", 'id="OUTLINE"'],
    ["gauges as DXF", "-gauges.dxf", "MARK"],
    ["gauges as STL", "-gauges.zip", "gauges.txt"],
    ["CSV", "-stations.csv", "grind line right (mm)"],
    ["blade file", ".json", '"true-spine/blade"'],
  ] as const) {
    const [taken] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: `Export ${name}`, exact: true }).click(),
    ]);
    expect(taken.suggestedFilename()).toMatch(new RegExp(`${ending.replace(".", "\\.")}$`));
    expect(readFileSync(await taken.path(), "utf8")).toContain(holds);
  }
  // Pressed in the same breath as it is there: a solid takes a moment only.
  const stopped = page.evaluate(async () => {
    for (;;) {
      const stop = [...document.querySelectorAll("button")].find(({ textContent }) => textContent === "Stop");
      if (stop) return stop.click();
      await new Promise((next) => requestAnimationFrame(next));
    }
  });
  let isWritten = false;
  page.on("download", () => (isWritten = true));
  await page.getByRole("button", { name: "Export STL", exact: true }).click();
  await stopped;
  await expect(page.getByRole("button", { name: "Export STL", exact: true })).toBeVisible();
  expect(isWritten).toBe(false);
});

test("a name in letters of any script is on its template; a sign that no font has is told", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "三徳 칼 Болото Żar سكين ᚠ");
  await page.goto(`/blades/${id}/shape`);
  await page.getByRole("button", { name: /^Export:/ }).click();
  const [taken] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Export template" }).click(),
  ]);
  await expect(page.getByText("No font here has ᚠ: the sheet shows ? for it.")).toBeVisible();
  const bytes = new Uint8Array(readFileSync(await taken.path()));
  const [sheet] = await readPdf(bytes);
  expect(sheet!.text.replace(/\s/g, "")).toContain("三徳칼БолотоŻar?,revision1");
  // Letters that go from right to left are drawn, and told to whoever is read the sheet.
  const told = [...Buffer.from("三徳 칼 Болото Żar سكين ᚠ, revision 1", "utf16le").swap16()];
  expect(Buffer.from(bytes).toString("latin1")).toContain(
    told.map((byte) => byte.toString(16).padStart(2, "0").toUpperCase()).join(""),
  );
  // Of every font only what is needed.
  expect(bytes.length).toBeLessThan(200_000);
});
