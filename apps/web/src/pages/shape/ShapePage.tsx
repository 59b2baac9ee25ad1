import { useCallback } from "react";
import type { SidePlace } from "../../rail/side-place.ts";
import { BladeStrips } from "../blade/BladeStrips.tsx";
import { ShapeControls } from "./ShapeControls.tsx";
import { ShapeHandles } from "./ShapeHandles.tsx";

/** The outline, the taper and what is filed and drilled: drawn, and by numbers. */
export function ShapePage() {
  const handles = useCallback((place: SidePlace) => <ShapeHandles place={place} />, []);
  return (
    <BladeStrips handles={handles}>
      <ShapeControls />
    </BladeStrips>
  );
}
