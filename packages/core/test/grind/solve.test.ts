import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { randomBlade, seeded } from "../../bench/random-blade.ts";
import { compileField, thicknessAt } from "../../src/blade/field.ts";
import { parseBlade } from "../../src/blade/parse.ts";
import { type Blade, bevelOn } from "../../src/blade/schema.ts";
import { compileStageWithBevels } from "../../src/blade/stage-field.ts";
import { stationAt } from "../../src/blade/station.ts";
import { constant } from "../../src/blade/table.ts";
import {
  type BevelFigures,
  edgeAngleFromReadings,
  jigAngle,
  matchLine,
  oneSetting,
  solveBevel,
} from "../../src/grind/solve.ts";
import { changed, example } from "../examples.ts";

describe("a bevel from what is known of it", () => {
  const whole: BevelFigures = {
    thickness: 4,
    behind: 0.5,
    climb: 17.5,
    width: Math.hypot(17.5, 1.75),
    angle: 5.710593,
  };
  test.each<[(keyof BevelFigures)[]]>([
    [["thickness", "behind", "climb"]],
    [["thickness", "behind", "width"]],
    [["thickness", "behind", "angle"]],
    [["thickness", "climb", "angle"]],
    [["behind", "climb", "width"]],
    [["thickness", "width", "angle"]],
    [["behind", "angle", "climb"]],
  ])("%j give the rest", (keys) => {
    const found = solveBevel(Object.fromEntries(keys.map((key) => [key, whole[key]])));
    if (!found.ok) throw new Error(found.because);
    for (const key of Object.keys(whole) as (keyof BevelFigures)[])
      expect(found[key]).toBeCloseTo(whole[key], 4);
  });

  test("whatever is left out of a true bevel comes back", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.5, max: 8, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 3, max: 40, noNaN: true }),
        (thickness, behind, climb) => {
          const one = solveBevel({ thickness, behind, climb });
          if (!one.ok) throw new Error(one.because);
          const other = solveBevel({ behind: one.behind, width: one.width, angle: one.angle });
          if (!other.ok) throw new Error(other.because);
          expect(other.thickness).toBeCloseTo(thickness, 6);
          expect(other.climb).toBeCloseTo(climb, 6);
        },
      ),
    );
  });

  test.each<[Partial<BevelFigures>, RegExp]>([
    [{ thickness: 3, behind: 3, climb: 5 }, /nothing to grind/],
    [{ thickness: 3, climb: 5 }, /too little/],
    [{ climb: 5, angle: 10 }, /no thickness/],
    [{ thickness: 2, climb: 20, angle: 20 }, /past the centre/],
    [{ thickness: 4, climb: 10, width: 9 }, /no wider/],
    [{ thickness: 4, behind: 0, width: 1 }, /narrower/],
    [{ thickness: 4, behind: 0.5, climb: 17.5, angle: 9 }, /does not go with the rest/],
    [{ thickness: -1, behind: 0.5, climb: 3 }, /below nothing/],
  ])("%j is impossible, and says why", (known, why) => {
    const found = solveBevel(known);
    expect(found.ok ? "" : found.because).toMatch(why);
  });
});

describe("edge angle from readings", () => {
  test("a caliper's error and a height's: the height dominates on a short bevel", () => {
    // Source: worked value: 0.0254 in e is 0.45°, 0.127 in the height 1.79°, on e 1.0414 over 1.422.
    const only = (e: number, h: number) =>
      edgeAngleFromReadings({ value: 1.0414, uncertainty: e }, { value: 1.422, uncertainty: h });
    const [byThickness, byHeight] = [only(0.0254, 0), only(0, 0.127)];
    if (!byThickness.ok || !byHeight.ok) throw new Error("no angle");
    expect(byThickness.angle).toBeCloseTo(20.11, 2);
    expect(byThickness.uncertainty).toBeCloseTo(0.45, 2);
    // The worked value is the whole step; to first order it is a little less.
    expect(Math.abs(byHeight.uncertainty - 1.79)).toBeLessThan(0.15);
    const both = only(0.0254, 0.127);
    expect(both.ok && both.mostlyFrom).toBe("height");
  });

  test("no bevel, no angle", () => {
    expect(edgeAngleFromReadings({ value: 0.5, uncertainty: 0 }, { value: 0, uncertainty: 0 }).ok).toBe(
      false,
    );
  });
});

describe("on the field", () => {
  const knife = example("field");
  const field = compileField(knife);

  test("the jig's angle for the drawn grind line is the bevel's own, and put in as an angle brings the line back", () => {
    const found = jigAngle(field, "right", 0.5, 22);
    if (!found.ok) throw new Error(found.because);
    expect(found.angle).toBeCloseTo(stationAt(field, 0.5).right.primaryAngle!, 1);
    const made = compileField(
      changed(knife, (blade) => {
        delete blade.falseEdge;
        blade.bevels.right = {
          kind: "flat",
          pull: "follow",
          set: "angle",
          angle: found.angle,
          plunge: { x: 12, lean: 0, radius: 4 },
        };
      }),
    );
    expect(stationAt(made, 0.5).right.grindLine!).toBeCloseTo(22, 1);
  });

  test("a grind line inside the edge bevel is impossible", () => {
    const found = jigAngle(field, "right", 0.5, 0.4);
    expect(found.ok ? "" : found.because).toMatch(/edge bevel alone/);
  });

  test("one setting: at the jig's angle the taper that suits makes the drawn line, within 0.1 mm", () => {
    const line = (u: number) => (u < 0.6 ? 20 : 20 - (u - 0.6) * 25);
    const found = oneSetting(field, "right", 4, line);
    if (!found.ok) throw new Error(found.because);
    expect(found.lineMoves).toBeGreaterThan(1);
    expect(found.thicknessChanges).toBeGreaterThan(0.1);
    const made = compileField(
      changed(knife, (blade) => {
        delete blade.falseEdge;
        blade.thickness = [
          { x: -112, t: 3 },
          ...found.thickness.filter((row, i) => i === 0 || row.x > found.thickness[i - 1]!.x),
        ];
        blade.bevels.right = {
          kind: "flat",
          pull: "follow",
          set: "angle",
          angle: 4,
          plunge: { x: 12, lean: 0, radius: 2 },
        };
      }),
    );
    for (const u of [0.2, 0.4]) {
      const station = stationAt(made, u);
      expect(Math.abs(station.right.grindLine! - line(u))).toBeLessThan(0.15);
      expect(station.right.primaryAngle!).toBeCloseTo(4, 2);
    }
  });

  test("one setting says what cannot be: a line within the edge bevel, an angle of nothing, an edge in a face", () => {
    const because = (found: ReturnType<typeof oneSetting>) => (found.ok ? "" : found.because);
    expect(because(oneSetting(field, "right", 4, () => 0.5))).toMatch(/within the edge bevel/);
    expect(because(oneSetting(field, "right", 0, () => 20))).toMatch(/above 0/);
    expect(because(oneSetting(compileField(example("piece-chisel")), "right", 4, () => 15))).toMatch(
      /in a face/,
    );
  });

  test("an off-centre edge needs unlike angles for level lines", () => {
    const off = compileField(example("piece-offset"));
    const [right, left] = [matchLine(off, "right", 0.5, 14), matchLine(off, "left", 0.5, 14)];
    if (!right.ok || !left.ok) throw new Error("no match");
    // Source: tan β = (F − o − e)/(b − d) per side.
    const tan = (a: number) => Math.tan((a * Math.PI) / 180);
    expect(right.angle).toBeCloseTo((Math.atan((2 - 0.1 - 0.3) / (14 - 0.3 / tan(24))) * 180) / Math.PI, 9);
    expect(left.angle).toBeGreaterThan(right.angle);
  });
});

describe("answers put back into the model, on made-up blades", () => {
  test("2000 jig angles: each makes the line that was asked for, or says why none does", () => {
    let [met, impossible, worst] = [0, 0, 0];
    for (let seed = 0; met + impossible < 2000; seed++) {
      const random = seeded(9_100_000 + seed);
      const parsed = parseBlade(randomBlade(random));
      if (!parsed.ok) continue;
      const { blade, field } = parsed;
      for (let n = 0; n < 8; n++) {
        const side = random() < 0.5 ? "left" : "right";
        const u = 0.15 + 0.7 * random();
        const wanted = stationAt(field, u).height * (0.1 + 0.85 * random());
        const found = jigAngle(field, side, u, wanted);
        if (!found.ok) {
          expect(found.because.length).toBeGreaterThan(10);
          impossible++;
          continue;
        }
        const plunge = { x: -400, lean: 0, radius: 0 };
        const bevel = { kind: "flat", pull: "follow", set: "angle", angle: found.angle, plunge } as const;
        const { falseEdge: _, ...rest } = blade;
        const bevels =
          side === "right"
            ? { right: bevel, left: bevelOn(blade, "left") }
            : { right: bevelOn(blade, "right"), left: bevel };
        // Straight up from the edge as the model measures it; where another part of the edge is nearer it is no answer to this question.
        const made = compileField({ ...rest, bevels } as Blade);
        const { cut } = stationAt(made, u);
        made.sampleAt(cut.x + cut.dx * wanted, cut.y + cut.dy * wanted);
        if (Math.abs(made.foot.u - u) > 1e-3 || !made.foot.onChain) continue;
        const half = made[side];
        worst = Math.max(worst, Math.abs(half.primary - half.flat));
        met++;
      }
    }
    expect(met).toBeGreaterThan(500);
    // At the line the face and the flat are one.
    expect(worst).toBeLessThan(1e-6);
  });

  test("3000 zero bevels and roundings of 0.01 mm and 0.1°: none that is legal is refused", () => {
    const random = seeded(71);
    const hundredths = (value: number) => Math.round(value * 100) / 100;
    for (let n = 0; n < 3000; n++) {
      const [angle, climb] = [2 + 20 * random(), 4 + 25 * random()];
      const thickness = 2 * climb * Math.tan((angle * Math.PI) / 180);
      expect(solveBevel({ thickness, climb, angle }).ok).toBe(true);
      const width = Math.hypot(climb, thickness / 2);
      const rounded = {
        thickness: hundredths(thickness),
        climb: hundredths(climb),
        width: hundredths(width),
        angle: Math.round(angle * 10) / 10,
      };
      for (const known of [
        { thickness: rounded.thickness, climb: rounded.climb, angle: rounded.angle },
        { thickness: rounded.thickness, width: rounded.width, angle: rounded.angle },
        { ...rounded, behind: 0 },
      ]) {
        const found = solveBevel(known);
        expect(found.ok ? "" : `${JSON.stringify(known)}: ${found.because}`).toBe("");
      }
    }
  });
});

test("a stage with steeper bevels of its own never dips below the finished blade", () => {
  const blade = changed(example("field"), (copy) => delete copy.falseEdge);
  const still = {
    flats: 0.1,
    faces: { left: constant(0), right: constant(0) },
    edgeBevel: false,
    falseEdge: false,
  };
  const rough = compileStageWithBevels(
    blade,
    {
      right: { kind: "flat", pull: "follow", set: "angle", angle: 9, plunge: { x: 12, lean: 10, radius: 4 } },
      left: "same",
    },
    still,
  );
  const finished = compileField(blade);
  for (let x = 10; x < 124; x += 3.1) {
    for (let y = -30; y < 0; y += 1.3) {
      expect(thicknessAt(rough, x, y)).toBeGreaterThanOrEqual(thicknessAt(finished, x, y) - 1e-12);
    }
  }
  expect(thicknessAt(rough, 60, -26)).toBeGreaterThan(thicknessAt(finished, 60, -26) + 0.1);
});
