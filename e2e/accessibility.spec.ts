import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { makeBlade, openBlade } from "./blade.ts";

/** A grey picture of four pixels, and an outline as a drawing program may give it. */
const DOT =
  "iVBORw0KGgoAAAANSUhEUgAAAAIAAAACCAAAAABX3VL4AAAADklEQVR4nGNoaGBoaAAABgYCASzBUNcAAAAASUVORK5CYII=";
const SLAB = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="40mm" viewBox="0 0 200 40">
  <path d="M5 5H150C175 5 190 15 195 20C180 32 160 34 140 34H90L88 28H5Z"/></svg>`;

test("no violation on any page, their findings and their dialogs, in a light shop or a dark one", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "Seen", (file) => {
    file.edge.behind = [{ u: 0, t: 0.9 }];
    file.bevels.left = { ...structuredClone(file.bevels.right), plunge: { x: 13, lean: 10, radius: 4 } };
  });
  const violationsOf = async (what: string, builder: AxeBuilder) => {
    const { violations } = await builder.analyze();
    return violations.map(
      (v) => `${what}: ${v.id} ${v.nodes.map((node) => node.target.join(" ")).join("; ")}`,
    );
  };
  const look = async (what: string, isInTheDarkToo = true) => {
    // Behind a dialog nothing has changed since it was looked at.
    const part = (await page.getByRole("dialog").count()) > 0 ? "[role=dialog]" : "html";
    // No page has frames, and only what is wrong is told of: four times as quick.
    const seen = () =>
      new AxeBuilder({ page })
        .setLegacyMode(true)
        .options({ resultTypes: ["violations"] })
        .include(part);
    expect(await violationsOf(what, seen())).toEqual([]);
    if (!isInTheDarkToo) return;
    // The dark shop differs by its colours alone, and these are the same everywhere.
    await page.evaluate(() => (document.documentElement.dataset.theme = "dark"));
    const colours = seen().withRules(["color-contrast"]);
    expect(await violationsOf(`${what}, dark`, colours)).toEqual([]);
    await page.evaluate(() => (document.documentElement.dataset.theme = "light"));
  };
  await page.goto("/");
  await expect(page.getByRole("listitem").first()).toBeVisible();
  await look("rack");
  await page.getByRole("link", { name: "Shop", exact: true }).click();
  await page.getByRole("button", { name: "Make a code" }).click();
  await expect(page.getByRole("status", { name: "Code" })).toBeVisible();
  await look("shop");
  await page.getByRole("link", { name: "Rack", exact: true }).click();
  await page.getByRole("link", { name: "New blade" }).click();
  await expect(page.getByRole("button", { name: "Start with this blade" })).toBeEnabled();
  await look("new blade", false);
  await openBlade(page, id);
  await look("grind");
  await page.keyboard.press("f");
  await look("findings");
  await page.getByLabel("Lean to the tip").first().fill("nonsense");
  await look("a refused box", false);
  await page.keyboard.press("Escape");
  await openBlade(page, id, "shape");
  await look("shape");
  const buffer = Buffer.from(DOT, "base64");
  const photo = page.getByLabel("Photo to lay under the outline");
  await photo.setInputFiles({ name: "dot.png", mimeType: "image/png", buffer });
  await expect(page.getByLabel("Between the marks")).toBeVisible();
  await page.getByLabel("On the tang").selectOption("full");
  await look("shape with a photo and a handle", false);
  await page.getByRole("button", { name: "Revisions" }).click();
  await expect(page.getByRole("dialog").getByRole("button").first()).toBeVisible();
  await look("revisions", false);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "limits …" }).click();
  await page.getByRole("button", { name: "Change thickness behind the edge" }).click();
  await look("limits");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: /^Export:/ }).click();
  await look("export", false);
  await page.keyboard.press("Escape");
  await page.keyboard.press("?");
  await look("keys", false);
  await page.keyboard.press("Escape");
  await page.keyboard.press("3");
  await page.getByRole("button", { name: /^most of it soft/i }).click();
  await expect(page.getByRole("table", { name: "Stages" })).toContainText("Rough bevels");
  await page.getByRole("button", { name: "Rough bevels", exact: true }).click();
  await expect(page.getByRole("region", { name: "Layout sheet" })).toBeVisible();
  await look("route");
  await page.keyboard.press("5");
  await expect(page.getByRole("table", { name: "Readings" })).toBeVisible();
  await page.getByLabel(/^What it reads/).fill("9");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^Accept as it is/ }).first()).toBeVisible();
  await look("check");
  await page.keyboard.press("Alt+4");
  await expect(page.getByRole("table", { name: "Heats" })).toBeVisible();
  await look("heat");
  await page.goto(`/blades/${id}/straight`);
  await expect(page.getByRole("img", { name: /^As it is held/ })).toBeVisible();
  await look("straight");
  await page.goto(`/card/${id}?straight=flats`);
  await expect(page.getByRole("button", { name: "Struck" })).toBeVisible();
  await look("straight on the card", false);
  await page.goto(`/blades/${id}/edge`);
  await expect(page.getByRole("table", { name: "Sharpening, step by step" })).toContainText("Finish bevel");
  await look("edge");
  await page.goto(`/card/${id}?edge=first`);
  await expect(page.getByRole("button", { name: "Next" })).toBeVisible();
  await look("edge on the card", false);
  await page.goto(`/blades/${id}/log`);
  await expect(page.getByRole("list", { name: "Log" }).getByRole("listitem").first()).toBeVisible();
  await look("log", false);
  await page.goto("/runs");
  await page.getByRole("link", { name: /^Fen hooks/ }).click();
  await expect(
    page
      .getByRole("img", { name: /^Individuals chart/ })
      .locator("svg")
      .first(),
  ).toBeVisible();
  await look("a run");
  await page.goto("/stores");
  await expect(page.getByRole("table").first()).toBeVisible();
  await look("stores");
  await page.goto("/knives");
  await expect(page.getByRole("table", { name: "Knives, measured and drawn" })).toBeVisible();
  await look("knives");
  await page.goto("/trials");
  await expect(page.getByRole("button", { name: "Write it down" })).toBeVisible();
  await look("trials");
  await page.goto("/sums/edge");
  await page.getByLabel("Behind the edge", { exact: true }).fill("0.5");
  await page.getByLabel("Edge bevel, high", { exact: true }).fill("0.7");
  await expect(page.getByRole("img", { name: /^Drawing/ })).toBeVisible();
  await look("sums");
  await page.goto(`/card/${id}`);
  await expect(page.getByText("1 of 15")).toBeVisible();
  await look("card");
  await page.getByRole("button", { name: "Enter a reading" }).click();
  await look("a reading on the card", false);
  await page.goto("/");
  const drawing = { name: "slab.svg", mimeType: "image/svg+xml", buffer: Buffer.from(SLAB) };
  await page.getByLabel("Blade file, bundle or drawing").setInputFiles(drawing);
  await expect(page.getByRole("dialog")).toBeVisible();
  await look("a drawing laid out");
});
