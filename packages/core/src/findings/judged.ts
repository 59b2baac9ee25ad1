import type { Field } from "../blade/field.ts";
import { isPastPlunge } from "../blade/measure.ts";
import { type Blade, SIDES, type Side } from "../blade/schema.ts";
import type { Station } from "../blade/station.ts";
import type { Handle } from "../handle/schema.ts";
import { type LengthUnit, showLength, showLengthWithUnit } from "../units/length.ts";
import type { Finding } from "./finding.ts";
import type { Limit } from "./limits.ts";
import type { Purpose } from "./purposes.ts";

/** What every rule looks at. Computed once for all of them. */
export interface Judged {
  readonly blade: Blade;
  readonly field: Field;
  readonly stations: readonly Station[];
  /** What it is for, with the limits changed for this one blade put in. */
  readonly purpose: Purpose | undefined;
  readonly say: Speech;
  readonly handle: Handle | null;
  readonly others: readonly OtherBlade[];
  /** Its route never hardens it: it yields as soft steel does. */
  readonly staysSoft: boolean;
  /** The limit that a finding names, and what it rests on. */
  heldTo(limit: Limit): Pick<Finding, "limit" | "basis">;
}

/** Another blade of the shop, as far as it is held beside this one: thicknesses at mid-edge, mm. */
export interface OtherBlade {
  readonly name: string;
  readonly use: string | null;
  readonly behind: number;
  /** Height of its edge bevel, where that was read. */
  readonly edgeBevel: number;
}

export type Rule = (judged: Judged) => Finding[];

/** The sides worth judging apart: one where both are alike. */
export function sidesOf(judged: Judged): readonly Side[] {
  return judged.field.alike ? ["right"] : SIDES;
}

/** A place's side, left unsaid where both are alike. */
export function onSide(judged: Judged, side: Side): { side?: Side } {
  return judged.field.alike ? {} : { side };
}

/** The key that holds a side's bevel: the right one where the left is the same. */
export function owner(judged: Judged, side: Side): Side {
  return judged.blade.bevels.left === "same" ? "right" : side;
}

/** The tip's x, mm. */
export function tipX(judged: Judged): number {
  const { spine } = judged.blade.outline;
  return spine[spine.length - 1]!.at[0];
}

/** How much of the edge at the tip is the point itself, where every surface comes together, mm. */
const POINT = 3;

/**
 * Stations clear of the plunge's run-out and of the point, where the edge is meant to be as drawn. A plunge that leans reaches further
 * along the blade higher up, so the whole section is asked, up to the height that edges are judged at.
 */
export function clearStations({ field, stations }: Judged): Station[] {
  return stations.filter((station) => {
    const along = station.u * field.edge.length;
    return (
      along >= field.sharpFrom &&
      field.edge.length - along > POINT &&
      isPastPlunge(field, station, JUDGED_UP_TO)
    );
  });
}
/** The highest place above the edge that anything is asked of, mm. */
const JUDGED_UP_TO = 10;

/** Runs of neighbouring stations that answer yes, as stretches of x. */
export function stretches(
  stations: readonly Station[],
  isSo: (station: Station) => boolean,
): { from: number; to: number; stations: Station[] }[] {
  const found: { from: number; to: number; stations: Station[] }[] = [];
  let open: Station[] = [];
  const close = () => {
    if (open.length > 0) {
      const xs = open.map((station) => station.x);
      found.push({ from: Math.min(...xs), to: Math.max(...xs), stations: open });
    }
    open = [];
  };
  for (const station of stations) {
    if (isSo(station)) open.push(station);
    else close();
  }
  close();
  return found;
}

/** Lengths as a finding says them, in the unit on show. */
export interface Speech {
  /** A thickness or height, to its unit's usual places: `0.48 mm`. */
  length(mm: number): string;
  /** A stretch along the blade: `from 40 to 75 mm`, or `at 40 mm` where it is short. */
  along(from: number, to: number): string;
}

/** Speech in a unit. */
export function speechIn(unit: LengthUnit): Speech {
  const place = (x: number) => showLength(x, unit, unit === "inch" ? 2 : 0);
  const named = (x: number) => showLengthWithUnit(x, unit, unit === "inch" ? 2 : 0);
  return {
    length: (mm) => showLengthWithUnit(mm, unit),
    along: (from, to) => (to - from < 0.5 ? `at ${named(from)}` : `from ${place(from)} to ${named(to)}`),
  };
}
