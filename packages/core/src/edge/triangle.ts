import { type Component, combined } from "../numbers/uncertainty.ts";
import { atan, degrees, radians } from "../units/angle.ts";

/**
 * The triangle of an edge bevel: what is behind the edge (e), how high it is (d) or how long its face (f), and its angle a side; any two
 * give the third. Lengths mm, angles degrees; u are standard uncertainties. Source: geometry; first order by JCGM 100, 5.1.2.
 */
export interface Read {
  readonly value: number;
  readonly u: number;
}
/** A figure worked out, what covers it to either side, and which of both readings it mostly leans on. */
export interface Solved {
  readonly value: number;
  readonly u: number;
  /** Ends that cover 95 of 100, below and above: worked out exactly where a reading is off by more than a twentieth. */
  readonly ends: readonly [number, number];
  readonly leansOn: "behind" | "height" | "face" | "angle";
}

/** Readings off by more than this share of themselves are carried through exactly. */
const ROUGH = 0.05;
const COVERS = 1.96;

type Of = (a: number, b: number) => number;
type Named = readonly [Solved["leansOn"], Read];

/** A figure of two readings: its slope to each by a small step, its ends by the readings' own where they are rough. */
function solved(of: Of, [nameA, a]: Named, [nameB, b]: Named, covers = COVERS): Solved {
  const value = of(a.value, b.value);
  const slope = (at: (by: number) => number, size: number) => {
    const step = 1e-5 * Math.max(1e-3, Math.abs(size));
    return (at(step) - at(-step)) / (2 * step);
  };
  const parts: Component[] = [
    {
      from: nameA,
      u: Math.abs(slope((by) => of(a.value + by, b.value), a.value)) * a.u,
      freedom: Number.POSITIVE_INFINITY,
    },
    {
      from: nameB,
      u: Math.abs(slope((by) => of(a.value, b.value + by), b.value)) * b.u,
      freedom: Number.POSITIVE_INFINITY,
    },
  ];
  const { u } = combined(parts);
  const isRough = [a, b].some((one) => one.u > ROUGH * Math.abs(one.value));
  const leansOn = parts[0]!.u >= parts[1]!.u ? nameA : nameB;
  if (!isRough) return { value, u, ends: [value - covers * u, value + covers * u], leansOn };
  const offs = [covers, -covers].flatMap((k) => [
    of(a.value + k * a.u, b.value) - value,
    of(a.value, b.value + k * b.u) - value,
  ]);
  const beyond = (sign: 1 | -1) => Math.hypot(...offs.filter((off) => off * sign > 0));
  return { value, u, ends: [value - beyond(-1), value + beyond(1)], leansOn };
}

const byHeight: Of = (e, d) => atan(e / 2 / d);
const byFace: Of = (e, f) => degrees(Math.asin(Math.min(1, e / 2 / f)));

/** The angle a side by what is behind the edge and its bevel's height; `covers`: ends in standard uncertainties, for 95 of 100 as usual. */
export const angleByHeight = (e: Read, d: Read, covers?: number) =>
  solved(byHeight, ["behind", e], ["height", d], covers);
/** The same by its face. */
export const angleByFace = (e: Read, f: Read) => solved(byFace, ["behind", e], ["face", f]);
/** What is behind the edge by its bevel's height and angle. */
export const behindBy = (d: Read, alpha: Read) =>
  solved((height, angle) => 2 * height * Math.tan(radians(angle)), ["height", d], ["angle", alpha]);
/** How high the bevel is by what is behind it and its angle. */
export const heightBy = (e: Read, alpha: Read) =>
  solved((behind, angle) => behind / 2 / Math.tan(radians(angle)), ["behind", e], ["angle", alpha]);

/** Whether all three close: how far the angle that was read lies from the one the lengths give, in what covers that. */
export function opensBy(e: Read, d: Read, alpha: Read): { readonly off: number; readonly covers: number } {
  const said = angleByHeight(e, d);
  const off = alpha.value - said.value;
  const end = off > 0 ? said.ends[1] - said.value : said.value - said.ends[0];
  return { off, covers: Math.hypot(end, COVERS * alpha.u) };
}
