import bidiFactory from "bidi-js";

/** Signs that are read one way, as they follow one another when read; `isBack` where that is from right to left. */
export interface Way {
  readonly words: string;
  readonly isBack: boolean;
}

/** First strong isolate, and where it ends. Source: UAX #9, 2.4. */
const [ISOLATE, END] = ["\u2068", "\u2069"];
/** Nothing is turned in words without any of these: letters, or marks of order, that go from right to left. */
const BACKWARDS =
  /[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\u200f\u202b\u202e\u2067]/u;

const bidi = bidiFactory();

/** Words that somebody typed, to be put among others: whichever way they are read, the others stay where they were. */
export const inOwnWay = (words: string): string => (BACKWARDS.test(words) ? ISOLATE + words + END : words);

/** A line that is read from left to right, in its ways as they stand from the left; brackets turned as they are seen. Source: UAX #9. */
export function waysOf(line: string): Way[] {
  if (!BACKWARDS.test(line)) return line === "" ? [] : [{ words: line, isBack: false }];
  const found = bidi.getEmbeddingLevels(line, "ltr");
  const { levels } = found;
  const turned = bidi.getMirroredCharactersMap(line, levels);
  const ways: { words: string; isBack: boolean }[] = [];
  let before = Number.NaN;
  for (const i of bidi.getReorderedIndices(line, found)) {
    const isBack = levels[i]! % 2 === 1;
    const sign = turned.get(i) ?? line[i]!;
    const last = ways.at(-1);
    if (last?.isBack !== isBack || i !== before + (isBack ? -1 : 1)) ways.push({ words: sign, isBack });
    else last.words = isBack ? sign + last.words : last.words + sign;
    before = i;
  }
  return ways;
}
