import { segmentBetween, xAt, yAt } from "../blade/bezier.ts";
import { compileRing } from "../blade/outline.ts";
import type { Blade, OutlineNode } from "../blade/schema.ts";
import { read, table } from "../blade/table.ts";
import { tidy } from "../units/tidy.ts";
import { addAfter } from "./nodes.ts";

/**
 * Small things filed into an outline. Each changes a copy of a sound blade in place; whether what comes out is sound is
 * for the parser to say. Lengths mm. A cut that has no room throws a RangeError whose message says why.
 */
type Point = [number, number];

/**
 * A sharpening choil: a round of `radius` about the heel, so that the whole edge meets the stone and the plunge need not
 * stand at its end. What is given along the edge keeps its place on the steel.
 */
export function cutChoil(copy: Blade, radius: number): void {
  const { edge, tang } = copy.outline;
  const heel: Point = [...edge[0]!.at];
  const before = compileRing(structuredClone(copy.outline)).edge.length;
  const isOut = (at: Point) => Math.hypot(at[0] - heel[0], at[1] - heel[1]) - radius;
  startAt(edge, isOut, "The edge is shorter than that choil.");
  startAt(tang, isOut, "There is no room behind the heel for that choil.");
  const [from, to] = [edge[0]!.at, tang[0]!.at];
  tang.splice(0, 1, ...arc(heel, radius, from, tang[0]!));
  if (Math.hypot(from[0] - to[0], from[1] - to[1]) < 0.2 * radius) {
    throw new RangeError("The heel is too sharp a corner for a choil.");
  }
  keepPlaces(copy, before - compileRing(structuredClone(copy.outline)).edge.length, before);
}

/** Begins a chain where it first leaves a circle. */
function startAt(nodes: OutlineNode[], isOut: (at: Point) => number, why: string): void {
  const place = firstPlace(nodes, isOut);
  if (!place) throw new RangeError(why);
  addAfter(nodes, place.index, place.t);
  nodes.splice(0, place.index + 1);
  delete nodes[0]!.back;
}

const LOOKS = 64;

/** Where along a chain a measure first turns from below zero to above, as a segment and its parameter. */
function firstPlace(nodes: readonly OutlineNode[], measure: (at: Point) => number) {
  for (let index = 0; index < nodes.length - 1; index++) {
    const segment = segmentBetween(nodes[index]!, nodes[index + 1]!);
    const at = (t: number) => measure([xAt(segment, t), yAt(segment, t)]);
    for (let i = 1; i <= LOOKS; i++) {
      if (at(i / LOOKS) < 0) continue;
      let [low, high] = [(i - 1) / LOOKS, i / LOOKS];
      for (let k = 0; k < 50; k++) {
        const middle = (low + high) / 2;
        if (at(middle) < 0) low = middle;
        else high = middle;
      }
      return { index, t: (low + high) / 2 };
    }
  }
  return null;
}

/** An arc about `centre` from `from`, turning left, to the node `to`. Source: the cubic nearest to a circle, k = 4/3 tan θ/4. */
function arc(centre: Point, radius: number, from: readonly [number, number], to: OutlineNode): OutlineNode[] {
  const angle = (at: readonly [number, number]) => Math.atan2(at[1] - centre[1], at[0] - centre[0]);
  const start = angle(from);
  const turn = (angle(to.at) - start + 4 * Math.PI) % (2 * Math.PI);
  const pieces = Math.ceil(turn / (Math.PI / 2));
  const step = turn / pieces;
  const reach = (4 / 3) * Math.tan(step / 4) * radius;
  return Array.from({ length: pieces + 1 }, (_, i) => {
    const a = start + i * step;
    const along: Point = [-Math.sin(a) * reach, Math.cos(a) * reach];
    const at: Point = [centre[0] + radius * Math.cos(a), centre[1] + radius * Math.sin(a)];
    return {
      at: i === 0 ? [...from] : i === pieces ? [...to.at] : tidyAt(at),
      ...(i > 0 ? { back: tidyAt([-along[0], -along[1]]) } : {}),
      ...(i < pieces ? { ahead: tidyAt(along) } : to.ahead ? { ahead: to.ahead } : {}),
    };
  });
}

/** After `gone` mm were cut off the edge's start, what was given at its places stands there again. */
function keepPlaces(copy: Blade, gone: number, before: number): void {
  const moved = <Row extends { u: number }>(
    rows: Row[],
    value: (row: Row) => number,
    put: (row: Row, v: number) => Row,
  ) => {
    const was = table(rows, (row) => row.u, value);
    const start = put({ ...rows[0]!, u: 0 }, read(was, gone / before));
    const rest = rows
      .map((row) => ({ ...row, u: Math.round(((row.u * before - gone) / (before - gone)) * 1e6) / 1e6 }))
      .filter((row) => row.u > 1e-6);
    return [start, ...rest];
  };
  copy.edge.behind = moved(
    copy.edge.behind,
    (row) => row.t,
    (row, t) => ({ ...row, t }),
  );
  for (const bevel of [copy.bevels.right, copy.bevels.left]) {
    if (bevel === "same" || bevel.kind === "none" || bevel.set !== "height") continue;
    bevel.height = moved(
      bevel.height,
      (row) => row.h,
      (row, h) => ({ ...row, h }),
    );
  }
}

export interface Notches {
  readonly from: number;
  readonly to: number;
  readonly count: number;
  readonly depth: number;
}

/** Share of a notch's pitch that is notch; the rest is land. Source: common practice, a little more notch than land. */
const NOTCH_SHARE = 0.6;

/** Round notches filed across the spine for the thumb, evenly between two places. */
export function notchSpine(copy: Blade, { from, to, count, depth }: Notches): void {
  const { spine } = copy.outline;
  const pitch = (to - from) / count;
  const wide = pitch * NOTCH_SHARE;
  if (from < spine[0]!.at[0] || to > spine[spine.length - 1]!.at[0] || from >= to) {
    throw new RangeError("The notches must lie between the junction and the tip.");
  }
  if (depth > wide)
    throw new RangeError("Notches deeper than they are wide break the spine's line: make fewer.");
  for (let i = 0; i < count; i++) {
    const middle = from + (i + 0.5) * pitch;
    const start = splitAtX(spine, middle - wide / 2);
    const end = splitAtX(spine, middle + wide / 2);
    spine.splice(start + 1, end - start - 1);
    const [a, b] = [spine[start]!, spine[start + 1]!];
    const chord: Point = [b.at[0] - a.at[0], b.at[1] - a.at[1]];
    const length = Math.hypot(...chord);
    // Both handles straight into the steel: the cubic's middle lies three quarters of their length deep.
    const inward = tidyAt([((chord[1] / length) * 4 * depth) / 3, ((-chord[0] / length) * 4 * depth) / 3]);
    a.ahead = inward;
    b.back = [...inward];
  }
}

/** Puts a node on the spine at x, and says which it is. */
function splitAtX(nodes: OutlineNode[], x: number): number {
  const place = firstPlace(nodes, (at) => at[0] - x);
  if (!place) throw new RangeError("The notches must lie between the junction and the tip.");
  if (place.t > 1 - 1e-6) return place.index + 1;
  if (place.t < 1e-6) return place.index;
  addAfter(nodes, place.index, place.t);
  return place.index + 1;
}

/** The same blade for the other hand: what was on its left is on its right. */
export function otherHand(copy: Blade): void {
  const { edge, bevels } = copy;
  copy.bevels = bevels.left === "same" ? bevels : { right: bevels.left, left: bevels.right };
  const faces = { "left-face": "right-face", "right-face": "left-face" } as const;
  copy.edge = {
    ...edge,
    angle: { left: edge.angle.right, right: edge.angle.left },
    rightShare: Math.round((1 - edge.rightShare) * 1e9) / 1e9,
    offset: typeof edge.offset === "number" ? -edge.offset || 0 : faces[edge.offset],
  };
}

/** Draws the spine as the edge mirrored about the line half-way down the heel, where the tip is brought to lie. */
export function mirrorEdge(copy: Blade): void {
  const { edge } = copy.outline;
  const [heelX, heelY] = edge[0]!.at;
  if (heelX < 0) throw new RangeError("The heel lies behind the junction: the spine cannot begin there.");
  const tip = edge[edge.length - 1]!;
  tip.at = [tip.at[0], heelY / 2];
  const over = (offset: readonly [number, number]): Point => [offset[0], -offset[1]];
  const mirrored = edge.map(({ at, back, ahead }) => ({
    at: [at[0], tidy(heelY - at[1])] as Point,
    ...(back ? { back: over(back) } : {}),
    ...(ahead ? { ahead: over(ahead) } : {}),
  }));
  copy.outline.spine = heelX > 0 ? [{ at: [0, 0] }, ...mirrored] : mirrored;
}

const tidyAt = (at: Point): Point => [tidy(at[0]), tidy(at[1])];
