import { compileField } from "@true-spine/core/blade/field.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { stationAt } from "@true-spine/core/blade/station.ts";
import { stationFigures } from "@true-spine/core/evaluate/evaluation.ts";
import papaparse from "papaparse";

const PLACES = 20;

/** Stations along the edge as CSV: lengths mm, angles degrees a side, area mm², second moment mm⁴. Empty: none there. */
export function writeStations(blade: Blade): string {
  const field = compileField(blade);
  const rows = Array.from({ length: PLACES - 1 }, (_, i) => {
    const figures = stationFigures(field, stationAt(field, (i + 1) / PLACES));
    const sides = (key: "behind" | "edgeBevel" | "primaryAngle" | "grindLine") => ({
      [`${key} left`]: round(figures[key].left),
      [`${key} right`]: round(figures[key].right),
    });
    return {
      u: figures.u,
      x: round(figures.x),
      height: round(figures.height),
      flats: round(figures.flats),
      behind: round(figures.behind.total),
      ...sides("behind"),
      ...sides("edgeBevel"),
      ...sides("primaryAngle"),
      ...sides("grindLine"),
      ...Object.fromEntries(Object.entries(figures.above).map(([h, t]) => [`thick ${h} up`, round(t)])),
      area: round(figures.area),
      "second moment": round(figures.secondMoment),
    };
  });
  return `${papaparse.unparse(rows, { escapeFormulae: true })}\r\n`;
}

function round(value: number | null): number | null {
  return value === null ? null : Math.round(value * 10000) / 10000;
}
