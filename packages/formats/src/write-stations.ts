import { compileField } from "@true-spine/core/blade/field.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { stationAt } from "@true-spine/core/blade/station.ts";
import { stationFigures } from "@true-spine/core/evaluate/evaluation.ts";
import { csvOf } from "./csv.ts";

const PLACES = 20;

/** Stations along the edge as CSV: lengths mm, angles degrees a side, area mm², second moment mm⁴. Empty: none there. */
export function writeStations(blade: Blade): string {
  const field = compileField(blade);
  const rows = Array.from({ length: PLACES - 1 }, (_, i) => {
    const figures = stationFigures(field, stationAt(field, (i + 1) / PLACES));
    const sides = (
      name: string,
      unit: string,
      key: "behind" | "edgeBevel" | "primaryAngle" | "grindLine",
    ) => ({
      [`${name} left (${unit})`]: round(figures[key].left),
      [`${name} right (${unit})`]: round(figures[key].right),
    });
    return {
      u: figures.u,
      "x (mm)": round(figures.x),
      "height (mm)": round(figures.height),
      "flats (mm)": round(figures.flats),
      "behind the edge (mm)": round(figures.behind.total),
      ...sides("behind the edge", "mm", "behind"),
      ...sides("edge bevel", "°", "edgeBevel"),
      ...sides("primary", "°", "primaryAngle"),
      ...sides("grind line", "mm", "grindLine"),
      ...Object.fromEntries(
        Object.entries(figures.above).map(([h, t]) => [`thick ${h} mm up (mm)`, round(t)]),
      ),
      "area (mm²)": round(figures.area),
      "second moment (mm⁴)": round(figures.secondMoment),
    };
  });
  return csvOf(rows);
}

function round(value: number | null): number | null {
  return value === null ? null : Math.round(value * 10000) / 10000;
}
