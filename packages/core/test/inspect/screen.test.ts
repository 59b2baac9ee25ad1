import { describe, expect, test } from "vitest";
import { benchFigures } from "../../src/evaluate/bench.ts";
import { benchReport } from "../../src/findings/bench-report.ts";
import { benchOf } from "../../src/inspect/bench.ts";
import type { Reading, Spot } from "../../src/inspect/schema.ts";
import { mayHaveBeen } from "../../src/inspect/slips.ts";
import { firstRoute } from "../../src/route/first.ts";
import { changed, example } from "../examples.ts";
import { askedAt } from "./asked.ts";

const blade = changed(example("field"), (copy) => {
  copy.use = "field";
  delete copy.falseEdge;
});
const route = firstRoute(blade);
const asked = (stage: string, readings: readonly Reading[]) => askedAt(blade, route, stage, readings);

/** A round as planned, two decimals as a caliper shows them; `change` slips some of it. */
function roundOf(
  stage: string,
  change: (spot: Spot, value: number) => number = (_, value) => value,
): Reading[] {
  return benchOf(asked(stage, [])).lines.map(({ spot, shows }, i) => ({
    id: `00000000-0000-4000-8000-${i.toString(16).padStart(12, "0")}`,
    when: "2026-11-20T10:00:00Z",
    stage,
    ...spot,
    value: change(spot, Number(shows.toFixed(2))),
    by: "hand",
  }));
}
const isAt = (spot: Spot, what: Spot["what"], n: number, side?: Spot["side"]) => {
  const mine = benchOf(asked("true", [])).lines.filter(
    (line) => line.spot.what === what && line.spot.side === side,
  );
  return JSON.stringify(spot) === JSON.stringify(mine[n]!.spot);
};

describe("a slip of the hand is doubted before anything is ground on it", () => {
  const one = (what: Spot["what"], n: number, side: Spot["side"], slip: (value: number) => number) => {
    const readings = roundOf("true", (spot, value) => (isAt(spot, what, n, side) ? slip(value) : value));
    return { readings, bench: benchReport(asked("true", readings), "mm") };
  };

  test("digits change places as they were typed: 0.496 in written as 0.694", () => {
    const spot = { what: "edge" } as const;
    const swapped = (typed?: "inch") =>
      mayHaveBeen(spot, 0.694 * 25.4, typed)
        .filter(({ slip }) => slip === "digits-swapped")
        .map(({ value }) => value);
    expect(swapped("inch").some((mm) => Math.abs(mm - 0.496 * 25.4) < 1e-4)).toBe(true);
    expect(swapped().some((mm) => Math.abs(mm - 0.496 * 25.4) < 1e-4)).toBe(false);
    // 0.850 in is no swap of 0.496 in, though 21.59 mm is one of 12.59 mm.
    expect(
      mayHaveBeen(spot, 0.85 * 25.4, "inch").some(
        ({ slip, value }) => slip === "digits-swapped" && Math.abs(value - 12.59) < 0.05,
      ),
    ).toBe(false);
  });

  test("a thickness that contradicts the line of its own face is doubted, and nothing comes off for it", () => {
    // 2.35 over the plate where 1.92 is true: its own line fits 1.92.
    const { readings, bench } = one("over", 1, "right", (value) => value + 0.43);
    expect(bench.doubts.map(({ slip }) => slip)).toEqual(["unlike"]);
    expect(bench.doubts[0]!.readings[0]).toMatchObject({ what: "over", side: "right" });
    expect(bench.doubts[0]!.readings[0]!.value).toBe(
      readings.find(({ id }) => id === bench.doubts[0]!.id)!.value,
    );
    expect(bench.corrections).toEqual([]);
    expect(bench.findings.map(({ id }) => id)).not.toContain("edge-off-centre");
  });

  test("too small to be doubted, it is named beside the lines that contradict it, and takes nothing off", () => {
    const { bench } = one("over", 1, "right", (value) => value + 0.24);
    const off = bench.findings.filter(({ id }) => id === "edge-off-centre" || id === "readings-contradict");
    expect(bench.corrections).toEqual([]);
    expect(off.map(({ id }) => id)).toEqual(["readings-contradict"]);
    expect(off[0]!.advice).toMatch(/^Read the edge .* again\. Grind nothing/);
  });

  test.each([
    ["ten-times", (value: number) => value * 10],
    ["in-thousandths", (value: number) => Number((value / 0.0254).toFixed(1))],
    ["a-tenth", (value: number) => value / 10],
  ] as const)("%s: named with the reason and what it would be", (slip, by) => {
    const { readings, bench } = one("edge", 1, undefined, by);
    expect(bench.doubts.map((doubt) => doubt.slip)).toEqual([slip]);
    const [doubt] = bench.doubts;
    const [reading] = doubt!.readings;
    expect(by(doubt!.instead!)).toBeCloseTo(reading!.value, 1);
    expect(doubt!.mended).toEqual([{ ...reading, value: doubt!.instead }]);
    expect(doubt!.words).toMatch(/^the very edge reads .* mm\. Is it \d.* mm, /);
    expect(bench.corrections).toEqual([]);
    expect(bench.found).toEqual([]);
    // What is doubted is not read: its place is asked for again.
    const line = bench.lines.find(
      ({ key }) => key.startsWith("edge") && key.includes(reading!.u!.toFixed(3)),
    )!;
    expect(line.figure).toBeNull();
    expect(readings).toHaveLength(bench.lines.length);
  });

  test("51.3 for 15.3: with its digits swapped?", () => {
    const { bench } = one("line", 3, "left", (value) => {
      const [whole, part] = value.toFixed(2).split(".");
      return Number(`${whole![1]}${whole![0]}.${part}`);
    });
    expect(bench.doubts[0]).toMatchObject({ slip: "digits-swapped" });
    expect(bench.doubts[0]!.words).toMatch(/with its digits swapped\?$/);
  });

  test("read again and found the same it is believed", () => {
    const { readings, bench } = one("plunge", 0, "left", (value) => value + 9);
    expect(bench.doubts).toHaveLength(1);
    const doubted = bench.doubts[0]!.readings[0]!;
    const again = { ...doubted, id: "00000000-0000-4000-8000-0000000000aa", when: "2026-11-20T11:00:00Z" };
    expect(benchReport(asked("true", [...readings, again]), "mm").doubts).toEqual([]);
  });

  test("mended, nothing is doubted any more", () => {
    const { readings, bench } = one("flats", 1, undefined, (value) => value * 10);
    const mended = bench.doubts.flatMap((doubt) => doubt.mended);
    const ids = new Set(mended.map(({ id }) => id));
    const after = benchReport(asked("true", [...readings.filter(({ id }) => !ids.has(id)), ...mended]), "mm");
    expect(after.doubts).toEqual([]);
    expect(after.lines.every(({ figure }) => figure !== null)).toBe(true);
  });
});

describe("a whole round", () => {
  const LENGTHS: readonly Spot["what"][] = ["flats", "edge", "above", "over", "line", "plunge", "bow"];

  test("in thousandths is one doubt, and all of it is mended at once", () => {
    const readings = roundOf("true", ({ what }, value) =>
      LENGTHS.includes(what) ? Number((value / 0.0254).toFixed(1)) : value,
    );
    const { doubted, corrections, faults } = benchFigures(asked("true", readings));
    expect(doubted).toEqual([{ id: "units", why: expect.stringContaining("another unit"), instead: "thou" }]);
    expect({ corrections, faults }).toEqual({ corrections: [], faults: [] });
    const [doubt] = benchOf(asked("true", readings)).doubts;
    const at = new Map(doubt!.mended.map((one) => [one.id, one.value]));
    for (const { id, value } of roundOf("true").filter(({ what }) => LENGTHS.includes(what)))
      expect(at.get(id)).toBeCloseTo(value, 1);
  });

  test("of another stage is told as that stage's, and nothing is ground", () => {
    const readings = roundOf("rough").map((one) => ({ ...one, stage: "finish" }));
    const { doubts, corrections } = benchOf(asked("finish", readings));
    expect(doubts.map(({ id, of }) => [id, of])).toEqual([["stage", "rough"]]);
    expect(doubts[0]!.mended.every(({ stage }) => stage === "rough")).toBe(true);
    expect(corrections).toEqual([]);
  });

  test("left for right is told where the sides are unlike", () => {
    const unlike = changed(blade, (copy) => {
      const right = copy.bevels.right as Extract<typeof copy.bevels.right, { set: "height" }>;
      copy.bevels.left = {
        ...right,
        height: [
          { u: 0, h: 12 },
          { u: 1, h: 7 },
        ],
      };
    });
    const of = (readings: readonly Reading[]) => ({
      ...asked("finish", readings),
      blade: unlike,
      route: firstRoute(unlike),
    });
    const readings = benchOf(of([])).lines.map(
      ({ spot, shows }, i): Reading => ({
        id: `00000000-0000-4000-8000-${i.toString(16).padStart(12, "0")}`,
        when: "2026-11-20T10:00:00Z",
        stage: "finish",
        ...spot,
        value: shows,
        by: "hand",
      }),
    );
    const turned = readings.map((one) => {
      const other = readings.find(
        ({ what, u, side }) => what === one.what && u === one.u && side !== undefined && side !== one.side,
      );
      return one.side && other ? { ...one, value: other.value } : one;
    });
    expect(benchOf(of(readings)).doubts).toEqual([]);
    expect(benchOf(of(turned)).doubts.map(({ id }) => id)).toEqual(["sides"]);
  });

  test("of another blade is told as such", () => {
    const other = { ...changed(example("piece-chisel"), () => {}) };
    const readings = benchOf({ ...asked("finish", []), blade: other, route: firstRoute(other) }).lines.map(
      ({ spot, shows }, i): Reading => ({
        id: `00000000-0000-4000-8000-${i.toString(16).padStart(12, "0")}`,
        when: "2026-11-20T10:00:00Z",
        stage: "finish",
        ...spot,
        value: shows,
        by: "hand",
      }),
    );
    const { doubts, corrections } = benchOf(asked("finish", readings));
    expect(doubts.map(({ id }) => id)).toEqual(["blade"]);
    expect(corrections).toEqual([]);
  });
});

test("what a figure may have been: points, units, digits, signs", () => {
  const values = (spot: Spot, value: number) =>
    mayHaveBeen(spot, value).map((one) => `${one.slip} ${one.value}`);
  const line: Spot = { what: "line", u: 0.5, side: "left" };
  expect(values(line, 51.3)).toEqual(
    expect.arrayContaining(["ten-times 5.13", "a-tenth 513", "digits-swapped 15.3", "digits-swapped 31.5"]),
  );
  expect(values(line, 40)).toContain("in-thousandths 1.016");
  expect(values({ what: "bow" }, -0.3)).toContain("other-sign 0.3");
  expect(values({ what: "hardness", x: -8 }, 16)).toContain("digits-swapped 61");
  expect(values({ what: "hardness", x: -8 }, 16).join()).not.toContain("inches");
});
