import type { Field } from "@true-spine/core/blade/field.ts";
import { drawnLines } from "@true-spine/core/blade/lines.ts";
import { spansAt } from "@true-spine/core/blade/outline.ts";
import { type Blade, SIDES, type Side } from "@true-spine/core/blade/schema.ts";
import { tan } from "@true-spine/core/units/angle.ts";
import type { Point } from "./drawing.ts";
import type { Gauge } from "./gauge.ts";

/** How far a guide reaches past the edge, and behind the plunge it guides, mm. */
const PAST_EDGE = 6;
const BEHIND = 28;
const NOTCH = 2;
const STEP = 0.5;

/**
 * A plunge guide for each side that has its own: its front is the plunge line, its upper edge lies along the spine, a
 * notch in it stands at the junction. Turned over, one guide serves both sides where they are alike.
 */
export function plungeGuides(field: Field): Gauge[] {
  const { plunge } = drawnLines(field);
  return SIDES.flatMap((side) => {
    if (side === "left" && field.blade.bevels.left === "same") return [];
    const cut = field.plunges[side];
    const line = plunge[side];
    if (!cut || !line || line.length < 2) return [];
    const top = line[line.length - 1]!;
    const lean = Math.tan((leanOf(field.blade, side) * Math.PI) / 180);
    // Behind the junction the datum carries the spine's line on, whatever the tang does.
    const spineAt = (x: number) => (x < 0 ? 0 : (spansAt(field.ring, x)[0]?.[1] ?? 0));
    // The plunge line carried on to the spine above, and past the edge below.
    const upper = spineAt(top[0]);
    const front: Point = [cut.x + (upper - cut.y) * lean, upper];
    const lower: Point = [cut.x - PAST_EDGE * lean, cut.y - PAST_EDGE];
    const back = Math.min(front[0], lower[0], 0) - BEHIND;
    const along: Point[] = [];
    for (let x = front[0] - STEP; x > NOTCH; x -= STEP) along.push([x, spineAt(x)]);
    const notch: Point[] = [
      [NOTCH, spineAt(NOTCH)],
      [0, spineAt(0) - NOTCH],
      [-NOTCH, 0],
    ];
    const upperEdge = front[0] > NOTCH ? [...along, ...notch] : [];
    const isAlike = field.blade.bevels.left === "same";
    return [
      {
        outline: [lower, front, ...upperEdge, [back, 0], [back, lower[1]]],
        marks: [
          field.blade.name,
          isAlike ? "plunge, both sides" : `plunge, ${side}`,
          `foot at ${cut.x.toFixed(1)}`,
          "notch at junction",
        ],
      },
    ];
  });
}

function leanOf({ bevels }: Blade, side: Side): number {
  const bevel = bevels[side];
  return bevel === "same" || bevel.kind === "none" ? 0 : bevel.plunge.lean;
}

const BLOCK = { long: 70, base: 14 } as const;

/** Blocks that stand a jig or a rest at the bevel's angle: one for each side's own, where a single angle exists. */
export function angleBlocks(field: Field): Gauge[] {
  const { stations, clear } = drawnLines(field);
  return SIDES.flatMap((side) => {
    if (side === "left" && field.alike) return [];
    const angles = stations.flatMap((station, i) => (clear[i] ? (station[side].primaryAngle ?? []) : []));
    if (angles.length === 0) return [];
    const [least, most] = [Math.min(...angles), Math.max(...angles)];
    const named = field.alike ? "a side" : side;
    if (most - least < SAME_ANGLE) return [angleBlock(field.blade.name, (least + most) / 2, named)];
    const pick = (share: number) => angles[Math.round(share * (angles.length - 1))]!;
    return [
      angleBlock(field.blade.name, pick(0), `${named}, heel`),
      angleBlock(field.blade.name, pick(0.5), `${named}, middle`),
      angleBlock(field.blade.name, pick(1), `${named}, tip`),
    ];
  });
}

/** Angles that no jig tells apart, degrees. Source: common practice, a jig is set to about a tenth. */
const SAME_ANGLE = 0.1;

/** A block whose upper face climbs by an angle over its base. */
export function angleBlock(name: string, angle: number, where: string): Gauge {
  const { long, base } = BLOCK;
  return {
    outline: [
      [0, 0],
      [0, -base],
      [long, -base],
      [long, long * tan(angle)],
    ],
    marks: [name, `bevel ${where}`, `${angle.toFixed(2)} deg`],
  };
}

/** A ledge that carries a scriber at (T − g)/2 over the plate, for two centre lines g apart on the thickest steel. */
export function scribeBlock(blade: Blade, gap: number): Gauge {
  const thickest = Math.max(...blade.thickness.map((row) => row.t));
  const height = Math.max(0.2, (thickest - gap) / 2);
  return {
    outline: [
      [0, 0],
      [0, 16],
      [26, 16],
      [26, height],
      [44, height],
      [44, 0],
    ],
    marks: [blade.name, `scribe at ${height.toFixed(2)}`, `gap ${gap.toFixed(2)} on ${thickest.toFixed(2)}`],
  };
}
