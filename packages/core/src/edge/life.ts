import type { Field } from "../blade/field.ts";
import { stationAt } from "../blade/station.ts";
import { wornField } from "../blade/worn.ts";
import { bisected } from "../numbers/bisect.ts";
import type { Sharpened } from "./schema.ts";

/** What years of sharpening make of an edge. mm. */

/** How an edge stands after it has gone up into the blade by so much, held at its own angle. */
export interface WornAt {
  /** Behind the edge; null where its bevel has come to the spine, or there is none. */
  readonly behind: number | null;
  /** Height of the edge bevel, the higher side's. */
  readonly high: number | null;
}

/** At a share of the edge, 0…1, by the field cut again. */
export function wornAt(field: Field, u: number, lost: number): WornAt {
  const station = stationAt(lost > 0 ? wornField(field, () => lost) : field, u);
  const highs = [station.left.edgeBevel, station.right.edgeBevel].flatMap((one) =>
    one === null ? [] : [one - lost],
  );
  return { behind: station.behind, high: highs.length > 0 ? Math.max(...highs) : null };
}

/** Thinner behind than this an edge has no bevel of its own, mm. */
export const LEAST = 1e-4;

/** Grows no edge beyond so much of the blade's height. */
const MOST_LOST = 0.8;

/**
 * How much of its height an edge may lose until it is k times as thick behind as it was ground; null where it never is, or has no edge bevel.
 * On flat bevels this is (k − 1)·e₀/(2·tan β). Source: geometry; else the field cut again and again.
 */
export function lostUntil(field: Field, u: number, k: number): number | null {
  const first = wornAt(field, u, 0).behind;
  if (!first || first < LEAST) return null;
  const most = MOST_LOST * stationAt(field, u).height;
  const at = (lost: number) => wornAt(field, u, lost).behind ?? Number.POSITIVE_INFINITY;
  return at(most) < k * first ? null : bisected(k * first, 0, most, at);
}

/** Two caliper heights, mm: one standard deviation of each. */
const READ_TO = 0.03;
const COVERS = 1.96;
/** The log counts from where it is known within so much of itself. */
const KNOWN_WITHIN = 0.25;

/** What one whole sharpening takes off the height here, by the log; null where no two readings of one place have any between them. */
export interface Taken {
  readonly each: number;
  readonly u: number;
  /** Sharpenings between the readings. */
  readonly count: number;
  /** Known well enough to stand for the starting value. */
  readonly isKnown: boolean;
}

/**
 * By the heights that were read first and last at one place, and the sharpenings between; a touch-up counts as its share of one. `done` in the
 * order of time. Where several places were read, the mean.
 */
export function takenEach(done: readonly Sharpened[], touchShare: number): Taken | null {
  const places = [...new Set(done.flatMap(({ height }) => (height ?? []).map(({ u }) => u)))];
  const each = places.flatMap((u) => {
    const read = done.flatMap(({ height }, i) => {
      const h = height?.find((one) => one.u === u)?.h;
      return h === undefined ? [] : [{ i, h }];
    });
    const [first, last] = [read[0], read.at(-1)];
    if (!first || !last || first === last) return [];
    // A height stands as it was after its own sharpening: those that came later lie between.
    const between = done.slice(first.i + 1, last.i + 1);
    if (between.some(({ kind }) => kind === "repair")) return [];
    const count = between.reduce((sum, { kind }) => sum + (kind === "full" ? 1 : touchShare), 0);
    return count > 0 ? [{ each: (first.h - last.h) / count, u: (Math.SQRT2 * READ_TO) / count, count }] : [];
  });
  if (each.length === 0) return null;
  const mean = (of: (one: (typeof each)[number]) => number) =>
    each.reduce((sum, one) => sum + of(one), 0) / each.length;
  const u = Math.hypot(...each.map((one) => one.u)) / each.length;
  const known = { each: mean((one) => one.each), u, count: mean((one) => one.count) };
  return { ...known, isKnown: known.each > 0 && COVERS * u <= KNOWN_WITHIN * known.each + 1e-12 };
}
