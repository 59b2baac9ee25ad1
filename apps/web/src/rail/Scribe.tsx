import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../app/settings.ts";
import { useRail } from "../blade/screen.ts";
import { AXIS_HEIGHT } from "./Axis.tsx";
import type { Scale } from "./scale.ts";

/** The one line through all strips, and where it stands on the ruler under them. */
export function Scribe({ scale, height }: { scale: Scale; height: number }) {
  const unit = useSettings((settings) => settings.unit);
  const scribe = useRail((state) => state.scribe);
  const x = scale.px(scribe);
  if (x < -1 || x > scale.width + 1) return null;
  const label = showLength(scribe, unit, unit === "mm" ? 1 : undefined);
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Scribe"
      aria-orientation="horizontal"
      aria-valuemin={Math.round(scale.from)}
      aria-valuemax={Math.round(scale.to)}
      aria-valuenow={scribe}
      aria-valuetext={`${label} ${unit} from the junction`}
      className="pointer-events-none absolute top-0 -translate-x-1/2 outline-offset-0"
      style={{ left: x, height }}
    >
      <div className="mx-auto w-px bg-scribe" style={{ height: height - AXIS_HEIGHT + 7 }} />
      <div className="mx-auto rounded-sm bg-scribe px-1.5 text-[12px] leading-5 font-bold text-[#1b0d08]">
        {label}
      </div>
    </div>
  );
}
