import { expect, type Page, test } from "@playwright/test";
import { makeBlade } from "./blade.ts";
import { press } from "./maker.ts";

/**
 * Presses every button of every page in the built program, findings and their remedies included. Nothing may write an error on the console,
 * and no press may be without an effect on the document, the page, the address or the focus.
 */

/** Waited for an effect of one press at the most, ms: then it has none. */
const EFFECT_MS = 2500;
/** Pressed elsewhere, or what they do is not seen on the page: the browser's own print dialog, and a file that is asked for. */
const ELSEWHERE = /print|file|take in|bring|import|picture|photo|simulated|^Saving|^Clear the boxes/i;
/** Grips on a drawing: a press takes them up, arrow keys move them. */
const GRIP = /Arrow keys move it/;
/** Blades whose findings and pages differ most: in hand with its route, with honest faults, finished. */
const BLADE_PAGES = ["shape", "grind", "route", "heat", "check", "straight", "edge", "log"];
const HOUSE_PAGES = ["/", "/new", "/runs", "/knives", "/trials", "/stores", "/sums", "/shop"];

/** What a person could see of a page: its text, what stands in its boxes, what is pressed, and where the focus is. */
const stateOf = (page: Page) =>
  page.evaluate(() => {
    const boxes = [
      ...document.querySelectorAll<HTMLInputElement | HTMLSelectElement>("input,select,textarea"),
    ];
    const marks = [
      ...document.querySelectorAll("[aria-pressed],[aria-expanded],[aria-busy],[aria-label]"),
    ].map((one) =>
      ["aria-pressed", "aria-expanded", "aria-busy", "aria-label"].map((key) => one.getAttribute(key)),
    );
    const drawn = [...document.querySelectorAll("svg path, svg line, svg g, canvas")].map((one) =>
      ["d", "x1", "transform", "width"].map((key) => one.getAttribute(key)).join(),
    );
    const at = document.activeElement;
    return JSON.stringify([
      location.href,
      document.documentElement.className,
      document.documentElement.dataset,
      document.body.innerText,
      boxes.map((box) => [box.value, (box as HTMLInputElement).checked]),
      marks,
      drawn.join(";").length,
      drawn,
      at && at !== document.body ? [...document.querySelectorAll("*")].indexOf(at) : -1,
    ]);
  });

interface Walked {
  readonly pressed: string[];
  readonly dead: string[];
  readonly errors: string[];
}

/** Presses each button that the page shows once; buttons that a press brings are pressed, too, up to a depth. */
async function walk(page: Page, path: string, opens: readonly string[], walked: Walked): Promise<void> {
  const seen = new Set<string>();
  const settle = () =>
    page
      .waitForFunction(() => !document.querySelector("[aria-busy=true]"), null, { timeout: 5_000 })
      .catch(() => {});
  const open = async () => {
    await page.goto(path);
    await page.getByRole("button").or(page.getByRole("link")).first().waitFor();
    await settle();
    for (const key of opens) await page.keyboard.press(key);
  };
  await open();
  for (let n = 0; n < 60; n++) {
    if (new URL(page.url()).pathname !== path || (await page.getByRole("dialog").count()) > 0) await open();
    const names = await page.getByRole("button", { disabled: false }).evaluateAll((all) =>
      all
        .filter(
          (one) =>
            one.checkVisibility() &&
            !one.closest("[inert]") &&
            !(one as HTMLButtonElement).disabled &&
            // What is chosen already is not chosen again.
            one.getAttribute("aria-pressed") !== "true",
        )
        .map((one) =>
          (one.getAttribute("aria-label") ?? (one as HTMLElement).innerText).replace(/\s+/g, " ").trim(),
        ),
    );
    // One of a row of likes stands for all of them: figures and names of rows differ.
    const kind = (name: string) => name.replace(/[\d.,]+/g, "#").replace(/“[^”]*”/g, "“”");
    const name = names.find(
      (one) => one !== "" && !seen.has(kind(one)) && !ELSEWHERE.test(one) && !GRIP.test(one),
    );
    if (name === undefined) return;
    seen.add(kind(name));
    const button = page.getByRole("button", { name, exact: true }).first();
    if ((await button.count()) === 0) continue;
    const label = `${path}: ${name}`;
    const before = await stateOf(page);
    let isElsewhere = false;
    const elsewhere = () => (isElsewhere = true);
    page.once("download", elsewhere);
    page.once("popup", elsewhere);
    // By the mouse, or by its key where a drawing lies over it.
    await button
      .click({ timeout: 2_000 })
      .catch(() => button.press("Enter", { timeout: 2_000 }).catch(() => {}));
    walked.pressed.push(label);
    if (process.env.WALK_TOLD) console.log(label);
    const until = Date.now() + EFFECT_MS;
    let isSeen = false;
    while (!isSeen && Date.now() < until) {
      // A press moves the focus to its button: that alone does not count.
      isSeen = isElsewhere || withoutFocus(await stateOf(page)) !== withoutFocus(before);
      if (!isSeen) await page.waitForTimeout(60);
    }
    page.off("download", elsewhere);
    page.off("popup", elsewhere);
    if (!isSeen) walked.dead.push(label);
    if ((await page.getByRole("dialog").count()) > 0) await page.keyboard.press("Escape");
  }
}
const withoutFocus = (state: string) => JSON.stringify((JSON.parse(state) as unknown[]).slice(0, -1));

const watched = (page: Page): Walked => {
  const walked: Walked = { pressed: [], dead: [], errors: [] };
  page.on("pageerror", (error) => walked.errors.push(`${page.url()}: ${error.message}`));
  page.on("console", (message) => {
    // The browser writes down a refused save itself; the page then asks which version to keep.
    const isConflict = message.text().includes("status of 409");
    if (message.type() === "error" && !isConflict) walked.errors.push(`${page.url()}: ${message.text()}`);
  });
  page.on("dialog", (dialog) => void dialog.dismiss());
  return walked;
};
const expectAlive = ({ pressed, dead, errors }: Walked, least: number) => {
  expect(errors).toEqual([]);
  expect(dead).toEqual([]);
  expect(pressed.length).toBeGreaterThan(least);
};

test.describe.configure({ mode: "parallel" });

// Blades of the demo that differ most: finished with its route, and with honest faults.
for (const which of [0, 1]) {
  test(`every button of every page of a blade has an effect, and none writes an error: ${which}`, async ({
    page,
  }) => {
    const walked = watched(page);
    const blades = (await (await page.request.get("/api/blades")).json()) as { id: string }[];
    for (const one of [...BLADE_PAGES, "card"]) {
      // A separate copy for each page: one page removes stages that another page needs.
      const id = crypto.randomUUID();
      await page.request.post(`/api/blades/${blades[which]!.id}/copy`, { data: { id } });
      await walk(page, one === "card" ? `/card/${id}` : `/blades/${id}/${one}`, ["f"], walked);
    }
    expectAlive(walked, 90);
  });
}

test("every button of the pages beside the blades has an effect, and none writes an error", async ({
  page,
}) => {
  const walked = watched(page);
  for (const path of HOUSE_PAGES) await walk(page, path, [], walked);
  expectAlive(walked, 25);
});

test("a remedy on Route that thins the blade for its bar does what it says", async ({ page }) => {
  const id = await makeBlade(page.request, "Too thick for its bar");
  const thickest = async () => {
    const { file } = (await (await page.request.get(`/api/blades/${id}`)).json()) as {
      file: { thickness: { t: number }[] };
    };
    return Math.max(...file.thickness.map(({ t }) => t));
  };
  const before = await thickest();
  await page.goto(`/blades/${id}/route`);
  await press(page, /^most of it soft/i);
  // A stage is called Stock, too.
  const stock = page.getByRole("textbox", { name: "Stock", exact: true });
  await stock.fill(String(before));
  await stock.press("Enter");
  await expect(page.getByRole("button", { name: /^Thin the blade to/ })).toBeVisible();
  await press(page, /^Thin the blade to/);
  await expect.poll(thickest).toBeLessThan(before);
  await expect(page.getByRole("button", { name: /^Thin the blade to/ })).toHaveCount(0);
});
