import type { Blade } from "@true-spine/core/blade/schema.ts";
import { read, table } from "@true-spine/core/blade/table.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { memo, useRef } from "react";
import { useSettings } from "../app/settings.ts";
import { useScreen } from "../blade/screen.ts";
import { useEdit } from "../blade/useEdit.ts";
import { DrawnValue } from "./DrawnValue.tsx";
import { Grip } from "./Grip.tsx";
import type { Scale } from "./scale.ts";

/** How many times the rail's scale thickness is drawn at: as large as the strip lets it be, at most six. */
export function spineTimes(rows: Blade["thickness"], scale: Scale, height: number): number {
  const thickest = Math.max(...rows.map((row) => row.t), 1);
  return Math.max(1, Math.min(6, (height - 52) / (thickest * scale.perMm)));
}

/**
 * Looking down on the spine: thickness over the flats, drawn at a larger scale of its own. Drawn again only when its
 * own figures change.
 */
export const SpineView = memo(function SpineView({
  rows,
  left,
  right,
  scale,
  height,
}: {
  rows: Blade["thickness"];
  /** Where the steel begins and ends, mm along the blade. */
  left: number;
  right: number;
  scale: Scale;
  height: number;
}) {
  const unit = useSettings((settings) => settings.unit);
  const { open } = useScreen();
  const { edit } = useEdit();
  const start = useRef(rows);
  const times = spineTimes(rows, scale, height);
  const middle = height / 2 + 10;
  const thickness = table(
    rows,
    (row) => row.x,
    (row) => row.t,
  );
  const half = (x: number) => (read(thickness, x) / 2) * scale.perMm * times;
  const xs = [left, ...rows.map((row) => row.x).filter((x) => x > left && x < right), right];
  const upper = xs.map((x) => `${scale.px(x)} ${middle - half(x)}`);
  const lower = xs.map((x) => `${scale.px(x)} ${middle + half(x)}`).reverse();
  const places = placeLabels(rows, scale);

  const move = (i: number) => (dx: number, dy: number, isStart: boolean) => {
    if (isStart) start.current = open.store.getState().file.thickness;
    const row = start.current[i]!;
    if (dx === 0 && dy === 0) return;
    open.edit((copy) => {
      copy.thickness[i] = { x: tidy(row.x + dx), t: tidy(row.t + 2 * dy) };
    });
  };

  return (
    <svg
      width={scale.width}
      height={height}
      role="group"
      aria-label="Spine view"
      className="absolute inset-0"
    >
      <path
        d={`M${upper.join("L")}L${lower.join("L")}Z`}
        fill="var(--color-layout-steel)"
        stroke="var(--color-scribed)"
        strokeWidth={1.4}
      />
      <line
        x1={0}
        x2={scale.width}
        y1={middle}
        y2={middle}
        stroke="var(--color-scribed-faint)"
        strokeDasharray="10 3 2 3"
        strokeWidth={0.8}
        opacity={0.6}
      />
      {rows.map((row, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a point is its position in the table; a key by place would drop it mid-drag
        <g key={i}>
          <Grip
            x={scale.px(row.x)}
            y={middle - half(row.x)}
            perMm={scale.perMm}
            perMmUp={scale.perMm * times}
            label={`Thickness at ${showLengthWithUnit(row.x, unit)}: ${showLengthWithUnit(row.t, unit)}`}
            onMove={move(i)}
          />
          {/* Over the handle, whose reach for thumbs would else cover it. */}
          {places[i] && (
            <DrawnValue
              x={scale.px(row.x)}
              y={middle - half(row.x) - 9}
              anchor={places[i]}
              mm={row.t}
              label={`Thickness at ${showLength(row.x, unit)}`}
              onCommit={(mm) =>
                edit((copy) => {
                  copy.thickness[i]!.t = mm;
                })
              }
            />
          )}
        </g>
      ))}
    </svg>
  );
});

/** Which values can be written without running into one another; those out of sight, and every crowded one, are left to hover. */
function placeLabels(rows: Blade["thickness"], scale: Scale): (("start" | "middle" | "end") | null)[] {
  let free = 90;
  return rows.map((row) => {
    const x = scale.px(row.x);
    if (x < 0 || x > scale.width) return null;
    const anchor = x < 24 ? "start" : x > scale.width - 24 ? "end" : "middle";
    const left = anchor === "start" ? x : anchor === "end" ? x - 40 : x - 20;
    if (left < free) return null;
    free = left + 44;
    return anchor;
  });
}

/** To a thousandth of a millimetre: finer than any hand or caliper, and readable in the file. */
export function tidy(mm: number): number {
  return Math.round(mm * 1000) / 1000;
}
