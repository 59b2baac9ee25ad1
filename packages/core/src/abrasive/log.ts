import { type Static, Type } from "@sinclair/typebox";
import { DaySchema } from "../document/time.ts";
import { densityOf } from "../steel/steels.ts";

/** What the shop wrote down: minutes with one belt, and the steel they took off, g. */
export const LoggedSchema = Type.Object(
  {
    belt: Type.String({ pattern: "^[a-z0-9-]{1,40}$" }),
    minutes: Type.Number({ exclusiveMinimum: 0, maximum: 1000 }),
    grams: Type.Number({ exclusiveMinimum: 0, maximum: 10_000 }),
    when: DaySchema,
  },
  { additionalProperties: false },
);
export type Logged = Static<typeof LoggedSchema>;

/** A cutting rate as the log has it. */
export interface FittedRate {
  /** mm³ a minute. */
  readonly rate: number;
  /** Standard deviation of one entry's rate about it, mm³ a minute; null for a single entry. */
  readonly spread: number | null;
  readonly count: number;
}

/**
 * A belt's rate from the shop's own log: all steel over all minutes, so that a long job counts for more than a short
 * one; steel weighed in grams at the density of carbon steel. Null where nothing is logged.
 */
export function fitRate(log: readonly Logged[], belt: string): FittedRate | null {
  const own = log.filter((entry) => entry.belt === belt);
  if (own.length === 0) return null;
  const volume = (grams: number) => (grams / densityOf(undefined)) * 1000;
  const minutes = own.reduce((sum, entry) => sum + entry.minutes, 0);
  const rate = own.reduce((sum, entry) => sum + volume(entry.grams), 0) / minutes;
  const rates = own.map((entry) => volume(entry.grams) / entry.minutes);
  const mean = rates.reduce((sum, one) => sum + one, 0) / rates.length;
  const spread =
    rates.length < 2
      ? null
      : Math.sqrt(rates.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (rates.length - 1));
  return { rate, spread, count: own.length };
}
