import type { Blade } from "../blade/schema.ts";
import { NO_FORGE } from "../forge/schema.ts";
import { USUAL_RECIPE, usualOp } from "../heat/recipe.ts";
import { HEAT_KINDS, type Heat, type HeatKind, type HeatOp } from "../heat/schema.ts";
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
import { carbonC, hotterThan, USUAL_C } from "../steel/temper.ts";
import { stageSteel } from "./ladder.ts";
import type { Route, StageKind } from "./schema.ts";
import { nameOf, withStage, workedOn } from "./stages.ts";
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
}

export interface HeatReport {
  /** Null where nothing is known of the steel, or the relations do not hold for it. */
  readonly steel: SteelFigures | null;
  readonly thick: { readonly edge: number; readonly spine: number };
  readonly ops: readonly OpReport[];
  /** Minutes of it all, cooling aside. */
  readonly minutes: number;
  /** What to leave on the route for the skin, mm: one and a half of what is reckoned. */
  readonly leave: number | null;
  /** The tempers as one, held against two hours in two cycles at the same heat: °C hotter, by both constants. */
  readonly tempers: { readonly celsius: number; readonly hotter: readonly [number, number] } | null;
}

/** A skin is reckoned to be off by this. */
const SKIN_OFF = 1.5;
/** Where nothing is known of it, a plain steel begins to dissolve there, °C. */
const USUAL_AC1 = 727;
const FACES = ["flats", "bevels"] as const;

const isHeat = (kind: StageKind): kind is HeatKind => (HEAT_KINDS as readonly string[]).includes(kind);

/** The heats that a route has, in its order: each as it was chosen, else as it is usually done. */
export function opsOf(route: Pick<Route, "stages">, heat: Heat, blade: Blade): HeatOp[] {
  const known = knownOf(heat.steel, blade.steel);
  const grade = heat.steel.grade ?? blade.steel;
  const seen: Partial<Record<HeatKind, number>> = {};
  return route.stages.flatMap(({ id, kind }): HeatOp[] => {
    if (!isHeat(kind)) return [];
    const n = seen[kind] ?? 0;
    seen[kind] = n + 1;
    const chosen = heat.ops.find((op) => op.id === id && op.kind === kind);
    return [chosen ?? { id, ...usualOp(kind, n, known, grade) }];
  });
}

/** A heat changed: what was as usual so far is written down with it. */
export function withOp(ops: readonly HeatOp[], heat: Heat, id: string, change: Partial<HeatOp>): Heat {
  return { ...heat, ops: ops.map((one) => (one.id === id ? { ...one, ...change } : one)) };
}

/** A route with the stages of the usual recipe: what it has of them stays, and its hardening is called that where tempers follow. */
export function withUsualHeats(route: Route): Route {
  let { stages } = route;
  for (const kind of new Set(USUAL_RECIPE)) {
    const wanted = USUAL_RECIPE.filter((one) => one === kind).length;
    const has = stages.filter((stage) => stage.kind === kind).length;
    for (let n = has; n < wanted; n++) stages = withStage(stages, kind);
  }
  return {
    ...route,
    stages: stages.map((stage) =>
      stage.kind === "harden" && !stage.name ? { ...stage, name: "Harden" } : stage,
    ),
  };
}

/** How thin and how thick the blade goes into the fire, mm. */
function thickAtHeat(blade: Blade, route: Route, shop: Shop): HeatReport["thick"] {
  const harden = route.stages.find(({ kind }) => kind === "harden")?.id ?? "";
  const targets = targetsAt(stageSteel(blade, route, shop, harden, NO_FORGE));
  return {
    edge: Math.min(...targets.map(({ edge }) => edge)),
    spine: Math.max(...targets.map(({ flats }) => flats)),
  };
}

/** All that a page shows of a blade's heats. */
export function heatReport(blade: Blade, route: Route, heat: Heat, shop: Shop): HeatReport {
  const known = knownOf(heat.steel, blade.steel);
  const steel = known && figuresOf(known);
  const thick = thickAtHeat(blade, route, shop);
  const from = steel?.ac1.middle ?? USUAL_AC1;
  const ordered = opsOf(route, heat, blade);
  const numbered = ({ id, kind }: HeatOp) => {
    const same = ordered.filter((op) => op.kind === kind);
    return same.length > 1 ? `, ${same.findIndex((op) => op.id === id) + 1} of ${same.length}` : "";
  };
  const ops = ordered.map((op): OpReport => {
    const through = op.kind === "clay" ? 0 : secondsThrough(thick.spine, op.T) / 60;
    const isHardened = op.kind === "harden";
    const stage = route.stages.find(({ id }) => id === op.id);
    return {
      op,
      name: `${stage ? nameOf(stage) : op.id}${numbered(op)}`,
      through,
      total: through + op.minutes,
      window: isHardened && op.T > from ? secondsInAir(Math.max(0.1, thick.edge), op.T, from) : null,
      sections: isHardened && known && op.H ? sectionsOf(known, thick, op.H) : [],
      skin: worstSkin(route, ordered, op.id, from),
    };
  });
  const hot = ops.filter(({ op }) => op.kind !== "temper" && op.kind !== "draw" && op.kind !== "plates");
  const last = hot.findLast(({ skin }) => skin.depth > 0);
  return {
    steel,
    thick,
    ops,
    minutes: ops.reduce((sum, { total }) => sum + total, 0),
    leave: last ? SKIN_OFF * last.skin.depth : null,
    tempers: tempersOf(ordered, known),
  };
}

/** Heats as they are told of, in the order they are usual. */
const TOLD: readonly (readonly [HeatKind, string])[] = [
  ["normalize", "normalized"],
  ["anneal", "annealed"],
  ["harden", "hardened"],
  ["temper", "tempered"],
  ["draw", "drawn"],
];

/** What was done of a blade's heats, for whoever has it next: the route given with what was done. Empty where nothing was. */
export function heatsDone(blade: Blade, route: Route, heat: Heat): string[] {
  const done = opsOf(route, heat, blade).filter(({ id }) =>
    route.stages.some((stage) => stage.id === id && stage.done !== undefined),
  );
  return TOLD.flatMap(([kind, word]) => {
    const mine = done.filter((op) => op.kind === kind);
    if (mine.length === 0) return [];
    const each = mine.map(
      ({ T, minutes }) => `${Math.round(T)} °C${minutes > 0 ? ` ${Math.round(minutes)} min` : ""}`,
    );
    const same = new Set(each).size === 1 && each.length > 1;
    const zone = mine[0]!.zone === "all" ? "" : ` at the ${mine[0]!.zone}`;
    const into = kind === "harden" && mine[0]!.medium ? `, into ${mine[0]!.medium}` : "";
    return [`${word}${zone} ${same ? `${each.length} × ${each[0]}` : each.join(", ")}${into}`];
  });
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
    isCertified: known.isCertified,
  };
}

function sectionsOf(known: Known, thick: HeatReport["thick"], H: readonly number[]): SectionFares[] {
  const ideal = idealDiameter(known.middle);
  const [least, most] = [criticalPlate(ideal, H[0]!), criticalPlate(ideal, H[1]!)];
  return (["edge", "spine"] as const).map((place) => {
    const t = Math.max(0.05, thick[place]);
    const q = [least / t, most / t] as const;
    return { place, thick: thick[place], q, fares: fares((q[0] + q[1]) / 2) };
  });
}

/** Of flats and bevels the one that has lost most since it was last ground. */
function worstSkin(route: Route, ordered: readonly HeatOp[], until: string, from: number): Skin {
  const skins = FACES.map((face) => {
    let heats: { op: HeatOp; held: Held }[] = [];
    for (const stage of route.stages) {
      if (workedOn(stage) === face) heats = [];
      const op = ordered.find(({ id }) => id === stage.id);
      if (op) heats.push({ op, held: { celsius: op.T, minutes: op.minutes } });
      if (stage.id === until) break;
    }
    return mixed(heats, from);
  });
  return skins.reduce((a, b) => (b.depth > a.depth ? b : a));
}

/** Heats in different air: each takes its share by the time it was hot. */
function mixed(heats: readonly { op: HeatOp; held: Held }[], from: number): Skin {
  const all = skinOf(
    heats.map(({ held }) => held),
    from,
  );
  const hot = heats.filter(({ held }) => held.celsius > from);
  const minutes = hot.reduce((sum, { held }) => sum + held.minutes, 0);
  if (minutes === 0) return all;
  const share = hot.reduce((sum, { op, held }) => sum + AIR[op.air ?? "air"] * held.minutes, 0) / minutes;
  return { ...all, scale: all.scale * share, depth: all.depth * share };
}

function tempersOf(ordered: readonly HeatOp[], known: Known | null): HeatReport["tempers"] {
  const cycles = ordered
    .filter(({ kind, minutes }) => kind === "temper" && minutes > 0)
    .map(({ T, minutes }) => ({ celsius: T, hours: minutes / 60 }));
  if (cycles.length === 0) return null;
  const celsius = Math.max(...cycles.map((one) => one.celsius));
  const usual = [1, 1].map((hours) => ({ celsius, hours }));
  const by = [USUAL_C, ...(known ? [carbonC(known.middle.C)] : [])].map((c) =>
    hotterThan(cycles, usual, celsius, c),
  );
  return { celsius, hotter: [Math.min(...by), Math.max(...by)] };
}
