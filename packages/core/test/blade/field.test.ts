import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { compileField, thicknessAt } from "../../src/blade/field.ts";
import { drawnLines } from "../../src/blade/lines.ts";
import { massOf, removedBetween, solidBetween } from "../../src/blade/mass.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { stationAt, stationAtX, thicknessAbove } from "../../src/blade/station.ts";
import { constant } from "../../src/blade/table.ts";
import { changed, example } from "../examples.ts";

const names = [
  "field",
  "piece-chisel",
  "piece-offset",
  "piece-hollow",
  "piece-convex",
  "piece-straight",
  "piece-plunge",
];
const somewhere = fc.tuple(
  fc.double({ min: 0, max: 120, noNaN: true }),
  fc.double({ min: -31, max: 1, noNaN: true }),
);
const volume = (blade: Blade) => solidBetween(compileField(blade)).volume;

/** The same blade held up to a mirror: left and right change places. */
function mirrored(blade: Blade): Blade {
  return changed(blade, (copy) => {
    const { edge, bevels } = copy;
    copy.bevels = bevels.left === "same" ? bevels : { right: bevels.left, left: bevels.right };
    edge.angle = { left: edge.angle.right, right: edge.angle.left };
    edge.rightShare = 1 - edge.rightShare;
    const { offset } = edge;
    edge.offset = typeof offset === "number" ? -offset : offset === "left-face" ? "right-face" : "left-face";
  });
}

describe("properties of the field", () => {
  test("a mirrored blade is the same blade with its sides swapped", () => {
    for (const name of names) {
      const blade = example(name);
      const [one, other] = [compileField(blade), compileField(mirrored(blade))];
      expect(solidBetween(other).volume).toBeCloseTo(solidBetween(one).volume, 6);
      const [a, b] = [stationAt(one, 0.6), stationAt(other, 0.6)];
      expect(b.right.grindLine).toEqual(a.left.grindLine);
      expect(b.left.primaryAngle).toEqual(a.right.primaryAngle);
    }
  });

  test("thicker stock, or more behind the edge, never makes a lighter blade or a thinner place", () => {
    const base = example("field");
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 0.3, noNaN: true }),
        somewhere,
        (t, e, [x, y]) => {
          const thicker = changed(base, (copy) => {
            for (const row of copy.thickness) row.t += t;
            for (const row of copy.edge.behind) row.t += e;
          });
          expect(thicknessAt(compileField(thicker), x, y)).toBeGreaterThanOrEqual(
            thicknessAt(compileField(base), x, y) - 1e-9,
          );
        },
      ),
      { numRuns: 60 },
    );
    const heavier = changed(base, (copy) => {
      for (const row of copy.thickness) row.t += 0.4;
    });
    expect(volume(heavier)).toBeGreaterThan(volume(base));
  });

  test("the order of the cuts does not matter: what is left is the lower of what each cut leaves", () => {
    const both = example("field");
    const bevelOnly = changed(both, (copy) => delete copy.falseEdge);
    const falseOnly = changed(both, (copy) => {
      copy.bevels = { right: { kind: "none" }, left: { kind: "none" } };
      copy.edge.start = 12;
    });
    const [a, b, c] = [compileField(both), compileField(bevelOnly), compileField(falseOnly)];
    fc.assert(
      fc.property(somewhere, ([x, y]) => {
        c.sampleAt(x, y);
        const cut = c.right.falseEdge * 2;
        expect(thicknessAt(a, x, y)).toBeCloseTo(Math.min(thicknessAt(b, x, y), Math.max(0, cut)), 9);
      }),
    );
  });

  test("a blade scaled k times weighs k³ times as much, and keeps its angles", () => {
    fc.assert(
      fc.property(fc.constantFrom(...names), fc.double({ min: 0.5, max: 3, noNaN: true }), (name, k) => {
        const blade = example(name);
        const big = changed(blade, (copy) => scale(copy, k));
        expect(volume(big) / volume(blade) / k ** 3).toBeCloseTo(1, 3);
        const [a, b] = [stationAt(compileField(blade), 0.5), stationAt(compileField(big), 0.5)];
        expect(b.right.primaryAngle!).toBeCloseTo(a.right.primaryAngle!, 6);
        expect(b.behind! / k).toBeCloseTo(a.behind!, 6);
      }),
      { numRuns: 25 },
    );
  });

  function scale(blade: Blade, k: number) {
    for (const chain of Object.values(blade.outline)) {
      for (const node of chain) {
        for (const key of ["at", "back", "ahead"] as const) {
          const point = node[key];
          if (point) node[key] = [point[0] * k, point[1] * k];
        }
      }
    }
    for (const row of blade.thickness) Object.assign(row, { x: row.x * k, t: row.t * k });
    for (const row of blade.edge.behind) row.t *= k;
    if (typeof blade.edge.offset === "number") blade.edge.offset *= k;
    for (const bevel of [blade.bevels.right, blade.bevels.left]) {
      if (bevel === "same" || bevel.kind === "none") continue;
      Object.assign(bevel.plunge, { x: bevel.plunge.x * k, radius: bevel.plunge.radius * k });
      if (bevel.kind === "hollow") bevel.wheelDiameter *= k;
      if (bevel.kind === "convex") bevel.bulge *= k;
      if (bevel.set === "height") for (const row of bevel.height) row.h *= k;
    }
    const fe = blade.falseEdge;
    if (fe)
      Object.assign(fe, {
        from: fe.from * k,
        to: fe.to * k,
        land: fe.land * k,
        radius: (fe.radius ?? 0) * k,
      });
    for (const hole of blade.holes ?? [])
      Object.assign(hole, { x: hole.x * k, y: hole.y * k, d: hole.d * k });
  }

  test("thickness is never above the stock and never below nothing", () => {
    for (const name of names) {
      const field = compileField(example(name));
      fc.assert(
        fc.property(somewhere, ([x, y]) => {
          const t = thicknessAt(field, x, y);
          expect(t).toBeGreaterThanOrEqual(0);
          expect(t).toBeLessThanOrEqual(field.right.flat + field.left.flat + 1e-12);
        }),
        { numRuns: 200 },
      );
    }
  });
});

describe("a maker's own questions", () => {
  test("a straight pull thickens the edge round the belly; following does not", () => {
    const base = changed(example("field"), (copy) => {
      delete copy.falseEdge;
      copy.bevels.right = {
        kind: "flat",
        pull: "straight",
        set: "angle",
        angle: 3.5,
        plunge: { x: 12, lean: 0, radius: 4 },
      };
    });
    const straight = compileField(base);
    const [heel, belly] = [stationAt(straight, 0.2), stationAt(straight, 0.75)];
    expect(belly.behind!).toBeGreaterThan(heel.behind! + 0.15);
    const follow = compileField(
      changed(base, (copy) => {
        copy.bevels.right = {
          kind: "flat",
          pull: "follow",
          set: "angle",
          angle: 3.5,
          plunge: { x: 12, lean: 0, radius: 4 },
        };
      }),
    );
    expect(stationAt(follow, 0.75).behind!).toBeCloseTo(0.5 - 0.1 * 0.75, 6);
  });

  test("where the plane never meets the edge bevel below the flat there is no shoulder to read", () => {
    const field = compileField(
      changed(example("field"), (copy) => {
        copy.bevels.right = {
          kind: "flat",
          pull: "straight",
          set: "angle",
          angle: 8,
          plunge: { x: 12, lean: 0, radius: 2 },
        };
        delete copy.falseEdge;
      }),
    );
    const tip = stationAt(field, 0.97);
    expect(tip.right).toMatchObject({ behind: null, grindLine: null, primaryAngle: null });
  });

  test("two edges alike behind but unlike in height are not equally thick: 1.04 mm over 1.96 and 1.42", () => {
    const knife = (alpha: number) =>
      compileField(
        changed(example("prism"), (copy) => {
          copy.edge.behind = [{ u: 0, t: 1.0414 }];
          copy.edge.angle = { left: alpha, right: alpha };
        }),
      );
    const tall = knife(14.91);
    const short = knife(20.11);
    expect(stationAt(tall, 0.5).right.edgeBevel!).toBeCloseTo(1.956, 2);
    expect(thicknessAbove(tall, stationAt(tall, 0.5), 1.422)!).toBeCloseTo(0.757, 2);
    expect(thicknessAbove(short, stationAt(short, 0.5), 1.422)!).toBeCloseTo(1.0414, 2);
  });

  test("holes weigh nothing: a hole through the tang takes its own cylinder away", () => {
    const bare = changed(example("field"), (copy) => delete copy.holes);
    const field = compileField(bare);
    const T = thicknessAt(field, -30, -13);
    const hole = volume(bare) - volume(example("field"));
    // Source: geometry, π r² T; the tang tapers evenly across the hole, so its middle gives the mean.
    expect(hole).toBeCloseTo(Math.PI * 3.175 ** 2 * T, 2);
    expect(massOf(hole, 7.85)).toBeCloseTo((Math.PI * 3.175 ** 2 * T * 7.85) / 1000, 4);
  });

  test("before sharpening the very edge is e₀ thick, and a stage with steel still on is thicker by it", () => {
    const blade = example("prism");
    const rough = compileField(blade, {
      flats: 0.1,
      faces: { left: constant(0.2), right: constant(0.2) },
      edgeBevel: false,
      falseEdge: false,
    });
    const beta = (6.9706917 * Math.PI) / 180;
    const e0 = 0.5 * (1 - Math.tan(beta) / Math.tan((20 * Math.PI) / 180));
    expect(thicknessAt(rough, 50, -30)).toBeCloseTo(e0 + (2 * 0.2) / Math.cos(beta), 6);
    expect(thicknessAt(rough, 50, -2)).toBeCloseTo(4.2, 9);
    for (let y = -30; y <= 0; y += 0.5) {
      expect(thicknessAt(rough, 40, y)).toBeGreaterThanOrEqual(thicknessAt(compileField(blade), 40, y));
    }
  });
});

test("what comes off between two stages is their difference: 0.1 a side off a bar's flats is its area times 0.2", () => {
  // Source: geometry.
  const bar = changed(example("prism"), (blade) => {
    blade.bevels = { right: { kind: "none" }, left: { kind: "none" } };
    blade.edge = { behind: [{ u: 0, t: 0 }], angle: { left: 0, right: 0 }, rightShare: 0.5, offset: 0 };
  });
  const none = { left: constant(0), right: constant(0) };
  const rough = compileField(bar, { flats: 0.1, faces: none, edgeBevel: false, falseEdge: false });
  const { volume, mass } = removedBetween(rough, compileField(bar), 7.85);
  expect(volume).toBeCloseTo(100 * 30 * 0.2, 6);
  expect(mass).toBeCloseTo(4.71, 6);
});

test("a station is found by its abscissa as by its share of the edge", () => {
  const field = compileField(example("field"));
  const byX = stationAtX(field, 60)!;
  expect(byX.x).toBeCloseTo(60, 6);
  expect(stationAt(field, byX.u).height).toBeCloseTo(byX.height, 9);
  expect(stationAtX(field, -40)).toBeNull();
});

test("a false edge's line is where it meets what lies below it", () => {
  const field = compileField(example("field"));
  const line = drawnLines(field).falseEdge.right!;
  expect(line.length).toBeGreaterThan(15);
  for (const [x, y] of line.slice(2, -2)) {
    field.sampleAt(x, y);
    const { falseEdge, flat, primary } = field.right;
    expect(falseEdge).toBeCloseTo(Math.min(flat, primary), 5);
  }
});
