import { readFileSync } from "node:fs";
import { compileField } from "../src/blade/field.ts";
import { drawnLines } from "../src/blade/lines.ts";
import { solidBetween } from "../src/blade/mass.ts";
import { parseBlade } from "../src/blade/parse.ts";
import type { Blade } from "../src/blade/schema.ts";
import { stationAt } from "../src/blade/station.ts";
import { wholeBlade } from "../src/evaluation.ts";
import { judge } from "../src/findings/judge.ts";
import { gridVolume, maskFor } from "./grid.ts";
import { withTwiceTheNodes } from "./nodes.ts";

/** Ratios against named yardsticks, all in one run on one machine. Nothing here passes or fails. */
const FRAME_MS = 16;

function example(name: string): Blade {
  const parsed = parseBlade(
    JSON.parse(readFileSync(new URL(`../examples/${name}.json`, import.meta.url), "utf8")),
  );
  if (!parsed.ok) throw new Error(`${name} is not sound`);
  return parsed.blade;
}

/** The least of repeated runs, in ms of this process's own processor time, after a warm-up. */
function time(work: () => void, runs = 15): number {
  for (let i = 0; i < 5; i++) work();
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < runs; i++) {
    const from = process.cpuUsage();
    work();
    const { user, system } = process.cpuUsage(from);
    least = Math.min(least, (user + system) / 1000);
  }
  return least;
}

/** What one edit costs: compile, mass and centre, 19 stations, all findings. */
function fullEvaluation(blade: Blade): number {
  const field = compileField(blade);
  const { blade: whole } = wholeBlade(field);
  for (let k = 1; k < 20; k++) stationAt(field, k / 20);
  judge(blade, field);
  return whole.volume;
}

const line = (words: string) => console.log(words);
const blade = example("field");
const field = compileField(blade);

line("Full re-evaluation of the field knife against plain integration on a grid");
const reference = gridVolume(field, maskFor(field, 0.05));
const ourError = Math.abs(fullEvaluation(blade) / reference - 1);
const ourTime = time(() => fullEvaluation(blade));
line(`  ours: ${(ourError * 1e6).toFixed(1)} millionths off the sum over 0.05 mm cells`);
for (const cell of [1, 0.5, 0.25, 0.15, 0.1, 0.075]) {
  const mask = maskFor(field, cell);
  const error = Math.abs(gridVolume(field, mask) / reference - 1);
  const took = time(() => gridVolume(field, mask), 3);
  line(
    `  cells of ${cell} mm: ${(error * 1e6).toFixed(1)} millionths off, ${(took / ourTime).toFixed(1)} times as long as ours`,
  );
}
line(`  share of one ${FRAME_MS} ms frame: ${((100 * ourTime) / FRAME_MS).toFixed(0)} %`);

line("Its parts, as shares of the whole");
const part = (name: string, work: () => void) =>
  line(`  ${name}: ${((100 * time(work)) / ourTime).toFixed(0)} %`);
part("compile", () => compileField(blade));
part("mass and centre", () => solidBetween(field));
part("19 stations", () => {
  for (let k = 1; k < 20; k++) stationAt(field, k / 20);
});
part("findings", () => judge(blade, field));
part("(lines for the drawing, beside it)", () => drawnLines(field));

line("As the outline's nodes double, against the fewest");
let split = blade;
const fewest = time(() => fullEvaluation(split), 7);
for (let i = 0; i < 4; i++) {
  line(
    `  ${split.outline.edge.length} nodes on the edge: ${(time(() => fullEvaluation(split), 7) / fewest).toFixed(2)}`,
  );
  split = withTwiceTheNodes(split);
}

line("As the stations double, against ten");
const tenStations = time(() => drawnLines(field, 10));
for (const places of [10, 20, 40, 80]) {
  line(`  ${places} stations: ${(time(() => drawnLines(field, places)) / tenStations).toFixed(2)}`);
}

line("Memory over 1 000 edits");
globalThis.gc?.();
const before = process.memoryUsage().heapUsed;
for (let i = 0; i < 1000; i++)
  compileField({ ...blade, thickness: blade.thickness.map((row) => ({ ...row })) });
globalThis.gc?.();
const grown = (process.memoryUsage().heapUsed - before) / 1024 / 1024;
line(
  `  heap grown by ${grown.toFixed(1)} MB${globalThis.gc ? "" : " (run node with --expose-gc for a clean figure)"}`,
);
