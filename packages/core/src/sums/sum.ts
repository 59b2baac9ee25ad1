import type { Blade } from "../blade/schema.ts";
import { showAngle } from "../units/angle.ts";
import { type LengthUnit, showLengthWithUnit } from "../units/length.ts";
import type { Sketch } from "./sketch.ts";

/**
 * A sum: one question of the bench, asked by a few boxes and answered by the field of a blade made for it. Lengths mm, angles degrees
 * per side unless a name says otherwise.
 */
export interface Sum {
  readonly key: string;
  readonly group: SumGroup;
  readonly name: string;
  /** What a maker would type to find it. */
  readonly words: string;
  /** What to put in, in a line. */
  readonly how: string;
  readonly asks: readonly Ask[];
  answer(given: Given, say: Say): Answer;
}

export const SUM_GROUPS = ["bevel and edge", "scribe", "grow", "set", "taper", "bench"] as const;
export type SumGroup = (typeof SUM_GROUPS)[number];

/** What a length may be read with; the uncertainty follows from it. */
export type ReadAs = "thickness" | "height";

/** One box of a sum; `only` says for which choices it is asked at all. */
export type Ask = { readonly only?: { readonly key: string; readonly of: readonly string[] } } & (
  | {
      readonly kind: "length" | "angle" | "number" | "share";
      readonly key: string;
      readonly name: string;
      readonly readAs?: ReadAs;
      /** What is taken while the box is empty. */
      readonly usual?: number;
    }
  | {
      readonly kind: "choice";
      readonly key: string;
      readonly name: string;
      readonly options: readonly { readonly value: string; readonly name: string }[];
      readonly usual: string;
    }
  | { readonly kind: "text"; readonly key: string; readonly name: string; readonly usual?: string }
);

/** What stands in the boxes: empty ones are not there. */
export type Given = Readonly<Record<string, number | string>>;

export type FigureUnit = "mm" | "°" | "%" | "mm²" | "g" | "min" | "µm" | "°C" | "°F" | "";

/** One figure of an answer. */
export interface Figure {
  readonly name: string;
  readonly value: number;
  readonly unit: FigureUnit;
  /** What was asked for: shown large. */
  readonly isMain?: boolean;
  /** In words where a number does not say it. */
  readonly words?: string;
}

export type Answer =
  | { readonly state: "wanting"; readonly why: string }
  | { readonly state: "impossible"; readonly because: string; readonly nearest?: Nearest }
  | {
      readonly state: "answered";
      readonly figures: readonly Figure[];
      /** The relations with their figures put in: they explain, the field answers. */
      readonly relations: readonly string[];
      /** What else is worth knowing, in words. */
      readonly notes?: readonly string[];
      readonly sketch?: Sketch;
      /** The blade that was made for the question. */
      readonly blade?: Blade;
      /** Puts the answer into another blade. */
      readonly put?: (copy: Blade) => void;
    };

/** The nearest that is possible: in words, and as what to put into which box. */
export interface Nearest {
  readonly words: string;
  readonly given: Given;
}

/** Figures as relations write them, in the unit on show. */
export interface Say {
  length(mm: number): string;
  angle(degrees: number): string;
}

export function sayIn(unit: LengthUnit): Say {
  return {
    length: (mm) => showLengthWithUnit(mm, unit, unit === "mm" ? 3 : unit === "inch" ? 4 : undefined),
    angle: (degrees) => showAngle(degrees, 3),
  };
}

/** A number that was given; undefined while its box is empty. */
export function numberOf(given: Given, key: string): number | undefined {
  const value = given[key];
  return typeof value === "number" ? value : undefined;
}

export const wanting = (why: string): Answer => ({ state: "wanting", why });
export const impossible = (because: string, nearest?: Nearest): Answer => ({
  state: "impossible",
  because,
  ...(nearest ? { nearest } : {}),
});

export const length = (name: string, value: number, isMain = false): Figure => ({
  name,
  value,
  unit: "mm",
  isMain,
});
export const angle = (name: string, value: number, isMain = false): Figure => ({
  name,
  value,
  unit: "°",
  isMain,
});

/** A box for a length, an angle or a plain number. */
export const askLength = (key: string, name: string, readAs?: ReadAs, usual?: number): Ask => ({
  kind: "length",
  key,
  name,
  ...(readAs ? { readAs } : {}),
  ...(usual === undefined ? {} : { usual }),
});
export const askAngle = (key: string, name: string, usual?: number): Ask => ({
  kind: "angle",
  key,
  name,
  ...(usual === undefined ? {} : { usual }),
});
export const askNumber = (key: string, name: string, usual?: number): Ask => ({
  kind: "number",
  key,
  name,
  ...(usual === undefined ? {} : { usual }),
});
