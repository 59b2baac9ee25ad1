import { NO_CHECK, type Reading } from "@true-spine/core/inspect/schema.ts";
import { runReport } from "@true-spine/core/record/run-report.ts";
import { specOf } from "@true-spine/core/record/spec.ts";
import type { RunReadings } from "@true-spine/core/registry/contract.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import papaparse from "papaparse";
import { describe, expect, test } from "vitest";
import { writeRun } from "../src/write-run.ts";
import { writeSpecSheet } from "../src/write-spec-sheet.ts";
import { FIELD, FONT } from "./blades.ts";
import { readPdf } from "./read-pdf.ts";

/** As it is asked for in the shop. */
const A4 = { paper: "A4", unit: "mm", fonts: [FONT], date: new Date("2026-11-20") } as const;

describe("the spec sheet", () => {
  const route = firstRoute(FIELD);
  const readings: Reading[] = [0.2, 0.5, 0.8].map((u, i) => ({
    id: `00000000-0000-4000-8000-00000000000${i}`,
    when: "2026-11-20T10:00:00Z",
    stage: "sharpen",
    what: "behind",
    u,
    value: 0.6 + i / 50,
    by: "hand",
  }));
  const check = {
    ...NO_CHECK,
    hardness: 60,
    accepted: [
      {
        when: "2026-11-20T10:00:00Z",
        stage: "hand" as const,
        finding: "bow",
        words: "Bowed 0.2 mm.",
        reason: "Held by the handle.",
      },
    ],
  };
  const spec = specOf(FIELD, { route, shop: USUAL_SHOP, check, handle: null, readings });

  test("has what was wanted and what was read, with what it is worth", () => {
    // What the jaws touch more is another figure at each place, so the range is not the shown one.
    expect(spec.behind.read![1] - spec.behind.read![0]).toBeGreaterThan(0.03);
    expect(spec.behind.read![1]).toBeLessThan(0.64);
    expect(spec.behind.within).toBeGreaterThan(0.05);
    expect(spec.hardness).toEqual({ wanted: 60, read: null });
    expect(spec.balance.withHandle).toBe(false);
    // Nobody has ticked its hardening yet.
    expect(spec.heat.done).toEqual([]);
    const stages = route.stages.map((one) =>
      one.kind === "harden" ? { ...one, done: "2026-11-20T10:00:00Z" } : one,
    );
    const hardened = specOf(FIELD, {
      route: { ...route, stages },
      shop: USUAL_SHOP,
      check,
      handle: null,
      readings,
    });
    expect(hardened.heat.done).toHaveLength(1);
    expect(hardened.heat.done[0]).toMatch(/^hardened \d+ °C 10 min, into oil$/);
    expect(spec.edgeAngle).toEqual(FIELD.edge.angle);
    expect(spec.deviations).toEqual([
      { words: "Bowed 0.2 mm.", reason: "Held by the handle.", stage: "hand", after: "Hand finish" },
    ]);
  });

  test("an edge read even where it should thin to the tip is off plan, and says by how much where", () => {
    const thinning = {
      ...FIELD,
      edge: {
        ...FIELD.edge,
        behind: [
          { u: 0, t: 0.58 },
          { u: 1, t: 0.34 },
        ],
      },
    };
    const even = readings.map((one) => (one.what === "behind" ? { ...one, value: 0.5 } : one));
    const { behind } = specOf(thinning, { route, shop: USUAL_SHOP, check, handle: null, readings: even });
    expect(behind.read![1] - behind.read![0]).toBeLessThan(0.1);
    expect(behind.off![1] - behind.off![0]).toBeGreaterThan(0.08);
  });

  test("bevel angles are told for both sides, as planned along the whole blade", () => {
    const { wanted } = spec.bevelAngle;
    for (const side of ["left", "right"] as const) {
      expect(wanted[side]![0]).toBeGreaterThan(1);
      expect(wanted[side]![1]).toBeLessThan(15);
    }
  });

  test("however much the maker accepted, care and cautions are still there, on another page if need be", async () => {
    const many = Array.from({ length: 30 }, (_, i) => ({ ...spec.deviations[0]!, words: `Accepted ${i}.` }));
    const pages = await readPdf(await writeSpecSheet(FIELD, { ...spec, deviations: many }, A4));
    expect(pages.length).toBeGreaterThan(1);
    const text = pages.map((page) => JSON.stringify(page)).join(" ");
    expect(text).toContain("Accepted 29.");
    expect(text).toContain("Sharp: keep it sheathed");
  });

  test("is one page that another reader reads: figures, what was let stand, care, cautions", async () => {
    const pages = await readPdf(await writeSpecSheet(FIELD, spec, A4));
    expect(pages).toHaveLength(1);
    const [{ width, height, text }] = pages as [(typeof pages)[0]];
    expect(width).toBeCloseTo(210, 0);
    expect(height).toBeCloseTo(297, 0);
    const [least, most] = spec.behind.read!.map((mm) => mm.toFixed(2));
    expect(text).toContain(`${least} to ${most} ±`);
    expect(text).toContain("Held by the handle.");
    expect(text).toMatch(/Wash by hand/);
    expect(text).toMatch(/matters of local law/);
    expect(text).toContain("60.0");
  });

  test("unlike sides have a row each, and nothing runs off the paper", async () => {
    const figure = { value: 12.3, within: 0.2, count: 3 };
    const read = { left: { ...figure, value: 12.4 }, right: figure };
    const wanted = { left: [10.1, 14.9], right: [9.8, 13.3] } as const;
    const [page] = await readPdf(await writeSpecSheet(FIELD, { ...spec, bevelAngle: { wanted, read } }, A4));
    expect(page!.text).toMatch(/left side +10\.1° to 14\.9° +12\.4° ± 0\.2°/);
    expect(page!.text).toMatch(/right side +9\.8° to 13\.3° +12\.3° ± 0\.2°/);
    expect(page!.right).toBeLessThan(210 - 10);
  });

  test("in inches it is in inches", async () => {
    const bytes = await writeSpecSheet(FIELD, spec, { ...A4, paper: "Letter", unit: "inch" });
    expect((await readPdf(bytes))[0]!.text).toMatch(/Lengths in inch/);
  });
});

describe("a run's batch sheet", () => {
  test("has a line for each blade in order, then what is wanted and what the work does", () => {
    const spot = { what: "behind" as const, u: 0.5 };
    const blades = Array.from({ length: 26 }, (_, i) => ({ id: `b${i}`, name: `No. ${i + 1}` }));
    const run: RunReadings = {
      id: "r",
      revision: 1,
      updatedAt: "",
      file: {
        format: "true-spine/run",
        version: 1,
        name: "Order",
        blades: [],
        places: [{ stage: "sharpen", spot }],
      },
      blades,
      specification: { id: "b0", file: FIELD },
      readings: blades.map(({ id }, i) => ({
        bladeId: id,
        reading: {
          id,
          when: "2026-11-20T10:00:00Z",
          stage: "sharpen",
          ...spot,
          value: 0.6 + (i % 3) / 100,
          by: "hand",
        },
      })),
    };
    const report = runReport(run, null, USUAL_SHOP);
    const [place] = report.places;
    expect(place!.points).toHaveLength(26);
    expect(place!.capability).not.toBeNull();
    expect(place!.first).toBeCloseTo(place!.points[0]!.value, 12);
    expect(report.drifts).toBeNull();
    const { data } = papaparse.parse<Record<string, string>>(writeRun(run, report), {
      header: true,
      skipEmptyLines: true,
    });
    expect(data).toHaveLength(32);
    expect(data.map(({ blade }) => blade).slice(-6)).toEqual([
      "wanted",
      "band ±",
      "mean",
      "upper limit",
      "lower limit",
      "Cpk",
    ]);
    const column = Object.keys(data[0]!)[1]!;
    expect(Number(data[0]![column])).toBeCloseTo(place!.points[0]!.value, 4);
  });
});
