import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { assembled } from "../src/contours.ts";
import type { Path, Point } from "../src/drawing.ts";
import { laid, levelled } from "../src/outline-from.ts";
import { reversed, signedArea } from "../src/path.ts";

/** Loose lines put together into an outline, in whatever order and direction a program wrote them. */
const line = (...points: Point[]): Path => ({
  start: points[0]!,
  pieces: points.slice(1).map((to) => ({ to })),
  isClosed: false,
});
const sidesOf = (ring: readonly Point[]) => ring.map((point, i) => line(point, ring[(i + 1) % ring.length]!));
const read = (paths: readonly Path[]) => assembled(paths, [], 1, []);
function outline(paths: readonly Path[]) {
  const result = read(paths);
  if (!result.ok) throw new Error(result.why);
  const { contours, notes } = result.drawing;
  return { area: Math.abs(signedArea(contours[0]!)), contours, notes };
}
/** A blade of 200 by 40 with its tip cut: 8000 − 30·40/2. */
const BLADE: Point[] = [
  [0, 0],
  [60, 0],
  [170, 0],
  [200, 40],
  [60, 40],
  [0, 40],
];
const AREA = 200 * 40 - (30 * 40) / 2;

describe("a line across the outline", () => {
  const plunge = line([60, 0], [60, 40]);
  test.each([
    ["before", [plunge, ...sidesOf(BLADE)]],
    ["after", [...sidesOf(BLADE), plunge]],
    ["in between, backwards", [...sidesOf(BLADE).slice(0, 3), reversed(plunge), ...sidesOf(BLADE).slice(3)]],
  ])("drawn %s it never cuts the blade in two", (_, paths) => {
    const { area, contours, notes } = outline(paths);
    expect(area).toBeCloseTo(AREA, 9);
    expect(contours).toHaveLength(1);
    expect(notes).toEqual(["1 open line left out."]);
  });

  test("several, that cross one another too, and lines that lead nowhere", () => {
    const more = [
      plunge,
      line([170, 0], [60, 40]),
      line([0, 0], [0, 40]),
      line([60, 40], [75, 20]),
      line([75, 20], [90, 25]),
      line([200, 40], [230, 60]),
    ];
    const { area } = outline([...more, ...sidesOf(BLADE)]);
    expect(area).toBeCloseTo(AREA, 9);
  });

  test("two blades on a bridge are two, and the larger comes first", () => {
    const small = BLADE.map(([x, y]): Point => [x / 2 + 300, y / 2]);
    const { contours, area } = outline([line([200, 40], [300, 0]), ...sidesOf(small), ...sidesOf(BLADE)]);
    expect(area).toBeCloseTo(AREA, 9);
    expect(contours.map((path) => Math.abs(signedArea(path)))).toContainEqual(expect.closeTo(AREA / 4, 9));
  });
});

test("a line drawn along what shall be level makes it so, the shorter way round", () => {
  const laying = { contour: 0, mmPerUnit: 1, flipX: false, flipY: false, turn: 0 };
  const read = assembled(sidesOf(BLADE), [], 1, []);
  if (!read.ok) throw new Error(read.why);
  for (const turn of [0, 7.3, -100, 179]) {
    const before = { ...laying, turn };
    const spine = laid(read.drawing, before).path;
    const line = [spine.start, spine.pieces[0]!.to] as const;
    for (const way of [line, [line[1], line[0]] as const]) {
      const after = levelled(before, way)!;
      const [from, to] = [laid(read.drawing, after).path.start, laid(read.drawing, after).path.pieces[0]!.to];
      expect(to[1]).toBeCloseTo(from[1], 9);
      expect(Math.abs(((((after.turn - turn) % 360) + 540) % 360) - 180)).toBeLessThanOrEqual(90);
      expect(Math.abs(after.turn)).toBeLessThanOrEqual(180);
    }
  }
  expect(
    levelled(laying, [
      [3, 4],
      [3, 4],
    ]),
  ).toBeNull();
});

describe("gaps: one rule, half a hundredth of the drawing's size", () => {
  /** Sides that each stop so far short of the next. */
  const short = (by: number) =>
    sidesOf(BLADE).map(({ start, pieces }) => {
      const [to] = pieces.map((piece) => piece.to) as [Point];
      const long = Math.hypot(to[0] - start[0], to[1] - start[1]);
      const share = by / long;
      return line(start, [to[0] + (start[0] - to[0]) * share, to[1] + (start[1] - to[1]) * share]);
    });

  test("of a hundredth of a millimetre at every corner are closed, and told with their widest", () => {
    const { area, notes } = outline(short(0.01));
    expect(area / AREA).toBeCloseTo(1, 3);
    expect(notes).toEqual(["6 gaps were closed with straight lines, the widest 0.01."]);
  });

  test("each is told with where it is, on the drawing as it is laid", () => {
    const read = assembled(short(0.01), [], 2, []);
    if (!read.ok) throw new Error(read.why);
    const { gaps } = laid(read.drawing, { contour: 0, mmPerUnit: 2, flipX: true, flipY: false, turn: 90 });
    expect(gaps).toHaveLength(6);
    // Turned by 90° to the left after it was mirrored: (x, y) lies at (-y, -x), twice as large.
    const corners = sidesOf(BLADE).map(({ start: [x, y] }): Point => [-2 * y, -2 * x]);
    for (const [from, to] of gaps) {
      expect(Math.hypot(to[0] - from[0], to[1] - from[1])).toBeCloseTo(0.02, 9);
      expect(corners.some(([x, y]) => Math.hypot(x - to[0], y - to[1]) < 0.03)).toBe(true);
    }
  });

  test("one of 0.9 is closed in a blade 200 long; one of 4.7 is not, and how wide it is is said", () => {
    const withGap = (by: number) => [...sidesOf(BLADE).slice(0, 5), short(by)[5]!];
    expect(outline(withGap(0.9)).notes).toEqual(["A gap of 0.9 was closed with a straight line."]);
    expect(read(withGap(4.7))).toMatchObject({
      ok: false,
      why: "Nothing in it is closed: an outline must run all the way round. The ends that lie nearest are 4.7 of its units apart.",
    });
  });

  test("a short line by itself is not shut upon itself", () => {
    const { area, contours, notes } = outline([line([20, 10], [20.4, 10]), ...sidesOf(BLADE)]);
    expect(area).toBeCloseTo(AREA, 9);
    expect(contours).toHaveLength(1);
    expect(notes).toEqual(["1 open line left out."]);
  });
});

test("in any order and direction, in pieces of any number, the same outline", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 3, max: 60 }),
      fc.infiniteStream(fc.nat({ max: 1_000_000 })),
      (count, random) => {
        const next = () => random.next().value as number;
        const ring = Array.from({ length: count }, (_, i): Point => {
          const [angle, r] = [(i / count) * 2 * Math.PI, 50 + (next() % 40)];
          return [r * Math.cos(angle), r * Math.sin(angle)];
        });
        const wanted = Math.abs(
          signedArea({
            start: ring[0]!,
            pieces: [...ring.slice(1), ring[0]!].map((to) => ({ to })),
            isClosed: true,
          }),
        );
        const sides = sidesOf(ring)
          .map((side) => ({ side: next() % 2 ? side : reversed(side), at: next() }))
          .sort((a, b) => a.at - b.at)
          .map(({ side }) => side);
        expect(outline(sides).area).toBeCloseTo(wanted, 6);
      },
    ),
    { numRuns: 200 },
  );
});

test("nineteen thousand loose lines are one outline", () => {
  const count = 19_000;
  const ring = Array.from({ length: count }, (_, i): Point => {
    const angle = (i / count) * 2 * Math.PI;
    return [1000 * Math.cos(angle), 1000 * Math.sin(angle)];
  });
  const sides = sidesOf(ring);
  const mixed = sides
    .map((_, i) => sides[(i * 7919) % count]!)
    .map((side, i) => (i % 3 ? side : reversed(side)));
  const { area, contours } = outline(mixed);
  expect(contours).toHaveLength(1);
  expect(area / (Math.PI * 1e6)).toBeCloseTo(1, 5);
});
