import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { makeBlade, openBlade } from "./blade.ts";

for (const theme of ["light", "dark"] as const) {
  test(`no violation on rack, shape, grind, findings and dialogs, ${theme}`, async ({ page }) => {
    await page.addInitScript((value) => {
      localStorage.setItem(
        "true-spine-settings",
        JSON.stringify({ state: { unit: "mm", theme: value }, version: 0 }),
      );
    }, theme);
    test.setTimeout(300_000);
    const id = await makeBlade(page.request, `Seen ${theme}`, (file) => {
      file.edge.behind = [{ u: 0, t: 0.9 }];
      file.bevels.left = { ...structuredClone(file.bevels.right), plunge: { x: 13, lean: 10, radius: 4 } };
    });
    const look = async (what: string) => {
      const { violations } = await new AxeBuilder({ page }).analyze();
      const told = violations.map(
        (v) => `${what}: ${v.id} ${v.nodes.map((node) => node.target.join(" ")).join("; ")}`,
      );
      expect(told).toEqual([]);
    };
    await page.goto("/");
    await expect(page.getByRole("listitem").first()).toBeVisible();
    await look("rack");
    await page.getByRole("link", { name: "New blade" }).click();
    await expect(page.getByRole("button", { name: "Start with this blade" })).toBeEnabled();
    await look("new blade");
    await openBlade(page, id);
    await look("grind");
    await page.keyboard.press("f");
    await look("findings");
    await page.getByLabel("Lean to the tip").first().fill("nonsense");
    await look("a refused box");
    await page.keyboard.press("Escape");
    await openBlade(page, id, "shape");
    await look("shape");
    await page.getByRole("button", { name: "limits …" }).click();
    await page.getByRole("button", { name: "Change thickness behind the edge" }).click();
    await look("limits");
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: /^Take it out/ }).click();
    await look("take it out");
    await page.keyboard.press("Escape");
    await page.keyboard.press("?");
    await look("keys");
  });
}
