import { readFileSync } from "node:fs";
import { parseBlade } from "@true-spine/core/blade/parse.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { figureOf } from "@true-spine/core/inspect/figure.ts";
import { QUANTITY } from "@true-spine/core/inspect/quantity.ts";
import type { Reading, Spot } from "@true-spine/core/inspect/schema.ts";
import { type BenchSteel, benchSteel } from "@true-spine/core/inspect/target.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import type { Route, StageKind } from "@true-spine/core/route/schema.ts";
import { type InstrumentKind, USUAL_INSTRUMENTS } from "@true-spine/core/shop/instrument.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { measure } from "../src/measure.ts";
import { cutPiece, type Fault, type Piece, type Taken } from "../src/piece.ts";
import { type Random, randomFrom } from "../src/random.ts";

/** The field knife of the examples without its false edge, changed by `change`. */
// biome-ignore lint/suspicious/noExplicitAny: tests change files freely
export function knife(change: (file: any) => void = () => {}): Blade {
  const file = JSON.parse(
    readFileSync(new URL("../../../packages/core/examples/field.json", import.meta.url), "utf8"),
  );
  delete file.falseEdge;
  change(file);
  const parsed = parseBlade(file);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
  return parsed.blade;
}

export const hollowKnife = () =>
  knife((file) => {
    file.bevels.right = {
      kind: "hollow",
      wheelDiameter: 254,
      pull: "follow",
      set: "height",
      height: [
        { u: 0, h: 18 },
        { u: 1, h: 9 },
      ],
      plunge: { x: 12, lean: 5, radius: 4 },
    };
  });

/** Hollow on both edges: the example of the kinds. */
export function dagger(): Blade {
  const file = new URL("../../../packages/core/examples/kinds/dagger.json", import.meta.url);
  const parsed = parseBlade(JSON.parse(readFileSync(file, "utf8")));
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
  return parsed.blade;
}

export interface Setup {
  readonly blade: Blade;
  readonly route: Route;
  readonly stage: BenchSteel;
}

export function setupOf(blade: Blade, stage: StageKind): Setup {
  const route = firstRoute(blade);
  return { blade, route, stage: benchSteel(blade, route, USUAL_SHOP, stage, 60) };
}

/** A piece cut for a stage, with faults and with a sound hand's wander. */
export function pieceOf(
  { blade, stage }: Setup,
  faults: readonly Fault[],
  random: Random,
  taken: readonly Taken[] = [],
): Piece {
  return cutPiece({
    blade,
    left: stage.left,
    isSharpened: stage.isSharpened,
    faults,
    taken,
    wander: { by: 0.012, phase: random.next() * 6 },
  });
}

/** Goes round with the usual instruments, at their usual noise. */
export function roundOf(
  piece: Piece,
  spots: readonly Spot[],
  stage: string,
  random: Random,
  bias: Partial<Record<InstrumentKind, number>> = {},
): Reading[] {
  return spots.flatMap((spot, i) => {
    const instrument = USUAL_INSTRUMENTS.find(({ kind }) => kind === QUANTITY[spot.what].instrument)!;
    const whole = { bow: 0, twist: 0, hardness: 60 };
    const value = measure(piece, spot, instrument, whole, random, bias[instrument.kind] ?? 0);
    if (value === null) return [];
    const id = `00000000-0000-4000-8000-${i.toString(16).padStart(12, "0")}`;
    return [{ id, when: "2026-11-20T10:00:00Z", stage, ...spot, value, by: "instrument" as const }];
  });
}

export function figuresOf({ stage }: Setup, readings: readonly Reading[]) {
  return readings.flatMap((reading) => {
    const { what, u, x, side, height } = reading;
    const spot = JSON.parse(JSON.stringify({ what, u, x, side, height })) as Spot;
    return figureOf(stage, spot, [reading], USUAL_INSTRUMENTS) ?? [];
  });
}

export { randomFrom };
