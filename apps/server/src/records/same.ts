import { isDeepStrictEqual } from "node:util";

/** Whether two values are the same once they are stored as JSON, whatever the order of their keys. */
export function isSameJson(a: unknown, b: unknown): boolean {
  return isDeepStrictEqual(stored(a), stored(b));
}

const stored = (value: unknown) => (value === undefined ? value : JSON.parse(JSON.stringify(value)));
