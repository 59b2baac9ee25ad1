import type { Cut } from "../blade/cut.ts";
import type { Field } from "../blade/field.ts";
import { massOf, solidBetween } from "../blade/mass.ts";
import { integrate } from "../blade/quadrature.ts";
import { type Station, stationAt, thicknessAbove, thicknessAlong } from "../blade/station.ts";
import { densityOf } from "../steel/steels.ts";
import { edgeStrength } from "./strength.ts";

/** Heights above the edge at which two blades are held against each other, mm. */
const HEIGHTS = [1, 2, 5, 10] as const;
/** The wedge that does the parting: section within this height of the edge, mm. */
const WEDGE = 10;
const WEDGE_POINTS = 4;

/** Ratios of the first blade to the second: above 1, the first has more of it. Null where either has none. */
export interface Comparison {
  /** Thickness at the same height above the edge. */
  readonly thickness: Readonly<Record<string, number | null>>;
  /** Thickness behind the edge as it would read at the other's edge-bevel height: "as thick as". */
  readonly asThickAs: number | null;
  readonly wedge: number | null;
  readonly mass: number;
  /** Balance point of the steel, mm from the junction, first less second. */
  readonly balance: number;
  readonly apexStrength: number | null;
  readonly bodyStrength: number | null;
}

/** Compares two blades at the same share of their edges, 0…1, the middle by default. */
export function compare(one: Field, other: Field, u = 0.5): Comparison {
  const [a, b] = [stationAt(one, u), stationAt(other, u)];
  const [solidA, solidB] = [solidBetween(one), solidBetween(other)];
  const [strengthA, strengthB] = [edgeStrength(one, a), edgeStrength(other, b)];
  return {
    thickness: Object.fromEntries(
      HEIGHTS.map((height) => [
        String(height),
        ratio(thicknessAbove(one, a, height), thicknessAbove(other, b, height)),
      ]),
    ),
    asThickAs: asThickAs(one, a, b),
    wedge: ratio(wedgeArea(one, a), wedgeArea(other, b)),
    mass:
      massOf(solidA.volume, densityOf(one.blade.steel)) / massOf(solidB.volume, densityOf(other.blade.steel)),
    balance: solidA.centre[0] - solidB.centre[0],
    apexStrength: ratio(strengthA.apex?.load ?? null, strengthB.apex?.load ?? null),
    bodyStrength: ratio(strengthA.body?.load ?? null, strengthB.body?.load ?? null),
  };
}

function ratio(a: number | null, b: number | null): number | null {
  return a === null || b === null || b === 0 ? null : a / b;
}

/**
 * The first blade's thickness at the height where the second's edge bevel ends, mm: what a maker used to the
 * second would call its thickness behind the edge. Null where the second has no edge bevel, or is taller.
 */
export function asThickAs(one: Field, here: Station, there: Station): number | null {
  const height = there.right.edgeBevel ?? there.left.edgeBevel;
  return height === null ? null : thicknessAbove(one, here, height);
}

const wedges = new WeakMap<Station, number | null>();

/** Area of the section square to the edge within `WEDGE` mm of it, mm²; null where the blade is not that tall. */
export function wedgeArea(field: Field, station: Station): number | null {
  let area = wedges.get(station);
  if (area === undefined) {
    area = station.height < WEDGE ? null : areaUpTo(field, station.cut, WEDGE);
    wedges.set(station, area);
  }
  return area;
}

/** Between one change of surface and the next thickness is smooth: a few places of a rule are enough. */
function areaUpTo(field: Field, cut: Cut, top: number): number {
  let area = 0;
  for (let i = 0; i + 1 < cut.breaks.length && cut.breaks[i]! < top; i++) {
    const to = Math.min(top, cut.breaks[i + 1]!);
    area += integrate((s) => thicknessAlong(field, cut, s), cut.breaks[i]!, to, WEDGE_POINTS);
  }
  return area;
}
