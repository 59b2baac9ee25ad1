import { barArea, barPerimeter, type ForgeBar } from "./bar.ts";
import type { Blank, BlankSection } from "./blank.ts";
import type { Forge } from "./schema.ts";

/** Steel lost to scale on each face in each heat, mm: 0.003 to 0.1, starting value. */
export const SCALE = 0.02;
/** Spare length for what nobody foresees, as twice this share of the bar: starting value. */
export const SPARE = 0.06;

/** Where along the bar each part of the blank comes from. Lengths mm along the bar from its end. */
export interface BarMap {
  /** From the tip's end; the first at the tip. */
  readonly rows: readonly { readonly x: number; readonly s: number; readonly rate: number }[];
  /** Bar that the blank takes, without kerf and spare. */
  readonly needed: number;
  readonly kerf: number;
  readonly spare: number;
  /** All of it: what to cut. */
  readonly total: number;
  /** The bar at a place of the blank, and back. */
  sAt(x: number): number;
  xAt(s: number): number;
  /** Volumes, mm³: of the blank, lost to scale, and cut off. */
  readonly volume: number;
  readonly scaled: number;
  readonly cut: number;
}

/** Heats that each part is in the fire for. */
export interface HeatsOf {
  readonly blade: number;
  readonly tang: number;
}

/** Bar for each mm of the blank: below 1 it is drawn out, above 1 it would have to be upset. Source: geometry. */
export function barRate(
  { area, perimeter, isBolster }: Pick<BlankSection, "area" | "perimeter" | "isBolster">,
  bar: ForgeBar,
  heats: number,
  scale = SCALE,
): number {
  if (isBolster) return 1;
  return (area + (heats * scale * perimeter) / 2) / (barArea(bar) - (heats * scale * barPerimeter(bar)) / 2);
}

const STEP = 0.5;
/** What is read so near within an end or a step, mm. */
const WITHIN = 1e-4;

/** The blank's sections from its tip back, evenly; the first and the last a hair within its ends. */
export function sectionsOf(blank: Blank, step = STEP) {
  const count = Math.max(2, Math.ceil((blank.right - blank.left) / step));
  const even = Array.from(
    { length: count + 1 },
    (_, i) => blank.right - ((blank.right - blank.left) * i) / count,
  );
  const beside = blank.steps.flatMap((x) => [x - WITHIN, x + WITHIN]);
  return [...even, ...beside]
    .map((x) => Math.min(blank.right - WITHIN, Math.max(blank.left + WITHIN, x)))
    .toSorted((a, b) => b - a)
    .map((x) => blank.section(x)!);
}

/**
 * The bar that each place of a blank comes from: ds/dx = (A + nσP/2)/(S − nσP₀/2), from the tip back, where half of the scale is lost
 * of the bar's own section and half of the blank's. With a full-width cut `c` long at the point half of that lies before it. mm.
 * Source: geometry, the volume that is kept.
 */
export function barMap(
  blank: Blank,
  bar: ForgeBar,
  forge: Pick<Forge, "kerf">,
  {
    heats = { blade: 0, tang: 0 },
    scale = SCALE,
    cut = 0,
    spare = SPARE,
    sections = sectionsOf(blank),
  }: {
    heats?: HeatsOf;
    scale?: number;
    cut?: number;
    spare?: number;
    sections?: ReturnType<typeof sectionsOf>;
  } = {},
): BarMap {
  const S = barArea(bar);
  const front = Math.min(blank.plunge ?? 0, 0);
  const rate = (section: BlankSection) =>
    barRate(section, bar, section.x >= front ? heats.blade : heats.tang, scale);
  const rows: { x: number; s: number; rate: number }[] = [];
  let [s, volume] = [cut / 2, 0];
  for (const [i, section] of sections.entries()) {
    const before = sections[i - 1];
    if (before) {
      const dx = before.x - section.x;
      s += ((rate(before) + rate(section)) / 2) * dx;
      volume += ((before.area + section.area) / 2) * dx;
    }
    rows.push({ x: section.x, s, rate: rate(section) });
  }
  const needed = s;
  const spared = 2 * spare * needed;
  const between = (key: "x" | "s", other: "s" | "x", at: number, isRising: boolean) => {
    const i = rows.findIndex((row) => (isRising ? row[key] >= at : row[key] <= at));
    if (i < 0) return rows.at(-1)![other];
    if (i === 0) return rows[0]![other];
    const [a, b] = [rows[i - 1]!, rows[i]!];
    return a[other] + ((b[other] - a[other]) * (at - a[key])) / (b[key] - a[key] || 1);
  };
  return {
    rows,
    needed,
    kerf: forge.kerf,
    spare: spared,
    total: needed + forge.kerf + spared,
    sAt: (x) => between("x", "s", x, false),
    xAt: (along) => between("s", "x", along, true),
    volume,
    scaled: (needed - cut / 2) * S - volume,
    cut: (cut / 2) * S,
  };
}
