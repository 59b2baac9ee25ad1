import { placeAt } from "@true-spine/core/blade/chain.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { secondBevelOn } from "@true-spine/core/blade/second.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useRef } from "react";
import { useSettings } from "../../app/settings.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useFile, useScreen } from "../../blade/screen.ts";
import { Grip } from "../../rail/Grip.tsx";
import { tidy } from "../../rail/SpineView.tsx";
import type { SidePlace } from "../../rail/side-place.ts";

/** What can be taken hold of on a second edge: where it begins, and its grind line's own rows. */
export function SecondEdgeHandles({ place }: { place: SidePlace }) {
  const file = useFile();
  const unit = useSettings((settings) => settings.unit);
  const { open } = useScreen();
  const start = useRef<Blade["secondEdge"]>(undefined);
  const field = fieldOf(file);
  const { second, spine } = field;
  if (!second || !file.secondEdge) return null;
  const { px, py, scale } = place;
  const take = (isStart: boolean) => {
    if (isStart) start.current = open.store.getState().file.secondEdge;
  };
  const bevel = secondBevelOn(file.secondEdge, "right");
  const begins = placeAt(spine, second.sFrom);
  return (
    <g>
      <Grip
        shape="round"
        x={px(begins.x)}
        y={py(begins.y)}
        perMm={scale.perMm}
        isVertical={false}
        label={`Second edge begins ${showLengthWithUnit(file.secondEdge.from, unit)} from the junction`}
        onMove={(dx, _, isStart) => {
          take(isStart);
          const then = start.current;
          if (dx === 0 || !then) return;
          open.edit((copy) => {
            copy.secondEdge!.from = tidy(then.from + dx);
          });
        }}
      />
      {bevel.kind !== "none" &&
        bevel.set === "height" &&
        bevel.height.map((row, i) => {
          const spot = placeAt(spine, second.sFrom + row.v * (second.sTo - second.sFrom));
          // Into the steel: the spine runs to the tip with the blade to its right.
          const [nx, ny] = [spot.ty, -spot.tx];
          const [x, y] = [spot.x + nx * row.h, spot.y + ny * row.h];
          if (px(x) < -20 || px(x) > scale.width + 20) return null;
          return (
            <Grip
              key={`${row.v}`}
              shape="round"
              x={px(x)}
              y={py(y)}
              perMm={scale.perMm}
              isHorizontal={false}
              label={`Second grind line at ${Math.round(row.v * 100)} % of it, ${showLengthWithUnit(row.h, unit)} down`}
              onMove={(dx, dy, isStart) => {
                take(isStart);
                const then = start.current && secondBevelOn(start.current, "right");
                if ((dx === 0 && dy === 0) || !then || then.kind === "none" || then.set !== "height") return;
                const h = tidy(Math.max(0, then.height[i]!.h + dx * nx + dy * ny));
                open.edit((copy) => {
                  const own = copy.secondEdge!.bevels.right;
                  if (own.kind !== "none" && own.set === "height") own.height[i]!.h = h;
                });
              }}
            />
          );
        })}
    </g>
  );
}
