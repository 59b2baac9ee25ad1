import { placeAt } from "@true-spine/core/blade/chain.ts";
import { bevelOn, type Side } from "@true-spine/core/blade/schema.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useRef } from "react";
import { useSettings } from "../../app/settings.ts";
import { useFile, useScreen } from "../../blade/context.ts";
import { fieldOf, linesOf } from "../../blade/derived.ts";
import { Handle } from "../../rail/Handle.tsx";
import type { SidePlace } from "../../rail/SideView.tsx";
import { tidy } from "../../rail/SpineView.tsx";
import { pathThrough } from "../../rail/scale.ts";

/** What can be taken hold of on the Grind page: the plunge, its lean, and the grind line's own rows. */
export function GrindHandles({ place }: { place: SidePlace }) {
  const file = useFile();
  const sides: Side[] = file.bevels.left === "same" ? ["right"] : ["left", "right"];
  return (
    <g>
      {sides.map((side) => (
        <SideHandles key={side} side={side} place={place} />
      ))}
    </g>
  );
}

function SideHandles({ side, place }: { side: Side; place: SidePlace }) {
  const file = useFile();
  const unit = useSettings((settings) => settings.unit);
  const { open } = useScreen();
  const start = useRef(file);
  const bevel = bevelOn(file, side);
  if (bevel.kind === "none") return null;
  const { px, py, scale } = place;
  const field = fieldOf(file);
  const line = linesOf(file).plunge[side];
  const top = line?.[line.length - 1];
  const foot = field.plunges[side];
  const named = file.bevels.left === "same" ? "" : `, ${side}`;
  const take = (isStart: boolean) => {
    if (isStart) start.current = open.store.getState().file;
  };
  const bevelThen = () => {
    const then = bevelOn(start.current, side);
    return then.kind === "none" ? null : then;
  };
  const nominal =
    bevel.set === "height"
      ? bevel.height.map((row): [number, number] => {
          const spot = placeAt(field.edge, row.u * field.edge.length);
          return [spot.x - spot.ty * row.h, spot.y + spot.tx * row.h];
        })
      : [];
  return (
    <g>
      {nominal.length > 1 && (
        <path
          d={pathThrough(nominal, px, py)}
          fill="none"
          stroke="var(--color-grind)"
          strokeWidth={1}
          strokeDasharray="1 4"
          opacity={0.8}
        />
      )}
      {top && foot && (
        <>
          <Handle
            shape="round"
            x={px(foot.x)}
            y={py(foot.y)}
            perMm={scale.perMm}
            isVertical={false}
            label={`Plunge foot${named}, ${showLength(bevel.plunge.x, unit)} ${unit} from the junction`}
            onMove={(dx, _, isStart) => {
              take(isStart);
              const then = bevelThen();
              if (dx === 0 || !then) return;
              open.edit((copy) => {
                const target = copy.bevels[side];
                if (target !== "same" && target.kind !== "none") target.plunge.x = tidy(then.plunge.x + dx);
              });
            }}
          />
          <Handle
            shape="round"
            x={px(top[0])}
            y={py(top[1])}
            perMm={scale.perMm}
            isVertical={false}
            label={`Plunge top${named}, leaning ${bevel.plunge.lean}° to the tip`}
            onMove={(dx, _, isStart) => {
              take(isStart);
              const then = bevelThen();
              if (dx === 0 || !then) return;
              const rise = top[1] - foot.y;
              const run = rise * Math.tan((then.plunge.lean * Math.PI) / 180) + dx;
              const lean = Math.round((Math.atan2(run, rise) * 1800) / Math.PI) / 10;
              open.edit((copy) => {
                const target = copy.bevels[side];
                if (target !== "same" && target.kind !== "none") target.plunge.lean = lean;
              });
            }}
          />
        </>
      )}
      {bevel.set === "height" &&
        bevel.height.map((row, i) => {
          const spot = placeAt(field.edge, row.u * field.edge.length);
          const [nx, ny] = [-spot.ty, spot.tx];
          const x = spot.x + nx * row.h;
          const y = spot.y + ny * row.h;
          if (px(x) < -20 || px(x) > scale.width + 20 || py(y) < -20) return null;
          return (
            <Handle
              key={`${row.u}`}
              shape="round"
              x={px(x)}
              y={py(y)}
              perMm={scale.perMm}
              isHorizontal={false}
              label={`Grind line${named} at ${Math.round(row.u * 100)} % of the edge, ${showLength(row.h, unit)} ${unit} up`}
              onMove={(dx, dy, isStart) => {
                take(isStart);
                const then = bevelThen();
                if ((dx === 0 && dy === 0) || !then || then.set !== "height") return;
                const from = then.height[i]!.h;
                open.edit((copy) => {
                  const target = copy.bevels[side];
                  if (target === "same" || target.kind === "none" || target.set !== "height") return;
                  target.height[i]!.h = tidy(Math.max(0, from + dx * nx + dy * ny));
                });
              }}
            />
          );
        })}
    </g>
  );
}
