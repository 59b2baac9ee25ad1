import { radians } from "../units/angle.ts";
import type { Field } from "./field.ts";
import { type HalfSample, newHalf, settle } from "./half.ts";
import type { Side } from "./schema.ts";
import type { PerSide } from "./station.ts";
import { read, type Table } from "./table.ts";

/** How steel differs from a field: what was left on it or taken too much, how it was held, how it is bent. */
export interface Distortion {
  /** Proud of a bevel's face, square to it, at a share of the edge, mm; below 0 where it went too far. */
  readonly faces?: (side: Side, u: number) => number;
  /** Proud of a flat at x, mm; bevels stay as they were ground. */
  readonly flats?: (side: Side, x: number) => number;
  /** Degrees by which each bevel is steeper, turned about the very edge or about its grind line. */
  readonly turned?: { readonly by: PerSide<number>; readonly about: "edge" | "line" };
  /** How far the middle plane has gone to the right at a place of the side view, mm. */
  readonly bent?: (x: number, y: number) => number;
}

/**
 * A field with a distortion put in: asked as any other. `lines` are the grind lines' heights over u where faces are turned about
 * them, mm. Source: geometry; a face turned by δ at an angle β has the slope tan(β + δ), a face raised by t square to it stands
 * t·√(1 + slope²) higher.
 */
export function distorted(
  field: Field,
  { faces, flats, turned, bent }: Distortion,
  lines?: PerSide<Table>,
): Field {
  const right = newHalf();
  const left = newHalf();
  const turn = (side: Side, half: HalfSample, d: number, u: number) => {
    if (!turned || turned.by[side] === 0) return 0;
    const pivot = turned.about === "line" && lines ? read(lines[side], u) : 0;
    const steeper = Math.tan(Math.atan(half.slope) + radians(turned.by[side])) - half.slope;
    return (d - pivot) * steeper;
  };
  const put = (side: Side, from: HalfSample, to: HalfSample, x: number, y: number) => {
    copy(from, to);
    const { d, u } = field.foot;
    if (flats) to.flat += flats(side, x);
    if (Number.isFinite(to.primary)) {
      if (faces) to.primary += faces(side, u) * Math.hypot(1, from.slope);
      to.primary += turn(side, from, d, u);
    }
    // What was ground with the bevel was held with it.
    if (Number.isFinite(to.relief)) {
      if (faces) to.relief += faces(side, u) * Math.hypot(1, from.reliefSlope);
      to.relief += turn(side, from, d, u);
    }
    if (bent) {
      const by = side === "right" ? bent(x, y) : -bent(x, y);
      to.flat += by;
      to.edge += by;
      to.primary += by;
      to.relief += by;
      to.falseEdge += by;
      to.second += by;
      to.secondEdge += by;
    }
    settle(to);
  };
  return {
    ...field,
    alike: false,
    right,
    left,
    sampleAt(x: number, y: number): void {
      field.sampleAt(x, y);
      put("right", field.right, right, x, y);
      put("left", field.left, left, x, y);
    },
  };
}

export function copy(from: HalfSample, to: HalfSample): void {
  to.flat = from.flat;
  to.edge = from.edge;
  to.primary = from.primary;
  to.relief = from.relief;
  to.reliefSlope = from.reliefSlope;
  to.falseEdge = from.falseEdge;
  to.second = from.second;
  to.secondEdge = from.secondEdge;
  to.secondSlope = from.secondSlope;
  to.inSecondRunIn = from.inSecondRunIn;
  to.isBelowSecond = from.isBelowSecond;
  to.slope = from.slope;
  to.inRunIn = from.inRunIn;
  to.isBelowShoulder = from.isBelowShoulder;
}
