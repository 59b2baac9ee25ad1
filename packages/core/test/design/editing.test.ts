import { describe, expect, test } from "vitest";
import { compileRing, ringPoints } from "../../src/blade/outline.ts";
import { parseBlade } from "../../src/blade/parse.ts";
import type { Blade, OutlineNode } from "../../src/blade/schema.ts";
import { DRIVERS, driverOf } from "../../src/design/drive.ts";
import { FAMILIES } from "../../src/design/families.ts";
import { firstBlade } from "../../src/design/first.ts";
import { firstHandle } from "../../src/design/first-handle.ts";
import { anotherHole, evenlyBetween, holesAlong, pairsAlong } from "../../src/design/holes.ts";
import * as nodes from "../../src/design/nodes.ts";
import { holeInWords } from "../../src/handle/holes.ts";
import { changed, example } from "../examples.ts";

const blades = FAMILIES.map((family): [string, Blade] => {
  const made = firstBlade({
    name: family.name,
    use: "own",
    family: family.key,
    values: {},
    tang: family.tangs[0]!,
    grind: family.key === "marking" ? "chisel" : "full flat",
    stock: 4,
  });
  if (!made.ok) throw new Error(made.why);
  return [family.name, made.blade];
});

describe.each([...blades, ["the field knife", example("field")] as const])(
  "driving dimensions of %s",
  (_, blade) => {
    const measured = (of: Blade) => {
      const ring = compileRing(of.outline);
      return Object.fromEntries(DRIVERS.map(({ key, measure }) => [key, measure(ring, of)]));
    };
    const before = measured(blade);

    test.each(DRIVERS.map((driver) => [driver.name, driver] as const))(
      "%s is set, and the rest is kept",
      (__, driver) => {
        const now = before[driver.key];
        if (now === null || now === undefined) return;
        for (const by of [0.96, 1.05]) {
          const wanted = now * by;
          const copy = structuredClone(blade);
          driver.set(copy, wanted);
          const after = measured(copy);
          expect(after[driver.key]).toBeCloseTo(wanted, 2);
          // A longer blade carries its belly along; everything else stays where it was.
          for (const { key } of DRIVERS) {
            const isLevel = Math.abs(before.drop! - before.height!) < 1e-6;
            const follows =
              key === driver.key ||
              (driver.key === "length" && key === "belly") ||
              (isLevel && driver.key === "height" && key === "drop");
            if (!follows && before[key] !== null) expect(after[key], key).toBeCloseTo(before[key]!, 2);
          }
          const parsed = parseBlade(copy);
          expect(parsed.ok ? [] : parsed.faults).toEqual([]);
        }
      },
    );
  },
);

test("the belly drawn back takes the curve with it, in proportion, and leaves its straight", () => {
  // Straight to its node at 70, its handle 26 ahead; the tip at 125 comes in by (-8, -12). Drawn to 80: (125 - 80) / (125 - 70).
  const copy = changed(example("field"), (blade) => delete blade.outline.edge[1]!.back);
  driverOf("belly").set(copy, 80);
  const [, node, tip] = copy.outline.edge;
  expect(node).toEqual({ at: [80, -31], ahead: [21.2727, 0] });
  expect(tip).toEqual({ at: [125, -9], back: [-6.5455, -12] });
});

test("holes are laid out evenly, in the middle of the tang", () => {
  const knife = changed(example("field"), (blade) => delete blade.holes);
  const holes = holesAlong(knife, 3, 5);
  expect(holes[1]!.x - holes[0]!.x).toBeCloseTo(holes[2]!.x - holes[1]!.x, 3);
  for (const { y } of holes) expect(y).toBeCloseTo(-12, 3);
  expect(parseBlade({ ...knife, holes }).ok).toBe(true);
});

test("holes added one at a time go where the tang has none, and every one is sound", () => {
  const knife = changed(example("field"), (blade) => delete blade.holes);
  for (let i = 0; i < 5; i++) {
    knife.holes = [...(knife.holes ?? []), anotherHole(knife, 5)];
    expect(parseBlade(knife).ok).toBe(true);
  }
  const xs = knife.holes!.map(({ x }) => x).sort((a, b) => a - b);
  const gaps = xs.slice(1).map((x, i) => x - xs[i]!);
  expect(Math.min(...gaps)).toBeGreaterThan(12);
});

test("a hole in the blade takes nothing of the tang from the next one", () => {
  const knife = changed(example("field"), (blade) => delete blade.holes);
  const first = anotherHole(knife, 5);
  const hung = { ...knife, holes: [{ x: 118, y: -12, d: 2 }] };
  expect(anotherHole(hung, 5)).toEqual(first);
  expect(first.x).toBeCloseTo(-56, 0);
});

test("pairs stand across the tang's middle, a third of its height apart", () => {
  const knife = changed(example("field"), (blade) => delete blade.holes);
  const holes = pairsAlong(knife, 2, 4);
  expect(holes.map(({ x }) => x)).toEqual([holes[0]!.x, holes[0]!.x, holes[2]!.x, holes[2]!.x]);
  // The tang is 24 tall there, its middle 12 below the datum.
  expect(holes[0]!.y - holes[1]!.y).toBeCloseTo(8, 3);
  expect((holes[0]!.y + holes[1]!.y) / 2).toBeCloseTo(-12, 3);
  expect(parseBlade({ ...knife, holes }).ok).toBe(true);
});

test("a hole is told by what it is for, where it lies from the junction, and how a bolt's head is sunk", () => {
  const say = (mm: number) => mm.toFixed(1);
  expect(holeInWords({ x: -25, y: -12, d: 5 }, say)).toBe(
    "hole 5.0 across: 25.0 behind the junction, 12.0 below the datum",
  );
  expect(holeInWords({ x: 3, y: -9, d: 6, for: "bolt", counterbore: { d: 9, depth: 2.5 } }, say)).toBe(
    "bolt hole 6.0 across: 3.0 ahead of the junction, 9.0 below the datum, counterbore 9.0 across, 2.5 deep",
  );
});

test("evenly between the first and the last: on the straight line, what each is for kept", () => {
  const holes = evenlyBetween([
    { x: -90, y: -15, d: 5 },
    { x: -20, y: -9, d: 6, for: "bolt" },
    { x: -30, y: 2, d: 4, for: "glue" },
  ]);
  expect(holes).toEqual([
    { x: -20, y: -9, d: 6, for: "bolt" },
    { x: -55, y: -12, d: 4, for: "glue" },
    { x: -90, y: -15, d: 5 },
  ]);
  expect(evenlyBetween(holes.slice(0, 2))).toEqual(holes.slice(0, 2));
});

test("only pins, bolts and what is not said take a pin; two holes in each other's way are named", () => {
  const knife = changed(example("field"), (blade) => {
    blade.holes = [
      { x: -20, y: -12, d: 5, for: "bolt", counterbore: { d: 8, depth: 2.5 } },
      { x: -50, y: -12, d: 5 },
      { x: -80, y: -12, d: 5, for: "lanyard" },
    ];
  });
  expect(firstHandle(knife, "full").pins.map(({ x }) => x)).toEqual([-20, -50]);
  const faultsWith = (change: (blade: Blade) => void) => {
    const copy = structuredClone(knife);
    change(copy);
    const parsed = parseBlade(copy);
    return parsed.ok ? [] : parsed.faults;
  };
  expect(faultsWith(({ holes }) => Object.assign(holes![1]!, { x: -21 }))).toEqual([
    { path: "$.holes[1]", message: "runs into hole 1, at -20 mm" },
  ]);
  expect(faultsWith(({ holes }) => Object.assign(holes![0]!.counterbore!, { d: 5 }))).toEqual([
    { path: "$.holes[0]", message: "has a counterbore no wider than itself, 5 mm" },
  ]);
});

describe("nodes", () => {
  test("are smooth whichever way they run, and only where what comes goes on", () => {
    for (const [x, y] of [
      [5, 1],
      [1, 5],
      [-3, 4],
      [0, -6],
    ] as const) {
      const at: [number, number] = [20, -10];
      expect(nodes.isSmooth({ at, back: [-x, -y], ahead: [2 * x, 2 * y] })).toBe(true);
      expect(nodes.isSmooth({ at, back: [x, y], ahead: [2 * x, 2 * y] })).toBe(false);
      expect(nodes.isSmooth({ at, back: [-x, -y], ahead: [-y, x] })).toBe(false);
    }
  });

  const edge = () => structuredClone(example("field").outline.edge);
  const shape = (chain: OutlineNode[]) =>
    ringPoints(compileRing({ ...example("field").outline, edge: chain }));
  /** Largest distance between two runs of points, one way. */
  const apart = (a: readonly (readonly number[])[], b: readonly (readonly number[])[]) =>
    Math.max(...a.map((p) => Math.min(...b.map((q) => Math.hypot(p[0]! - q[0]!, p[1]! - q[1]!)))));

  test("one put in leaves the curve as it was", () => {
    const chain = edge();
    nodes.addAfter(chain, 1);
    expect(chain).toHaveLength(4);
    expect(apart(shape(chain), shape(edge()))).toBeLessThan(0.8);
    const [fine, coarse] = [
      compileRing({ ...example("field").outline, edge: chain }),
      compileRing(example("field").outline),
    ];
    expect(fine.edge.length).toBeCloseTo(coarse.edge.length, 3);
    const straight: OutlineNode[] = [{ at: [0, 0] }, { at: [10, 4] }];
    nodes.addAfter(straight, 0);
    expect(straight[1]).toEqual({ at: [5, 2] });
  });

  test("one put in and taken out again comes near to what it was; ends are never taken out", () => {
    const chain = edge();
    nodes.addAfter(chain, 1);
    nodes.remove(chain, 2);
    expect(chain).toHaveLength(3);
    expect(Math.hypot(chain[1]!.ahead![0] - 26, chain[1]!.ahead![1])).toBeLessThan(4);
    nodes.remove(chain, 0);
    nodes.remove(chain, 2);
    expect(chain).toHaveLength(3);
  });

  test("smooth lays both handles on one line, even makes them as long, corner takes them away", () => {
    const chain: OutlineNode[] = [
      { at: [0, 0] },
      { at: [10, 0], back: [-4, 0], ahead: [2, 3] },
      { at: [20, 10] },
    ];
    expect(nodes.isSmooth(chain[1]!)).toBe(false);
    nodes.smooth(chain, 1);
    expect(nodes.isSmooth(chain[1]!)).toBe(true);
    expect(Math.hypot(...chain[1]!.back!)).toBeCloseTo(4, 3);
    nodes.smooth(chain, 1, true);
    expect(Math.hypot(...chain[1]!.back!)).toBeCloseTo(Math.hypot(...chain[1]!.ahead!), 3);
    nodes.corner(chain, 1);
    expect(chain[1]).toEqual({ at: [10, 0] });
  });

  test("a node that lies on its neighbour has no direction: it stays as it is; handles of no length count as none", () => {
    const chain: OutlineNode[] = [{ at: [10, 0] }, { at: [10, 0] }, { at: [20, 10] }];
    nodes.smooth(chain, 1);
    expect(chain[1]).toEqual({ at: [10, 0] });
    const bare: OutlineNode[] = [
      { at: [0, 0] },
      { at: [9, 0], back: [0, 0], ahead: [0, 0] },
      { at: [18, 0] },
    ];
    nodes.smooth(bare, 1);
    expect(JSON.stringify(bare[1])).toBe('{"at":[9,0],"back":[-3,0],"ahead":[3,0]}');
  });

  test("a stretch is straightened without its neighbours", () => {
    const chain = edge();
    const back = chain[1]!.back;
    nodes.straighten(chain, 1);
    expect(chain[1]!.ahead).toBeUndefined();
    expect(chain[2]!.back).toBeUndefined();
    expect(chain[1]!.back).toEqual(back);
  });

  test("a handle of a smooth node takes the other along; of a corner it does not", () => {
    const smooth: OutlineNode = { at: [0, 0], back: [-4, 0], ahead: [8, 0] };
    nodes.moveHandle(smooth, "ahead", [0, 5]);
    expect(smooth.back![0]).toBeCloseTo(0, 6);
    expect(smooth.back![1]).toBeCloseTo(-4, 6);
    const bent: OutlineNode = { at: [0, 0], back: [-4, 0], ahead: [0, 8] };
    nodes.moveHandle(bent, "ahead", [3, 3]);
    expect(bent.back).toEqual([-4, 0]);
  });
});
