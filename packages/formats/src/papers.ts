/** Paper, mm, lying on its long side. Source: ISO 216; ANSI Y14.1 for Letter, 11 × 8.5 in. */
export const PAPERS = {
  A4: { width: 297, height: 210 },
  Letter: { width: 279.4, height: 215.9 },
} as const;
export type Paper = keyof typeof PAPERS;
