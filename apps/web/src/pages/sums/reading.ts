import { standInNamed } from "@true-spine/core/route/past.ts";
import type { Ask, Figure, Given } from "@true-spine/core/sums/sum.ts";
import { parseAngle } from "@true-spine/core/units/angle.ts";
import {
  type LengthUnit,
  parseLength,
  showForTyping,
  showLengthWithUnit,
} from "@true-spine/core/units/length.ts";
import type { Typed } from "./kept.ts";

type Read = { ok: true; value: number | string } | { ok: false; why: string };

/** What is typed in a box of a sum; null while nothing is. */
export function readAsk(ask: Ask, text: string, unit: LengthUnit): Read | null {
  if (text.trim() === "") return null;
  if (ask.kind === "choice" || ask.kind === "text") return { ok: true, value: text };
  if (ask.kind === "angle") {
    const read = parseAngle(text);
    return read.ok ? { ok: true, value: read.degrees } : read;
  }
  if (ask.kind === "length") {
    const coin = standInNamed(text);
    if (coin !== null) return { ok: true, value: coin };
    const read = parseLength(text, unit);
    return read.ok ? { ok: true, value: read.mm } : read;
  }
  const value = Number(text.trim().replace(",", "."));
  return Number.isFinite(value)
    ? { ok: true, value }
    : { ok: false, why: `“${text.trim()}” is not a number.` };
}

/** What stands in the boxes, as far as it reads. */
export function givenFrom(asks: readonly Ask[], typed: Typed, unit: LengthUnit): Given {
  return Object.fromEntries(
    asks.flatMap((ask) => {
      const read = readAsk(ask, typed[ask.key] ?? "", unit);
      return read?.ok ? [[ask.key, read.value] as const] : [];
    }),
  );
}

/** A value as it would be typed into its box. */
export function asTyped(ask: Ask, value: number | string, unit: LengthUnit): string {
  if (typeof value === "string") return value;
  return ask.kind === "length" ? showForTyping(value, unit) : String(Number(value.toFixed(4)));
}

const PLACES = { "%": 1, "mm²": 2, g: 2, min: 0, µm: 0, "°C": 0, "°F": 0, "": 2 } as const;

/** Places a length in millimetres is told to: a thousandth where there is one to tell, a hundredth else. */
function placesFor(mm: number): 2 | 3 {
  return Math.abs(mm - Math.round(mm * 100) / 100) < 5e-5 ? 2 : 3;
}

/** A figure as it is read: lengths in the unit on show, angles to a hundredth. */
export function showFigure(
  { value, unit: of, words }: Pick<Figure, "value" | "unit" | "words">,
  unit: LengthUnit,
): string {
  if (words !== undefined) return words;
  if (of === "mm") return showLengthWithUnit(value, unit, unit === "mm" ? placesFor(value) : undefined);
  if (of === "°") return `${value.toFixed(2)}°`;
  return `${value.toFixed(PLACES[of])}${of === "" ? "" : ` ${of}`}`;
}
