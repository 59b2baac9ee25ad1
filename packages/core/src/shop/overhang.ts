import type { Shop } from "./schema.ts";

/** What a belt that hung so far past the platen left at a plunge, as it was read; mm. */
export type OverhangRead = NonNullable<Shop["overhangs"]>[number];

/** How far to let a belt hang past the platen for a radius at the plunge, mm, and the reading that says so; null where none was taken. */
export interface Overhang {
  readonly past: number;
  readonly by: OverhangRead | null;
}

/**
 * The overhang for a wanted radius: as much of what was read with this belt on this set-up as the radius is of the radius read; without
 * a reading the stock's thickness. Source: common practice; that sweep grows evenly with overhang is a starting value.
 */
export function overhangFor(
  shop: Pick<Shop, "overhangs">,
  belt: string,
  setup: string,
  radius: number,
  stock: number,
): Overhang {
  const by = (shop.overhangs ?? []).find((one) => one.belt === belt && one.setup === setup) ?? null;
  return by ? { past: (by.past * radius) / by.radius, by } : { past: stock, by: null };
}

/** The shop with a reading put in, in place of an earlier one of the same belt and set-up. */
export function withOverhang(shop: Shop, read: OverhangRead): Shop {
  const others = (shop.overhangs ?? []).filter(
    ({ belt, setup }) => belt !== read.belt || setup !== read.setup,
  );
  return { ...shop, overhangs: [...others, read] };
}
