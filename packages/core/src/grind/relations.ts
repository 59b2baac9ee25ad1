import { atan, degrees, radians, tan } from "../units/angle.ts";

/**
 * The relations a maker leans on, for a centred blade alike on both sides unless a name says otherwise.
 * T thickness over the flats, e thickness behind the edge (both total), β and α per side in degrees, heights
 * square to the edge in the centre plane. Lengths mm. Source of every one: geometry.
 *
 * Each throws a RangeError in words where no such bevel exists.
 */
function must(holds: boolean, why: string): asserts holds {
  if (!holds) throw new RangeError(why);
}

/** Height of the edge bevel: e/2 ÷ tan α. α above 0 unless e is 0. */
export function edgeBevelHeight(behind: number, edgeAngle: number): number {
  if (behind === 0) return 0;
  must(edgeAngle > 0, "an edge bevel needs an angle above 0");
  return behind / 2 / tan(edgeAngle);
}

/** Edge angle per side from thickness behind the edge and the bevel's height: tan α = e/2 ÷ height. */
export function edgeAngle(behind: number, height: number): number {
  must(height > 0, "the edge bevel has no height, so no angle can be read from it");
  return atan(behind / 2 / height);
}

/** The same with the width as a caliper laid on the bevel reads it: sin α = e/2 ÷ width. */
export function edgeAngleByWidth(behind: number, width: number): number {
  must(width >= behind / 2, "the bevel is narrower than half the thickness behind it");
  return degrees(Math.asin(behind / 2 / width));
}

/** Primary angle per side that takes thickness T down to e over a face `climb` high, shoulder to grind line. */
export function primaryAngle(thickness: number, behind: number, climb: number): number {
  must(climb > 0, "the grind line does not lie above the shoulder");
  return atan((thickness - behind) / 2 / climb);
}

/** The same with the face's own width: sin β = (T − e)/2 ÷ width. */
export function primaryAngleByWidth(thickness: number, behind: number, width: number): number {
  must(width >= (thickness - behind) / 2, "the face is narrower than the steel it takes off");
  return degrees(Math.asin((thickness - behind) / 2 / width));
}

/** Height the bevel climbs from thickness e to T: (T − e)/2 ÷ tan β. β above 0. */
export function bevelClimb(thickness: number, behind: number, angle: number): number {
  must(angle > 0, "a bevel needs an angle above 0 to climb");
  return (thickness - behind) / 2 / tan(angle);
}

/** Grind-line height above the apex for a jig's angle: edge bevel plus climb. */
export function grindLineHeight(thickness: number, behind: number, angle: number, edgeAngle: number): number {
  return edgeBevelHeight(behind, edgeAngle) + bevelClimb(thickness, behind, angle);
}

/** Thickness of the very edge before sharpening: e·(1 − tan β/tan α). The number to grind to. */
export function edgeBeforeSharpening(behind: number, angle: number, edgeAngle: number): number {
  must(behind === 0 || edgeAngle > 0, "an edge bevel needs an angle above 0");
  return behind === 0 ? 0 : behind * (1 - tan(angle) / tan(edgeAngle));
}

/** How far a grind line climbs when δ more comes off its face, square to it: δ/sin β. */
export function climbOfGrindLine(takenOff: number, angle: number): number {
  must(angle > 0, "a flat side has no grind line to climb");
  return takenOff / Math.sin(radians(angle));
}

/** How much the edge thins when δ comes off one face, square to it: δ/cos β. */
export function thinningOfEdge(takenOff: number, angle: number): number {
  return takenOff / Math.cos(radians(angle));
}

/** How far the grind line falls when φ comes off each flat: φ/tan β. */
export function fallOfGrindLine(offFlats: number, angle: number): number {
  must(angle > 0, "a flat side has no grind line to fall");
  return offFlats / tan(angle);
}

/** Grind line's slope along x under a distal taper at fixed β: (dT/dx)/(2 tan β). */
export function grindLineUnderTaper(taper: number, angle: number): number {
  must(angle > 0, "a flat side has no grind line");
  return taper / (2 * tan(angle));
}

/** Grind lines apart when the perimeter is out of square by q degrees: one side at β + q, the other β − q. */
export function linesApartOutOfSquare(thickness: number, angle: number, outOfSquare: number): number {
  must(angle > outOfSquare, "the edge is further out of square than the bevel is steep");
  const climb = (steep: number) => bevelClimb(thickness, 0, steep);
  return climb(angle - outOfSquare) - climb(angle + outOfSquare);
}

/** Grind lines apart when the edge stands k off centre: 2k/tan β. Centring takes 2k off one face. */
export function linesApartOffCentre(offCentre: number, angle: number): number {
  must(angle > 0, "a flat side has no grind line");
  return (2 * offCentre) / tan(angle);
}

/** Gap between lines scribed from both faces at setting s: T − 2s; negative once they have crossed. */
export function scribeGap(thickness: number, setting: number): number {
  return thickness - 2 * setting;
}

/** Height-gauge setting that leaves two centre lines `gap` apart: (T − gap)/2. */
export function scribeSetting(thickness: number, gap: number): number {
  return (thickness - gap) / 2;
}

/** Area a zero bevel takes off the section, both sides: T²/(4 tan β), mm². */
export function areaToZeroBevel(thickness: number, angle: number): number {
  must(angle > 0, "a bevel needs an angle above 0");
  return thickness ** 2 / (4 * tan(angle));
}

/** A hollow face as seen from its chord. */
export interface HollowFace {
  readonly chord: number;
  readonly sagitta: number;
  /** Degrees per side: of the chord, at the shoulder, at the grind line. */
  readonly chordAngle: number;
  readonly atShoulder: number;
  readonly atGrindLine: number;
}

/** The face a wheel leaves from thickness e to T over `climb` above the shoulder, alike on both sides. */
export function hollowFace(
  thickness: number,
  behind: number,
  wheelDiameter: number,
  climb: number,
): HollowFace {
  const rise = (thickness - behind) / 2;
  const chord = Math.hypot(climb, rise);
  const radius = wheelDiameter / 2;
  must(chord <= wheelDiameter, "the face is wider than the wheel is across");
  const half = degrees(Math.asin(chord / wheelDiameter));
  const chordAngle = atan(rise / climb);
  return {
    chord,
    sagitta: radius - Math.sqrt(radius ** 2 - chord ** 2 / 4),
    chordAngle,
    atShoulder: chordAngle - half,
    atGrindLine: chordAngle + half,
  };
}

/** Thickness of that hollow at a height above the shoulder, mm, both sides together. */
export function hollowThickness(
  thickness: number,
  behind: number,
  wheelDiameter: number,
  climb: number,
  above: number,
): number {
  const { chord, chordAngle } = hollowFace(thickness, behind, wheelDiameter, climb);
  const radius = wheelDiameter / 2;
  const toCentre = Math.sqrt(radius ** 2 - chord ** 2 / 4);
  const slope = radians(chordAngle);
  const centreD = climb / 2 - toCentre * Math.sin(slope);
  const centreH = (thickness + behind) / 4 + toCentre * Math.cos(slope);
  return 2 * (centreH - Math.sqrt(radius ** 2 - (above - centreD) ** 2));
}

/** The tallest hollow above the shoulder before it thins below the edge: √(2Rs − s²), s = (T − e)/2. */
export function tallestHollow(thickness: number, behind: number, wheelDiameter: number): number {
  const rise = (thickness - behind) / 2;
  must(rise > 0 && rise < wheelDiameter, "the wheel cannot cut a hollow between these thicknesses");
  return Math.sqrt(wheelDiameter * rise - rise ** 2);
}

/** Setting of a screw jig at distance L from its pivot: L·tan β, or L·sin β, by the jig's own geometry. */
export function screwSetting(fromPivot: number, angle: number, by: "tangent" | "sine"): number {
  return fromPivot * (by === "tangent" ? tan(angle) : Math.sin(radians(angle)));
}

/** Thickness at a height above the apex of a flat-ground edge. */
export function thicknessAboveApex(behind: number, edgeAngle: number, angle: number, above: number): number {
  const bevel = edgeBevelHeight(behind, edgeAngle);
  return above <= bevel ? 2 * above * tan(edgeAngle) : behind + 2 * (above - bevel) * tan(angle);
}
