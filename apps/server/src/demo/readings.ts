import type { Blade } from "@true-spine/core/blade/schema.ts";
import { benchOf } from "@true-spine/core/inspect/bench.ts";
import type { Run } from "@true-spine/core/inspect/run-schema.ts";
import { type Check, NO_CHECK, type Reading, type Spot } from "@true-spine/core/inspect/schema.ts";
import type { Route, StageKind } from "@true-spine/core/route/schema.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";

/** Made-up readings for the demo: what should be read, with a hand's scatter that comes out the same every time. */

/** Numbers about 0 that look scattered, spread 1: a sum of twelve evenly spread ones. Source: central limit theorem. */
function scatterFrom(seed: number): () => number {
  let state = seed;
  const next = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
  return () => Array.from({ length: 12 }, next).reduce((sum, one) => sum + one, -6);
}

const idFrom = (seed: number, i: number) =>
  `5eed${seed.toString(16).padStart(4, "0")}-0000-4000-8000-${i.toString(16).padStart(12, "0")}`;

const SPREAD = { mm: 0.02, "°": 0.1, HRC: 0.4 } as const;

/** Every place of a stage's round read once, as it should be but for the scatter. */
export function soundReadings(
  blade: Blade,
  route: Route,
  stage: StageKind,
  check: Check,
  seed: number,
  from: string,
): Reading[] {
  const scatter = scatterFrom(seed);
  const { lines } = benchOf({ blade, route, shop: USUAL_SHOP, stage, check, readings: [] });
  const start = Date.parse(from);
  return lines.map(({ spot, shows }, i) => ({
    id: idFrom(seed, i),
    when: new Date(start + i * 20_000).toISOString(),
    stage,
    ...spot,
    value: round(shows + scatter() * spreadOf(spot)),
    by: "hand",
  }));
}

const round = (value: number) => Math.round(value * 100) / 100;

function spreadOf({ what }: Spot): number {
  if (what === "line" || what === "plunge") return 0.12;
  if (what === "angle" || what === "twist" || what === "square" || what === "lean") return SPREAD["°"];
  return what === "hardness" ? SPREAD.HRC : SPREAD.mm;
}

/** How many of one order the demo's run has, and by how much its left plunge wanders back from one to the next, mm. */
export const RUN_LENGTH = 26;
const WANDERS = 0.018;

export interface DemoRun {
  readonly id: string;
  readonly file: Run;
  readonly blades: readonly {
    readonly id: string;
    readonly file: Blade;
    readonly readings: readonly Reading[];
  }[];
}

/** An order of blades alike, read at the same places; one of them slowly drifts. */
export function demoRun(blade: Blade, route: Route): DemoRun {
  const stage: StageKind = "finish";
  const { lines } = benchOf({ blade, route, shop: USUAL_SHOP, stage, check: NO_CHECK, readings: [] });
  const middle = lines.filter(({ spot }) => spot.what === "edge")[1]!;
  const line = lines.find(
    ({ spot }) => spot.what === "line" && spot.side === "right" && spot.u === middle.spot.u,
  )!;
  const plunge = lines.find(({ spot }) => spot.what === "plunge" && spot.side === "left")!;
  const scatter = scatterFrom(77);
  const blades = Array.from({ length: RUN_LENGTH }, (_, i) => {
    const day = new Date(Date.UTC(2026, 8, 7 + i, 15));
    const read = (spot: Spot, value: number, k: number): Reading => ({
      id: idFrom(0x700 + i, k),
      when: new Date(day.getTime() + k * 30_000).toISOString(),
      stage,
      ...spot,
      value: round(value),
      by: "hand",
    });
    return {
      id: `0b8f6c52-6f3e-4a51-9c1d-7d2f30a4d${(i + 1).toString(16).padStart(3, "0")}`,
      file: { ...blade, name: `Fen hook, order 14, no. ${i + 1}` },
      readings: [
        read(middle.spot, middle.shows + scatter() * 0.016, 0),
        read(line.spot, line.target.value + scatter() * 0.4, 1),
        read(plunge.spot, plunge.target.value - 0.2 + i * WANDERS + scatter() * 0.06, 2),
      ],
    };
  });
  return {
    id: "0b8f6c52-6f3e-4a51-9c1d-7d2f30a4e001",
    file: {
      format: "true-spine/run",
      version: 1,
      name: "Fen hooks, order 14",
      blades: blades.map(({ id }) => id),
      places: [middle, line, plunge].map(({ spot }) => ({ stage, spot })),
    },
    blades,
  };
}
