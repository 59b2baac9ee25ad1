import type { Blade } from "../blade/schema.ts";
import { USUAL_RECIPE, usualOp } from "../heat/recipe.ts";
import { HEAT_KINDS, type Heat, type HeatKind, type HeatOp } from "../heat/schema.ts";
import type { HeatRecipe } from "../heat/shop.ts";
import { knownOf } from "../heat/steel.ts";
import type { Route, Stage, StageKind } from "./schema.ts";
import { withStage } from "./stages.ts";

export const isHeat = (kind: StageKind): kind is HeatKind => (HEAT_KINDS as readonly string[]).includes(kind);

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
  return { ...route, stages: hardenNamed(withKinds(route.stages, USUAL_RECIPE)) };
}

/** Stages with at least as many of each kind as are wanted, each more one at its usual place. */
function withKinds(stages: readonly Stage[], wanted: readonly HeatKind[]): Stage[] {
  let all = [...stages];
  for (const kind of new Set(wanted)) {
    const has = all.filter((stage) => stage.kind === kind).length;
    for (let n = has; n < wanted.filter((one) => one === kind).length; n++) all = withStage(all, kind);
  }
  return all;
}

const hardenNamed = (stages: readonly Stage[]) =>
  stages.map((stage) => (stage.kind === "harden" && !stage.name ? { ...stage, name: "Harden" } : stage));

/** The heats of a blade as a recipe of the shop. */
export function recipeOf(
  ops: readonly HeatOp[],
  { id, name, steel }: Pick<HeatRecipe, "id" | "name" | "steel">,
): HeatRecipe {
  return { id, name, ...(steel ? { steel } : {}), ops: ops.map(({ id: _, ...op }) => op) };
}

/**
 * A recipe laid over a route: each of its heats a stage, kind by kind in its order; stages of those kinds that it has no heat for go, but for
 * what is done. What is done keeps its heat as it was.
 */
export function withRecipe(
  blade: Blade,
  route: Route,
  heat: Heat,
  { ops }: HeatRecipe,
): { route: Route; heat: Heat } {
  const left = [...ops];
  const wanted = ops.map(({ kind }) => kind);
  const taken = new Map<string, HeatOp>();
  const standing = opsOf(route, heat, blade);
  const stages = withKinds(route.stages, wanted).filter((stage) => {
    if (!isHeat(stage.kind)) return true;
    const next = left.findIndex(({ kind }) => kind === stage.kind);
    const [op] = next < 0 ? [] : left.splice(next, 1);
    const id = stage.id!;
    const was = standing.find((one) => one.id === id);
    if (stage.done && was) taken.set(id, was);
    else if (op) taken.set(id, { id, ...op });
    return stage.done !== undefined || op !== undefined;
  });
  return {
    route: { ...route, stages: wanted.includes("temper") ? hardenNamed(stages) : stages },
    heat: { ...heat, ops: stages.flatMap(({ id }) => taken.get(id ?? "") ?? []) },
  };
}

/** A route without any fire: the blade stays as soft as it is. */
export function withoutHeats(route: Route): Route {
  return { ...route, stages: route.stages.filter(({ kind }) => !isHeat(kind)) };
}

/** Whether a route leads to an edge and never hardens it. */
export function staysSoft({ stages }: Pick<Route, "stages">): boolean {
  return stages.length > 0 && !stages.some(({ kind }) => kind === "harden");
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
