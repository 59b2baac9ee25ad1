import type { Blade } from "@true-spine/core/blade/schema.ts";
import { type RouteReport, reportOf } from "@true-spine/core/route/report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import { expose } from "comlink";

/** Works routes out off the main thread: every stage is a blade of its own. */
const routing = {
  report: (blade: Blade, route: Route, shop: Shop, x: number): RouteReport => reportOf(blade, route, shop, x),
};

export type Routing = typeof routing;

expose(routing);
