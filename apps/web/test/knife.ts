import { readFileSync } from "node:fs";
import type { Blade } from "@true-spine/core/blade/schema.ts";

/** The field knife of the examples, with another plunge radius. */
export function knife(radius = 4): Blade {
  const blade = JSON.parse(readFileSync("packages/core/examples/field.json", "utf8")) as Blade;
  if (blade.bevels.right.kind !== "none") blade.bevels.right.plunge.radius = radius;
  return blade;
}

export const radiusOf = (blade: Blade) =>
  blade.bevels.right.kind === "none" ? null : blade.bevels.right.plunge.radius;
