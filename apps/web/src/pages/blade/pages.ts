import type { Route } from "@true-spine/core/route/schema.ts";
import { useDocument } from "../../blade/screen.ts";
import { type Later, later } from "../../parts/later.ts";

export interface BladePage {
  readonly path: string;
  readonly name: string;
  readonly Page: Later;
  /** What is wrong with the work is told on the page itself; the tray tells of the blade as it is drawn. */
  readonly isOfWork?: true;
  /** Whether a blade with this route needs it; absent: every blade does. */
  readonly isNeeded?: (route: Route) => boolean;
  /** The page it is opened from, where it has no place and no digit of its own. */
  readonly under?: string;
}

/** The pages of a blade in working order: what is decided first stands first. Each is fetched when it is gone to, or when the first has been shown. */
export const BLADE_PAGES: readonly BladePage[] = [
  {
    path: "shape",
    name: "Shape",
    Page: later(async () => (await import("../shape/ShapePage.tsx")).ShapePage),
  },
  {
    path: "grind",
    name: "Grind",
    Page: later(async () => (await import("../grind/GrindPage.tsx")).GrindPage),
  },
  {
    path: "forge",
    name: "Forge",
    isNeeded: ({ stages }) => stages.some(({ kind }) => kind === "forge"),
    Page: later(async () => (await import("../forge/ForgePage.tsx")).ForgePage),
  },
  {
    path: "route",
    name: "Route",
    Page: later(async () => (await import("../route/RoutePage.tsx")).RoutePage),
  },
  {
    path: "heat",
    name: "Heat",
    isNeeded: ({ stages }) => stages.some(({ kind }) => kind === "harden"),
    Page: later(async () => (await import("../heat/HeatPage.tsx")).HeatPage),
  },
  {
    path: "check",
    name: "Check",
    isOfWork: true,
    Page: later(async () => (await import("../check/CheckPage.tsx")).CheckPage),
  },
  {
    path: "straight",
    name: "Straight",
    isOfWork: true,
    under: "check",
    Page: later(async () => (await import("../straight/StraightPage.tsx")).StraightPage),
  },
  {
    path: "edge",
    name: "Edge",
    isOfWork: true,
    Page: later(async () => (await import("../edge/EdgePage.tsx")).EdgePage),
  },
  {
    path: "log",
    name: "Log",
    isOfWork: true,
    Page: later(async () => (await import("../log/LogPage.tsx")).LogPage),
  },
];

/** The pages that a route asks for, in working order. */
export const pagesFor = (route: Route) =>
  BLADE_PAGES.filter(({ isNeeded, under }) => !under && (!isNeeded || isNeeded(route)));

/** Pages opened from others, without a digit. */
export const PAGES_UNDER = BLADE_PAGES.filter(({ under }) => under);

/** The pages of the open blade. */
export function usePages(): readonly BladePage[] {
  return pagesFor(useDocument("route"));
}
