import type { Blade, OutlineNode } from "../src/blade/schema.ts";

type Point = [number, number];
const add = (a: Point, b: Point = [0, 0]): Point => [a[0] + b[0], a[1] + b[1]];
const less = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1]];
const middle = (a: Point, b: Point): Point => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];

/** The same shape with every segment of spine and edge split at its middle (de Casteljau). */
export function withTwiceTheNodes(blade: Blade): Blade {
  const { spine, edge, tang } = blade.outline;
  return { ...blade, outline: { spine: halved(spine), edge: halved(edge), tang } };
}

function halved(nodes: readonly OutlineNode[]): OutlineNode[] {
  const out: OutlineNode[] = [{ at: nodes[0]!.at }];
  for (let i = 1; i < nodes.length; i++) {
    const [from, to] = [nodes[i - 1]!, nodes[i]!];
    const [p0, p1, p2, p3] = [from.at, add(from.at, from.ahead), add(to.at, to.back), to.at];
    const [a, b, c] = [middle(p0, p1), middle(p1, p2), middle(p2, p3)];
    const [d, e] = [middle(a, b), middle(b, c)];
    const at = middle(d, e);
    out[out.length - 1]!.ahead = less(a, p0);
    out.push({ at, back: less(d, at), ahead: less(e, at) }, { at: p3, back: less(c, p3) });
  }
  return out;
}
