import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { makeBlade, numberAt, openBlade, saved } from "./blade.ts";
import { focused, tabTo } from "./keys.ts";

test("everything that can be pressed, dragged or typed into on both pages is reached with Tab and has a name", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "Reached", (file) => {
    file.bevels.left = { ...structuredClone(file.bevels.right), plunge: { x: 13, lean: 10, radius: 4 } };
  });
  for (const where of ["shape", "grind"] as const) {
    await openBlade(page, id, where);
    const wanted = await page.evaluate(() => {
      const all = [
        ...document.querySelectorAll<HTMLElement>(
          "button, a[href], input:not([type=file]), select, [role=button], [role=slider]",
        ),
      ].filter((one) => one.getClientRects().length > 0 && !(one as HTMLButtonElement).disabled);
      // Of a row of choices the pressed one takes the focus, and arrows move within it.
      const own = all.filter((one) => one.getAttribute("role") !== "radio" || one.ariaChecked === "true");
      own.forEach((one, i) => {
        one.dataset.reach = String(i);
      });
      return own.map((one) => one.getAttribute("aria-label") ?? one.innerText ?? one.tagName);
    });
    expect(wanted.length).toBeGreaterThan(40);
    const reached = new Set<string>();
    for (let i = 0; i < wanted.length + 20; i++) {
      await page.keyboard.press("Tab");
      const at = await page.evaluate(() => (document.activeElement as HTMLElement | null)?.dataset.reach);
      if (at !== undefined) reached.add(at);
    }
    const missed = wanted.filter((_, i) => !reached.has(String(i)));
    expect(missed, where).toEqual([]);
  }
});

test("a blade is shaped, ground, judged, mended and exported without a pointer", async ({ page }) => {
  const id = await makeBlade(page.request, "By keys", (file) => {
    file.edge.behind = [{ u: 0, t: 0.9 }];
  });
  await openBlade(page, id, "grind");
  await page.keyboard.press("1");
  await expect(page.getByLabel("What for")).toBeVisible();

  // The tip, by its handle; the taper, by its point; a value on the drawing, typed over.
  await tabTo(page, /^spine node 3\. /);
  for (let i = 0; i < 3; i++) await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("ArrowUp");
  await expect(page.getByLabel("Tip below the datum")).toHaveValue("11.9");
  await tabTo(page, /^Thickness at 125\.00 mm: /);
  await page.keyboard.press("ArrowDown");
  await expect.poll(() => focused(page)).toMatch(/^Thickness at 125\.00 mm: 1\.40/);
  await tabTo(page, /^Blade length/);
  await page.keyboard.press("Enter");
  await page.keyboard.type("130");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Blade, junction to tip")).toHaveValue("130");

  await tabTo(page, "Cut the choil at the heel");
  await page.keyboard.press("Enter");
  await tabTo(page, /^On the tang/);
  await page.keyboard.press("ArrowDown");
  await expect(page.getByRole("region", { name: "Whole blade" })).toContainText("Knife");

  // The grind line and the way the bevel is set, from the other page.
  await page.keyboard.press("Tab");
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press("2");
  await tabTo(page, /^Grind line at 0 % of the edge/);
  await page.keyboard.press("Shift+ArrowUp");
  await tabTo(page, /^How the bevel is set: grind line/);
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("radio", { name: "angle" })).toBeChecked();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("radio", { name: "grind line" })).toBeChecked();

  // A finding: opened, gone to, mended.
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press("End");
  for (let i = 0; i < 10; i++) await page.keyboard.press("Shift+ArrowLeft");
  await expect.poll(() => numberAt(page, "Behind the edge", 2)).toMatch(/0\.90$/);
  await page.keyboard.press("f");
  await expect(page.getByRole("region", { name: "Findings" })).toContainText(
    "Thickness behind the edge is up to 0.90",
  );
  const mend = page.getByRole("button", { name: "Take it down to 0.65 mm" });
  await expect(mend).toBeVisible();
  await tabTo(page, "Take it down to 0.65 mm");
  await page.keyboard.press("Enter");
  await expect.poll(() => numberAt(page, "Behind the edge", 2)).toBe("0.65");
  await page.keyboard.press("f");
  await saved(page);

  // The drawing out of the program, by the list of commands.
  await page.keyboard.press("/");
  await page.keyboard.type("export");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog", { name: "Export" })).toBeVisible();
  await tabTo(page, "Export DXF");
  const download = page.waitForEvent("download");
  await page.keyboard.press("Enter");
  expect(readFileSync(await (await download).path(), "utf8")).toContain("GRIND");
});
