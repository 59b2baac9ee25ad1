import { micronsOf, type ScaleKey } from "./gradings.ts";
import type { Abrasive } from "./schema.ts";

const belt = (
  abrasive: Abrasive["abrasive"],
  scale: ScaleKey,
  grade: string,
  onHand: number,
  price: number,
  backing = "cloth",
): Abrasive => ({
  id: `${abrasive.replace(" ", "-")}-${scale.toLowerCase()}-${grade.toLowerCase().replace(/[^a-z0-9]/g, "")}`,
  abrasive,
  backing,
  scale,
  grade,
  microns: micronsOf(scale, grade)!,
  condition: "fresh",
  onHand,
  price,
});

const stone = (grade: string, price: number): Abrasive => ({
  ...belt("alumina", "JIS", grade, 1, price, "water"),
  id: `stone-${grade.replace("#", "")}`,
  form: "stone",
});

/** Water stones, a diamond plate and a strop: what an edge is sharpened with by hand. Made up, as the belts are. */
export const USUAL_STONES: readonly Abrasive[] = [
  { ...belt("diamond", "JIS", "#400", 1, 30, "steel"), id: "plate-400", form: "plate" },
  stone("#1000", 25),
  stone("#3000", 40),
  stone("#8000", 60),
  { ...belt("alumina", "micron", "1", 1, 5, "leather"), id: "strop-1", form: "strop" },
];

/** What a small shop has on its nails, until it says what it has. Made up; prices in no money in particular. */
export const USUAL_STORE: readonly Abrasive[] = [
  belt("ceramic", "P", "P36", 4, 9),
  belt("ceramic", "P", "P60", 4, 9),
  belt("ceramic", "P", "P80", 4, 8),
  belt("ceramic", "P", "P120", 6, 8),
  belt("alumina", "P", "P180", 4, 5),
  belt("alumina", "P", "P220", 6, 5),
  belt("alumina", "P", "P400", 6, 5),
  belt("structured", "micron", "30", 3, 14, "film"),
  belt("structured", "micron", "16", 3, 14, "film"),
  belt("silicon carbide", "P", "P600", 10, 1, "paper"),
  belt("silicon carbide", "P", "P1000", 10, 1, "paper"),
  ...USUAL_STONES,
];
