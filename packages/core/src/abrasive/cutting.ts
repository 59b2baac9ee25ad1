import type { Abrasive } from "./schema.ts";

/**
 * How fast a belt takes hardened steel off and how much it takes in its life. These are this product's own starting
 * values, in the spirit of common practice and without a source: they rank belts and are corrected by the shop's log.
 */

/** mm³ a minute of a fresh P60 belt (269 µm) of each abrasive by hand, looking and dipping counted in. Starting values. */
const RATE_AT_P60: Readonly<Record<Abrasive["abrasive"], number>> = {
  ceramic: 120,
  zirconia: 90,
  alumina: 60,
  "silicon carbide": 45,
  structured: 40,
  diamond: 40,
};
const P60 = 269;
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

/** Steel taken off in a minute, mm³. */
export function cuttingRate({ abrasive, microns, condition, rate }: Abrasive): number {
  const fresh = rate ?? RATE_AT_P60[abrasive] * (microns / P60) ** RATE_POWER;
  return fresh * LEFT[condition].rate;
}

/** Steel that one such belt still takes off before it is thrown away, mm³. */
export function beltLife({ abrasive, microns, condition, rate, life }: Abrasive): number {
  const fresh =
    life ?? MINUTES_OF_LIFE[abrasive] * (rate ?? RATE_AT_P60[abrasive] * (microns / P60) ** RATE_POWER);
  return fresh * LEFT[condition].life;
}

/** The rate of the same belt when it was fresh, from one that was read in its present condition. */
export function freshRate(rate: number, condition: Abrasive["condition"]): number {
  return rate / LEFT[condition].rate;
}
