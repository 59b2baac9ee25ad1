import { radians, tan } from "../units/angle.ts";
import { firstAtX, placeAt } from "./chain.ts";
import type { FaceShape } from "./face.ts";
import type { Ring } from "./outline.ts";
import type { Blade, SecondBevel, Side } from "./schema.ts";
import type { Allowance, PlungeCut } from "./side.ts";
import { largest, type Table, table } from "./table.ts";

/** A second edge, ready to be read: the edge's own rules once more, with the spine in place of the edge. */
export interface SecondPlan {
  /** Where it begins and ends, mm from the junction and as arc length on the spine. */
  readonly from: number;
  readonly to: number;
  readonly sFrom: number;
  readonly sTo: number;
  /** Over v. */
  readonly behind: Table;
  readonly right: SecondSide;
  readonly left: SecondSide;
}

export interface SecondSide {
  readonly tanEdge: number;
  readonly tanBevel: number;
  readonly shape: FaceShape;
  /** Over v; null where it goes up to the other edge, or is set by its angle. */
  readonly height: Table | null;
  /** How its bevel begins, as a plunge does at the edge; null without a bevel. */
  readonly cut: PlungeCut | null;
  readonly left: Table | null;
}

/** The bevel of a second edge on one side, with `"same"` resolved. */
export function secondBevelOn({ bevels }: NonNullable<Blade["secondEdge"]>, side: Side): SecondBevel {
  return side === "left" && bevels.left !== "same" ? bevels.left : bevels.right;
}

/** Works a second edge out; null where there is none, or where its spine has no such places. */
export function planSecond(blade: Blade, ring: Ring, still: Allowance | undefined): SecondPlan | null {
  const { secondEdge } = blade;
  if (!secondEdge) return null;
  const { spine } = ring;
  const tip = placeAt(spine, spine.length).x;
  const { from, to = tip } = secondEdge;
  const sFrom = firstAtX(spine, from);
  const sTo = to >= tip ? spine.length : firstAtX(spine, to);
  if (sFrom === null || sTo === null || sTo <= sFrom) return null;
  const start = placeAt(spine, sFrom);
  const faces = (still?.second ?? still)?.faces;
  const on = (side: Side): SecondSide => {
    const bevel = secondBevelOn(secondEdge, side);
    const lean = bevel.kind === "none" ? 0 : radians(bevel.runIn.lean);
    return {
      tanEdge: tan(secondEdge.angle[side]),
      tanBevel: bevel.kind === "flat" && bevel.set === "angle" ? tan(bevel.angle) : 0,
      shape: shapeOf(bevel),
      height:
        bevel.kind !== "none" && bevel.set === "height"
          ? table(
              bevel.height,
              (row) => row.v,
              (row) => row.h,
            )
          : null,
      cut:
        bevel.kind === "none"
          ? null
          : {
              x: start.x,
              y: start.y,
              sin: Math.sin(lean),
              cos: Math.cos(lean),
              radius: bevel.runIn.radius,
            },
      left: faces && largest(faces[side]) > 0 ? faces[side] : null,
    };
  };
  return {
    from,
    to,
    sFrom,
    sTo,
    behind: table(
      secondEdge.behind,
      (row) => row.v,
      (row) => row.t,
    ),
    right: on("right"),
    left: on("left"),
  };
}

function shapeOf(bevel: SecondBevel): FaceShape {
  if (bevel.kind === "hollow") return { kind: "hollow", radius: bevel.wheelDiameter / 2 };
  if (bevel.kind === "convex") return { kind: "convex", bulge: bevel.bulge };
  return { kind: "flat" };
}

/** How far past the start of a second edge's bevel a place lies, mm: a lean to the tip leans its lower end forward. */
export function pastStart(cut: PlungeCut, x: number, y: number): number {
  return (x - cut.x) * cut.cos + (y - cut.y) * cut.sin;
}

/** Whether both sides of a second edge are one. */
export function isSecondAlike({ secondEdge }: Blade): boolean {
  return (
    !secondEdge || (secondEdge.bevels.left === "same" && secondEdge.angle.left === secondEdge.angle.right)
  );
}
