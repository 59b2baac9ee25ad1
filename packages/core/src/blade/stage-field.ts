import { tan } from "../units/angle.ts";
import { compileField, type Field } from "./field.ts";
import { type HalfSample, PRIMARY } from "./half.ts";
import type { Blade } from "./schema.ts";
import type { Allowance } from "./side.ts";
import { largest, read, type Table, table } from "./table.ts";

/**
 * The field of a stage that has bevels of its own, kept honest by one rule: nowhere below the finished field, and so nowhere below
 * what stages after it still leave on the finished bevels. Its flats stand at the finished flats, or at a `thickness` of its own,
 * plus the allowance; edge bevel and false edge come with `still`. A second edge is there with `hasSecond`.
 */
export function compileStageWithBevels(
  finished: Blade,
  bevels: Blade["bevels"],
  still: Allowance,
  thickness: Blade["thickness"] = finished.thickness,
  hasSecond = true,
): Field {
  const { secondEdge: _, ...one } = finished;
  const own = compileField({ ...(hasSecond ? finished : one), bevels, thickness }, still);
  if (own.isPlain && isNowhereBelow(thickness, still.flats, finished.thickness)) return own;
  const floors = [compileField(finished)];
  if (bevels !== finished.bevels && isCut(bevels)) {
    // A bar too thin for its blade is not thicker for what should come off its flats.
    const isOwnBar = thickness !== finished.thickness;
    floors.push(compileField(finished, { ...still, flats: isOwnBar ? 0 : still.flats }));
  }
  // Above every shoulder a stage that keeps the finished bevels stands on them, and so above the finished field.
  const reach = bevels === finished.bevels && !own.second ? tallestShoulder(own) : Number.POSITIVE_INFINITY;
  const raise = (half: HalfSample, least: number) => {
    if (half.lowest >= least) return;
    half.primary = least;
    half.relief = Number.POSITIVE_INFINITY;
    half.isBelowShoulder = false;
    half.lowest = least;
    half.surface = PRIMARY;
  };
  return {
    ...own,
    sampleAt(x: number, y: number): void {
      own.sampleAt(x, y);
      if (own.foot.d > reach) return;
      for (const floor of floors) {
        floor.sampleAt(x, y);
        raise(own.right, floor.right.lowest);
        if (!own.alike) raise(own.left, floor.left.lowest);
        else raise(own.right, floor.left.lowest);
      }
    },
  };
}

/** Highest that an edge bevel ends above the edge, mm. */
function tallestShoulder({ behind, blade }: Field): number {
  const angles = [blade.edge.angle.left, blade.edge.angle.right].filter((angle) => angle > 0);
  return angles.length > 0 ? largest(behind) / tan(Math.min(...angles)) : 0;
}

/** Whether flats of one thickness, with so much more on each, stand as high as another's everywhere. */
function isNowhereBelow(own: Blade["thickness"], more: number, other: Blade["thickness"]): boolean {
  const [mine, theirs] = [own, other].map((rows) =>
    table(
      rows,
      ({ x }) => x,
      ({ t }) => t,
    ),
  ) as [Table, Table];
  return [...own, ...other].every(({ x }) => read(mine, x) + 2 * more >= read(theirs, x));
}

function isCut({ right, left }: Blade["bevels"]): boolean {
  return right.kind !== "none" || (left !== "same" && left.kind !== "none");
}
