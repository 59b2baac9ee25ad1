import { expansionAt } from "@true-spine/core/forge/heat.ts";
import { NO_FORGE } from "@true-spine/core/forge/schema.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import { forgingOf } from "@true-spine/core/route/forging.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import { withStage } from "@true-spine/core/route/stages.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { describe, expect, test } from "vitest";
import { writeFormTemplate } from "../src/write-form-template.ts";
import { FIELD, FONT } from "./blades.ts";
import { readPdf } from "./read-pdf.ts";

const first = firstRoute(FIELD);
const route: Route = {
  ...first,
  stock: 6.35,
  bar: { surface: "rolled", width: 38 },
  stages: withStage(first.stages, "forge"),
};
const forging = forgingOf(FIELD, route, NO_FORGE, USUAL_SHOP)!;
const options = { paper: "A4" as const, unit: "mm" as const, fonts: [FONT], date: new Date("2026-11-20") };

/** The longest path of a page: the outline, mm. */
async function outlineOf(step: string, isHot: boolean) {
  const pages = await readPdf(await writeFormTemplate(FIELD, forging, NO_FORGE, step, { ...options, isHot }));
  const [page] = pages;
  const closed = page!.paths.filter((path) => path.length > 50);
  const longest = closed.reduce((a, b) => (b.length > a.length ? b : a));
  const xs = longest.map(([x]) => x);
  const ys = longest.map(([, y]) => y);
  return {
    page: page!,
    long: Math.max(...xs) - Math.min(...xs),
    tall: Math.max(...ys) - Math.min(...ys),
  };
}

describe("a paper template of a form, read back by another reader", () => {
  test.each(forging.forms.forms.map((form, i) => [form.step, i] as const))(
    "%s measures what the form does, within a tenth",
    async (step, i) => {
      const { long, tall, page } = await outlineOf(step, false);
      const { box } = forging.outlines[i]!;
      expect(long).toBeCloseTo(box.right - box.left, 1);
      expect(tall).toBeCloseTo(box.top - box.bottom, 1);
      expect(page.text).toContain("cold");
      expect(page.text).toContain("This bar is 100 mm");
      const bar = page.paths.find(
        (path) => path.length === 2 && Math.abs(path[1]![0] - path[0]![0] - 100) < 0.1,
      );
      expect(bar).toBeDefined();
    },
  );

  test("the bar is as wide as it is and as long as its steel: 38 by its volume over 241.3", async () => {
    const { long, tall } = await outlineOf("bar", false);
    expect(tall).toBeCloseTo(38, 1);
    expect(long).toBeCloseTo(forging.map.volume / (38 * 6.35), 0);
  });

  test("each form is as wide as it says, square to a middle that turns with it", () => {
    for (const [i, { step, at }] of forging.forms.forms.entries()) {
      const { outline, middle } = forging.outlines[i]!;
      expect(outline).toHaveLength(2 * at.length);
      for (const [k, { width, turned }] of at.entries()) {
        const [up, down, mid] = [outline[k]!, outline.at(-1 - k)!, middle[k]!];
        expect(Math.hypot(up[0] - down[0], up[1] - down[1]), `${step} at ${k}`).toBeCloseTo(width, 6);
        expect((up[0] + down[0]) / 2).toBeCloseTo(mid[0], 6);
        expect((up[1] + down[1]) / 2).toBeCloseTo(mid[1], 6);
        const lean = (Math.atan2(down[0] - up[0], up[1] - down[1]) * 180) / Math.PI;
        expect(lean).toBeCloseTo(turned, 6);
      }
    }
    expect(forging.forms.forms.some(({ at }) => at.some(({ turned }) => Math.abs(turned) > 0.5))).toBe(true);
  });

  test("hot it is longer by what steel grows to where work stops", async () => {
    const [cold, hot] = [await outlineOf("bevel", false), await outlineOf("bevel", true)];
    expect(hot.long / cold.long).toBeCloseTo(1 + expansionAt(NO_FORGE.heat.stop), 4);
    expect(hot.page.text).toContain("800 °C");
  });

  test("both sides stand on paper, and a form that is none is refused in words", async () => {
    const { page } = await outlineOf("taper", false);
    expect(page.text).toContain("right side");
    expect(page.text).toContain("left side");
    await expect(
      writeFormTemplate(FIELD, null, NO_FORGE, "taper", { ...options, isHot: false }),
    ).rejects.toThrow(/which bar/);
  });
});
