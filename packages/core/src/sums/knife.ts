import { parseBlade } from "../blade/parse.ts";
import type { Blade } from "../blade/schema.ts";
import { stationAtX } from "../blade/station.ts";
import { FAMILIES, valuesOf } from "../design/families.ts";
import { handleFor } from "../design/first.ts";
import { PIECE } from "./piece.ts";

/** What stands above the bevel on a knife made from a sum, as a share of it, and the sizes it is made within; mm. */
const ABOVE = 1.15;
const HEIGHTS = [18, 60] as const;
const LENGTHS = [70, 320] as const;
/** How long a blade is for its height. */
const LONG = 4.5;
/** A hand across four fingers, where nothing is said of it. */
const HAND = 85;

/** A plain drop point around a sum's section: as tall as its bevel asks, as long as goes with that; or why that cannot be, in words. */
export function knifeFrom(
  piece: Blade,
  put: (copy: Blade) => void,
  name: string,
): { ok: true; blade: Blade } | { ok: false; because: string } {
  const parsed = parseBlade(piece);
  const line = parsed.ok ? stationAtX(parsed.field, PIECE.middle)?.right.grindLine : null;
  const family = FAMILIES.find(({ key }) => key === "drop")!;
  const within = (value: number, [low, high]: readonly [number, number]) =>
    Math.round(Math.min(high, Math.max(low, value)));
  const height = within((line ?? 20) * ABOVE, HEIGHTS);
  const values = {
    ...valuesOf(family, {}),
    height,
    length: within(height * LONG, LENGTHS),
    handle: handleFor(HAND),
  };
  const outline = family.outline(values, "full");
  const heel = outline.edge[0]!.at[0];
  const blade: Blade = {
    ...structuredClone(piece),
    name: `${name}, from a sum`,
    outline,
    thickness: [{ x: 0, t: piece.thickness[0]!.t }],
  };
  put(blade);
  const { right } = blade.bevels;
  if (right.kind !== "none") right.plunge = { x: Math.round(heel + 3), lean: 5, radius: 2 };
  const made = parseBlade(blade);
  return made.ok ? { ok: true, blade: made.blade } : { ok: false, because: made.faults[0]!.message };
}
