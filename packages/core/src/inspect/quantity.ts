import type { InstrumentKind } from "../shop/instrument.ts";

/**
 * What can be read on a blade at its bench. Each is one figure at one place, with one usual instrument. Lengths mm, angles
 * degrees, hardness HRC.
 */
export const QUANTITIES = [
  "flats",
  "edge",
  "behind",
  "edge-height",
  "edge-face",
  "above",
  "over",
  "line",
  "angle",
  "plunge",
  "lean",
  "bow",
  "twist",
  "square",
  "hardness",
  "height-at",
  "blade-length",
  "overall",
  "sweep",
] as const;
export type Quantity = (typeof QUANTITIES)[number];

export interface QuantityFacts {
  readonly name: string;
  /** How it is read, in a line. */
  readonly how: string;
  readonly unit: "mm" | "°" | "HRC";
  readonly isPerSide: boolean;
  /** Where it lies: a share of the edge, a place along the blade, or the blade as a whole. */
  readonly at: "u" | "x" | "whole";
  readonly instrument: InstrumentKind;
  /** Whether it can be read below zero: a lean, a bow, a twist. */
  readonly isSigned: boolean;
}

const facts = (
  name: string,
  how: string,
  unit: QuantityFacts["unit"],
  at: QuantityFacts["at"],
  instrument: InstrumentKind,
  more: { isPerSide?: boolean; isSigned?: boolean } = {},
): QuantityFacts => ({ name, how, unit, at, instrument, isPerSide: false, isSigned: false, ...more });

export const QUANTITY: Readonly<Record<Quantity, QuantityFacts>> = {
  flats: facts("thickness over the flats", "Caliper across both flats.", "mm", "x", "caliper"),
  edge: facts("the very edge", "Caliper on the edge, the jaws' tips level with it.", "mm", "u", "caliper"),
  behind: facts(
    "behind the edge",
    "Caliper at the shoulder, where edge bevel and primary bevel meet.",
    "mm",
    "u",
    "caliper",
  ),
  "edge-height": facts(
    "the edge bevel, high",
    "Loupe and caliper: from the edge up to its shoulder, square to the edge, in the blade's plane.",
    "mm",
    "u",
    "caliper",
    { isPerSide: true },
  ),
  "edge-face": facts(
    "the edge bevel, along its face",
    "Loupe and caliper: from the edge up to its shoulder, laid on the facet itself.",
    "mm",
    "u",
    "caliper",
    { isPerSide: true },
  ),
  above: facts(
    "thickness above the edge",
    "Caliper with its tips at the height named, square to the edge.",
    "mm",
    "u",
    "caliper",
  ),
  over: facts(
    "over the edge from the plate",
    "Lay it on its other flat on the plate; height gauge to the edge's upper side.",
    "mm",
    "u",
    "height-gauge",
    { isPerSide: true },
  ),
  line: facts(
    "the grind line",
    "Caliper from the edge up to the line, square to the edge.",
    "mm",
    "u",
    "caliper",
    { isPerSide: true },
  ),
  angle: facts(
    "the bevel's angle",
    "Angle finder zeroed on the blade's middle plane, laid on the middle of the face.",
    "°",
    "u",
    "angle-finder",
    { isPerSide: true },
  ),
  plunge: facts(
    "the plunge's foot",
    "Caliper's depth rod from the junction, along the edge, to where the bevel begins.",
    "mm",
    "whole",
    "caliper",
    { isPerSide: true, isSigned: true },
  ),
  lean: facts(
    "the plunge's lean",
    "Angle finder from square to the spine; + leans the top to the tip.",
    "°",
    "whole",
    "angle-finder",
    { isPerSide: true, isSigned: true },
  ),
  bow: facts(
    "bow",
    "Left flat on the plate, height gauge over the middle less the mean of both ends; + where the left flat is hollow.",
    "mm",
    "whole",
    "height-gauge",
    { isSigned: true },
  ),
  twist: facts(
    "twist",
    "Angle finder zeroed on the flat at the heel, read at the tip.",
    "°",
    "whole",
    "angle-finder",
    { isSigned: true },
  ),
  square: facts(
    "outline out of square",
    "Square from the flat against the spine's edge; angle finder in the gap.",
    "°",
    "x",
    "angle-finder",
    { isSigned: true },
  ),
  hardness: facts(
    "hardness",
    "On the flat of the ricasso or tang, below the decarburized skin; never a bevel or a thin edge.",
    "HRC",
    "x",
    "hardness-tester",
  ),
  "height-at": facts(
    "width of the blank",
    "Caliper across the blank, square to its length; cold.",
    "mm",
    "x",
    "caliper",
  ),
  "blade-length": facts(
    "length of the blade",
    "Rule from the junction to the tip, along the spine's line; cold.",
    "mm",
    "whole",
    "caliper",
  ),
  overall: facts("length overall", "Rule from butt to tip; cold.", "mm", "whole", "caliper"),
  sweep: facts(
    "sweep of the tip",
    "Laid on its template by the tang: rule from the template's tip up to the blank's; + where it stands above.",
    "mm",
    "whole",
    "caliper",
    { isSigned: true },
  ),
};
