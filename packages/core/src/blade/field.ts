import { tan } from "../units/angle.ts";
import { type Chain, placeAt } from "./chain.ts";
import { readFace } from "./face.ts";
import { type HalfSample, newHalf, settle } from "./half.ts";
import { nearest, newFoot } from "./nearest.ts";
import { compileRing, type Ring } from "./outline.ts";
import { type Blade, bevelOn, type Side } from "./schema.ts";
import { isSecondAlike, pastStart, planSecond, type SecondPlan, type SecondSide } from "./second.ts";
import { type Allowance, type PlungeCut, planSide, plungeCut, type SidePlan, sharpStart } from "./side.ts";
import { read, type Table, table } from "./table.ts";

/**
 * A blade compiled so that its half-thickness can be asked anywhere. `sampleAt` writes into `right`, `left`
 * and `foot`: read them before asking again. `alike` says that both sides are one, and `left` is `right`.
 */
export interface Field {
  readonly blade: Blade;
  readonly ring: Ring;
  readonly edge: Chain;
  readonly spine: Chain;
  readonly thickness: Table;
  readonly behind: Table;
  /** Arc length on the edge chain where sharpening begins, mm. */
  readonly sharpFrom: number;
  readonly alike: boolean;
  /** Whether a side's bevel goes up to the spine. */
  readonly isFull: boolean;
  /** Whether nothing is cut but the flats, anywhere. */
  readonly isPlain: boolean;
  /** The other sharpened edge, where there is one. */
  readonly second: SecondPlan | null;
  readonly plunges: { readonly right: PlungeCut | null; readonly left: PlungeCut | null };
  readonly right: HalfSample;
  readonly left: HalfSample;
  /** The edge's nearest place, and where along the spine's chain the nearest place of that lies, if it counts. */
  readonly foot: { d: number; u: number; s: number; onChain: boolean; spineS: number };
  sampleAt(x: number, y: number): void;
}

/**
 * Compiles a checked blade (see check.ts) into its field. `still` adds the steel of a stage before the finish;
 * `ring` saves compiling the outline again.
 * Source of every surface: the definitions in docs/model.md.
 */
export function compileField(blade: Blade, still?: Allowance, ring = compileRing(blade.outline)): Field {
  const { edge, spine } = ring;
  const thickness = table(
    blade.thickness,
    (row) => row.x,
    (row) => row.t,
  );
  const behind = table(
    blade.edge.behind,
    (row) => row.u,
    (row) => row.t,
  );
  const plunges = {
    right: plungeCut(ring, bevelOn(blade, "right")),
    left: plungeCut(ring, bevelOn(blade, "left")),
  };
  const sharpFrom = sharpStart(blade, ring, plunges);
  const plan = (side: Side) => planSide(blade, ring, side, thickness, behind, plunges[side], still);
  const rightPlan = plan("right");
  const leftPlan = plan("left");
  const alike = sidesAlike(blade, still);
  const second = planSecond(blade, ring, still);
  const right = newHalf();
  const left = alike ? right : newHalf();
  const foot = { d: 0, u: 0, s: 0, onChain: true, spineS: 0 };
  const edgeFoot = newFoot();
  const spineFoot = newFoot();
  const heel = placeAt(edge, 0);
  const [heelTx, heelTy] = edge.startTangent;
  const falseEdge = still && !still.falseEdge ? undefined : blade.falseEdge;
  const tanFalse = falseEdge ? tan(falseEdge.angle) : 0;
  const isFull = [rightPlan, leftPlan].some(({ bevel }) => bevel.kind !== "none" && bevel.set === "full");
  const cutsEdge = !still || still.edgeBevel;
  const cutsSecond = !still || (still.second ?? still).edgeBevel;
  const extraFlat = still?.flats ?? 0;
  const face = { h: 0, slope: 0 };

  function sampleAt(x: number, y: number): void {
    const F = read(thickness, x) / 2;
    nearest(edge, x, y, edgeFoot);
    let d = edgeFoot.d;
    let s = edgeFoot.s;
    let onChain = true;
    const along = (x - heel.x) * heelTx + (y - heel.y) * heelTy;
    if (along < 0) {
      const across = Math.abs((x - heel.x) * heelTy - (y - heel.y) * heelTx);
      if (across < d) {
        d = across;
        s = 0;
        onChain = false;
      }
    }
    const u = s <= 0 ? 0 : s >= edge.length ? 1 : s / edge.length;
    foot.d = d;
    foot.u = u;
    foot.s = s;
    foot.spineS = 0;
    foot.onChain = onChain;
    let toSpine = 0;
    let cutFalse = Number.POSITIVE_INFINITY;
    const underFalse = falseEdge !== undefined && x >= falseEdge.from && x <= falseEdge.to;
    if (isFull || underFalse || second) {
      nearest(spine, x, y, spineFoot);
      toSpine = spineFoot.d;
      foot.spineS = spineFoot.s;
      if (underFalse) {
        cutFalse = falseEdge.land / 2 + toSpine * tanFalse + runIn(x - falseEdge.from, falseEdge.radius ?? 0);
      }
    }
    const e = read(behind, u);
    const sharp = cutsEdge && onChain && s >= sharpFrom - 1e-9;
    half(rightPlan, right, x, y, F, d, u, e, toSpine, cutFalse, sharp);
    if (!alike) half(leftPlan, left, x, y, F, d, u, e, toSpine, cutFalse, sharp);
    if (!second) return;
    secondHalf(second, second.right, right, x, y, F, d);
    if (!alike) secondHalf(second, second.left, left, x, y, F, d);
  }

  /** The second edge's own surfaces, by the spine's nearest place; `toEdge` is how far the other edge lies. */
  function secondHalf(
    { sFrom, sTo, behind: thick }: SecondPlan,
    side: SecondSide,
    out: HalfSample,
    x: number,
    y: number,
    F: number,
    toEdge: number,
  ): void {
    out.second = Number.POSITIVE_INFINITY;
    out.secondEdge = Number.POSITIVE_INFINITY;
    out.inSecondRunIn = false;
    out.isBelowSecond = false;
    const { s, d } = spineFoot;
    if (s >= sFrom - 1e-9 && s <= sTo + 1e-9) {
      const v = Math.min(1, Math.max(0, (s - sFrom) / (sTo - sFrom)));
      const e = read(thick, v) / 2;
      const dE = e > 0 ? e / side.tanEdge : 0;
      if (cutsSecond && side.tanEdge > 0) out.secondEdge = d * side.tanEdge;
      const past = side.cut ? pastStart(side.cut, x, y) : -1;
      if (past >= 0) {
        if (side.tanBevel > 0) {
          face.slope = side.tanBevel;
          face.h = e + (d - dE) * side.tanBevel;
        } else {
          const b = side.height ? read(side.height, v) : d + toEdge;
          if (b <= dE) face.h = Number.POSITIVE_INFINITY;
          else readFace(side.shape, d, dE, e, b, F, face);
        }
        out.second = face.h;
        out.secondSlope = face.slope;
        if (side.left) out.second += read(side.left, v) * Math.sqrt(1 + face.slope * face.slope);
        if (past < side.cut!.radius) {
          out.second += runIn(past, side.cut!.radius);
          out.inSecondRunIn = true;
        }
      }
      out.isBelowSecond = out.secondEdge !== Number.POSITIVE_INFINITY && d < dE;
    }
    settle(out);
  }

  function half(
    side: SidePlan,
    out: HalfSample,
    x: number,
    y: number,
    F: number,
    d: number,
    u: number,
    behindHere: number,
    toSpine: number,
    cutFalse: number,
    sharp: boolean,
  ): void {
    const o = side.offset === "own-face" ? F : side.offset === "other-face" ? -F : side.offset;
    const e = behindHere * side.share;
    const tanEdge = side.tanEdge;
    const dE = e > 0 ? e / tanEdge : 0;
    out.flat = F + extraFlat;
    out.falseEdge = cutFalse;
    out.edge = sharp && tanEdge > 0 ? o + d * tanEdge : Number.POSITIVE_INFINITY;
    if (side.edgeShape && d < dE && out.edge !== Number.POSITIVE_INFINITY) {
      readFace(side.edgeShape, d, 0, 0, dE, e, face);
      out.edge = o + face.h;
    }
    out.primary = Number.POSITIVE_INFINITY;
    out.relief = Number.POSITIVE_INFINITY;
    out.slope = 0;
    out.inRunIn = false;
    const cut = side.cut;
    if (cut) {
      const v = (x - cut.x) * cut.cos - (y - cut.y) * cut.sin;
      if (v >= 0) {
        readPrimary(side, x, y, F, d, u, o, e, dE, toSpine);
        out.slope = face.slope;
        out.primary = face.h;
        const still = side.left ? read(side.left, u) : 0;
        if (still > 0) out.primary += still * Math.sqrt(1 + face.slope * face.slope);
        const eased = side.relief && side.relief.height > dE ? side.relief.tan : 0;
        out.reliefSlope = eased;
        if (eased > 0) out.relief = o + e + (d - dE) * eased + still * Math.sqrt(1 + eased * eased);
        if (v < cut.radius) {
          const stands = runIn(v, cut.radius);
          out.primary += stands;
          out.relief += stands;
          out.inRunIn = true;
        }
      }
    }
    out.isBelowShoulder = side.plane === null && out.edge !== Number.POSITIVE_INFINITY && d < dE;
    settle(out);
  }

  function readPrimary(
    side: SidePlan,
    x: number,
    y: number,
    F: number,
    d: number,
    u: number,
    o: number,
    e: number,
    dE: number,
    toSpine: number,
  ): void {
    if (side.plane) {
      const cut = side.cut!;
      const climbed = (y - cut.y) * side.plane.cos - (x - cut.x) * side.plane.sin;
      face.slope = side.tanBevel;
      face.h = side.plane.h + (climbed - side.plane.d) * side.tanBevel;
      return;
    }
    // With a relief the bevel begins where that ends.
    const isEased = side.relief !== null && side.relief.height > dE;
    const from = isEased ? side.relief!.height : dE;
    const h = o + e + (isEased ? (from - dE) * side.relief!.tan : 0);
    if (side.tanBevel > 0) {
      face.slope = side.tanBevel;
      face.h = h + (d - from) * side.tanBevel;
      return;
    }
    const b = side.height ? read(side.height, u) : d + toSpine;
    if (b <= from) {
      face.slope = 0;
      face.h = Number.POSITIVE_INFINITY;
      return;
    }
    readFace(side.shape, d, from, h, b, F, face);
  }

  return {
    blade,
    ring,
    edge,
    spine,
    thickness,
    behind,
    sharpFrom,
    alike,
    isFull,
    second,
    isPlain: !second && isPlain(plunges, falseEdge !== undefined, cutsEdge && isSharpened(blade)),
    plunges,
    right,
    left,
    foot,
    sampleAt,
  };
}

function isPlain({ right, left }: Field["plunges"], hasFalseEdge: boolean, hasEdge: boolean): boolean {
  return !right && !left && !hasFalseEdge && !hasEdge;
}

function isSharpened({ edge: { angle } }: Blade): boolean {
  return angle.right > 0 || angle.left > 0;
}

/** What the belt's overhang leaves standing at v past the line: r − √(r² − (r − v)²) for 0 ≤ v < r. */
function runIn(v: number, radius: number): number {
  if (v >= radius || v < 0) return 0;
  const rest = radius - v;
  return radius - Math.sqrt(Math.max(0, radius * radius - rest * rest));
}

function sidesAlike(blade: Blade, still: Allowance | undefined): boolean {
  const { angle, rightShare, offset } = blade.edge;
  if (blade.bevels.left !== "same" || angle.left !== angle.right) return false;
  if (rightShare !== 0.5 || offset !== 0 || !isSecondAlike(blade)) return false;
  if (still?.second && blade.secondEdge && still.second.faces.left !== still.second.faces.right) return false;
  return !still || still.faces.left === still.faces.right;
}

/**
 * Thickness at (x, y), mm: right half plus left half where that sum is positive. The outline and the holes are
 * not looked at: ask isInside for that.
 */
export function thicknessAt(field: Field, x: number, y: number): number {
  field.sampleAt(x, y);
  return Math.max(0, field.right.lowest + field.left.lowest);
}
