import { MILLIMETRES_IN, showLength } from "@true-spine/core/units/length.ts";
import { memo } from "react";
import { useSettings } from "../app/settings.ts";
import { type Scale, ticks } from "./scale.ts";

export const AXIS_HEIGHT = 30;

/** The ruler under the strips, from the junction. */
export const Axis = memo(function Axis({ scale }: { scale: Scale }) {
  const unit = useSettings((settings) => settings.unit);
  const inch = unit !== "mm";
  const marks = ticks(scale, 70, inch ? MILLIMETRES_IN.inch / 4 : 1);
  return (
    <svg
      width={scale.width}
      height={AXIS_HEIGHT}
      role="img"
      aria-label="Distance from the junction"
      className="block bg-room"
    >
      {ticks(scale, 18, inch ? MILLIMETRES_IN.inch / 20 : 1).map((x) => (
        <line key={x} x1={scale.px(x)} x2={scale.px(x)} y1={0} y2={5} stroke="var(--color-frame)" />
      ))}
      {marks.map((x) => (
        <g key={x}>
          <line x1={scale.px(x)} x2={scale.px(x)} y1={0} y2={9} stroke="var(--color-ink)" />
          <text x={scale.px(x)} y={23} textAnchor="middle" className="fill-faint text-[11px]">
            {showLength(x, unit, unit === "mm" ? 0 : unit === "inch" ? 2 : 0)}
          </text>
        </g>
      ))}
    </svg>
  );
});
