import { SIDES, type Side } from "../blade/schema.ts";
import { otherwise, type StageSteel } from "../route/ladder.ts";
import type { Otherwise, Steel } from "../route/steel.ts";
import { QUANTITY } from "./quantity.ts";
import { steelAt } from "./reader.ts";
import { type Spot, spotKey } from "./schema.ts";

/**
 * What a distortion of the steel does to a reading: the reader asked twice, with it and without, divided by its size, and kept. So
 * hollow, convex, straight and full faces come right by themselves.
 */

/** Square to a face, mm; turned, degrees: as large as faults are, so that a curved face is met where it matters. */
const FACE_STEP = 0.06;
const TURN_STEP = 0.3;

interface Kept {
  readonly stages: Map<string, StageSteel>;
  /** By distortion and kind of stage, then by the spot itself, then by what it says. */
  readonly responses: Map<string, { bySpot: WeakMap<Spot, number>; byKey: Map<string, number> }>;
}
const kept = new WeakMap<Steel, Kept>();

function keptFor({ steel }: StageSteel): Kept {
  let known = kept.get(steel);
  if (!known) {
    known = { stages: new Map(), responses: new Map() };
    kept.set(steel, known);
  }
  return known;
}

/**
 * What one unit of a distortion adds to a reading. `key` names the distortion, `of` gives it at a size; `step` is how large it is
 * asked, `only` to which side where it is not alike to both.
 */
export function responseTo(
  stage: StageSteel,
  spot: Spot,
  key: string,
  step: number,
  of: (size: number) => Otherwise,
  only?: 1 | -1,
): number {
  const { stages, responses } = keptFor(stage);
  const name = `${key} ${stage.isBevelled} ${stage.isSharpened}`;
  let known = responses.get(name);
  if (!known) {
    known = { bySpot: new WeakMap(), byKey: new Map() };
    responses.set(name, known);
  }
  let response = known.bySpot.get(spot);
  if (response !== undefined) return response;
  const what = spotKey(spot);
  response = known.byKey.get(what);
  if (response === undefined) {
    const at = (size: number) => {
      const name = `${key} ${size}`;
      let changed = stages.get(name);
      if (!changed) {
        changed = otherwise(stage, of(size));
        stages.set(name, changed);
      }
      return steelAt({ ...stage, steel: changed.steel }, spot);
    };
    const [low, high] = [only === 1 ? null : at(-step), only === -1 ? null : at(step)];
    response = secant(low, steelAt(stage, spot), high, step);
    known.byKey.set(what, response);
  }
  known.bySpot.set(spot, response);
  return response;
}

/** By both sides where there is something to read on both, else by the one; nothing where there is neither. */
function secant(low: number | null, middle: number | null, high: number | null, step: number): number {
  if (middle === null) return 0;
  if (low !== null && high !== null) return (high - low) / (2 * step);
  if (high !== null) return (high - middle) / step;
  return low !== null ? (middle - low) / step : 0;
}

/** What 1 mm more on a side's face, square to it, adds to the reading at a spot. */
export function faceResponse(stage: StageSteel, spot: Spot, side: Side): number {
  if (QUANTITY[spot.what].at !== "u") return 0;
  return responseTo(stage, spot, `face ${side}`, FACE_STEP, (size) => ({
    faces: (one) => (one === side ? size : 0),
  }));
}

/** What a degree more on a side's bevel, held at the very edge or at its line, adds to the reading at a spot. */
export function turnResponse(stage: StageSteel, spot: Spot, side: Side, about: "edge" | "line"): number {
  if (QUANTITY[spot.what].at !== "u") return 0;
  return responseTo(stage, spot, `turn ${side} ${about}`, TURN_STEP, (size) => ({
    turned: { by: { left: side === "left" ? size : 0, right: side === "right" ? size : 0 }, about },
  }));
}

/** The same for faces that stand proud by so much at the spot's own share of the edge. */
export function facesResponse(stage: StageSteel, spot: Spot, on: (side: Side, u: number) => number): number {
  if (spot.u === undefined) return 0;
  return SIDES.reduce((sum, side) => {
    const proud = on(side, spot.u!);
    return proud === 0 ? sum : sum + faceResponse(stage, spot, side) * proud;
  }, 0);
}
