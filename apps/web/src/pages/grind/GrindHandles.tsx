import { placeAt } from "@true-spine/core/blade/chain.ts";
import { bevelOn, SIDES, type Side } from "@true-spine/core/blade/schema.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useRef } from "react";
import { useSettings } from "../../app/settings.ts";
import { fieldOf, linesOf } from "../../blade/derived.ts";
import { leanPlunge, movePlunge, raiseLine } from "../../blade/move-bevel.ts";
import { useFile, useRail, useScreen } from "../../blade/screen.ts";
import { Grip } from "../../rail/Grip.tsx";
import { pathThrough } from "../../rail/scale.ts";
import type { SidePlace } from "../../rail/side-place.ts";
import { SecondEdgeHandles } from "./SecondEdgeHandles.tsx";

/** What can be taken hold of on the Grind page: the plunge, its lean, and the grind line's own rows. */
export function GrindHandles({ place }: { place: SidePlace }) {
  const file = useFile();
  const sides: Side[] = file.bevels.left === "same" ? ["right"] : ["left", "right"];
  return (
    <g>
      {sides.map((side) => (
        <SideHandles key={side} side={side} place={place} />
      ))}
      {file.secondEdge && <SecondEdgeHandles place={place} />}
    </g>
  );
}

function SideHandles({ side, place }: { side: Side; place: SidePlace }) {
  const file = useFile();
  const unit = useSettings((settings) => settings.unit);
  const { open } = useScreen();
  const start = useRef(file);
  const bevel = bevelOn(file, side);
  const { px, py, scale } = place;
  const field = fieldOf(file);
  const line = linesOf(file).plunge[side];
  const top = line?.[line.length - 1];
  const foot = field.plunges[side];
  const isTogether = useRail((state) => state.sides) === "together";
  const moved: readonly Side[] = isTogether ? SIDES : [side];
  if (bevel.kind === "none") return null;
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
          <Grip
            shape="round"
            x={px(foot.x)}
            y={py(foot.y)}
            perMm={scale.perMm}
            isVertical={false}
            label={`Plunge foot${named}, ${showLengthWithUnit(bevel.plunge.x, unit)} from the junction`}
            onMove={(dx, _, isStart) => {
              take(isStart);
              const then = bevelThen();
              if (dx !== 0 && then) open.edit((copy) => movePlunge(copy, start.current, moved, dx));
            }}
          />
          <Grip
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
              const lean = (Math.atan2(run, rise) * 180) / Math.PI;
              open.edit((copy) => leanPlunge(copy, start.current, moved, lean - then.plunge.lean));
            }}
          />
        </>
      )}
      {bevel.set === "height" &&
        bevel.height.map((row) => {
          const spot = placeAt(field.edge, row.u * field.edge.length);
          const [nx, ny] = [-spot.ty, spot.tx];
          const x = spot.x + nx * row.h;
          const y = spot.y + ny * row.h;
          if (px(x) < -20 || px(x) > scale.width + 20 || py(y) < -20) return null;
          return (
            <Grip
              key={`${row.u}`}
              shape="round"
              x={px(x)}
              y={py(y)}
              perMm={scale.perMm}
              isHorizontal={false}
              label={`Grind line${named} at ${Math.round(row.u * 100)} % of the edge, ${showLengthWithUnit(row.h, unit)} up`}
              onMove={(dx, dy, isStart) => {
                take(isStart);
                const then = bevelThen();
                if ((dx === 0 && dy === 0) || !then) return;
                open.edit((copy) => raiseLine(copy, start.current, moved, row.u, dx * nx + dy * ny));
              }}
            />
          );
        })}
    </g>
  );
}
