import type { Side } from "../../blade/schema.ts";
import type { StageSteel } from "../../route/ladder.ts";
import type { Otherwise } from "../../route/steel.ts";
import type { InstrumentKind } from "../../shop/instrument.ts";
import { facesResponse } from "../response.ts";
import type { Spot } from "../schema.ts";

/** The faults that readings are searched for: how each looks is in trade's own words. */
export const PATTERNS = [
  "off-centre",
  "smile",
  "wave",
  "belly-thick",
  "plunge-back",
  "out-of-square",
  "wheel-swapped",
  "flats-not-true",
  "jig-zero",
  "two-slopes",
  "sweep",
  "ripple",
  "thin-spot",
  "bow",
  "twist",
  "worn-reference",
] as const;
export type PatternKey = (typeof PATTERNS)[number];

export interface PatternFacts {
  readonly name: string;
  readonly cause: string;
  readonly cure: string;
}

/** Source: common practice. */
export const PATTERN: Readonly<Record<PatternKey, PatternFacts>> = {
  "off-centre": {
    name: "edge off centre",
    cause: "one side was ground more, or the lines were not scribed from both faces",
    cure: "Work the thick side to its line, and check each pass.",
  },
  smile: {
    name: "dip at the plunge",
    cause: "pressure came on at the plunge first, or grinding started there",
    cure: "Start mid-blade and work back into the plunge; light at the end.",
  },
  wave: {
    name: "wavy grind line",
    cause: "the pulling hand pushed, or both pressed",
    cure: "One hand presses, one pulls; more passes, lighter.",
  },
  "belly-thick": {
    name: "edge thickens round the belly",
    cause: "a straight pull on a curved edge",
    cure: "Swing the handle away from where the curve starts.",
  },
  "plunge-back": {
    name: "plunges not alike",
    cause: "overhang differs, the guide is not square, or the flats are not true",
    cure: "Set the overhang by gauge on both sides; mark both from one square.",
  },
  "out-of-square": {
    name: "perimeter out of square",
    cause: "the outline is not square to the flats, so one side stood steeper and the other shallower",
    cure: "Dress the spine square before the blade goes back into the rest.",
  },
  "wheel-swapped": {
    name: "another wheel",
    cause: "the hollow is not of the planned wheel: it was swapped, or has worn",
    cure: "Measure the wheel, and put its diameter into the bevel.",
  },
  "flats-not-true": {
    name: "flats not true",
    cause: "thickness over the flats is not what everything else was laid out from",
    cure: "Dress the flats, then lay the lines out again.",
  },
  "jig-zero": {
    name: "jig lost its zero",
    cause: "both sides were held at an angle that is off by as much",
    cure: "Bring the jig back to its zero by its card, then the next pass.",
  },
  "two-slopes": {
    name: "two slopes on one side",
    cause:
      "the first passes were held steeper, or the shoulder was eased on this side alone: below the step it is another bevel",
    cure: "Work the step down until a straight edge lies on the whole face; or keep it, and say so as the bevel's relief.",
  },
  sweep: {
    name: "swept like a banana",
    cause: "the bevels stretched the edge: it outgrew the spine",
    cure: "Edge down on wood, mallet on the spine, at black heat; while the edge is over 3.",
  },
  ripple: {
    name: "rippled edge",
    cause: "blows of unlike weight, or the same side struck at the same places",
    cure: "Dress the crests only; the troughs are the edge that is left.",
  },
  "thin-spot": {
    name: "thin spot",
    cause: "one blow too many, or a cold shut ground out",
    cure: "No blow puts steel back: see which blade is still in it.",
  },
  bow: {
    name: "bowed",
    cause:
      "uneven heat or an uneven grind; the bend lifts the edge off the plate, and it only seems off centre",
    cure: "Straighten it before anything is ground, then read again.",
  },
  twist: {
    name: "twisted",
    cause: "uneven heat or an uneven grind; the twist carries the edge aside, and it only seems off centre",
    cure: "Take the twist out before anything is ground, then read again.",
  },
  "worn-reference": {
    name: "the instrument, not the blade",
    cause: "everything it read is off by as much: zero lost, jaws or reference worn",
    cure: "Close it on a gauge block and look at its zero before anything is ground.",
  },
};

/** How far each face stands proud, square to it, mm, of one unit of a fault. */
export type OnFace = (side: Side, u: number) => number;

/**
 * One way a fault may look on this blade: a distortion of its steel, or of what the hand shows of it, by one unit of each amplitude.
 */
export interface Shape {
  readonly pattern: PatternKey;
  readonly side?: Side;
  /** Where along the blade, mm from the junction. */
  readonly x?: readonly [number, number];
  readonly instrument?: InstrumentKind;
  /** mm or degrees an amplitude is in. */
  readonly unit: "mm" | "°";
  /** What one unit of each amplitude adds to the reading at a spot. */
  readonly responses: readonly ((spot: Spot) => number)[];
  /** What one unit of each amplitude adds to a face at u, square to it, mm. Empty where faces are as planned. */
  readonly faces: readonly OnFace[];
  /** The steel with the fault in it, beside what its faces say; absent where faces say all, or the steel is as planned. */
  readonly steel?: (amplitude: number) => Otherwise;
  /** Of two slopes: how far up the steeper one goes, mm, and its angle for an amplitude, degrees, below the bevel's own. */
  readonly step?: {
    readonly height: number;
    readonly angle: (amplitude: number) => number;
    readonly above: number;
  };
  /** Length of a ripple, mm. */
  readonly ripple?: number;
  /** Only this sign of the first amplitude is the fault: −1 thins, +1 thickens. */
  readonly sign?: 1 | -1;
}

/** A fault of the faces alone. */
export function faceShape(
  stage: StageSteel,
  pattern: PatternKey,
  faces: readonly OnFace[],
  more: Partial<Shape> = {},
): Shape {
  return {
    pattern,
    unit: "mm",
    faces,
    responses: faces.map((on) => (spot: Spot) => facesResponse(stage, spot, on)),
    ...more,
  };
}

/** What a fault of these amplitudes adds to the reading at a spot. */
export function responseAt(shape: Shape, amplitudes: readonly number[], spot: Spot): number {
  return shape.responses.reduce((sum, response, i) => sum + response(spot) * (amplitudes[i] ?? 0), 0);
}

/** What it adds to a face at u, square to it, mm. */
export function faceErrorAt(shape: Shape, amplitudes: readonly number[], side: Side, u: number): number {
  return shape.faces.reduce((sum, face, i) => sum + face(side, u) * (amplitudes[i] ?? 0), 0);
}
