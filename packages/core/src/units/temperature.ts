import { colourInWords, colourNamed, middleOf } from "./colours.ts";

/** Temperatures: what makers type, and what they read. Inside, all are °C. */
export type TemperatureReading =
  | {
      ok: true;
      celsius: number;
      /** The colour that was typed: it stands for a range, and `celsius` is its middle. */
      colour?: string;
    }
  | { ok: false; why: string };

export const fahrenheit = (celsius: number) => (celsius * 9) / 5 + 32;
export const celsius = (degreesF: number) => ((degreesF - 32) * 5) / 9;

/**
 * Reads a temperature as a maker says it: `1050`, `1050 C`, `1925 F`, a colour, or "non-magnetic". A bare number is °C. Never throws.
 *
 * @example parseTemperature("orange") // { ok: true, celsius: 1000, colour: "orange" }
 */
export function parseTemperature(text: string): TemperatureReading {
  const said = text.trim().toLowerCase();
  const named = colourNamed(said);
  if (named) return { ok: true, celsius: middleOf(named), colour: named.name };
  const parts = /^([+-]?\d+(?:[.,]\d+)?)\s*°?\s*(c|f)?$/.exec(said);
  if (!parts)
    return {
      ok: false,
      why: `“${text.trim()}” is not a temperature. Enter a number such as 1050 or 1925 F, or a colour such as cherry or straw.`,
    };
  const value = Number(parts[1]!.replace(",", "."));
  return { ok: true, celsius: parts[2] === "f" ? celsius(value) : value };
}

/** A temperature in °C with its °F, to whole degrees; one that was said as a colour, as that colour with its range. */
export function showTemperature(value: number, said?: string): string {
  const colour = said === undefined ? null : colourNamed(said);
  if (colour && middleOf(colour) === value) return colourInWords(colour);
  return `${Math.round(value)} °C, ${Math.round(fahrenheit(value))} °F`;
}
