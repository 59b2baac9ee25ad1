import { expect, test } from "@playwright/test";
import { makeBlade, openBlade, saved } from "./blade.ts";

for (const where of ["grind", "shape"] as const) {
  test(`every box on ${where} refuses nonsense in words, keeps what was typed, and leaves the blade alone`, async ({
    page,
  }) => {
    const id = await makeBlade(page.request, `Nonsense on ${where}`);
    await openBlade(page, id, where);
    const before = await (await page.request.get(`/api/blades/${id}`)).json();
    const boxes = page.getByRole("complementary").locator("input[inputmode=text]");
    const count = await boxes.count();
    expect(count).toBeGreaterThan(8);
    for (let i = 0; i < count; i++) {
      const box = boxes.nth(i);
      const was = await box.inputValue();
      for (const nonsense of ["three bananas", "1e999", ""]) {
        await box.fill(nonsense);
        await expect(box).toHaveAttribute("aria-invalid", "true");
        await expect(box).toHaveAccessibleDescription(/\w+ .*\./);
        await expect(box).toHaveValue(nonsense);
      }
      await box.press("Escape");
      await expect(box).toHaveValue(was);
      await expect(box).toHaveAttribute("aria-invalid", "false");
    }
    const after = await (await page.request.get(`/api/blades/${id}`)).json();
    expect(after.file).toEqual(before.file);
  });
}

test("a value that makes no blade is refused beside its box with the reason", async ({ page }) => {
  const id = await makeBlade(page.request, "Impossible");
  await openBlade(page, id);
  const behind = page.getByLabel("Behind the edge, row 2, thick behind it");
  await behind.fill("1.7");
  await expect(behind).toHaveAccessibleDescription(/shoulder stands/);
  await behind.blur();
  await expect(behind).toHaveValue("1.7");
  await behind.fill("3/128 in");
  await expect(behind).toHaveAttribute("aria-invalid", "false");
  await behind.press("Enter");
  await expect(behind).toHaveValue("0.5953");
  await saved(page);
  const { file } = await (await page.request.get(`/api/blades/${id}`)).json();
  expect(file.edge.behind[1].t).toBeCloseTo(0.5953, 3);
});

test("a faulty file is refused with every fault and its path; a sound one opens", async ({ page }) => {
  await page.goto("/");
  const put = (name: string, text: string) =>
    page
      .getByLabel("Blade file")
      .setInputFiles({ name, mimeType: "application/json", buffer: Buffer.from(text) });
  const { fieldKnife } = await import("./blade.ts");
  const bad = fieldKnife("Bad file");
  bad.colour = "<img src=x onerror=alert(1)>";
  bad.thickness[0].t = 99;
  await put("bad.json", JSON.stringify(bad));
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("$.colour is not a key that belongs here");
  await expect(dialog).toContainText("$.thickness[0].t must be 25 or less");
  await dialog.getByRole("button", { name: "Close" }).click();
  await put("cut.json", JSON.stringify(fieldKnife("Cut")).slice(0, 300));
  await expect(dialog).toContainText("not JSON");
  await dialog.getByRole("button", { name: "Close" }).click();
  const hostile = fieldKnife("<b>Bold</b> & co");
  await put("sound.json", JSON.stringify(hostile));
  await expect(page.getByRole("heading", { name: "<b>Bold</b> & co" })).toBeVisible();
});
