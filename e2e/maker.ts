import { expect, type Page } from "@playwright/test";
import { leave, tabTo } from "./keys.ts";

/** What a maker does on any page, by keys alone. */
export async function type(page: Page, name: string | RegExp, text: string): Promise<void> {
  await tabTo(page, name);
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type(text);
  await leave(page);
}

export async function press(page: Page, name: string | RegExp, key = "Enter"): Promise<void> {
  await tabTo(page, name);
  await page.keyboard.press(key);
}

/** Picks what a list has under a name, by its arrows. */
export async function choose(page: Page, label: string | RegExp, name: string): Promise<void> {
  await tabTo(page, label);
  await page.keyboard.press("Home");
  for (let i = 0; i < 30; i++) {
    const now = await page.evaluate(() => {
      const list = document.activeElement as HTMLSelectElement;
      return list.selectedOptions[0]?.textContent ?? "";
    });
    if (now === name) return;
    await page.keyboard.press("ArrowDown");
  }
  throw new Error(`${name} is not in ${label}`);
}

/** Goes to a page by its digit, whatever has the focus. */
export async function goTo(page: Page, digit: number): Promise<void> {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press(`Alt+${digit}`);
  // A page that is fetched first is not there at once, and keys would go to the one before it.
  const pages = page.getByRole("navigation", { name: "Pages of this blade" }).getByRole("link");
  await expect(pages.nth(digit - 1)).toHaveAttribute("aria-current", "page");
}

/** A new blade from the rack, for a purpose, on a bar so thick, mm, where these are said; flat where it has no taper. */
export async function startBlade(
  page: Page,
  name: string,
  { purpose, bar, isFlat = false }: { purpose?: RegExp; bar?: string; isFlat?: boolean } = {},
): Promise<void> {
  await page.goto("/");
  await press(page, "New blade");
  await expect(page.getByRole("heading", { name: "Start a blade" })).toBeVisible();
  if (purpose) {
    await tabTo(page, "field knife");
    for (let i = 0; i < 12; i++) {
      if (await page.getByRole("radio", { name: purpose }).isChecked()) break;
      await page.keyboard.press("ArrowRight");
    }
  }
  if (bar) await type(page, "Bar, thick", bar);
  if (isFlat) await press(page, /^no taper/, "Space");
  await type(page, "Name", name);
  await press(page, "Start with this blade");
  await expect(page.getByRole("heading", { name })).toBeVisible();
}
