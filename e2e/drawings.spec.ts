import { expect, type Page, test } from "@playwright/test";
import { saved } from "./blade.ts";

/** A knife drawn in inches, tip to the left and edge up, with a pin hole: as somebody's drawing program may give it. */
const INCHES = `<svg xmlns="http://www.w3.org/2000/svg" width="10in" height="2in" viewBox="0 0 10 2">
  <script>document.title = "ran"</script>
  <g transform="rotate(180 5 1)">
    <path d="M0.5 0.5H6.5C8 0.5 9 0.8 9.4 1.1C8.6 1.6 7.6 1.7 6.6 1.7H5L4.8 1.45H0.5Z"/>
    <circle cx="1.5" cy="0.95" r="0.125"/>
  </g>
</svg>`;
/** The same shape as loose lines in a DXF that names no unit. */
const LINES = [
  [0, 0, 150, 0],
  [240, -14, 150, 0],
  [240, -14, 180, -30],
  [180, -30, 115, -30],
  [110, -24, 115, -30],
  [110, -24, 0, -24],
  [0, -24, 0, 0],
];
const DXF = `0\nSECTION\n2\nENTITIES\n${LINES.map(
  ([x1, y1, x2, y2]) => `0\nLINE\n8\n0\n10\n${x1}\n20\n${y1}\n30\n0\n11\n${x2}\n21\n${y2}\n31\n0\n`,
).join("")}0\nENDSEC\n0\nEOF\n`;

async function give(page: Page, name: string, text: string) {
  await page.goto("/");
  await page
    .getByLabel("Blade file, bundle or drawing")
    .setInputFiles({ name, mimeType: "text/plain", buffer: Buffer.from(text) });
}

test("an SVG in inches, upside down, is laid out, its scale confirmed, and becomes a blade", async ({
  page,
}) => {
  await give(page, "liked knife.svg", INCHES);
  const dialog = page.getByRole("dialog", { name: "Lay out liked knife.svg" });
  await expect(dialog).toContainText("A script in it was passed over");
  await expect(dialog.getByLabel("Whole length")).toHaveValue(/^226\.\d/);
  await dialog.getByRole("button", { name: "mirror left to right" }).click();
  await dialog.getByRole("button", { name: "turn upside down" }).click();
  await dialog.getByRole("radio", { name: "heel" }).click();
  await dialog.getByRole("button", { name: "To the next corner" }).click();
  await dialog.getByRole("button", { name: "To the corner before" }).click();
  await dialog.getByRole("button", { name: "Make a blade of it" }).click();
  await expect(page).toHaveURL(/\/shape$/);
  await expect(page.getByRole("heading", { name: "liked knife" })).toBeVisible();
  expect(await page.title()).not.toBe("ran");
  const [row] = await (await page.request.get("/api/blades?search=liked knife")).json();
  const { file } = await (await page.request.get(`/api/blades/${row.id}`)).json();
  // Source: the drawing; the edge lies 1.2 in below the spine at the heel, the hole is a quarter inch.
  expect(file.outline.edge[0].at[1]).toBeCloseTo(-1.2 * 25.4, 2);
  expect(file.holes[0].d).toBeCloseTo(6.35, 1);
});

test("a drawing that leans is made level by a line along its spine, and its closed gaps are seen before it is a blade", async ({
  page,
}) => {
  // The same blade leaning by 8°, every line 0.3 short of the next.
  const [cos, sin] = [Math.cos((8 * Math.PI) / 180), Math.sin((8 * Math.PI) / 180)];
  const at = (x: number, y: number) => `10\n${x * cos - y * sin}\n20\n${x * sin + y * cos}\n`;
  const leaning = LINES.map(([x1, y1, x2, y2]) => {
    const share = 0.3 / Math.hypot(x2! - x1!, y2! - y1!);
    const end = at(x2! + (x1! - x2!) * share, y2! + (y1! - y2!) * share)
      .replace("10", "11")
      .replace("\n20\n", "\n21\n");
    return `0\nLINE\n8\n0\n${at(x1!, y1!)}${end}`;
  });
  await give(page, "leans.dxf", `0\nSECTION\n2\nENTITIES\n${leaning.join("")}0\nENDSEC\n0\nEOF\n`);
  const dialog = page.getByRole("dialog", { name: "Lay out leans.dxf" });
  const make = dialog.getByRole("button", { name: "Make a blade of it" });
  const turned = dialog.getByLabel("Turned, + to the left");
  await make.click();
  await expect(dialog.getByText("Confirm the closed gaps first")).toBeVisible();
  await dialog.getByRole("button", { name: "Level by a line" }).click();
  const view = dialog.getByRole("img", { name: /The drawing/ });
  const [left, bottom, width] = await view.evaluate((svg: SVGSVGElement) => {
    const m = svg.getScreenCTM()!;
    return [m.e, m.f, m.a];
  });
  const onScreen = (x: number) => [left! + width! * x * cos, bottom! - width! * x * sin] as const;
  await page.mouse.move(...onScreen(10));
  await page.mouse.down();
  await page.mouse.move(...onScreen(80));
  await page.mouse.move(...onScreen(140));
  await page.mouse.up();
  await expect.poll(async () => Math.abs(Number(await turned.inputValue()) + 8)).toBeLessThan(0.5);
  // Or by a figure.
  await turned.fill("-8");
  await turned.press("Enter");
  await dialog.getByLabel("Whole length").fill("240");
  await dialog.getByRole("checkbox", { name: /gaps that were closed are ringed/ }).check();
  await make.click();
  await expect(page).toHaveURL(/\/shape$/);
  const [row] = await (await page.request.get("/api/blades?search=leans")).json();
  const { file } = await (await page.request.get(`/api/blades/${row.id}`)).json();
  // Source: the drawing, 30 from the straight spine to the edge, less than a gap apart at the heel's corner.
  expect(Math.abs(file.outline.edge[0].at[1] + 30)).toBeLessThan(0.3);
});

test("a DXF that names no unit asks how long it is", async ({ page }) => {
  await give(page, "plate.dxf", DXF);
  const dialog = page.getByRole("dialog", { name: "Lay out plate.dxf" });
  await expect(dialog).toContainText("The file tells no unit");
  const length = dialog.getByLabel("Whole length");
  await length.fill("nonsense");
  await expect(length).toHaveAccessibleDescription(/nonsense/);
  await length.fill("9 1/2 in");
  await dialog.getByRole("button", { name: "Make a blade of it" }).click();
  await expect(page).toHaveURL(/\/shape$/);
  await expect(page.getByRole("region", { name: "Whole blade" })).toContainText("241.3");
});

for (const [what, name, text, why] of [
  ["cut off", "cut.svg", INCHES.slice(0, 300), /not readable as SVG: line/],
  [
    "not closed",
    "open.dxf",
    DXF.replace(/0\nLINE[\s\S]*?31\n0\n/, "").replace(/0\nLINE[\s\S]*?31\n0\n/, ""),
    /closed/,
  ],
  ["no drawing at all", "poem.dxf", "roses are red\n", /not readable|Nothing/],
] as const) {
  test(`a drawing that is ${what} is refused in words, and the rack is as it was`, async ({ page }) => {
    await give(page, name, text);
    const dialog = page.getByRole("dialog", { name: "This file was not opened" });
    await expect(dialog).toContainText(why);
    await dialog.getByRole("button", { name: "Close" }).click();
    await expect(page.getByRole("link", { name: "New blade" })).toBeVisible();
  });
}

test("what was drawn can be worked on like any blade", async ({ page }) => {
  await give(page, "again.dxf", DXF);
  const dialog = page.getByRole("dialog", { name: "Lay out again.dxf" });
  await dialog.getByLabel("Whole length").fill("240");
  await dialog.getByRole("button", { name: "Make a blade of it" }).click();
  await page.getByRole("button", { name: /^spine node 3\./ }).focus();
  await page.keyboard.press("Shift+ArrowDown");
  await saved(page);
});
