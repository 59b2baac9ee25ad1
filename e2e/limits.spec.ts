import { expect, test } from "@playwright/test";
import { makeBlade, openBlade, saved } from "./blade.ts";

test("a limit changed for one blade, with its reason: judged by at once, kept, undone", async ({ page }) => {
  const id = await makeBlade(page.request, "Held elsewhere");
  await openBlade(page, id, "shape");
  const tray = page.getByRole("region", { name: "Findings" });
  await page.keyboard.press("f");
  await expect(tray).not.toContainText("Thickness behind the edge is up to");
  await page.keyboard.press("f");

  await page.getByRole("button", { name: "limits …" }).click();
  const dialog = page.getByRole("dialog", { name: "Limits of this blade" });
  await dialog.getByRole("button", { name: "Change thickness behind the edge" }).click();
  const most = dialog.getByLabel("no more than");
  await most.fill("thin");
  await expect(dialog.getByRole("button", { name: "Change the limit" })).toBeDisabled();
  await expect(dialog.getByRole("status")).toContainText("Correct first: no more than.");
  await dialog.getByLabel("no less than").fill("0.1");
  await dialog.getByLabel("no more than").fill("0.3");
  await dialog.getByRole("button", { name: "Change the limit" }).click();
  await expect(dialog.getByRole("alert")).toContainText("Say why");
  await dialog.getByLabel("Reason").fill("only ever slices tomatoes");
  await dialog.getByRole("button", { name: "Change the limit" }).click();
  await expect(dialog).toContainText("0.10 mm to 0.30 mm, instead of 0.35 mm to 0.65 mm");
  await dialog.getByRole("button", { name: "Close" }).click();
  await saved(page);

  await page.keyboard.press("f");
  await expect(tray).toContainText("Thickness behind the edge is up to");
  await expect(tray).toContainText("this blade's own limit: only ever slices tomatoes");
  await openBlade(page, id, "shape");
  await page.keyboard.press("f");
  await expect(tray).toContainText("only ever slices tomatoes");
  const row = (await (await page.request.get("/api/blades?search=Held elsewhere")).json())[0];
  expect(row.summary.worst).toContain("wants 0.10 mm to 0.30 mm");

  await page.keyboard.press("f");
  await page.getByRole("button", { name: "limits …" }).click();
  await dialog.getByRole("button", { name: /back to the purpose$/ }).click();
  await dialog.getByRole("button", { name: "Close" }).click();
  await page.keyboard.press("f");
  await expect(tray).not.toContainText("only ever slices tomatoes");
  await page.keyboard.press("Control+z");
  await expect(tray).toContainText("only ever slices tomatoes");
});
