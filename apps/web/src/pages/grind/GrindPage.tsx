import { useCallback } from "react";
import type { SidePlace } from "../../rail/side-place.ts";
import { BladeStrips } from "../blade/BladeStrips.tsx";
import { GrindControls } from "./GrindControls.tsx";
import { GrindHandles } from "./GrindHandles.tsx";

/** Bevels, plunges and the edge: drawn, and by numbers. */
export function GrindPage() {
  const handles = useCallback((place: SidePlace) => <GrindHandles place={place} />, []);
  return (
    <BladeStrips handles={handles}>
      <GrindControls />
    </BladeStrips>
  );
}
