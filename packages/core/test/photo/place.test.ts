import fc from "fast-check";
import { applyToPoint, compose, rotateDEG, scale, translate } from "transformation-matrix";
import { describe, expect, test } from "vitest";
import {
  apart,
  climb,
  firstPlace,
  laid,
  mirrored,
  remarked,
  scaled,
  shifted,
  toBlade,
  toPhoto,
  turned,
} from "../../src/photo/place.ts";
import { NO_PHOTO, NO_PLACE, type PhotoPlace } from "../../src/photo/schema.ts";
import { parseDocument } from "../../src/registry/documents.ts";

const coordinate = fc.double({ min: -300, max: 300, noNaN: true });
const pair = fc.tuple(coordinate, coordinate);
const places = fc
  .record({ one: pair, two: pair, from: pair, to: pair, isMirrored: fc.boolean() })
  .filter(({ one, two, from, to }) => {
    return (
      Math.hypot(one[0] - two[0], one[1] - two[1]) > 2 && Math.hypot(from[0] - to[0], from[1] - to[1]) > 2
    );
  })
  .map(
    ({ one, two, from, to, isMirrored }): PhotoPlace => ({
      ...NO_PLACE,
      isMirrored,
      marks: [
        { photo: one, blade: from },
        { photo: two, blade: to },
      ],
    }),
  );
const near = (a: readonly number[], b: readonly number[]) => {
  expect(a[0]).toBeCloseTo(b[0]!, 5);
  expect(a[1]).toBeCloseTo(b[1]!, 5);
};

describe("a photo under a blade", () => {
  test("lies with its marks on the blade's places, whichever way it is turned or mirrored", () => {
    fc.assert(
      fc.property(places, (place) => {
        for (const { photo, blade } of place.marks) near(toBlade(laid(place), photo), blade);
      }),
    );
  });

  test("is never stretched out of shape: every two spots lie as far apart as the scale says", () => {
    fc.assert(
      fc.property(places, pair, pair, (place, p, q) => {
        const [one, two] = place.marks;
        const scale = apart(place) / Math.hypot(two.photo[0] - one.photo[0], two.photo[1] - one.photo[1]);
        const [a, b] = [toBlade(laid(place), p), toBlade(laid(place), q)];
        const wanted = scale * Math.hypot(p[0] - q[0], p[1] - q[1]);
        expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeCloseTo(wanted, 4);
      }),
    );
  });

  test("agrees with a general-purpose matrix library on a photo turned by 30° at 0.2 mm a pixel", () => {
    // Pixels run down, the blade's axes up: the library is given that flip first.
    const rule = compose(translate(12, -7), rotateDEG(30), scale(0.2), scale(1, -1));
    const at = (u: number, v: number) => {
      const { x, y } = applyToPoint(rule, { x: u, y: v });
      return [x, y] as [number, number];
    };
    const place: PhotoPlace = {
      ...NO_PLACE,
      marks: [
        { photo: [10, 20], blade: at(10, 20) },
        { photo: [400, 90], blade: at(400, 90) },
      ],
    };
    near(toBlade(laid(place), [250, 300]), at(250, 300));
    near(toPhoto(laid(place), at(250, 300)), [250, 300]);
  });

  test("takes its scale from what is typed between the marks, about the first", () => {
    fc.assert(
      fc.property(places, fc.double({ min: 5, max: 400, noNaN: true }), (place, mm) => {
        const next = scaled(place, mm);
        expect(apart(next)).toBeCloseTo(mm, 6);
        near(toBlade(laid(next), place.marks[0].photo), place.marks[0].blade);
        expect(climb(next)).toBeCloseTo(climb(place), 6);
      }),
    );
  });

  test("stays where it lies while a mark is taken elsewhere", () => {
    fc.assert(
      fc.property(places, pair, fc.constantFrom(0, 1), (place, to, index) => {
        const other = place.marks[1 - index]!.blade;
        fc.pre(Math.hypot(to[0] - other[0], to[1] - other[1]) > 2);
        const next = remarked(place, index as 0 | 1, to);
        for (const spot of [
          [0, 0],
          [300, 40],
          [20, 500],
        ] as const) {
          near(toBlade(laid(next), spot), toBlade(laid(place), spot));
        }
        near(toBlade(laid(next), next.marks[index]!.photo), to);
      }),
    );
  });

  test("is shifted, levelled, and mirrored between its marks", () => {
    const place = firstPlace(
      { data: "", width: 800, height: 400 },
      { left: -110, right: 120, top: 0, bottom: -30 },
      0.5,
    );
    near(toBlade(laid(place), [0, 200]), [-110, -15]);
    near(toBlade(laid(place), [800, 200]), [120, -15]);
    // 230 mm over 800 pixels; half the height above the middle line.
    near(toBlade(laid(place), [0, 0]), [-110, -15 + (200 * 230) / 800]);
    near(toBlade(laid(shifted(place, 3, -2)), [0, 200]), [-107, -17]);
    expect(climb(turned(turned(place, 12), 0))).toBeCloseTo(0, 9);
    near(toBlade(laid(mirrored(place)), [0, 0]), [120, -15 + (200 * 230) / 800]);
    expect(mirrored(mirrored(place))).toEqual(place);
  });
});

describe("a photo's documents at the border", () => {
  const picture = { data: "data:image/jpeg;base64,/9j/4AAQ", width: 10, height: 8 };
  test("a small JPEG and its place are taken", () => {
    expect(parseDocument("photo", { ...NO_PHOTO, picture }).ok).toBe(true);
    expect(parseDocument("photo", NO_PHOTO).ok).toBe(true);
    expect(parseDocument("photoPlace", NO_PLACE).ok).toBe(true);
  });

  test.each([
    ["a picture from elsewhere", { ...picture, data: "https://example.org/knife.jpg" }],
    ["one that can carry a script", { ...picture, data: "data:image/svg+xml;base64,PHN2Zz4=" }],
    ["one that is too large", { ...picture, data: `data:image/png;base64,${"A".repeat(450_000)}` }],
    ["one with too many pixels", { ...picture, width: 1201 }],
    ["one with something more", { ...picture, taken: "yesterday" }],
  ])("%s is refused with its path", (_, wrong) => {
    const parsed = parseDocument("photo", { ...NO_PHOTO, picture: wrong });
    expect(parsed.ok ? [] : parsed.faults.map((fault) => fault.path).join()).toMatch(
      /^picture|^\$?\.?picture/,
    );
  });

  test("two marks on one spot say nothing of the scale, and are refused", () => {
    const marks = [NO_PLACE.marks[0], { photo: [0.2, 0], blade: [50, 0] }];
    expect(parseDocument("photoPlace", { ...NO_PLACE, marks })).toMatchObject({
      ok: false,
      faults: [{ message: "must lie at least 1 pixel from the first mark" }],
    });
  });
});
