import { type Composition, cornersOf, middleOf } from "../steel/composition.ts";
import type { SteelRecord } from "./schema.ts";

/** What is known of the steel in hand: its middle, and every corner of what it may be. */
export interface Known {
  readonly middle: Composition;
  readonly corners: readonly Composition[];
  /** Whether a certificate says so, rather than a standard's ranges. */
  readonly isCertified: boolean;
}

/** More chromium than this is not judged by these relations, %. */
const MOST_CHROMIUM = 1.6;

/** What may be reckoned with; null where nothing is known of the steel, or the relations do not hold for it. */
export function knownOf(record: SteelRecord, blade: string | undefined): Known | null {
  const { mass } = record;
  const known = mass
    ? { middle: mass, corners: certified(mass), isCertified: true }
    : ofGrade(record.grade ?? blade);
  if (!known || (known.middle.Cr ?? 0) > MOST_CHROMIUM) return null;
  return known;
}

function ofGrade(grade: string | undefined): Known | null {
  const middle = grade === undefined ? null : middleOf(grade);
  return middle && { middle, corners: cornersOf(grade!), isCertified: false };
}

/** Corners of what a certificate says: each figure good to half of its last digit. */
function certified(mass: NonNullable<SteelRecord["mass"]>): Composition[] {
  let corners: Record<string, number>[] = [{}];
  for (const [element, value] of Object.entries(mass)) {
    const digits = Math.max(2, (String(value).split(".")[1] ?? "").length);
    const half = 0.5 * 10 ** -digits;
    corners = corners.flatMap((one) =>
      [Math.max(0, value - half), value + half].map((at) => ({ ...one, [element]: at })),
    );
  }
  return corners as unknown as Composition[];
}

/** A figure of it with what it may be, a spread of the formula beside. */
export interface Span {
  readonly middle: number;
  readonly low: number;
  readonly high: number;
}
export function spanOfKnown(
  { middle, corners }: Known,
  of: (steel: Composition) => number,
  spread = 0,
): Span {
  const all = [of(middle), ...corners.map((one) => of(one))];
  return { middle: of(middle), low: Math.min(...all) - spread, high: Math.max(...all) + spread };
}
