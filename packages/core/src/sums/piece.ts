import type { Field } from "../blade/field.ts";
import { parseBlade } from "../blade/parse.ts";
import type { Blade } from "../blade/schema.ts";
import { type Station, stationAtX } from "../blade/station.ts";

/** The piece a question is asked of: a straight length of blade with its edge along the bottom, read half way along it. Lengths mm. */
export const PIECE = { length: 100, middle: 50 } as const;

/** How much stands above the bevel at least, mm, and as a share of it. */
const ABOVE = { least: 3, share: 0.12 } as const;
/** An edge is sharpened at this where nothing is said of it, or so much steeper than its bevel, degrees a side. */
const USUAL_EDGE = 20;
const STEEPER = 5;
const STEEPEST = 60;

export interface PieceOrder {
  /** Over the flats: everywhere, or from one end to the other. */
  readonly thickness: number | readonly [number, number];
  readonly behind: number;
  /** Degrees a side of the edge bevel; absent: what an edge usually has. */
  readonly edgeAngle?: number;
  readonly bevel:
    | { readonly kind: "angle"; readonly angle: number; readonly left?: number }
    | { readonly kind: "height"; readonly height: number }
    | { readonly kind: "hollow"; readonly wheel: number; readonly height: number }
    | { readonly kind: "convex"; readonly bulge: number; readonly height: number };
  /** How far the apex lies to the right of the centre. */
  readonly offCentre?: number;
  /** How tall the piece is at the least. */
  readonly tall: number;
}

export interface Piece {
  readonly blade: Blade;
  readonly field: Field;
  readonly station: Station;
}

export type Made = ({ readonly ok: true } & Piece) | { readonly ok: false; readonly because: string };

/** Makes the piece, or says why it cannot be, in words. */
export function makePiece(order: PieceOrder): Made {
  const blade = drawn(order);
  const parsed = parseBlade(blade);
  if (!parsed.ok) return { ok: false, because: parsed.faults[0]!.message };
  const station = stationAtX(parsed.field, PIECE.middle);
  return station
    ? { ok: true, blade: parsed.blade, field: parsed.field, station }
    : { ok: false, because: "there is no edge there" };
}

/** The angle of an edge bevel where none is said: what is usual, or steeper than the bevel above it. */
export function usualEdge(bevelAngle: number): number {
  return Math.min(STEEPEST, Math.max(USUAL_EDGE, Math.ceil(bevelAngle + STEEPER)));
}

function drawn({ thickness, behind, edgeAngle, bevel, offCentre = 0, tall }: PieceOrder): Blade {
  const high = tall + Math.max(ABOVE.least, ABOVE.share * tall);
  const plunge = { x: 0, lean: 0, radius: 0 };
  const follow = { pull: "follow", plunge } as const;
  const steep = bevel.kind === "angle" ? Math.max(bevel.angle, bevel.left ?? 0) : 0;
  const edge = edgeAngle ?? usualEdge(steep);
  const flat = (angle: number) => ({ kind: "flat", ...follow, set: "angle", angle }) as const;
  const rows = (height: number) => ({ set: "height" as const, height: [{ u: 0, h: height }] });
  const right =
    bevel.kind === "angle"
      ? flat(bevel.angle)
      : bevel.kind === "hollow"
        ? ({ kind: "hollow", wheelDiameter: bevel.wheel, ...follow, ...rows(bevel.height) } as const)
        : bevel.kind === "convex"
          ? ({ kind: "convex", bulge: bevel.bulge, ...follow, ...rows(bevel.height) } as const)
          : ({ kind: "flat", ...follow, ...rows(bevel.height) } as const);
  const left = bevel.kind === "angle" && bevel.left !== undefined ? flat(bevel.left) : "same";
  const ends = typeof thickness === "number" ? [thickness, thickness] : thickness;
  return {
    format: "true-spine/blade",
    version: 1,
    name: "A sum",
    outline: {
      spine: [{ at: [0, 0] }, { at: [PIECE.length, 0] }, { at: [PIECE.length, -high] }],
      edge: [{ at: [0, -high] }, { at: [PIECE.length, -high] }],
      tang: [{ at: [0, -high] }, { at: [0, 0] }],
    },
    thickness: [
      { x: 0, t: ends[0]! },
      { x: PIECE.length, t: ends[1]! },
    ],
    edge: {
      behind: [{ u: 0, t: behind }],
      angle: { left: edge, right: edge },
      rightShare: 0.5,
      offset: offCentre,
    },
    bevels: { right, left },
  };
}
