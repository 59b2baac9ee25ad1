/**
 * What a knife is for, and the limits that follow. These are this product's own starting values, in the spirit
 * of common practice and without a published source: shown as such, and corrected by a shop's own trials.
 * Thicknesses mm, angles degrees per side.
 */
export interface Purpose {
  readonly key: string;
  readonly name: string;
  readonly behind: readonly [number, number];
  readonly edgeAngle: readonly [number, number];
  /** Thickest 5 and 10 mm above the apex; null where it is not a question for this knife. */
  readonly at5: number | null;
  readonly at10: number | null;
  /** Thinnest over the flats 5 mm behind the tip; null where it is not a question for this knife. */
  readonly tip: number | null;
  /** Most that the point may go sideways under 20 N, mm for each 100 mm of blade; null where flex is welcome. */
  readonly flex: number | null;
  readonly usualGrind: string;
}

/** Basis of every limit below, as findings say it. */
export const STARTING_VALUE = "starting value, without a published source";

const purpose = (
  key: string,
  name: string,
  behind: [number, number],
  edgeAngle: [number, number],
  at5: number | null,
  at10: number | null,
  tip: number | null,
  flex: number | null,
  usualGrind: string,
): Purpose => ({ key, name, behind, edgeAngle, at5, at10, tip, flex, usualGrind });

export const PURPOSES: readonly Purpose[] = [
  purpose(
    "slicer",
    "a long slicer",
    [0.15, 0.3],
    [10, 15],
    0.6,
    0.9,
    0.4,
    null,
    "full flat, convex or chisel",
  ),
  purpose("kitchen", "a kitchen knife", [0.15, 0.35], [12, 16], 0.7, 1.1, 0.4, null, "full flat or convex"),
  purpose(
    "pocket",
    "a pocket or small utility knife",
    [0.3, 0.55],
    [15, 20],
    1.2,
    1.8,
    0.6,
    2.5,
    "flat or hollow",
  ),
  purpose("carving", "a carving knife", [0, 0.1], [11, 15], 2.7, null, 0.8, 2, "zero bevel"),
  purpose("field", "a field knife", [0.35, 0.65], [15, 20], 1.4, 2.2, 0.8, 1.5, "flat, hollow or saber"),
  purpose("chopper", "a chopper", [0.7, 1.15], [18, 25], 2.3, 3.4, 1.2, 1.2, "convex or flat"),
  purpose("marking", "a marking knife", [0, 0.1], [10, 20], null, null, null, null, "zero bevel or chisel"),
  purpose(
    "single bevel",
    "a single-bevel slicer",
    [0.05, 0.3],
    [12, 20],
    0.9,
    1.7,
    0.4,
    null,
    "chisel, its back hollow",
  ),
  purpose(
    "guarded",
    "a long knife with a guard",
    [0.4, 0.8],
    [17, 22],
    1.6,
    2.6,
    0.8,
    1.5,
    "flat, hollow or saber",
  ),
  purpose("display", "a double edge for display", [0.4, 0.9], [18, 25], 2, 3.2, 0.8, 2.5, "flat or hollow"),
];

/** A purpose of the maker's own: nothing is asked but what is set for the one blade. */
export const OWN_PURPOSE = purpose(
  "own",
  "this blade",
  [0, Number.POSITIVE_INFINITY],
  [0, 90],
  null,
  null,
  null,
  null,
  "any",
);

/** The purpose named in a blade's `use`, if it is one of those above. */
export function purposeOf(use: string | undefined): Purpose | undefined {
  return use === OWN_PURPOSE.key ? OWN_PURPOSE : PURPOSES.find((purpose) => purpose.key === use);
}
