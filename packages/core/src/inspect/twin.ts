import { compileField, type Field } from "../blade/field.ts";
import { SIDES, type Side } from "../blade/schema.ts";
import { read, type Table, table } from "../blade/table.ts";
import type { Figure } from "./figure.ts";
import type { Diagnosis } from "./fit.ts";
import { leastSquares } from "./least-squares.ts";
import { faceErrorAt, faceResponse, responseAt } from "./patterns.ts";
import type { Spot } from "./schema.ts";
import { type StageSteel, wantedAt } from "./wanted.ts";

/** The steel as it was found: how much more, square to it, each face has than its stage should leave, along the edge. */
export interface Twin {
  readonly faces: { readonly [side in Side]: Table };
  /** How far that can be trusted at the places read, mm, one standard deviation. */
  readonly within: { readonly [side in Side]: Table };
  /** The places read, shares of the edge. */
  readonly at: readonly number[];
}

/** How far a face strays from what the patterns say of it, between one place and the next, mm. Starting value. */
const STRAY = 0.08;
/** Shares of the edge between which a pattern's own shape is followed. */
const FINE = 40;

/**
 * Bends the stage's steel to the readings: what the patterns found say of each face, and at each place read what is left over,
 * shared between the faces by what each reading can tell. Between places it runs straight. Null without a reading of a face.
 */
export function twinOf(steel: StageSteel, figures: readonly Figure[], { found }: Diagnosis): Twin | null {
  const along = figures.filter(
    ({ spot }) => spot.u !== undefined && SIDES.some((side) => faceResponse(steel, spot, side) !== 0),
  );
  const us = [...new Set(along.map(({ spot }) => spot.u!))].sort((a, b) => a - b);
  if (us.length === 0) return null;
  const told = (side: Side, u: number) =>
    found.reduce((sum, one) => sum + faceErrorAt(one.shape, one.amplitudes, side, u), 0);
  const rest = us.map((u) => {
    const here = along.filter(({ spot }) => spot.u === u);
    const values = here.map(
      ({ off, spot }) =>
        off - found.reduce((sum, one) => sum + responseAt(one.shape, one.amplitudes, spot), 0),
    );
    // A face that no reading speaks of stays where the patterns say: a reading of its own of nothing, within STRAY.
    const columns = SIDES.map((side, k) => [
      ...here.map(({ spot }) => faceResponse(steel, spot, side)),
      ...SIDES.map((_, i) => (i === k ? 1 : 0)),
    ]);
    const fit = leastSquares(
      columns,
      [...values, 0, 0],
      [...here.map((one) => one.uncertainty.u), STRAY, STRAY],
    )!;
    return { u, value: fit.amplitudes, within: fit.u };
  });
  const strayed = SIDES.map((_, k) =>
    table(
      rest,
      ({ u }) => u,
      ({ value }) => value[k]!,
    ),
  );
  const rows = Array.from({ length: FINE + 1 }, (_, i) => i / FINE);
  const face = (side: Side, k: number) =>
    table(
      rows,
      (u) => u,
      (u) => told(side, u) + read(strayed[k]!, u),
    );
  const within = (k: number) =>
    table(
      rest,
      ({ u }) => u,
      (row) => row.within[k]!,
    );
  // SIDES names the order of the columns.
  const of = <T>(make: (side: Side, k: number) => T) =>
    Object.fromEntries(SIDES.map((side, k) => [side, make(side, k)])) as { [side in Side]: T };
  return { faces: of(face), within: of((_, k) => within(k)), at: us };
}

/** The as-found steel as a field: the finished blade's faces raised by what is still on them and by what was found. */
export function twinField(steel: StageSteel, twin: Twin): Field {
  const raised = (side: Side) =>
    table(
      [...twin.faces[side].at],
      (u) => u,
      (u) => steel.left.faces + read(twin.faces[side], u),
    );
  return compileField(steel.blade, {
    flats: steel.left.flats,
    faces: { left: raised("left"), right: raised("right") },
    edgeBevel: steel.isSharpened,
    falseEdge: steel.isSharpened,
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
export function endsToRead(steel: StageSteel, { at, faces }: Twin): Spot[] {
  return at.slice(1).flatMap((after, i) => {
    const before = at[i]!;
    const apart = (after - before) * steel.field.edge.length;
    const differs = Math.max(
      ...SIDES.map((side) => Math.abs(read(faces[side], after) - read(faces[side], before))),
    );
    if (apart < NEAR || differs < WORTH_A_LOOK) return [];
    const u = Math.round(((before + after) / 2) * 1000) / 1000;
    const spots = (["line", "over"] as const).flatMap((what) =>
      SIDES.map((side): Spot => ({ what, u, side })),
    );
    const there = spots.filter((spot) => wantedAt(steel, spot) !== null);
    // A line is quickly read, and tells more of its face than the edge does.
    const lines = there.filter(({ what }) => what === "line");
    return lines.length > 0 ? lines : there;
  });
}
