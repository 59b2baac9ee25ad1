import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { buildSync } from "esbuild";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { validatorOf } from "../../src/document/validator.ts";
import { BenchFiguresSchema } from "../../src/evaluate/bench.ts";
import { PlanFiguresSchema } from "../../src/evaluate/plan.ts";
import { NO_FORGE } from "../../src/forge/schema.ts";
import type { Weight } from "../../src/handle/balance.ts";
import { benchOf } from "../../src/inspect/bench.ts";
import { QUANTITY } from "../../src/inspect/quantity.ts";
import { NO_CHECK, type Spot } from "../../src/inspect/schema.ts";
import { firstRoute } from "../../src/route/first.ts";
import { withStage } from "../../src/route/stages.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { example, exampleText } from "../examples.ts";

const cli = fileURLToPath(new URL("../../src/evaluate/cli.ts", import.meta.url));
const scales = fileURLToPath(new URL("../../examples/handles/walnut-scales.json", import.meta.url));
const root = fileURLToPath(new URL("../../../../", import.meta.url));
const folder = mkdtempSync(join(tmpdir(), "true-spine-evaluate-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Bundled once: started from its source it would be translated again for every question. */
const built = join(folder, "evaluate.mjs");
beforeAll(() => {
  buildSync({
    entryPoints: [cli],
    bundle: true,
    platform: "node",
    format: "esm",
    logLevel: "error",
    outfile: built,
  });
});

/** Runs the evaluator as a maker's script would: on a file, reading what it prints and how it ends. */
function evaluate(text: string, ...more: string[]) {
  const file = join(folder, "blade.json");
  writeFileSync(file, text);
  return run(file, ...more);
}

function run(...args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, [built, ...args], {
    encoding: "utf8",
  });
  return { status, stdout, stderr };
}

// biome-ignore lint/suspicious/noExplicitAny: files are broken here on purpose
const broken = (change: (file: any) => void) => {
  const file = JSON.parse(exampleText("field"));
  change(file);
  return JSON.stringify(file);
};

describe("the evaluator", () => {
  test("prints one JSON document and nothing else, by the command that is documented", () => {
    const file = join(folder, "command.json");
    writeFileSync(file, exampleText("field"));
    const command = ["run", "-s", "evaluate", "--", file, "--at", "0.1,0.5"];
    const { status, stdout, stderr } = spawnSync("npm", command, { encoding: "utf8", cwd: root });
    expect({ status, stderr }).toEqual({ status: 0, stderr: "" });
    const result = JSON.parse(stdout);
    expect(result).toMatchObject({ format: "true-spine/evaluation", version: 1, name: "Fen hook" });
    expect(result.stations.map((station: { u: number }) => station.u)).toEqual([0.1, 0.5]);
    expect(Object.keys(result.stations[0])).toEqual(
      expect.arrayContaining([
        "height",
        "flats",
        "behind",
        "edgeBevel",
        "primaryAngle",
        "grindLine",
        "above",
        "area",
        "secondMoment",
      ]),
    );
  });

  test("takes the blade's other documents beside it", () => {
    const limits = join(folder, "limits.json");
    const behind = { least: 0.2, most: 0.3, reason: "slices only" };
    writeFileSync(limits, JSON.stringify({ format: "true-spine/limits", version: 1, behind }));
    const purposed = broken((file) => (file.use = "field"));
    const { status, stdout } = evaluate(purposed, "--handle", scales, "--limits", limits);
    expect(status).toBe(0);
    const { handled, findings } = JSON.parse(stdout);
    // Source: the parts' own masses about the junction.
    const moment = handled.parts.reduce((sum: number, part: Weight) => sum + part.mass * part.x, 0);
    expect(handled.balance).toBeCloseTo(moment / handled.mass, 9);
    expect(findings).toContainEqual(
      expect.objectContaining({ id: "behind-edge-thick", basis: "this blade's own limit: slices only" }),
    );
  });

  test("a faulty document beside it is refused by its kind and path", () => {
    const handle = join(folder, "handle.json");
    writeFileSync(handle, readFileSync(scales, "utf8").replace("walnut", "moonstone"));
    const { status, stdout, stderr } = evaluate(exampleText("field"), "--handle", handle);
    expect({ status, stdout }).toEqual({ status: 2, stdout: "" });
    expect(stderr).toMatch(/^handle \$\.parts\[0\]\.material: has no known density/);
    expect(evaluate(exampleText("field"), "--limits", join(folder, "none.json")).stderr).toMatch(
      /^limits \$: .*cannot be read/,
    );
  });

  test.each<[string, string, RegExp]>([
    ["a cut-off file", exampleText("field").slice(0, 500), /^\$: not JSON/],
    ["wrong types", broken((f) => (f.edge.rightShare = "half")), /^\$\.edge\.rightShare: must be a number$/],
    [
      "unknown keys",
      broken((f) => (f.bevels.right.colour = "blue")),
      /^\$\.bevels\.right\.colour: is not a key/,
    ],
    [
      "a crossing outline",
      broken((f) => (f.outline.tang[2].at = [-110, 20])),
      /^\$\.outline\.tang\[1\]: the outline crosses itself/,
    ],
    [
      "an open outline",
      broken((f) => (f.outline.edge[2].at = [120, -9])),
      /^\$\.outline\.edge\[2\]\.at: the outline is open/,
    ],
    [
      "a table out of order",
      broken((f) => f.thickness.reverse()),
      /^\$\.thickness\[1\]\.x: is .*must be more/,
    ],
    ["huge numbers", broken((f) => (f.holes[0].x = 1e308)), /^\$\.holes\[0\]\.x: must be 2000 or less$/],
  ])("refuses %s with status 2, its path, and no stack", (_, text, wanted) => {
    const { status, stdout, stderr } = evaluate(text);
    expect({ status, stdout }).toEqual({ status: 2, stdout: "" });
    for (const line of stderr.trimEnd().split("\n")) expect(line).toMatch(/^\$\S*: .+/);
    expect(stderr).toMatch(new RegExp(wanted.source, "m"));
    expect(stderr).not.toMatch(/\bat .*\.ts:\d+/);
  });

  test("says what should be read at a stage of a route, or which stages there are", () => {
    const route = join(folder, "route.json");
    writeFileSync(route, JSON.stringify(firstRoute(example("field"))));
    const { status, stdout } = evaluate(exampleText("field"), "--route", route, "--stage", "rough");
    expect(status).toBe(0);
    const { stage } = JSON.parse(stdout);
    expect(stage.kind).toBe("rough");
    expect(stage.readings.map(({ place }: { place: string }) => place)).toEqual(["heel", "middle", "tip"]);
    expect(stage.readings[1].edge).toBeGreaterThan(1);
    expect(evaluate(exampleText("field"), "--route", route, "--stage", "polish")).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/^--stage must be one of stock, /),
    });
    expect(evaluate(exampleText("field"), "--route", route).status).toBe(2);
  });

  test("a whole plan: every stage with what it works on, its own angle and setting, and the layout", () => {
    const route = join(folder, "plan.json");
    writeFileSync(route, JSON.stringify(firstRoute(example("field"))));
    const { status, stdout, stderr } = evaluate(exampleText("field"), "--route", route, "--plan");
    expect({ status, stderr }).toEqual({ status: 0, stderr: "" });
    const { plan } = JSON.parse(stdout);
    expect(validatorOf(PlanFiguresSchema)(plan)).toBe(true);
    const of = (kind: string) => plan.stages.find((stage: { kind: string }) => stage.kind === kind);
    expect(of("harden")).toMatchObject({ on: [], side: null, setting: null, belts: [] });
    expect(of("sharpen")).toMatchObject({ on: ["edge"], side: "both", setting: { value: 72, unit: "°" } });
    expect(of("sharpen").angle.right).toEqual([18, 18, 18]);
    expect(of("rough").belts.length).toBeGreaterThan(0);
    expect(plan.layout.places).toHaveLength(3);
    expect(evaluate(exampleText("field"), "--plan").status).toBe(2);
    expect(evaluate(exampleText("field"), "--route", route, "--plan", "--stage", "rough").status).toBe(2);
  });

  test("the forging of a route that is forged: bar, map, forms and heats, by what is chosen at the fire", () => {
    const [route, forge] = [join(folder, "forged.json"), join(folder, "forge.json")];
    const first = firstRoute(example("field"));
    const stages = withStage(first.stages, "forge");
    writeFileSync(
      route,
      JSON.stringify({ ...first, stock: 6.35, bar: { surface: "rolled", width: 38 }, stages }),
    );
    const planOf = (...more: string[]) => {
      const { status, stdout, stderr } = evaluate(exampleText("field"), "--route", route, "--plan", ...more);
      expect({ status, stderr }).toEqual({ status: 0, stderr: "" });
      const { plan } = JSON.parse(stdout);
      expect(validatorOf(PlanFiguresSchema)(plan)).toBe(true);
      return plan.forging;
    };
    const usual = planOf();
    expect(usual.bar).toBeCloseTo(1.12 * usual.needed + 2, 6);
    expect(usual.forms.map(({ step }: { step: string }) => step)).toEqual([
      "bar",
      "point",
      "taper",
      "bevel",
      "straighten",
    ]);
    expect(usual.map.at(-1).s).toBeCloseTo(0, 3);
    expect(usual.map[0].s).toBeCloseTo(usual.needed, 3);
    expect(
      usual.forms[0].at.every(
        ({ width, thickness }: { width: number; thickness: number }) => width === 38 && thickness === 6.35,
      ),
    ).toBe(true);
    expect(usual.heats.blade).toBeGreaterThan(3);
    writeFileSync(forge, JSON.stringify({ ...NO_FORGE, kerf: 12 }));
    expect(planOf("--forge", forge).bar).toBeCloseTo(usual.bar + 10, 6);
    writeFileSync(forge, JSON.stringify({ ...NO_FORGE, kerf: 200 }));
    const bad = evaluate(exampleText("field"), "--route", route, "--plan", "--forge", forge);
    expect(bad.status).toBe(2);
    expect(bad.stderr).toContain("forge $.kerf");
  });

  describe("with readings", () => {
    const route = firstRoute(example("field"));
    const asked = { blade: example("field"), route, shop: USUAL_SHOP, stage: "rough", check: NO_CHECK };
    const { lines } = benchOf({ ...asked, readings: [] });
    /** What the evaluator makes of the round read as it should be, each value changed. */
    const benchFor = (change: (value: number, spot: Spot) => number) => {
      const [routeFile, readingsFile] = ["route.json", "readings.json"].map((name) => join(folder, name));
      writeFileSync(routeFile!, JSON.stringify(route));
      const taken = lines.map(({ spot, shows }, i) => ({
        id: `00000000-0000-4000-8000-${i.toString(16).padStart(12, "0")}`,
        when: "2026-11-20T10:00:00Z",
        stage: "rough",
        ...spot,
        value: Math.round(change(shows, spot) * 100) / 100,
        by: "hand",
      }));
      writeFileSync(readingsFile!, JSON.stringify({ format: "true-spine/readings", version: 1, taken }));
      const { status, stdout, stderr } = evaluate(
        exampleText("field"),
        ...["--route", routeFile!, "--stage", "rough", "--readings", readingsFile!],
      );
      expect({ status, stderr }).toEqual({ status: 0, stderr: "" });
      const { bench } = JSON.parse(stdout);
      expect(validatorOf(BenchFiguresSchema)(bench)).toBe(true);
      return bench;
    };

    test("a sound round has nothing to say and nothing to grind", () => {
      expect(benchFor((value) => value)).toMatchObject({ doubted: [], faults: [], corrections: [] });
    });

    test("one reading typed ten times too large is doubted, with what it would be; no steel comes off for it", () => {
      const edge = lines.filter(({ spot }) => spot.what === "edge")[1]!;
      const bench = benchFor((value, spot) => (spot === edge.spot ? 10 * value : value));
      expect(bench).toMatchObject({ faults: [], corrections: [] });
      expect(bench.doubted).toHaveLength(1);
      expect(bench.doubted[0].instead).toBeCloseTo(edge.shows, 2);
    });

    test("a whole round in thousandths is one doubt", () => {
      const bench = benchFor((value, { what }) => (QUANTITY[what].unit === "mm" ? value / 0.0254 : value));
      expect(bench).toMatchObject({ doubted: [{ id: "units" }], faults: [], corrections: [] });
    });
  });

  test("a file that is not there, no file, and places that are none, are told in words", () => {
    expect(run(join(folder, "nothing.json"))).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/cannot be read/),
    });
    expect(run()).toMatchObject({ status: 2, stderr: expect.stringMatching(/^usage:/) });
    expect(evaluate(exampleText("prism"), "--at", "0.5,two")).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/from 0 to 1/),
    });
  });
});
