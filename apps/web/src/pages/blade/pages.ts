import { type ComponentType, type LazyExoticComponent, lazy } from "react";

export interface BladePage {
  readonly path: string;
  readonly name: string;
  readonly Page: LazyExoticComponent<ComponentType>;
  /** What is wrong with the work is told on the page itself; the tray tells of the blade as it is drawn. */
  readonly isOfWork?: true;
}

/** The pages of a blade in working order: what is decided first stands first. Each is fetched when it is gone to. */
export const BLADE_PAGES: readonly BladePage[] = [
  {
    path: "shape",
    name: "Shape",
    Page: lazy(() => import("../shape/ShapePage.tsx").then((module) => ({ default: module.ShapePage }))),
  },
  {
    path: "grind",
    name: "Grind",
    Page: lazy(() => import("../grind/GrindPage.tsx").then((module) => ({ default: module.GrindPage }))),
  },
  {
    path: "route",
    name: "Route",
    Page: lazy(() => import("../route/RoutePage.tsx").then((module) => ({ default: module.RoutePage }))),
  },
  {
    path: "check",
    name: "Check",
    isOfWork: true,
    Page: lazy(() => import("../check/CheckPage.tsx").then((module) => ({ default: module.CheckPage }))),
  },
  {
    path: "log",
    name: "Log",
    isOfWork: true,
    Page: lazy(() => import("../log/LogPage.tsx").then((module) => ({ default: module.LogPage }))),
  },
];
