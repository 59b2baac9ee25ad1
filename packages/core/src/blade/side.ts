import { radians, tan } from "../units/angle.ts";
import { type Chain, firstAtX, placeAt } from "./chain.ts";
import type { FaceShape } from "./face.ts";
import type { Ring } from "./outline.ts";
import { type Bevel, type Blade, bevelOn, type CutBevel, type Plunge, type Side } from "./schema.ts";
import { largest, read, type Table, table } from "./table.ts";

/** Steel still on the blade at a stage: mm per side, and which late cuts are already made. */
export interface Allowance {
  /** Φ, still to come off each flat. */
  readonly flats: number;
  /** Δ over u, still to come off each bevel face, square to it. */
  readonly faces: { readonly left: Table; readonly right: Table };
  readonly edgeBevel: boolean;
  readonly falseEdge: boolean;
  /** The same of a second edge, over its v; absent: as the first edge's. */
  readonly second?: {
    readonly faces: { readonly left: Table; readonly right: Table };
    readonly edgeBevel: boolean;
  };
}

/** One side of a blade, ready to be read: every figure its surfaces need, worked out once. */
export interface SidePlan {
  readonly share: number;
  readonly offset: number | "own-face" | "other-face";
  readonly tanEdge: number;
  /** The edge bevel's face between apex and shoulder, where it is not flat. */
  readonly edgeShape: FaceShape | null;
  readonly bevel: Bevel;
  readonly shape: FaceShape;
  readonly height: Table | null;
  readonly tanBevel: number;
  /** The second slope from the shoulder up to so far above the edge, as a tangent and mm. */
  readonly relief: { readonly tan: number; readonly height: number } | null;
  readonly cut: PlungeCut | null;
  readonly plane: {
    readonly h: number;
    readonly d: number;
    readonly sin: number;
    readonly cos: number;
  } | null;
  readonly left: Table | null;
}

export interface PlungeCut {
  readonly x: number;
  readonly y: number;
  readonly sin: number;
  readonly cos: number;
  readonly radius: number;
}

/** Arc length on the edge where sharpening begins: as said, else at the foremost plunge, else at the heel. */
export function sharpStart(
  blade: Blade,
  ring: Ring,
  plunges: { right: PlungeCut | null; left: PlungeCut | null },
): number {
  const foremost = Math.max(plunges.right?.x ?? -Infinity, plunges.left?.x ?? -Infinity);
  const wanted = blade.edge.start ?? foremost;
  const heel = placeAt(ring.edge, 0);
  if (wanted === -Infinity || (wanted <= heel.x && ring.edge.startTangent[0] > 0)) return 0;
  return firstAtX(ring.edge, wanted) ?? 0;
}

/** Where a plunge meets the continued edge chain, and how it leans; null on a side without a bevel. */
export function plungeCut(ring: Ring, bevel: Bevel): PlungeCut | null {
  if (bevel.kind === "none") return null;
  const y = plungeFootY(ring.edge, bevel.plunge);
  if (y === null) return null;
  const lean = radians(bevel.plunge.lean);
  return { x: bevel.plunge.x, y, sin: Math.sin(lean), cos: Math.cos(lean), radius: bevel.plunge.radius };
}

/** y of the plunge's foot: the first point at its x of the chain continued behind the heel; null if none. */
export function plungeFootY(edge: Chain, plunge: Plunge): number | null {
  const heel = placeAt(edge, 0);
  const [tx, ty] = edge.startTangent;
  if (tx > 1e-9 && plunge.x <= heel.x) return heel.y + ((plunge.x - heel.x) / tx) * ty;
  const s = firstAtX(edge, plunge.x);
  if (s !== null) return placeAt(edge, s).y;
  return tx < -1e-9 && plunge.x >= heel.x ? heel.y + ((plunge.x - heel.x) / tx) * ty : null;
}

/** Works out one side's plan. */
export function planSide(
  blade: Blade,
  ring: Ring,
  side: Side,
  thickness: Table,
  behind: Table,
  cut: PlungeCut | null,
  still: Allowance | undefined,
): SidePlan {
  const bevel = bevelOn(blade, side);
  const { rightShare, angle } = blade.edge;
  const share = side === "right" ? rightShare : 1 - rightShare;
  const tanEdge = tan(angle[side]);
  const cutBevel = bevel.kind === "none" ? null : bevel;
  const tanBevel = cutBevel && cutBevel.set === "angle" ? tan(cutBevel.angle) : 0;
  return {
    share,
    offset: offsetFor(blade.edge.offset, side),
    tanEdge,
    edgeShape:
      blade.edge.kind === "convex" && blade.edge.bulge !== undefined
        ? { kind: "convex", bulge: blade.edge.bulge }
        : null,
    bevel,
    shape: shapeOf(bevel),
    height:
      cutBevel?.set === "height"
        ? table(
            cutBevel.height,
            (row) => row.u,
            (row) => row.h,
          )
        : null,
    tanBevel,
    relief: reliefOf(bevel),
    cut,
    plane:
      cutBevel && cut ? planeOf(blade, ring, side, cutBevel, cut, share, tanEdge, thickness, behind) : null,
    left: still && largest(still.faces[side]) > 0 ? still.faces[side] : null,
  };
}

/** The apex plane as one side sees it: mm from the centre plane, + outward on that side. */
export function offsetFor(offset: Blade["edge"]["offset"], side: Side): number | "own-face" | "other-face" {
  if (typeof offset === "number") return side === "right" ? offset : -offset;
  return offset === `${side}-face` ? "own-face" : "other-face";
}

function reliefOf(bevel: Bevel): SidePlan["relief"] {
  if (bevel.kind !== "flat" || bevel.pull !== "follow" || !bevel.relief) return null;
  return { tan: tan(bevel.relief.angle), height: bevel.relief.height };
}

function shapeOf(bevel: Bevel): FaceShape {
  if (bevel.kind === "hollow") return { kind: "hollow", radius: bevel.wheelDiameter / 2 };
  if (bevel.kind === "convex") return { kind: "convex", bulge: bevel.bulge };
  return { kind: "flat" };
}

function planeOf(
  blade: Blade,
  ring: Ring,
  side: Side,
  bevel: CutBevel,
  cut: PlungeCut,
  share: number,
  tanEdge: number,
  thickness: Table,
  behind: Table,
): SidePlan["plane"] {
  if (bevel.pull !== "straight") return null;
  const heel = placeAt(ring.edge, 0);
  const along = cut.x <= heel.x && ring.edge.startTangent[0] > 0 ? 0 : (firstAtX(ring.edge, cut.x) ?? 0);
  const e = read(behind, along / ring.edge.length) * share;
  const offset = offsetFor(blade.edge.offset, side);
  const F = read(thickness, cut.x) / 2;
  const o = offset === "own-face" ? F : offset === "other-face" ? -F : offset;
  const rest = radians(bevel.restAngle ?? 0);
  return { h: o + e, d: e > 0 ? e / tanEdge : 0, sin: Math.sin(rest), cos: Math.cos(rest) };
}
