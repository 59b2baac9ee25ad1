import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { stationAt } from "../../src/blade/station.ts";
import { asThickAs, compare, wedgeArea } from "../../src/edge/compare.ts";
import { edgeStrength, flatBodyStrength, YIELD } from "../../src/edge/strength.ts";
import { edgeBeforeSharpening } from "../../src/grind/relations.ts";
import { changed, example } from "../examples.ts";

const tan = (a: number) => Math.tan((a * Math.PI) / 180);

describe("edge strength index", () => {
  test("the body of a flat bevel yields at (4/3)·σ·e₀·tan β, where d = e₀/(2 tan β)", () => {
    // A thick edge behind a steep bevel, so that the weak place lies above the shoulder. Source: geometry.
    const field = compileField(
      changed(example("prism"), (blade) => {
        blade.edge = {
          behind: [{ u: 0, t: 0.5 }],
          angle: { left: 40, right: 40 },
          rightShare: 0.5,
          offset: 0,
        };
        blade.bevels.right = {
          kind: "flat",
          pull: "follow",
          set: "angle",
          angle: 5,
          plunge: { x: 0, lean: 0, radius: 0 },
        };
      }),
    );
    const station = stationAt(field, 0.5);
    const e0 = edgeBeforeSharpening(0.5, 5, 40);
    const { body } = edgeStrength(field, station);
    expect(body!.load / flatBodyStrength(e0, tan(5))).toBeCloseTo(1, 2);
    expect(body!.at / (e0 / (2 * tan(5)))).toBeCloseTo(1, 1);
  });

  test("the apex is a wedge: it yields first at the contact depth, at (2/3)·σ·d·tan²α", () => {
    const field = compileField(example("prism"));
    const { apex } = edgeStrength(field, stationAt(field, 0.5));
    expect(apex!.at).toBeCloseTo(0.2, 9);
    expect(apex!.load).toBeCloseTo((2 / 3) * YIELD * 0.2 * tan(20) ** 2, 6);
  });
});

describe("two blades beside one another", () => {
  const field = compileField(example("field"));

  test("a blade is just like itself", () => {
    const same = compare(field, field);
    expect(same.mass).toBe(1);
    expect(same.balance).toBe(0);
    expect(same.wedge).toBe(1);
    expect(Object.values(same.thickness)).toEqual([1, 1, 1, 1]);
    expect(same.bodyStrength).toBe(1);
  });

  test("an edge with a taller bevel is as thick as a thinner one: 1.04 behind 1.96 reads 0.76 at 1.42", () => {
    // Source: worked value, geometry.
    const knife = (alpha: number) =>
      compileField(
        changed(example("prism"), (blade) => {
          blade.edge.behind = [{ u: 0, t: 1.0414 }];
          blade.edge.angle = { left: alpha, right: alpha };
        }),
      );
    const [tall, short] = [knife(14.91), knife(20.11)];
    expect(asThickAs(tall, stationAt(tall, 0.5), stationAt(short, 0.5))!).toBeCloseTo(0.757, 2);
    expect(compare(tall, short).asThickAs!).toBeCloseTo(0.757, 2);
  });

  test("the wedge of a prism is its section's lowest ten millimetres", () => {
    const prism = compileField(example("prism"));
    const d = 0.25 / tan(20);
    const slope = 1.75 / (15 - d);
    const wanted = 0.25 * d + 2 * (0.25 * (10 - d) + (slope * (10 - d) ** 2) / 2);
    expect(wedgeArea(prism, stationAt(prism, 0.5))! / wanted).toBeCloseTo(1, 3);
  });

  test("what one blade has not, is not compared", () => {
    const bare = compileField(
      changed(example("prism"), (blade) => {
        blade.bevels = { right: { kind: "none" }, left: { kind: "none" } };
        blade.edge = { behind: [{ u: 0, t: 0 }], angle: { left: 0, right: 0 }, rightShare: 0.5, offset: 0 };
      }),
    );
    expect(compare(field, bare)).toMatchObject({ asThickAs: null, apexStrength: null });
  });
});
