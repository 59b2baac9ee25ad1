import { thickestOf } from "../blade/measure.ts";
import { compileRing } from "../blade/outline.ts";
import type { Blade } from "../blade/schema.ts";
import { type Shop, USUAL_SHOP } from "../shop/schema.ts";
import type { Areas } from "./areas.ts";
import { flatsToCome } from "./ladder.ts";
import { type BarSurface, NO_ROUTE, type Route } from "./schema.ts";
import { workedOn } from "./stages.ts";
import { takingOf } from "./take.ts";

/** Standard thicknesses of bar, mm. Source: common practice, eighths and sixteenths of an inch and whole millimetres. */
export const BARS = [
  1, 1.5, 2, 2.5, 3, 3.2, 3.5, 4, 4.5, 4.8, 5, 5.5, 6, 6.4, 7, 8, 9.5, 10, 12, 12.7, 16, 19, 25,
] as const;

/** What cleaning one flat of a bar takes by how it comes, mm. Starting values. */
export const CLEAN_UP: Readonly<Record<BarSurface, number>> = { ground: 0, descaled: 0.1, rolled: 0.15 };

/** The least that the flats of a bar which nobody has named yet need to come clean, mm in all. Starting value. */
const LEAST_CLEAN_UP = 0.1;

/**
 * Steel that goes from a bar before the blade's own thickness is reached, mm in all. A ground bar gives up no more than it has beyond the
 * blade: where its maker takes the bar's thickness for the blade's, the flats stay as they come.
 */
export function lostToFlats(blade: Blade, route: Route, shop: Shop): number {
  const lost = 2 * flatsToCome(blade, route, shop) + (route.bar ? 2 * CLEAN_UP[route.bar.surface] : 0);
  if (route.bar?.surface !== "ground") return lost;
  // What the maker has a stage take off is taken whatever the bar has.
  const said = route.stages.reduce(
    (sum, stage) => sum + (workedOn(stage) === "flats" ? (stage.takes ?? 0) : 0),
    0,
  );
  return Math.max(2 * said, Math.min(lost, Math.max(0, route.stock - thickestOf(blade))));
}

/**
 * The finished thickness that a bar gives, mm: a ground one is the blade's already where its maker says so; of others the clean-up goes,
 * and what a usual route takes off the flats after hardening.
 */
export function thicknessFrom(stock: number, surface: BarSurface): number {
  if (surface === "ground") return stock;
  const taking = takingOf(NO_ROUTE, USUAL_SHOP, USUAL_AREAS);
  const later = (taking.true?.flats ?? 0) + (taking.hand?.flats ?? 0);
  return Math.floor((stock - 2 * (CLEAN_UP[surface] + later)) * 100 + 1e-6) / 100;
}

/** Of a field knife, mm². */
const USUAL_AREAS: Areas = {
  flats: 8000,
  first: { bevels: 4000, edge: 0 },
  second: { bevels: 0, edge: 0 },
};

/** What a bar and a blade make of one another. Lengths mm. */
export interface BarFit {
  /** The bar that the blade asks for at the least. */
  readonly needed: number;
  /** The thinnest standard bar that is enough; the needed thickness itself beyond the thickest of them. */
  readonly standard: number;
  /** The thickest finished blade that the bar gives. */
  readonly gives: number;
}

export function fitOf(blade: Blade, route: Route, shop: Shop): BarFit {
  const lost = lostToFlats(blade, route, shop);
  const needed = thickestOf(blade) + lost;
  const clean = needed + (route.bar ? 0 : LEAST_CLEAN_UP);
  return {
    needed,
    standard: BARS.find((bar) => bar >= clean - 1e-6) ?? clean,
    gives: Math.max(0, route.stock - lost),
  };
}

/** The thickest that a route may have its stock, mm. */
const MOST_STOCK = 25;

/** The stock of a round bar until it is forged flat, mm. */
export function stockOfRound(diameter: number): number {
  return Math.min(diameter, MOST_STOCK);
}

/** The widest flat blank of a thickness that lies within a round bar, mm; 0 where none does. Source: geometry, a chord. */
export function widestInRound(diameter: number, thickness: number): number {
  return Math.sqrt(Math.max(0, diameter ** 2 - thickness ** 2));
}

/** Whether a blade is wider than a round bar lets it be without forging. */
export function mustBeForged(blade: Blade, { bar }: Pick<Route, "bar">): boolean {
  if (bar?.diameter === undefined) return false;
  const { top, bottom } = compileRing(blade.outline);
  return top - bottom > widestInRound(bar.diameter, thickestOf(blade));
}

/** The same blade no thicker than so much: what stands higher is ground down, the taper below it stays. */
export function thinnedTo(blade: Blade, most: number): Blade {
  return { ...blade, thickness: blade.thickness.map(({ x, t }) => ({ x, t: Math.min(t, most) })) };
}
