import { firstAtX, placeAt } from "../blade/chain.ts";
import type { Field } from "../blade/field.ts";
import { type Bevel, type Blade, bevelOn, SIDES } from "../blade/schema.ts";
import type { Station } from "../blade/station.ts";
import { atan } from "../units/angle.ts";

/** How far the edge thickens under a straight pull, and what it takes to follow it instead. */
export interface Thickening {
  /** Behind the edge where the pull begins, mm. */
  readonly start: number;
  /** Where it has grown by more than a caliper can miss, mm from the junction. */
  readonly from: number;
  /** Where it is thickest, and how thick, mm. */
  readonly at: number;
  readonly thickest: number;
  /** Degrees the handle would have had to be swung by there. */
  readonly swing: number;
}

/** Growth that a caliper does not miss, mm: half its usual repeat error. Source: common practice, ± 0.05 on an edge. */
const NOTICED = 0.025;

/** What a straight pull does to the edge along the given stations; null where it does not thicken. */
export function thickening(field: Field, stations: readonly Station[], restAngle: number): Thickening | null {
  const known = stations.flatMap(({ x, behind }) => (behind === null ? [] : [{ x, behind }]));
  const start = known[0]?.behind;
  if (start === undefined) return null;
  const from = known.find(({ behind }) => behind > start + NOTICED);
  if (!from) return null;
  const most = known.reduce((a, b) => (b.behind > a.behind ? b : a));
  return { start, from: from.x, at: most.x, thickest: most.behind, swing: swingAt(field, most.x, restAngle) };
}

/** How far the edge at x has turned from the line that the spine slides along, degrees. Source: geometry. */
export function swingAt(field: Field, x: number, restAngle: number): number {
  const s = firstAtX(field.edge, x) ?? field.edge.length;
  const { tx, ty } = placeAt(field.edge, s);
  return Math.abs(atan(ty / tx) - restAngle);
}

/** Whether a bevel is pulled straight. */
export function isStraight(bevel: Bevel): boolean {
  return bevel.kind !== "none" && bevel.pull === "straight";
}

/**
 * The same blade with its flat bevels ground the other way: straight ones following the edge at their angle, following
 * ones pulled straight at the angle they have at `station`. Null where no flat bevel can be.
 */
export function otherPull(blade: Blade, station: Station): Blade | null {
  if (typeof blade.edge.offset !== "number") return null;
  const next = structuredClone(blade);
  let isChanged = false;
  for (const side of SIDES) {
    const bevel = bevelOn(blade, side);
    if (bevel.kind !== "flat" || (side === "left" && blade.bevels.left === "same")) continue;
    const { plunge } = bevel;
    if (bevel.pull === "straight") {
      next.bevels[side] = { kind: "flat", pull: "follow", set: "angle", angle: bevel.angle, plunge };
    } else {
      const angle = station[side].primaryAngle;
      if (angle === null || angle <= 0) continue;
      next.bevels[side] = { kind: "flat", pull: "straight", set: "angle", angle, plunge };
    }
    isChanged = true;
  }
  return isChanged ? next : null;
}
