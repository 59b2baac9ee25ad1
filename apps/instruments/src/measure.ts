import { QUANTITY } from "@true-spine/core/inspect/quantity.ts";
import type { Spot } from "@true-spine/core/inspect/schema.ts";
import type { Instrument } from "@true-spine/core/shop/instrument.ts";
import type { Piece } from "./piece.ts";
import type { Random } from "./random.ts";

/** How well the hands that hold a simulated instrument find a place, mm, one standard deviation. */
const HANDS = { seen: 0.15, shoulder: 0.1, seated: 0.05, height: 0.25, along: 0.5 } as const;

/** What the rest of the bench's steel reads where no face is asked: bow mm, twist degrees, hardness HRC. */
export interface Whole {
  readonly bow: number;
  readonly twist: number;
  readonly hardness: number;
}

/**
 * What an instrument reads on a piece at a spot: the piece's own steel, met by jaws of a width at a place that is not quite the
 * one meant, with the instrument's noise and its known and unknown errors, in steps of its last figure. Null where there is
 * nothing to read.
 */
export function measure(
  piece: Piece,
  spot: Spot,
  instrument: Pick<Instrument, "repeat" | "resolution" | "jaw">,
  whole: Whole,
  random: Random,
  bias = 0,
): number | null {
  const true_ = steelAt(piece, spot, instrument.jaw ?? 0, whole, random);
  if (true_ === null) return null;
  const read = true_ + bias + random.normal() * instrument.repeat;
  const step = instrument.resolution;
  const shown = Math.round(read / step) * step;
  return Number((QUANTITY[spot.what].isSigned ? shown : Math.max(0, shown)).toFixed(4));
}

function steelAt(piece: Piece, spot: Spot, jaw: number, whole: Whole, random: Random): number | null {
  const u = () => {
    const missed = (random.normal() * HANDS.along) / piece.edgeLength;
    return Math.max(0.001, Math.min(0.999, spot.u! + missed));
  };
  switch (spot.what) {
    case "flats":
      return piece.flats(spot.x! + random.normal() * HANDS.along);
    case "edge":
      return jawed(piece, u(), Math.abs(random.normal() * HANDS.seated), jaw);
    case "behind":
      return jawed(piece, u(), shoulder(piece, spot.u!) + random.normal() * HANDS.shoulder, jaw);
    case "edge-height":
      return Math.max(0.01, shoulder(piece, spot.u!) + random.normal() * HANDS.shoulder);
    case "edge-face":
      return Math.max(0.01, facet(piece, spot.u!, spot.side!) + random.normal() * HANDS.shoulder);
    case "above":
      return jawed(piece, u(), Math.max(0, spot.height! + random.normal() * HANDS.height), jaw);
    case "over": {
      const { x, y } = piece.edgeAt(u());
      return piece.flats(x) / 2 + piece.half(spot.side!, x, y) + piece.rises(spot.side!, spot.u!);
    }
    case "line":
      return seen(piece.line(spot.side!, u()), HANDS.seen, random);
    case "angle": {
      const at = u();
      const top = Math.min(piece.line(spot.side!, at) ?? Number.POSITIVE_INFINITY, piece.height(at));
      const { x, y, inward } = piece.edgeAt(at);
      const height = (share: number) => {
        const s = top * share;
        return piece.half(spot.side!, x + inward[0] * s, y + inward[1] * s);
      };
      return (Math.atan2(height(0.65) - height(0.35), top * 0.3) * 180) / Math.PI;
    }
    case "plunge":
      return seen(piece.plunge(spot.side!), HANDS.shoulder, random);
    case "lean":
      return piece.lean(spot.side!);
    case "square":
      return piece.square;
    case "bow":
      return whole.bow + piece.bow;
    case "twist":
      return whole.twist + piece.twist;
    case "hardness":
      return whole.hardness;
    default:
      // A hidden piece is ground steel: nothing of a blank can be read on it.
      return null;
  }
}

/** A length to something that must be seen first. */
function seen(length: number | null, within: number, random: Random): number | null {
  return length === null ? null : length + random.normal() * within;
}

/** Along the facet of a side, from the edge up to where it ends. */
function facet(piece: Piece, u: number, side: "left" | "right"): number {
  const up = shoulder(piece, u);
  const { x, y, inward } = piece.edgeAt(u);
  return Math.hypot(up, piece.half(side, x + inward[0] * up, y + inward[1] * up));
}

/** Parallel jaws from a height up: they touch the thickest steel under them. */
function jawed(piece: Piece, u: number, from: number, jaw: number): number {
  const { x, y, inward } = piece.edgeAt(u);
  let most = 0;
  for (let i = 0; i <= 8; i++) {
    const s = from + (jaw * i) / 8;
    const [px, py] = [x + inward[0] * s, y + inward[1] * s];
    most = Math.max(most, piece.half("left", px, py) + piece.half("right", px, py));
  }
  return most;
}

/** Where the edge bevel ends: walking up to the kink in the piece's own steel. */
function shoulder(piece: Piece, u: number): number {
  const { x, y, inward } = piece.edgeAt(u);
  const at = (s: number) =>
    piece.half("left", x + inward[0] * s, y + inward[1] * s) +
    piece.half("right", x + inward[0] * s, y + inward[1] * s);
  const steep = at(0.1) - at(0.05);
  for (let s = 0.1; s < 6; s += 0.02) if (at(s + 0.05) - at(s) < steep * 0.6) return s + 0.025;
  return 0;
}
