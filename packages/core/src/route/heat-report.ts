import { thicknessAt } from "../blade/field.ts";
import { spansAt } from "../blade/outline.ts";
import type { Blade } from "../blade/schema.ts";
import { NO_FORGE } from "../forge/schema.ts";
import {
  asOne,
  type Bracket,
  bracketOf,
  type Expected,
  hardnessAfter,
  pointsOf,
  type SkinFactor,
  skinFactor,
} from "../heat/learned.ts";
import { COOL_BY, couponHeats } from "../heat/recipe.ts";
import type { Heat, HeatOp } from "../heat/schema.ts";
import { type Known, knownOf, type Span, spanOfKnown } from "../heat/steel.ts";
import type { Shop } from "../shop/schema.ts";
import {
  ac1,
  austenitic,
  EUTECTOID,
  FORMULA_TO,
  magnetLetsGo,
  martensiteStart,
  SPREAD,
} from "../steel/critical.ts";
import {
  type ClayLine,
  clayLine,
  criticalPlate,
  type Fares,
  fares,
  idealDiameter,
} from "../steel/hardenability.ts";
import { secondsInAir, secondsThrough } from "../steel/heating.ts";
import { AIR, type Held, type Skin, skinOf } from "../steel/skin.ts";
import { carbonC, hotterThan, type Temper, USUAL_C } from "../steel/temper.ts";
import { opsOf } from "./heats.ts";
import { type StageSteel, stageSteel } from "./ladder.ts";
import type { Route } from "./schema.ts";
import { nameOf, workedOn } from "./stages.ts";
import { targetsAt } from "./targets.ts";

/** What a steel's composition gives: °C, and mm for the ideal diameter. */
export interface SteelFigures {
  readonly ac1: Span;
  /** All austenite. */
  readonly austenite: Span;
  readonly martensite: Span;
  readonly magnet: Span;
  readonly ideal: Span;
  readonly clay: ClayLine;
  /** More carbon than its formulas were made for. */
  readonly isBeyond: boolean;
  /** Heats that a coupon of it is tried at, °C. */
  readonly coupons: readonly number[];
  readonly isCertified: boolean;
}

/** A section as it goes into the heat, mm, and how it fares in the quenchant: what may go through over what it is. */
export interface SectionFares {
  readonly place: "edge" | "spine";
  readonly thick: number;
  readonly q: readonly [number, number];
  readonly fares: Fares;
}

/** One operation as a page shows it. */
export interface OpReport {
  readonly op: HeatOp;
  readonly name: string;
  /** Minutes until its thickest is warm through: the soak is counted from there. */
  readonly through: number;
  /** Minutes from the start to the end of the soak. */
  readonly total: number;
  /** Hardening: seconds in air until its thinnest is below where it hardens from; null else. */
  readonly window: number | null;
  readonly sections: readonly SectionFares[];
  /** What the worst face has lost since it was last ground, this heat with it, mm. */
  readonly skin: Skin;
  /** Minutes it cools for before the next can be begun. */
  readonly cooling: number;
  /** What its oven is set to, °C: as hot as it is wanted and what that reads high by. */
  readonly setTo: number;
}

/** A piece of the side view as it goes into the quench: from and to along and across, mm, and how it fares. */
export interface Shaded {
  readonly x: readonly [number, number];
  readonly y: readonly [number, number];
  readonly fares: Fares;
}

export interface HeatReport {
  /** Null where nothing is known of the steel, or the relations do not hold for it. */
  readonly steel: SteelFigures | null;
  readonly thick: { readonly edge: number; readonly spine: number };
  readonly ops: readonly OpReport[];
  /** Minutes of it all, cooling with it. */
  readonly minutes: number;
  /** The side view as it is quenched, piece by piece; empty where nothing is known of the steel or its quenchant. */
  readonly shade: readonly Shaded[];
  /** How much deeper skins are found here in the air of its hardening. */
  readonly skinHere: SkinFactor & { readonly air: NonNullable<HeatOp["air"]> };
  /** By what a section is told to go through or not. */
  readonly bracket: Bracket;
  /** What comes off a bevel face after the quench, and the flats, mm: the least of both sides. */
  readonly toCome: number;
  /** What to leave on the route for the skin, mm: one and a half of what is reckoned. */
  readonly leave: number | null;
  /** The tempers as one, held against two hours in two cycles at the same heat: °C hotter, by both constants. */
  readonly tempers: {
    readonly celsius: number;
    readonly hotter: readonly [number, number];
    /** All of them as one. */
    readonly one: Temper;
    /** What this shop's own readings say of that. */
    readonly expected: Expected;
  } | null;
  /** The steel as it is spoken of here. */
  readonly grade: string | null;
}

/** In still air a blade is cool enough to be held after so long, minutes; in a quench at once. Starting values. */
const COOLING = { air: 20, temper: 30, quench: 5 } as const;
/** Steps along and across that the side view is shaded in. */
const SHADED = { along: 96, across: 14 } as const;

/** A skin is reckoned to be off by this. */
const SKIN_OFF = 1.5;
/** Where nothing is known of it, a plain steel begins to dissolve there, °C. */
const USUAL_AC1 = 727;
const FACES = ["flats", "bevels"] as const;

/** How thin and how thick the blade goes into the fire, mm. */
function thickOf(stage: StageSteel): HeatReport["thick"] {
  const targets = targetsAt(stage);
  return {
    edge: Math.min(...targets.map(({ edge }) => edge)),
    spine: Math.max(...targets.map(({ flats }) => flats)),
  };
}

/** All that a page shows of a blade's heats. */
export function heatReport(blade: Blade, route: Route, heat: Heat, shop: Shop): HeatReport {
  const known = knownOf(heat.steel, blade.steel);
  const steel = known && figuresOf(known);
  const stage = stageSteel(
    blade,
    route,
    shop,
    route.stages.find(({ kind }) => kind === "harden")?.id ?? "",
    NO_FORGE,
  );
  const thick = thickOf(stage);
  const learned = shop.hardened ?? [];
  const bracket = bracketOf(learned);
  const air = opsOf(route, heat, blade).findLast(({ kind }) => kind === "harden")?.air ?? "air";
  const from = steel?.ac1.middle ?? USUAL_AC1;
  const grade = heat.steel.grade ?? blade.steel ?? null;
  const ordered = opsOf(route, heat, blade);
  const ops = ordered.map((op): OpReport => {
    const through = op.kind === "clay" || isByTorch(op) ? 0 : secondsThrough(thick.spine, op.T) / 60;
    const isHardened = op.kind === "harden";
    const planned = route.stages.find(({ id }) => id === op.id);
    const oven = shop.ovens?.find(({ id }) => id === op.oven);
    return {
      op,
      name: planned ? nameOf(planned, route.stages) : op.id,
      through,
      total: through + op.minutes,
      window: isHardened && op.T > from ? secondsInAir(Math.max(0.1, thick.edge), op.T, from) : null,
      sections: isHardened && known && op.H ? sectionsOf(known, thick, op.H, bracket) : [],
      skin: worstSkin(route, ordered, op.id, from, (air) => skinFactor(learned, air).times),
      cooling: coolingOf(op),
      setTo: op.T + (oven?.high ?? 0),
    };
  });
  const hot = ops.filter(({ op }) => op.kind !== "temper" && op.kind !== "draw" && op.kind !== "plates");
  const last = hot.findLast(({ skin }) => skin.depth > 0);
  return {
    steel,
    thick,
    ops,
    minutes: ops.reduce((sum, { total, cooling }) => sum + total + cooling, 0),
    shade: shadeOf(stage, known, ordered, bracket),
    bracket,
    skinHere: { air, ...skinFactor(learned, air) },
    toCome: Math.min(stage.left.faces.left, stage.left.faces.right, stage.left.flats),
    leave: last ? SKIN_OFF * last.skin.depth : null,
    tempers: tempersOf(ordered, known, (one) => {
      const harden = ordered.findLast(({ kind }) => kind === "harden");
      const points = grade && harden ? pointsOf(learned, grade, harden.T) : [];
      return hardnessAfter(points, one);
    }),
    grade,
  };
}

function coolingOf({ kind, medium, T, coolBy }: HeatOp): number {
  // An anneal may leave the oven once it is past the transformation.
  if (medium === "oven") return (60 * Math.max(0, T - COOLED_TO)) / (coolBy ?? COOL_BY);
  if (kind === "temper" || kind === "draw") return COOLING.temper;
  return medium === undefined || medium === "air" ? COOLING.air : COOLING.quench;
}

/** A draw by torch has no soak: it is judged by the colour that runs from spine or tang. Common practice. */
export const isByTorch = ({ kind, by }: Pick<HeatOp, "kind" | "by">) => kind === "draw" && by === "torch";

/** How a torch draw is judged. Common practice. */
export const TORCH_WORDS =
  "Heat the spine or the tang and let the colours run toward the edge. Keep the edge in water or a heat sink. Stop when straw is 5 mm from the edge.";

/** Below this an annealed blade cools as wanted, °C. Source: from memory of ASM Handbook 4. */
const COOLED_TO = 650;

/** Each piece of the side view against the quenchant, as thick as it goes in. */
function shadeOf(
  { steel: { field } }: StageSteel,
  known: Known | null,
  ops: readonly HeatOp[],
  bracket: Bracket,
): Shaded[] {
  const H = ops.findLast(({ kind }) => kind === "harden")?.H;
  if (!known || !H) return [];
  const ideal = idealDiameter(known.middle);
  const critical = (criticalPlate(ideal, H[0]!) + criticalPlate(ideal, H[1]!)) / 2;
  const { left, right } = field.ring;
  const step = (right - left) / SHADED.along;
  return Array.from({ length: SHADED.along }, (_, i) => left + (i + 0.5) * step).flatMap((x) =>
    spansAt(field.ring, x).flatMap(([low, high]) =>
      Array.from({ length: SHADED.across }, (_, k): Shaded => {
        const tall = (high - low) / SHADED.across;
        const y = [low + k * tall, low + (k + 1) * tall] as const;
        const thick = Math.max(0.05, thicknessAt(field, x, (y[0] + y[1]) / 2));
        return { x: [x - step / 2, x + step / 2], y, fares: fares(critical / thick, bracket) };
      }),
    ),
  );
}

function figuresOf(known: Known): SteelFigures {
  const start = (which: "linear" | "product") => (steel: Known["middle"]) => martensiteStart(steel)[which];
  const [linear, product] = [
    spanOfKnown(known, start("linear"), SPREAD.Ms),
    spanOfKnown(known, start("product"), SPREAD.Ms),
  ];
  const spread = known.middle.C > EUTECTOID ? SPREAD.Acm : SPREAD.Ac3;
  return {
    ac1: spanOfKnown(known, ac1, SPREAD.Ac1),
    austenite: spanOfKnown(known, austenitic, spread),
    martensite: {
      middle: (linear.middle + product.middle) / 2,
      low: Math.min(linear.low, product.low),
      high: Math.max(linear.high, product.high),
    },
    magnet: {
      ...spanOfKnown(known, (steel) => magnetLetsGo(steel)[1]),
      low: spanOfKnown(known, (steel) => magnetLetsGo(steel)[0]).low,
    },
    ideal: spanOfKnown(known, idealDiameter),
    clay: clayLine(known.middle),
    isBeyond: known.middle.C > FORMULA_TO,
    coupons: couponHeats(known),
    isCertified: known.isCertified,
  };
}

function sectionsOf(
  known: Known,
  thick: HeatReport["thick"],
  H: readonly number[],
  bracket: Bracket,
): SectionFares[] {
  const ideal = idealDiameter(known.middle);
  const [least, most] = [criticalPlate(ideal, H[0]!), criticalPlate(ideal, H[1]!)];
  return (["edge", "spine"] as const).map((place) => {
    const t = Math.max(0.05, thick[place]);
    const q = [least / t, most / t] as const;
    return { place, thick: thick[place], q, fares: fares((q[0] + q[1]) / 2, bracket) };
  });
}

/** Of flats and bevels the one that has lost most since it was last ground. */
function worstSkin(
  route: Route,
  ordered: readonly HeatOp[],
  until: string,
  from: number,
  times: (air: NonNullable<HeatOp["air"]>) => number,
): Skin {
  const skins = FACES.map((face) => {
    let heats: { op: HeatOp; held: Held }[] = [];
    for (const stage of route.stages) {
      if (workedOn(stage) === face) heats = [];
      const op = ordered.find(({ id }) => id === stage.id);
      if (op) heats.push({ op, held: { celsius: op.T, minutes: op.minutes } });
      if (stage.id === until) break;
    }
    return mixed(heats, from, times);
  });
  return skins.reduce((a, b) => (b.depth > a.depth ? b : a));
}

/** Heats in different air: each takes its share by the time it was hot, by what skins have been read at in that air here. */
function mixed(
  heats: readonly { op: HeatOp; held: Held }[],
  from: number,
  times: (air: NonNullable<HeatOp["air"]>) => number,
): Skin {
  const all = skinOf(
    heats.map(({ held }) => held),
    from,
  );
  const hot = heats.filter(({ held }) => held.celsius > from);
  const minutes = hot.reduce((sum, { held }) => sum + held.minutes, 0);
  if (minutes === 0) return all;
  const shareOf = ({ air = "air" }: HeatOp) => AIR[air] * times(air);
  const share = hot.reduce((sum, { op, held }) => sum + shareOf(op) * held.minutes, 0) / minutes;
  return { ...all, scale: all.scale * share, depth: all.depth * share };
}

function tempersOf(
  ordered: readonly HeatOp[],
  known: Known | null,
  expected: (one: Temper) => Expected,
): HeatReport["tempers"] {
  const cycles = ordered
    .filter(({ kind, minutes }) => kind === "temper" && minutes > 0)
    .map(({ T, minutes }) => ({ celsius: T, hours: minutes / 60 }));
  if (cycles.length === 0) return null;
  const celsius = Math.max(...cycles.map((one) => one.celsius));
  const usual = [1, 1].map((hours) => ({ celsius, hours }));
  const by = [USUAL_C, ...(known ? [carbonC(known.middle.C)] : [])].map((c) =>
    hotterThan(cycles, usual, celsius, c),
  );
  const one = asOne(cycles)!;
  return { celsius, hotter: [Math.min(...by), Math.max(...by)], one, expected: expected(one) };
}
