import { ac1, austenitic, EUTECTOID } from "../steel/critical.ts";
import { SEVERITY } from "../steel/hardenability.ts";
import type { HeatKind, HeatOp } from "./schema.ts";
import type { Known } from "./steel.ts";

/** Normalizing heats, falling: starting values; each at least so much above where it begins to dissolve. */
const NORMALIZE = [870, 830, 790] as const;
const ABOVE_AC1 = 30;
/** A hardening heat above Ac1 with more carbon than pearlite, else above all austenite: starting values. */
const ABOVE = { high: 80, low: 50 } as const;
const HARDEN_MINUTES = 10;
const OIL_T = 50;
const MOVED_OIL = SEVERITY["oil, moved well"];
const TEMPER_T = 204;
const TEMPER_MINUTES = 120;

/** Recipes that are known with what they come to, °C and minutes. Source: common practice. */
const KNOWN: Readonly<
  Record<string, { T: number; minutes: number; quenched: [number, number]; tempered: [number, number] }>
> = {
  "1084": { T: 802, minutes: 10, quenched: [65, 66], tempered: [60, 60] },
};

const WHOLE = { zone: "all", by: "oven", control: "measured" } as const;

/** One operation as it is usually done, `n` of its kind having been done before it. Starting values, common practice. */
export function usualOp(
  kind: HeatKind,
  n: number,
  known: Known | null,
  grade: string | undefined,
): Omit<HeatOp, "id"> {
  const recipe = grade === undefined ? undefined : KNOWN[grade];
  const sourced = (expect: [number, number] | undefined) =>
    expect ? { expect: [...expect], source: "common practice" } : {};
  switch (kind) {
    case "normalize": {
      const falling = NORMALIZE[Math.min(n, NORMALIZE.length - 1)]!;
      const T = Math.round(Math.max(falling, known ? ac1(known.middle) + ABOVE_AC1 : 0));
      return { kind, ...WHOLE, T, minutes: 10, medium: "air", air: "air" };
    }
    case "harden":
      return {
        kind,
        ...WHOLE,
        T: recipe?.T ?? hardenAt(known),
        minutes: recipe?.minutes ?? HARDEN_MINUTES,
        medium: "oil",
        H: [...MOVED_OIL],
        mediumT: OIL_T,
        air: "air",
        ...sourced(recipe?.quenched),
      };
    case "temper":
      return {
        kind,
        ...WHOLE,
        T: TEMPER_T,
        minutes: TEMPER_MINUTES,
        ...(n === 1 ? sourced(recipe?.tempered) : {}),
      };
    case "anneal":
      return {
        kind,
        ...WHOLE,
        T: subcriticalAt(known),
        minutes: 90,
        medium: "oven",
        coolBy: COOL_BY,
        air: "air",
      };
    case "clay":
      return { kind, zone: "spine", T: 100, minutes: 0, by: "oven", control: "measured" };
    case "plates":
      return { kind, ...WHOLE, T: 60, minutes: 10, medium: "plates" };
    case "draw":
      return { kind, zone: "tang", T: 300, minutes: 0, by: "torch", control: "colour" };
  }
}

/** The oven is let cool so fast after an anneal, °C an hour: 10 to 20. Source: from memory of ASM Handbook 4. */
export const COOL_BY = 15;
/** A subcritical anneal lies so far below Ac1, where nothing can harden, °C. Source: from memory of ASM Handbook 4 (20 to 30). */
const BELOW_AC1 = 25;
/** Where the steel is not known: below the Ac1 of every plain and low-alloy grade here, °C. Starting value. */
const SUBCRITICAL = 680;

/** Where a steel is annealed below Ac1, °C: it softens every grade, also those that harden in air or in slow cooling. */
export function subcriticalAt(known: Known | null): number {
  return known ? Math.floor(ac1(known.middle) - BELOW_AC1) : SUBCRITICAL;
}

/** The kinds of the usual recipe in order. Source: common practice. */
export const USUAL_RECIPE: readonly HeatKind[] = [
  "normalize",
  "normalize",
  "normalize",
  "harden",
  "temper",
  "temper",
];

/** Heats for coupons above what dissolves its carbon, °C: starting values. */
const COUPONS = { high: [50, 70, 90], low: [20, 50, 80] } as const;

/** Heats that a coupon of a steel is tried at, °C. Common practice: the hardest with the finest grain is its own. */
export function couponHeats({ middle }: Known): number[] {
  const isHigh = middle.C > EUTECTOID;
  const from = isHigh ? ac1(middle) : austenitic(middle);
  return COUPONS[isHigh ? "high" : "low"].map((above) => Math.round(from + above));
}

/** A hardening heat for a steel: enough above what dissolves its carbon; a usual one where nothing is known. Starting values. */
export function hardenAt(known: Known | null): number {
  if (!known) return 815;
  const { middle } = known;
  return Math.round(middle.C > EUTECTOID ? ac1(middle) + ABOVE.high : austenitic(middle) + ABOVE.low);
}
