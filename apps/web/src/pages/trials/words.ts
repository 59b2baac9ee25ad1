import type { Batch, Damage, Next } from "@true-spine/core/edge/trials.ts";
import { type LengthUnit, showLengthWithUnit } from "@true-spine/core/units/length.ts";

export const DAMAGE_NAMES: Readonly<Record<Damage, string>> = {
  none: "nothing",
  apex: "the apex only",
  body: "its body, behind the edge",
};

/** From and to behind an edge. */
export function behindWords(least: number, most: number, unit: LengthUnit): string {
  if (most <= 0) return "nothing behind it";
  return least === most
    ? showLengthWithUnit(least, unit)
    : `${showLengthWithUnit(least, unit)} to ${showLengthWithUnit(most, unit)}`;
}

export function nextWords(next: Next, unit: LengthUnit): string {
  switch (next.do) {
    case "thinner":
      return `Next: a stage thinner, ${behindWords(...next.to, unit)} at ${next.angle}°, nothing else changed.`;
    case "thicker":
      return `Next: a stage thicker, ${behindWords(...next.to, unit)} at ${next.angle}°, or softer use.`;
    case "steeper":
      return `Next: ${next.angle}° a side, as thick as it is.`;
    case "softer":
      return "It is at its thickest stage: softer use.";
    case "stop":
      return `Stop. ${next.why}`;
  }
}

/** The last edge that was tried: batches from the end that were made on it. */
export function lastEdge(batches: readonly Batch[]): Batch[] {
  const last = batches.at(-1);
  if (!last) return [];
  const isSame = (one: Batch) =>
    one.least === last.least &&
    one.most === last.most &&
    one.angle === last.angle &&
    one.micro === last.micro &&
    one.steel === last.steel;
  const from = batches.findLastIndex((one) => !isSame(one));
  return batches.slice(from + 1);
}
