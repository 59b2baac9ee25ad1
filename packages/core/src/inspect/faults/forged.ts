import type { StageSteel } from "../../route/ladder.ts";
import type { Spot } from "../schema.ts";
import { placeOf } from "../span.ts";
import type { Shape } from "./fault.ts";

/** Lengths of a ripple along a forged edge, mm: from blow to blow. Common practice. */
const RIPPLES = [15, 18, 21, 25, 30];
const ENOUGH = 6;
/** A thin spot reaches so far to either side, mm. */
const REACH = 12;

/** What the hammer leaves: a blank swept up, a rippled edge, a place struck too thin. One unit is 1 mm of what is read. */
export function forgedShapes(stage: StageSteel, spots: readonly Spot[]): Shape[] {
  return [swept(), ...rippled(stage, spots), ...thinSpots(stage, spots)];
}

function swept(): Shape {
  return {
    pattern: "sweep",
    unit: "mm",
    faces: [],
    responses: [({ what }) => (what === "sweep" ? 1 : 0)],
  };
}

function rippled(stage: StageSteel, spots: readonly Spot[]): Shape[] {
  const places = spots
    .flatMap(({ what, u }) => (what === "edge" && u !== undefined ? [placeOf(stage, u)] : []))
    .sort((a, b) => a - b);
  if (places.length < ENOUGH) return [];
  const apart = (places.at(-1)! - places[0]!) / (places.length - 1);
  // What is shorter than twice the places' distance cannot be told from another: Nyquist.
  return RIPPLES.filter((length) => length > 2 * apart).map((length) => {
    const at = ({ what, u }: Spot, of: (angle: number) => number) =>
      what === "edge" && u !== undefined ? of((2 * Math.PI * placeOf(stage, u)) / length) : 0;
    return {
      pattern: "ripple",
      unit: "mm",
      x: [places[0]!, places.at(-1)!],
      faces: [],
      ripple: length,
      responses: [(spot: Spot) => at(spot, Math.sin), (spot: Spot) => at(spot, Math.cos)],
    };
  });
}

function thinSpots(stage: StageSteel, spots: readonly Spot[]): Shape[] {
  const where = ({ u, x }: Spot) => (u === undefined ? (x ?? 0) : placeOf(stage, u));
  const all = [...new Set(spots.filter(({ what }) => what === "edge" || what === "flats").map(where))];
  return all.map((middle) => ({
    pattern: "thin-spot",
    unit: "mm",
    x: [middle - REACH, middle + REACH],
    faces: [],
    sign: -1,
    responses: [
      (spot: Spot) =>
        spot.what === "edge" || spot.what === "flats"
          ? Math.max(0, 1 - Math.abs(where(spot) - middle) / REACH)
          : 0,
    ],
  }));
}
