import { expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { stationAt, thicknessAbove } from "../../src/blade/station.ts";
import {
  edgeOf,
  flankOf,
  type Knife,
  parseKnives,
  thickAt,
  thickWithin,
  wedgeUpTo,
} from "../../src/edge/knives.ts";
import { example } from "../examples.ts";

const knife = (more: Partial<Knife> = {}): Knife => ({
  id: "00000000-0000-4000-8000-000000000001",
  name: "A neighbour's",
  length: 120,
  mass: 140,
  use: "field",
  places: [{ at: "middle", e: 0.5, d: 0.77 }],
  t5: 0.95,
  t10: 1.5,
  ...more,
});

test("by height, by face, by angle: one edge", () => {
  const d = 0.25 / Math.tan((18 * Math.PI) / 180);
  const f = 0.25 / Math.sin((18 * Math.PI) / 180);
  for (const place of [{ d }, { f }, { angle: 18 }]) {
    const edge = edgeOf({ at: "middle", e: 0.5, ...place });
    expect(edge.d).toBeCloseTo(d, 9);
    expect(edge.angle).toBeCloseTo(18, 9);
  }
});

test("how thick it is so far up: along its edge bevel, then to what was read 5 and 10 up, and no further", () => {
  expect(thickAt(knife(), 0.385)).toBeCloseTo(0.25, 9);
  expect(thickAt(knife(), 0.77)).toBeCloseTo(0.5, 9);
  // e + (t5 − e)(y − d)/(5 − d) at 2.
  expect(thickAt(knife(), 2)).toBeCloseTo(0.5 + (0.45 * 1.23) / 4.23, 9);
  expect(thickAt(knife(), 7.5)).toBeCloseTo(1.225, 9);
  expect(thickAt(knife(), 12)).toBeNull();
  const bare = knife();
  delete bare.t5;
  delete bare.t10;
  expect(thickAt(bare, 2)).toBeNull();
  expect(flankOf(bare)).toBeNull();
  expect(flankOf(knife())).toBeCloseTo((Math.atan(0.225 / 4.23) * 180) / Math.PI, 9);
});

test("read off a drawn blade it is as thick as that blade, and so is its wedge", () => {
  const field = compileField(example("field"));
  const station = stationAt(field, 0.5);
  const like = knife({
    places: [{ at: "middle", e: station.behind!, d: station.right.edgeBevel! }],
    t5: thicknessAbove(field, station, 5)!,
    t10: thicknessAbove(field, station, 10)!,
  });
  for (const y of [0.3, 0.5, 1, 2, 4])
    expect(thickAt(like, y)).toBeCloseTo(thicknessAbove(field, station, y)!, 3);
  let sum = 0;
  for (let i = 0; i < 1000; i++) sum += thicknessAbove(field, station, (i + 0.5) / 100)! / 100;
  expect(wedgeUpTo(like, 10)).toBeCloseTo(sum, 2);
});

test("how sure: on the edge bevel by both readings, near 5 up hardly by either", () => {
  const low = thickWithin(knife(), 0.5)!;
  // t = e·y/d: y/d·0.02 and e·y/d²·0.05 in squares.
  expect(low).toBeCloseTo(Math.hypot((0.5 / 0.77) * 0.02, ((0.5 * 0.5) / 0.77 ** 2) * 0.05), 4);
  expect(thickWithin(knife(), 4.9)!).toBeLessThan(0.001);
  expect(thickWithin(knife(), 20)).toBeNull();
});

test("its file: unknown keys, an edge without a height, a face too short and one id twice are refused by their path", () => {
  const file = (...knives: object[]) => ({ format: "true-spine/knives", version: 1, knives });
  expect(parseKnives(file(knife()))).toMatchObject({ ok: true });
  expect(parseKnives(file({ ...knife(), places: [{ at: "middle", e: 0.5 }] }))).toMatchObject({
    ok: false,
    faults: [{ path: "$.knives[0].places[0]" }],
  });
  expect(parseKnives(file({ ...knife(), places: [{ at: "tip", e: 0.5, f: 0.2 }] })).ok).toBe(false);
  expect(parseKnives(file(knife(), knife()))).toMatchObject({
    ok: false,
    faults: [{ path: "$.knives[1].id" }],
  });
  expect(parseKnives(file({ ...knife(), more: 1 })).ok).toBe(false);
});
