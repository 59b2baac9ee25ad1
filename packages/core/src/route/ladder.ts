import { type Job, type Planned, planSequence } from "../abrasive/sequence.ts";
import { placeAt } from "../blade/chain.ts";
import { compileField, thicknessAt } from "../blade/field.ts";
import type { Blade } from "../blade/schema.ts";
import type { PerSide } from "../blade/station.ts";
import { constant, type Table } from "../blade/table.ts";
import type { Shop } from "../shop/schema.ts";
import { areasOf, type Surface } from "./areas.ts";
import type { Route, StageKind } from "./schema.ts";
import { finishedSteel, type Otherwise, Steel } from "./steel.ts";
import { ratesOf, type Taking, takingOf } from "./take.ts";

/** A stage of a blade: its steel when it is done, and what is known of it. */
export interface StageSteel {
  /** The stage's own name on its route. */
  readonly id: string;
  readonly kind: StageKind;
  readonly steel: Steel;
  readonly finished: Steel;
  /** Still to come off after this stage: each bevel face square to it, and each flat, mm. */
  readonly left: { readonly faces: number; readonly flats: number };
  /** What must still be found on each face whatever is spared: the finer belts, the hand, the oven's skin, mm. */
  readonly needed: number;
  readonly isBevelled: boolean;
  readonly isSharpened: boolean;
  readonly isHard: boolean;
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

let last: { blade: Blade; route: Route; shop: Shop; rungs: readonly Rung[] } | null = null;

/**
 * The stages of a route worked out backwards from the finished blade: what each still has to leave for those after it, and so what
 * its steel is; first to last. What was chosen drives it; nothing is given twice. The blade must be sound; a stage that thin steel
 * cannot hold is its field's own fault. The same blade, route and shop are worked out once.
 */
export function ladderOf(blade: Blade, route: Route, shop: Shop): readonly Rung[] {
  if (last?.blade === blade && last.route === route && last.shop === shop) return last.rungs;
  const rungs = workedOut(blade, route, shop);
  last = { blade, route, shop, rungs };
  return rungs;
}

function workedOut(blade: Blade, route: Route, shop: Shop): Rung[] {
  const finished = finishedSteel(blade);
  const area = areasOf(finished);
  const kinds = route.stages.map((stage) => stage.kind);
  const taking = takingOf(route, shop, area);
  const isSteep = hasSteepBevel(finished);
  const known = new Map<string, Steel>();
  const stages = route.stages.map(({ id, kind }, i): StageSteel => {
    const later = kinds.slice(i + 1);
    const left = leftFor(later, taking);
    const isDone = (stage: StageKind) => kinds.slice(0, i + 1).includes(stage);
    const isLast = later.length === 0;
    const isBevelled = isLast || isDone("rough") || isDone("finish");
    const isTrue = isBevelled || isDone("flats") || isDone("true");
    const edgeBevel = isLast || isDone("sharpen");
    // Many stages leave the steel as they found it: what is the same is worked out once.
    const marks = [left, isBevelled, isTrue, isDone("forge"), isDone("finish"), edgeBevel];
    const key = JSON.stringify(marks);
    let steel = known.get(key);
    if (!steel) {
      const bar = isDone("forge") ? forged(blade, route, left.flats) : [{ x: 0, t: route.stock }];
      steel = new Steel(blade, {
        still: {
          flats: left.flats,
          faces: onBoth(left.faces),
          edgeBevel,
          falseEdge: isLast || isDone("finish"),
        },
        isBevelled,
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
      needed: neededAfter(left.faces, later, taking, route),
      isBevelled,
      isSharpened: edgeBevel,
      isHard: isLast || isDone("harden"),
    };
  });
  return stages.map((stage, i): Rung => {
    const before = stages[i - 1];
    const removed = before ? before.steel.volume - stage.steel.volume : 0;
    return { ...stage, belts: beltsOf(stage.kind, { route, shop, area, taking, removed }) };
  });
}

/** The same on both sides, so that a field knows them for alike. */
function onBoth(value: number): PerSide<Table> {
  const table = constant(value);
  return { left: table, right: table };
}

function leftFor(later: readonly StageKind[], taking: Taking): StageSteel["left"] {
  const sum = (of: "faces" | "flats") => later.reduce((all, kind) => all + (taking[kind]?.[of] ?? 0), 0);
  return { faces: sum("faces"), flats: sum("flats") };
}

/** Before the finish bevels what they leave for those after them is needed, and the skin while the oven is still to come. */
function neededAfter(faces: number, later: readonly StageKind[], taking: Taking, route: Route): number {
  const finish = later.indexOf("finish");
  if (finish < 0) return faces;
  return leftFor(later.slice(finish + 1), taking).faces + (later.includes("harden") ? route.skin : 0);
}

/**
 * The steel of one stage of a route by its id; of the finished blade where there is no route, or no such stage.
 */
export function stageSteel(blade: Blade, route: Route | null, shop: Shop, id: string): StageSteel {
  const rung =
    route && route.stages.length > 0 ? ladderOf(blade, route, shop).find((one) => one.id === id) : undefined;
  if (rung) return rung;
  const finished = finishedSteel(blade);
  return {
    id,
    kind: "sharpen",
    steel: finished,
    finished,
    left: { faces: 0, flats: 0 },
    needed: 0,
    isBevelled: true,
    isSharpened: true,
    isHard: true,
  };
}

/** What a forged blank has on its flats beside what is planned to come off, mm in all. Starting value. */
const FORGED_EXTRA = 0.8;

/** A forged blank is tapered already, and no thicker than the bar it came from. */
function forged(blade: Blade, { stock }: Route, flats: number): Blade["thickness"] {
  return blade.thickness.map(({ x, t }) => ({
    x,
    t: Math.max(t, Math.min(stock, t + 2 * flats + FORGED_EXTRA)),
  }));
}

const LOOKS = 150;

/**
 * Whether a bevel is anywhere steeper than the edge bevel: carried on to the apex it passes below the finished edge, so
 * such stages are held up to the finished steel, as nobody grinds past it.
 */
function hasSteepBevel({ field }: Steel): boolean {
  const none = onBoth(0);
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
  readonly area: Readonly<Record<Surface, number>>;
  readonly taking: Taking;
  /** mm³. */
  readonly removed: number;
}

/** A surface smaller than this is none, mm². */
const SMALLEST = 1;

/** The belts of a stage that has some; null for the others. */
function beltsOf(kind: StageKind, { route, shop, area, taking, removed }: Work): Rung["belts"] {
  const plan = (on: Surface, from: number, to: number, depth: number | null) => {
    if (area[on] < SMALLEST) return null;
    const job: Job = { ...ratesOf(shop), area: area[on], from, to, depth };
    return { on, job, planned: planSequence(shop.abrasives, job) };
  };
  const { coarse, finish } = route;
  switch (kind) {
    case "rough":
      return removed > 0 ? plan("bevels", 0, coarse, removed / area.bevels) : null;
    case "finish":
      return plan("bevels", 0, coarse, taking.finish!.faces);
    case "grits":
      return finish.bevels < coarse ? plan("bevels", coarse, finish.bevels, null) : null;
    case "flats":
      return plan("flats", 0, coarse, removed > 0 ? removed / area.flats : null);
    case "sharpen":
      return removed > 0 ? plan("edge", 0, finish.edge, removed / area.edge) : null;
    case "true":
      return plan("flats", 0, finish.flats, taking.true!.flats);
    default:
      return null;
  }
}
