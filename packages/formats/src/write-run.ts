import type { RunReport } from "@true-spine/core/record/run-report.ts";
import type { RunReadings } from "@true-spine/core/registry/contract.ts";
import { csvOf } from "./csv.ts";

/** A run's batch sheet as CSV: a line for each blade in the order they were made, a column for each place; then what is wanted. */
export function writeRun({ blades }: RunReadings, { places }: RunReport): string {
  const n = (value: number | null | undefined) =>
    value === null || value === undefined ? "" : Number(value.toFixed(4));
  const line = (blade: string, of: (place: RunReport["places"][number]) => number | null | undefined) => ({
    blade,
    ...Object.fromEntries(places.map((place) => [`${place.name} (${place.unit})`, n(of(place))])),
  });
  const rows = [
    ...blades.map(({ id, name }) => line(name, ({ points }) => points.find((one) => one.id === id)?.value)),
    line("wanted", ({ target }) => target?.value),
    line("band ±", ({ target }) => target?.band),
    line("mean", ({ chart }) => chart?.mean),
    line("upper limit", ({ chart }) => chart?.upper),
    line("lower limit", ({ chart }) => chart?.lower),
    line("Cpk", ({ capability }) => capability?.cpk),
  ];
  return csvOf(rows);
}
