import type { Abrasive, AbrasiveForm } from "./schema.ts";

/**
 * How fast a belt takes steel off and how much it takes in its life. These are this product's own starting
 * values, in the spirit of common practice and without a source: they rank belts and are corrected by the shop's log.
 */

/** mm³ a minute of a fresh P60 belt (269 µm) of each abrasive by hand on hardened steel, looking and dipping counted in. Starting values. */
const RATE_AT_P60: Readonly<Record<Abrasive["abrasive"], number>> = {
  ceramic: 120,
  zirconia: 90,
  alumina: 60,
  "silicon carbide": 45,
  structured: 40,
  diamond: 40,
};
const P60 = 269;
/** Before hardening a belt takes so many times as much: a fresh coarse ceramic 500 to 700 mm³ a minute. Starting value. */
const SOFT_TIMES = 2.5;
/** Removal falls about in proportion to the particle. Starting value. */
const RATE_POWER = 1;

/** mm³ that a fresh belt takes in its life for every mm³ a minute of its rate: its minutes. Starting values. */
const MINUTES_OF_LIFE: Readonly<Record<Abrasive["abrasive"], number>> = {
  ceramic: 40,
  zirconia: 25,
  alumina: 15,
  "silicon carbide": 12,
  structured: 45,
  diamond: 200,
};

/** What wear leaves of a belt's rate, and of its life. Starting values. */
const LEFT: Readonly<Record<Abrasive["condition"], { rate: number; life: number }>> = {
  fresh: { rate: 1, life: 1 },
  used: { rate: 0.7, life: 0.5 },
  worn: { rate: 0.35, life: 0.15 },
};

/** Steel taken off in a minute, mm³: hardened, or still soft. */
export function cuttingRate(belt: Abrasive, isSoft = false): number {
  return freshOn(belt, isSoft) * LEFT[belt.condition].rate;
}

/** A hand on a stone or a plate takes so much of what a belt takes, ×/÷ 3; a strop next to nothing. Starting values. */
const OF_A_BELT: Readonly<Record<AbrasiveForm, number>> = {
  belt: 1,
  wheel: 1,
  stone: 1 / 15,
  plate: 1 / 15,
  strop: 1 / 150,
};

/** What is not a belt lasts so many times as long: it is dressed, and cuts again. Starting values. */
const LASTS: Readonly<Record<AbrasiveForm, number>> = {
  belt: 1,
  wheel: 20,
  stone: 100,
  plate: 40,
  strop: 40,
};

/** Of a fresh belt: as the shop's own log has it on the steel it was logged on, else the starting value. */
function freshOn(
  { abrasive, microns, form = "belt", rate, rateOn = "hard" }: Abrasive,
  isSoft: boolean,
): number {
  if (rate !== undefined) return (rate * timesOf(isSoft)) / timesOf(rateOn === "soft");
  return OF_A_BELT[form] * RATE_AT_P60[abrasive] * (microns / P60) ** RATE_POWER * timesOf(isSoft);
}

const timesOf = (isSoft: boolean) => (isSoft ? SOFT_TIMES : 1);

/** Steel that one such belt still takes off before it is thrown away, mm³: of what is soft more, as it takes it faster. */
export function beltLife(belt: Abrasive, isSoft = false): number {
  const { abrasive, condition, life } = belt;
  const fresh =
    life === undefined
      ? MINUTES_OF_LIFE[abrasive] * freshOn(belt, isSoft)
      : (life * timesOf(isSoft)) / timesOf(belt.rateOn === "soft");
  return fresh * LEFT[condition].life * LASTS[belt.form ?? "belt"];
}

/** The rate of the same belt when it was fresh, from one that was read in its present condition. */
export function freshRate(rate: number, condition: Abrasive["condition"]): number {
  return rate / LEFT[condition].rate;
}

/** Off a face with one light pass of a coarse belt, mm, for a belt of `COARSE` µm. Starting values; finer belts take less. */
export const A_PASS = 0.02;
export const COARSE = 125;

/** Off a face with one light pass of a belt, mm. */
export function passOf(microns: number): number {
  return Math.min(A_PASS * 2, (A_PASS * microns) / COARSE);
}
