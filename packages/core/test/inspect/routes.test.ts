import { describe, expect, test } from "vitest";
import type { Blade } from "../../src/blade/schema.ts";
import { benchReport } from "../../src/findings/bench-report.ts";
import { benchOf } from "../../src/inspect/bench.ts";
import { type Reading, type Spot, spotKey } from "../../src/inspect/schema.ts";
import { targetAt } from "../../src/inspect/target.ts";
import { firstRoute } from "../../src/route/first.ts";
import type { Route, StageKind } from "../../src/route/schema.ts";
import { SCHOOLS } from "../../src/route/stages.ts";
import { checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";
import { askedAt } from "./asked.ts";

const kind = (name: string) => checked(KINDS.find(([one]) => one === name)![1]);
const ground: readonly StageKind[] = ["rough", "true", "finish", "sharpen"];

/** Five blades, each on a route of another kind: which stages there are of, and which of them are soft. */
const PAIRS: readonly {
  blade: Blade;
  route: (blade: Blade) => Route;
  soft: readonly StageKind[];
  says: string;
}[] = [
  {
    says: "most of it soft",
    blade: example("field"),
    route: (blade) => firstRoute(blade, SCHOOLS[0]),
    soft: ["rough"],
  },
  {
    says: "all of it hard",
    blade: kind("kitchen-full"),
    route: (blade) => firstRoute(blade, SCHOOLS[1]),
    soft: [],
  },
  {
    says: "nearly to the apex",
    blade: kind("clip-point"),
    route: (blade) => firstRoute(blade, SCHOOLS[2]),
    soft: ["rough"],
  },
  {
    says: "with 0.35 a side left for the oven, and no straight grind after it",
    blade: kind("laminated-kitchen"),
    route: (blade) => {
      const route = firstRoute(blade);
      return { ...route, oven: 0.35, stages: route.stages.filter((one) => one.kind !== "true") };
    },
    soft: ["rough"],
  },
  {
    says: "hardened elsewhere once it is finished",
    blade: kind("tapered-tang"),
    route: (blade) => {
      const { stages, ...route } = firstRoute(blade);
      const harden = stages.find((one) => one.kind === "harden")!;
      const others = stages.filter((one) => one.kind !== "harden");
      const after = others.findIndex((one) => one.kind === "finish") + 1;
      return { ...route, stages: others.toSpliced(after, 0, harden) };
    },
    soft: ["rough", "true", "finish"],
  },
];

let serial = 0;
const reading = (spot: Spot, value: number, stage: StageKind): Reading => ({
  id: `00000000-0000-4000-8000-${(serial++).toString(16).padStart(12, "0")}`,
  when: "2026-11-20T10:00:00Z",
  stage,
  ...spot,
  value,
  by: "hand",
});

describe.each(PAIRS.map((one) => [one.blade.name, one.says, one] as const))("%s, %s", (_, __, pair) => {
  const { blade } = pair;
  const route = pair.route(blade);
  const all = route.stages.map((one) => one.kind);
  const stages = all.slice(all.indexOf("rough")).filter((one) => ground.includes(one));
  const asked = (stage: StageKind, readings: readonly Reading[] = []) =>
    askedAt(blade, route, stage, readings);
  const round = (stage: StageKind, off: (spot: Spot) => number = () => 0) =>
    benchOf(asked(stage)).lines.map(({ spot, shows }) => reading(spot, shows + off(spot), stage));

  test.each(stages)(
    "%s, read as it should be: all good, nothing found, soft or hard as its place says",
    (stage) => {
      const { lines, findings, corrections, isHard } = benchReport(asked(stage, round(stage)), "mm");
      expect(isHard).toBe(!pair.soft.includes(stage));
      expect(lines.length).toBeGreaterThan(10);
      for (const { spot, figure } of lines) {
        expect(figure!.value - figure!.target.value, spotKey(spot)).toBeCloseTo(0, 6);
        expect(figure!.verdict, spotKey(spot)).not.toBe("out");
      }
      expect(findings.filter(({ severity }) => severity !== "note")).toEqual([]);
      expect(corrections).toEqual([]);
    },
  );

  test.each(stages)(
    "%s, its edge thick from heel to tip: all of it is out by that, the flats and the whole are not",
    (stage) => {
      const thick = (spot: Spot) => {
        if (spot.what === "edge" || spot.what === "behind") return 0.5;
        return spot.what === "over" ? 0.25 : 0;
      };
      const { lines } = benchReport(asked(stage, round(stage, thick)), "mm");
      const out = lines.filter(({ spot, figure }) => thick(spot) === 0.5 && figure);
      expect(out.length).toBeGreaterThanOrEqual(3);
      for (const { spot, figure } of out) {
        expect(figure!.value - figure!.target.value, spotKey(spot)).toBeCloseTo(0.5, 6);
        expect(figure!.verdict, spotKey(spot)).toBe("out");
      }
      for (const { spot, figure } of lines)
        if (["flats", "bow", "twist", "plunge", "hardness"].includes(spot.what) && figure)
          expect(figure.verdict, spotKey(spot)).not.toBe("out");
    },
  );

  test("from stage to stage the edge comes down, and ends as the blade's own", () => {
    const behind = blade.edge.behind;
    for (const u of [0.3, 0.5, 0.7]) {
      const edges = stages
        .filter((stage) => stage !== "sharpen")
        .map((stage) => targetAt(benchOf(asked(stage)).stage, { what: "edge", u })!.value);
      for (const [i, edge] of edges.slice(1).entries()) expect(edge).toBeLessThanOrEqual(edges[i]! + 1e-9);
      const last = targetAt(benchOf(asked("sharpen")).stage, { what: "behind", u })!.value;
      const [least, most] = [Math.min(...behind.map(({ t }) => t)), Math.max(...behind.map(({ t }) => t))];
      expect(last).toBeGreaterThanOrEqual(least - 1e-6);
      expect(last).toBeLessThanOrEqual(most + 1e-6);
    }
  });

  test("what is left for the oven is left on both faces, as far as there is face to leave it on", () => {
    if (!pair.soft.includes("rough")) return;
    const u = 0.5;
    const edgeWith = (oven: number) =>
      targetAt(benchOf({ ...asked("rough"), route: { ...route, oven } }).stage, { what: "edge", u })!.value;
    expect(edgeWith(route.oven + 0.2) - edgeWith(route.oven)).toBeCloseTo(0.4, 2);
  });
});
