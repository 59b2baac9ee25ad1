import type { Field } from "../blade/field.ts";
import { type Line, sectionShape } from "../blade/lines.ts";
import { PIECE } from "./piece.ts";

/** What a sum draws: steel and lines in millimetres, right side +z and up +y, with what is written beside them. */
export interface Sketch {
  readonly steel: readonly Line[];
  /** Another piece laid over it, in outline. */
  readonly beside?: readonly Line[];
  readonly marks: readonly Mark[];
  /** Drawn up to here only, mm; absent: all of it. */
  readonly tall?: number;
}

export interface Mark {
  readonly line: Line;
  readonly kind: "size" | "scribed" | "datum";
  /** Written at its last point. */
  readonly words?: string;
}

/** The section of a piece square to its edge, its apex at nought. */
export function sectionOf(field: Field): Line[] {
  const { bottom } = field.ring;
  return sectionShape(field, PIECE.middle).map((shape) => shape.map(([z, y]) => [z, y - bottom] as const));
}

/** A size across a section at a height. */
export function acrossAt(height: number, thickness: number, words: string): Mark {
  return {
    kind: "size",
    words,
    line: [
      [-thickness / 2, height],
      [thickness / 2 + 1.2, height],
    ],
  };
}

/** A size up a section, left of it. */
export function upTo(from: number, to: number, at: number, words: string): Mark {
  return {
    kind: "size",
    words,
    line: [
      [-at, from],
      [-at, to],
    ],
  };
}
