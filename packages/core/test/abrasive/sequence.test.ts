import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { beltLife, cuttingRate } from "../../src/abrasive/cutting.ts";
import { micronsOf } from "../../src/abrasive/gradings.ts";
import { type Abrasive, CONDITIONS } from "../../src/abrasive/schema.ts";
import { followed, type Job, planSequence, skippedBy, USUAL } from "../../src/abrasive/sequence.ts";

const belt = (grade: string, more: Partial<Abrasive> = {}): Abrasive => ({
  id: grade.toLowerCase(),
  abrasive: "ceramic",
  backing: "cloth",
  scale: "P",
  grade,
  microns: micronsOf("P", grade)!,
  condition: "fresh",
  onHand: 5,
  price: 8,
  ...more,
});
const GRADES = ["P36", "P60", "P80", "P120", "P150", "P220", "P320", "P400", "P600", "P800"];
const store = GRADES.map((grade) => belt(grade));
/** Both faces of a field knife's bevel, 0.3 mm a side, from scale to P400. */
const job: Job = { ...USUAL, area: 4000, from: 0, to: micronsOf("P", "P400")!, depth: 0.3 };
const names = (planned: ReturnType<typeof planSequence>) =>
  planned.ok ? planned.sequence.steps.map((step) => step.belt.grade) : planned.why;

/** Every subset of the store, in order of fineness, tried one by one: shares nothing with the planner's search. */
function cheapestByTrying(belts: readonly Abrasive[], asked: Job): number | null {
  let best: number | null = null;
  for (let bits = 1; bits < 2 ** belts.length; bits++) {
    const some = belts.filter((_, i) => (bits >> i) & 1).toSorted((a, b) => b.microns - a.microns);
    const last = some[some.length - 1]!;
    let before = asked.from;
    let isRight = last.microns <= asked.to;
    let later = 0;
    some.forEach((one, i) => {
      if (one.onHand < 1 || (before > 0 && before / one.microns > asked.largestStep)) isRight = false;
      if (i > 0 && one.microns >= before) isRight = false;
      if (i > 0) later += 1.3 * asked.scratchShare * 0.001 * before;
      before = one.microns;
    });
    const least = 1.3 * asked.scratchShare * 0.001 * asked.from;
    const own = asked.depth === null ? least : asked.depth - later;
    if (!isRight || own < least - 1e-9) continue;
    let cost = 0;
    some.forEach((one, i) => {
      const depth = i === 0 ? own : 1.3 * asked.scratchShare * 0.001 * some[i - 1]!.microns;
      const volume = depth * asked.area;
      if (volume / beltLife(one) > one.onHand + 1e-9) isRight = false;
      cost += (volume / cuttingRate(one) / 60) * asked.hourly + (volume / beltLife(one)) * one.price;
    });
    if (isRight && (best === null || cost < best)) best = cost;
  }
  return best;
}

describe("a belt sequence", () => {
  test("takes off all that is to come off, each belt at least the scratches before it, finer every time", () => {
    const planned = planSequence(store, job);
    if (!planned.ok) throw new Error(planned.why);
    const { steps, depth, minutes, cost } = planned.sequence;
    expect(depth).toBeCloseTo(0.3, 9);
    steps.slice(1).forEach((step, i) => {
      const before = steps[i]!.belt.microns;
      expect(step.belt.microns).toBeLessThan(before);
      expect(before / step.belt.microns).toBeLessThanOrEqual(job.largestStep);
      expect(step.depth).toBeCloseTo(1.3 * 0.12 * 0.001 * before, 9);
    });
    expect(steps.at(-1)!.belt.microns).toBeLessThanOrEqual(job.to);
    expect(steps.reduce((sum, step) => sum + step.minutes, 0)).toBeCloseTo(minutes, 9);
    expect(cost).toBeGreaterThan((minutes * job.hourly) / 60);
  });

  test("is the cheapest there is: no subset of the belts, tried one by one, costs less", () => {
    const random = fc.array(
      fc.record({
        grade: fc.constantFrom(...GRADES),
        condition: fc.constantFrom(...CONDITIONS),
        onHand: fc.integer({ min: 0, max: 3 }),
        price: fc.double({ min: 2, max: 30, noNaN: true }),
        abrasive: fc.constantFrom("ceramic" as const, "alumina" as const),
      }),
      { minLength: 1, maxLength: 8 },
    );
    const asked = fc.record({
      depth: fc.option(fc.double({ min: 0.02, max: 0.8, noNaN: true })),
      from: fc.constantFrom(0, 538, 201),
      to: fc.constantFrom(125, 46.2, 21.8),
      area: fc.double({ min: 500, max: 20_000, noNaN: true }),
    });
    fc.assert(
      fc.property(random, asked, (some, what) => {
        const belts = some.map(({ grade, ...more }, i) => belt(grade, { ...more, id: `b${i}` }));
        const full: Job = { ...USUAL, ...what };
        const planned = planSequence(belts, full);
        // Where no step is short enough, a longer one is better than no finish.
        const best =
          cheapestByTrying(belts, full) ??
          cheapestByTrying(belts, { ...full, largestStep: Number.POSITIVE_INFINITY });
        expect(planned.ok).toBe(best !== null);
        if (planned.ok) expect(planned.sequence.cost).toBeCloseTo(best!, 6);
        else expect(planned.why.length).toBeGreaterThan(20);
      }),
      { numRuns: 400 },
    );
  });

  /** Sequences seen to work. Source: common practice. */
  test.each([
    ["36, 80, 120", ["P36", "P80", "P120"]],
    ["36, 80, 120, 220", ["P36", "P80", "P120", "P220"]],
    ["60, 120, 220", ["P60", "P120", "P220"]],
    ["120, 220", ["P120", "P220"]],
    ["220, 400", ["P220", "P400"]],
    ["36 to 120", ["P36", "P120"]],
    ["36 to 400", ["P36", "P400"]],
  ])(
    "costs no more than %s on the same store, where its steps are usual; a longer step is worked out",
    (_, grades) => {
      const belts = grades.map((grade) => store.find((one) => one.grade === grade)!);
      const asked = { ...job, to: belts.at(-1)!.microns };
      const fixed = followed(belts, asked);
      const planned = planSequence(store, asked);
      if (!planned.ok || !fixed.ok) throw new Error("both can be worked out");
      const isUsual = belts.every(
        (one, i) => i === 0 || belts[i - 1]!.microns / one.microns <= job.largestStep,
      );
      // A longer step is no refusal: it is worked out, and may be cheaper than what is usual.
      if (isUsual) expect(planned.sequence.cost).toBeLessThanOrEqual(fixed.sequence.cost + 1e-9);
      else expect(fixed.sequence.steps).toHaveLength(belts.length);
    },
  );

  test("a belt that is missing or worn is planned round", () => {
    const whole = planSequence(store, job);
    if (!whole.ok) throw new Error(whole.why);
    const gone = whole.sequence.steps[1]!.belt;
    const without = planSequence(
      store.map((one) => (one.id === gone.id ? { ...one, onHand: 0 } : one)),
      job,
    );
    expect(names(without)).not.toContain(gone.grade);
    if (without.ok) expect(without.sequence.cost).toBeGreaterThanOrEqual(whole.sequence.cost);
  });

  test("each step left out is named with what it would add: never less than nothing", () => {
    const planned = planSequence(store, job);
    if (!planned.ok) throw new Error(planned.why);
    const used = planned.sequence.steps.map(({ belt: one }) => one.id);
    const skipped = skippedBy(planned.sequence, store, job);
    expect(skipped.length).toBeGreaterThan(1);
    for (const { belt: one, cost } of skipped) {
      expect(used).not.toContain(one.id);
      expect(cost).toBeGreaterThanOrEqual(-1e-9);
    }
  });

  test("what is too coarse to begin with is not among what was left out", () => {
    const edge = { ...job, depth: 0.07, to: micronsOf("P", "P600")!, coarsest: micronsOf("P", "P220")! };
    const planned = planSequence(store, edge);
    if (!planned.ok) throw new Error("it can be done");
    const skipped = skippedBy(planned.sequence, store, edge);
    expect(skipped.length).toBeGreaterThan(0);
    expect(skipped.every(({ belt: { microns } }) => microns <= edge.coarsest + 1e-9)).toBe(true);
  });

  test("where only scratches come off, a belt as coarse as they are is not left out: it would make them anew", () => {
    const from = micronsOf("P", "P60")!;
    const only = { ...job, depth: null, from, to: micronsOf("P", "P400")! };
    const planned = planSequence(store, only);
    if (!planned.ok) throw new Error("it can be done");
    const skipped = skippedBy(planned.sequence, store, only);
    expect(skipped.length).toBeGreaterThan(0);
    expect(skipped.every(({ belt: { microns } }) => microns < from)).toBe(true);
    // With steel to come off a coarser one may serve.
    const deep = skippedBy(planned.sequence, store, { ...only, depth: 0.5 });
    expect(deep.some(({ belt: { microns } }) => microns >= from)).toBe(true);
  });

  test("a finer finish asks for more steel and more minutes", () => {
    const to = (grade: string) =>
      planSequence(store, { ...job, depth: null, from: 538, to: micronsOf("P", grade)! });
    const [rough, fine] = [to("P120"), to("P400")];
    if (!rough.ok || !fine.ok) throw new Error("both can be done");
    expect(fine.sequence.depth).toBeGreaterThan(rough.sequence.depth);
    expect(fine.sequence.minutes).toBeGreaterThan(rough.sequence.minutes);
  });

  test("says in words what cannot be: the finish, the gap, the steel, the belts", () => {
    const why = (belts: Abrasive[], more: Partial<Job> = {}) =>
      names(planSequence(belts, { ...job, ...more }));
    expect(why(store.slice(0, 4))).toBe("Nothing on hand is as fine as 35 µm.");
    expect(
      names(planSequence([belt("P36"), belt("P120"), belt("P400")], { ...job, from: 538, depth: null })),
    ).toEqual(["P120", "P400"]);
    expect(why(store, { depth: 0.01, from: 538 })).toMatch(
      /0\.010 mm is to come off; the belts on hand need/,
    );
    expect(
      why([belt("P60", { onHand: 1 }), belt("P120"), belt("P220"), belt("P400")], { depth: 20, area: 1e5 }),
    ).toMatch(/It would take [\d.]+ of ceramic P60; 1 on hand/);
  });
});
