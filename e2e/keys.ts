import type { Page } from "@playwright/test";

/** What has the focus: its name as a screen reader says it, as far as labels and text tell. */
export const focused = (page: Page) =>
  page.evaluate(() => {
    const on = document.activeElement as HTMLElement | null;
    if (!on || on === document.body) return "";
    const labels = (on as HTMLInputElement).labels;
    const label = labels && labels.length > 0 ? labels[0]!.innerText : "";
    const group = on.closest("[role=radiogroup]")?.getAttribute("aria-label") ?? "";
    return [group, on.getAttribute("aria-label") ?? (label || on.innerText)]
      .filter(Boolean)
      .join(": ")
      .replace(/\s+/g, " ")
      .trim();
  });

/** Tab, and nothing else, until something of that name has the focus. */
export async function tabTo(page: Page, name: string | RegExp): Promise<void> {
  const seen: string[] = [];
  for (let i = 0; i < 250; i++) {
    const now = await focused(page);
    if (typeof name === "string" ? now === name : name.test(now)) return;
    seen.push(now);
    await page.keyboard.press("Tab");
  }
  throw new Error(`Tab never came to ${name}; it came to ${[...new Set(seen)].join(" | ")}`);
}
