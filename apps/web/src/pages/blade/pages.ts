import type { ComponentType } from "react";
import type { SidePlace } from "../../rail/SideView.tsx";
import { GrindControls } from "./GrindControls.tsx";
import { GrindHandles } from "./GrindHandles.tsx";
import { ShapeControls } from "./ShapeControls.tsx";
import { ShapeHandles } from "./ShapeHandles.tsx";

export interface BladePage {
  readonly path: string;
  readonly name: string;
  readonly Controls: ComponentType;
  readonly Handles: ComponentType<{ place: SidePlace }>;
}

/** The pages of a blade in working order: what is decided first stands first. */
export const BLADE_PAGES: readonly BladePage[] = [
  { path: "shape", name: "Shape", Controls: ShapeControls, Handles: ShapeHandles },
  { path: "grind", name: "Grind", Controls: GrindControls, Handles: GrindHandles },
];
