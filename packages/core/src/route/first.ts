import { thickestOf } from "../blade/measure.ts";
import type { Blade } from "../blade/schema.ts";
import { BARS, mustBeForged } from "./bar.ts";
import { NO_ROUTE, type Route } from "./schema.ts";
import { SCHOOLS, type School, STAGES, withStage } from "./stages.ts";

/** Steel that cleaning the flats of a bar takes, mm in all. Starting value. */
const CLEAN_UP = 0.3;

/**
 * A first route for a blade by one of the schools: on the bar in hand, where there is one, else on the thinnest bar that leaves enough
 * to clean up. A false edge has a stage of its own.
 */
export function firstRoute(blade: Blade, school: School = SCHOOLS[0]!, begun: Route = NO_ROUTE): Route {
  const thickest = thickestOf(blade);
  const stock = begun.bar
    ? begun.stock
    : (BARS.find((bar) => bar >= thickest + CLEAN_UP) ?? Math.round((thickest + CLEAN_UP) * 1000) / 1000);
  const kinds = school.stages.filter((kind) => STAGES[kind].on !== "false edge" || blade.falseEdge);
  const stages = kinds.map((kind) => ({ id: kind, kind }));
  return {
    ...begun,
    school: school.key,
    stock,
    oven: school.oven,
    stages: mustBeForged(blade, begun) ? withStage(stages, "forge") : stages,
  };
}
