import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { balanceLevers, balanceOf } from "../../src/handle/balance.ts";
import type { Handle } from "../../src/handle/schema.ts";
import { taperForBalance } from "../../src/handle/taper.ts";
import { changed, example } from "../examples.ts";

const handle = (parts: Handle["parts"], pins: Handle["pins"] = []): Handle => ({
  format: "true-spine/handle",
  version: 1,
  parts,
  pins,
});
const knife = example("field");
const field = compileField(knife);
const scales = {
  kind: "scales",
  material: "walnut",
  thickness: 6,
  front: -4,
  inset: 0,
  fullness: 1,
} as const;

describe("balance with the handle on", () => {
  test("without a handle it is the steel's own centre of mass", () => {
    const bare = balanceOf(field, null);
    expect(bare.x).toBeCloseTo(-6.419, 2);
    expect(bare.mass).toBeCloseTo(129.03, 1);
    expect(bare.fromPlunge).toBeCloseTo(-18.42, 1);
  });

  test("scales weigh their tang's area twice their thickness", () => {
    const { parts } = balanceOf(field, handle([scales]));
    // Source: geometry; the tang is 24 high from −4 back to −110, its butt sloping to −112.
    const area = 106 * 24 + 24;
    expect(parts[1]!.mass).toBeCloseTo((2 * 6 * area * 0.64) / 1000, 0);
    expect(parts[1]!.x).toBeCloseTo(-57.5, 0);
  });

  test("a pin through a drilled hole weighs its own cylinder; a tube only its wall", () => {
    const pin = { x: -30, y: -13, diameter: 6.35, bore: 0, length: 16, material: "brass" };
    const whole = balanceOf(field, handle([], [pin])).parts[1]!;
    expect(whole.mass).toBeCloseTo((Math.PI * 3.175 ** 2 * 16 * 8.5) / 1000, 6);
    const tube = balanceOf(field, handle([], [{ ...pin, bore: 5 }])).parts[1]!;
    expect(tube.mass).toBeCloseTo((Math.PI * (3.175 ** 2 - 2.5 ** 2) * 16 * 8.5) / 1000, 6);
  });

  test("a pin that no hole is drilled for takes the tang's steel with it", () => {
    // At 61.2 behind the junction the tang is half-way between 2.6 and 4 mm: 3.3. Brass 8.5, steel 7.85 g/cm³.
    const pin = { x: -61, y: -13, diameter: 6, bore: 0, length: 16, material: "brass" };
    const { mass } = balanceOf(field, handle([], [pin])).parts[1]!;
    expect(mass).toBeCloseTo((Math.PI * 9 * (16 * 8.5 - 3.3 * 7.85)) / 1000, 6);
    // One hole away is none for it; one a hair too small is its own, to be reamed.
    const near = (x: number, d: number) =>
      balanceOf(
        compileField(changed(knife, (blade) => (blade.holes = [{ x, y: -13, d }]))),
        handle([], [pin]),
      );
    expect(near(-60, 6).parts[1]!.mass).toBeCloseTo(mass, 1);
    expect(near(-61, 5.6).parts[1]!.mass).toBeCloseTo((Math.PI * 9 * 16 * 8.5) / 1000, 6);
    expect(near(-61, 5).parts[1]!.mass).toBeLessThan(mass + 0.2);
  });

  test("a block over a hidden tang is itself less the tang in it, and a pommel draws the balance back", () => {
    const block = {
      kind: "block",
      material: "oak",
      from: -80,
      to: -20,
      height: 30,
      thickness: 24,
      fullness: 0.9,
    } as const;
    const { parts, x } = balanceOf(field, handle([block]));
    expect(parts[1]!.mass).toBeLessThan((60 * 30 * 24 * 0.9 * 0.72) / 1000);
    const pommel = {
      kind: "fitting",
      name: "pommel",
      material: "brass",
      from: -125,
      to: -113,
      height: 24,
      thickness: 20,
      fullness: 0.9,
    } as const;
    expect(balanceOf(field, handle([block, pommel])).x).toBeLessThan(x - 5);
  });

  test("a material nobody knows is refused by name", () => {
    expect(() => balanceOf(field, handle([{ ...scales, material: "moonstone" }]))).toThrow("moonstone");
  });

  test("what moves it: a thinner tip brings it back, a thinner butt and wider holes bring it forward", () => {
    const levers = Object.fromEntries(
      balanceLevers(knife, handle([scales])).map((lever) => [lever.name, lever]),
    );
    expect(levers["distal taper"]!.balance).toBeLessThan(0);
    expect(levers["tang taper"]!.balance).toBeGreaterThan(0);
    expect(levers["tang holes"]!.balance).toBeGreaterThan(0);
    for (const lever of Object.values(levers)) expect(Math.abs(lever.mass)).toBeLessThan(12);
  });
});

describe("taper that puts the balance at a wanted place", () => {
  test("finds it, and the blade made with it balances there", () => {
    const found = taperForBalance(knife, handle([scales]), -16);
    if (!found.ok) throw new Error(found.because);
    const made = changed(knife, (blade) => {
      blade.thickness[3]!.t = found.tip;
    });
    expect(balanceOf(compileField(made), handle([scales])).x).toBeCloseTo(-16, 3);
  });

  test("says how far taper alone can move it when that is not enough", () => {
    const found = taperForBalance(knife, null, 40);
    expect(found).toMatchObject({ ok: false });
    expect(found.ok ? "" : found.because).toMatch(/only from -?\d+\.\d to -?\d+\.\d mm/);
  });
});
