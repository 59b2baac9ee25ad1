/** The deepest document of any kind has eleven levels inside its request; the largest the body limit lets through under 300 000 values. */
const DEEPEST = 32;
const MOST_VALUES = 300_000;

const QUOTE = 34;
const BACKSLASH = 92;
const COMMA = 44;

/** Whether JSON text is nested no deeper and has no more values than a document may, counted without building any of them. */
export function isWithinBounds(text: string): boolean {
  let depth = 0;
  let values = 1;
  for (let i = 0; i < text.length; i++) {
    switch (text.charCodeAt(i)) {
      case QUOTE:
        for (i++; i < text.length && text.charCodeAt(i) !== QUOTE; i++) {
          if (text.charCodeAt(i) === BACKSLASH) i++;
        }
        break;
      case COMMA:
        values++;
        break;
      case 91: // [
      case 123: // {
        depth++;
        values++;
        if (depth > DEEPEST) return false;
        break;
      case 93: // ]
      case 125: // }
        depth--;
        break;
    }
    if (values > MOST_VALUES) return false;
  }
  return true;
}
