/** Angles are degrees everywhere outside this file; only trigonometry needs radians. */
const DEGREE = Math.PI / 180;

/** Radians from degrees. */
export function radians(degrees: number): number {
  return degrees * DEGREE;
}

/** Degrees from radians. */
export function degrees(radians: number): number {
  return radians / DEGREE;
}

/** Tangent of an angle in degrees. */
export function tan(degrees: number): number {
  return Math.tan(degrees * DEGREE);
}

/** Arc tangent, in degrees, −90…90. */
export function atan(slope: number): number {
  return Math.atan(slope) / DEGREE;
}

export type AngleReading = { ok: true; degrees: number } | { ok: false; why: string };

/**
 * Reads an angle as a maker says it: `18`, `18°`, `18 dps` (degrees per side), or `36 incl`, the inclusive
 * angle, which is halved. Returns degrees per side, or why the text is not an angle; never throws.
 *
 * @example parseAngle("36 incl") // { ok: true, degrees: 18 }
 */
export function parseAngle(text: string): AngleReading {
  const said = text
    .trim()
    .toLowerCase()
    .replace(/(\d),(\d)/g, "$1.$2");
  if (said === "") return { ok: false, why: "Nothing written yet. An angle looks like 18 or 18°." };
  const parts =
    /^([+-]?(?:\d+\.?\d*|\.\d+))\s*(°|deg|degrees|dps|per side|a side)?\s*(incl\.?|inclusive)?$/.exec(said);
  if (!parts)
    return { ok: false, why: `“${text.trim()}” is not an angle. Write it like 18, 18° or 36 incl.` };
  const value = Number(parts[1]);
  if (!Number.isFinite(value)) return { ok: false, why: `“${text.trim()}” is too large to be an angle.` };
  return { ok: true, degrees: parts[3] ? value / 2 : value };
}

/** Shows an angle with its sign of degree, to `digits` places, trailing zeros kept. */
export function showAngle(value: number, digits = 1): string {
  const shown = value.toFixed(digits);
  return `${Number(shown) === 0 ? (0).toFixed(digits) : shown}°`;
}
