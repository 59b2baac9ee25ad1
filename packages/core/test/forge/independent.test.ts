import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { compileRing, isInside, ringPoints } from "../../src/blade/outline.ts";
import { blankOf } from "../../src/forge/blank.ts";
import { sectionsOf } from "../../src/forge/map.ts";
import { NO_FORGE } from "../../src/forge/schema.ts";
import { setDown } from "../../src/forge/set-down.ts";
import { example } from "../examples.ts";

/**
 * The forging held to ways of working it out that share no code with it: a bar struck strip by strip, and an outline grown point by
 * point.
 */

/** A bar of strips, each flattened in many light blows: every blow lengthens and widens a strip by its own thinning, and the bar stays whole by turning and stretching as a body. */
function struck(W: number, T: number, b: number, e: number, toWidth: number) {
  const count = 600;
  const blows = 400;
  const kept = W - b;
  const strips = Array.from({ length: count }, (_, i) => ({
    y: ((i + 0.5) / count) * W,
    w: W / count,
    t: T,
  }));
  const goal = strips.map(({ y }) => (y <= kept ? T : T - ((T - e) * (y - kept)) / b));
  let [length, turned] = [1, 0];
  for (let blow = 0; blow < blows; blow++) {
    const free: number[] = [];
    strips.forEach((strip, i) => {
      const next = T * (goal[i]! / T) ** ((blow + 1) / blows);
      const thinned = Math.log(strip.t / next);
      strip.t = next;
      strip.w *= Math.exp(toWidth * thinned);
      free.push((1 - toWidth) * thinned);
    });
    let at = 0;
    for (const strip of strips) {
      strip.y = at + strip.w / 2;
      at += strip.w;
    }
    // No force along the bar and no moment: the straight line through what the strips would do, by their areas.
    let [a, ay, ayy, f, fy] = [0, 0, 0, 0, 0];
    strips.forEach(({ y, w, t }, i) => {
      const area = w * t;
      a += area;
      ay += area * y;
      ayy += area * y * y;
      f += area * free[i]!;
      fy += area * free[i]! * y;
    });
    const slope = (a * fy - ay * f) / (a * ayy - ay * ay);
    const mean = f / a;
    turned += slope * length;
    length *= Math.exp(mean);
  }
  const width = strips.reduce((sum, { w }) => sum + w, 0);
  return { width, length, turn: turned / length };
}

describe("a bevel struck strip by strip", () => {
  test.each([
    [1, 25.436],
    [0.9, 25.943],
    [0.8, 26.477],
  ])("with %d to width the bar that it came from is as wide as the relation says", (toWidth, wide) => {
    const K = { T: 5.2, W: 32, b: 21.333, e: 2 };
    // The upper strip is what it was; below it, wide enough that it comes out 21.333 high.
    const shrunk = (() => {
      let [low, high] = [5, 21.333];
      for (let i = 0; i < 40; i++) {
        const b0 = (low + high) / 2;
        const made = struck(K.W - K.b + b0, K.T, b0, K.e, toWidth).width;
        if (made < K.W) low = b0;
        else high = b0;
      }
      return (low + high) / 2;
    })();
    const bar = K.W - K.b + shrunk;
    const { length, turn } = struck(bar, K.T, shrunk, K.e, toWidth);
    const relation = setDown(K, toWidth);
    expect(relation.before).toBeCloseTo(wide, 2);
    // Blow by blow strips flow as they thin, which the relation takes in one step: near, and in the same order.
    expect(Math.abs(length / relation.stretch - 1)).toBeLessThan(0.012);
    expect(Math.abs(bar / relation.before - 1)).toBeLessThan(0.05);
    if (toWidth === 1) expect(Math.abs(turn)).toBeLessThan(1e-9);
    else expect(Math.abs(turn / relation.turn - 1)).toBeLessThan(0.3);
  });
});

describe("the blank's outline grown point by point", () => {
  test("as much area as every point within 1.5 of the outline, and no other", () => {
    const blade = example("field");
    const ring = compileRing(blade.outline);
    const points = ringPoints(ring);
    const grow = 1.5;
    const forge = {
      ...NO_FORGE,
      blank: { ...NO_FORGE.blank, grow: { spine: grow, edge: grow, tang: grow } },
    };
    const blank = blankOf(compileField(blade), forge, { flats: 0 });
    const isNear = (x: number, y: number) =>
      points.some(([ax, ay], i) => {
        const [bx, by] = points[(i + 1) % points.length]!;
        const [dx, dy] = [bx - ax, by - ay];
        const size = dx * dx + dy * dy;
        const t = size > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / size)) : 0;
        return (x - ax - t * dx) ** 2 + (y - ay - t * dy) ** 2 <= grow * grow;
      });
    let wrong = 0;
    let count = 0;
    for (let x = ring.left - 3; x < ring.right + 3; x += 1.37) {
      for (let y = ring.bottom - 3; y < ring.top + 3; y += 0.61) {
        const theirs = isInside(ring, x, y) || isNear(x, y);
        const ours = blank.spans(x).some(([low, high]) => y >= low && y <= high);
        count++;
        if (theirs !== ours) wrong++;
      }
    }
    expect(count).toBeGreaterThan(5000);
    expect(wrong).toBeLessThanOrEqual(2);
  });

  test("its volume summed in columns of its own agrees with its sections", () => {
    const blank = blankOf(compileField(example("field")), NO_FORGE, { flats: 0.1 });
    const sections = sectionsOf(blank, 1);
    const ours = sections
      .slice(1)
      .reduce(
        (sum, section, i) => sum + ((section.area + sections[i]!.area) / 2) * (sections[i]!.x - section.x),
        0,
      );
    let theirs = 0;
    const step = 0.8;
    for (let x = blank.left + step / 2; x < blank.right; x += step) {
      for (const [low, high] of blank.spans(x)) {
        const rows = 60;
        for (let i = 0; i < rows; i++) {
          const y = low + ((i + 0.5) / rows) * (high - low);
          theirs += ((blank.half("right", x, y) + blank.half("left", x, y)) * step * (high - low)) / rows;
        }
      }
    }
    expect(Math.abs(ours / theirs - 1)).toBeLessThan(0.002);
  });
});
