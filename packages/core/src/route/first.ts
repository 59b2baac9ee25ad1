import type { Blade } from "../blade/schema.ts";
import { NO_ROUTE, type Route } from "./schema.ts";
import { SCHOOLS, type School } from "./stages.ts";

/** Standard thicknesses of bar, mm. Source: common practice, eighths and sixteenths of an inch and whole millimetres. */
export const BARS = [
  1, 1.5, 2, 2.5, 3, 3.2, 3.5, 4, 4.5, 4.8, 5, 5.5, 6, 6.4, 7, 8, 9.5, 10, 12, 12.7, 16, 19, 25,
] as const;

/** Steel that cleaning the flats of a bar takes, mm in all. Starting value. */
const CLEAN_UP = 0.3;

/** A first route for a blade by one of the schools, on the thinnest bar that leaves enough to clean up. */
export function firstRoute(blade: Blade, school: School = SCHOOLS[0]!): Route {
  const thickest = Math.max(...blade.thickness.map((row) => row.t));
  const stock = BARS.find((bar) => bar >= thickest + CLEAN_UP) ?? thickest + CLEAN_UP;
  return {
    ...NO_ROUTE,
    stock: Math.round(stock * 1000) / 1000,
    oven: school.oven,
    stages: school.stages.map((kind) => ({ id: kind, kind })),
  };
}
