import type { ComponentType } from "react";
import type { SidePlace } from "../../rail/SideView.tsx";
import { CheckPage } from "../check/CheckPage.tsx";
import { GrindControls } from "../grind/GrindControls.tsx";
import { GrindHandles } from "../grind/GrindHandles.tsx";
import { LogPage } from "../log/LogPage.tsx";
import { RoutePage } from "../route/RoutePage.tsx";
import { ShapeControls } from "../shape/ShapeControls.tsx";
import { ShapeHandles } from "../shape/ShapeHandles.tsx";

/** A page over the blade's strips has controls and handles; one with a picture of its own fills all below the header. */
export type BladePage = { readonly path: string; readonly name: string } & (
  | { readonly Controls: ComponentType; readonly Handles: ComponentType<{ place: SidePlace }> }
  | { readonly Page: ComponentType; readonly isOfWork?: true }
);

/** The pages of a blade in working order: what is decided first stands first. */
export const BLADE_PAGES: readonly BladePage[] = [
  { path: "shape", name: "Shape", Controls: ShapeControls, Handles: ShapeHandles },
  { path: "grind", name: "Grind", Controls: GrindControls, Handles: GrindHandles },
  { path: "route", name: "Route", Page: RoutePage },
  { path: "check", name: "Check", Page: CheckPage, isOfWork: true },
  { path: "log", name: "Log", Page: LogPage, isOfWork: true },
];
