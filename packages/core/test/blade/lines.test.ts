import { describe, expect, test } from "vitest";
import { compileField, thicknessAt } from "../../src/blade/field.ts";
import { drawnLines, sectionShape } from "../../src/blade/lines.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { sectionAtX } from "../../src/blade/station.ts";
import { checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";

const BLADES = [
  ["field", example("field")] as const,
  ...KINDS.map(([name, file]) => [name, checked(file)] as const),
];

/** Between the flats at x, by the blade's own table: straight between its rows. */
function flatsAt({ thickness }: Blade, x: number): number {
  const after = thickness.findIndex((row) => row.x >= x);
  if (after <= 0) return thickness.at(after)!.t;
  const [a, b] = [thickness[after - 1]!, thickness[after]!];
  return a.t + ((x - a.x) / (b.x - a.x)) * (b.t - a.t);
}

describe.each(BLADES)("%s as it is drawn", (_, blade) => {
  const field = compileField(blade);
  const lines = drawnLines(field);

  test("the plunge is where the run-in ends: the flats behind it, and a wall between them and the bevel", () => {
    const { right } = lines.plunge;
    const bevel = blade.bevels.right;
    if (!right || !field.alike || bevel.kind === "none") return;
    expect(right.length).toBeGreaterThan(4);
    for (const [x, y] of right) {
      const { x: foot, lean, radius } = bevel.plunge;
      const turn = (lean * Math.PI) / 180;
      // Past the plunge's own line, which meets the heel's level at its foot: never behind it, never past its run-in.
      const past = (x - foot) * Math.cos(turn) - (y - blade.outline.edge[0]!.at[1]) * Math.sin(turn);
      expect(past, `${x}, ${y}`).toBeGreaterThan(-0.3);
      expect(past, `${x}, ${y}`).toBeLessThan(radius + 0.3);
      const behind = x - (radius + 0.5) / Math.cos(turn);
      expect(thicknessAt(field, behind, y), `${x}, ${y}`).toBeCloseTo(flatsAt(blade, behind), 2);
    }
    // From by the edge up to by the grind line, or the spine.
    const [low, high] = [right[0]!, right.at(-1)!];
    const clear = lines.stations.find((station, i) => lines.clear[i] && station.right.grindLine !== null)!;
    const reach = Math.min(clear.right.grindLine!, field.ring.top - clear.y);
    expect(high[1] - low[1]).toBeGreaterThan(0.7 * reach);
    expect(low[1] - clear.y).toBeLessThan(0.35 * reach + 1);
  });

  test.each([0.1, 0.35, 0.6, 0.85])("a section across it at %s of its length has every corner", (share) => {
    const { left, right } = field.ring;
    const x = left + share * (right - left);
    const shapes = sectionShape(field, x);
    let area = 0;
    for (const shape of shapes) {
      for (const [i, [z, y]] of shape.entries()) {
        const [nz, ny] = shape[(i + 1) % shape.length]!;
        area += (nz * y - z * ny) / 2;
        // The right face is the first half. Between two points of it it is as straight as it is drawn: nothing that turns is left out.
        if (i + 1 >= shape.length / 2 || Math.abs(ny - y) < 1e-3) continue;
        field.sampleAt(x, (y + ny) / 2);
        expect(Math.abs(field.right.lowest - (z + nz) / 2), `at ${y}`).toBeLessThan(0.02);
      }
    }
    expect(Math.abs(area) / sectionAtX(field, x).area).toBeCloseTo(1, 2);
  });
});

test("the field knife's plunge, by numbers: the end of a run-in of 4 mm at a plunge at 12 that leans 10° to the tip", () => {
  const line = drawnLines(compileField(example("field"))).plunge.right!;
  for (const [x, y] of line) {
    // From the plunge's own line, which meets the edge's level, about 30.2 below the datum, at 12: never behind it, never past its run-in.
    const past = (x - 12) * Math.cos(Math.PI / 18) - (y + 30.2) * Math.sin(Math.PI / 18);
    expect(past, `${x}, ${y}`).toBeGreaterThan(0);
    expect(past, `${x}, ${y}`).toBeLessThan(4.01);
  }
  // The grind line lies 22 above the edge.
  expect(line.at(-1)![1]).toBeGreaterThan(-10.5);
  expect(line.at(-1)![1]).toBeLessThan(-7.5);
});
