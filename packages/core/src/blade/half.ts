/** Which surface is the lowest at a place, and so is the one a finger would feel. */
export const FLAT = 0;
export const EDGE = 1;
export const PRIMARY = 2;
export const FALSE_EDGE = 3;
export const RUN_IN = 4;
export const RELIEF = 5;
/** Of a second edge: its edge bevel, its bevel clear of its start, and in its run-in there. */
export const SECOND_EDGE = 6;
export const SECOND = 7;
export const SECOND_RUN_IN = 8;
export type Surface = 0 | 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8;

/** The primary bevel with its relief, in its run-in at the plunge or clear of it. */
export function isPrimary(surface: Surface): boolean {
  return surface === PRIMARY || surface === RUN_IN || surface === RELIEF;
}

/** One side at one place: every surface's half-thickness (mm, +∞ where it is not cut), and the lowest. */
export interface HalfSample {
  flat: number;
  edge: number;
  primary: number;
  /** The second slope above the shoulder. */
  relief: number;
  falseEdge: number;
  /** Of a second edge: its bevel, its edge bevel; whether the place lies in its run-in, or below its shoulder. */
  second: number;
  secondEdge: number;
  inSecondRunIn: boolean;
  isBelowSecond: boolean;
  /** dh/dd of the primary face there, of the relief, and of a second edge's bevel. */
  slope: number;
  reliefSlope: number;
  secondSlope: number;
  /** Within the run-in of the plunge. */
  inRunIn: boolean;
  /** Where the edge bevel is cut the primary bevel does not count below the shoulder. */
  isBelowShoulder: boolean;
  lowest: number;
  surface: Surface;
}

export function newHalf(): HalfSample {
  return {
    flat: 0,
    edge: 0,
    primary: 0,
    relief: Number.POSITIVE_INFINITY,
    falseEdge: 0,
    second: Number.POSITIVE_INFINITY,
    secondEdge: Number.POSITIVE_INFINITY,
    inSecondRunIn: false,
    isBelowSecond: false,
    slope: 0,
    reliefSlope: 0,
    secondSlope: 0,
    inRunIn: false,
    isBelowShoulder: false,
    lowest: 0,
    surface: FLAT,
  };
}

/** Finds the lowest of a side's surfaces, and which it is. */
export function settle(half: HalfSample): void {
  half.lowest = half.flat;
  half.surface = FLAT;
  if (half.falseEdge < half.lowest) {
    half.lowest = half.falseEdge;
    half.surface = FALSE_EDGE;
  }
  if (!half.isBelowShoulder && half.primary < half.lowest) {
    half.lowest = half.primary;
    half.surface = half.inRunIn ? RUN_IN : PRIMARY;
  }
  if (!half.isBelowShoulder && half.relief < half.lowest) {
    half.lowest = half.relief;
    half.surface = half.inRunIn ? RUN_IN : RELIEF;
  }
  if (!half.isBelowSecond && half.second < half.lowest) {
    half.lowest = half.second;
    half.surface = half.inSecondRunIn ? SECOND_RUN_IN : SECOND;
  }
  if (half.secondEdge < half.lowest) {
    half.lowest = half.secondEdge;
    half.surface = SECOND_EDGE;
  }
  if (half.edge < half.lowest) {
    half.lowest = half.edge;
    half.surface = EDGE;
  }
}
