/** What a steel is made of, mass %: what is not said is taken as none, but for silicon. */
export interface Composition {
  readonly C: number;
  readonly Mn: number;
  readonly Si?: number;
  readonly Ni?: number;
  readonly Cr?: number;
  readonly Mo?: number;
  readonly W?: number;
  readonly V?: number;
  readonly Cu?: number;
}
export type Element = keyof Composition;

/** Silicon where nobody says, mass %: the middle of what the standards let these grades have. */
export const USUAL_SILICON = 0.25;

type Range = readonly [number, number];

/** What a grade's standard lets it hold, mass %. Source: from memory of SAE J403 and J404, ASTM A29, EN 10132-4. */
export const GRADES: Readonly<Record<string, Partial<Record<Element, Range>> & { C: Range; Mn: Range }>> = {
  "1065": { C: [0.6, 0.7], Mn: [0.6, 0.9] },
  "1075": { C: [0.7, 0.8], Mn: [0.4, 0.7] },
  "1084": { C: [0.8, 0.93], Mn: [0.6, 0.9] },
  "1095": { C: [0.9, 1.03], Mn: [0.3, 0.5] },
  "5160": { C: [0.56, 0.64], Mn: [0.75, 1], Cr: [0.7, 0.9] },
  O1: { C: [0.85, 1], Mn: [1, 1.4], Si: [0.1, 0.5], Cr: [0.4, 0.7], W: [0.4, 0.6] },
  "80CrV2": { C: [0.75, 0.85], Mn: [0.3, 0.5], Cr: [0.4, 0.6], V: [0.15, 0.25] },
  "75Ni8": { C: [0.72, 0.78], Mn: [0.3, 0.5], Ni: [1.8, 2.1] },
};
const SILICON: Range = [0.15, 0.35];

/** A grade in the middle of its ranges; null where it is none of these. */
export function middleOf(grade: string): Composition | null {
  const found = GRADES[grade];
  if (!found) return null;
  const ranges = { Si: SILICON, ...found };
  return Object.fromEntries(
    Object.entries(ranges).map(([element, [low, high]]) => [element, (low + high) / 2]),
  ) as unknown as Composition;
}

/** Every corner of a grade's ranges: a figure's span is what it is at the least and at the most of them. */
export function cornersOf(grade: string): Composition[] {
  const found = GRADES[grade];
  if (!found) return [];
  let corners: Record<string, number>[] = [{}];
  for (const [element, range] of Object.entries({ Si: SILICON, ...found }))
    corners = corners.flatMap((one) => range.map((value) => ({ ...one, [element]: value })));
  return corners as unknown as Composition[];
}

/** A figure in the middle of a grade's ranges, and its least and most at their corners. */
export interface Spanned {
  readonly middle: number;
  readonly low: number;
  readonly high: number;
}

/** A figure of a grade with its span; null where the grade is none of these. */
export function spanOf(grade: string, of: (steel: Composition) => number): Spanned | null {
  const middle = middleOf(grade);
  if (!middle) return null;
  const all = cornersOf(grade).map((one) => of(one));
  return { middle: of(middle), low: Math.min(...all), high: Math.max(...all) };
}
