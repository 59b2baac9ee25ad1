import { spansAt } from "../blade/outline.ts";
import { SIDES } from "../blade/schema.ts";
import type { Station } from "../blade/station.ts";
import { tan } from "../units/angle.ts";
import type { WhichEdge } from "./schema.ts";
import type { Steel } from "./steel.ts";

/** What a stage's belts work on. */
export type Surface = "bevels" | "flats" | "edge";

/** Areas of a finished blade's surfaces, both sides together, mm²: along each of its edges, and of its flats. */
export interface Areas {
  readonly flats: number;
  readonly first: AlongOne;
  readonly second: AlongOne;
}

interface AlongOne {
  readonly bevels: number;
  readonly edge: number;
}

export function areasOf(finished: Steel): Areas {
  const first = areasAlong(finished);
  const second = finished.onSecond ? areasAlong(finished.onSecond) : { bevels: 0, edge: 0 };
  return { first, second, flats: flatArea(finished, first.bevels + second.bevels) };
}

/** The area a stage works on: along one edge, or along both. */
export function areaOn({ flats, first, second }: Areas, on: Surface, which?: WhichEdge): number {
  if (on === "flats") return flats;
  return (which === "second" ? 0 : first[on]) + (which === "first" ? 0 : second[on]);
}

function areasAlong(finished: Steel): AlongOne {
  const { angle } = finished.blade.edge;
  return {
    bevels: alongEdge(finished, faceWidth),
    edge: alongEdge(finished, (station) =>
      sum((side) => (station[side].edgeBevel ?? 0) * Math.hypot(1, tan(angle[side]))),
    ),
  };
}

const sum = (of: (side: (typeof SIDES)[number]) => number) => SIDES.reduce((all, side) => all + of(side), 0);

/** A width summed along the edge. */
function alongEdge({ drawn: { stations }, field }: Steel, width: (station: Station) => number): number {
  let area = 0;
  for (const [i, station] of stations.entries()) {
    const next = stations[i + 1];
    if (!next) break;
    area += ((next.u - station.u) * field.edge.length * (width(station) + width(next))) / 2;
  }
  return area;
}

function faceWidth(station: Station): number {
  return sum((side) => {
    const { grindLine, edgeBevel, primaryAngle } = station[side];
    if (grindLine === null || primaryAngle === null) return 0;
    return Math.max(0, grindLine - (edgeBevel ?? 0)) * Math.hypot(1, tan(primaryAngle));
  });
}

const STRETCHES = 120;

/** Both flats together: the outline's area less what the bevels take, and never below a tenth of it. */
function flatArea({ field: { ring } }: Steel, bevels: number): number {
  const step = (ring.right - ring.left) / STRETCHES;
  let outline = 0;
  for (let i = 0; i < STRETCHES; i++) {
    const spans = spansAt(ring, ring.left + (i + 0.5) * step);
    outline += step * spans.reduce((all, [low, high]) => all + high - low, 0);
  }
  return Math.max(0.2 * outline, 2 * outline - bevels);
}
