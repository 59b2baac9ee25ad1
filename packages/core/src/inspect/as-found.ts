import { bevelOn, SIDES, type Side } from "../blade/schema.ts";
import { read, type Table, table } from "../blade/table.ts";
import { leastSquares } from "../numbers/least-squares.ts";
import { otherwise, type StageSteel } from "../route/ladder.ts";
import type { Otherwise } from "../route/steel.ts";
import { faceErrorAt, responseAt } from "./faults/fault.ts";
import type { Figure } from "./figure.ts";
import type { Diagnosis, Explained } from "./fit.ts";
import { tagged } from "./plan.ts";
import { steelAt } from "./reader.ts";
import { faceResponse } from "./response.ts";
import type { Spot } from "./schema.ts";
import { type BenchSteel, targetAt } from "./target.ts";

/** The steel as it was found: how much more, square to it, each face has than its stage should leave, along the edge. */
export interface AsFound {
  readonly faces: { readonly [side in Side]: Table };
  /** How far that can be trusted at the places read, mm, one standard deviation. */
  readonly within: { readonly [side in Side]: Table };
  /** The places read, shares of the edge. */
  readonly at: readonly number[];
  /** What was found beside the faces: how it was held, its flats, its bends. */
  readonly beside: readonly Otherwise[];
}

/** How far a face strays from what the faults found say of it, between one place and the next, mm. Starting value. */
const STRAY = 0.08;
/** Shares of the edge between which a fault's own shape is followed. */
const FINE = 40;
/** Times that the steel as found is read again and put nearer to what was read: faces curve, and one step is not enough. */
const ROUNDS = 2;

/**
 * Bends the stage's steel to the readings: what the faults found say of each face, and at each place read what is left over,
 * shared between the faces by what each reading can tell; then the steel so found is read itself, and what it still shows
 * otherwise is shared again. Between places it runs straight. Null without a reading of a face.
 */
export function asFound(stage: BenchSteel, figures: readonly Figure[], { found }: Diagnosis): AsFound | null {
  const along = figures.filter(
    ({ spot }) => spot.u !== undefined && SIDES.some((side) => faceResponse(stage, spot, side) !== 0),
  );
  const us = [...new Set(along.map(({ spot }) => spot.u!))].sort((a, b) => a - b);
  if (us.length === 0) return null;
  const told = (side: Side, u: number) =>
    found.reduce((sum, one) => sum + faceErrorAt(one.shape, one.amplitudes, side, u), 0);
  const placed = new Map(us.map((u) => [u, along.filter(({ spot }) => spot.u === u)]));
  let strayed = us.map((u) => ({ u, value: [0, 0], within: [0, 0] }));
  const tables = () => made(us, told, strayed);
  // What is not of a face moves readings without any steel to come off.
  const elsewhere = ({ spot }: Figure) =>
    found.reduce((sum, one) => sum + (one.shape.faces.length === 0 ? saidBy(one, spot) : 0), 0);
  for (let round = 0; round <= ROUNDS; round++) {
    const faces = tables();
    const now = round === 0 ? null : otherwise(stage, { faces: (side, u) => read(faces[side], u) });
    strayed = strayed.map(({ u, value }) => {
      const here = placed.get(u)!;
      const left = here.map((figure) => {
        const { off, spot, target } = figure;
        const shown = now ? steelAt(now, spot) : null;
        // Where a line has run out of the blade its slope is all there is to go by.
        const byFaces =
          shown === null
            ? SIDES.reduce((sum, side) => sum + faceResponse(stage, spot, side) * read(faces[side], u), 0)
            : shown - target.value;
        return off - elsewhere(figure) - byFaces;
      });
      // A face that no reading speaks of stays where the faults say: a reading of its own of nothing, within STRAY.
      const columns = SIDES.map((side, k) => [
        ...here.map(({ spot }) => faceResponse(stage, spot, side)),
        ...SIDES.map((_, i) => (i === k ? 1 : 0)),
      ]);
      const fit = leastSquares(
        columns,
        [...left, ...value.map((one) => -one)],
        [...here.map((one) => one.uncertainty.u), STRAY, STRAY],
      )!;
      return { u, value: value.map((one, k) => one + fit.amplitudes[k]!), within: [...fit.u] };
    });
  }
  return {
    faces: tables(),
    within: perSide((k) =>
      table(
        strayed,
        ({ u }) => u,
        (row) => row.within[k]!,
      ),
    ),
    at: us,
    beside: found.flatMap(({ shape, size }) => (shape.steel ? [shape.steel(size)] : [])),
  };
}

function saidBy({ shape, amplitudes }: Explained, spot: Spot): number {
  return responseAt(shape, amplitudes, spot);
}

/** SIDES names the order of the columns. */
function perSide<T>(make: (k: number, side: Side) => T): { readonly [side in Side]: T } {
  return Object.fromEntries(SIDES.map((side, k) => [side, make(k, side)])) as { [side in Side]: T };
}

function made(
  us: readonly number[],
  told: (side: Side, u: number) => number,
  strayed: readonly { readonly u: number; readonly value: readonly number[] }[],
): AsFound["faces"] {
  const rows = [...new Set([...Array.from({ length: FINE + 1 }, (_, i) => i / FINE), ...us])].sort(
    (a, b) => a - b,
  );
  return perSide((k, side) => {
    const over = table(
      strayed,
      ({ u }) => u,
      ({ value }) => value[k]!,
    );
    return table(
      rows,
      (u) => u,
      (u) => told(side, u) + read(over, u),
    );
  });
}

/** The stage with its steel as it was found; `off` is what has come off a face since, square to it, mm. */
export function foundSteel<S extends StageSteel>(
  stage: S,
  { faces, beside }: AsFound,
  off: (side: Side, u: number) => number = () => 0,
): S {
  const cut = (side: Side) => bevelOn(stage.finished.blade, side).kind !== "none";
  const turned = beside.flatMap((one) => (one.turned ? [one.turned] : []));
  const flats = beside.flatMap((one) => (one.flats ? [one.flats] : []));
  const blades = beside.flatMap((one) => (one.blade ? [one.blade] : []));
  return otherwise(stage, {
    faces: (side, u) => (cut(side) ? read(faces[side], u) - off(side, u) : 0),
    ...(turned[0] ? { turned: turned[0] } : {}),
    ...(flats.length > 0 ? { flats: (side, x) => flats.reduce((sum, one) => sum + one(side, x), 0) } : {}),
    ...(blades.length > 0 ? { blade: (blade) => blades.reduce((file, change) => change(file), blade) } : {}),
  });
}

/** Places nearer to one another than this tell nothing more of where a fault ends, mm. */
const NEAR = 5;
/** Least difference of a face from one place read to the next for which a look between them is worth it, mm. */
const WORTH_A_LOOK = 0.045;

/**
 * Between two places read a face is taken to run straight. Where it rises gently it does, as round a belly; where it rises
 * steeply a fault ends there, nobody knows where between the two. mm for each mm along the edge; held by the rounds of
 * correction in the tests.
 */
export const GENTLE = 0.006;
export const STEEP = 0.016;

/** Spots half way between places where a fault of a face ends: steel is to come off where it stands and nowhere else. */
export function endsToRead(stage: BenchSteel, { at, faces }: AsFound): Spot[] {
  return at.slice(1).flatMap((after, i) => {
    const before = at[i]!;
    const apart = (after - before) * stage.steel.field.edge.length;
    const differs = Math.max(
      ...SIDES.map((side) => Math.abs(read(faces[side], after) - read(faces[side], before))),
    );
    if (apart < NEAR || differs < WORTH_A_LOOK) return [];
    const u = Math.round(((before + after) / 2) * 1000) / 1000;
    const spots = (["line", "over"] as const).flatMap((what) =>
      SIDES.map((side): Spot => tagged(stage, { what, u, side })),
    );
    const there = spots.filter((spot) => targetAt(stage, spot) !== null);
    // A line is quickly read, and tells more of its face than the edge does.
    const lines = there.filter(({ what }) => what === "line");
    return lines.length > 0 ? lines : there;
  });
}
