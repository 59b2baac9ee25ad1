import archivo from "@fontsource/archivo/files/archivo-latin-500-normal.woff?url";
import { useNotices } from "../parts/Notices.tsx";

/** What the sheets' own font has beside ASCII. Source: the subset's unicode-range. */
const OWN = /[\0-\xff\u0131\u0152\u0153\u2000-\u206f\u20ac\u2122\u2191\u2193\u2212\u2215\ufeff]/u;

/**
 * The fonts that a sheet with these words takes, the sheets' own first: more only where there are signs that it lacks. What no font here has
 * is told.
 */
export async function fontsFor(words: unknown): Promise<Uint8Array[]> {
  const others = [...new Set(JSON.stringify(words))].filter((sign) => !OWN.test(sign));
  const { urls, lacking } =
    others.length > 0
      ? await import("./other-scripts.ts").then(({ filesWith }) => filesWith(others))
      : { urls: [], lacking: [] };
  if (lacking.length > 0)
    useNotices
      .getState()
      .tell(`No font here has ${lacking.slice(0, 12).join(" ")}: the sheet shows ? for it.`);
  return Promise.all([archivo, ...urls].map(bytesOf));
}

async function bytesOf(url: string): Promise<Uint8Array> {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error("A font of the sheet could not be fetched.");
  return new Uint8Array(await answer.arrayBuffer());
}
