import { describe, expect, test } from "vitest";
import { micronsOf, nearestGrade, SCALES, scaleOf, scratchDepth } from "../../src/abrasive/gradings.ts";

describe("grading scales", () => {
  test.each(SCALES.filter((scale) => scale.grades.length > 0).map((scale) => [scale.name, scale] as const))(
    "%s runs from coarse to fine without a step back, and names its source",
    (_, { grades, source }) => {
      for (let i = 1; i < grades.length; i++) expect(grades[i]![1]).toBeLessThan(grades[i - 1]![1]);
      expect(source).toMatch(/from memory of/);
      const number = ([grade]: readonly [string, number]) => Number(grade.replace(/\D/g, ""));
      for (let i = 1; i < grades.length; i++)
        expect(number(grades[i]!)).toBeGreaterThan(number(grades[i - 1]!));
    },
  );

  test("sieved grades of the two scales overlap: the same number within a fifth, up to 220", () => {
    // A cross-check of one table by the other: below 240 both scales are sieved through the same kinds of mesh.
    for (const [grade, microns] of scaleOf("CAMI").grades) {
      if (Number(grade) > 220) continue;
      const p = micronsOf("P", `P${grade}`)!;
      expect(microns / p, grade).toBeGreaterThan(0.8);
      expect(microns / p, grade).toBeLessThan(1.2);
    }
  });

  test("finer than that the same number means another size: a P number is far coarser", () => {
    expect(micronsOf("P", "P600")! / micronsOf("CAMI", "600")!).toBeGreaterThan(1.5);
    expect(nearestGrade("CAMI", micronsOf("P", "P600")!)).toMatchObject({ grade: "400" });
    expect(nearestGrade("P", micronsOf("JIS", "#1000")!)?.grade).toBe("P1500");
  });

  test("a micron grade is its number, and nonsense is none", () => {
    expect(micronsOf("micron", "30 µm")).toBe(30);
    expect(micronsOf("micron", "6")).toBe(6);
    for (const wrong of ["", "coarse", "-3", "0", "1e9"]) expect(micronsOf("micron", wrong)).toBeNull();
    expect(micronsOf("P", "P37")).toBeNull();
    expect(nearestGrade("micron", 30)).toBeNull();
  });

  test("a scratch is about a tenth of its particle deep", () => {
    expect(scratchDepth(269)).toBeGreaterThan(0.0269 - 1e-9);
    expect(scratchDepth(269)).toBeLessThan(0.15 * 0.269);
    expect(scratchDepth(269, 0.1)).toBeCloseTo(0.0269, 9);
  });
});
