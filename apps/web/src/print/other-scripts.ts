import sans from "@fontsource/noto-sans/unicode.json";
import japanese from "@fontsource/noto-sans-jp/unicode.json";

const FILES = import.meta.glob<string>(
  [
    "../../../../node_modules/@fontsource/noto-sans/files/*-400-normal.woff",
    "../../../../node_modules/@fontsource/noto-sans-jp/files/*-400-normal.woff",
  ],
  { query: "?url", import: "default", eager: true },
);

/** Fonts in parts, each with the signs it has: for Latin, Greek, Cyrillic and Devanagari letters; then for Japanese. */
const FAMILIES: readonly (readonly [name: string, parts: Readonly<Record<string, string>>])[] = [
  ["noto-sans", sans],
  ["noto-sans-jp", japanese],
];

/** Which files have these signs, and the signs that none has. */
export function filesWith(signs: readonly string[]): { urls: string[]; lacking: string[] } {
  const urls = new Set<string>();
  const lacking: string[] = [];
  for (const sign of signs) {
    const url = fileWith(sign.codePointAt(0)!);
    if (url) urls.add(url);
    else lacking.push(sign);
  }
  return { urls: [...urls], lacking };
}

function fileWith(point: number): string | undefined {
  for (const [name, parts] of FAMILIES) {
    for (const [part, ranges] of Object.entries(parts)) {
      if (!isIn(point, ranges)) continue;
      const file = `/${name}-${part.replace(/[[\]]/g, "")}-400-normal.woff`;
      const found = Object.keys(FILES).find((path) => path.endsWith(file));
      if (found) return FILES[found];
    }
  }
  return undefined;
}

/** Whether a sign is among ranges as style sheets write them: `U+0370-0377,U+037a`. */
function isIn(point: number, ranges: string): boolean {
  return ranges.split(",").some((range) => {
    const [from = "", to = from] = range.trim().slice(2).split("-");
    return point >= Number.parseInt(from, 16) && point <= Number.parseInt(to, 16);
  });
}
