import { compileChain } from "./chain.ts";
import type { Field } from "./field.ts";
import { type HalfSample, newHalf, settle } from "./half.ts";
import { nearest, newFoot } from "./nearest.ts";
import { compileRing } from "./outline.ts";
import type { Bevel, Blade, Outline, OutlineNode, SecondBevel } from "./schema.ts";
import { secondBevelOn } from "./second.ts";
import type { PlungeCut } from "./side.ts";
import { stretchOf } from "./stretch.ts";

/**
 * The same steel with the blade turned edge for spine: y is mirrored, the second edge is the edge, its v is u, its start the plunge.
 * Sides and x stay. Whatever is asked of an edge is asked of the second one through this, of the one field. Null without one.
 */
export function turnedOver(field: Field): Field | null {
  const { second, blade } = field;
  if (!second || !blade.secondEdge) return null;
  const file = turnedFile(blade);
  const { outline } = file;
  const ring = compileRing(outline);
  const edge = compileChain(stretchOf(outline.spine, ring.spine, second.sFrom, second.sTo));
  const right = newHalf();
  const left = field.alike ? right : newHalf();
  const foot = { d: 0, u: 0, s: 0, onChain: true, spineS: 0 };
  const onEdge = newFoot();
  const plunge = (cut: PlungeCut | null): PlungeCut | null => cut && { ...cut, y: -cut.y };
  return {
    ...field,
    blade: file,
    ring,
    edge,
    spine: ring.edge,
    behind: second.behind,
    sharpFrom: 0,
    second: null,
    plunges: { right: plunge(second.right.cut), left: plunge(second.left.cut) },
    right,
    left,
    foot,
    sampleAt(x: number, y: number): void {
      field.sampleAt(x, -y);
      swap(field.right, right);
      if (!field.alike) swap(field.left, left);
      nearest(edge, x, y, onEdge);
      foot.d = onEdge.d;
      foot.s = onEdge.s;
      foot.u = Math.min(1, Math.max(0, onEdge.s / edge.length));
      foot.spineS = field.foot.s;
    },
  };
}

/** One edge's surfaces for the other's. */
function swap(from: HalfSample, to: HalfSample): void {
  to.flat = from.flat;
  to.falseEdge = from.falseEdge;
  to.edge = from.secondEdge;
  to.primary = from.second;
  to.slope = from.secondSlope;
  to.inRunIn = from.inSecondRunIn;
  to.isBelowShoulder = from.isBelowSecond;
  to.relief = Number.POSITIVE_INFINITY;
  to.reliefSlope = 0;
  to.secondEdge = from.edge;
  to.second = Math.min(from.primary, from.relief);
  to.secondSlope = from.relief < from.primary ? from.reliefSlope : from.slope;
  to.inSecondRunIn = from.inRunIn;
  to.isBelowSecond = from.isBelowShoulder;
  settle(to);
}

/** A blade's file with its second edge's figures where the edge's stand: not one that can be compiled on its own. */
export function turnedFile(blade: Blade): Blade {
  const { secondEdge: second, falseEdge: _, ...rest } = blade;
  const { behind, angle, bevels, from } = second!;
  return {
    ...rest,
    outline: mirrored(blade.outline),
    edge: { behind: behind.map(({ v, t }) => ({ u: v, t })), angle, rightShare: 0.5, offset: 0 },
    bevels: {
      right: asBevel(secondBevelOn(second!, "right"), from),
      left: bevels.left === "same" ? "same" : asBevel(bevels.left, from),
    },
  };
}

/** A second edge's bevel as an edge's: its run-in is the plunge. */
function asBevel(bevel: SecondBevel, from: number): Bevel {
  if (bevel.kind === "none") return bevel;
  const { runIn, ...rest } = bevel;
  const plunge = { x: from, lean: runIn.lean, radius: runIn.radius };
  const height = "height" in bevel ? { height: bevel.height.map(({ v, h }) => ({ u: v, h })) } : {};
  return { ...rest, ...height, pull: "follow", plunge } as Bevel;
}

/** What was changed of a turned file's bevels, put back into the file it was turned from. */
export function turnedBack(blade: Blade, { bevels: { right, left } }: Blade): Blade {
  if (!blade.secondEdge) return blade;
  return {
    ...blade,
    secondEdge: {
      ...blade.secondEdge,
      bevels: { right: asSecond(right), left: left === "same" ? "same" : asSecond(left) },
    },
  };
}

function asSecond(bevel: Bevel): SecondBevel {
  if (bevel.kind === "none") return bevel;
  const { plunge, pull: _, ...rest } = bevel;
  const runIn = { lean: plunge.lean, radius: plunge.radius };
  const height = bevel.set === "height" ? { height: bevel.height.map(({ u, h }) => ({ v: u, h })) } : {};
  return { ...rest, ...height, runIn } as SecondBevel;
}

const mirroredOutlines = new WeakMap<Outline, Outline>();

/** The outline with y turned over, made once for each. */
function mirrored(outline: Outline): Outline {
  let turned = mirroredOutlines.get(outline);
  if (!turned) {
    const flip = ([x, y]: readonly [number, number]): [number, number] => [x, -y];
    const node = ({ at, back, ahead }: OutlineNode): OutlineNode => ({
      at: flip(at),
      ...(back ? { back: flip(back) } : {}),
      ...(ahead ? { ahead: flip(ahead) } : {}),
    });
    turned = {
      spine: outline.spine.map(node),
      edge: outline.edge.map(node),
      tang: outline.tang.map(node),
    };
    mirroredOutlines.set(outline, turned);
  }
  return turned;
}
