import { readFileSync } from "node:fs";
import Module from "manifold-3d";
import { compileField } from "../src/blade/field.ts";
import { drawnLines } from "../src/blade/lines.ts";
import { solidBetween } from "../src/blade/mass.ts";
import { meshOf } from "../src/blade/mesh.ts";
import { parseBlade } from "../src/blade/parse.ts";
import type { Blade } from "../src/blade/schema.ts";
import { stationAt } from "../src/blade/station.ts";
import { wholeBlade } from "../src/evaluate/evaluation.ts";
import { judge } from "../src/findings/judge.ts";
import { benchOf } from "../src/inspect/bench.ts";
import { NO_CHECK } from "../src/inspect/schema.ts";
import { specOf } from "../src/record/spec.ts";
import { firstRoute } from "../src/route/first.ts";
import { ladderOf } from "../src/route/ladder.ts";
import { reportOf } from "../src/route/report.ts";
import { USUAL_SHOP } from "../src/shop/schema.ts";
import { fittedVolume, gridVolume, maskFor } from "./grid.ts";
import { withTwiceTheNodes } from "./nodes.ts";

/** Ratios against named yardsticks, all in one run on one machine. Nothing here passes or fails. */
const FRAME_MS = 16;
const CELLS = [1, 0.5, 0.25, 0.15, 0.1, 0.075, 0.05];
/** Sizes round a nominal one: where walls fall between cells is luck, so a grid is judged by several. */
const AROUND = [0.96, 0.98, 1, 1.02, 1.04];

function example(name: string): Blade {
  const parsed = parseBlade(JSON.parse(readFileSync(`packages/core/examples/${name}.json`, "utf8")));
  if (!parsed.ok) throw new Error(`${name} is not sound`);
  return parsed.blade;
}

/** The least of repeated runs, in ms of this process's own processor time, after a warm-up. */
function time(work: () => void, runs = 15): number {
  for (let i = 0; i < Math.min(runs, 5); i++) work();
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < runs; i++) {
    const from = process.cpuUsage();
    work();
    const { user, system } = process.cpuUsage(from);
    least = Math.min(least, (user + system) / 1000);
  }
  return least;
}

/** A copy that nothing has been worked out for yet, as after an edit of the outline. */
const fresh = (blade: Blade): Blade => structuredClone(blade);

/** What one edit costs: compile, mass and centre, 19 stations, all findings. */
function fullEvaluation(blade: Blade): number {
  const field = compileField(blade);
  const { blade: whole } = wholeBlade(field);
  for (let k = 1; k < 20; k++) stationAt(field, k / 20);
  judge(blade, field);
  return whole.volume;
}

const line = (words: string) => console.log(words);
const millionths = (volume: number, reference: number) =>
  `${(Math.abs(volume / reference - 1) * 1e6).toFixed(1)} millionths off`;

const knife = example("field");
const field = compileField(knife);
const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
const reference = mean(AROUND.map((share) => fittedVolume(field, 0.05 * share)));
const ourTime = time(() => fullEvaluation(fresh(knife)), 40);

line("Full re-evaluation of the field knife against plain integration on a grid");
line("  (reference: mean of five sums over columns about 0.05 mm wide, their cells fitted to the outline)");
line(
  `  ours: ${millionths(fullEvaluation(knife), reference)}, ${((100 * ourTime) / FRAME_MS).toFixed(0)} % of a ${FRAME_MS} ms frame`,
);
const ourError = Math.abs(fullEvaluation(knife) / reference - 1);
for (const cell of CELLS) {
  const masks = AROUND.map((share) => maskFor(field, cell * share));
  const errors = masks.map((mask) => (gridVolume(field, mask) / reference - 1) ** 2);
  const error = Math.sqrt(mean(errors));
  const took = time(() => gridVolume(field, masks[2]!), 3);
  const far = `${(error * 1e6).toFixed(1)} millionths off (${(error / ourError).toFixed(1)} times ours)`;
  line(`  cells of ${cell} mm: ${far}, ${(took / ourTime).toFixed(1)} times as long as ours`);
}

line("A 300 mm blade");
const long = stretched(knife, 300 / 125);
line(`  ${((100 * time(() => fullEvaluation(fresh(long)), 30)) / FRAME_MS).toFixed(0)} % of a frame`);

line("Its parts, as shares of the whole");
const part = (name: string, work: () => void) =>
  line(`  ${name}: ${((100 * time(work, 30)) / ourTime).toFixed(0)} %`);
part("compile", () => compileField(fresh(knife)));
part("mass and centre", () => solidBetween(field));
part("19 stations", () => {
  for (let k = 1; k < 20; k++) stationAt(field, k / 20);
});
part("findings", () => judge(knife, field));
part("(lines for the drawing, beside it)", () => drawnLines(field));

line("As the outline's nodes double, against the fewest");
let split = knife;
const fewest = time(() => fullEvaluation(fresh(split)), 20);
for (let i = 0; i < 4; i++) {
  const took = time(() => fullEvaluation(fresh(split)), 20);
  line(`  ${split.outline.edge.length} nodes on the edge: ${(took / fewest).toFixed(2)}`);
  split = withTwiceTheNodes(split);
}

line("As the stations double, against ten");
const tenStations = time(() => drawnLines(field, 10));
for (const places of [10, 20, 40, 80]) {
  line(`  ${places} stations: ${(time(() => drawnLines(field, places)) / tenStations).toFixed(2)}`);
}

line("Plans and readings, in frames");
for (const [name, blade] of [
  ["the field knife", knife],
  ["300 mm", long],
  ["a kitchen knife ground to its spine", example("kinds/kitchen-full")],
] as const) {
  const frames = (work: (fresh: Blade) => void) => (time(() => work(fresh(blade)), 10) / FRAME_MS).toFixed(1);
  const record = (own: Blade) => ({
    route: firstRoute(own),
    shop: USUAL_SHOP,
    check: { ...NO_CHECK, hardness: 60 },
    handle: null,
    readings: [],
  });
  const bench = (own: Blade) => benchOf({ ...record(own), blade: own, stage: "finish" });
  line(
    `  ${name}: ladder ${frames((own) => ladderOf(own, firstRoute(own), USUAL_SHOP))}, route ${frames((own) => reportOf(own, firstRoute(own), USUAL_SHOP, 50))}, bench ${frames(bench)}, spec sheet ${frames((own) => specOf(own, record(own)))}`,
  );
}

await besideAMeshLibrary();

line("Memory over 1 000 edits");
globalThis.gc?.();
const before = process.memoryUsage().heapUsed;
for (let i = 0; i < 1000; i++) fullEvaluation(fresh(knife));
globalThis.gc?.();
line(`  heap grown by ${((process.memoryUsage().heapUsed - before) / 1024 / 1024).toFixed(1)} MB`);

/** A solid to 0.02 mm beside manifold-3d 3.2.1: how long it takes to refine a box to as many triangles, warp it and weigh it. */
async function besideAMeshLibrary(): Promise<void> {
  const library = await Module({ locateFile: () => "node_modules/manifold-3d/manifold.wasm" });
  library.setup();
  line("A solid to 0.02 mm beside a general-purpose mesh library that warps a grid of as many triangles");
  const warped = (triangles: number) => {
    const box = library.Manifold.cube([1, 1, 1], true).refine(
      Math.max(1, Math.round(Math.sqrt(triangles / 12))),
    );
    const bent = box.warp((at) => {
      at[2] *= 1 + 0.1 * at[0];
    });
    bent.volume();
    bent.delete();
    box.delete();
  };
  for (const [name, blade] of [
    ["the field knife", knife],
    ["300 mm", long],
    ["a tapered tang", example("kinds/tapered-tang")],
    ["a hollow with a false edge", example("kinds/hollow-false-edge")],
    ["a cleaver", example("kinds/cleaver")],
  ] as const) {
    const own = compileField(blade);
    const mesh = meshOf(own);
    const count = mesh.triangles.length / 3;
    const solid = new library.Manifold(
      new library.Mesh({
        numProp: 3,
        vertProperties: Float32Array.from(mesh.positions),
        triVerts: mesh.triangles,
      }),
    );
    const off = (100 * (solid.volume() / solidBetween(own).volume - 1)).toFixed(4);
    solid.delete();
    const ratio = time(() => meshOf(own), 8) / time(() => warped(count), 8);
    line(`  ${name}: ${count} triangles, ${ratio.toFixed(1)} times as long, volume ${off} % off`);
  }
}

function stretched(blade: Blade, k: number): Blade {
  const copy = structuredClone(blade);
  for (const chain of Object.values(copy.outline)) {
    for (const node of chain) {
      for (const key of ["at", "back", "ahead"] as const) {
        const point = node[key];
        if (point && node.at[0] > -5) node[key] = [point[0] * k, point[1]];
      }
    }
  }
  for (const row of copy.thickness) if (row.x > 0) row.x *= k;
  copy.falseEdge!.from *= k;
  copy.falseEdge!.to *= k;
  const parsed = parseBlade(copy);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
  return parsed.blade;
}
