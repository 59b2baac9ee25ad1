import type { Outline, OutlineNode } from "../blade/schema.ts";

/** Editing an outline node by node. Each changes the given outline in place; what meets another chain stays met. */
export type ChainName = keyof Outline;
type Point = [number, number];

const plus = (a: readonly number[], b: readonly number[] = [0, 0]): Point => [a[0]! + b[0]!, a[1]! + b[1]!];
const minus = (a: readonly number[], b: readonly number[]): Point => [a[0]! - b[0]!, a[1]! - b[1]!];
const times = (a: readonly number[], k: number): Point => [a[0]! * k, a[1]! * k];
const mix = (a: readonly number[], b: readonly number[], t: number): Point => plus(a, times(minus(b, a), t));
const size = (a: readonly number[]) => Math.hypot(a[0]!, a[1]!);
const tidy = (a: readonly number[]): Point => [Math.round(a[0]! * 1e4) / 1e4, Math.round(a[1]! * 1e4) / 1e4];

/** Whether a node may be taken out: an end meets another chain, and a chain needs two. */
export function canRemove(nodes: readonly OutlineNode[], index: number): boolean {
  return index > 0 && index < nodes.length - 1;
}

/** Puts a node half-way along the stretch after `index`; the curve stays as it is. Source: de Casteljau's construction. */
export function addAfter(nodes: OutlineNode[], index: number, t = 0.5): void {
  const [from, to] = [nodes[index]!, nodes[index + 1]!];
  if (!from.ahead && !to.back) {
    nodes.splice(index + 1, 0, { at: tidy(mix(from.at, to.at, t)) });
    return;
  }
  const [p1, p2] = [plus(from.at, from.ahead), plus(to.at, to.back)];
  const [a, b, c] = [mix(from.at, p1, t), mix(p1, p2, t), mix(p2, to.at, t)];
  const [d, e] = [mix(a, b, t), mix(b, c, t)];
  const at = mix(d, e, t);
  from.ahead = tidy(minus(a, from.at));
  to.back = tidy(minus(c, to.at));
  nodes.splice(index + 1, 0, { at: tidy(at), back: tidy(minus(d, at)), ahead: tidy(minus(e, at)) });
}

/** Takes a node out; the curves beside it reach across. */
export function remove(nodes: OutlineNode[], index: number): void {
  if (!canRemove(nodes, index)) return;
  const [before, node, after] = [nodes[index - 1]!, nodes[index]!, nodes[index + 1]!];
  const [one, two] = [size(minus(node.at, before.at)), size(minus(after.at, node.at))];
  if (before.ahead) before.ahead = tidy(times(before.ahead, (one + two) / (one || 1)));
  if (after.back) after.back = tidy(times(after.back, (one + two) / (two || 1)));
  nodes.splice(index, 1);
}

/** Whether the outline runs through a node without a corner: its handles lie on one line. */
export function isSmooth({ back, ahead }: OutlineNode): boolean {
  if (!back || !ahead || size(back) === 0 || size(ahead) === 0) return false;
  const cross = Math.abs(back[0] * ahead[1] - back[1] * ahead[0]);
  return cross < 0.02 * size(back) * size(ahead) && back[0] * ahead[0] + back[1] * ahead[1] < 0;
}

/** Runs the outline through a node without a corner; `isEven` makes both handles as long. */
export function smooth(nodes: OutlineNode[], index: number, isEven = false): void {
  if (!canRemove(nodes, index)) return;
  const [before, node, after] = [nodes[index - 1]!, nodes[index]!, nodes[index + 1]!];
  const back = node.back && size(node.back) > 0 ? node.back : times(minus(before.at, node.at), 1 / 3);
  const ahead = node.ahead && size(node.ahead) > 0 ? node.ahead : times(minus(after.at, node.at), 1 / 3);
  // On its neighbour it has no direction to run through.
  if (size(back) === 0 || size(ahead) === 0) return;
  const along = minus(times(ahead, 1 / size(ahead)), times(back, 1 / size(back)));
  const unit = size(along) > 1e-9 ? times(along, 1 / size(along)) : times(ahead, 1 / size(ahead));
  const mean = (size(back) + size(ahead)) / 2;
  node.back = tidy(times(unit, -(isEven ? mean : size(back))));
  node.ahead = tidy(times(unit, isEven ? mean : size(ahead)));
}

/** Takes a node's handles away: a corner between what comes and what goes. */
export function corner(nodes: OutlineNode[], index: number): void {
  delete nodes[index]!.back;
  delete nodes[index]!.ahead;
}

/** Makes the stretch after a node a straight line. */
export function straighten(nodes: OutlineNode[], index: number): void {
  delete nodes[index]!.ahead;
  delete nodes[index + 1]!.back;
}

/** Moves one handle of a node; where the node was smooth the other turns with it and keeps its length. */
export function moveHandle(node: OutlineNode, key: "back" | "ahead", to: readonly [number, number]): void {
  const other = key === "back" ? "ahead" : "back";
  const wasSmooth = isSmooth(node);
  node[key] = tidy(to);
  const opposite = node[other];
  if (wasSmooth && opposite && size(to) > 1e-6) node[other] = tidy(times(to, -size(opposite) / size(to)));
}
