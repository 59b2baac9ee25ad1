import { firstRoute } from "@true-spine/core/route/first.ts";
import { reportOf } from "@true-spine/core/route/report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import papaparse from "papaparse";
import { describe, expect, test } from "vitest";
import { writeCalendar, writeRouteCsv } from "../src/write-route.ts";
import { writeRouteSheet } from "../src/write-route-sheet.ts";
import { FIELD, FONT } from "./blades.ts";
import { readPdf } from "./read-pdf.ts";

const route: Route = { ...firstRoute(FIELD), gap: 0.48 };
route.stages[6] = {
  id: "harden",
  kind: "harden",
  planned: "2026-12-04",
  note: "oil, fast; two tempers, and a very long note about it all",
};
route.stages[11] = { id: "handle", kind: "handle", planned: "2026-12-06" };
route.stages[5] = { id: "rough", kind: "rough", setup: "arm" };
const report = reportOf(FIELD, route, USUAL_SHOP, 50);
const options = {
  name: "Fen hook",
  unit: "mm",
  fonts: [FONT],
  date: new Date("2026-11-26T08:00:00Z"),
} as const;

describe("the route on paper, read back by another reader", () => {
  test.each(["A4", "Letter"] as const)(
    "%s: every stage with its figures, layout, set-up cards, nothing off the sheet",
    async (paper) => {
      const sheets = await readPdf(await writeRouteSheet(route, report, USUAL_SHOP, { ...options, paper }));
      const text = sheets
        .map((sheet) => sheet.text)
        .join(" ")
        .replace(/\s+/g, " ");
      for (const name of ["Stock", "Rough bevels", "Harden and temper", "Sharpen"])
        expect(text).toContain(name);
      const rough = report.stages[5]!;
      expect(text).toContain(rough.targets.map(({ edge }) => edge.toFixed(2)).join(" / "));
      expect(text).toContain(`Height gauge at ${report.layout!.setting.toFixed(2)} mm`);
      expect(text).toContain("Set-up card: Rough bevels, tool arm");
      expect(text).toContain("No single angle exists");
      expect(text).toContain("never water");
      expect(text.replace("annealed?", "")).not.toContain("?");
      expect(sheets.length).toBeGreaterThan(1);
    },
  );

  test("as CSV: a line for each stage and place, the figures of the report", () => {
    const { data, errors } = papaparse.parse<Record<string, string>>(writeRouteCsv(route, report).trim(), {
      header: true,
    });
    expect(errors).toEqual([]);
    expect(data).toHaveLength(3 * report.stages.length);
    const row = data.find((one) => one.stage === "Rough bevels" && one.place === "middle")!;
    expect(Number(row["edge (mm)"])).toBeCloseTo(report.stages[5]!.targets[1]!.edge, 3);
    expect(row.belts).toContain("ceramic P36 > ");
  });

  test("as a calendar: whole days for the stages that have one, lines folded and signs escaped as RFC 5545 asks", () => {
    const text = writeCalendar("Fen hook, the second", "0b8f", route, options.date);
    const lines = text.split("\r\n");
    expect(lines.at(-1)).toBe("");
    for (const line of lines) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
    const unfolded = text.replaceAll("\r\n ", "").split("\r\n");
    expect(unfolded.filter((line) => line === "BEGIN:VEVENT")).toHaveLength(2);
    expect(unfolded).toContain("DTSTART;VALUE=DATE:20261204");
    expect(unfolded).toContain("SUMMARY:Fen hook\\, the second: Harden and temper");
    expect(unfolded.find((line) => line.startsWith("DESCRIPTION") && line.includes("oil"))).toContain(
      "oil\\, fast\\; two tempers",
    );
    expect(unfolded).toContain("DTSTAMP:20261126T080000Z");
    // What a heat takes with warming and cooling, rounded up to five minutes.
    const timed = writeCalendar("Fen hook", "0b8f", route, options.date, new Map([["harden", 131.2]]));
    expect(timed.replaceAll("\r\n ", "")).toContain("About 2 h 15 min\\, warming and cooling with it.");
  });
});
