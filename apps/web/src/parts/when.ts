import { format } from "date-fns/format";
import { isToday } from "date-fns/isToday";

/** A moment as it is told: the time alone where it was today. `at` in ms since 1970. */
export function whenInWords(at: number): string {
  return format(at, isToday(at) ? "HH:mm" : "d MMM yyyy, HH:mm");
}
