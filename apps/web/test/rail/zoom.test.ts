import fc from "fast-check";
import { expect, test } from "vitest";
import { scaleFor } from "../../src/rail/scale.ts";
import { panned, pinched, showing, zoomed } from "../../src/rail/zoom.ts";

const all = { from: -14, to: 186 };

test("the place looked at stays where it is", () => {
  const near = zoomed(all, all, 86, 2)!;
  expect(near.to - near.from).toBeCloseTo(100, 9);
  expect((86 - near.from) / (near.to - near.from)).toBeCloseTo((86 - all.from) / (all.to - all.from), 9);
});

test("far enough out it is all shown, and never nearer than can be used", () => {
  expect(zoomed({ from: 0, to: 150 }, all, 20, 0.5)).toBeNull();
  const nearest = zoomed({ from: 50, to: 63 }, all, 55, 100)!;
  expect(nearest.to - nearest.from).toBeCloseTo(12, 9);
});

test("whatever is asked, the view stays on the blade and its scribe in the view", () => {
  const place = fc.double({ min: -14, max: 186, noNaN: true });
  fc.assert(
    fc.property(
      place,
      place,
      fc.double({ min: 1.01, max: 20, noNaN: true }),
      place,
      (about, x, factor, by) => {
        const near = zoomed(all, all, about, factor)!;
        for (const view of [near, panned(near, all, by), showing(near, all, x)]) {
          expect(view.from).toBeGreaterThanOrEqual(all.from - 1e-9);
          expect(view.to).toBeLessThanOrEqual(all.to + 1e-9);
        }
        const view = showing(near, all, x);
        expect(x).toBeGreaterThanOrEqual(view.from - 1e-9);
        expect(x).toBeLessThanOrEqual(view.to + 1e-9);
      },
    ),
  );
});

test("two fingers keep the places they took hold of, as far as there is blade to show", () => {
  const scale = scaleFor(all.from, all.to, 900, { left: 64, right: 28 });
  const [one, two] = [
    { px: 300, mm: scale.mm(400) },
    { px: 700, mm: scale.mm(500) },
  ];
  const view = pinched(scale, all, one, two)!;
  const near = scaleFor(view.from, view.to, 900, { left: 64, right: 28 });
  expect(near.px(one.mm)).toBeCloseTo(300, 6);
  expect(near.px(two.mm)).toBeCloseTo(700, 6);
  // Fingers brought together show it all again; crossed, they change nothing.
  expect(pinched(scale, all, { px: 400, mm: 20 }, { px: 410, mm: 120 })).toBeNull();
  expect(pinched(scale, all, { px: 500, mm: 20 }, { px: 400, mm: 120 })).toEqual(all);
});
