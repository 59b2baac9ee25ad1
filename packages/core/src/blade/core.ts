import type { Field } from "./field.ts";
import { drawnLines, type Line, runs } from "./lines.ts";
import { type Blade, SIDES, type Side } from "./schema.ts";
import type { PerSide, Station } from "./station.ts";

/** Share of its thickness that a core may stray by when it is forged or rolled: a starting value. */
export const CORE_SPREAD = 0.1;

/** How far a side's face stands from the centre plane where the core comes out of it, mm. */
export function coreFace({ t, offset }: NonNullable<Blade["core"]>, side: Side, by = 0): number {
  return (t * (1 + by)) / 2 + (side === "right" ? offset : -offset);
}

/** Looks along a section for where a face first rises to the core's, and how nearly that is found, mm. */
const LOOKS = 40;
const NEAR = 1e-7;

/**
 * Where the core comes out of a side's face along a station's section, mm from the edge: below it the face shows core, above it
 * cladding. Null without a core, where even the edge is cladding, or where the core never ends.
 */
export function coreLineAt(field: Field, station: Station, side: Side, by = 0): number | null {
  const { core } = field.blade;
  if (!core) return null;
  const { x, y, inward, height } = station;
  const wanted = coreFace(core, side, by);
  const half = (d: number) => {
    field.sampleAt(x + d * inward[0], y + d * inward[1]);
    return field[side].lowest - wanted;
  };
  let low = 1e-9;
  if (half(low) > 0) return null;
  const breaks = station.cut.breaks.filter((s) => s > 0 && s < height);
  const looks = Array.from({ length: LOOKS }, (_, i) => ((i + 1) * height) / LOOKS);
  for (const d of [...breaks, ...looks].sort((a, b) => a - b)) {
    const off = half(Math.min(d, height - 1e-9));
    if (off <= 0) {
      low = d;
      continue;
    }
    let high = d;
    while (high - low > NEAR) {
      const middle = (low + high) / 2;
      if (half(middle) > 0) high = middle;
      else low = middle;
    }
    return (low + high) / 2;
  }
  return null;
}

/** Where a core shows on each face, as lines on the side view; with `by` as it would with so much more of its thickness. */
export function coreLines(field: Field, by = 0): PerSide<readonly Line[]> {
  if (!field.blade.core) return { left: [], right: [] };
  const { stations } = drawnLines(field);
  const on = (side: Side) => runs(stations, (station) => coreLineAt(field, station, side, by));
  const right = on("right");
  const isAlike = field.alike && field.blade.core.offset === 0;
  return { right, left: isAlike ? right : on("left") };
}

/** How near the very edge lies to leaving its core on either side, mm; negative where it has left it. Infinite without a core. */
export function coreAtEdge(field: Field, { x, y }: Station): number {
  const { core } = field.blade;
  if (!core) return Number.POSITIVE_INFINITY;
  field.sampleAt(x, y);
  return Math.min(...SIDES.map((side) => coreFace(core, side) - field[side].lowest));
}
