import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { secondStations } from "../../src/blade/second-station.ts";
import { stationAtX } from "../../src/blade/station.ts";
import { FAMILIES } from "../../src/design/families.ts";
import { type Answers, firstBlade, handleFor, STARTS } from "../../src/design/first.ts";
import { judge } from "../../src/findings/judge.ts";

const answersFor = (use: string, change: Partial<Answers> = {}): Answers => {
  const { family, values, stock, grinds } = STARTS[use]!;
  return {
    name: "First",
    use,
    family,
    values,
    tang: "full",
    grind: grinds[0]!,
    stock,
    steel: "1084",
    ...change,
  };
};

describe.each(Object.entries(STARTS))("a first blade: %s", (use, { grinds }) => {
  test.each(grinds)("%s has nothing to fix and nothing to watch", (grind) => {
    const made = firstBlade(answersFor(use, { grind }));
    if (!made.ok) throw new Error(made.why);
    expect(
      judge(made.blade)
        .findings.filter((f) => f.severity !== "note")
        .map((f) => f.message),
    ).toEqual([]);
    expect(made.open).toBe(0);
    expect(made.reasons.length).toBeGreaterThan(4);
  });
});

test("every outline makes a blade for a field knife's grind, with a full and with a hidden tang", () => {
  for (const { key, tangs } of FAMILIES) {
    for (const tang of tangs) {
      const made = firstBlade(answersFor("field", { family: key, values: {}, tang }));
      expect(made.ok ? "" : `${key}: ${made.why}`).toBe("");
    }
  }
});

test("the same answers make the same blade, and its sizes are those asked for", () => {
  const answers = answersFor("field", { values: { length: 131, height: 28, handle: 104 } });
  const [one, two] = [firstBlade(answers), firstBlade(answers)];
  expect(one).toEqual(two);
  if (!one.ok) throw new Error(one.why);
  const { spine, edge } = one.blade.outline;
  expect(spine[spine.length - 1]!.at[0]).toBe(131);
  expect(edge[0]!.at[1]).toBe(-28);
});

test("a hand of usual breadth gets a handle of usual length", () => {
  // Source: common practice, four fingers: 100–115 mm.
  for (const breadth of [78, 85, 90]) {
    expect(handleFor(breadth)).toBeGreaterThanOrEqual(100);
    expect(handleFor(breadth)).toBeLessThanOrEqual(115);
  }
  expect(handleFor(10)).toBe(90);
});

test("what cannot be made is said in words", () => {
  expect(firstBlade(answersFor("field", { family: "spoon" }))).toMatchObject({ ok: false });
  const thick = firstBlade(answersFor("slicer", { stock: 0.1 }));
  expect(thick.ok ? "" : thick.why).toMatch(/^These sizes make no blade/);
});

test("a double edge is ground on both, alike: as thick behind, its lines as far from either, a ridge or flat between", () => {
  const made = firstBlade(answersFor("display"));
  if (!made.ok) throw new Error(made.why);
  const field = compileField(made.blade);
  expect(made.blade.falseEdge).toBeUndefined();
  for (const share of [0.3, 0.6]) {
    const x = share * field.ring.right;
    const below = stationAtX(field, x)!;
    const above = secondStations(field, 60).find((station) => station.x >= x)!;
    expect(above.behind!).toBeCloseTo(below.behind!, 2);
    expect(Math.abs(above.right.grindLine! - below.right.grindLine!)).toBeLessThan(0.35);
  }
  expect(judge(made.blade).findings.map(({ id }) => id)).toContain("second-edge-law");
});
