// The month as a word: 3/4 is April in one shop and March in another.
const TIME = new Intl.DateTimeFormat(undefined, { hour: "2-digit", minute: "2-digit" });
const DAY_AND_TIME = new Intl.DateTimeFormat(undefined, {
  day: "numeric",
  month: "short",
  year: "numeric",
  hour: "2-digit",
  minute: "2-digit",
});
const AGO = new Intl.RelativeTimeFormat(undefined, { numeric: "auto" });

const DAY = new Intl.DateTimeFormat(undefined, { day: "numeric", month: "short", year: "numeric" });

/** A day in the reader's order. `at` in ms since 1970. */
export function dayInWords(at: number): string {
  return DAY.format(at);
}

/** A moment in the reader's order: the time alone where it was today. `at` in ms since 1970. */
export function whenInWords(at: number): string {
  const isToday = new Date(at).toDateString() === new Date().toDateString();
  return (isToday ? TIME : DAY_AND_TIME).format(at);
}

const STEPS = [
  ["year", 365.25 * 24 * 3600],
  ["month", 30.44 * 24 * 3600],
  ["week", 7 * 24 * 3600],
  ["day", 24 * 3600],
  ["hour", 3600],
  ["minute", 60],
] as const;

/** How long ago that was, in the largest unit there is one of: `3 days ago`. `at` in ms since 1970, `now` likewise. */
export function agoInWords(at: number, now = Date.now()): string {
  const seconds = Math.max(0, now - at) / 1000;
  const [unit, size] = STEPS.find(([, one]) => seconds >= one) ?? ["second", 1];
  return AGO.format(-Math.floor(seconds / size), unit);
}
