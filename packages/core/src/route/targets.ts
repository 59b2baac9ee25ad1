import type { PerSide } from "../blade/station.ts";
import type { StageSteel } from "./ladder.ts";
import type { Steel } from "./steel.ts";

/** What should be met at one place of the edge when a stage is done. Null where there is no such thing. */
export interface StageTarget {
  readonly place: "heel" | "middle" | "tip";
  readonly x: number;
  readonly u: number;
  /** The blade's height there square to its edge, mm. */
  readonly height: number;
  readonly flats: number;
  /** The very edge, mm: what to stop at. */
  readonly edge: number;
  /** How much thicker that edge is for each millimetre on both faces. */
  readonly edgePerFace: number;
  readonly grindLine: PerSide<number | null>;
  readonly angle: PerSide<number | null>;
}

/** Shares of the edge that stand for heel, middle and tip, clear of plunge and point. */
export function placesOf({
  drawn: { stations, clear },
}: Steel): { place: StageTarget["place"]; u: number }[] {
  const heel = stations.find((_, i) => clear[i])?.u ?? 0.05;
  return [
    { place: "heel", u: heel },
    { place: "middle", u: (heel + 0.95) / 2 },
    { place: "tip", u: 0.95 },
  ];
}

/** What the steel is asked with more of, mm on both faces. */
const MORE = 0.05;

/** What a caliper or a height gauge should meet when a stage is done, at heel, middle and tip. */
export function targetsAt({ steel, finished, isBevelled }: StageSteel): StageTarget[] {
  const thicker = steel.otherwise({ faces: () => MORE });
  return placesOf(finished).map(({ place, u }) => {
    const { x, height, flats, edge, left, right } = steel.station(u);
    const ofBevel = (value: number | null) => (isBevelled ? value : null);
    return {
      place,
      x,
      u,
      height,
      flats,
      edge,
      edgePerFace: isBevelled ? (thicker.station(u).edge - edge) / MORE : 2,
      grindLine: { left: ofBevel(left.grindLine), right: ofBevel(right.grindLine) },
      angle: { left: ofBevel(left.primaryAngle), right: ofBevel(right.primaryAngle) },
    };
  });
}
