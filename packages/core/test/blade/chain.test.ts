import { Bezier } from "bezier-js";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { compileChain, firstAtX, placeAt } from "../../src/blade/chain.ts";
import { nearest, newFoot } from "../../src/blade/nearest.ts";
import { compileRing, exitAlong, isInside, spansAt } from "../../src/blade/outline.ts";
import { example } from "../examples.ts";

const node = (x: number, y: number, back?: [number, number], ahead?: [number, number]) => ({
  at: [x, y] as [number, number],
  ...(back ? { back } : {}),
  ...(ahead ? { ahead } : {}),
});

/** Source: bezier-js 6.1.4, a general-purpose curve library, on the same control points. */
describe("against a general-purpose curve library", () => {
  const coordinate = fc.double({ min: -40, max: 40, noNaN: true });
  const belly = fc.tuple(coordinate, coordinate, coordinate, coordinate);

  test("arc length", () => {
    fc.assert(
      fc.property(belly, ([a, b, c, d]) => {
        const chain = compileChain([node(0, 0, undefined, [a, b]), node(100, -10, [c, d])]);
        const library = new Bezier(0, 0, a, b, 100 + c, -10 + d, 100, -10);
        // Its own quadrature is coarse at cusps, so its points are joined up instead.
        const points = library.getLUT(8000);
        const joined = points
          .slice(1)
          .reduce((sum, p, i) => sum + Math.hypot(p.x - points[i]!.x, p.y - points[i]!.y), 0);
        expect(Math.abs(chain.length - joined)).toBeLessThan(1e-4);
      }),
      { numRuns: 60 },
    );
  });

  test("nearest place", () => {
    fc.assert(
      fc.property(belly, fc.double({ min: -30, max: 130, noNaN: true }), coordinate, ([a, b, c, d], x, y) => {
        const chain = compileChain([node(0, 0, undefined, [a, b]), node(100, -10, [c, d])]);
        const foot = newFoot();
        nearest(chain, x, y, foot);
        const library = new Bezier(0, 0, a, b, 100 + c, -10 + d, 100, -10);
        const points = library.getLUT(4000);
        const wanted = Math.min(...points.map((p) => Math.hypot(p.x - x, p.y - y)));
        expect(Math.abs(foot.d - wanted)).toBeLessThan(0.003);
        expect(foot.d).toBeLessThanOrEqual(wanted + 5e-5);
        const there = placeAt(chain, foot.s);
        expect(Math.hypot(there.x - foot.x, there.y - foot.y)).toBeLessThan(0.002);
      }),
      { numRuns: 150 },
    );
  });
});

test("asked on from place to place it answers as when it is asked afresh, also where a curve bends tightest at its very end", () => {
  const nodes = [node(0, 0, undefined, [-16.1, 26.75]), node(60, -10, [-1.34, -2.18])];
  const [on, afresh] = [newFoot(), newFoot()];
  for (const [fromX, fromY] of [
    [57, -8],
    [59, -7],
    [56, -9],
    [58, -12],
  ] as const) {
    const chain = compileChain(nodes);
    for (let k = 0; k <= 40; k++) {
      const [x, y] = [fromX + ((60.5 - fromX) * k) / 40, fromY + ((-9.3 - fromY) * k) / 40];
      nearest(chain, x, y, on);
      nearest(compileChain(nodes), x, y, afresh);
      expect(on.d, `${x}, ${y}`).toBeCloseTo(afresh.d, 9);
    }
  }
});

describe("a chain", () => {
  test("of straight lines measures their lengths", () => {
    const chain = compileChain([node(0, 0), node(30, 0), node(30, 40)]);
    expect(chain.length).toBeCloseTo(70, 9);
    expect(placeAt(chain, 50)).toMatchObject({ x: 30, y: 20, tx: 0, ty: 1 });
  });

  test("of a quarter circle drawn as one cubic is within the drawing's own error of the circle", () => {
    // Source: geometry; the usual handle of 0.5523 r keeps a cubic within 0.03 % of a quarter circle.
    const k = 55.228475;
    const chain = compileChain([node(100, 0, undefined, [0, k]), node(0, 100, [k, 0])]);
    expect(Math.abs(chain.length / (50 * Math.PI) - 1)).toBeLessThan(0.0003);
    const foot = newFoot();
    nearest(chain, 30, 40, foot);
    expect(foot.d).toBeCloseTo(50, 1);
    expect(foot.x / foot.y).toBeCloseTo(0.75, 2);
  });

  test("starts along its first handle, or toward the next control point where it has none", () => {
    expect(compileChain([node(0, 0, undefined, [0, 5]), node(50, 0)]).startTangent).toEqual([0, 1]);
    expect(compileChain([node(0, 0), node(50, 0, [-50, 20])]).startTangent).toEqual([0, 1]);
    expect(compileChain([node(0, 0), node(3, 4)]).startTangent).toEqual([0.6, 0.8]);
  });

  test("is found at an abscissa at its first place there", () => {
    const chain = compileChain([node(0, 0), node(50, 0), node(20, 30), node(80, 60)]);
    expect(firstAtX(chain, 30)).toBeCloseTo(30, 9);
    expect(firstAtX(chain, 90)).toBeNull();
    const s = firstAtX(chain, 70)!;
    expect(placeAt(chain, s).x).toBeCloseTo(70, 9);
  });
});

describe("an outline", () => {
  const ring = compileRing(example("field").outline);

  test("knows its inside, its spans and how far a ray goes", () => {
    expect(isInside(ring, 50, -10)).toBe(true);
    expect(isInside(ring, 50, 5)).toBe(false);
    expect(isInside(ring, 6, -28)).toBe(false);
    const [[bottom, top]] = spansAt(ring, -50) as [[number, number]];
    expect(top).toBeCloseTo((-50 * 0) / 112, 6);
    expect(bottom).toBeCloseTo(-24, 9);
    expect(exitAlong(ring, -50, -24, 0, 1)).toBeCloseTo(24, 6);
  });

  test("every span's ends lie on the outline and its middle inside", () => {
    for (let x = -111; x < 125; x += 3.7) {
      for (const [bottom, top] of spansAt(ring, x)) {
        expect(isInside(ring, x, (bottom + top) / 2)).toBe(true);
        expect(isInside(ring, x, bottom - 0.01)).toBe(false);
        expect(isInside(ring, x, top + 0.01)).toBe(false);
      }
    }
  });
});
