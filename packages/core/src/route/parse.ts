import { faultsOf } from "../document/explain.ts";
import { type Fault, pathOf } from "../document/fault.ts";
import { validatorOf } from "../document/validator.ts";
import { type Route, RouteSchema, type Stage } from "./schema.ts";

const validate = validatorOf(RouteSchema);

/** A sound route, or every fault found with its path. Never throws. */
export function parseRoute(
  value: unknown,
): { ok: true; route: Route } | { ok: false; faults: readonly Fault[] } {
  const faults = faultsOf(validate, value);
  if (faults.length > 0) return { ok: false, faults };
  const route = withStageIds(value as Route);
  const ids = route.stages.map((stage) => stage.id);
  const sameName = ids.flatMap((id, i) =>
    ids.indexOf(id) < i
      ? [{ path: pathOf("stages", i, "id"), message: `“${id}” is another stage's name already` }]
      : [],
  );
  const fine =
    route.finish.bevels > route.coarse
      ? [{ path: pathOf("finish", "bevels"), message: `must be no coarser than coarse, ${route.coarse}` }]
      : [];
  const all = [...sameName, ...fine];
  return all.length > 0 ? { ok: false, faults: all } : { ok: true, route };
}

/** A route as it stands, with its stages under names of their own. */
type Unnamed = Omit<Route, "stages"> & { stages: (Omit<Stage, "id"> & { id?: string })[] };

/** Stages of a file from before they had names of their own are named by their kind. */
export function withStageIds(route: Unnamed): Route {
  const isNamed = route.stages.every(({ id }) => id !== undefined);
  return isNamed ? (route as Route) : { ...route, stages: route.stages.map(withStageId) };
}

export function withStageId(stage: Omit<Stage, "id"> & { id?: string }): Stage {
  return { ...stage, id: stage.id ?? stage.kind };
}
