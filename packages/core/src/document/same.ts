import equal from "fast-deep-equal";

/** Whether two values are the same once they are kept as JSON, whatever the order of their keys: a database keeps none. */
export function isSameJson(a: unknown, b: unknown): boolean {
  return equal(kept(a), kept(b));
}

const kept = (value: unknown) => (value === undefined ? value : JSON.parse(JSON.stringify(value)));
