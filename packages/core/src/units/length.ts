/** The units a maker may read and type. Inside, every length is millimetres. */
export type LengthUnit = "mm" | "inch" | "thou";

export const LENGTH_UNITS: readonly LengthUnit[] = ["mm", "inch", "thou"];

/** Millimetres in one unit. Source: the inch is 25.4 mm exactly (international yard and pound agreement, 1959). */
export const MILLIMETRES_IN: Readonly<Record<LengthUnit, number>> = { mm: 1, inch: 25.4, thou: 0.0254 };

/** Places shown after the point when nothing else is asked for. */
const PLACES: Readonly<Record<LengthUnit, number>> = { mm: 2, inch: 3, thou: 1 };

const SUFFIX: Readonly<Record<LengthUnit, string>> = { mm: "mm", inch: "in", thou: "thou" };

export type LengthReading = { ok: true; mm: number; unit: LengthUnit } | { ok: false; why: string };

const NUMBER = String.raw`(?:\d+\.?\d*|\.\d+)`;
const SAID = new RegExp(
  String.raw`^([+-])?\s*(?:(${NUMBER})(?:\s*[- ]\s*|\s+))?(?:(\d+)\s*/\s*(\d+)|(${NUMBER}))\s*([a-z"”″']*)\.?$`,
);

const UNIT_OF: Readonly<Record<string, LengthUnit>> = {
  mm: "mm",
  millimetre: "mm",
  millimetres: "mm",
  in: "inch",
  inch: "inch",
  inches: "inch",
  '"': "inch",
  "”": "inch",
  "″": "inch",
  thou: "thou",
  thous: "thou",
  thousandths: "thou",
  mil: "thou",
  mils: "thou",
};

/**
 * Reads a length as a maker says it: `4.5`, `4,5 mm`, `3/16`, `0.187"`, `60 thou`, `1 1/4 in`.
 *
 * A bare number is in `unit`; a bare fraction is always inches, because nobody halves millimetres that way.
 * Returns millimetres and the unit that was meant, or one sentence saying why not; never throws.
 *
 * @example parseLength("1 1/4 in", "mm") // { ok: true, mm: 31.75, unit: "inch" }
 */
export function parseLength(text: string, unit: LengthUnit): LengthReading {
  const said = text.trim().toLowerCase().replace(/\s+/g, " ");
  if (said === "") return refuse("Nothing written yet. A length looks like 4.5, 3/16 or 60 thou.");
  if (
    /\d,\d{3}(?!\d)/.test(said) &&
    !/^[+-]?0,/.test(said) &&
    (said.includes("thou") || isThousands(said, unit))
  ) {
    return refuse(`“${text.trim()}” could mean two things in thousandths. Write the decimal with a point.`);
  }
  const parts = SAID.exec(said.replace(/(\d),(\d)/g, "$1.$2").replace(/^([+-]?),(\d)/, "$1.$2"));
  if (!parts) return refuse(`“${text.trim()}” is not a length. Write it like 4.5, 3/16, 0.187" or 60 thou.`);
  const [, sign, whole, over, under, decimal, suffix = ""] = parts;
  const named = suffix === "" ? undefined : UNIT_OF[suffix];
  if (suffix !== "" && !named) return refuse(`“${suffix}” is not a unit known here. Use mm, in or thou.`);
  const isFraction = over !== undefined;
  if (whole !== undefined && (!isFraction || whole.includes("."))) {
    return refuse(`“${text.trim()}” reads as two numbers. Write one, like 1 1/4 in.`);
  }
  if (isFraction && Number(under) === 0) return refuse("A fraction cannot have nothing below the line.");
  const size = (whole ? Number(whole) : 0) + (isFraction ? Number(over) / Number(under) : Number(decimal));
  const meant = named ?? (isFraction ? "inch" : unit);
  const mm = (sign === "-" ? -1 : 1) * size * MILLIMETRES_IN[meant];
  if (!Number.isFinite(mm)) return refuse(`“${text.trim()}” is too large to be a length.`);
  return { ok: true, mm, unit: meant };
}

/** Whether a comma may part thousands: only thousandths are ever so many, and only where no other unit is named. */
function isThousands(said: string, unit: LengthUnit): boolean {
  return unit === "thou" && !/[a-z"”″']/.test(said);
}

function refuse(why: string): LengthReading {
  return { ok: false, why };
}

/**
 * Shows millimetres as a bare number in `unit`, to that unit's usual places or `places`. In thousandths, what is longer than an inch is
 * shown in inches with their sign behind it: nobody reads a blade as 5118 thou.
 *
 * @example showLength(63.5, "thou") // "2.500″"
 */
export function showLength(mm: number, unit: LengthUnit, places?: number): string {
  if (isShownInInches(mm, unit)) return `${figure(mm, "inch", PLACES.inch)}″`;
  return figure(mm, unit, places ?? PLACES[unit]);
}

function figure(mm: number, unit: LengthUnit, places: number): string {
  // Half away from zero, past what binary figures lose: 3.175 is shown as 3.18.
  const value = mm / MILLIMETRES_IN[unit];
  const shown = (value + Math.sign(value) * ROUNDING).toFixed(places);
  return Number(shown) === 0 ? (0).toFixed(places) : shown;
}

const ROUNDING = 1e-9;

/** Whether a length is too long to be told in thousandths. */
function isShownInInches(mm: number, unit: LengthUnit): boolean {
  return unit === "thou" && Math.abs(mm) > MILLIMETRES_IN.inch + 1e-9;
}

/** The same with the unit's name behind it: `4.50 mm`, `0.177 in`, `177.2 thou`. */
export function showLengthWithUnit(mm: number, unit: LengthUnit, places?: number): string {
  if (isShownInInches(mm, unit)) return `${figure(mm, "inch", PLACES.inch)} ${SUFFIX.inch}`;
  return `${showLength(mm, unit, places)} ${SUFFIX[unit]}`;
}

/**
 * What a box shows for typing over: as many places as the value needs, up to a tenth of a micron in `unit`,
 * so that leaving a box untouched never moves the value.
 */
export function showForTyping(mm: number, unit: LengthUnit): string {
  if (isShownInInches(mm, unit)) return `${showForTyping(mm, "inch")}"`;
  const places = unit === "mm" ? 4 : unit === "inch" ? 5 : 2;
  return String(Number((mm / MILLIMETRES_IN[unit]).toFixed(places)));
}

/**
 * The nearest inch fraction with a power of two below the line, lowest terms, and how far it is off in mm.
 * `largest` is the finest division, 64 by default.
 *
 * @example showFraction(4.7625) // { text: "3/16", off: 0 }
 */
export function showFraction(mm: number, largest = 64): { text: string; off: number } {
  const sign = mm < 0 ? "-" : "";
  let parts = Math.round((Math.abs(mm) / MILLIMETRES_IN.inch) * largest);
  let division = largest;
  const off = Math.abs(mm) - (parts * MILLIMETRES_IN.inch) / largest;
  while (division > 1 && parts % 2 === 0) {
    parts /= 2;
    division /= 2;
  }
  const whole = Math.floor(parts / division);
  const rest = parts - whole * division;
  const text = rest === 0 ? `${whole}` : `${whole > 0 ? `${whole} ` : ""}${rest}/${division}`;
  return { text: `${parts === 0 ? "" : sign}${text}`, off: mm < 0 ? -off : off };
}
