import Module from "manifold-3d";
import { beforeAll, describe, expect, test } from "vitest";
import { randomBlade, seeded } from "../../bench/random-blade.ts";
import { compileField } from "../../src/blade/field.ts";
import { solidBetween } from "../../src/blade/mass.ts";
import { meshOf } from "../../src/blade/mesh.ts";
import { isInside } from "../../src/blade/outline.ts";
import { parseBlade } from "../../src/blade/parse.ts";
import { stationAt, thicknessAbove } from "../../src/blade/station.ts";
import { evaluate } from "../../src/evaluate/evaluation.ts";
import { changed, checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";
import { times } from "../long.ts";
import { prepare, sumCells } from "./integrator.ts";

test("there are a dozen unlike blades or more, and every kind of bevel, pull and edge is among them", () => {
  expect(KINDS.length).toBeGreaterThanOrEqual(12);
  const text = JSON.stringify(KINDS);
  for (const said of [
    '"hollow"',
    '"convex"',
    '"straight"',
    '"full"',
    '"left-face"',
    '"right-face"',
    '"falseEdge"',
    '"none"',
    '"relief"',
    '"bulge"',
    '"core"',
    '"secondEdge"',
  ]) {
    expect(text).toContain(said);
  }
});

/** Source: the second reading of the model in integrator.ts, which shares no code with the core. */
describe("volume, centre and thickness against the second reading", () => {
  test.each(KINDS)("%s", (_, raw) => {
    const field = compileField(checked(raw));
    const ours = solidBetween(field);
    const theirs = sumCells(raw, 0.8);
    expect(Math.abs(ours.volume / theirs.volume - 1)).toBeLessThan(0.002);
    expect(Math.abs(ours.centre[0] - theirs.centre[0])).toBeLessThan(0.15);
    expect(Math.abs(ours.centre[1] - theirs.centre[1])).toBeLessThan(0.1);
    const reference = prepare(raw);
    for (const u of [0.12, 0.3, 0.5, 0.7, 0.9]) {
      const station = stationAt(field, u);
      for (const height of [0.2, 0.7, 1.5, 4, 8]) {
        const x = station.x + station.inward[0] * height;
        const y = station.y + station.inward[1] * height;
        if (height > station.height || !isInside(field.ring, x, y)) continue;
        const off = Math.abs(thicknessAbove(field, station, height)! - reference.thicknessAt(x, y));
        expect(off, `at u ${u}, ${height} up`).toBeLessThan(0.005);
      }
    }
  });
});

/** Source: manifold-3d 3.2.1, a general-purpose mesh library: it takes only closed, oriented, manifold meshes. */
describe("the mesh against a general-purpose mesh library", () => {
  let library: Awaited<ReturnType<typeof Module>>;
  beforeAll(async () => {
    library = await Module();
    library.setup();
  });

  // Straight under a hole its tang steps up: one stretch of steel ends at a wall there, the one above goes on.
  const stepped = changed(example("field"), ({ outline }) => {
    outline.tang.splice(2, 2, { at: [-30, -24] }, { at: [-30, -18] }, { at: [-110, -18] }, { at: [-112, 0] });
  });
  const blades: [string, unknown][] = [
    ["a step under a hole", stepped],
    ...KINDS,
    ["field", example("field")],
    ["prism", example("prism")],
  ];
  test.each(blades)(
    "%s is watertight, has a hole for each hole, and the field's volume and centre",
    (_, raw) => {
      const blade = checked(raw);
      const field = compileField(blade);
      const { positions, triangles, thickness } = meshOf(field);
      const mesh = new library.Mesh({
        numProp: 3,
        vertProperties: Float32Array.from(positions),
        triVerts: triangles,
      });
      const solid = new library.Manifold(mesh);
      expect(solid.status()).toBe("NoError");
      expect(solid.genus()).toBe(blade.holes?.length ?? 0);
      const ours = solidBetween(field);
      expect(Math.abs(solid.volume() / ours.volume - 1)).toBeLessThan(0.0002);
      expect(edgesAmiss(triangles)).toBe(0);
      const centre = centreOf(positions, triangles);
      expect(Math.abs(centre[0] - ours.centre[0])).toBeLessThan(0.002 * 200);
      expect(Math.abs(centre[1] - ours.centre[1])).toBeLessThan(0.05);
      expect(Math.max(...thickness)).toBeLessThanOrEqual(
        Math.max(...blade.thickness.map((row) => row.t)) + 1e-4,
      );
      solid.delete();
    },
  );

  test("a wall under a hole stands upright: both its corners are of the mesh", () => {
    const { positions } = meshOf(compileField(checked(stepped)));
    const isThere = (y: number) =>
      positions.some(
        (x, i) => i % 3 === 0 && Math.abs(x + 30) < 1e-5 && Math.abs(positions[i + 1]! - y) < 1e-5,
      );
    expect([-24, -18].map(isThere)).toEqual([true, true]);
  });

  /** Edges that do not belong to two triangles exactly, one along each way. */
  function edgesAmiss(t: Uint32Array): number {
    const ways = new Map<string, number>();
    for (let i = 0; i < t.length; i += 3) {
      for (let k = 0; k < 3; k++) {
        const way = `${t[i + k]} ${t[i + ((k + 1) % 3)]}`;
        ways.set(way, (ways.get(way) ?? 0) + 1);
      }
    }
    return [...ways].filter(
      ([way, times]) => times !== 1 || ways.get(way.split(" ").reverse().join(" ")) !== 1,
    ).length;
  }

  test("made-up blades, where steel comes to nothing too: every edge has two faces, and the volume is the field's", () => {
    let made = 0;
    for (let seed = 9000; made < times(15, 60); seed++) {
      const parsed = parseBlade(randomBlade(seeded(seed)));
      if (!parsed.ok) continue;
      made++;
      const { positions, triangles } = meshOf(parsed.field);
      expect(edgesAmiss(triangles), `seed ${seed}`).toBe(0);
      const [volume] = sumsOf(positions, triangles);
      expect(Math.abs(volume / solidBetween(parsed.field).volume - 1), `seed ${seed}`).toBeLessThan(0.0006);
    }
  });

  /** Centre of a closed mesh by signed tetrahedra from the origin. Source: geometry. */
  function centreOf(p: Float64Array, t: Uint32Array): [number, number] {
    const [volume, x, y] = sumsOf(p, t);
    return [x / volume, y / volume];
  }

  function sumsOf(p: Float64Array, t: Uint32Array): [number, number, number] {
    let [volume, x, y] = [0, 0, 0];
    for (let i = 0; i < t.length; i += 3) {
      const [a, b, c] = [t[i]! * 3, t[i + 1]! * 3, t[i + 2]! * 3];
      const v =
        p[a]! * (p[b + 1]! * p[c + 2]! - p[b + 2]! * p[c + 1]!) -
        p[a + 1]! * (p[b]! * p[c + 2]! - p[b + 2]! * p[c]!) +
        p[a + 2]! * (p[b]! * p[c + 1]! - p[b + 1]! * p[c]!);
      volume += v / 6;
      x += (v * (p[a]! + p[b]! + p[c]!)) / 24;
      y += (v * (p[a + 1]! + p[b + 1]! + p[c + 1]!)) / 24;
    }
    return [volume, x, y];
  }

  test.each(KINDS)(
    "%s: facets keep within the tolerance asked for, but on the wall of a step",
    (name, raw) => {
      const field = compileField(checked(raw));
      for (const tolerance of [0.02, 0.1]) {
        const { positions: p, triangles: t } = meshOf(field, { tolerance });
        let [area, beyond] = [0, 0];
        for (let i = 0; i < t.length; i += 3) {
          const [a, b, c] = [t[i]! * 3, t[i + 1]! * 3, t[i + 2]! * 3];
          const half =
            ((p[b]! - p[a]!) * (p[c + 1]! - p[a + 1]!) - (p[c]! - p[a]!) * (p[b + 1]! - p[a + 1]!)) / 2;
          if (half <= 0) continue;
          area += half;
          const mean = (k: number) => (p[a + k]! + p[b + k]! + p[c + k]!) / 3;
          field.sampleAt(mean(0), mean(1));
          if (Math.abs(mean(2) - field.right.lowest) > tolerance) beyond += half;
        }
        // A compound tip's step runs all the way up its ridge, across the columns.
        expect(beyond / area).toBeLessThan(name === "compound-tip" ? 0.003 : 0.001);
      }
    },
  );

  test("a finer tolerance takes more facets", () => {
    const field = compileField(example("field"));
    expect(meshOf(field, { tolerance: 0.005 }).triangles.length).toBeGreaterThan(
      meshOf(field).triangles.length,
    );
  });

  test("work that is called off stops", () => {
    const field = compileField(example("field"));
    const stop = () => {
      throw new Error("called off");
    };
    expect(() => meshOf(field, { onProgress: stop })).toThrow("called off");
  });
});

test("every kind evaluates: no number is missing that should be there, none is not a number", () => {
  for (const [name, raw] of KINDS) {
    const result = evaluate(checked(raw));
    expect(JSON.stringify(result), name).not.toMatch(/NaN|Infinity/);
    expect(result.blade.mass, name).toBeGreaterThan(5);
  }
});
