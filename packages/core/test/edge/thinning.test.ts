import { areaPathsD, differenceD, FillRule } from "clipper2-ts";
import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { stationAt, thicknessAbove } from "../../src/blade/station.ts";
import { servedBlade } from "../../src/design/served.ts";
import { wornAt } from "../../src/edge/life.ts";
import { NO_EDGE } from "../../src/edge/schema.ts";
import { hinge, parallel, relief } from "../../src/edge/thinning.ts";
import { judgeEdge } from "../../src/findings/edge.ts";
import { edgeReport } from "../../src/route/edge-report.ts";
import { firstRoute } from "../../src/route/first.ts";
import { thinReport, toComeOff } from "../../src/route/thin-report.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { changed, example } from "../examples.ts";
import { prism } from "./prism.ts";

const rad = (degrees: number) => (degrees * Math.PI) / 180;
const asked = (more: Partial<Parameters<typeof thinReport>[0]> = {}) => ({
  blade: prism,
  shop: USUAL_SHOP,
  which: "first" as const,
  thin: { way: "parallel" as const, wanted: [] },
  lost: 1,
  ...more,
});

describe("three ways of thinning by 0.125 at 3°", () => {
  test("parallel: half of it a face, square to it; the line climbs by the tangent", () => {
    const way = parallel(0.125, 3);
    expect(way.off).toBeCloseTo(0.0625 * Math.cos(rad(3)), 9);
    expect(way.climbs).toBeCloseTo(0.125 / (2 * Math.tan(rad(3))), 9);
  });

  test("by the line half the volume, a facet up to a height z of z/2b, each steeper", () => {
    const about = hinge(0.125, 3, 20);
    expect(about.share).toBe(0.5);
    expect(Math.tan(rad(about.angle!))).toBeCloseTo(Math.tan(rad(3)) + 0.125 / 40, 9);
    expect(about.climbs).toBe(0);
    expect(relief(0.125, 3, { rise: 20, height: 8 }).share).toBeCloseTo(0.2, 9);
  });

  test("volumes by polygons clipped off one another: parallel is the strip, by the line a triangle, a relief less", () => {
    // One flank from the shoulder at 0 up to its line at 20 and its flat above: what lies between it and the thinned one.
    const [b, slope, by] = [20, Math.tan(rad(3)), 0.125 / 2];
    const flank = (dy: (x: number) => number): [number, number][] => {
      const xs = [0, 8, b];
      return [...xs.map((x): [number, number] => [x, slope * x + dy(x)]), [b, -5], [0, -5]];
    };
    const path = (points: readonly [number, number][]) => [points.map(([x, y]) => ({ x, y }))];
    const taken = (dy: (x: number) => number) =>
      Math.abs(areaPathsD(differenceD(path(flank(() => 0)), path(flank(dy)), FillRule.NonZero, 8)));
    const whole = taken(() => -by);
    expect(taken((x) => -by * (1 - x / b)) / whole).toBeCloseTo(hinge(0.125, 3, b).share, 9);
    expect(taken((x) => -by * Math.max(0, 1 - x / 8)) / whole).toBeCloseTo(
      relief(0.125, 3, { rise: b, height: 8 }).share,
      9,
    );
  });
});

describe("the report", () => {
  test("back to what was ground after 1 of height: 0.125 to go, 0.0624 a face, the line climbs 1.193; by hand below 0.25", () => {
    const report = thinReport(asked())!;
    const [, middle] = report.places;
    expect(middle!.now).toBeCloseTo(0.625, 3);
    expect(middle!.by).toBeCloseTo(0.125, 3);
    expect(middle!.faces.right!.off).toBeCloseTo(0.0624, 3);
    expect(middle!.faces.right!.climbs).toBeCloseTo(1.193, 2);
    expect(report.isByHand).toBe(false);
    // At 3° the bevel of this bar runs up to its spine: nowhere to climb.
    const face = (30 - 0.769) / Math.cos(rad(3));
    expect(report.volume / (2 * 0.0624 * face * (0.95 - 0.1) * 100)).toBeCloseTo(1, 1);
    expect(report.runsOut).toBe(true);
    const thin = thinReport(asked({ thin: { way: "hinge", wanted: [{ u: 0, t: 0.2 }] } }))!;
    expect(thin.isByHand).toBe(true);
    expect(thin.with).toMatch(/plate|stone/);
    expect(thin.runsOut).toBe(false);
  });

  test("each face by its own angle: 3° beside 6°, and a face that is not ground keeps what it has", () => {
    const unlike = changed(prism, (copy) => {
      copy.bevels = { ...copy.bevels, left: { ...(copy.bevels.right as object), angle: 6 } as never };
    });
    const [, middle] = thinReport(
      asked({ blade: unlike, thin: { way: "parallel", wanted: [{ u: 0, t: 0.3 }] } }),
    )!.places;
    const { left, right } = middle!.faces;
    const half = (middle!.now - 0.3) / 2;
    expect(right!.climbs).toBeCloseTo(half / Math.tan(rad(3)), 4);
    expect(left!.climbs).toBeCloseTo(half / Math.tan(rad(6)), 4);
    expect(right!.off).toBeCloseTo(half * Math.cos(rad(3)), 4);
    expect(left!.off).toBeCloseTo(half * Math.cos(rad(6)), 4);

    const chisel = example("piece-chisel");
    const one = thinReport(asked({ blade: chisel, thin: { way: "parallel", wanted: [{ u: 0, t: 0.2 }] } }))!;
    const ground = chisel.bevels.right.kind === "none" ? "left" : "right";
    const other = ground === "left" ? "right" : "left";
    const { faces, by } = one.places[1]!;
    expect(faces[other]).toBeNull();
    const beta = stationAt(compileField(chisel), 0.5)[ground].primaryAngle!;
    // The bench is given that face alone, as deep as it is told.
    const [given, ...more] = toComeOff(one, "first");
    expect(more).toEqual([]);
    expect(given!.side).toBe(ground);
    expect(given!.off.map(({ t }) => t)).toEqual(one.places.map((place) => place.faces[ground]!.off));
    expect([given!.from, given!.to]).toEqual([one.places[0]!.x, one.places[2]!.x]);
    expect(given!.passes).toBe(Math.max(1, Math.round(Math.max(...given!.off.map(({ t }) => t)) / 0.02)));
    // One face takes all of it.
    expect(faces[ground]!.off).toBeCloseTo(by * Math.cos(rad(beta)), 4);
  });

  test("what was read behind the edge counts before what was reckoned; wanted along the edge by its own table", () => {
    const report = thinReport(
      asked({
        read: [
          { u: 0.1, t: 0.8 },
          { u: 0.9, t: 0.6 },
        ],
        thin: {
          way: "parallel",
          wanted: [
            { u: 0, t: 0.4 },
            { u: 1, t: 0.3 },
          ],
        },
      }),
    )!;
    expect(report.places.map(({ now }) => now)).toEqual([
      expect.closeTo(0.8, 9),
      expect.closeTo(0.7, 9),
      expect.closeTo(0.6, 9),
    ]);
    expect(report.places[1]!.wanted).toBeCloseTo(0.35, 9);
  });
});

test("a line that would pass the spine is told, and thinning about it at a press is not", () => {
  const asks = {
    blade: prism,
    route: firstRoute(prism),
    shop: USUAL_SHOP,
    edge: NO_EDGE,
    which: "first" as const,
    done: [],
  };
  const told = judgeEdge(asks, edgeReport(asks)!, "mm", thinReport(asked())).find(
    ({ id }) => id === "thinning-runs-out",
  )!;
  expect(told.message).toContain("heel, middle, tip");
  const { edge } = told.offers[0]!;
  const again = thinReport(asked({ thin: edge.thin! }));
  expect(judgeEdge({ ...asks, edge }, edgeReport(asks)!, "mm", again).map(({ id }) => id)).not.toContain(
    "thinning-runs-out",
  );
});

test("what must be put right comes before what is to be watched, whichever rule found it", () => {
  const flat = { edge: "first", kind: "finish", angle: { left: 2, right: 2 }, to: 14 } as const;
  const asks = {
    blade: prism,
    route: firstRoute(prism),
    shop: USUAL_SHOP,
    edge: { ...NO_EDGE, steps: [flat] },
    which: "first" as const,
    done: [],
  };
  const told = judgeEdge(asks, edgeReport(asks)!, "mm", thinReport(asked()));
  const severities = told.map(({ severity }) => severity);
  expect(told.map(({ id }) => id)).toEqual(
    expect.arrayContaining(["edge-lies-on-face", "thinning-runs-out"]),
  );
  expect(severities).toEqual(severities.toSorted((a, b) => RANK[a] - RANK[b]));
  expect(severities[0]).toBe("fix");
});
const RANK = { fix: 0, watch: 1, note: 2 } as const;

describe("a blade as it stands", () => {
  test.each(["field", "prism", "piece-hollow", "piece-convex", "piece-full"])(
    "%s after 0.6 of height: drawn lower, as thick as the worn field says",
    (name) => {
      const blade = name === "prism" ? prism : example(name);
      const served = servedBlade(blade, 0.6)!;
      expect(served).not.toBeNull();
      const [field, now] = [compileField(blade), compileField(served)];
      for (const u of [0.25, 0.5, 0.75]) {
        const [old, station] = [stationAt(field, u), stationAt(now, u)];
        expect(station.height).toBeCloseTo(old.height - 0.6, 0);
        expect(station.behind!).toBeCloseTo(wornAt(field, u, 0.6).behind!, 1);
        // The same steel at the same place of the side view.
        for (const y of [3, 6]) {
          const before = thicknessAbove(field, old, y + 0.6);
          const after = thicknessAbove(now, station, y);
          expect(Math.abs(before! - after!)).toBeLessThan(0.06);
        }
      }
    },
  );

  test("nothing lost, nothing changed; more than there is makes no blade", () => {
    expect(servedBlade(prism, 0)).toBe(prism);
    expect(servedBlade(prism, 60)).toBeNull();
  });
});
