import { type Chain, inSegmentAt } from "./chain.ts";
import type { OutlineNode } from "./schema.ts";

type Point = readonly [number, number];

const mix = (a: Point, b: Point, t: number): Point => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
const less = (a: Point, b: Point): [number, number] => [a[0] - b[0], a[1] - b[1]];

/**
 * The nodes of a chain between two of its places, by arc length, mm: the curve itself, cut at both. Source: de Casteljau's
 * construction, by the curve's polar form.
 */
export function stretchOf(
  nodes: readonly OutlineNode[],
  chain: Chain,
  from: number,
  to: number,
): OutlineNode[] {
  const [first, last] = [inSegmentAt(chain, from), inSegmentAt(chain, to)];
  const out: OutlineNode[] = [];
  for (let k = first.segment; k <= last.segment; k++) {
    const [a, d] = [nodes[k]!, nodes[k + 1]!];
    const [t0, t1] = [k === first.segment ? first.t : 0, k === last.segment ? last.t : 1];
    if (t1 - t0 < 1e-9) continue;
    if (!a.ahead && !d.back) {
      append(out, { at: point(mix(a.at, d.at, t0)) }, { at: point(mix(a.at, d.at, t1)) });
      continue;
    }
    const control: Point[] = [
      a.at,
      [a.at[0] + (a.ahead?.[0] ?? 0), a.at[1] + (a.ahead?.[1] ?? 0)],
      [d.at[0] + (d.back?.[0] ?? 0), d.at[1] + (d.back?.[1] ?? 0)],
      d.at,
    ];
    const polar = (...ts: [number, number, number]): Point => {
      let row = control;
      for (const t of ts) row = row.slice(1).map((one, i) => mix(row[i]!, one, t));
      return row[0]!;
    };
    const [p0, p1, p2, p3] = [
      polar(t0, t0, t0),
      polar(t0, t0, t1),
      polar(t0, t1, t1),
      polar(t1, t1, t1),
    ] as const;
    append(out, { at: point(p0), ahead: less(p1, p0) }, { at: point(p3), back: less(p2, p3) });
  }
  return out;
}

const point = ([x, y]: Point): [number, number] => [x, y];

function append(out: OutlineNode[], from: OutlineNode, to: OutlineNode): void {
  const last = out.at(-1);
  if (last) {
    if (from.ahead) last.ahead = from.ahead;
  } else out.push(from);
  out.push(to);
}
