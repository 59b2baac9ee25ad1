import { describe, expect, test } from "vitest";
import { thicknessAt } from "../../src/blade/field.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { secondStationAt } from "../../src/blade/second-station.ts";
import { judgeWork } from "../../src/findings/true.ts";
import { benchOf, type Line } from "../../src/inspect/bench.ts";
import { parseReadings } from "../../src/inspect/parse.ts";
import { steelAt } from "../../src/inspect/reader.ts";
import { NO_CHECK, type Reading, type Spot, spotKey, spotOf } from "../../src/inspect/schema.ts";
import { benchSteel, targetAt } from "../../src/inspect/target.ts";
import { atInstrument, toInstrument } from "../../src/inspect/wire.ts";
import { firstRoute } from "../../src/route/first.ts";
import { onSecondEdge, otherwise } from "../../src/route/ladder.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";

const dagger: Blade = checked(KINDS.find(([name]) => name === "dagger")![1]);
const route = firstRoute(dagger);
const asked = (readings: readonly Reading[]) => ({
  blade: dagger,
  route,
  shop: USUAL_SHOP,
  stage: "finish",
  check: NO_CHECK,
  readings,
});

/** Every place of a round, as an instrument shows it on some steel. */
function round(lines: readonly Line[], value: (line: Line) => number): Reading[] {
  return lines.map((line, i) => ({
    id: `00000000-0000-4000-8000-${i.toString(16).padStart(12, "0")}`,
    when: "2026-11-20T10:00:00Z",
    stage: "finish",
    ...line.spot,
    value: value(line),
    by: "hand",
  }));
}

describe("readings along a second edge", () => {
  test("its places are asked after the first edge's, each with its own figure of the same steel", () => {
    const { lines, second } = benchOf(asked([]));
    expect(lines.every(({ spot }) => spot.edge === undefined)).toBe(true);
    expect(second!.lines.length).toBeGreaterThan(10);
    expect(second!.lines.every(({ spot }) => spot.edge === "second" && spot.u !== undefined)).toBe(true);
    const stage = benchSteel(dagger, route, USUAL_SHOP, "finish");
    const { x, y } = secondStationAt(stage.steel.field, 0.6)!;
    const target = targetAt(stage, { what: "edge", u: 0.6, edge: "second" })!;
    expect(target.value).toBeCloseTo(thicknessAt(stage.steel.field, x, y), 6);
    expect(target.x).toBeCloseTo(x, 4);
  });

  test("a blade of one edge has no second bench, and no place on one", () => {
    const field = example("field");
    const usual = firstRoute(field);
    expect(benchOf({ ...asked([]), blade: field, route: usual }).second).toBeNull();
    const stage = benchSteel(field, usual, USUAL_SHOP, "finish");
    expect(targetAt(stage, { what: "edge", u: 0.5, edge: "second" })).toBeNull();
  });

  test("what is off on the second edge is told of the second edge, and corrected there", () => {
    const { second } = benchOf(asked([]));
    const stage = onSecondEdge(benchSteel(dagger, route, USUAL_SHOP, "finish"))!;
    const heavy = otherwise(stage, { faces: (side) => (side === "left" ? 0.3 : 0) });
    const readings = round(
      second!.lines,
      ({ spot, target, shows }) => shows + steelAt(heavy, spot)! - target.value,
    );
    const bench = benchOf(asked(readings));
    expect(bench.figures).toHaveLength(0);
    expect(bench.second!.figures.length).toBeGreaterThan(10);
    expect(bench.second!.diagnosis.found[0]!.pattern).toBe("off-centre");
    const told = judgeWork(bench, "mm").filter(({ where }) => where.edge === "second");
    expect(told.map(({ id }) => id)).toContain("edge-off-centre");
    expect(told.every(({ message }) => message.startsWith("Second edge: "))).toBe(true);
    const { corrections } = bench.second!;
    expect(corrections.length).toBeGreaterThan(0);
    expect(corrections.every(({ edge, side }) => edge === "second" && side === "left")).toBe(true);
    expect(bench.corrections).toEqual([]);
  });

  test("a sound round finds nothing on either", () => {
    const first = benchOf(asked([]));
    const bench = benchOf(
      asked([
        ...round(first.lines, ({ shows }) => shows),
        ...round(first.second!.lines, ({ shows }) => shows),
      ]),
    );
    expect(bench.diagnosis.pattern).toBe("sound");
    expect(bench.second!.diagnosis.pattern).toBe("sound");
    expect(bench.second!.corrections).toEqual([]);
    expect(bench.corrections).toEqual([]);
  });

  test("a place on it has a name of its own, goes through a file, and to an instrument", () => {
    const spot: Spot = { what: "line", u: 0.5, side: "left", edge: "second" };
    expect(spotKey(spot)).not.toBe(spotKey({ ...spot, edge: undefined } as unknown as Spot));
    expect(spotOf(spot)).toEqual(spot);
    const reading = {
      id: "00000000-0000-4000-8000-000000000001",
      when: "2026-11-20T10:00:00Z",
      stage: "sharpen-2",
      ...spot,
      value: 4.1,
      by: "hand",
    };
    const file = { format: "true-spine/readings", version: 1, taken: [reading] };
    const parsed = parseReadings(file);
    expect(parsed.ok && parsed.readings.taken[0]).toEqual(reading);
    const held = { blade: "b1", stage: "sharpen-2", spot };
    expect(atInstrument(toInstrument({ say: "place", held }))).toEqual({ say: "place", held });
  });
});
