import { QUANTITY } from "@true-spine/core/inspect/quantity.ts";
import type { Spot } from "@true-spine/core/inspect/schema.ts";
import { parseAngle } from "@true-spine/core/units/angle.ts";
import { type LengthUnit, parseLength, showLength } from "@true-spine/core/units/length.ts";

/** A figure of a quantity, in the unit on show, without its sign of unit. */
export function showFigure(what: Spot["what"], value: number, unit: LengthUnit): string {
  const { unit: of } = QUANTITY[what];
  if (of !== "mm") return value.toFixed(what === "square" ? 2 : 1);
  return showLength(value, unit, unit === "mm" && isLong(what) ? 1 : undefined);
}

/** Lengths along or up the blade are read to tenths; thicknesses to hundredths. */
const isLong = (what: Spot["what"]) =>
  ["line", "plunge", "height-at", "blade-length", "overall", "sweep"].includes(what);

/** What a figure's sign of unit is. */
export function unitOf(what: Spot["what"], unit: LengthUnit): string {
  const { unit: of } = QUANTITY[what];
  return of === "mm" ? unit : of;
}

/** The characters that can be part of a figure of a quantity, for a box that leaves all others to the page as keys. */
export function takesOf(what: Spot["what"]): string {
  const { unit } = QUANTITY[what];
  const digits = String.raw`\d.,+\-−\s`;
  if (unit === "mm") return String.raw`${digits}\/"'”″mcinthouls`;
  return unit === "°" ? `${digits}°degincl` : digits;
}

/** A figure as a maker types it, or why it is none. */
export function readFigure(
  what: Spot["what"],
  text: string,
  unit: LengthUnit,
): { ok: true; value: number; typed?: LengthUnit } | { ok: false; why: string } {
  const { unit: of, isSigned, name } = QUANTITY[what];
  const trimmed = text.trim().replace("−", "-");
  const isBelow = trimmed.startsWith("-");
  if (isBelow && !isSigned) return { ok: false, why: `${name} cannot be below 0.` };
  const bare = isBelow ? trimmed.slice(1) : trimmed.replace(/^\+/, "");
  const sign = isBelow ? -1 : 1;
  if (of === "mm") {
    const read = parseLength(bare, unit);
    if (!read.ok) return read;
    if (read.mm > 500) return { ok: false, why: "A reading lies below 500 mm." };
    return { ok: true, value: Math.round(sign * read.mm * 1e4) / 1e4, typed: read.unit };
  }
  if (of === "°") {
    const read = parseAngle(bare);
    return read.ok ? { ok: true, value: sign * read.degrees } : read;
  }
  const value = Number(bare.replace(",", "."));
  if (bare === "" || !(value > 0 && value < 80))
    return { ok: false, why: `“${text.trim()}” is no hardness. Write it like 60.5.` };
  return { ok: true, value };
}
