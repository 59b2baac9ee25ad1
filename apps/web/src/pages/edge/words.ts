import type { EdgeStep } from "@true-spine/core/edge/schema.ts";
import type { Holds, Setting } from "@true-spine/core/route/edge-settings.ts";
import { type LengthUnit, showLengthWithUnit } from "@true-spine/core/units/length.ts";

export const STEP_NAMES: Readonly<Record<EdgeStep["kind"], string>> = {
  rough: "Rough",
  finish: "Finish bevel",
  micro: "Micro-bevel",
  strop: "Strop",
};

/** What is set, by what it is held by. */
export const SET_WORDS: Readonly<Record<Holds["kind"], string>> = {
  stone: "lift of the spine",
  rod: "ball over the middle plane",
  support: "axle to support",
  slack: "hold it at",
  hand: "hold it at",
};

/** A setting as it is read off a rule or a block. */
export function settingWords({ set, unit }: Pick<Setting, "set" | "unit">, shown: LengthUnit): string {
  if (set === null) return "out of reach";
  return unit === "mm" ? showLengthWithUnit(set, shown) : `${set.toFixed(1)}°`;
}

/** A figure of microns: fine enough to be seen in any unit. */
export const fine = (unit: LengthUnit) => ({ mm: 3, inch: 4, thou: 1 })[unit];

/** Angles of a side as they are said: one where both are alike. */
export function angleWords({ left, right }: EdgeStep["angle"]): string {
  const one = (angle: number) => `${angle.toFixed(angle % 1 === 0 ? 0 : 1)}°`;
  if (left === right) return `${one(right)} a side`;
  if (left === 0 || right === 0) return `${one(left + right)} on the ${left === 0 ? "right" : "left"} alone`;
  return `${one(left)} left, ${one(right)} right`;
}
