import { bladeLength, handleLength, heelHeight, straightUntil, tipDrop } from "../blade/measure.ts";
import type { Ring } from "../blade/outline.ts";
import type { Outline, OutlineNode } from "../blade/schema.ts";

/** What outline families are made of: dimensions that can be read back, and the pieces that several share. */
export interface Dimension {
  readonly key: string;
  readonly name: string;
  /** Length in mm, or a share 0…1 of another. */
  readonly unit: "mm" | "share";
  readonly low: number;
  readonly usual: number;
  readonly high: number;
  /** Read off a compiled outline. */
  measure(ring: Ring): number;
}

export interface Family {
  readonly key: string;
  readonly name: string;
  /** What it is good for, in a line. */
  readonly words: string;
  readonly dimensions: readonly Dimension[];
  /** Whether it goes with a full tang, a hidden one with a guard, or either. */
  readonly tangs: readonly Tang[];
  outline(values: Values, tang: Tang): Outline;
}

export type Tang = "full" | "hidden";
export type Values = Readonly<Record<string, number>>;
export type Point = [number, number];

export const mm = (
  key: string,
  name: string,
  [low, usual, high]: [number, number, number],
  measure: Dimension["measure"],
): Dimension => ({ key, name, unit: "mm", low, usual, high, measure });
export const share = (
  key: string,
  name: string,
  [low, usual, high]: [number, number, number],
  measure: Dimension["measure"],
): Dimension => ({ key, name, unit: "share", low, usual, high, measure });

export const length = (range: [number, number, number]) =>
  mm("length", "blade, junction to tip", range, bladeLength);
export const height = (range: [number, number, number]) =>
  mm("height", "height at the heel", range, heelHeight);
export const handle = mm("handle", "handle", [90, 112, 140], handleLength);
export const bellyAt = share("belly", "belly begins, of the length", [0.35, 0.55, 0.8], (ring) => {
  return straightUntil(ring.edge).x / bladeLength(ring);
});
export const spineUntil = share("spine", "spine straight until, of the length", [0.3, 0.5, 0.75], (ring) => {
  return straightUntil(ring.spine).x / bladeLength(ring);
});
export const drop = (range: [number, number, number]) =>
  share("drop", "tip below the spine, of the height", range, (ring) => tipDrop(ring) / heelHeight(ring));

export const node = (at: Point, back?: Point, ahead?: Point): OutlineNode => ({
  at,
  ...(back ? { back } : {}),
  ...(ahead ? { ahead } : {}),
});

/** Where the edge begins, ahead of the junction: room for a plunge and a finger. */
export const heelAt = (length: number) => Math.max(4, Math.min(12, length * 0.05));

/** An edge straight from heel to belly, then round to the tip. */
export function belliedEdge(
  { length, height, belly }: Record<"length" | "height" | "belly", number>,
  tip: Point,
) {
  const from = length * belly;
  const run = length - from;
  const rise = tip[1] + height;
  return [
    node([heelAt(length), -height]),
    node([from, -height], undefined, [run * 0.5, 0]),
    node(tip, [-run * 0.18, -rise * 0.5]),
  ];
}

/** From the heel past choil and handle to the junction: a full tang, or a narrow one behind shoulders. */
export function tangFrom(heel: Point, height: number, handle: number, tang: Tang): OutlineNode[] {
  if (tang === "hidden") {
    const middle = heel[1] / 2;
    const half = Math.min(height * 0.22, 7);
    const butt = half * 0.6;
    return [
      node(heel),
      ...(heel[0] > 0 ? [node([0, heel[1]])] : []),
      node([0, middle - half]),
      node([-handle, middle - butt]),
      node([-handle, middle + butt]),
      node([0, middle + half]),
      node([0, 0]),
    ];
  }
  const tall = tangHeight(height);
  const round = Math.min(8, handle * 0.08);
  return [
    node(heel),
    node([heel[0] - Math.max(2, (height - tall) * 0.2), -tall * 0.94]),
    node([-handle * 0.45, -tall], [handle * 0.18, 0], [-handle * 0.18, 0]),
    node([-handle + round, -tall * 0.95], [handle * 0.1, -tall * 0.02], [-round * 0.6, 0]),
    node([-handle, -tall * 0.5], [0, -tall * 0.25], [0, tall * 0.25]),
    node([-handle + round, 0], [-round * 0.6, 0]),
    node([0, 0]),
  ];
}

/** Height of a full tang for a blade of this height at the heel: what a hand can hold. */
export const tangHeight = (height: number) => Math.min(26, Math.max(14, height * 0.8));

export const both: readonly Tang[] = ["full", "hidden"];

/** A family whose spine is its own and whose edge is a straight with a belly. */
export function bellied(
  key: string,
  name: string,
  words: string,
  dimensions: readonly Dimension[],
  spine: (values: Values) => OutlineNode[],
): Family {
  return {
    key,
    name,
    words,
    dimensions,
    tangs: both,
    outline(values, tang) {
      const { length = 0, height = 0, belly = 0, handle = 0 } = values;
      const top = spine(values);
      const tip = top[top.length - 1]!.at;
      return {
        spine: top,
        edge: belliedEdge({ length, height, belly }, [...tip]),
        tang: tangFrom([heelAt(length), -height], height, handle, tang),
      };
    },
  };
}

/** A spine straight until `spine`, then eased down (or up) to the tip. */
export function easedSpine({ length = 0, spine = 0 }: Values, tipY: number): OutlineNode[] {
  const from = length * spine;
  const run = length - from;
  return [
    node([0, 0]),
    node([from, 0], undefined, [run * 0.45, 0]),
    node([length, tipY], [-run * 0.35, -tipY * 0.75]),
  ];
}
