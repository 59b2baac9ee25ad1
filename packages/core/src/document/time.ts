import { Type } from "@sinclair/typebox";

/**
 * A moment in documents: RFC 3339 in UTC, to the minute or finer, of a day that the calendar has, years 1 to 9999. What does not
 * read so is refused; nothing is moved to a day nearby.
 */
export const TimeSchema = Type.String({
  pattern: "^\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}(:\\d{2}(\\.\\d{1,3})?)?Z$",
  format: "date-time",
});

/** A day in documents: ISO 8601, of the calendar. */
export const DaySchema = Type.String({ pattern: "^\\d{4}-\\d{2}-\\d{2}$", format: "date" });

/** Whether `2026-02-28` and the like is a day of the (proleptic) Gregorian calendar, from year 1 on. */
export function isDay(text: string): boolean {
  const parts = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  if (!parts) return false;
  const [year, month, day] = parts.slice(1).map(Number) as [number, number, number];
  if (year < 1 || month < 1 || month > 12 || day < 1) return false;
  const isLeap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
  const days = [31, isLeap ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];
  return day <= days[month - 1]!;
}

/** Whether `2026-02-28T14:30:00Z` and the like is a moment of a real day; a leap second is not. */
export function isTime(text: string): boolean {
  const [day = "", clock = ""] = text.split("T");
  const parts = /^(\d{2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?(?:Z|[+-]\d{2}:\d{2})$/.exec(clock);
  if (!parts || !isDay(day)) return false;
  const [hour, minute, second] = parts.slice(1, 4).map((part) => Number(part ?? 0)) as [
    number,
    number,
    number,
  ];
  return hour < 24 && minute < 60 && second < 60;
}

/** What the formats named in schemas mean. */
export const FORMATS = { "date-time": isTime, date: isDay } as const;
