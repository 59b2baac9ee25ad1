import { bladeLength, handleLength, heelHeight, straightUntil, tipDrop } from "../blade/measure.ts";
import { compileRing, type Ring } from "../blade/outline.ts";
import type { Blade, OutlineNode } from "../blade/schema.ts";
import { tidy } from "../units/tidy.ts";

/**
 * Driving dimensions: one of the blade's chief measures set, the rest kept. Each changes a copy of a sound blade in
 * place; whether what comes out is sound is for the parser to say. Lengths mm.
 */
export interface Driver {
  readonly key: string;
  readonly name: string;
  /** As it is now; null where this blade has no such thing. */
  measure(ring: Ring, blade: Blade): number | null;
  set(copy: Blade, value: number): void;
}

/** Nodes with their handles mapped along x or y by a straight rule, `scale` being what it does to a small step. */
function mapped(
  nodes: OutlineNode[],
  axis: 0 | 1,
  rule: (value: number) => { value: number; scale: number },
): void {
  for (const node of nodes) {
    const { value, scale } = rule(node.at[axis]);
    node.at = withAxis(node.at, axis, tidy(value));
    for (const key of ["back", "ahead"] as const) {
      const offset = node[key];
      if (offset) node[key] = withAxis(offset, axis, tidy(offset[axis] * scale));
    }
  }
}

function withAxis(point: readonly [number, number], axis: 0 | 1, value: number): [number, number] {
  return axis === 0 ? [value, point[1]] : [point[0], value];
}

/** Everything ahead of the heel is drawn out or pushed together: outline, taper, false edge. */
function setLength(copy: Blade, wanted: number): void {
  const { spine, edge, tang } = copy.outline;
  const heel = Math.max(edge[0]!.at[0], 0);
  const now = spine[spine.length - 1]!.at[0];
  const k = (wanted - heel) / (now - heel);
  const rule = (x: number) =>
    x > heel ? { value: heel + (x - heel) * k, scale: k } : { value: x, scale: x === heel ? k : 1 };
  mapped(spine, 0, rule);
  mapped(edge, 0, rule);
  // Blades whose tang reaches ahead of the heel keep it where it meets the edge.
  tang[0]!.at = [...edge[0]!.at];
  for (const row of copy.thickness) row.x = tidy(rule(row.x).value);
  if (copy.secondEdge) {
    copy.secondEdge.from = tidy(rule(copy.secondEdge.from).value);
    if (copy.secondEdge.to !== undefined) copy.secondEdge.to = tidy(rule(copy.secondEdge.to).value);
  }
  if (copy.falseEdge) {
    copy.falseEdge.from = tidy(rule(copy.falseEdge.from).value);
    copy.falseEdge.to = tidy(rule(copy.falseEdge.to).value);
  }
}

/** The edge is let down or drawn up about the tip, which stays unless it lies on the level of the heel. */
function setHeight(copy: Blade, wanted: number): void {
  const { edge, tang } = copy.outline;
  const tip = edge[edge.length - 1]!.at[1];
  if (Math.abs(edge[0]!.at[1] - tip) < 1e-6) {
    const down = -wanted - tip;
    setDrop(copy, wanted);
    for (const node of edge.slice(0, -1)) node.at = [node.at[0], tidy(node.at[1] + down)];
    tang[0]!.at = [...edge[0]!.at];
    return;
  }
  const k = (-wanted - tip) / (edge[0]!.at[1] - tip);
  mapped(edge, 1, (y) => ({ value: tip + (y - tip) * k, scale: k }));
  tang[0]!.at = [...edge[0]!.at];
}

/** The tip alone goes up or down; the curves that end in it follow. */
function setDrop(copy: Blade, wanted: number): void {
  const { spine, edge } = copy.outline;
  for (const chain of [spine, edge]) {
    const last = chain[chain.length - 1]!;
    const before = chain[chain.length - 2]!.at[1];
    const was = last.at[1] - before;
    const is = -wanted - before;
    last.at = [last.at[0], tidy(-wanted)];
    if (last.back && Math.abs(was) > 1e-6) last.back = [last.back[0], tidy((last.back[1] * is) / was)];
  }
}

/** The node at which the edge leaves its straight, and that curve with it. */
function setBelly(copy: Blade, wanted: number): void {
  const { edge } = copy.outline;
  const index = bellyNode(copy, straightUntil(compileRing(structuredClone(copy.outline)).edge).x);
  if (index === null) return;
  const node = edge[index]!;
  const tip = edge[edge.length - 1]!.at[0];
  const k = (tip - wanted) / (tip - node.at[0]);
  node.at = [tidy(wanted), node.at[1]];
  if (node.ahead) node.ahead = [tidy(node.ahead[0] * k), node.ahead[1]];
  const next = edge[index + 1];
  if (next?.back) next.back = [tidy(next.back[0] * k), next.back[1]];
}

/** The node at which the edge leaves its straight, at x; null where that is none of its inner nodes. */
function bellyNode({ outline }: Blade, x: number): number | null {
  const index = outline.edge.findIndex((node, i) => i > 0 && Math.abs(node.at[0] - x) < 0.01);
  return index > 0 && index < outline.edge.length - 1 ? index : null;
}

/** Everything behind the junction is drawn out or pushed together: tang, its taper, its holes. */
function setHandle(copy: Blade, wanted: number): void {
  const { tang } = copy.outline;
  const now = handleLength(compileRing(structuredClone(copy.outline)));
  const k = wanted / now;
  const rule = (x: number) => (x < 0 ? { value: x * k, scale: k } : { value: x, scale: 1 });
  mapped(tang, 0, rule);
  for (const row of copy.thickness) row.x = tidy(rule(row.x).value);
  for (const hole of copy.holes ?? []) hole.x = tidy(rule(hole.x).value);
}

export const DRIVERS: readonly Driver[] = [
  { key: "length", name: "Blade, junction to tip", measure: bladeLength, set: setLength },
  { key: "height", name: "Height at the heel", measure: heelHeight, set: setHeight },
  { key: "drop", name: "Tip below the datum", measure: tipDrop, set: setDrop },
  {
    key: "belly",
    name: "Belly begins",
    measure: (ring, blade) => {
      const { x } = straightUntil(ring.edge);
      return bellyNode(blade, x) === null ? null : x;
    },
    set: setBelly,
  },
  { key: "handle", name: "Handle", measure: handleLength, set: setHandle },
];

/** A driver by its key. Throws RangeError for a key that is none. */
export function driverOf(key: string): Driver {
  const found = DRIVERS.find((driver) => driver.key === key);
  if (!found) throw new RangeError(`no dimension is called “${key}”`);
  return found;
}
