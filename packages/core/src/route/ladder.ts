import { isBelt } from "../abrasive/schema.ts";
import { followed, type Job, type Planned, planSequence } from "../abrasive/sequence.ts";
import { placeAt } from "../blade/chain.ts";
import { compileField, thicknessAt } from "../blade/field.ts";
import { thickestOf } from "../blade/measure.ts";
import { type Blade, bevelOn, SIDES, type Side } from "../blade/schema.ts";
import type { PerSide } from "../blade/station.ts";
import { constant, type Table } from "../blade/table.ts";
import type { Blank } from "../forge/blank.ts";
import { type Forge, NO_FORGE } from "../forge/schema.ts";
import type { Shop } from "../shop/schema.ts";
import { type Areas, areaOn, areasOf, type Surface } from "./areas.ts";
import type { Route, Stage, StageKind, WhichEdge } from "./schema.ts";
import { workedOn } from "./stages.ts";
import { finishedSteel, type Otherwise, Steel } from "./steel.ts";
import { isOnEdge, ratesOf, type Takes, takesOf, takingOf } from "./take.ts";

/** A stage of a blade: its steel when it is done, and what is known of it. */
export interface StageSteel {
  /** The stage's own name on its route. */
  readonly id: string;
  readonly kind: StageKind;
  readonly steel: Steel;
  readonly finished: Steel;
  /** Still to come off after this stage: each bevel face square to it, and each flat, mm. */
  readonly left: { readonly faces: PerSide<number>; readonly flats: number };
  /** What must still be found on each face whatever is spared: the finer belts, the hand, the oven's skin, mm. */
  readonly needed: PerSide<number>;
  readonly isBevelled: boolean;
  readonly isSharpened: boolean;
  readonly isHard: boolean;
  /** The same of its second edge; null where the blade has none. */
  readonly second: SecondState | null;
  /** The forged blank, where this is what is read: thicker and wider than what is profiled from it. */
  readonly blank?: Blank;
  /** Said where this is the stage as its second edge has it. */
  readonly edge?: "second";
}

/** How a second edge stands at a stage. */
export interface SecondState {
  readonly faces: PerSide<number>;
  readonly needed: PerSide<number>;
  readonly isBevelled: boolean;
  readonly isSharpened: boolean;
}

/** A stage worked out backwards from the finished blade, with what its own belts do. */
export interface Rung extends StageSteel {
  /** mm, minutes, and which belts, where it has any; or why that cannot be. */
  readonly belts: { readonly on: Surface; readonly planned: Planned; readonly job: Job } | null;
}

/** The same stage, its steel come out otherwise. */
export function otherwise<S extends StageSteel>(stage: S, change: Otherwise): S {
  return { ...stage, steel: stage.steel.otherwise(change) };
}

const turned = new WeakMap<StageSteel, StageSteel>();

/** A stage as its second edge has it: whatever is asked of an edge is asked of that one. Null before that has a bevel. */
export function onSecondEdge<S extends StageSteel>(stage: S): S | null {
  const known = turned.get(stage);
  if (known) return known as S;
  const { second } = stage;
  const [steel, finished] = [stage.steel.onSecond, stage.finished.onSecond];
  if (!second?.isBevelled || !steel || !finished) return null;
  const { faces, needed, isBevelled, isSharpened } = second;
  const left = { ...stage.left, faces };
  const made: S = {
    ...stage,
    steel,
    finished,
    left,
    needed,
    isBevelled,
    isSharpened,
    second: null,
    edge: "second",
  };
  turned.set(stage, made);
  return made;
}

/** The stage as the edge has it that is spoken of; null where that has no bevel yet. */
export function onEdgeOf<S extends StageSteel>(stage: S, { edge }: { readonly edge?: "second" }): S | null {
  return edge === "second" && stage.edge !== "second" ? onSecondEdge(stage) : stage;
}

let last: { blade: Blade; route: Route; shop: Shop; forge: Forge; rungs: readonly Rung[] } | null = null;

/**
 * The stages of a route worked out backwards from the finished blade: what each still has to leave for those after it, and so what
 * its steel is; first to last. What was chosen drives it; nothing is given twice. The blade must be sound; a stage that thin steel
 * cannot hold is its field's own fault. The same blade, route and shop are worked out once.
 */
export function ladderOf(blade: Blade, route: Route, shop: Shop, forge: Forge = NO_FORGE): readonly Rung[] {
  if (last?.blade === blade && last.route === route && last.shop === shop && last.forge === forge)
    return last.rungs;
  const rungs = workedOut(blade, route, shop, forge);
  last = { blade, route, shop, forge, rungs };
  return rungs;
}

function workedOut(blade: Blade, route: Route, shop: Shop, forge: Forge): Rung[] {
  const { stages, takes, takesSecond, area } = stagesOf(blade, route, shop, forge);
  const isOneSided = SIDES.some((side) => bevelOn(blade, side).kind === "none");
  return stages.map((stage, i): Rung => {
    const before = stages[i - 1];
    const removed = before ? before.steel.volume - stage.steel.volume : 0;
    const isSoft = stages.slice(i).some(({ kind }) => kind === "harden");
    const planned = takesSecond && route.stages[i]!.edge === "second" ? takesSecond[i]! : takes[i]!;
    // No more than the bar has: what a stage takes off the flats is what is gone after it.
    const own = {
      ...planned,
      flats: before ? Math.max(0, before.left.flats - stage.left.flats) : planned.flats,
    };
    const work = { route, shop, area, takes: own, removed, isSoft, isOneSided };
    return { ...stage, belts: beltsOf(route.stages[i]!, work) };
  });
}

/** Every stage's steel without its belts: nothing of it is weighed yet. */
export function stagesOf(
  blade: Blade,
  route: Route,
  shop: Shop,
  forge: Forge = NO_FORGE,
): {
  stages: readonly StageSteel[];
  takes: readonly Takes[];
  /** Along the second edge; null without one. */
  takesSecond: readonly Takes[] | null;
  area: Areas;
} {
  const finished = finishedSteel(blade);
  const area = areasOf(finished);
  const kinds = route.stages.map((stage) => stage.kind);
  const taking = takingOf(route, shop, area);
  const along = (which: WhichEdge) => route.stages.map((_, i) => takesOf(route.stages, i, taking, which));
  const takes = along("first");
  const takesSecond = blade.secondEdge ? along("second") : null;
  const isSteep = hasSteepBevel(finished);
  const known = new Map<string, Steel>();
  // A bar in hand is never thicker than it is, whatever is still to come off.
  const room = route.bar ? Math.max(0, (route.stock - thickestOf(blade)) / 2) : Number.POSITIVE_INFINITY;
  const stages = route.stages.map(({ id, kind }, i): StageSteel => {
    const later = takes.slice(i + 1);
    const left = { faces: facesOf(later), flats: Math.min(flatsOf(later), room) };
    const isDone = (stage: StageKind, which?: WhichEdge) =>
      route.stages.slice(0, i + 1).some((one) => one.kind === stage && (!which || isOnEdge(one, which)));
    const isLast = i === kinds.length - 1;
    const isGround = (which: WhichEdge) => isLast || isDone("rough", which) || isDone("finish", which);
    const isBevelled = isGround("first");
    const second: SecondState | null = takesSecond && {
      faces: facesOf(takesSecond.slice(i + 1)),
      needed: neededAfter(route, i, takesSecond, "second"),
      isBevelled: isGround("second"),
      isSharpened: isLast || isDone("sharpen", "second"),
    };
    const isSecondBevelled = second?.isBevelled ?? isBevelled;
    const isTrue = isBevelled || isSecondBevelled || isDone("flats") || isDone("true");
    const edgeBevel = isLast || isDone("sharpen", "first");
    const falseEdge = isLast || isDone(kinds.includes("false-edge") ? "false-edge" : "finish");
    // Many stages leave the steel as they found it: what is the same is worked out once.
    const marks = [left, second, isBevelled, isTrue, isDone("forge"), isDone("finish"), falseEdge, edgeBevel];
    const key = JSON.stringify(marks);
    let steel = known.get(key);
    if (!steel) {
      const bar = isDone("forge")
        ? forged(blade, route, left.flats + forge.blank.flats)
        : [{ x: 0, t: route.stock }];
      steel = new Steel(blade, {
        still: {
          flats: left.flats,
          faces: tablesOf(left.faces),
          edgeBevel,
          falseEdge,
          ...(second ? { second: { faces: tablesOf(second.faces), edgeBevel: second.isSharpened } } : {}),
        },
        isBevelled,
        isSecondBevelled,
        thickness: isTrue ? null : bar,
        isSteep,
        roughAngle: isDone("finish") || isLast ? null : (route.roughAngle ?? null),
      });
      known.set(key, steel);
    }
    return {
      id,
      kind,
      steel,
      finished,
      left,
      needed: neededAfter(route, i, takes, "first"),
      isBevelled,
      isSharpened: edgeBevel,
      isHard: isLast || isDone("harden"),
      second,
    };
  });
  return { stages, takes, takesSecond, area };
}

/** Still to come off each flat once the flats are clean, or off the bar where no stage cleans them, mm. */
export function flatsToCome(blade: Blade, route: Route, shop: Shop): number {
  const taking = takingOf(route, shop, areasOf(finishedSteel(blade)));
  const from = route.stages.findIndex(({ kind }) => kind === "flats");
  return flatsOf(route.stages.map((_, i) => takesOf(route.stages, i, taking)).slice(from + 1));
}

function flatsOf(takes: readonly Takes[]): number {
  return takes.reduce((all, { flats }) => all + flats, 0);
}

/** What stages take off each side's face together. */
function facesOf(takes: readonly Takes[]): PerSide<number> {
  const on = (side: Side) =>
    takes.reduce((all, one) => all + (one.side === undefined || one.side === side ? one.faces : 0), 0);
  return { left: on("left"), right: on("right") };
}

/** Before the finish bevels what they leave for those after them is needed, and the skin while the oven is still to come. */
function neededAfter(
  { stages, skin }: Route,
  i: number,
  takes: readonly Takes[],
  which: WhichEdge,
): PerSide<number> {
  const finish = stages.findLastIndex((one) => one.kind === "finish" && isOnEdge(one, which));
  if (finish <= i) return facesOf(takes.slice(i + 1));
  const { left, right } = facesOf(takes.slice(finish + 1));
  const own = stages.slice(i + 1).some(({ kind }) => kind === "harden") ? skin : 0;
  return { left: left + own, right: right + own };
}

/** Values as tables; the same one where both sides are alike, so that a field knows them for alike. */
function tablesOf({ left, right }: PerSide<number>): PerSide<Table> {
  const table = constant(right);
  return { left: left === right ? table : constant(left), right: table };
}

const NOTHING: PerSide<number> = { left: 0, right: 0 };

/**
 * The steel of one stage of a route by its id; of the finished blade where there is no route, or no such stage.
 */
export function stageSteel(
  blade: Blade,
  route: Route | null,
  shop: Shop,
  id: string,
  forge: Forge = NO_FORGE,
): StageSteel {
  const rung =
    route && route.stages.length > 0
      ? ladderOf(blade, route, shop, forge).find((one) => one.id === id)
      : undefined;
  if (rung) return rung;
  const finished = finishedSteel(blade);
  return {
    id,
    kind: "sharpen",
    steel: finished,
    finished,
    left: { faces: NOTHING, flats: 0 },
    needed: NOTHING,
    isBevelled: true,
    isSharpened: true,
    isHard: true,
    second: blade.secondEdge
      ? { faces: NOTHING, needed: NOTHING, isBevelled: true, isSharpened: true }
      : null,
  };
}

/** A forged blank is tapered already, has so much on each flat, and is no thicker than the bar it came from. */
function forged(blade: Blade, { stock }: Route, flats: number): Blade["thickness"] {
  return blade.thickness.map(({ x, t }) => ({
    x,
    t: Math.max(t, Math.min(stock, t + 2 * flats)),
  }));
}

const LOOKS = 150;

/**
 * Whether a bevel is anywhere steeper than the edge bevel: carried on to the apex it passes below the finished edge, so
 * such stages are held up to the finished steel, as nobody grinds past it.
 */
function hasSteepBevel({ field }: Steel): boolean {
  const none = tablesOf(NOTHING);
  const ground = compileField(field.blade, { flats: 0, faces: none, edgeBevel: false, falseEdge: true });
  for (let i = 0; i < LOOKS; i++) {
    const { x, y, tx, ty } = placeAt(field.edge, ((i + 0.5) / LOOKS) * field.edge.length);
    for (const d of [0.02, 0.1, 0.3, 0.6, 1]) {
      const at = [x - ty * d, y + tx * d] as const;
      if (thicknessAt(ground, ...at) < thicknessAt(field, ...at) - 1e-9) return true;
    }
  }
  return false;
}

interface Work {
  readonly route: Route;
  readonly shop: Shop;
  readonly area: Areas;
  readonly takes: Takes;
  /** mm³. */
  readonly removed: number;
  readonly isSoft: boolean;
  /** Whether the blade is bevelled on one side only. */
  readonly isOneSided: boolean;
}

/** Less than this is nothing to take off, mm. */
const SMALLEST_DEPTH = 1e-6;
/** A surface smaller than this is none, mm². */
const SMALLEST = 1;
/** No edge is begun with a coarser belt unless that is chosen, µm: P120. Source: common practice. */
const COARSEST_ON_AN_EDGE = 125;

/** The belts of a stage that has some; null for the others. */
function beltsOf(
  stage: Stage,
  { route, shop, area, takes, removed, isSoft, isOneSided }: Work,
): Rung["belts"] {
  const plan = (on: Surface, from: number, to: number, depth: number | null, coarsest?: number) => {
    const whole = areaOn(area, on, stage.edge);
    if (whole < SMALLEST) return null;
    const job: Job = {
      ...ratesOf(shop),
      // One of two sides is half of it.
      area: stage.side === undefined || isOneSided ? whole : whole / 2,
      from,
      to,
      depth,
      isSoft,
      ...(coarsest === undefined ? {} : { coarsest }),
    };
    return {
      on,
      job,
      planned: stage.belts
        ? inOrder(stage.belts, shop, job)
        : planSequence(shop.abrasives.filter(isBelt), job),
    };
  };
  const { coarse, finish } = route;
  switch (stage.kind) {
    case "rough":
      return removed > 0 ? plan("bevels", 0, coarse, removed / areaOn(area, "bevels", stage.edge)) : null;
    case "finish":
      return plan("bevels", 0, coarse, takes.faces);
    case "grits":
      return finish.bevels < coarse ? plan("bevels", coarse, finish.bevels, null) : null;
    case "flats":
      return plan("flats", 0, coarse, removed > 0 ? removed / area.flats : null);
    case "sharpen":
      // No coarser than what its bevel was left at: a deeper scratch in the edge is a notch.
      return removed > 0
        ? plan(
            "edge",
            0,
            finish.edge,
            removed / areaOn(area, "edge", stage.edge),
            Math.min(COARSEST_ON_AN_EDGE, finish.bevels),
          )
        : null;
    case "true":
      return takes.flats > SMALLEST_DEPTH ? plan("flats", 0, finish.flats, takes.flats) : null;
    case "own":
      return ownBelts(stage, takes, coarse, plan);
    default:
      return null;
  }
}

/** A stage of the maker's own is worked with the belts it names, else with what its depth asks down to the coarse ones. */
function ownBelts(
  stage: Stage,
  takes: Takes,
  coarse: number,
  plan: (on: Surface, from: number, to: number, depth: number | null) => Rung["belts"],
): Rung["belts"] {
  const on = workedOn(stage);
  const depth = on === "flats" ? takes.flats : takes.faces;
  return stage.tool === undefined && (on === "flats" || on === "bevels") && depth > 0
    ? plan(on, 0, coarse, depth)
    : null;
}

/** The maker's own order, as far as the stores still know its belts; it ends where it ends. */
function inOrder(ids: readonly string[], { abrasives }: Shop, job: Job): Planned {
  const belts = ids.flatMap((id) => abrasives.find((one) => one.id === id) ?? []);
  if (belts.length < ids.length)
    return { ok: false, why: "A belt of this order is no longer in the stores." };
  return followed(belts, job);
}
