import { describe, expect, test } from "vitest";
import { cleanUp } from "../../src/findings/forged.ts";
import { judgeWork } from "../../src/findings/true.ts";
import { NO_FORGE } from "../../src/forge/schema.ts";
import { benchOf, type Line } from "../../src/inspect/bench.ts";
import { NO_CHECK, type Reading } from "../../src/inspect/schema.ts";
import { firstRoute } from "../../src/route/first.ts";
import { withStage } from "../../src/route/stages.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { example } from "../examples.ts";

const blade = example("field");
const first = firstRoute(blade);
const route = { ...first, stages: withStage(first.stages, "forge") };
const asked = (readings: readonly Reading[], forge = NO_FORGE) => ({
  blade,
  route,
  shop: USUAL_SHOP,
  stage: "forge",
  check: NO_CHECK,
  forge,
  readings,
});
/** A round of a blank, each place as planned but for what `off` adds, mm. */
function round(off: (line: Line) => number): Reading[] {
  return benchOf(asked([])).lines.map((line, i) => ({
    id: `00000000-0000-4000-8000-${i.toString(16).padStart(12, "0")}`,
    when: "2026-11-20T10:00:00Z",
    stage: "forge",
    ...line.spot,
    value: line.shows + off(line),
    by: "hand",
  }));
}

describe("a blank is read", () => {
  test("at its width, its flats and its edge at five stations, over the edge at three, the rest once", () => {
    const { lines } = benchOf(asked([]));
    const count = (what: string) => lines.filter(({ spot }) => spot.what === what).length;
    expect([count("height-at"), count("flats"), count("over")]).toEqual([5, 5, 6]);
    expect(count("edge")).toBeGreaterThanOrEqual(15);
    expect(["blade-length", "overall", "sweep", "bow", "twist"].map(count)).toEqual([1, 1, 1, 1, 1]);
    const at = (what: string) => lines.find(({ spot }) => spot.what === what)!;
    // 125 and 1 outside the spine; thicker on the flats by 2 Φ and what later stages take; the edge as it was left.
    expect(at("blade-length").target.value).toBeCloseTo(126.4, 0);
    expect(
      lines.filter(({ spot }) => spot.what === "edge").every(({ target }) => target.value >= 2 - 1e-6),
    ).toBe(true);
    expect(lines.filter(({ isFirst }) => isFirst).length).toBeGreaterThanOrEqual(5);
  });

  test("as planned nothing is found of it; a little over is good, under what comes after it is out", () => {
    const bench = benchOf(asked(round(() => 0)));
    expect(bench.diagnosis.pattern).toBe("sound");
    expect(judgeWork(bench, "mm").filter(({ severity }) => severity === "fix")).toEqual([]);
    const over = benchOf(asked(round(({ spot }) => (spot.what === "flats" ? 0.4 : 0))));
    expect(
      over.figures.filter(({ spot }) => spot.what === "flats").every(({ verdict }) => verdict !== "out"),
    ).toBe(true);
    const under = benchOf(asked(round(({ spot }) => (spot.what === "height-at" ? -3.2 : 0))));
    expect(under.figures.filter(({ verdict }) => verdict === "out").map(({ spot }) => spot.what)).toContain(
      "height-at",
    );
  });

  test("a rippled edge is named, its crests told, and how much to dress off them", () => {
    const bench = benchOf(
      asked(
        round(({ spot, target }) =>
          spot.what === "edge" ? 0.35 * Math.sin((2 * Math.PI * target.x) / 21) : 0,
        ),
      ),
    );
    expect(bench.diagnosis.found[0]!.pattern).toBe("ripple");
    expect(bench.diagnosis.found[0]!.size).toBeCloseTo(0.35, 1);
    const told = judgeWork(bench, "mm").find(({ id }) => id === "forge-ripple")!;
    expect(told.message).toMatch(/about 2[015]\.\d+ mm from crest to crest/);
    expect(told.advice).toContain("Dress the crests only");
    expect(bench.corrections).toEqual([]);
  });

  test("a place struck too thin is a thin spot there, and no blow puts it back", () => {
    const bench = benchOf(
      asked(
        round(({ spot, target }) =>
          spot.what === "edge" ? -1.1 * Math.max(0, 1 - Math.abs(target.x - 70) / 12) : 0,
        ),
      ),
    );
    const [found] = bench.diagnosis.found;
    expect(found!.pattern).toBe("thin-spot");
    expect((found!.shape.x![0] + found!.shape.x![1]) / 2).toBeCloseTo(70, -1);
    expect(found!.amplitudes[0]!).toBeLessThan(-0.6);
  });

  test("swept up it is a banana; over the edge from both flats it is off centre", () => {
    const swept = benchOf(asked(round(({ spot }) => (spot.what === "sweep" ? 14 : 0))));
    expect(swept.diagnosis.found[0]!.pattern).toBe("sweep");
    const mashed = benchOf(
      asked(round(({ spot }) => (spot.what === "over" ? (spot.side === "left" ? 0.5 : -0.5) : 0))),
    );
    expect(judgeWork(mashed, "mm").map(({ id }) => id)).toContain("edge-off-centre");
  });

  /** Source: geometry; an edge of 2 with 1.35 to come, 0.2 off centre, has 0.125 a side. */
  test("what can still be cleaned off is half of what is over, less what it is off centre and bowed", () => {
    expect(cleanUp(2, 1.35, 0.2, 0)).toBeCloseTo(0.125, 9);
    expect(cleanUp(2, 1.35, -0.2, 0.1)).toBeCloseTo(0.025, 9);
    const bench = benchOf(asked(round(({ spot }) => (spot.what === "flats" ? -0.85 : 0))));
    const told = judgeWork(bench, "mm").find(({ id }) => id === "forge-cleanup")!;
    expect(told.message).toContain("on the flats");
    expect(told.severity).toBe("fix");
  });

  test("other stages have nothing of a blank", () => {
    const { lines } = benchOf({ ...asked([]), stage: "finish" });
    expect(
      lines.some(({ spot }) => ["height-at", "blade-length", "overall", "sweep"].includes(spot.what)),
    ).toBe(false);
  });
});
