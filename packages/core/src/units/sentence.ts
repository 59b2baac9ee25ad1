import { type LengthUnit, showLength, showLengthWithUnit } from "./length.ts";

/** One or two figures before mm, not mm² or mm³: `0.48 mm`, `40 to 75 mm`, `0.10–0.25 mm`. */
const FIGURES = /([+-−]?\d+(?:\.\d+)?)(?:( to | and |–| … )([+-−]?\d+(?:\.\d+)?))? mm(?![²³\w])/g;

/**
 * A sentence that was written in millimetres, said in another unit: what is stored, or comes from where no unit is known. Sentences
 * that are made for a reader are made in the unit at once.
 *
 * @example inUnit("Behind the edge it is 0.48 mm from 40 to 75 mm.", "inch") // "… 0.019 in from 1.57 to 2.95 in."
 */
export function inUnit(sentence: string, unit: LengthUnit): string {
  if (unit === "mm") return sentence;
  return sentence.replace(
    FIGURES,
    (_, first: string, between: string | undefined, second: string | undefined) => {
      const places = placesOf(first, unit);
      if (second === undefined) return showLengthWithUnit(read(first), unit, places);
      return `${showLength(read(first), unit, places)}${between}${showLengthWithUnit(read(second), unit, placesOf(second, unit))}`;
    },
  );
}

const read = (figure: string) => Number(figure.replace("−", "-"));

/** A place along the blade is said more roughly than a thickness: as the millimetres were. */
function placesOf(figure: string, unit: LengthUnit): number {
  const isRough = !figure.includes(".");
  if (unit === "inch") return isRough ? 2 : 3;
  return isRough ? 0 : 1;
}
