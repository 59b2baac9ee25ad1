/** What compiled validators call, in place of their compiler's own. */
export { default as isEqual } from "fast-deep-equal";

/** Characters, not UTF-16 units, as JSON Schema counts them. */
export function lengthOf(text: string): number {
  let length = 0;
  for (const _ of text) length++;
  return length;
}
