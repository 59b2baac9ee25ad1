import type { Blade } from "@true-spine/core/blade/schema.ts";
import { stationAtX } from "@true-spine/core/blade/station.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../app/settings.ts";
import { fieldOf } from "../blade/derived.ts";
import { useFile, useRail } from "../blade/screen.ts";
import { useEdit } from "../blade/useEdit.ts";
import { DrawnValue } from "./DrawnValue.tsx";
import type { SidePlace } from "./side-place.ts";

/** The grind line's height at the scribe, as a dimension square to the edge. */
export function ScribeMark({ place }: { place: SidePlace }) {
  const unit = useSettings((settings) => settings.unit);
  const x = useRail((state) => state.scribe);
  const file = useFile();
  const { edit } = useEdit();
  const station = stationAtX(fieldOf(file), x);
  const { right } = file.bevels;
  // To the spine, or by angle, the line is a result: it is changed by what makes it.
  const isSet = right.kind !== "none" && right.set === "height";
  const height = station?.right.grindLine ?? null;
  if (!station || height === null) return null;
  const { px, py } = place;
  const at = (s: number) =>
    [px(station.x + station.inward[0] * s), py(station.y + station.inward[1] * s)] as const;
  const [x0, y0] = at(0);
  const [x1, y1] = at(height);
  const [xm, ym] = at(height * 0.45);
  return (
    <g>
      <line x1={x0} y1={y0} x2={x1} y2={y1} stroke="var(--color-scribed)" strokeWidth={1} />
      <rect x={xm + 7} y={ym - 11} width={50} height={20} rx={2} fill="var(--color-layout)" />
      {isSet ? (
        <DrawnValue
          x={xm + 32}
          y={ym + 4}
          mm={height}
          places={1}
          label="Grind line at the scribe"
          onCommit={(mm) => edit((copy) => moveLine(copy, mm - height))}
        />
      ) : (
        <text x={xm + 32} y={ym + 4} textAnchor="middle" className="fill-scribed text-[13px] font-medium">
          {showLength(height, unit, unit === "mm" ? 1 : undefined)}
        </text>
      )}
    </g>
  );
}

/** The whole grind line of the right side up or down. */
function moveLine(copy: Blade, by: number): void {
  const { right } = copy.bevels;
  if (right.kind === "none" || right.set !== "height") return;
  for (const row of right.height) row.h = Math.round((row.h + by) * 1000) / 1000;
}
