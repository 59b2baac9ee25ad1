import { ringPoints } from "@true-spine/core/blade/outline.ts";
import { fieldOf } from "../blade/derived.ts";
import { useFile } from "../blade/screen.ts";
import { pathThrough } from "./scale.ts";
import type { SidePlace } from "./side-place.ts";

/** The open blade's outline on layout blue, for what is drawn over it. */
export function BladeOutline({ place: { px, py } }: { place: SidePlace }) {
  const { ring } = fieldOf(useFile());
  return (
    <path
      d={pathThrough(ringPoints(ring), px, py, true)}
      fill="var(--color-layout-steel)"
      stroke="var(--color-scribed)"
      strokeWidth={1.3}
    />
  );
}
