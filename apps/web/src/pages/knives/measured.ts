import {
  edgeOf,
  type Knife,
  middleOf,
  thickAt,
  thickWithin,
  wedgeUpTo,
} from "@true-spine/core/edge/knives.ts";
import { apexStands } from "@true-spine/core/edge/trials.ts";
import type { BladeName } from "@true-spine/core/registry/contract.ts";
import { atan } from "@true-spine/core/units/angle.ts";

/** A knife or a blade of the rack as it is held beside others: in the middle of its edge. mm, g, degrees a side. */
export interface Measured {
  readonly key: string;
  readonly name: string;
  readonly isRack: boolean;
  readonly use: string | null;
  readonly length: number;
  readonly mass: number | null;
  readonly behind: number;
  readonly high: number;
  readonly angle: number;
  thick(y: number): number | null;
  /** One standard uncertainty of that; nought for a drawn one. */
  within(y: number): number;
  readonly wedge: number | null;
  /** Side load that its apex stands, N/mm: for ratios alone. */
  readonly apex: number;
}
const WEDGE = 10;

export function ofKnife(knife: Knife): Measured {
  const { e, d, angle } = edgeOf(middleOf(knife));
  return {
    key: knife.id,
    name: knife.name,
    isRack: false,
    use: knife.use ?? null,
    length: knife.length,
    mass: knife.mass ?? null,
    behind: e,
    high: d,
    angle,
    thick: (y) => thickAt(knife, y),
    within: (y) => thickWithin(knife, y) ?? 0,
    wedge: wedgeUpTo(knife, WEDGE),
    apex: apexStands(angle),
  };
}

/** A blade of the rack by what the rack knows of it; null where it has no edge bevel in the middle. */
export function ofBlade({ id, name, use, summary }: BladeName): Measured | null {
  const { middle, above = {}, length, mass } = summary;
  if (!middle || middle.behind <= 0 || middle.edgeBevel <= 0) return null;
  const { behind, edgeBevel } = middle;
  const known = [
    { y: 0, t: 0 },
    ...[{ y: edgeBevel, t: behind }, ...Object.entries(above).map(([y, t]) => ({ y: Number(y), t }))].sort(
      (a, b) => a.y - b.y,
    ),
  ];
  const thick = (y: number) => {
    const i = known.findIndex((one) => one.y >= y - 1e-9);
    if (i < 1) return null;
    const [a, b] = [known[i - 1]!, known[i]!];
    return a.t + ((b.t - a.t) * (y - a.y)) / (b.y - a.y);
  };
  const angle = atan(behind / 2 / edgeBevel);
  let wedge: number | null = thick(WEDGE) === null ? null : 0;
  for (let i = 1; wedge !== null && i < known.length && known[i]!.y <= WEDGE + 1e-9; i++)
    wedge += ((known[i]!.y - known[i - 1]!.y) * (known[i]!.t + known[i - 1]!.t)) / 2;
  return {
    key: id,
    name,
    isRack: true,
    use,
    length,
    mass,
    behind,
    high: edgeBevel,
    angle,
    thick,
    within: () => 0,
    wedge,
    apex: apexStands(angle),
  };
}
