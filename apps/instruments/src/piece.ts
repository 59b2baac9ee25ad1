import { type Chain, compileChain, placeAt } from "@true-spine/core/blade/chain.ts";
import { nearest, newFoot } from "@true-spine/core/blade/nearest.ts";
import { compileRing, exitAlong } from "@true-spine/core/blade/outline.ts";
import { type Bevel, type Blade, bevelOn, type Side } from "@true-spine/core/blade/schema.ts";

/**
 * A hidden piece of steel for the simulated instruments: cut by surfaces of its own, with faults as they come about at the
 * belt. It takes the outline from the blade's file and shares nothing else with what judges the readings. Lengths mm, angles
 * degrees.
 */
export type Fault =
  /** The edge stands k to the left between two places. */
  | { readonly kind: "off-centre"; readonly k: number; readonly from: number; readonly to: number }
  /** One face was left by so much, or went too far where negative. */
  | {
      readonly kind: "heavy";
      readonly side: Side;
      readonly by: number;
      readonly from: number;
      readonly to: number;
    }
  /** The handle was not swung: the edge is thicker by `most` at the last of the belly. */
  | { readonly kind: "belly-thick"; readonly most: number }
  | { readonly kind: "smile"; readonly side: Side | "both"; readonly depth: number; readonly reach: number }
  | {
      readonly kind: "wave";
      readonly side: Side;
      readonly depth: number;
      readonly length: number;
      readonly phase: number;
    }
  | { readonly kind: "plunge-back"; readonly side: Side; readonly by: number; readonly lean: number }
  /** The whole blade bent, the left flat hollow by so much in the middle; its faces are as they were ground. */
  | { readonly kind: "bow"; readonly by: number }
  /** Turned from heel to tip by so many degrees, the tip's edge to the left. */
  | { readonly kind: "twist"; readonly by: number }
  | { readonly kind: "out-of-square"; readonly by: number }
  | { readonly kind: "wheel-swapped"; readonly diameter: number }
  | { readonly kind: "flats-not-true"; readonly heel: number; readonly tip: number }
  | { readonly kind: "jig-zero"; readonly by: number; readonly held: "edge" | "line" };

/** Steel that was taken off a face afterwards: rows of x and how much, square to the face. */
export interface Taken {
  readonly side: Side;
  readonly off: readonly { readonly x: number; readonly t: number }[];
}

export interface Order {
  readonly blade: Blade;
  /** Still on each bevel face and each flat at the stage. */
  readonly left: { readonly faces: { readonly [side in Side]: number }; readonly flats: number };
  readonly isSharpened: boolean;
  /** Said where the second edge is what is cut. */
  readonly edge?: "second";
  readonly faults: readonly Fault[];
  readonly taken?: readonly Taken[];
  /** How much a sound hand's faces wander, mm, at which phases: smooth along the blade. */
  readonly wander?: { readonly by: number; readonly phase: number };
}

export interface Piece {
  readonly edgeLength: number;
  /** The place on the edge at a share of it: where, and the way square to it into the blade. */
  edgeAt(u: number): { x: number; y: number; inward: readonly [number, number] };
  /** One side's half-thickness, from the middle plane. */
  half(side: Side, x: number, y: number): number;
  flats(x: number): number;
  /** Height of the grind line above the edge at a share of it, found by walking up; null where the bevel has no top. */
  line(side: Side, u: number): number | null;
  /** From the edge at a share of it up to the spine, square to the edge. */
  height(u: number): number;
  /** How far a bent blade's edge stands off where it would be on the plate, with its heel pressed down on this side's other flat. */
  rises(side: Side, u: number): number;
  readonly bow: number;
  readonly twist: number;
  plunge(side: Side): number | null;
  lean(side: Side): number | null;
  readonly square: number;
}

const RAD = Math.PI / 180;

function rows(table: readonly { at: number; value: number }[], at: number): number {
  if (at <= table[0]!.at) return table[0]!.value;
  for (let i = 1; i < table.length; i++) {
    const [a, b] = [table[i - 1]!, table[i]!];
    if (at <= b.at) return a.value + ((b.value - a.value) * (at - a.at)) / (b.at - a.at);
  }
  return table.at(-1)!.value;
}

/** A window of 1 between two places, running out over a quarter of a usual belt's width at each end, mm. */
const RUNS_OUT = 12;
const between = (x: number, from: number, to: number) => {
  const rise = (v: number) => Math.max(0, Math.min(1, v / RUNS_OUT + 0.5));
  return rise(x - from) * rise(to - x);
};

/** Cuts the piece. Nothing of the judging side's surfaces is used. */
export function cutPiece(order: Order): Piece {
  return order.edge === "second"
    ? cut(order, otherWayUp(order.blade))
    : cut(order, { blade: order.blade, edge: compileRing(order.blade.outline).edge });
}

/** How many straight pieces a second edge is cut from. */
const STRAIGHTS = 400;

/** The blade laid edge up: what is ground along its second edge, as if that were the first. */
function otherWayUp(blade: Blade): { blade: Blade; edge: Chain } {
  const { secondEdge: second, outline, falseEdge: _, ...rest } = blade;
  if (!second) throw new Error("this blade has one edge");
  const up = ({ at, back, ahead }: Blade["outline"]["edge"][number]) => ({
    at: [at[0], -at[1]] as [number, number],
    ...(back ? { back: [back[0], -back[1]] as [number, number] } : {}),
    ...(ahead ? { ahead: [ahead[0], -ahead[1]] as [number, number] } : {}),
  });
  const { spine } = compileRing(outline);
  const along = Array.from({ length: 8001 }, (_, i) => placeAt(spine, (spine.length * i) / 8000));
  const first = along.findIndex(({ x }) => x >= second.from);
  const last = second.to === undefined ? along.length - 1 : along.findLastIndex(({ x }) => x <= second.to!);
  const nodes = Array.from({ length: STRAIGHTS + 1 }, (_, i) => {
    const at = along[Math.round(first + ((last - first) * i) / STRAIGHTS)]!;
    return { at: [at.x, -at.y] as [number, number] };
  });
  const bevel = (one: typeof second.bevels.right): Bevel => {
    if (one.kind === "none") return { kind: "none" };
    const { runIn, ...face } = one;
    const rows = face.set === "height" ? { height: face.height.map(({ v, h }) => ({ u: v, h })) } : {};
    return { ...face, ...rows, pull: "follow", plunge: { x: second.from, ...runIn } } as Bevel;
  };
  const { right, left } = second.bevels;
  return {
    edge: compileChain(nodes),
    blade: {
      ...rest,
      outline: {
        spine: outline.spine.map(up),
        edge: outline.edge.map(up),
        tang: outline.tang.map(up),
      },
      edge: {
        behind: second.behind.map(({ v, t }) => ({ u: v, t })),
        angle: second.angle,
        rightShare: 0.5,
        offset: 0,
      },
      bevels: { right: bevel(right), left: left === "same" ? "same" : bevel(left) },
    },
  };
}

function cut(
  { left, isSharpened, faults, taken = [], wander }: Order,
  { blade, edge }: { blade: Blade; edge: Chain },
): Piece {
  const ring = compileRing(blade.outline);
  const foot = newFoot();
  const spineFoot = newFoot();
  const of = <K extends Fault["kind"]>(kind: K) =>
    faults.filter((fault): fault is Extract<Fault, { kind: K }> => fault.kind === kind);
  const thickness = blade.thickness.map(({ x, t }) => ({ at: x, value: t }));
  const behind = blade.edge.behind.map(({ u, t }) => ({ at: u, value: t }));
  const tip = placeAt(edge, edge.length);
  const flatFault = (x: number) =>
    of("flats-not-true").reduce((sum, { heel, tip: last }) => {
      const share = Math.max(0, Math.min(1, x / tip.x));
      return sum + heel + (last - heel) * share;
    }, 0);
  const planned = (x: number) => rows(thickness, x);
  const flats = (x: number) => planned(x) + 2 * left.flats + flatFault(x);
  const sign = (side: Side) => (side === "left" ? 1 : -1);

  // Where the belly climbs away from the edge's first direction, as a share of what it does at the last of it.
  const begin = placeAt(edge, 0);
  const climb = (u: number) => {
    const { x, y } = placeAt(edge, u * edge.length);
    return Math.max(0, (y - begin.y) * begin.tx - (x - begin.x) * begin.ty);
  };
  const whole = climb(0.95);

  /** What a face stands proud of its plan by at u, along the middle plane's normal. */
  const proud = (side: Side, u: number, slope: number) => {
    const { x } = placeAt(edge, u * edge.length);
    let sum = 0;
    for (const fault of faults) {
      if (fault.kind === "off-centre") sum += sign(side) * fault.k * between(x, fault.from, fault.to);
      if (fault.kind === "heavy" && fault.side === side) sum += fault.by * between(x, fault.from, fault.to);
      if (fault.kind === "belly-thick" && whole > 0)
        sum += (fault.most / 2) * Math.min(1.05, climb(u) / whole);
      if (fault.kind === "wave" && fault.side === side)
        sum += fault.depth * Math.sin((2 * Math.PI * x) / fault.length + fault.phase);
      if (fault.kind === "smile" && (fault.side === "both" || fault.side === side)) {
        const v = x - (plunge(side) ?? x);
        if (v >= -1 && v < fault.reach) sum -= fault.depth * (1 - (Math.max(0, v) / fault.reach) ** 2);
      }
    }
    if (wander) {
      const shift = wander.phase + (side === "left" ? 0 : 2.1);
      sum += wander.by * (Math.sin(x / 17 + shift) + Math.sin(x / 7.3 + 2 * shift)) * 0.5;
    }
    for (const cut of taken) {
      if (cut.side !== side) continue;
      const [first, last] = [cut.off[0]!, cut.off.at(-1)!];
      if (x < first.x || x > last.x) continue;
      sum -=
        rows(
          cut.off.map((row) => ({ at: row.x, value: row.t })),
          x,
        ) * Math.hypot(1, slope);
    }
    return sum;
  };

  /** The plane the apex lies in, as one side sees it. */
  function apexOf(side: Side, F: number): number {
    const { offset } = blade.edge;
    if (typeof offset === "number") return side === "right" ? offset : -offset;
    return offset === `${side}-face` ? F : -F;
  }
  /** Arc length at which the edge comes by x; below 0 where it does not. */
  function alongAt(x: number): number {
    for (let i = 0; i <= 2000; i++) {
      const s = (i / 2000) * edge.length;
      if (placeAt(edge, s).x >= x) return s;
    }
    return -1;
  }
  const total = (kind: "bow" | "twist") =>
    faults.reduce((sum, fault) => (fault.kind === kind ? sum + fault.by : sum), 0);

  function plunge(side: Side): number | null {
    const bevel = bevelOn(blade, side);
    if (bevel.kind === "none") return null;
    return of("plunge-back").reduce((x, fault) => (fault.side === side ? x - fault.by : x), bevel.plunge.x);
  }
  function lean(side: Side): number | null {
    const bevel = bevelOn(blade, side);
    if (bevel.kind === "none") return null;
    return of("plunge-back").reduce(
      (all, fault) => (fault.side === side ? all + fault.lean : all),
      bevel.plunge.lean,
    );
  }

  /** The bevel's face at d above the edge: height, and its slope there; null where that side has none. */
  function face(side: Side, u: number, d: number, x: number, y: number): { h: number; slope: number } | null {
    const bevel = bevelOn(blade, side);
    if (bevel.kind === "none") return null;
    const share = side === "right" ? blade.edge.rightShare : 1 - blade.edge.rightShare;
    const e = rows(behind, u) * share;
    const angle = blade.edge.angle[side];
    const dE = e > 0 ? e / Math.tan(angle * RAD) : 0;
    const F = planned(x) / 2;
    const o = apexOf(side, F);
    let b: number;
    let slope: number;
    if (bevel.pull === "straight") {
      // One plane through where the plunge meets the edge, wherever the edge goes from there.
      const at = placeAt(edge, Math.max(0, alongAt(bevel.plunge.x)));
      const rest = (bevel.restAngle ?? 0) * RAD;
      slope = Math.tan(bevel.angle * RAD);
      const eFoot = rows(behind, Math.max(0, alongAt(bevel.plunge.x)) / edge.length) * share;
      const dFoot = eFoot > 0 ? eFoot / Math.tan(angle * RAD) : 0;
      const climbed = (y - at.y) * Math.cos(rest) - (x - at.x) * Math.sin(rest);
      const turned = of("out-of-square").reduce((sum, { by }) => sum + sign(side) * by, 0);
      const tilt = of("jig-zero").reduce((sum, { by }) => sum + by, turned);
      const plane =
        o + eFoot + (climbed - dFoot) * slope + d * (Math.tan(Math.atan(slope) + tilt * RAD) - slope);
      return { h: plane + left.faces[side] * Math.hypot(1, slope) + proud(side, u, slope), slope };
    }
    // A second slope above the shoulder lifts the foot of the bevel to where it ends.
    const eased = bevel.kind === "flat" && bevel.relief && bevel.relief.height > dE ? bevel.relief : null;
    const steep = eased ? Math.tan(eased.angle * RAD) : 0;
    const [from, base] = eased ? [eased.height, o + e + (eased.height - dE) * steep] : [dE, o + e];
    if (bevel.set === "angle") {
      slope = Math.tan(bevel.angle * RAD);
      b = from + (F - base) / slope;
    } else {
      if (bevel.set === "height") {
        b = rows(
          bevel.height.map((row) => ({ at: row.u, value: row.h })),
          u,
        );
      } else {
        nearest(ring.spine, x, y, spineFoot);
        b = d + spineFoot.d;
      }
      slope = (F - base) / (b - from);
    }
    if (!(b > from)) return null;
    const held = slope;
    let turn = of("out-of-square").reduce((sum, { by }) => sum + sign(side) * by, 0);
    let about = from;
    for (const { by, held: at } of of("jig-zero")) {
      turn += by;
      if (at === "line") about = b;
    }
    if (turn !== 0) slope = Math.tan(Math.atan(slope) + turn * RAD);
    let h = base + (about - from) * held + (d - about) * slope;
    // A hollow sags below its chord, a convex face stands above it, by a circle through both ends.
    const chord = Math.hypot(b - dE, F - o - e);
    const along = ((d - dE) / (b - dE)) * chord;
    const bow = (radius: number) => {
      const reach = chord / 2 - along;
      return (
        Math.sqrt(Math.max(0, radius ** 2 - reach ** 2)) -
        Math.sqrt(Math.max(0, radius ** 2 - chord ** 2 / 4))
      );
    };
    if (bevel.kind === "hollow") {
      const wheel = of("wheel-swapped").at(-1)?.diameter ?? bevel.wheelDiameter;
      h -= bow(wheel / 2) * Math.hypot(1, slope);
    }
    if (bevel.kind === "convex")
      h += bow(chord ** 2 / (8 * bevel.bulge) + bevel.bulge / 2) * Math.hypot(1, slope);
    h += left.faces[side] * Math.hypot(1, slope) + proud(side, u, slope);
    if (!eased) return { h, slope };
    const second = o + e + (d - dE) * steep + (slope - held) * (d - about);
    const stands = second + left.faces[side] * Math.hypot(1, steep) + proud(side, u, steep);
    return stands < h ? { h: stands, slope: steep } : { h, slope };
  }

  /** The edge bevel at d above the apex: its chord's line, or the arc that stands so far outside the chord up to the shoulder. */
  function edgeFace(side: Side, u: number, d: number): number {
    const slope = Math.tan(blade.edge.angle[side] * RAD);
    const share = side === "right" ? blade.edge.rightShare : 1 - blade.edge.rightShare;
    const e = rows(behind, u) * share;
    const high = e / slope;
    const bulge = blade.edge.kind === "convex" ? (blade.edge.bulge ?? 0) : 0;
    if (bulge === 0 || d >= high || e <= 0) return d * slope;
    const chord = Math.hypot(high, e);
    const radius = chord ** 2 / (8 * bulge) + bulge / 2;
    // From the chord's middle the centre lies so far to the steel's side of it.
    const back = radius - bulge;
    const [cd, ch] = [high / 2 + (back * e) / chord, e / 2 - (back * high) / chord];
    return ch + Math.sqrt(radius ** 2 - (d - cd) ** 2);
  }

  function half(side: Side, x: number, y: number): number {
    nearest(edge, x, y, foot);
    const u = Math.max(0, Math.min(1, foot.s / edge.length));
    const d = foot.d;
    const surfaces = [flats(x) / 2];
    const line = plunge(side);
    const tilt = Math.tan((lean(side) ?? 0) * RAD);
    const bevel = face(side, u, d, x, y);
    if (bevel && line !== null && x - line - (y - placeAt(edge, foot.s).y) * tilt >= 0)
      surfaces.push(bevel.h);
    if (isSharpened && blade.edge.angle[side] > 0) {
      surfaces.push(apexOf(side, planned(x) / 2) + edgeFace(side, u, d));
    }
    return Math.min(...surfaces);
  }

  function edgeAt(u: number) {
    const { x, y, tx, ty } = placeAt(edge, u * edge.length);
    return { x, y, inward: [-ty, tx] as const };
  }

  return {
    edgeLength: edge.length,
    edgeAt,
    half,
    flats,
    line(side, u) {
      const { x, y, inward } = edgeAt(u);
      const above = (s: number) => {
        const [px, py] = [x + inward[0] * s, y + inward[1] * s];
        nearest(edge, px, py, foot);
        const bevel = face(side, foot.s / edge.length, foot.d, px, py);
        return bevel ? bevel.h - flats(px) / 2 : 1;
      };
      if (above(0.5) >= 0) return null;
      let [low, high] = [0.5, 0.5];
      while (above(high) < 0) {
        low = high;
        high += 1;
        if (high > 120) return null;
      }
      for (let i = 0; i < 40; i++) {
        const middle = (low + high) / 2;
        if (above(middle) < 0) low = middle;
        else high = middle;
      }
      return high;
    },
    height(u) {
      const { x, y, inward } = edgeAt(u);
      return exitAlong(ring, x, y, ...inward);
    },
    rises(side, u) {
      const { x, y } = edgeAt(u);
      const length = tip.x;
      const [bow, twist] = [total("bow"), total("twist") * RAD];
      // The middle plane: a parabola for the bow, a turn about the spine that grows to the tip.
      const right = bow * (1 - (2 * (x / length) - 1) ** 2) + twist * (x / length) * y;
      const up = side === "right" ? right : -right;
      // Hollow side down it stands on both its ends; crown down it is pressed until the ends lift alike.
      const crown = side === "right" ? Math.max(0, -bow) : Math.max(0, bow);
      return up + crown;
    },
    bow: total("bow"),
    twist: total("twist"),
    plunge,
    lean,
    square: of("out-of-square").reduce((sum, { by }) => sum + by, 0),
  };
}
