import type { Page } from "@playwright/test";

/** Presses until something is given up. */
const MOST = 250;

interface Stops {
  /** What has the focus: its name as a screen reader says it, as far as labels and text tell. */
  readonly now: string;
  /** So many presses of Tab on, as it looks; null where that one is not to be told from others, or nothing has the focus. */
  readonly on: number | null;
  /** And so many back to the same. */
  readonly back: number;
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
    const isSure = here >= 0 && there.length === 1;
    const on = isSure ? (there[0]! - here + stops.length) % stops.length : null;
    // Where none is chosen, Tab comes to the first of radio buttons from before, and to the last from behind.
    const isOneWay = isSure && isRadio(stops[there[0]!]!);
    return { now, on, back: on === null || isOneWay ? Number.POSITIVE_INFINITY : stops.length - on };
  }, name);

/** Tab, or Shift and Tab where that is less far, and nothing else, until something of that name has the focus. */
export async function tabTo(page: Page, name: string | RegExp): Promise<void> {
  const seen: string[] = [];
  let isBack = false;
  for (let pressed = 0; pressed < MOST; ) {
    const { now, on, back } = await stopsTo(page, name);
    if (typeof name === "string" ? now === name : name.test(now)) return;
    seen.push(now);
    if (on !== null) isBack = back < on;
    const far = on === null ? 1 : Math.min(on, back);
    for (let i = 0; i < far; i++) await page.keyboard.press(isBack ? "Shift+Tab" : "Tab");
    pressed += far;
  }
  throw new Error(`Tab never came to ${name}; it came to ${[...new Set(seen)].join(" | ")}`);
}

/** What has the focus, as {@link Stops} says it. */
export const focused = async (page: Page): Promise<string> => (await stopsTo(page, "")).now;
