import type { Field } from "../blade/field.ts";
import { SIDES, type Side } from "../blade/schema.ts";
import { type PerSide, type Station, thicknessAbove } from "../blade/station.ts";
import { CONTACT_DEPTH } from "../edge/strength.ts";
import { atan, tan } from "../units/angle.ts";
import type { Purpose } from "./purposes.ts";

/**
 * The edge as the steel has it, whichever way the file describes it: a bevel of 22° to the apex, one of 21.9° under an edge bevel of 22°,
 * and an edge bevel of 22° straight off the flats are one edge, and are judged as one.
 */

/** An edge bevel within this distance of the bevel extended to the apex, mm in all, is judged as part of that bevel. Starting value. */
const APART = 0.02;

/** Slope of the face above the edge bevel; null where that is the flat. */
const slopeAbove = ({ angleAtShoulder, primaryAngle }: Station["left"]) => {
  const angle = angleAtShoulder ?? primaryAngle;
  return angle === null ? null : tan(angle);
};

/** Whether one face runs to the apex on each ground side, so that a caliper finds no shoulder. False where neither side is ground. */
export function isZeroEdge({ blade }: Pick<Field, "blade">, station: Station): boolean {
  let apart = 0;
  let isGround = false;
  for (const side of SIDES) {
    const { edgeBevel } = station[side];
    const above = slopeAbove(station[side]);
    isGround ||= Boolean(edgeBevel) || above !== null;
    // Straight off the flats the edge bevel is the one face there is.
    if (edgeBevel && above !== null) apart += Math.abs(edgeBevel * (tan(blade.edge.angle[side]) - above));
  }
  return isGround && apart <= APART;
}

/**
 * Angle of the edge per side, degrees: of the edge bevel; where one face runs to the apex, of the steel from the apex up to the contact
 * depth. Null on a side without an edge.
 */
export function edgeAngleAt(field: Field, station: Station): PerSide<number | null> {
  const isZero = isZeroEdge(field, station);
  const half = (side: Side, s: number) => {
    field.sampleAt(station.x + s * station.inward[0], station.y + s * station.inward[1]);
    return field[side].lowest;
  };
  const on = (side: Side) => {
    const { edgeBevel, angleAtShoulder, primaryAngle } = station[side];
    if (!isZero) return edgeBevel ? field.blade.edge.angle[side] : null;
    if (!edgeBevel && (angleAtShoulder ?? primaryAngle) === null) return null;
    return atan((half(side, CONTACT_DEPTH) - half(side, 0)) / CONTACT_DEPTH);
  };
  return { left: on("left"), right: on("right") };
}

/** How thick the edge is, and how high above the apex that is, mm. */
export interface EdgeThickness {
  readonly t: number;
  readonly above: number;
  readonly isZero: boolean;
}

/**
 * Thickness behind the edge, at the shoulder; where there is none, at the height where the middle of the purpose's limits would have it.
 * Null where neither is known.
 */
export function edgeThickness(
  field: Field,
  station: Station,
  purpose: Pick<Purpose, "behind" | "edgeAngle">,
): EdgeThickness | null {
  if (!isZeroEdge(field, station)) {
    const above = Math.max(station.left.edgeBevel ?? 0, station.right.edgeBevel ?? 0);
    return station.behind === null ? null : { t: station.behind, above, isZero: false };
  }
  const above = mean(purpose.behind) / 2 / tan(mean(purpose.edgeAngle));
  const t = thicknessAbove(field, station, above);
  return t === null ? null : { t, above, isZero: true };
}

const mean = ([low, high]: readonly [number, number]) => (low + high) / 2;
