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
  const route = named(value as Route);
  const kinds = route.stages.map((stage) => stage.kind);
  const twice = kinds.flatMap((kind, i) =>
    kinds.indexOf(kind) < i
      ? [{ path: pathOf("stages", i, "kind"), message: `“${kind}” stands in the route already` }]
      : [],
  );
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
  const all = [...twice, ...sameName, ...fine];
  return all.length > 0 ? { ok: false, faults: all } : { ok: true, route };
}

/** Stages of a file from before they had names of their own are named by their kind. */
function named(route: Omit<Route, "stages"> & { stages: (Omit<Stage, "id"> & { id?: string })[] }): Route {
  const isNamed = route.stages.every(({ id }) => id !== undefined);
  if (isNamed) return route as Route;
  return { ...route, stages: route.stages.map((stage) => ({ ...stage, id: stage.id ?? stage.kind })) };
}
