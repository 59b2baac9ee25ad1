import sans from "@fontsource/noto-sans/unicode.json";
import arabic from "@fontsource/noto-sans-arabic/unicode.json";
import hebrew from "@fontsource/noto-sans-hebrew/unicode.json";
import japanese from "@fontsource/noto-sans-jp/unicode.json";
import korean from "@fontsource/noto-sans-kr/unicode.json";
import chinese from "@fontsource/noto-sans-sc/unicode.json";

const FILES = import.meta.glob<string>(
  [
    "../../../../node_modules/@fontsource/noto-sans/files/*-400-normal.woff",
    "../../../../node_modules/@fontsource/noto-sans-arabic/files/*-arabic-400-normal.woff",
    "../../../../node_modules/@fontsource/noto-sans-hebrew/files/*-hebrew-400-normal.woff",
    "../../../../node_modules/@fontsource/noto-sans-jp/files/*-400-normal.woff",
    "../../../../node_modules/@fontsource/noto-sans-kr/files/*-400-normal.woff",
    "../../../../node_modules/@fontsource/noto-sans-sc/files/*-400-normal.woff",
  ],
  { query: "?url", import: "default", eager: true },
);

interface Family {
  readonly name: string;
  readonly parts: Readonly<Record<string, string>>;
}

/** Fonts in parts, each with the signs it has: Latin, Greek, Cyrillic and Devanagari letters; Hebrew; Arabic. */
const LETTERS: readonly Family[] = [
  { name: "noto-sans", parts: sans },
  { name: "noto-sans-hebrew", parts: { hebrew: hebrew.hebrew } },
  { name: "noto-sans-arabic", parts: { arabic: arabic.arabic } },
];
/** Those that share signs, each drawn in its own way: Japanese, Korean, Chinese. */
const SHARING: readonly Family[] = [
  { name: "noto-sans-jp", parts: japanese },
  { name: "noto-sans-kr", parts: korean },
  { name: "noto-sans-sc", parts: chinese },
];

/** Which files have these signs, and the signs that none has. Signs that are shared are of one font where one has them all. */
export function filesWith(signs: readonly string[]): { urls: string[]; lacking: string[] } {
  const others = signs.filter((sign) => !LETTERS.some((family) => fileWith(sign, family)));
  const shared = others.filter((sign) => SHARING.some((family) => fileWith(sign, family)));
  const own = SHARING.find((family) => shared.every((sign) => fileWith(sign, family)));
  const families = [...LETTERS, ...(own ? [own] : SHARING)];
  const urls = new Set<string>();
  const lacking: string[] = [];
  for (const sign of signs) {
    const family = families.find((one) => fileWith(sign, one));
    if (family) urls.add(fileWith(sign, family)!);
    else lacking.push(sign);
  }
  return { urls: [...urls], lacking };
}

function fileWith(sign: string, { name, parts }: Family): string | undefined {
  const point = sign.codePointAt(0)!;
  for (const [part, ranges] of Object.entries(parts)) {
    if (!isIn(point, ranges)) continue;
    const file = `/${name}-${part.replace(/[[\]]/g, "")}-400-normal.woff`;
    const found = Object.keys(FILES).find((path) => path.endsWith(file));
    if (found) return FILES[found];
  }
  return undefined;
}

/** Whether a sign is among ranges as style sheets write them: `U+0370-0377,U+037a`. */
function isIn(point: number, ranges: string): boolean {
  let pairs = read.get(ranges);
  if (!pairs) {
    pairs = ranges.split(",").map((range) => {
      const [from = "", to = from] = range.trim().slice(2).split("-");
      return [Number.parseInt(from, 16), Number.parseInt(to, 16)];
    });
    read.set(ranges, pairs);
  }
  return pairs.some(([from, to]) => point >= from && point <= to);
}

/** Ranges that were read before. */
const read = new Map<string, readonly (readonly [number, number])[]>();
