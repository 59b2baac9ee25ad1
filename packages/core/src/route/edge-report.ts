import type { Abrasive, AbrasiveForm } from "../abrasive/schema.ts";
import { depthAfter, type Job, type Planned, planSequence } from "../abrasive/sequence.ts";
import { compileField } from "../blade/field.ts";
import { integrate } from "../blade/quadrature.ts";
import { type Blade, SIDES } from "../blade/schema.ts";
import { type PerSide, type Station, thicknessAlong } from "../blade/station.ts";
import { constant } from "../blade/table.ts";
import { turnedOver } from "../blade/turned.ts";
import { heightOffBoth, microBehind, microTakes } from "../edge/facet.ts";
import { type Edge, type EdgeStep, type Sharpened, USUAL_WEAR, type Wear } from "../edge/schema.ts";
import { chosenSteps } from "../edge/steps.ts";
import { edgeTools, type Shop } from "../shop/schema.ts";
import { radians } from "../units/angle.ts";
import { areasOf } from "./areas.ts";
import { type EdgeLife, lifeOf } from "./edge-life.ts";
import {
  type EdgePlace,
  edgePlaces,
  type Holds,
  isZeroAt,
  type Setting,
  settingsFor,
  sharpeningAngle,
  tangentAt,
  variesBy,
} from "./edge-settings.ts";
import type { Route, WhichEdge } from "./schema.ts";
import { finishedSteel, perSide, type Steel } from "./steel.ts";
import { ratesOf } from "./take.ts";

/** One step of sharpening worked out. mm, minutes, degrees a side. */
export interface StepReport {
  readonly step: EdgeStep;
  readonly tool: { readonly name: string; readonly holds: Holds };
  /** What it takes off the blade's height after the step before it, and what the apex stands proud of the finished one when it is done. */
  readonly takes: number;
  readonly proud: number;
  /** What its first abrasive takes off square to the facet, and its facet's area. */
  readonly ladder: Planned | null;
  readonly area: number;
  /** A coarser abrasive than it begins with: minutes less, and blade height more. */
  readonly coarser: { readonly abrasive: Abrasive; readonly minutes: number; readonly takes: number } | null;
  readonly settings: PerSide<readonly Setting[]>;
  /** Whether the bevel's face lies flat on the stone: nothing is behind the edge, and the step is at the bevel's own angle. */
  readonly isFlat: boolean;
  /** How much one setting's angle differs along the edge, degrees. */
  readonly varies: number | null;
  /** Of a micro-bevel: how thick it is behind it. */
  readonly behind: number | null;
}

/** All that a page shows of one edge. */
export interface EdgeReport {
  readonly which: WhichEdge;
  readonly places: readonly (EdgePlace & {
    readonly x: number;
    readonly height: number;
    readonly behind: number | null;
    readonly high: number | null;
  })[];
  /** Whether the steps are the usual ones, as none were said. */
  readonly isUsual: boolean;
  readonly steps: readonly StepReport[];
  readonly minutes: number;
  /** The particle that its bevel was left at, µm: no edge begins coarser. */
  readonly bevelAt: number;
  /** The highest edge bevel in the run-in of the plunge; null where sharpening does not begin there. */
  readonly atPlunge: { readonly x: number; readonly high: number } | null;
  /** How far the finished apex lies below the outline as it was before sharpening. */
  readonly proud: number;
  readonly wear: Wear;
  readonly life: EdgeLife;
}

export interface EdgeAsked {
  readonly blade: Blade;
  readonly route: Route;
  readonly shop: Shop;
  readonly edge: Edge;
  readonly which: WhichEdge;
  /** In the order of time, of this edge. */
  readonly done: readonly Sharpened[];
  /** What was read behind it since it was last sharpened, at shares of it, mm; absent: as it is reckoned to be. */
  readonly behind?: readonly { readonly u: number; readonly t: number }[];
  /** How many sharpenings it is also shown after; absent: as many as it has until it wants thinning. */
  readonly after?: number;
}

/** Over so many minutes the next coarser abrasive is offered. Starting value. */
const TOO_LONG = 15;
/** One stone is followed by one so many times as fine, at most. Common practice. */
const STONES_APART = 3;
/** No edge is begun coarser, µm: P120. Common practice. */
const COARSEST = 125;
const BY_HAND: StepReport["tool"] = { name: "a stone by hand", holds: { kind: "stone" } };

/** Works out how one edge is sharpened, and what years of it do. Null where the blade has no such edge. */
export function edgeReport(asked: EdgeAsked): EdgeReport | null {
  const { blade, route, edge, which } = asked;
  const whole = finishedSteel(blade);
  const steel = which === "second" ? whole.onSecond : whole;
  if (!steel || steel.drawn.stations.length === 0) return null;
  const places = edgePlaces(steel).map((place) => {
    const { x, height, behind, left, right } = steel.station(place.u);
    const highs = [left.edgeBevel, right.edgeBevel].flatMap((high) => (high === null ? [] : [high]));
    return { ...place, x, height, behind, high: highs.length > 0 ? Math.max(...highs) : null };
  });
  const chosen = chosenSteps(groundAngle(steel), edge, which, route.finish.edge);
  const bevelAt = Math.min(COARSEST, route.finish.bevels);
  const steps = stepsOf(asked, steel, chosen, places, bevelAt);
  return {
    which,
    places,
    isUsual: edge.steps.every((step) => step.edge !== which),
    steps,
    minutes: steps.reduce((sum, { ladder }) => sum + (ladder?.ok ? ladder.sequence.minutes : 0), 0),
    bevelAt,
    atPlunge: atPlungeOf(steel),
    proud: steps.reduce((sum, { takes }) => sum + takes, 0),
    wear: edge.wear ?? USUAL_WEAR,
    life: lifeOf(
      asked,
      steel,
      places,
      steps.every(({ step, isFlat }) => isFlat || step.kind === "strop" || step.kind === "micro"),
    ),
  };
}

/** Steps of one edge of a blade: those chosen, else the usual ones; `to` µm is the finish. None where the blade has no such edge. */
export function stepsOfEdge(blade: Blade, edge: Edge, which: WhichEdge, to: number): readonly EdgeStep[] {
  const whole = finishedSteel(blade);
  const steel = which === "second" ? whole.onSecond : whole;
  return chosenSteps(steel && groundAngle(steel), edge, which, to);
}

/** Angle of an edge as ground, in its middle, degrees per side, to a hundredth; 0 on a side that is not ground. */
function groundAngle(steel: Steel): PerSide<number> {
  const middle = steel.station(edgePlaces(steel)[1]!.u);
  return perSide((side) => Math.round(100 * (sharpeningAngle(steel, middle, side) ?? 0)) / 100);
}

/** The highest facet where the bevel still rises out of its plunge, by looks along its run-in. */
function atPlungeOf(steel: Steel): EdgeReport["atPlunge"] {
  const { field } = steel;
  const reach = Math.max(field.plunges.left?.radius ?? 0, field.plunges.right?.radius ?? 0);
  if (reach <= 0) return null;
  const highs = Array.from({ length: RUN_IN_LOOKS }, (_, i) => {
    const s = field.sharpFrom + (reach * (i + 0.5)) / RUN_IN_LOOKS;
    const { x, left, right } = steel.station(Math.min(1, s / field.edge.length));
    return { x, high: Math.max(left.edgeBevel ?? 0, right.edgeBevel ?? 0) };
  });
  return highs.reduce((a, b) => (b.high > a.high ? b : a));
}
const RUN_IN_LOOKS = 6;

/** Which abrasives a tool takes. */
const FORMS: Readonly<Record<Holds["kind"], readonly AbrasiveForm[]>> = {
  stone: ["stone", "plate"],
  rod: ["stone", "plate"],
  support: ["wheel", "belt"],
  slack: ["belt"],
  hand: ["stone", "plate"],
};

function stepsOf(
  { blade, shop, which }: EdgeAsked,
  steel: Steel,
  steps: readonly EdgeStep[],
  places: readonly EdgePlace[],
  bevelAt: number,
): StepReport[] {
  const facet = facetsOf(blade, steel, which);
  const middle = steel.station(places[1]!.u);
  const isZero = places.every(({ u }) => isZeroAt(steel.station(u)));
  const faces = isZero ? areasOf(finishedSteel(blade))[which].bevels : 0;
  let finest = bevelAt;
  const out = steps.map((step, i): StepReport => {
    const tool = toolOf(shop, step);
    const before = steps.slice(0, i).findLast(({ kind }) => kind !== "strop");
    const takes = before ? takenBy(step, before, finest, { steel, middle, share: shop.scratchShare }) : 0;
    const isFlat = isZero && lieFlat(step, steel, middle);
    const area = step.kind === "micro" ? microArea(steel, step) : isFlat ? faces : facet.area;
    const job: Job = {
      ...ratesOf(shop),
      largestStep: Math.max(STONES_APART, shop.largestStep),
      area,
      from: before || isFlat ? finest : 0,
      to: step.to,
      depth: before || facet.depth <= 0 ? null : facet.depth,
      ...(before ? {} : { coarsest: bevelAt }),
    };
    const store = shop.abrasives.filter(({ form = "belt" }) => FORMS[tool.holds.kind].includes(form));
    const isFine = job.from > 0 && job.to >= job.from;
    const ladder = step.kind === "strop" || isFine ? null : planned(store, job);
    if (step.kind !== "strop") finest = Math.min(finest, step.to);
    const settings = settingsFor(
      steel,
      tool.holds,
      isFlat ? (station, side) => sharpeningAngle(steel, station, side) ?? step.angle[side] : step.angle,
      places,
      step.kind === "micro" ? step.facet : undefined,
    );
    return {
      step,
      tool,
      takes,
      proud: 0,
      ladder,
      area,
      coarser: coarserThan(ladder, store, job, step),
      settings,
      isFlat,
      varies: isFlat ? null : variesBy(settings, step.angle),
      behind: step.kind === "micro" ? microBehindOf(step) : null,
    };
  });
  return out.map((one, i) => ({
    ...one,
    proud: out.slice(i + 1).reduce((sum, { takes }) => sum + takes, 0),
  }));
}

/** At the bevel's own angle within this, degrees, its face lies flat. */
const FLAT_WITHIN = 0.25;

function lieFlat({ kind, angle }: EdgeStep, steel: Steel, middle: Station): boolean {
  if (kind === "micro") return false;
  return SIDES.every((side) => {
    const own = sharpeningAngle(steel, middle, side);
    return own === null || angle[side] === 0 || Math.abs(angle[side] - own) <= FLAT_WITHIN;
  });
}

function planned(store: readonly Abrasive[], job: Job): Planned {
  if (!store.some(({ onHand }) => onHand > 0))
    return { ok: false, why: "Nothing on hand goes with this tool: put your stones into the stores." };
  return planSequence(store, job);
}

function toolOf(shop: Shop, { tool, kind }: EdgeStep): StepReport["tool"] {
  const named = edgeTools(shop).find(({ id }) => id === tool);
  if (named) return { name: named.name, holds: named.setup };
  return kind === "strop" ? { ...BY_HAND, name: "a strop by hand" } : BY_HAND;
}

interface Cut {
  readonly steel: Steel;
  readonly middle: Station;
  readonly share: number;
}

/** What a step takes off the height of the apex that the step before it made. */
function takenBy(step: EdgeStep, before: EdgeStep, finest: number, { steel, middle, share }: Cut): number {
  if (step.kind === "strop") return 0;
  const steeper = (["left", "right"] as const).filter((side) => step.angle[side] > before.angle[side] + 1e-9);
  if (steeper.length === 0) {
    const off = depthAfter(finest, share);
    const isCut = (side: "left" | "right") => step.angle[side] > 0;
    return heightOffBoth(
      { left: isCut("left") ? off : 0, right: isCut("right") ? off : 0 },
      { left: radians(step.angle.left), right: radians(step.angle.right) },
    );
  }
  // A steeper one cuts a facet of its own, as high as it says; else over all of the one before.
  const each = steeper.map((side) => {
    const high = step.facet ?? middle[side].edgeBevel ?? 0;
    return microTakes(high, radians(step.angle[side]), tangentAt(steel, middle, side, before.angle[side]));
  });
  return Math.max(...each);
}

const microBehindOf = ({ facet = 0, angle }: EdgeStep) =>
  (microBehind(facet, radians(angle.left)) + microBehind(facet, radians(angle.right))) / 2;

function microArea({ field }: Steel, { facet = 0, angle }: EdgeStep): number {
  const along = field.edge.length - field.sharpFrom;
  return along * (facet / Math.cos(radians(angle.left)) + facet / Math.cos(radians(angle.right)));
}

const NOTHING = { left: constant(0), right: constant(0) };

/** The facets of the finish bevel, both sides, mm², and how deep what comes off them is, by the fields with it and without. */
function facetsOf(blade: Blade, steel: Steel, which: WhichEdge): { area: number; depth: number } {
  const area = areasOf(finishedSteel(blade))[which].edge;
  const bare = compileField(blade, {
    flats: 0,
    faces: NOTHING,
    edgeBevel: false,
    falseEdge: true,
    ...(blade.secondEdge ? { second: { faces: NOTHING, edgeBevel: false } } : {}),
  });
  const before = which === "second" ? turnedOver(bare) : bare;
  const { stations } = steel.drawn;
  const off = ({ cut, left, right }: Station) => {
    const high = Math.max(left.edgeBevel ?? 0, right.edgeBevel ?? 0);
    if (high <= 0 || !before) return 0;
    return integrate(
      (s) => thicknessAlong(before, cut, s) - thicknessAlong(steel.field, cut, s),
      0,
      high,
      SECTION_POINTS,
    );
  };
  let volume = 0;
  for (const [i, station] of stations.entries()) {
    const next = stations[i + 1];
    if (next) volume += ((next.u - station.u) * steel.field.edge.length * (off(station) + off(next))) / 2;
  }
  return { area, depth: area > 0 ? volume / area : 0 };
}
const SECTION_POINTS = 8;

/** The next coarser abrasive on hand, where it takes over long with the first: what it saves, and what it costs of the blade. */
function coarserThan(
  ladder: Planned | null,
  store: readonly Abrasive[],
  job: Job,
  { angle }: EdgeStep,
): StepReport["coarser"] {
  if (!ladder?.ok || ladder.sequence.minutes <= TOO_LONG) return null;
  const first = ladder.sequence.steps[0]!.belt.microns;
  const [next] = store
    .filter(({ microns, onHand }) => onHand > 0 && microns > first * (1 + 1e-9))
    .toSorted((a, b) => a.microns - b.microns);
  if (!next) return null;
  const finer = store.filter(({ microns }) => microns <= next.microns);
  const again = planSequence(finer, {
    ...job,
    coarsest: next.microns,
    from: Math.max(job.from, next.microns),
  });
  const off = depthAfter(next.microns, job.scratchShare);
  return {
    abrasive: next,
    minutes: again.ok ? Math.max(0, ladder.sequence.minutes - again.sequence.minutes) : 0,
    takes: heightOffBoth(
      { left: off, right: off },
      { left: radians(angle.left), right: radians(angle.right) },
    ),
  };
}
