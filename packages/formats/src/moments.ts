import { isDay, isTime } from "@true-spine/core/document/time.ts";

/** Which of the two figures of a date that may be read either way is the day. */
export type DateOrder = "day first" | "month first";

/** A day and a month in either order, then the year of four figures; a clock behind it. */
const EITHER = /^(\d{1,2})([./-])(\d{1,2})\2(\d{4})(?:,?[T ]+(\d{1,2}:\d{2}(?::\d{2})?))?$/i;
/** ISO 8601 with or without a time, a T or a blank between. */
const ISO = /^(\d{4}-\d{2}-\d{2})(?:[T ](\d{2}:\d{2}(?::\d{2}(?:\.\d+)?)?)(Z|[+-]\d{2}:\d{2})?)?$/i;

/** Whether it is a date that says by its order alone which figure is the day. */
export const isOfEitherOrder = (words: string): boolean => EITHER.test(words);

/** The order that the dates of a file prove: by a figure above twelve. Null where none does, or they contradict one another. */
export function provenOrder(dates: readonly string[]): DateOrder | null {
  const found = dates.flatMap((words) => {
    const [, first, , second] = EITHER.exec(words) ?? [];
    return first === undefined ? [] : [{ first: Number(first), second: Number(second) }];
  });
  const isDayFirst = found.some(({ first }) => first > 12);
  const isMonthFirst = found.some(({ second }) => second > 12);
  if (isDayFirst === isMonthFirst) return null;
  return isDayFirst ? "day first" : "month first";
}

/**
 * A moment, as ISO 8601: without a zone it is this machine's own. Null for a day that the calendar does not have, and for a date whose order
 * is not known.
 */
export function momentOf(words: string, order: DateOrder | null = null): string | null {
  const parts = ISO.exec(order ? asIso(words, order) : words);
  if (!parts || !isDay(parts[1]!)) return null;
  const [, day, clock, zone] = parts;
  if (clock && !isTime(`${day}T${clock}Z`)) return null;
  const time = new Date(clock ? `${day}T${clock}${zone ?? ""}` : day!);
  return Number.isNaN(time.getTime()) ? null : time.toISOString();
}

function asIso(words: string, order: DateOrder): string {
  const found = EITHER.exec(words);
  if (!found) return words;
  const [, first, , second, year, clock] = found;
  const [day, month] = order === "day first" ? [first!, second!] : [second!, first!];
  const time = clock ? ` ${clock.padStart(clock.length + (clock.indexOf(":") === 1 ? 1 : 0), "0")}` : "";
  return `${year}-${month.padStart(2, "0")}-${day.padStart(2, "0")}${time}`;
}
