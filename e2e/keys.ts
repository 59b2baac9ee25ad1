import type { Page } from "@playwright/test";

/** Presses until something is given up. */
const MOST = 250;

interface Stops {
  /** What has the focus: its name as a screen reader says it, as far as labels and text tell. */
  readonly now: string;
  /**
   * Presses of Tab to the nearest stop of the name, negative for Shift and Tab. Null where the page has no such stop yet or nothing has
   * the focus.
   */
  readonly steps: number | null;
  /** Whether the focus is on the last stop: Tab would leave the page, and what it meets there differs between browsers. */
  readonly isLast: boolean;
}

/** Where the focus is, and how far it is to the stop of a name. */
const stopsTo = (page: Page, name: string | RegExp): Promise<Stops> =>
  page.evaluate((name) => {
    const nameOf = (on: HTMLElement) => {
      const labels = (on as HTMLInputElement).labels;
      const label = labels && labels.length > 0 ? labels[0]!.innerText : "";
      const group = on.closest("[role=radiogroup]")?.getAttribute("aria-label") ?? "";
      return [group, on.getAttribute("aria-label") ?? (label || on.innerText)]
        .filter(Boolean)
        .join(": ")
        .replace(/\s+/g, " ")
        .trim();
    };
    const at = document.activeElement as HTMLElement | null;
    const now = at === null || at === document.body ? "" : nameOf(at);
    const isRadio = (one: HTMLElement) =>
      one instanceof HTMLInputElement ? one.type === "radio" : one.role === "radio";
    const isStop = (one: HTMLElement) =>
      one.tabIndex >= 0 &&
      !one.matches(":disabled") &&
      one.checkVisibility({ visibilityProperty: true }) &&
      !one.closest("[inert]") &&
      // Of radio buttons Tab comes to the one that is chosen.
      (one === at || !(one instanceof HTMLInputElement) || one.type !== "radio" || one.checked);
    const all = document.querySelectorAll<HTMLElement>(
      "a[href],button,input,select,textarea,summary,[tabindex]",
    );
    const stops = [...all].filter(isStop);
    const here = at ? stops.indexOf(at) : -1;
    const isThere = (one: HTMLElement) => {
      const its = nameOf(one);
      return typeof name === "string" ? its === name : name.test(its);
    };
    const there = stops.flatMap((one, i) => (isThere(one) ? [i] : []));
    const steps = there.map((i) => i - here).sort((a, b) => Math.abs(a) - Math.abs(b));
    const nearest = here >= 0 && steps.length > 0 ? steps[0]! : null;
    // Of radio buttons without a choice Shift and Tab comes to the last, Tab to the first: they are approached from before.
    const isPassed = nearest !== null && nearest < 0 && isRadio(stops[here + nearest]!);
    return { now, steps: isPassed ? nearest - 1 : nearest, isLast: here === stops.length - 1 };
  }, name);

/**
 * Tab, or Shift and Tab where the control is behind, and nothing else, until something of that name has the focus. It never goes past
 * the page's end: there a browser with a window goes on into its own bar.
 */
export async function tabTo(page: Page, name: string | RegExp): Promise<void> {
  const seen: string[] = [];
  for (let pressed = 0; pressed < MOST; ) {
    const { now, steps, isLast } = await stopsTo(page, name);
    if (typeof name === "string" ? now === name : name.test(now)) return;
    seen.push(now);
    const go = steps ?? (isLast ? -1 : 1);
    for (let i = 0; i < Math.abs(go); i++) await page.keyboard.press(go < 0 ? "Shift+Tab" : "Tab");
    pressed += Math.abs(go);
  }
  throw new Error(`Tab never came to ${name}; it came to ${[...new Set(seen)].join(" | ")}`);
}

/** Leaves a box for the next stop, or for the one before where it is the last of the page. */
export async function leave(page: Page): Promise<void> {
  await page.keyboard.press((await stopsTo(page, "")).isLast ? "Shift+Tab" : "Tab");
}

/** What has the focus, as {@link Stops} says it. */
export const focused = async (page: Page): Promise<string> => (await stopsTo(page, "")).now;
