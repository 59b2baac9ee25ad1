import { type Fault, pathOf } from "../document/fault.ts";
import type { Chain } from "./chain.ts";
import type { Ring } from "./outline.ts";

interface Piece {
  readonly name: "spine" | "edge" | "tang";
  readonly node: number;
  readonly order: number;
  readonly ax: number;
  readonly ay: number;
  readonly bx: number;
  readonly by: number;
  readonly left: number;
  readonly right: number;
}

const known = new WeakMap<Ring, readonly Fault[]>();

/** Where the outline crosses or lies on itself: one fault for each pair of segments, at most a few. */
export function crossings(ring: Ring): readonly Fault[] {
  let faults = known.get(ring);
  if (!faults) {
    faults = crossingsOf(ring);
    known.set(ring, faults);
  }
  return faults;
}

function crossingsOf(ring: Ring): Fault[] {
  const pieces = inOrder(ring);
  const byLeft = [...pieces].sort((a, b) => a.left - b.left);
  const faults = new Map<string, Fault>();
  for (let i = 0; i < byLeft.length && faults.size < 5; i++) {
    const a = byLeft[i]!;
    for (let j = i + 1; j < byLeft.length; j++) {
      const b = byLeft[j]!;
      if (b.left > a.right) break;
      if (Math.max(a.ay, a.by) < Math.min(b.ay, b.by) || Math.max(b.ay, b.by) < Math.min(a.ay, a.by))
        continue;
      const apart = Math.abs(a.order - b.order);
      const neighbours = apart === 1 || apart === pieces.length - 1;
      const met = neighbours ? foldsBack(a, b) : meet(a, b);
      if (!met) continue;
      const [first, second] = a.order < b.order ? [a, b] : [b, a];
      const path = pathOf("outline", first.name, first.node);
      const other = pathOf("outline", second.name, second.node);
      const place = `(${met[0].toFixed(2)}, ${met[1].toFixed(2)})`;
      faults.set(path + other, {
        path,
        message: `the outline crosses itself here and at ${other}, near ${place}`,
      });
    }
  }
  return [...faults.values()];
}

/** Every interval once round: spine out, edge back from the tip, tang from the heel to the junction. */
function inOrder(ring: Ring): Piece[] {
  const spine = piecesOf(ring.spine, "spine");
  const edge = piecesOf(ring.edge, "edge").reverse();
  const tang = piecesOf(ring.tang, "tang");
  return [...spine, ...edge, ...tang].map((piece, order) => ({ ...piece, order }));
}

function piecesOf(chain: Chain, name: Piece["name"]): Piece[] {
  return Array.from({ length: chain.count }, (_, i) => {
    const [ax, ay, bx, by] = [chain.x0[i]!, chain.y0[i]!, chain.x1[i]!, chain.y1[i]!];
    const node = chain.segment[i]!;
    return { name, node, order: 0, ax, ay, bx, by, left: Math.min(ax, bx), right: Math.max(ax, bx) };
  });
}

function meet(a: Piece, b: Piece): [number, number] | null {
  const ux = a.bx - a.ax;
  const uy = a.by - a.ay;
  const vx = b.bx - b.ax;
  const vy = b.by - b.ay;
  const wx = b.ax - a.ax;
  const wy = b.ay - a.ay;
  const area = ux * vy - uy * vx;
  if (Math.abs(area) < 1e-12) return lieTogether(ux, uy, wx, wy, vx, vy) ? [b.ax, b.ay] : null;
  const s = (wx * vy - wy * vx) / area;
  const t = (wx * uy - wy * ux) / area;
  return s >= 0 && s <= 1 && t >= 0 && t <= 1 ? [a.ax + s * ux, a.ay + s * uy] : null;
}

function lieTogether(ux: number, uy: number, wx: number, wy: number, vx: number, vy: number): boolean {
  const size = Math.hypot(ux, uy);
  if (size === 0 || Math.abs(wx * uy - wy * ux) / size > 1e-9) return false;
  const from = (wx * ux + wy * uy) / size;
  const to = ((wx + vx) * ux + (wy + vy) * uy) / size;
  return Math.min(from, to) <= size && Math.max(from, to) >= 0;
}

/** Neighbours share an end, so they only cross when one runs back over the other. */
function foldsBack(a: Piece, b: Piece): [number, number] | null {
  const ux = a.bx - a.ax;
  const uy = a.by - a.ay;
  const vx = b.bx - b.ax;
  const vy = b.by - b.ay;
  const size = Math.hypot(ux, uy) * Math.hypot(vx, vy);
  if (size === 0 || Math.abs(ux * vy - uy * vx) > 1e-9 * size) return null;
  // The tang and the edge both leave the heel, so their pieces are compared from the end they share.
  const sharesStart = (a.ax === b.ax && a.ay === b.ay) || (a.bx === b.bx && a.by === b.by);
  const sameWay = ux * vx + uy * vy > 0;
  return sharesStart === sameWay ? [a.bx, a.by] : null;
}
