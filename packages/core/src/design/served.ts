import { arcRadius } from "../blade/face.ts";
import { compileField } from "../blade/field.ts";
import { parseBlade } from "../blade/parse.ts";
import { type Blade, bevelOn, type OutlineNode } from "../blade/schema.ts";
import { stationAt } from "../blade/station.ts";
import { wornAt } from "../edge/life.ts";

/** A row for so many places of the edge. */
const ROWS = 12;

/**
 * A blade as it stands once its edge has gone up into it by so much all along, sharpened at its own angle: its edge drawn higher, what is behind it
 * as its bevel makes it there, its lines where they are. mm. Null where that makes no sound blade. A convex bevel keeps its own circle; an edge
 * bevel is taken as flat.
 */
export function servedBlade(blade: Blade, lost: number): Blade | null {
  if (!(lost > 0)) return blade;
  const field = compileField(blade);
  const us = Array.from({ length: ROWS + 1 }, (_, i) => i / ROWS);
  const copy = structuredClone(blade);
  const { edge, tang } = copy.outline;
  const moved = edge.map((node, i): OutlineNode => {
    const { inward } = stationAt(field, i === 0 ? 0 : nearestShare(blade, node));
    // The tip stays on the spine: it slides back along it.
    if (i === edge.length - 1) return node;
    return { ...node, at: [node.at[0] + inward[0] * lost, node.at[1] + inward[1] * lost] };
  });
  copy.outline.edge = moved;
  // The ricasso ends at the heel.
  tang[0] = { ...tang[0]!, at: [...moved[0]!.at] };
  copy.edge.behind = us.flatMap((u) => {
    const { behind } = wornAt(field, u, lost);
    return behind === null ? [] : [{ u, t: Math.max(0, behind) }];
  });
  if (copy.edge.behind.length === 0) return null;
  for (const side of ["right", "left"] as const) {
    const bevel = copy.bevels[side];
    if (bevel === "same" || bevel.kind === "none") continue;
    if (bevel.set === "height") {
      bevel.height = bevel.height.map(({ u, h }) => ({ u, h: Math.max(0.1, h - lost) }));
      if (bevel.kind === "convex") bevel.bulge = bulgeAfter(blade, bevel.bulge, lost);
    }
    if (bevel.kind === "flat" && bevel.pull === "follow" && bevel.relief)
      bevel.relief = { ...bevel.relief, height: Math.max(0.05, bevel.relief.height - lost) };
  }
  const parsed = parseBlade(copy);
  return parsed.ok ? parsed.blade : null;
}

/** The same circle over the shorter chord that is left. */
function bulgeAfter(blade: Blade, bulge: number, lost: number): number {
  const field = compileField(blade);
  const station = stationAt(field, 0.5);
  const side = bevelOn(blade, "right").kind === "none" ? station.left : station.right;
  const chord = (side.grindLine ?? 0) - (side.edgeBevel ?? 0);
  if (chord <= lost) return bulge;
  const R = arcRadius(chord, bulge);
  return R - Math.sqrt(Math.max(0, R ** 2 - ((chord - lost) / 2) ** 2));
}

/** Where on the edge a node of it lies, by the nearest of many places. */
function nearestShare(blade: Blade, { at }: OutlineNode): number {
  const field = compileField(blade);
  field.sampleAt(at[0], at[1]);
  return field.foot.u;
}
