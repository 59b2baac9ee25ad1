import { FINGERS_OF, GRITS, LENGTHS, REMOVED, TEMPERATURE } from "./bench.ts";
import { BELIEVED, BEVEL } from "./bevels.ts";
import { COMPARE, EDGE } from "./edges.ts";
import { CONVEX, HOLLOW } from "./faces.ts";
import { CENTRE, GROWTH, SQUARE } from "./growing.ts";
import { DRILL, GAUGE, LEAVE } from "./scribing.ts";
import { JIG, SAID } from "./settings.ts";
import type { Ask, Given, Sum } from "./sum.ts";
import { ONE_SETTING, TAPER } from "./tapers.ts";
import { WEDGE } from "./wedge.ts";

/** Every sum, in the order they are listed. */
export const SUMS: readonly Sum[] = [
  BEVEL,
  EDGE,
  COMPARE,
  BELIEVED,
  HOLLOW,
  CONVEX,
  WEDGE,
  GAUGE,
  DRILL,
  LEAVE,
  GROWTH,
  SQUARE,
  CENTRE,
  JIG,
  SAID,
  TAPER,
  ONE_SETTING,
  REMOVED,
  GRITS,
  LENGTHS,
  TEMPERATURE,
  FINGERS_OF,
];

export function sumOf(key: string): Sum | undefined {
  return SUMS.find((one) => one.key === key);
}

/** Sums by what a maker would type, best first; all of them where nothing is typed. Every word typed must begin one of its words. */
export function findSums(typed: string): readonly Sum[] {
  const asked = wordsOf(typed).filter((word) => !IDLE.has(word));
  if (asked.length === 0) return SUMS;
  const scored = SUMS.map((sum) => {
    const names = wordsOf(sum.name);
    const words = wordsOf(sum.words);
    const score = asked.reduce(
      (all, word) =>
        all +
        (names.some((one) => one.startsWith(word)) ? 3 : words.some((one) => one.startsWith(word)) ? 2 : 0),
      0,
    );
    const missed = asked.filter((word) => ![...names, ...words].some((one) => one.startsWith(word))).length;
    return { sum, score: score - missed };
  });
  const best = Math.max(...scored.map(({ score }) => score));
  return scored
    .filter(({ score }) => score > 0 && score >= best / 2)
    .sort((a, b) => b.score - a.score)
    .map(({ sum }) => sum);
}

const wordsOf = (text: string) =>
  text
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter(Boolean);

/** Words that tell no sum from another. */
const IDLE = new Set([
  "a",
  "an",
  "the",
  "of",
  "is",
  "it",
  "i",
  "do",
  "how",
  "what",
  "where",
  "to",
  "my",
  "on",
  "for",
  "does",
  "this",
  "that",
  "go",
]);

/** The boxes that matter for what is chosen. */
export function asksFor({ asks }: Sum, given: Given): readonly Ask[] {
  return asks.filter(({ only }) => !only || only.of.includes(String(given[only.key] ?? "")));
}

/** What stands in the boxes with what is usual put in where nothing was. */
export function withUsual({ asks }: Sum, given: Given): Given {
  const usual = asks.flatMap((ask) =>
    ask.kind === "choice" && given[ask.key] === undefined ? [[ask.key, ask.usual] as const] : [],
  );
  return { ...Object.fromEntries(usual), ...given };
}
