import { type LengthUnit, MILLIMETRES_IN } from "../units/length.ts";
import { QUANTITY } from "./quantity.ts";
import type { Spot } from "./schema.ts";

/** How a figure comes to be on the list that no steel showed. Source: common practice. */
export const SLIPS = [
  "ten-times",
  "a-tenth",
  "hundred-times",
  "a-hundredth",
  "in-thousandths",
  "in-inches",
  "in-millimetres",
  "digits-swapped",
  "other-sign",
  "other-side",
  "other-stage",
  "unlike",
] as const;
export type Slip = (typeof SLIPS)[number];

/** What a figure would be without a slip of the hand, in its own unit. */
export interface Instead {
  readonly slip: Slip;
  readonly value: number;
  /** The stage it seems to belong to. */
  readonly stage?: string;
}

const THOU = MILLIMETRES_IN.thou;
const INCH = MILLIMETRES_IN.inch;

/** Every figure that may have been meant where this one was written down, `typed` in a unit: digits change places as they were typed. */
export function mayHaveBeen({ what }: Spot, value: number, typed: LengthUnit = "mm"): Instead[] {
  const { unit, isSigned } = QUANTITY[what];
  const scaled: [Slip, number][] = [
    ["ten-times", value / 10],
    ["a-tenth", value * 10],
    ["hundred-times", value / 100],
    ["a-hundredth", value * 100],
    ...(unit === "mm"
      ? ([
          ["in-thousandths", value * THOU],
          ["in-inches", value * INCH],
          ["in-millimetres", value / INCH],
          ["in-millimetres", value / THOU],
        ] as [Slip, number][])
      : []),
    ...(isSigned ? ([["other-sign", -value]] as [Slip, number][]) : []),
  ];
  const inTyped = unit === "mm" ? MILLIMETRES_IN[typed] : 1;
  const swapped = swaps(value / inTyped).map((one): [Slip, number] => ["digits-swapped", one * inTyped]);
  return [...scaled, ...swapped].map(([slip, one]) => ({ slip, value: Number(one.toPrecision(6)) }));
}

/** The same figures with two of their digits changed places. */
function swaps(value: number): number[] {
  const text = String(Number(Math.abs(value).toFixed(3)));
  const at = [...text].flatMap((sign, i) => (sign === "." ? [] : [i]));
  const sign = value < 0 ? -1 : 1;
  return at.flatMap((i, n) =>
    at.slice(n + 1).flatMap((k) => {
      if (text[i] === text[k]) return [];
      const digits = [...text];
      [digits[i], digits[k]] = [digits[k]!, digits[i]!];
      return [sign * Number(digits.join(""))];
    }),
  );
}
