import { readFileSync } from "node:fs";
import { parseBlade } from "@true-spine/core/blade/parse.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { type Bench, benchOf } from "@true-spine/core/inspect/bench.ts";
import { readingPlan } from "@true-spine/core/inspect/plan.ts";
import { NO_CHECK, type Reading, type Spot } from "@true-spine/core/inspect/schema.ts";
import { USUAL_INSTRUMENTS } from "@true-spine/core/shop/instrument.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import type { Fault } from "../src/piece.ts";
import { type Random, randomFrom } from "../src/random.ts";
import { hollowKnife, knife, pieceOf, roundOf, type Setup, setupOf } from "./bench.ts";

/**
 * Rounds of readings on blades of every way of grinding, with faults, bends and slips of the hand, put to the whole bench. The pieces
 * are cut by surfaces of their own; nothing of what judges them is in them.
 */
const EXAMPLES = new URL("../../../packages/core/examples/", import.meta.url);

function example(file: string): Blade {
  const raw = JSON.parse(readFileSync(new URL(file, EXAMPLES), "utf8"));
  delete raw.falseEdge;
  const parsed = parseBlade(raw);
  if (!parsed.ok) throw new Error(`${file}: ${JSON.stringify(parsed.faults)}`);
  return parsed.blade;
}

export const KINDS: Readonly<Record<string, Blade>> = {
  flat: knife(),
  hollow: hollowKnife(),
  convex: knife((file) => {
    file.bevels.right = { ...file.bevels.right, kind: "convex", bulge: 0.12 };
  }),
  chisel: example("piece-chisel.json"),
  "straight pull": example("kinds/straight-belly.json"),
  full: example("kinds/kitchen-full.json"),
  "unlike sides": example("piece-offset.json"),
};

/** A fault of one and a half of its bands or more, by name; null where this blade cannot show it. */
type Make = (at: { kind: string; tip: number; wide: number; random: Random }) => readonly Fault[] | null;
const either = (random: Random) => (random.next() < 0.5 ? -1 : 1);
/** A chisel's other side has no bevel to be at fault. */
const side = ({ kind, random }: { kind: string; random: Random }) =>
  kind === "chisel" || random.next() < 0.5 ? ("right" as const) : ("left" as const);

export const FAULTS: Readonly<Record<string, Make>> = {
  sound: () => [],
  "off-centre": (at) =>
    at.kind === "chisel"
      ? null
      : [
          {
            kind: "off-centre",
            k: either(at.random) * 0.16 * at.wide,
            from: at.tip * 0.2,
            to: at.tip * 0.7,
          },
        ],
  "belly-thick": ({ kind, wide }) =>
    // A blade with a straight edge has no belly; one that is pulled straight has it in its plan.
    ["chisel", "unlike sides", "straight pull"].includes(kind)
      ? null
      : [{ kind: "belly-thick", most: 0.17 * wide }],
  smile: (at) => [{ kind: "smile", side: side(at), depth: 0.2 * at.wide, reach: 18 }],
  wave: (at) =>
    at.kind === "full"
      ? null
      : [
          {
            kind: "wave",
            side: side(at),
            depth: 0.16 * at.wide,
            length: 46,
            phase: 6 * at.random.next(),
          },
        ],
  "plunge-back": (at) => [{ kind: "plunge-back", side: side(at), by: 0.9 * either(at.random), lean: 0 }],
  "out-of-square": ({ wide, random }) => [{ kind: "out-of-square", by: 0.45 * wide * either(random) }],
  "jig-zero": ({ kind, wide, random }) =>
    // Both sides held alike on a blade whose sides are not: within their bands at any usual size.
    ["unlike sides", "chisel"].includes(kind)
      ? null
      : [{ kind: "jig-zero", by: 0.55 * wide * either(random), held: "edge" }],
  "flats-not-true": ({ random }) => [
    { kind: "flats-not-true", heel: 0.2 * either(random), tip: random.next() < 0.5 ? 0 : 0.2 },
  ],
  bow: ({ random }) => [{ kind: "bow", by: 0.5 * either(random) }],
  twist: ({ random }) => [{ kind: "twist", by: 1.8 * either(random) }],
};
/** A bent blade is straightened, not ground. */
export const UNGROUND = ["sound", "bow", "twist"];

/** Digits changed places: the first two that differ. */
function swapped(value: number): number {
  const [whole, part = ""] = value.toFixed(2).split(".");
  const digits = [...(whole + part)];
  const i = digits.findIndex((digit, n) => n + 1 < digits.length && digit !== digits[n + 1]);
  if (i >= 0) [digits[i], digits[i + 1]] = [digits[i + 1]!, digits[i]!];
  const text = digits.join("");
  return Number(`${text.slice(0, whole!.length)}.${text.slice(whole!.length)}`);
}

/** What becomes of one reading by a slip of the hand. */
export const SLIPS: Readonly<Record<string, (value: number) => number>> = {
  "ten times": (value) => value * 10,
  "a tenth": (value) => value / 10,
  "in thousandths": (value) => value / 0.0254,
  "in inches": (value) => value / 25.4,
  "digits swapped": swapped,
};

const SLIPPED: readonly Spot["what"][] = ["edge", "behind", "above", "over", "line", "flats"];
const LENGTHS: readonly Spot["what"][] = [...SLIPPED, "plunge", "bow"];

export interface Round {
  readonly bench: Bench;
  /** The reading a slip was put into: as it was, and how far the slip takes it, in bands. */
  readonly slip: { readonly id: string; readonly value: number; readonly bands: number } | null;
}

/** Every kind of blade at a stage, ready to be read. */
export function setups(stage: string): { kind: string; setup: Setup; plan: readonly Spot[] }[] {
  return Object.entries(KINDS).map(([kind, blade]) => {
    const setup = setupOf(blade, stage as Parameters<typeof setupOf>[1]);
    return { kind, setup, plan: readingPlan(setup.stage, USUAL_INSTRUMENTS).round };
  });
}

type Ready = ReturnType<typeof setups>[number];

export function judged({ setup }: Ready, readings: readonly Reading[]): Bench {
  const { blade, route, stage } = setup;
  return benchOf({
    blade,
    route,
    shop: USUAL_SHOP,
    stage: stage.id,
    check: { ...NO_CHECK, hardness: 60 },
    readings,
  });
}

/** Reads a piece with these faults all round; null where this blade cannot show them. */
export function roundWith(ready: Ready, fault: string, seed: number): Reading[] | null {
  const { kind, setup, plan } = ready;
  const random = randomFrom(seed);
  const { spine } = setup.blade.outline;
  const at = { kind, tip: spine[spine.length - 1]!.at[0], wide: setup.stage.isHard ? 1 : 2.5, random };
  const faults = FAULTS[fault]!(at);
  return faults && roundOf(pieceOf(setup, faults, random), plan, setup.stage.id, random);
}

/** A sound round, or one with its edge off centre, with one reading slipped. */
export function roundSlipped(ready: Ready, slip: string, seed: number): Round {
  const isSound = seed % 2 === 0 || ready.kind === "chisel";
  const readings = roundWith(ready, isSound ? "sound" : "off-centre", seed)!;
  const random = randomFrom(seed + 1);
  const may = readings.filter(({ what }) => SLIPPED.includes(what));
  const one = may[Math.floor(random.next() * may.length)]!;
  const value = Number(SLIPS[slip]!(one.value).toFixed(4));
  const bench = judged(
    ready,
    readings.map((reading) => (reading.id === one.id ? { ...reading, value } : reading)),
  );
  const target = bench.lines.find(
    ({ spot }) => spot.what === one.what && spot.u === one.u && spot.x === one.x,
  );
  const bands = Math.abs(value - one.value) / (target?.target.band ?? 1);
  return { bench, slip: { id: one.id, value: one.value, bands } };
}

/** A whole round written down in thousandths. */
export function roundInThousandths(ready: Ready, seed: number): Bench {
  const readings = roundWith(ready, "sound", seed)!;
  return judged(
    ready,
    readings.map((one) => (LENGTHS.includes(one.what) ? { ...one, value: one.value / 0.0254 } : one)),
  );
}

/** A round read after another stage, and put down for this one. */
export function roundOfStage(ready: Ready, other: string, seed: number): Bench {
  const random = randomFrom(seed);
  const setup = setupOf(ready.setup.blade, other as Parameters<typeof setupOf>[1]);
  const readings = roundOf(pieceOf(setup, [], random), ready.plan, ready.setup.stage.id, random);
  return judged(ready, readings);
}
