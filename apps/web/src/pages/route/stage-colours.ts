/** One pale ink for each stage that has a line of its own, rough to fine, all readable on layout blue. */
const INKS = [
  "#ff9d7d",
  "#ffc48a",
  "#ffe3a1",
  "#d9f0a8",
  "#a8e6c1",
  "#9ad7f0",
  "#c5c8ff",
  "#f0c4f2",
] as const;

export const stageInk = (i: number) => INKS[i % INKS.length]!;
