import type { PatternKey } from "@true-spine/core/inspect/faults/fault.ts";
import { diagnose } from "@true-spine/core/inspect/fit.ts";
import { potentialSpots, readingPlan } from "@true-spine/core/inspect/plan.ts";
import type { StageKind } from "@true-spine/core/route/schema.ts";
import { USUAL_INSTRUMENTS } from "@true-spine/core/shop/instrument.ts";
import { afterAll, describe, expect, test } from "vitest";
import type { Fault } from "../src/piece.ts";
import type { Random } from "../src/random.ts";
import { figuresOf, hollowKnife, knife, pieceOf, randomFrom, roundOf, type Setup, setupOf } from "./bench.ts";

/**
 * Pieces cut apart from what judges them, read with a usual caliper's noise, its jaws and a hand's place error, at the places of
 * the reading plan alone. Every fault at one and a half to two and a half times its band.
 */
interface Made {
  readonly faults: readonly Fault[];
  readonly bias?: number;
}
type Make = (random: Random, isHard: boolean) => Made;

const sign = (random: Random) => (random.next() < 0.5 ? -1 : 1);
const side = (random: Random) => (random.next() < 0.5 ? ("left" as const) : ("right" as const));
const sized = (random: Random, isHard: boolean, band: number) =>
  (isHard ? band : 2.5 * band) * (1.5 + random.next());

const MADE: Readonly<Partial<Record<PatternKey, Make>>> = {
  "off-centre": (random, isHard) => ({
    faults: [
      {
        kind: "off-centre",
        k: sign(random) * sized(random, isHard, 0.1),
        from: 18 + random.next() * 25,
        to: 75 + random.next() * 30,
      },
    ],
  }),
  smile: (random, isHard) => ({
    faults: [
      {
        kind: "smile",
        side: side(random),
        depth: sized(random, isHard, 0.1),
        reach: 14 + 10 * random.next(),
      },
    ],
  }),
  wave: (random, isHard) => ({
    faults: [
      {
        kind: "wave",
        side: side(random),
        depth: sized(random, isHard, 0.08),
        length: 42 + 20 * random.next(),
        phase: 6 * random.next(),
      },
    ],
  }),
  "belly-thick": (random, isHard) => ({
    faults: [{ kind: "belly-thick", most: sized(random, isHard, 0.1) }],
  }),
  "plunge-back": (random) => ({
    faults: [{ kind: "plunge-back", side: side(random), by: sign(random) * (0.7 + random.next()), lean: 0 }],
  }),
  "out-of-square": (random, isHard) => ({
    faults: [{ kind: "out-of-square", by: sign(random) * sized(random, isHard, 0.25) }],
  }),
  "flats-not-true": (random) => ({
    faults: [{ kind: "flats-not-true", heel: sign(random) * 0.2, tip: random.next() < 0.5 ? 0 : 0.2 }],
  }),
  "jig-zero": (random, isHard) => ({
    faults: [
      {
        kind: "jig-zero",
        by: sign(random) * sized(random, isHard, 0.35),
        held: random.next() < 0.5 ? "edge" : "line",
      },
    ],
  }),
  "worn-reference": (random, isHard) => ({ faults: [], bias: sign(random) * (isHard ? 0.15 : 0.3) }),
};

/** The same fault, half as large. */
function halved({ faults, bias }: Made): Made {
  const half = (fault: Fault): Fault => {
    const copy: Record<string, unknown> = { ...fault };
    for (const key of ["k", "depth", "most", "by", "heel", "tip"]) {
      if (typeof copy[key] === "number") copy[key] = (copy[key] as number) / 2;
    }
    return copy as Fault;
  };
  return { faults: faults.map(half), ...(bias === undefined ? {} : { bias: bias / 2 }) };
}

const TIMES = 24;
const TAN = (degrees: number) => Math.tan((degrees * Math.PI) / 180);
const table: string[] = [];

function tally(setup: Setup, stage: StageKind, make: Make, seed: number, times = TIMES): Map<string, number> {
  const plan = readingPlan(setup.stage, USUAL_INSTRUMENTS).round;
  const potential = potentialSpots(setup.stage);
  const named = new Map<string, number>();
  for (let i = 0; i < times; i++) {
    const random = randomFrom(seed + 7919 * i);
    const { faults, bias } = make(random, setup.stage.isHard);
    const piece = pieceOf(setup, faults, random);
    const read = roundOf(piece, plan, stage, random, bias === undefined ? {} : { caliper: bias });
    const { pattern } = diagnose(setup.stage, figuresOf(setup, read), potential);
    named.set(pattern, (named.get(pattern) ?? 0) + 1);
  }
  return named;
}

const said = (named: Map<string, number>) => [...named].map(([name, count]) => `${name} ${count}`).join(", ");

afterAll(() => {
  // The table is what a reader wants of this file.
  process.stdout.write(`\nfault cut -> pattern named, of ${TIMES}\n${table.join("\n")}\n`);
});

describe.each(["rough", "true", "finish"] as const)("after %s", (stage) => {
  const setup = setupOf(knife(), stage);
  test.each(Object.entries(MADE) as [PatternKey, Make][])(
    "%s is named first nine times of ten",
    (pattern, make) => {
      const named = tally(setup, stage, make, pattern.length * 131);
      table.push(`${stage}: ${pattern} -> ${said(named)}`);
      expect(named.get(pattern) ?? 0, said(named)).toBeGreaterThanOrEqual(Math.ceil(0.9 * TIMES));
    },
  );

  test("a sound blade is called sound, but for fewer than one in twenty", () => {
    const times = 80;
    const named = tally(setup, stage, () => ({ faults: [] }), 99, times);
    table.push(`${stage}: sound -> ${said(named)} of ${times}`);
    expect(times - (named.get("sound") ?? 0), said(named)).toBeLessThan(0.05 * times);
  });
});

describe("the rest", () => {
  test.each(["true", "finish"] as const)(
    "after %s a face ground at 10° to a step and at 5° above it, where 5° was meant, is told as two slopes on that side",
    (stage) => {
      const held = (relief: object) =>
        knife((file) => {
          const { plunge } = file.bevels.right;
          const flat = { kind: "flat", pull: "follow", set: "angle", angle: 5, plunge };
          file.bevels = { right: { ...flat, ...relief }, left: flat };
        });
      const setup = setupOf(held({}), stage);
      const plan = readingPlan(setup.stage, USUAL_INSTRUMENTS).round;
      const potential = potentialSpots(setup.stage);
      const named = new Map<string, number>();
      const off: number[] = [];
      for (let i = 0; i < TIMES; i++) {
        const random = randomFrom(41 + 7919 * i);
        const height = 2.3 + 0.8 * random.next();
        const blade = held({ relief: { angle: 10, height } });
        const piece = pieceOf({ ...setup, blade }, [], random);
        const read = roundOf(piece, plan, stage, random);
        const { found, pattern } = diagnose(setup.stage, figuresOf(setup, read), potential);
        named.set(pattern, (named.get(pattern) ?? 0) + 1);
        const [first] = found;
        // What stands above the step is what readings tell: two planes from the shoulder, about 0.45/2 mm a side at 18°.
        const proud = (height - 0.225 / TAN(18)) * (TAN(10) - TAN(5));
        if (first?.shape.step && first.shape.side === "right") off.push(first.size - proud);
      }
      table.push(`${stage}: two-slopes -> ${said(named)}`);
      expect(off.length, said(named)).toBeGreaterThanOrEqual(Math.ceil(0.9 * TIMES));
      expect(Math.abs(off.reduce((sum, one) => sum + one, 0) / off.length)).toBeLessThan(0.03);
    },
  );

  test("a swapped wheel is named on a hollow blade", () => {
    const setup = setupOf(hollowKnife(), "finish");
    const make: Make = (random) => ({
      faults: [{ kind: "wheel-swapped", diameter: random.next() < 0.5 ? 110 + 20 * random.next() : 1200 }],
    });
    const named = tally(setup, "finish", make, 5);
    table.push(`finish, hollow: wheel-swapped -> ${said(named)}`);
    expect(named.get("wheel-swapped") ?? 0, said(named)).toBeGreaterThanOrEqual(Math.ceil(0.9 * TIMES));
  });

  test("two faults at once: one is named first, and both are found, four times of five", () => {
    const setup = setupOf(knife(), "true");
    const plan = readingPlan(setup.stage, USUAL_INSTRUMENTS).round;
    const potential = potentialSpots(setup.stage);
    let both = 0;
    for (let i = 0; i < TIMES; i++) {
      const random = randomFrom(17 + 7919 * i);
      const faults: Fault[] = [
        {
          kind: "off-centre",
          k: sign(random) * 0.25,
          from: 35 + 10 * random.next(),
          to: 75 + 5 * random.next(),
        },
        { kind: "belly-thick", most: 0.2 + 0.1 * random.next() },
      ];
      const read = roundOf(pieceOf(setup, faults, random), plan, "true", random);
      const { found } = diagnose(setup.stage, figuresOf(setup, read), potential);
      const names = found.map(({ pattern }) => pattern);
      if (names.includes("off-centre") && names.includes("belly-thick")) both++;
    }
    table.push(`true: off-centre and belly-thick together -> both found ${both}`);
    expect(both).toBeGreaterThanOrEqual(Math.ceil(0.8 * TIMES));
  });

  test("where it fails: at three quarters of the band up to all of it fewer are named, and a wrong name is rare", () => {
    const setup = setupOf(knife(), "true");
    let [right, wrong] = [0, 0];
    for (const [pattern, make] of Object.entries(MADE) as [PatternKey, Make][]) {
      // Half of what the table above is cut with.
      const named = tally(
        setup,
        "true",
        (random, isHard) => halved(make(random, isHard)),
        41 + pattern.length,
        12,
      );
      table.push(`true, half as large: ${pattern} -> ${said(named)} of 12`);
      right += named.get(pattern) ?? 0;
      wrong += 12 - (named.get(pattern) ?? 0) - (named.get("sound") ?? 0) - (named.get("unknown") ?? 0);
    }
    const all = 12 * Object.keys(MADE).length;
    expect(right / all).toBeGreaterThan(0.4);
    expect(wrong / all).toBeLessThan(0.15);
  });

  test("where it fails: a fault no larger than half its band is mostly called sound", () => {
    const setup = setupOf(knife(), "true");
    const make: Make = (random) => ({
      faults: [{ kind: "off-centre", k: sign(random) * 0.05, from: 30, to: 90 }],
    });
    const named = tally(setup, "true", make, 3);
    table.push(`true: off-centre at half its band -> ${said(named)}`);
    expect(named.get("sound") ?? 0).toBeGreaterThan(TIMES / 2);
  });
});
