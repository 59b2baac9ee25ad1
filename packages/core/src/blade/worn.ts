import { tan } from "../units/angle.ts";
import { copy } from "./distort.ts";
import type { Field } from "./field.ts";
import { newHalf, settle } from "./half.ts";
import type { Side } from "./schema.ts";

/**
 * A blade whose edge has gone up into it by a(u), mm, sharpened again at its own angle: its edge bevel is o + (d − a)·tan α, all else stays.
 * Heights are counted from d = a. A convex edge bevel is held at its chord's angle. Source: the definitions in docs/model.md.
 */
export function wornField(field: Field, a: (u: number) => number): Field {
  const { angle } = field.blade.edge;
  const right = newHalf();
  const left = newHalf();
  const put = (side: Side, from: typeof right, to: typeof right, u: number) => {
    copy(from, to);
    const lost = a(u);
    if (Number.isFinite(from.edge) && lost > 0) {
      const slope = tan(angle[side]);
      to.edge = apexOf(field, side) + (field.foot.d - lost) * slope;
      // The bevel goes on down to wherever the edge now meets it.
      to.isBelowShoulder = false;
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
      const { u } = field.foot;
      put("right", field.right, right, u);
      put("left", field.left, left, u);
    },
  };
}

/** How far to a side the apex stands from the centre plane where the field was asked last, mm. */
function apexOf(field: Field, side: Side): number {
  const { offset } = field.blade.edge;
  if (typeof offset === "number") return side === "right" ? offset : -offset;
  const half = field[side].flat;
  return offset === `${side}-face` ? half : -half;
}
