/** Temperatures: what makers type, and what they read. Inside, all are °C. */
export type TemperatureReading = { ok: true; celsius: number } | { ok: false; why: string };

export const fahrenheit = (celsius: number) => (celsius * 9) / 5 + 32;
export const celsius = (degreesF: number) => ((degreesF - 32) * 5) / 9;

/**
 * Reads a temperature as a maker says it: `1050`, `1050 C`, `1925 F`, or by a name that `named` knows, a colour for one. A bare number is
 * °C. Never throws.
 *
 * @example parseTemperature("1475 F") // { ok: true, celsius: 801.7 }
 */
export function parseTemperature(
  text: string,
  named: (word: string) => number | null = () => null,
): TemperatureReading {
  const said = text.trim().toLowerCase();
  const known = named(said);
  if (known !== null) return { ok: true, celsius: known };
  const parts = /^([+-]?\d+(?:[.,]\d+)?)\s*°?\s*(c|f)?$/.exec(said);
  if (!parts) return { ok: false, why: `“${text.trim()}” is no temperature. Write it like 1050 or 1925 F.` };
  const value = Number(parts[1]!.replace(",", "."));
  return { ok: true, celsius: parts[2] === "f" ? celsius(value) : value };
}

/** A temperature in °C with its °F, to whole degrees. */
export function showTemperature(value: number): string {
  return `${Math.round(value)} °C, ${Math.round(fahrenheit(value))} °F`;
}
