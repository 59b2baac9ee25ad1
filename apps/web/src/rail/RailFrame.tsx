import { type ReactNode, useMemo } from "react";
import { fieldOf } from "../blade/derived.ts";
import { useFile, useRail } from "../blade/screen.ts";
import { AXIS_HEIGHT, Axis } from "./Axis.tsx";
import { Scribe } from "./Scribe.tsx";
import { ScribePad } from "./ScribePad.tsx";
import { type Scale, scaleFor } from "./scale.ts";
import { useSize } from "./useSize.ts";
import { fittedView } from "./zoom.ts";

const MARGIN = { left: 64, right: 28 };

export interface Frame {
  /** The x axis that all strips share. */
  readonly scale: Scale;
  /** What the strips have for their heights together, px. */
  readonly room: number;
}

/** Strips of the open blade, one above the other on one x axis, with the scribe through all of them. */
export function RailFrame({ children }: { children: (frame: Frame) => ReactNode }) {
  const file = useFile();
  const fit = useRail((state) => state.fit);
  const near = useRail((state) => state.view);
  const [ref, size] = useSize<HTMLDivElement>();
  const all = fittedView(fieldOf(file).ring, fit);
  const { from, to } = near ?? all;
  const width = Math.max(200, size.width);
  // The same scale object while it is the same scale: the axis and the grid are then not drawn again.
  const scale = useMemo(() => scaleFor(from, to, width, MARGIN), [from, to, width]);
  return (
    <div ref={ref} className="relative h-full touch-none overflow-hidden select-none">
      {size.width > 0 && (
        <ScribePad scale={scale} all={all}>
          {children({ scale, room: Math.max(0, size.height - AXIS_HEIGHT) })}
          <Axis scale={scale} />
          <Scribe scale={scale} height={size.height} />
        </ScribePad>
      )}
    </div>
  );
}
