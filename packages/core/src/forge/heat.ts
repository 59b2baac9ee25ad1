/**
 * How long steel holds its heat, and how many heats a form takes. An estimate that ranks places and never promises: thicker steel
 * feeds a thin edge. Source: EN 1993-1-2 for radiation, from memory of; starting values where named.
 */
import { CONVECTION, DENSITY, flow, overFlow, SPECIFIC_HEAT } from "../steel/heating.ts";

const ROOM = 20;
/** What is left of the cooling on the anvil, and what carrying it costs, s: starting values, × or ÷ 1.5. */
const ON_ANVIL = 0.6;
const CARRY = 3;
/** It is asked at every place of every form. */
const STEPS = 400;

/** Seconds in still air from one temperature to another, °C, of steel with so much volume for its surface, mm (half of a flat's thickness, a quarter of a round's diameter). Cooling austenite has no peak. */
export function secondsToCool(perSurface: number, from: number, to: number, emissivity?: number): number {
  const loss = (celsius: number) => -flow(ROOM, celsius, CONVECTION.still, emissivity);
  return ((DENSITY * perSurface) / 1000) * SPECIFIC_HEAT * overFlow(to, from, loss, STEPS);
}

/** Seconds of work in hand in one heat, 0 where it is cold before it is on the anvil. */
export function secondsInHand(perSurface: number, from: number, to: number): number {
  return Math.max(0, ON_ANVIL * secondsToCool(perSurface, from, to) - CARRY);
}

/** Volume for each surface of a bar, mm. Source: geometry. */
export const perSurfaceOfFlat = (t: number) => t / 2;
export const perSurfaceOfRound = (d: number) => d / 4;
export const perSurfaceOfBar = (w: number, t: number) => (w * t) / (2 * (w + t));

/** Who swings what, and how much of a blow goes into the steel. */
export interface Hammer {
  /** kg: common practice. m/s, blows a second and the useful share: starting values. */
  readonly mass: number;
  readonly speed: number;
  readonly blows: number;
  readonly useful: number;
}
export const HAMMER: Hammer = { mass: 0.9, speed: 6, blows: 1.3, useful: 0.5 };

/** What hot steel resists being formed with, N/mm²: 80 to 200, starting value. */
export const YIELD = 150;

/** Heats to do a deformation D = ∫|ln(before/after)| dV, mm³, with so many seconds in hand; × or ÷ 2. Infinite where none are. */
export function heatsFor(deformation: number, seconds: number, hammer = HAMMER): number {
  if (deformation <= 0) return 0;
  if (seconds <= 0) return Number.POSITIVE_INFINITY;
  const blow = hammer.useful * 0.5 * hammer.mass * hammer.speed ** 2;
  return Math.ceil((YIELD * deformation) / 1000 / (blow * hammer.blows * seconds));
}

/** How much longer hot steel is than cold, as a share. Source: EN 1993-1-2, from memory of. */
export function expansionAt(celsius: number): number {
  if (celsius >= 860) return 2e-5 * celsius - 0.0062;
  if (celsius >= 750) return 0.011;
  return 1.2e-5 * celsius + 0.4e-8 * celsius ** 2 - 2.416e-4;
}

/** What heats a steel bears, °C: crumbles above, cracks below. Source: from memory of ASM Handbook 14 and the tool-steel tables. */
const CEILINGS: Readonly<Record<string, number>> = {
  "1065": 1150,
  "1075": 1150,
  "1084": 1150,
  "1095": 1065,
  O1: 1065,
  "5160": 1205,
};
const FLOORS: Readonly<Record<string, number>> = { "1095": 815, O1: 845 };
const FLOOR = 800;

/** Null where it is not judged without its maker's sheet. */
export function forgingRange(steel: string | undefined): { least: number; most: number } | null {
  const most = CEILINGS[steel ?? ""];
  return most === undefined ? null : { least: FLOORS[steel ?? ""] ?? FLOOR, most };
}
